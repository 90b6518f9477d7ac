"""A reel of string, wound evenly or faster and faster."""

from typing import Annotated, Literal

from ovlo import Span, drawing


@drawing(width=480, height=480, paper="oldlace")
def reel(
    nib,
    strands: Annotated[int, Span(1, 12)] = 5,
    turns: Annotated[float, Span(0.25, 8, 0.25)] = 1.5,
    growth: Literal["linear", "exponential"] = "linear",
):
    """Spirals around one middle, between two circles."""
    nib.ink = "saddlebrown"
    nib.line_width = 4
    nib.circle(20, fill="burlywood")
    nib.circle(220)
    nib.line_width = 2
    for _ in nib.full_turn(strands):
        nib.spiral(turns, 220, inner_radius=20, growth=growth)
