from math import cos, radians, sin

from ovlo import drawing


@drawing(width=400, height=400)
def ferris_wheel(nib, cabins=12):
    for i in range(cabins):
        angle = radians(360 / cabins * i)
        x, y = 140 * cos(angle), 140 * sin(angle)
        nib.travel_to(0, 0)
        nib.line_to(x, y)
    for i in range(cabins):
        angle = radians(360 / cabins * i)
        x, y = 140 * cos(angle), 140 * sin(angle)
        nib.travel_to(x, x)  # wrong (half-used): nib.travel_to(x, y)
        nib.rectangle(24, 20, fill="gold")
