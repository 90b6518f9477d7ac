"""The picture by which the project is known where it is linked to: the knot, its name, and what it is for."""

from __future__ import annotations

import sys
from pathlib import Path

from ovlo import Motif, drawing

sys.path.append(str(Path(__file__).parents[1] / "examples"))

from endless_knot import endless_knot

GROUND, INK, PALE = "#efe6dd", "#14262e", "#55605f"


@drawing(width=1280, height=640, paper=GROUND)
def social(nib):
    """The knot on the right, the words on the left."""
    knot = Motif.record(endless_knot)
    with nib.returning():
        nib.travel_to(330, 0)
        nib.stamp(knot, scale=1.5)
    nib.ink = INK
    nib.travel_to(-570, 40)
    nib.text("Ovlo", size=150, weight="bold")
    nib.ink = PALE
    for number, words in enumerate(
        ("Turtle graphics in Python:", "drawn, checked, compared,", "replayed and plotted.")
    ):
        nib.travel_to(-562, -40 - 50 * number)
        nib.text(words, size=38)


if __name__ == "__main__":
    social.show()
