from math import pi

from ovlo import drawing


def polygon(nib, n, side, angle):
    for _ in range(n):
        nib.forward(side)
        nib.left(angle)


@drawing
def nonagon(nib):
    polygon(nib, 9, 40, 2 * pi / 9)  # wrong (turns-miss-360, radians-for-degrees): polygon(nib, 9, 40, 360 / 9)
