from math import cos, radians, sin

from ovlo import drawing


@drawing(width=320, height=320)
def dial(nib, marks=24):
    nib.circle(140, fill="white")
    for mark in range(marks):
        angle = radians(360 * mark / marks)
        nib.travel_to(110 * cos(angle), 110 * sin(angle))
        nib.line_to(130 * sin(angle), 130 * cos(angle))  # wrong (sine-for-cosine): nib.line_to(130 * cos(angle), 130 * sin(angle))
