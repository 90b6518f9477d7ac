"""A star kite, and how many points it has."""

from typing import Annotated, Literal

from ovlo import Span, drawing


@drawing(width=400, height=400, paper="midnightblue")
def star_kite(
    nib,
    points: Annotated[int, Span(5, 24)] = 9,
    step: Annotated[int, Span(1, 11)] = 4,
    rule: Literal["nonzero", "evenodd"] = "evenodd",
):
    """A star whose every point is joined with the one `step` further on, at most across its middle."""
    nib.ink = "lemonchiffon"
    nib.line_join = "miter"
    nib.turn_to(90)
    nib.star(points, 170, min(step, (points - 1) // 2), fill="goldenrod", fill_rule=rule)
    nib.circle(178)
