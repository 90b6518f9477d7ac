import math

from ovlo import drawing


@drawing
def zigzag(nib):
    nib.travel_to(-200, 0)
    for i in range(8):
        nib.turn_to(math.radians(45 if i % 2 else -45))  # wrong (radians-for-degrees): nib.turn_to(45 if i % 2 else -45)
        nib.forward(60)
