"""A spiral made by recursion over motifs: a piece, and then a smaller spiral where it ends."""

from typing import Annotated

from ovlo import Motif, Span, blend, drawing, end_to_end


def side(nib):
    """One side of the spiral, with a pennant on it."""
    with nib.area("#f2c14e"):
        nib.forward(150)
        nib.left(150)
        nib.forward(66)
        nib.line_to_start()
    nib.travel_to(150, 0)
    nib.turn_to(0)


def spiral(piece, depth, shrink, turn):
    """The piece, then the same spiral smaller; the nearer to the innermost piece, the redder."""
    if depth == 0:
        return piece.styled(fill="#a4303f")
    piece = piece.styled(fill=blend("#f2c14e", "#a4303f", 0.93**depth))
    return end_to_end([piece, spiral(piece, depth - 1, shrink, turn).scaled(shrink)], turn=turn)


@drawing(width=480, height=480, paper="#12343b")
def motif_spiral(
    nib,
    depth: Annotated[int, Span(0, 100)] = 45,
    shrink: Annotated[float, Span(0.5, 1)] = 0.95,
    turn: Annotated[float, Span(10, 120)] = 40,
):
    """A spiral of shrinking pennants that holds together however deep it is."""
    whole = spiral(Motif.record(side), depth, shrink, turn).centred()
    nib.stamp(whole, scale=min(1, 220 / max(whole.bounds)))
