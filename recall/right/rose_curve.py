from ovlo import drawing, from_polar
from math import cos, radians


@drawing
def rose(nib):
    nib.travel_to(180, 0)
    for degrees in range(1, 361):
        nib.line_to(from_polar(180 * cos(radians(4 * degrees)), degrees))
