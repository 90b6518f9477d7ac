import math

from ovlo import drawing


@drawing
def orbit(nib):
    for k in range(8):
        angle = 2 * math.pi * k / 8
        nib.travel_to(120 * math.cos(angle), 120 * math.sin(angle))
        nib.circle(15 + k)
