"""A kite whose tail is one bow, again and again, each smaller and joined to the last."""

from typing import Annotated

from ovlo import Motif, Span, drawing, end_to_end


def bow(nib):
    """A stretch of string with a bow in the middle of it."""
    nib.forward(18)
    for sense in (1, -1):
        with nib.returning(), nib.area("gold"):
            nib.left(sense * 60)
            nib.forward(16)
            nib.right(sense * 120)
            nib.forward(16)
            nib.line_to_start()
    nib.arc_left(60, 18)


@drawing(width=480, height=600, paper="aliceblue")
def tail_of_bows(
    nib,
    bows: Annotated[int, Span(1, 60)] = 16,
    shrink: Annotated[float, Span(0.5, 1)] = 0.93,
    turn: Annotated[float, Span(-60, 60)] = -22,
):
    """A kite on a tail of shrinking bows."""
    nib.travel_to(-40, 180)
    nib.polygon(4, radius=80, turn=90, fill="tomato")
    nib.travel_by(0, -80)
    nib.turn_to(270)
    piece = Motif.record(bow)
    tail = end_to_end([piece.scaled(shrink**i) for i in range(bows)], turn=turn)
    # Downwards, what was ahead is below, and what was to the left is on the right.
    above, left, below, right = tail.bounds
    room = max(below / 380, right / 260, -left / 180, -above / 180)
    nib.stamp(tail, scale=min(1, 1 / room))
