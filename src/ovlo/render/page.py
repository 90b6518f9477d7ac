"""The page: which part of the plane a picture shows, how large, on what paper.

page = Page.of(sheet, scale=2)
page.pixel_width
"""

from __future__ import annotations

import json
from dataclasses import dataclass

from ovlo.core import arguments
from ovlo.core.colour import Colour
from ovlo.core.sheet import PIXELS_PER_UNIT, Sheet


@dataclass(frozen=True)
class Page:
    """A view of the plane in sheet units, y up, and the size it is shown at.

    Attributes
    ----------
    left, bottom, width, height : float
        The part of the plane that is seen, in sheet units.
    shown_width, shown_height : float
        The size of the picture, in `unit`.
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

    @classmethod
    def of(cls, sheet: Sheet, scale: float = 1) -> Page:
        """The page that shows a whole sheet, `scale` times as large."""
        scale = arguments.positive(scale, "save", "scale")
        return cls(
            left=-sheet.width / 2,
            bottom=-sheet.height / 2,
            width=sheet.width,
            height=sheet.height,
            shown_width=sheet.width * scale,
            shown_height=sheet.height * scale,
            unit=sheet.unit,
            paper=sheet.paper,
            title=sheet.title or "Drawing",
            details=details(sheet),
        )

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
        """The width of the picture in whole pixels."""
        return max(1, round(self.shown_width * PIXELS_PER_UNIT[self.unit]))

    @property
    def pixel_height(self) -> int:
        """The height of the picture in whole pixels."""
        return max(1, round(self.shown_height * PIXELS_PER_UNIT[self.unit]))


def details(sheet: Sheet) -> str:
    """What is needed to make the picture again, as JSON: the drawing, its parameters, its seed."""
    made = {
        "drawing": sheet.title,
        "parameters": {name: _plain(value) for name, value in sheet.parameters.items()},
        "seed": sheet.seed,
    }
    return json.dumps({name: value for name, value in made.items() if value not in ("", {}, None)})


def _plain(value: object) -> object:
    if isinstance(value, Colour):
        return value.css
    return value if isinstance(value, str | int | float | bool) else repr(value)
