from ovlo import drawing


def storey(nib, w, h):
    nib.forward(w)
    nib.left(90)
    nib.forward(h)
    nib.left(90)
    nib.forward(w)
    nib.left(90)
    nib.forward(h + 12)  # wrong (not-closed): nib.forward(h)
    nib.left(90)


@drawing
def tower(nib):
    for level in range(4):
        nib.travel_to(-60 + 8 * level, -160 + 70 * level)
        storey(nib, 120 - 16 * level, 60)
