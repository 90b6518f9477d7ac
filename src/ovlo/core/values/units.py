"""What a sheet unit is, and how large pages are.

PIXELS_PER_UNIT["mm"]             # 3.78
page_size("A4", "plot", True)     # (297, 210)
millimetres("1.2cm", "plot", "margin")    # 12.0
"""

from __future__ import annotations

import re

from ovlo.core.values import arguments
from ovlo.core.values.errors import BadType, BadValue

PIXELS_PER_INCH = 96
"""CSS pixels."""

MM_PER_INCH = 25.4

PIXELS_PER_UNIT = {"px": 1.0, "mm": PIXELS_PER_INCH / MM_PER_INCH}
"""CSS pixels in a sheet unit."""

MM_PER_UNIT = {unit: pixels / PIXELS_PER_UNIT["mm"] for unit, pixels in PIXELS_PER_UNIT.items()}
"""Millimetres in a sheet unit."""

LINE_WIDTH = 2.0
"""The default line width in CSS pixels, on a sheet of any unit."""

MARGIN = 10.0
"""The default margin of a page in millimetres; few printers print nearer to the edge."""

Length = float | str
"""Millimetres, or a text such as "12mm"."""

LENGTHS = {
    "mm": 1.0,
    "cm": 10.0,
    "in": MM_PER_INCH,
    "px": MM_PER_INCH / PIXELS_PER_INCH,
    "pt": MM_PER_INCH / 72,
}
"""Millimetres in the units of CSS (CSS Values 4, 6.2)."""

NUMBER = r"(\d+\.?\d*|\.\d+)\s*"

PAGES = {
    "A0": (841.0, 1189.0),
    "A1": (594.0, 841.0),
    "A2": (420.0, 594.0),
    "A3": (297.0, 420.0),
    "A4": (210.0, 297.0),
    "A5": (148.0, 210.0),
    "A6": (105.0, 148.0),
    "B3": (353.0, 500.0),
    "B4": (250.0, 353.0),
    "B5": (176.0, 250.0),
    "letter": (215.9, 279.4),
    "legal": (215.9, 355.6),
    "ledger": (279.4, 431.8),
}
"""Width and height of pages in millimetres (ISO 216; ANSI Y14.1 and North American custom)."""


def page_size(name: object, call: str, is_landscape: bool = False) -> tuple[float, float]:
    """Width and height of a page in millimetres, by its name or as "210x297mm"."""
    if not isinstance(name, str):
        raise BadType(f"{call}: a page size must be a name such as 'A4', not {arguments.brief(name)}.")
    size = {known.lower(): size for known, size in PAGES.items()}.get(name.strip().lower())
    if size is None:
        sides = re.fullmatch(rf"\s*{NUMBER}([a-z]*)\s*x\s*{NUMBER}([a-z]*)\s*", name.lower())
        if sides is None:
            raise BadValue(
                f"{call}: there is no page size {arguments.brief(name)}{arguments.near(name, PAGES)}; use "
                f"one of {', '.join(PAGES)}, or give width and height as in '200x300mm'."
            )
        width, unit, height, last_unit = sides.groups()
        size = (
            millimetres(width + (unit or last_unit), call, "the width of a page"),
            millimetres(height + last_unit, call, "the height of a page"),
        )
        if min(size) <= 0:
            raise BadValue(f"{call}: a page must be larger than {arguments.brief(name)}.")
    narrow, wide = sorted(size)
    return (wide, narrow) if is_landscape else size


def millimetres(value: object, call: str, name: str) -> float:
    """A length in millimetres, not negative: a number, or a text such as "12mm", "1.2cm" or "0.5in"."""
    if not isinstance(value, str):
        return arguments.not_negative(value, call, name)
    read = re.fullmatch(rf"\s*{NUMBER}([a-z]*)\s*", value.lower())
    if read is None or (read[2] or "mm") not in LENGTHS:
        raise BadValue(
            f"{arguments.subject(call, name)} must be a length such as 12mm, 1.2cm or 0.5in, "
            f"not {arguments.brief(value)}."
        )
    return arguments.real(float(read[1]) * LENGTHS[read[2] or "mm"], call, name)


def refuse_paper_size(*values: object) -> None:
    """Refuse the name of a page where a number or a colour belongs, and say how large that page is."""
    by_letters = {known.lower(): known for known in PAGES}
    for value in values:
        if isinstance(value, str) and value.strip().lower() in by_letters:
            name = by_letters[value.strip().lower()]
            width, height = PAGES[name]
            raise BadValue(
                f"Sheet: sizes are numbers; {name} is {width:g} × {height:g} mm: "
                f'Sheet({width:g}, {height:g}, unit="mm").'
            )
