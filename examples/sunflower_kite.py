"""A round kite sewn of small discs, in the order in which a sunflower sets its seeds."""

from typing import Annotated

from ovlo import Span, drawing, from_polar, ramp


@drawing(width=480, height=480, paper="#e8f3f8")
def sunflower_kite(
    nib, discs: Annotated[int, Span(50, 500)] = 320, turn: Annotated[float, Span(135, 140)] = 137.508
):
    """Each disc is turned by the golden angle against the one before."""
    nib.line_width = 0.6
    for i, colour in enumerate(ramp("crimson", "gold", discs)):
        nib.travel_to(from_polar(215 * ((i + 0.5) / discs) ** 0.5, turn * i))
        nib.circle(2 + 90 * i**0.5 / discs, fill=colour)
