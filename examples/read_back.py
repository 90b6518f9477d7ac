"""A kite drawn elsewhere, read from an SVG file and flown three times."""

from pathlib import Path

from ovlo import Motif, drawing

KITE = Path(__file__).with_name("kite.svg")


@drawing(width=640, height=400, paper="powderblue")
def read_back(nib):
    """The kite in kite.svg, as it is, turned, and in other colours."""
    kite = Motif.from_svg(KITE).centred()
    for x, motif in ((-200, kite), (0, kite.turned(-25)), (200, kite.styled(fill="khaki").mirrored(90))):
        nib.travel_to(x, 0)
        nib.stamp(motif, scale=1.4)
