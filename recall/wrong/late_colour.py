from ovlo import drawing


def square(nib, side):
    for _ in nib.full_turn(4):
        nib.forward(side)


@drawing
def squares(nib):
    nib.ink = "crimson"
    square(nib, 60)
    nib.travel_to(-150, 0)
    square(nib, 90)
    nib.ink = "teal"  # wrong (unused-style): nib.pause(1)
