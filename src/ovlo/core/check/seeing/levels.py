"""In which order marks must be looked at: those of a level do not touch, and lie over those of lower levels.

levels = Levels((1000, 1000)); levels.of_area(low, high); levels.of_line(levels.cells(pixels))

So all marks of a level are taken at once, where one after the other would take twenty thousand times.
"""

from __future__ import annotations

import numpy as np

from ovlo.core.values.arrays import Ints

CELL = 16
"""Pixels across and up of the cells in which the highest level is kept."""


class Levels:
    """The levels of marks that are told of in the order they are painted."""

    def __init__(self, shape: tuple[int, int]) -> None:
        self._width = shape[1]
        cells = (-(-shape[0] // CELL) + 1, -(-shape[1] // CELL) + 1)
        self._areas = np.zeros(cells, np.int64)
        # Lines do not hide one another, so they may share a level.
        self._lines = np.zeros(cells, np.int64)

    def of_area(self, low: tuple[int, int], high: tuple[int, int]) -> int:
        """The level of an area with that box in pixels, at least 1."""
        cells = (
            slice(low[1] // CELL, high[1] // CELL + 1),
            slice(low[0] // CELL, high[0] // CELL + 1),
        )
        level = 1 + int(max(self._areas[cells].max(initial=0), self._lines[cells].max(initial=0)))
        self._areas[cells] = level
        return level

    def cells(self, pixels: Ints) -> Ints:
        """The cells that pixels are in, by their numbers."""
        return pixels // self._width // CELL * self._areas.shape[1] + pixels % self._width // CELL

    def of_line(self, cells: Ints) -> int:
        """The level of a line or text that is looked at in those cells: that of the highest area there."""
        if not len(cells):
            return 0
        level = int(self._areas.ravel()[cells].max())
        if level:
            lines = self._lines.ravel()
            lines[cells] = np.maximum(lines[cells], level)
        return level
