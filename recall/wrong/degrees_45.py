import math

from ovlo import drawing


@drawing
def diamond(nib):
    half = 100 * math.cos(45)  # wrong (degrees-for-radians): half = 100 * math.cos(math.radians(45))
    with nib.area("plum"):
        nib.travel_to(half, 0)
        nib.line_to(0, 90)
        nib.line_to(-half, 0)
        nib.line_to(0, -90)
        nib.line_to_start()
