"""Points that keep a distance from each other and leave no gaps: Bridson's Poisson disk sampling over a grid.

points = spread_points(random, width=600, height=400, distance=30)

Bridson, Fast Poisson disk sampling in arbitrary dimensions, SIGGRAPH 2007. New points are tried in the ring
around one that is there; a grid whose cells hold one point at most tells which neighbours to look at.
"""

from __future__ import annotations

from math import cos, pi, sin, sqrt
from random import Random

TRIES = 30
"""Candidates around a point before it is given up, as Bridson proposes."""

RIM = 2
"""Empty cells around the grid, so that neighbours need no check of the border."""


def spread_points(random: Random, width: float, height: float, distance: float) -> list[tuple[float, float]]:
    """As many points as fit in a box around the origin, none nearer to another than the distance."""
    # A cell's diagonal is the distance, so it holds one point at most, and none nearer lies more than 2
    # cells away.
    cell = distance / sqrt(2)
    left, bottom = width / 2, height / 2
    across = int(width / cell) + 1 + 2 * RIM
    taken: dict[int, tuple[float, float]] = {}
    offsets = [(i, j) for i in range(-RIM, RIM + 1) for j in range(-RIM, RIM + 1) if abs(i * j) < RIM * RIM]
    # The nearest cells first: most candidates are refused by one of them.
    near = [j * across + i for i, j in sorted(offsets, key=lambda at: at[0] ** 2 + at[1] ** 2)]
    least = distance * distance
    draw = random.random

    def place(x: float, y: float) -> int:
        return (int((y + bottom) / cell) + RIM) * across + int((x + left) / cell) + RIM

    first = (draw() - 0.5) * width, (draw() - 0.5) * height
    points, active = [first], [first]
    taken[place(*first)] = first
    while active:
        at = int(draw() * len(active))
        x0, y0 = active[at]
        for _ in range(TRIES):
            angle, reach = 2 * pi * draw(), distance * sqrt(1 + 3 * draw())  # even over the ring from 1 to 2
            x, y = x0 + reach * cos(angle), y0 + reach * sin(angle)
            if not (-left <= x <= left and -bottom <= y <= bottom):
                continue
            here = place(x, y)
            for step in near:
                if (other := taken.get(here + step)) is not None:
                    dx, dy = other[0] - x, other[1] - y
                    if dx * dx + dy * dy < least:
                        break
            else:
                found = x, y
                points.append(found)
                active.append(found)
                taken[here] = found
                break
        else:
            active[at] = active[-1]
            active.pop()
    return points
