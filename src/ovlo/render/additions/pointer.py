"""The nib's pointer as pixels, to be laid over a frame: where it is and where it points.

Pointers(sheet, page).at(frames, step)
"""

from __future__ import annotations

from functools import lru_cache

import numpy as np

from ovlo.core.paint.measures import MarkBoxes, widest_line
from ovlo.core.paint.order import painted
from ovlo.core.paint.stretch import Parts
from ovlo.core.sheet.motif import default_pointer
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.trail.columns import Columns
from ovlo.core.trail.similarity import Similarity, transformed
from ovlo.core.values.arrays import Bytes
from ovlo.core.values.colour import TRANSPARENT
from ovlo.core.values.pose import Pose
from ovlo.render import lettering
from ovlo.render.boxes import PixelBox
from ovlo.render.formats.png import FLATNESS, Canvas
from ovlo.render.page import Page

SHADES = 72
"""A pointer is painted in so many directions; between them it is as in the nearest."""


class Pointers:
    """The pointers of a sheet's nibs on a page."""

    def __init__(self, sheet: Sheet, page: Page) -> None:
        self._page = page
        self.follow(sheet._columns)
        default = default_pointer()
        pixel = 1 / page.pixels_per_unit
        # The default pointer is as large on every page; one of the user's own is drawn as it is.
        self._pointers = [
            None
            if pointer is None
            else transformed(pointer._columns, Similarity(scale=pixel if pointer is default else 1.0))
            for pointer in (nib.pointer for nib in sheet.nibs)
        ]
        self._painted = lru_cache(maxsize=4 * SHADES)(self._paint)

    def follow(self, columns: Columns) -> None:
        """Go on with a longer trail."""
        self._parts = Parts(columns)
        self._nibs = columns.of_steps("nib")

    def pose_at(self, steps: int, share: float = 0.0) -> tuple[Columns, int, Pose] | None:
        """The pointer of the nib that moves after so many steps, its number, and its pose; or None."""
        if not len(self._nibs):
            return None
        step = steps if share > 0 and steps < len(self._nibs) else max(steps - 1, 0)
        number = int(self._nibs[step])
        pointer = self._pointers[number] if number < len(self._pointers) else None
        return (
            None
            if pointer is None
            else (pointer, number, self._parts.pose(step, share if step == steps else 1.0))
        )

    def at(self, steps: int, share: float = 0.0) -> tuple[PixelBox, Bytes] | None:
        """Where that pointer goes on the page, and its pixels; None where there is none."""
        found = self.pose_at(steps, share)
        if found is None:
            return None
        _, number, (x, y, degrees) = found
        heading = round(degrees * SHADES / 360) % SHADES
        pixels, (left, top) = self._painted(number, heading)
        page = self._page
        column = round((x - page.left) * page.pixels_per_unit) - left
        row = round(page.pixel_height - (y - page.raster_bottom) * page.pixels_per_unit) - top
        return (column, row, column + pixels.shape[1], row + pixels.shape[0]), pixels

    def _paint(self, number: int, heading: int) -> tuple[Bytes, tuple[int, int]]:
        """A pointer at a heading, and where in it the nib is, in pixels from its left and top."""
        pointer = self._pointers[number]
        assert pointer is not None
        turned = transformed(pointer, Similarity(turn=heading * 360 / SHADES))
        box = MarkBoxes.of(turned, lettering.box).whole or (0.0, 0.0, 0.0, 0.0)
        scale = self._page.pixels_per_unit
        room = widest_line(turned) + 2 / scale
        left, bottom, right, top = (
            float(np.ceil((room + reach) * scale)) for reach in (-box[0], -box[1], box[2], box[3])
        )
        width, height = left + right, bottom + top
        page = Page(
            left=-left / scale,
            bottom=-bottom / scale,
            width=width / scale,
            height=height / scale,
            shown_width=width,
            shown_height=height,
            unit="px",
            paper=TRANSPARENT,
            title="",
            details="",
        )
        canvas = Canvas(page)
        canvas.paint(painted(turned).flattened(FLATNESS / scale))
        return canvas.pixels, (int(left), int(height - bottom))
