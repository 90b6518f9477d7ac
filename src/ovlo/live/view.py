"""The view: which part of a sheet is seen in the window, moved by dragging and zoomed by the wheel.

view.page(sheet, width=1240, height=660)
"""

from __future__ import annotations

from dataclasses import replace

from ovlo.core.sheet.sheet import Sheet
from ovlo.render.page import Page

ZOOM = 1.25
"""What one notch of the wheel does."""

SMALLEST, LARGEST = 0.1, 1000.0

EDGE = 16
"""Pixels left free around the whole sheet."""


class View:
    """A zoom, and the place in the middle."""

    def __init__(self) -> None:
        self.fit()

    def fit(self) -> None:
        """See the whole sheet."""
        self.zoom = 1.0
        self.centre = (0.0, 0.0)

    def page(self, sheet: Sheet, width: float, height: float) -> Page:
        """The page that shows this view as large as there is room, in the shape of the sheet."""
        ppu = sheet._pixels_per_unit
        scale = min((width - EDGE) / (sheet.width * ppu), (height - EDGE) / (sheet.height * ppu))
        page = Page.of(sheet, max(scale, 1e-3))
        seen = page.width / self.zoom, page.height / self.zoom
        x, y = self.centre
        return replace(page, left=x - seen[0] / 2, bottom=y - seen[1] / 2, width=seen[0], height=seen[1])

    def zoom_at(self, place: tuple[float, float], is_in: bool) -> None:
        """Zoom in or out; what is at the place stays where it is."""
        zoom = min(max(self.zoom * ZOOM ** (1 if is_in else -1), SMALLEST), LARGEST)
        share = self.zoom / zoom
        (x, y), (left, bottom) = place, self.centre
        self.centre = x + (left - x) * share, y + (bottom - y) * share
        self.zoom = zoom
