import math

from ovlo import drawing, from_polar


@drawing
def dots(nib):
    for i in range(60):
        nib.travel_to(from_polar(3 * i, i * math.pi / 8))  # wrong (radians-for-degrees): nib.travel_to(from_polar(3 * i, i * 22.5))
        nib.circle(4)
