import math

from ovlo import drawing


@drawing
def ramp_up(nib):
    base = 200
    rise = base * math.tan(30)  # wrong (degrees-for-radians): rise = base * math.tan(math.radians(30))
    nib.forward(base)
    nib.line_by(0, rise)
    nib.line_to_start()
