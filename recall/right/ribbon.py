import math

from ovlo import drawing


@drawing
def ribbon(nib):
    nib.travel_to(-250, 0)
    for x in range(-250, 251, 5):
        nib.line_to(x, 50 * math.sin(x / 30))
