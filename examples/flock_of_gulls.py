"""A flock of gulls: one motif, stamped many times."""

from typing import Annotated

from ovlo import Motif, Span, drawing


def gull(nib):
    """Two wings that meet in the middle, pointing east."""
    nib.ink, nib.line_width = "#2b3a55", 3
    for sense in (1, -1):
        with nib.returning():
            nib.left(90 - 15 * sense)
            if sense == 1:
                nib.arc_right(12, 110)
            else:
                nib.arc_left(12, 110)


@drawing(width=800, height=480, paper="lightcyan")
def flock_of_gulls(nib, gulls: Annotated[int, Span(5, 400)] = 60):
    """Gulls of all sizes over the bay, each a little tilted."""
    bird, dice = Motif.record(gull), nib.dice
    for _ in range(gulls):
        nib.travel_to(dice.point(margin=40))
        nib.stamp(bird, scale=dice.number(0.3, 1.3), turn=dice.number(-20, 20))
