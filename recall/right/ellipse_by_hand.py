import math

from ovlo import drawing


@drawing
def oval(nib):
    nib.travel_to(150, 0)
    for i in range(1, 91):
        t = 2 * math.pi * i / 90
        nib.line_to(150 * math.cos(t), 80 * math.sin(t))
