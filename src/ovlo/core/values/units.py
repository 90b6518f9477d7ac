"""What a sheet unit is, and how large pages are.

PIXELS_PER_UNIT["mm"]    # 3.78
"""

from __future__ import annotations

from ovlo.core.values.errors import BadValue

PIXELS_PER_UNIT = {"px": 1.0, "mm": 96 / 25.4}
"""CSS pixels in a sheet unit."""

LINE_WIDTH = 2.0
"""CSS pixels that a line is wide at first, on a sheet of any unit."""

PAGES = {"A2": (420, 594), "A3": (297, 420), "A4": (210, 297), "A5": (148, 210), "A6": (105, 148)}
"""Width and height of pages in millimetres (ISO 216)."""


def refuse_paper_size(*values: object) -> None:
    """Refuse the name of a page where a number or a colour belongs, and say how large that page is."""
    for value in values:
        if isinstance(value, str) and value.strip().upper() in PAGES:
            name = value.strip().upper()
            width, height = PAGES[name]
            raise BadValue(
                f"Sheet: sizes are numbers; {name} is {width} × {height} mm: "
                f'Sheet({width}, {height}, unit="mm").'
            )
