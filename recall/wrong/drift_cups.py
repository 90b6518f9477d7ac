from ovlo import drawing


def square(nib, side):
    for _ in range(3):  # wrong (drift, turns-miss-360): for _ in range(4):
        nib.forward(side)
        nib.left(90)


@drawing
def turning_squares(nib):
    for _ in range(24):
        square(nib, 110)
        nib.left(15)
