import math

from ovlo import drawing


@drawing
def strings(nib):
    for x, y in [(120, 80), (-100, 120), (60, -150)]:
        nib.travel_to(0, 0)
        nib.turn_to(math.atan2(y, x))  # wrong (radians-for-degrees): nib.aim_at(x, y)
        nib.forward(100)
        nib.circle(6)
