from ovlo import drawing


def levy(nib, length, depth):
    if depth == 0:
        nib.forward(length)
        return
    nib.left(45)
    levy(nib, length / 2**0.5, depth - 1)
    nib.right(90)
    levy(nib, length / 2**0.5, depth - 1)
    nib.left(45)


@drawing
def cloud(nib):
    nib.travel_to(-90, -60)
    levy(nib, 180, 9)
