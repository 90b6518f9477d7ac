"""A sheet of paper with pictures on it, in millimetres from its lower left corner.

print_of(columns, page, Paper(page_size("A4", "draw")), "draw")
"""

from __future__ import annotations

from typing import NamedTuple

from ovlo.core.plot.placing import placed
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.trail.columns import Columns
from ovlo.core.values.arrays import Box
from ovlo.core.values.units import MARGIN, MM_PER_UNIT
from ovlo.render.page import Page


class Print(NamedTuple):
    """A picture on a sheet of paper: the place of its lower left corner, and the box that clips it."""

    columns: Columns
    page: Page
    at: tuple[float, float]
    room: Box


class PaperSheet(NamedTuple):
    """A sheet of paper, and the pictures on it, the lowest first."""

    width: float
    height: float
    prints: tuple[Print, ...]


class Paper(NamedTuple):
    """Pages of paper that were asked for, in millimetres: their size, what stays empty on each side, and the
    size of the sheets of paper that a poster is cut into, if it is one."""

    size: tuple[float, float]
    margin: float = MARGIN
    tile: tuple[float, float] | None = None


def print_of(columns: Columns, page: Page, paper: Paper, call: str) -> Print:
    """A picture as large as it can be on a sheet of paper, in its middle.

    Raises
    ------
    BadValue
        If the margins leave no room.
    """
    box = page.left, page.bottom, page.left + page.width, page.bottom + page.height
    placing = placed((page.width, page.height), page.unit, paper.size, paper.margin, box, call)
    shown = page.sized(page.width * placing.scale, page.height * placing.scale)
    x, y = placing.move[0] + page.left * placing.scale, placing.move[1] + page.bottom * placing.scale
    return Print(columns, shown, (x, y), (x, y, x + shown.shown_width, y + shown.shown_height))


def whole(sheet: Sheet, text: str) -> Print:
    """A sheet that is as large as its sheet of paper."""
    width, height = (side * MM_PER_UNIT[sheet.unit] for side in (sheet.width, sheet.height))
    page = Page.of(sheet, text=text).sized(width, height)
    return Print(sheet._columns, page, (0.0, 0.0), (0.0, 0.0, width, height))
