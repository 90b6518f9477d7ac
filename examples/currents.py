"""The currents of the bay: lines that follow the water and keep their distance from each other."""

from math import atan2, degrees, hypot
from typing import Annotated

from ovlo import Span, drawing

EDDIES = [(-95, 40, 1.0), (70, -45, -1.2), (120, 80, 0.8), (-30, -95, 0.7), (-165, -70, -0.8)]


def heading(x, y, swirl):
    """Where the water goes: east, and around each eddy the faster the nearer."""
    u, v = 1.0, 0.15
    for ex, ey, turn in EDDIES:
        dx, dy = x - ex, y - ey
        pull = swirl * turn * 4000 / (dx * dx + dy * dy + 900)
        u, v = u - pull * dy / 30, v + pull * dx / 30
    return degrees(atan2(v, u))


@drawing(width=420, height=297, unit="mm", paper="#fbf5e9")
def currents(nib, gap: Annotated[float, Span(2, 9)] = 3.4, swirl: Annotated[float, Span(0, 2)] = 1.0):
    """A line ends where it would come nearer to another than the gap."""
    taken = {}
    step = 1.6

    def is_free(x, y, number):
        cell = (round(x / gap), round(y / gap))
        near = (taken.get((cell[0] + i, cell[1] + j)) for i in (-1, 0, 1) for j in (-1, 0, 1))
        return all(one is None or one[2] == number or hypot(one[0] - x, one[1] - y) > gap for one in near)

    inks = ["#1b4965", "#1b4965", "#5fa8d3", "#ca6702", "#1b4965"]
    for number, (x, y) in enumerate(nib.dice.scattered(900, margin=12)):
        if not is_free(x, y, number):
            continue
        nib.travel_to(x, y)
        nib.ink = inks[number % 5]
        nib.line_width = 0.5 + 0.9 * nib.dice.number(0, 1) ** 3
        for _ in range(160):
            nib.turn_to(heading(x, y, swirl))
            taken[round(x / gap), round(y / gap)] = (x, y, number)
            nib.forward(step)
            x, y = nib.position
            if abs(x) > 198 or abs(y) > 136 or not is_free(x, y, number):
                break


if __name__ == "__main__":
    currents.show()
