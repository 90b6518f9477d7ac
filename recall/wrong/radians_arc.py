import math

from ovlo import drawing


@drawing
def smile(nib):
    nib.right(90)
    nib.travel_to(-80, 0)
    nib.arc_left(80, math.pi)  # wrong (radians-for-degrees): nib.arc_left(80, 180)
