"""Lanterns over the quay on the eve of kite day: strings that sag, and light that fades into the night."""

from math import cosh
from typing import Annotated

from ovlo import Span, blend, drawing


def lantern(nib, size, fill, night):
    """A lantern that hangs from the nib, in its glow."""
    with nib.returning():
        nib.turn_to(270)
        nib.travel(0.85 * size)
        for ring in range(7, 0, -1):
            nib.circle(size * (0.5 + 0.11 * ring), fill=blend(night, fill, 0.16 - 0.02 * ring), outline=False)
        nib.travel(-0.85 * size)
        nib.forward(0.35 * size)
        nib.travel(0.5 * size)
        nib.ellipse(1.05 * size, 0.9 * size, turn=90, fill=fill)
        for share in (0.66, 0.3):
            nib.ellipse(1.05 * size, 0.9 * size * share, fill=None)
        nib.travel(0.62 * size)
        for _ in range(3):
            nib.forward(0.16 * size)
            nib.travel(0.06 * size)


@drawing(width=420, height=297, unit="mm", paper="#1b1b3a")
def lanterns(nib, strings: Annotated[int, Span(2, 5)] = 5, each: Annotated[int, Span(3, 14)] = 9):
    """Strings hang one behind the other, the nearest with the largest lanterns."""
    night = "#1b1b3a"
    fills = ["#ff9f1c", "#ffbf69", "#e5446d", "#f4f1bb", "#9bc1bc"]
    for string in range(strings):
        y, size = 128 - 47 * string, 9 + 2.2 * string
        sag = 0.006 + 0.001 * string
        nib.ink, nib.line_width = "#6d6a9c", 0.7
        hang = [(x, y + (cosh(sag * (x + 20 - 12 * string)) - 1) * 30 - 18) for x in range(-214, 216, 4)]
        nib.travel_to(hang[0])
        nib.polyline(hang[1:])
        for i in range(each):
            x, place = hang[int((0.1 + 0.8 * (i + 0.5 * (string % 2)) / (each - 0.5)) * len(hang))]
            nib.travel_to(x, place)
            lantern(nib, size, fills[(2 * i + string) % 5], night)


if __name__ == "__main__":
    lanterns.show()
