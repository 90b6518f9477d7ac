"""A month of tides wound into a spiral: two high waters a day, higher when the moon is new or full."""

from math import cos, radians
from typing import Annotated

from ovlo import Span, drawing, ramp


@drawing(width=420, height=420, unit="mm", paper="#f3ead8")
def tide_table(nib, days: Annotated[int, Span(14, 56)] = 29, rise: Annotated[float, Span(8, 30)] = 15):
    """Three bars an hour; a round is two days, so that each tide stands beside the one two days before."""
    count = 72 * days
    colours = ramp("#0b3c49", "#e8b96a", 24)
    for bar in range(count):
        hour = bar / 3
        spring = 0.6 + 0.4 * cos(radians(360 * hour / 24 / 14.77))
        height = spring * (1 + cos(radians(360 * hour / 12.42))) / 2
        nib.travel_to(0, 0)
        nib.turn_to(90 - 360 * hour / 48)
        nib.travel(34 + 154 * bar / count)
        nib.ink = colours[int(23.9 * (1 - height))]
        nib.line_width = 0.4 + 1.9 * bar / count
        nib.forward(0.6 + rise * height * (0.3 + 0.7 * bar / count))
    nib.travel_to(0, 3)
    nib.turn_to(0)
    nib.ink, nib.line_width = "#0b3c49", 0.7
    for words in ("tides of", "Marrow Bay"):
        nib.text(words, size=8, font="stroke", align="middle")
        nib.travel_by(0, -11)


if __name__ == "__main__":
    tide_table.show()
