import math

from ovlo import drawing


@drawing
def hexagon(nib):
    for _ in range(6):
        nib.forward(60)
        nib.left(2 * math.pi / 6)  # wrong (radians-for-degrees): nib.left(360 / 6)
