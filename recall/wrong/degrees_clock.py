import math

from ovlo import drawing


@drawing
def clock(nib):
    for hour in range(12):
        a = hour * 30
        x, y = 150 * math.cos(a), 150 * math.sin(a)  # wrong (degrees-for-radians): x, y = 150 * math.cos(math.radians(a)), 150 * math.sin(math.radians(a))
        nib.travel_to(x, y)
        nib.circle(8)
