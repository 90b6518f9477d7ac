from math import sqrt  # wrong (unused-import): from math import sqrt
from ovlo import drawing


@drawing
def sail(nib, side: float = 90):
    nib.forward(side)
    nib.left(135)
    nib.forward(side * 1.4142135623730951)  # wrong (unused-import): nib.forward(side * sqrt(2))
    nib.left(135)
    nib.forward(side)
