"""What a plotter draws of an SVG: its lines, in the order of the file.

drawn = follow(text, machine, None)
"""

from __future__ import annotations

from xml.etree import ElementTree

import numpy as np

from ovlo.core.sheet.host import unhosted
from ovlo.core.sheet.motif import Motif
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.colour import Colour
from ovlo.core.values.errors import BadValue
from ovlo.core.values.units import PIXELS_PER_UNIT, millimetres
from ovlo.render.plotter.machine import Machine
from ovlo.render.plotter.simulation import Head, Simulated, Size

FLAT = 0.01
"""Millimetres by which a chord may be off its curve."""


def follow(text: str, machine: Machine, size: Size | None) -> Simulated:
    """What the plotter draws; without a size the page is as the file says.

    Raises
    ------
    FileError
        If this is not SVG.
    """
    scale, own_size, top = _svg_size(text)
    with unhosted():
        sheet = Sheet(1, 1, unit="mm")
    sheet.new_nib().stamp(Motif.from_svg(text))
    head = Head(machine.travel_feed, machine.feed)
    pens: dict[tuple[Colour, float], int] = {}
    for number, path in enumerate(sheet.paths(tolerance=FLAT / scale), 1):
        head.where = f"path {number:,}"
        if path.fill is not None and path.fill.opacity:
            head.note("an area is filled, and a plotter draws only lines")
        if path.ink is None or not path.ink.opacity:
            continue
        look = path.ink, path.line_width * scale
        pen = pens.setdefault(look, len(pens) + 1)
        if pen != head.pen:
            head.set_pen(pen)
        head.looks[pen] = look
        for contour in path.contours:
            places = (contour * scale + np.array([0, top * scale])).tolist()
            head.go(*places[0])
            head.set_down(True)
            for place in places[1:]:
                head.go(*place)
            head.set_down(False)
    return head.simulated(size or own_size)


def _svg_size(text: str) -> tuple[float, Size | None, float]:
    """Millimetres of a unit, the size in millimetres, and how far the origin is below the upper edge."""
    try:
        root = ElementTree.fromstring(text)
        box = [float(n) for n in root.get("viewBox", "").replace(",", " ").split()]
    except (ElementTree.ParseError, ValueError):
        return 1 / PIXELS_PER_UNIT["mm"], None, 0.0
    sides = [_side(root.get(name)) for name in ("width", "height")]
    if len(box) != 4 or not box[2] or not box[3]:
        box = [0, 0, *((side or 0.0) * PIXELS_PER_UNIT["mm"] for side in sides)]
    scale = sides[0] / box[2] if sides[0] else 1 / PIXELS_PER_UNIT["mm"]
    size = (box[2] * scale, box[3] * scale) if box[2] and box[3] else None
    return scale, size, box[1] + box[3]


def _side(text: str | None) -> float | None:
    """A length of CSS in millimetres; a number alone is of pixels."""
    if text is None or text.endswith("%"):
        return None
    try:
        return millimetres(f"{text}px" if text[-1:].isdigit() else text, "plot", "width")
    except BadValue:
        return None
