"""Bigger and bigger kites, one around the other."""

from typing import Annotated

from ovlo import Span, drawing, ramp


@drawing(width=480, height=480, paper="white")
def nested_kites(
    nib,
    depth: Annotated[int, Span(0, 20)] = 12,
    growth: Annotated[float, Span(1, 2)] = 1.2,
    twist: Annotated[float, Span(-45, 45)] = 10,
):
    """Each kite is the one inside it, turned and grown."""
    colours = ramp("gold", "rebeccapurple", depth + 1)
    nib.line_width = 3
    grow(nib, min(24, 230 / growth**depth), growth, twist, colours)


def grow(nib, radius, growth, twist, colours):
    """A kite, and then a bigger one, until the colours run out."""
    if not colours:
        return
    nib.ink = colours[0]
    nib.polygon(4, radius=radius)
    nib.left(twist)
    grow(nib, radius * growth, growth, twist, colours[1:])
