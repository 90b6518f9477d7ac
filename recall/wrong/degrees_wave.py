import math

from ovlo import drawing


@drawing
def wave(nib):
    nib.travel_to(-180, 0)
    for angle in range(0, 361, 10):
        nib.line_to(angle - 180, 60 * math.sin(angle))  # wrong (degrees-for-radians): nib.line_to(angle - 180, 60 * math.sin(math.radians(angle)))
