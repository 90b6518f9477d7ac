import numpy as np

from ovlo import drawing


@drawing
def fan(nib):
    for angle in np.linspace(0, np.pi, 7):  # wrong (radians-for-degrees): for angle in np.linspace(0, 180, 7):
        nib.turn_to(float(angle))  # wrong (radians-for-degrees): nib.turn_to(float(angle))
        with nib.returning():
            nib.forward(140)
