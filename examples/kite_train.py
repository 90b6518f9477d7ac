"""A train of kites on one line: each is lifted by the one above it."""

from typing import Annotated

from ovlo import Span, drawing, ramp


@drawing(width=480, height=600, paper="#dff0fa")
def kite_train(nib, kites: Annotated[int, Span(1, 16)] = 9, lean: Annotated[float, Span(0, 30)] = 16):
    """The line bends with the wind; on it a kite at equal distances."""
    gap = 520 / kites
    nib.travel_to(-140, -280)
    nib.turn_to(90 - lean)
    for colour in ramp("firebrick", "gold", kites):
        nib.ink, nib.line_width = "dimgray", 1
        nib.arc_right(1400, gap / 1400 * 57.3)
        nib.ink = "black"
        size = min(0.36 * gap, 30)
        nib.polygon(4, radius=size, fill=colour)
        with nib.returning():
            nib.travel(-size)
            nib.forward(2 * size)
        with nib.returning():
            nib.left(90)
            nib.travel(-size)
            nib.forward(2 * size)
