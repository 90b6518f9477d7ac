import math

from ovlo import drawing


@drawing
def same_length(nib):
    for radius in (40, 80, 120):
        nib.travel_to(0, -radius)
        nib.turn_to(0)
        nib.arc_left(radius, 360 * 200 / (2 * math.pi * radius))
