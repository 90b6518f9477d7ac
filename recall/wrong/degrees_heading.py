import math

from ovlo import drawing


@drawing
def shadow(nib):
    nib.left(30)
    nib.forward(140)
    height = 140 * math.sin(nib.heading)  # wrong (degrees-for-radians): height = 140 * math.sin(math.radians(nib.heading))
    nib.travel_to(0, -20)
    nib.turn_to(0)
    nib.rectangle(80, abs(height) + 1)
