import math

from ovlo import drawing


@drawing
def field(nib):
    for row in range(-150, 151, 15):
        nib.travel_to(-250, row)
        for x in range(-250, 251, 10):
            nib.line_to(x, row + 8 * math.sin(x * 0.05 + row / 40))
