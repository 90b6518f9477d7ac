"""SVG: a trail as text that any browser shows (https://www.w3.org/TR/SVG2/).

    render(columns, page)    # b'<svg xmlns=…'

Coordinates in the file are those of the program, y turned over, with two decimals of a pixel; which part
of the plane is seen is said by `viewBox` alone.
"""

from __future__ import annotations

from itertools import pairwise
from math import ceil, log10
from xml.sax.saxutils import escape, quoteattr

import numpy as np

from ovlo.core.colour import Colour
from ovlo.core.columns import Columns, Style
from ovlo.core.outlines import CLOSE, MOVE, Outline, outline_of
from ovlo.render.numbers import number, number_text
from ovlo.render.page import Page

DECIMALS = 2
"""Of a pixel of the picture."""


def render(columns: Columns, page: Page) -> bytes:
    """The picture as SVG."""
    places = max(0, DECIMALS + ceil(log10(page.pixels_per_unit)))
    width, height = (number(side, 4) for side in (page.shown_width, page.shown_height))
    left, top = page.left, -page.bottom - page.height
    box = [number(side, places + 2) for side in (left, top, page.width, page.height)]
    parts = [
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}{page.unit}" '
        f'height="{height}{page.unit}" viewBox="{" ".join(box)}">\n'
        f"<title>{escape(page.title)}</title>\n"
        f'<rect x="{box[0]}" y="{box[1]}" width="{box[2]}" height="{box[3]}"'
        f"{_paint('fill', page.paper)}/>\n"
    ]
    attributes = [_stroke(style, places) for style in columns.styles]
    outline = outline_of(columns)
    for style, data in zip(outline.styles.tolist(), path_data(outline, places), strict=True):
        parts.append(f'<path d="{data}"{attributes[style]}/>\n')
    parts.append("</svg>\n")
    return "".join(parts).encode()


def path_data(outline: Outline, places: int) -> list[str]:
    """The `d` of each path of an outline."""
    values = outline.vertices * [1.0, -1.0]
    leads = np.full(values.shape, ord(" "), np.uint8)
    leads[outline.codes == MOVE, 0] = ord("M")
    # A closing vertex is where its piece began: Z says so without numbers.
    closes = np.flatnonzero(outline.codes == CLOSE)
    values[closes] = np.nan
    leads[closes] = ord("Z"), 0
    text, ends = number_text(values.ravel(), leads.ravel(), places)
    bounds = [0, *ends[2 * outline.firsts[1:] - 1].tolist()]
    whole = text.decode()
    return [whole[a:b] for a, b in pairwise(bounds)]


def _stroke(style: Style, places: int) -> str:
    width = number(style.line_width, places + 2)
    return (
        f' fill="none"{_paint("stroke", style.ink)} stroke-width="{width}"'
        ' stroke-linecap="round" stroke-linejoin="round"'
    )


def _paint(attribute: str, colour: Colour) -> str:
    opacity = f' {attribute}-opacity="{number(colour.opacity, 4)}"' if colour.opacity < 1 else ""
    return f" {attribute}={quoteattr(colour.hex)}{opacity}"
