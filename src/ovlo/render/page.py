"""The page: which part of the plane a picture shows, how large, on what paper.

page = Page.of(sheet, scale=2)
page.pixel_width
"""

from __future__ import annotations

import json
from dataclasses import dataclass, replace
from math import ceil
from typing import get_args

from ovlo.core.paint.measures import MarkBoxes, widest_line
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.trail.columns import Columns
from ovlo.core.trail.origins import Origins
from ovlo.core.values import arguments
from ovlo.core.values.arrays import Box
from ovlo.core.values.choices import TextOutput
from ovlo.core.values.colour import Colour
from ovlo.core.values.units import PIXELS_PER_UNIT
from ovlo.render import lettering

MARGIN = 0.04
"""Of a picture that fits all marks, on each side, as a share of the marks."""


TEXTS = get_args(TextOutput)


@dataclass(frozen=True)
class Page:
    """A view of the plane in sheet units, y up, and the size it is shown at.

    Attributes
    ----------
    left, bottom, width, height : float
        The part of the plane that is seen, in sheet units.
    shown_width, shown_height : float
        The size of the picture, in `unit`.
    text : one of TEXTS
        Whether words are text in the file, which a viewer sets in its own fonts, or the shapes of letters.
    origins : Origins or None
        Where the marks came from, if those of each call of a function are to be a group.
    """

    left: float
    bottom: float
    width: float
    height: float
    shown_width: float
    shown_height: float
    unit: str
    paper: Colour
    title: str
    details: str
    text: str = TEXTS[0]
    origins: Origins | None = None

    @classmethod
    def of(
        cls, sheet: Sheet, scale: float = 1, fit: bool = False, untitled: str = "", text: str = TEXTS[0]
    ) -> Page:
        """The page that shows a whole sheet, `scale` times as large, or all its marks, if they are to fit.

        `untitled` is the title of a sheet that has none; `text` is one of TEXTS.
        """
        scale = arguments.positive(scale, "save", "scale")
        arguments.truth(fit, "save", "fit")
        left, bottom, width, height = view(sheet, fit)
        return cls(
            left=left,
            bottom=bottom,
            width=width,
            height=height,
            shown_width=sheet.width * scale,
            shown_height=sheet.height * scale,
            unit=sheet.unit,
            paper=sheet.paper,
            title=sheet.title or untitled or "Drawing",
            details=details(sheet),
            text=arguments.choice(text, "save", "text", TEXTS),
        )

    @classmethod
    def around(cls, columns: Columns, box: Box, scale: float, paper: Colour) -> Page:
        """A page around a box, with room for the lines on its edge."""
        scale = arguments.positive(scale, "save", "scale")
        left, bottom, right, top = box
        room = widest_line(columns) / 2 + MARGIN * max(right - left, top - bottom, 1.0)
        width, height = right - left + 2 * room, top - bottom + 2 * room
        return cls(
            left=left - room,
            bottom=bottom - room,
            width=width,
            height=height,
            shown_width=width * scale,
            shown_height=height * scale,
            unit="px",
            paper=paper,
            title="Motif",
            details="",
        )

    @classmethod
    def of_box(cls, box: Box, pixels: int) -> Page:
        """A box of the plane alone, on no paper, so many pixels across or down."""
        left, bottom, right, top = box
        width, height = right - left, top - bottom
        scale = pixels / max(width, height)
        size = width * scale, height * scale
        return cls(left, bottom, width, height, *size, "px", Colour(0, 0, 0, 0.0), "", "")

    def sized(self, width: float, height: float) -> Page:
        """The same view shown so many millimetres wide and high."""
        return replace(self, shown_width=width, shown_height=height, unit="mm")

    @property
    def scale(self) -> float:
        """CSS pixels of the picture in a CSS pixel of the plane."""
        return self.shown_width / self.width

    @property
    def pixels_per_unit(self) -> float:
        """CSS pixels of the picture in a sheet unit."""
        return self.scale * PIXELS_PER_UNIT[self.unit]

    @property
    def pixel_width(self) -> int:
        """The width of the picture in whole pixels: a part of one counts as one, as in viewers of SVG."""
        return _whole(self.shown_width * PIXELS_PER_UNIT[self.unit])

    @property
    def pixel_height(self) -> int:
        """The height of the picture in whole pixels, in the same way."""
        return _whole(self.shown_height * PIXELS_PER_UNIT[self.unit])

    @property
    def raster_bottom(self) -> float:
        """The y of the lower edge of the lowest pixels: the upper edge is that of the first row."""
        rows = self.height * self.pixels_per_unit
        if abs(rows - self.pixel_height) < PART:
            return self.bottom
        return self.bottom + self.height - self.pixel_height / self.pixels_per_unit


PART = 1e-6
"""Pixels that are no part of one, but rounding."""


def _whole(pixels: float) -> int:
    return max(1, ceil(pixels - PART))


def mark_boxes(sheet: Sheet) -> MarkBoxes:
    """The boxes of all marks on a sheet, texts included."""
    return MarkBoxes.of(sheet._columns, lettering.box)


def view(sheet: Sheet, fit: bool) -> Box:
    """Left, bottom, width and height of the part of the plane to show.

    To fit, it is the box of all marks with a margin, widened to the shape of the sheet.
    """
    columns = sheet._columns
    box = mark_boxes(sheet).whole if fit else None
    if box is None or (box[0] == box[2] and box[1] == box[3]):
        return -sheet.width / 2, -sheet.height / 2, sheet.width, sheet.height
    left, bottom, right, top = box
    line = widest_line(columns)
    zoom = (1 + 2 * MARGIN) * max((right - left + line) / sheet.width, (top - bottom + line) / sheet.height)
    width, height = zoom * sheet.width, zoom * sheet.height
    return (left + right - width) / 2, (bottom + top - height) / 2, width, height


def details(sheet: Sheet) -> str:
    """What makes the picture again, as JSON (drawing, parameters, seed); "" when it is nothing."""
    made = {
        "drawing": sheet.title,
        "parameters": {name: plain(value) for name, value in sheet.parameters.items()},
        "seed": sheet.seed,
    }
    known = {name: value for name, value in made.items() if value not in ("", {}, None)}
    return json.dumps(known) if known else ""


def plain(value: object) -> object:
    """A parameter's value as JSON can hold it."""
    if isinstance(value, Colour):
        return value.css
    return value if isinstance(value, str | int | float | bool) else arguments.brief(value)
