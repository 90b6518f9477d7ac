from ovlo import drawing


def twig(nib, length):
    if length < 6:
        return
    nib.forward(length)
    nib.left(30)
    twig(nib, length * 0.6)
    nib.right(60)
    twig(nib, length * 0.6)  # wrong (no-way-back): twig(nib, length * 0.6)
    nib.left(30)
    #+ nib.back(length)


@drawing
def shrub(nib):
    nib.travel_to(0, -150)
    nib.left(90)
    twig(nib, 100)
