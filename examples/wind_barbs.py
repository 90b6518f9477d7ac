"""The wind over the bay as weather ships write it: a staff for the direction, barbs for the strength."""

from math import atan2, degrees, exp, hypot
from typing import Annotated

from ovlo import Span, drawing, ramp


def barb(nib, knots):
    """A staff that points into the wind, with a pennant for fifty knots, and barbs for ten and five."""
    nib.circle(0.9, fill=nib.ink)
    nib.forward(13)
    nib.left(180)
    while knots >= 50:
        with nib.returning(), nib.area(nib.ink):
            nib.left(70)
            nib.forward(6)
            nib.left(141)
            nib.forward(6)
            nib.line_to_start()
        nib.travel(3.4)
        knots -= 50
    while knots >= 5:
        with nib.returning():
            nib.left(70)
            nib.forward(6 if knots >= 10 else 3)
        nib.travel(1.9)
        knots -= 10 if knots >= 10 else 5


@drawing(width=420, height=297, unit="mm", paper="#fbfaf5")
def wind_barbs(nib, gap: Annotated[float, Span(12, 40)] = 19, storm: Annotated[float, Span(10, 110)] = 78):
    """A storm turns about its eye: the nearer, the stronger, but for the eye itself."""
    inks = ramp("#8ab6c9", "#b5172f", 12)
    nib.line_width = 0.55
    for row in range(-7, 8):
        for column in range(-10, 11):
            x, y = gap * (column + (row % 2) / 2), gap * 0.87 * row
            if abs(x) > 194 or abs(y) > 132:
                continue
            far = hypot(x - 34, y + 14) / 62
            knots = 5 * round(storm * far * exp(1 - far) / 5)
            nib.travel_to(x, y)
            nib.ink = inks[min(11, int(12 * knots / 110))]
            if knots < 5:
                nib.circle(2.2)
                continue
            nib.turn_to(degrees(atan2(y + 14, x - 34)) - 68)
            barb(nib, knots)


if __name__ == "__main__":
    wind_barbs.show()
