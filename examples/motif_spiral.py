"""A spiral made by recursion over motifs: a piece, and then a smaller spiral where it ends."""

from typing import Annotated

from ovlo import Motif, Span, drawing, end_to_end


def side(nib):
    """One side of the spiral, with a pennant on it."""
    with nib.area("lightskyblue"):
        nib.forward(90)
        nib.left(150)
        nib.forward(40)
        nib.line_to_start()
    nib.travel_to(90, 0)
    nib.turn_to(0)


def spiral(piece, depth, shrink, turn):
    """The piece, then the same spiral smaller; the innermost piece is red."""
    if depth == 0:
        return piece.styled(ink="crimson", fill="mistyrose")
    return end_to_end([piece, spiral(piece, depth - 1, shrink, turn).scaled(shrink)], turn=turn)


@drawing(width=480, height=480, paper="ivory")
def motif_spiral(
    nib,
    depth: Annotated[int, Span(0, 100)] = 30,
    shrink: Annotated[float, Span(0.5, 1)] = 0.95,
    turn: Annotated[float, Span(10, 120)] = 40,
):
    """A spiral of shrinking pennants that holds together however deep it is."""
    whole = spiral(Motif.record(side), depth, shrink, turn).centred()
    nib.stamp(whole, scale=min(1, 220 / max(whole.bounds)))
