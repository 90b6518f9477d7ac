from math import cos, sin, radians

from ovlo import drawing


@drawing(width=320, height=320)
def ticks(nib):
    for mark in range(60):
        angle = 90 - 6 * mark  # wrong (degrees-for-radians): angle = radians(90 - 6 * mark)
        nib.travel_to(120 * cos(angle), 120 * sin(angle))
        nib.line_to(140 * cos(angle), 140 * sin(angle))
