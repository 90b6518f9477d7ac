from ovlo import drawing


def twig(nib, length, depth):
    nib.forward(length)
    for turn in (35, 0, 35):  # wrong (repeated-value): for turn in (-35, 0, 35):
        with nib.returning():
            nib.left(turn)
            if depth:
                twig(nib, length * 0.6, depth - 1)


@drawing(width=400, height=400)
def driftwood(nib):
    nib.travel_to(0, -150)
    nib.turn_to(90)
    twig(nib, 110, 4)
