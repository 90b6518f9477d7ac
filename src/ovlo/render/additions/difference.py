"""Two pictures laid over each other: what both have, and what only one has.

difference_sheet(sheet_a, sheet_b, "walked", "by_corners", "different").save("diff.png")
"""

from __future__ import annotations

from itertools import pairwise

import numpy as np

from ovlo.core.compare.line_set import Lines
from ovlo.core.compare.nearest import SearchableLines
from ovlo.core.compare.side import Picture
from ovlo.core.sheet.host import unhosted
from ovlo.core.sheet.nib import Nib
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.trail.columns import Text
from ovlo.core.values.arrays import Complexes
from ovlo.core.values.colour import BLACK
from ovlo.render.lettering import words_width

COMMON, ONLY_A, ONLY_B = "#2b2b2b", "#0072b2", "#e08a00"
"""Dark grey, blue and orange: told apart by everybody, also by their lightness."""

ROOM = 76
"""Pixels under the picture for the legend."""

NARROWEST = 320
SIZE = 16
WIDTHS = {"lines": 2.5, "areas": 1.2}
PIECE = 1 / 400
"""Lines are told common or not in pieces of this share of the picture."""

UNSEEN = 0.25
"""Lines so many pixels apart are drawn as one."""


def difference_sheet(a: Sheet, b: Sheet, name_a: str, name_b: str, verdict: str) -> Sheet:
    """Both pictures as drawn on one sheet with a legend."""
    ppu = a._pixels_per_unit
    width, height = (max(one, two) * ppu for one, two in ((a.width, b.width), (a.height, b.height)))
    legend = [(COMMON, "in both"), (ONLY_A, f"only in A: {name_a}"), (ONLY_B, f"only in B: {name_b}")]
    wide = max(width, NARROWEST, words_width(verdict, SIZE) + 24, _legend_width(legend) + 24)
    with unhosted():
        sheet = Sheet(wide, height + ROOM)
    sheet.title = "Difference"
    nib = sheet.new_nib()
    first, second = Picture.of(a._columns), Picture.of(b._columns)
    up = complex(0, ROOM / 2)
    spacing = PIECE * max(width, height) / ppu
    for layer in ("lines", "areas"):
        nib.line_width = WIDTHS[layer]
        ours, theirs = getattr(first, layer), getattr(second, layer)
        for lines, other, ink in ((ours, theirs, ONLY_A), (theirs, ours, ONLY_B)):
            _draw(nib, lines, SearchableLines(other, spacing), UNSEEN / ppu, ink, lines is ours, ppu, up)
    for texts, others, ink in ((first.texts, second.texts, ONLY_A), (second.texts, first.texts, ONLY_B)):
        known = {_bare(text) for text in others}
        for text in texts:
            nib.ink = COMMON if _bare(text) in known else ink
            _write(nib, text, ppu, up)
    _draw_legend(nib, sheet, legend, verdict)
    return sheet


def _bare(text: Text) -> Text:
    """A text without where it came from and what it looks like."""
    return text._replace(step=0, order=0, origin=-1, ink=BLACK)


def _write(nib: Nib, text: Text, scale: float, up: complex) -> None:
    nib.travel_to(text.x * scale + up.real, text.y * scale + up.imag)
    nib.turn_to(text.heading)
    _, size, font, weight, slant, align, baseline = text.wording
    nib.text(text.words, size * scale, font, weight, slant, align, baseline)


def _draw(
    nib: Nib,
    lines: Lines,
    other: SearchableLines,
    within: float,
    ink: str,
    draw_common: bool,
    scale: float,
    up: complex,
) -> None:
    """Draw lines in pieces: those the other picture has dark, the others in an ink of their own."""
    if not len(lines):
        return
    counts = np.clip(np.ceil(lines.lengths / other.spacing), 1, 1 << 16).astype(np.int64)
    for number, count in enumerate(counts.tolist()):
        shares = np.arange(count + 1) / count
        owners = np.full(count + 1, number)
        points = lines.at(owners, shares)
        middles = lines.at(owners[1:], (shares[1:] + shares[:-1]) / 2)
        is_common = other.bounds(middles, within) <= within if len(other.z) else np.zeros(count, bool)
        bounds = [0, *(np.flatnonzero(np.diff(is_common)) + 1).tolist(), count]
        for first, stop in pairwise(bounds):
            if is_common[first] and not draw_common:
                continue
            nib.ink = COMMON if is_common[first] else ink
            _through(nib, points[first : stop + 1] * scale + up)


def _through(nib: Nib, points: Complexes) -> None:
    nib.travel_to(float(points[0].real), float(points[0].imag))
    for point in points[1:].tolist():
        nib.line_to(point.real, point.imag)


def _legend_width(legend: list[tuple[str, str]]) -> float:
    return sum(words_width(words, SIZE) + 3.5 * SIZE for _, words in legend)


def _draw_legend(nib: Nib, sheet: Sheet, legend: list[tuple[str, str]], verdict: str) -> None:
    """A rule, what the inks mean, and what came out."""
    x, y = -sheet.width / 2 + 12, -sheet.height / 2
    nib.turn_to(0)
    nib.travel_to(-sheet.width / 2, y + ROOM)
    nib.ink, nib.line_width = "#c8c8c8", 1
    nib.forward(sheet.width)
    for ink, words in legend:
        nib.travel_to(x, y + ROOM - 24)
        nib.ink, nib.line_width = ink, 4
        nib.forward(1.5 * SIZE)
        nib.travel(0.5 * SIZE)
        nib.ink = COMMON
        nib.text(words, size=SIZE, baseline="middle")
        x += words_width(words, SIZE) + 3.5 * SIZE
    nib.travel_to(-sheet.width / 2 + 12, y + 22)
    nib.text(verdict, size=SIZE, baseline="middle")
