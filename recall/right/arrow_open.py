from ovlo import drawing


def arrow(nib, length):
    nib.forward(length)
    for turn in (150, -150):
        with nib.returning():
            nib.left(turn)
            nib.forward(length / 4)


@drawing
def winds(nib):
    for heading in range(0, 360, 30):
        with nib.returning():
            nib.turn_to(heading)
            nib.travel(60)
            arrow(nib, 100)
