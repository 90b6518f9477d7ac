from ovlo import drawing


def plank(nib, width, height):
    nib.forward(width)
    nib.left(90)
    nib.forward(height)
    nib.left(90)
    nib.forward(width)
    nib.left(90)
    nib.forward(width)  # wrong (not-closed): nib.forward(height)
    nib.left(90)


@drawing(paper="wheat")
def jetty(nib):
    nib.ink = "saddlebrown"
    for x in range(-240, 200, 90):
        nib.travel_to(x, -60)
        plank(nib, 70, 25)
