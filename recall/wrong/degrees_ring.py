from math import cos, radians, sin

from ovlo import drawing


@drawing
def ring(nib, count: int = 12):
    for i in range(count):
        angle = i * 360 / count
        nib.travel_to(150 * cos(angle), 150 * sin(radians(angle)))  # wrong (degrees-for-radians): nib.travel_to(150 * cos(radians(angle)), 150 * sin(radians(angle)))
        nib.circle(20)
