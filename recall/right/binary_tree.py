from ovlo import drawing


def limb(nib, length, depth):
    with nib.returning():
        nib.forward(length)
        if depth:
            for turn in (-28, 28):
                with nib.returning():
                    nib.left(turn)
                    limb(nib, length * 0.72, depth - 1)


@drawing
def oak(nib):
    nib.travel_to(0, -200)
    nib.turn_to(90)
    limb(nib, 100, 7)
