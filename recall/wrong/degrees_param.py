from math import sin

from ovlo import drawing


@drawing
def swell(nib, amplitude: float = 40):
    nib.travel_to(-180, 0)
    for degrees in range(0, 721, 10):
        y = amplitude * sin(degrees)  # wrong (degrees-for-radians): from math import radians; y = amplitude * sin(radians(degrees))
        nib.line_to(degrees / 2 - 180, y)
