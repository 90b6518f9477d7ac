"""Paths and how they are painted, as the operators of a PDF page (ISO 32000-2, 8.4 and 8.5).

data = path_operators(outline, scale, move)          # [b"10 20 m 30 20 l"] of each path, in pieces
Brush(alpha_name).filling(colour) + b"".join(data[0]) + b" f"

The numbers of an outline are written in few passes, and of colours and widths only what changes: so twenty
thousand circles take a few milliseconds instead of seconds.
"""

from __future__ import annotations

from collections.abc import Callable
from itertools import pairwise

import numpy as np

from ovlo.core.paint.outlines import CLOSE, CUBIC, LINE, MOVE, QUADRATIC, Outline
from ovlo.core.trail.columns import Style
from ovlo.core.values.arrays import Bytes, Floats, Ints
from ovlo.core.values.colour import Colour
from ovlo.render.numbers import number, number_text

PLACES = 3
"""Decimals of a point."""

LOT = 1 << 16
"""Vertices written at once, so that they stay in the cache and a long path is not in memory several times."""

CAPS = {"butt": 0, "round": 1, "square": 2}
JOINS = {"miter": 0, "round": 1, "bevel": 2}

OPERATORS = {MOVE: "m", LINE: "l", CUBIC: "c", CLOSE: "h"}


def path_operators(outline: Outline, scale: float, move: tuple[float, float]) -> list[list[bytes]]:
    """The operators, in pieces, that draw each path of an outline in points; its arcs are cubics by now."""
    found: list[list[bytes]] = [[] for _ in range(len(outline))]
    # A lot ends where nothing ends within a curve.
    may_begin = outline.codes != CUBIC
    first = path = 0
    while first < len(may_begin):
        later = first + LOT
        stop = later + int(may_begin[later:].argmax()) if may_begin[later:].any() else len(may_begin)
        last = int(np.searchsorted(outline.firsts, stop))
        text, ends = _written(outline.vertices[first:stop] * scale + move, outline.codes[first:stop])
        bounds = np.minimum(outline.firsts[path + 1 : last + 1], stop) - first
        for piece, (a, b) in enumerate(pairwise([0, *ends[4 * bounds - 1].tolist()]), path):
            found[piece].append(text[a:b])
        first, path = stop, int(np.searchsorted(outline.firsts, stop, "right")) - 1
    return found


def _written(points: Floats, codes: Bytes) -> tuple[bytes, Ints]:
    """The text of some vertices, and where that of each of their four columns ends."""
    count = len(codes)
    # Each row is x, y, a space and an operator, which follows its numbers; of a curve, three pairs of them.
    values = np.full((count, 4), np.nan)
    values[:, :2] = points
    leads = np.full(values.shape, ord(" "), np.uint8)
    for code, operator in OPERATORS.items():
        leads[codes == code, 3] = ord(operator)
    closes = codes == CLOSE
    values[closes] = np.nan
    leads[closes, :2] = 0
    curves = np.flatnonzero(codes == CUBIC).reshape(-1, 3)
    leads[curves[:, :2], 2:] = 0
    return number_text(values.ravel(), leads.ravel(), PLACES)


def letter_operators(vertices: Floats, codes: Bytes, scale: float, move: tuple[float, float]) -> bytes:
    """The operators that draw the shapes of letters; PDF has no quadratic curves, so they become cubic ones.

    The control points of the cubic lie two thirds of the way from its ends to that of the quadratic.
    """
    parts: list[str] = []
    points: list[list[float]] = (vertices * scale + move).tolist()
    i = 0
    while i < len(codes):
        code = int(codes[i])
        size = {QUADRATIC: 2, CUBIC: 3}.get(code, 1)
        pairs = points[i : i + size]
        if code == QUADRATIC:
            begin, control, end = points[i - 1], points[i], points[i + 1]
            pairs = [_third(begin, control), _third(end, control), end]
        numbers = [] if code == CLOSE else [number(value, PLACES) for pair in pairs for value in pair]
        parts.append(" ".join([*numbers, OPERATORS[CUBIC if code == QUADRATIC else code]]))
        i += size
    return " ".join(parts).encode()


def _third(end: list[float], control: list[float]) -> list[float]:
    """The place two thirds of the way from an end to a control point."""
    return [(a + 2 * b) / 3 for a, b in zip(end, control, strict=True)]


class Brush:
    """How areas and lines are painted; says only what is another than before.

    `alpha_name` gives the name of a state with the opacities of lines and areas.
    """

    def __init__(self, alpha_name: Callable[[tuple[float, float]], bytes]) -> None:
        self._alpha_name = alpha_name
        self._said: dict[str, bytes] = {}

    def filling(self, paint: Colour) -> bytes:
        """What makes areas this colour."""
        return self._changed("fill", _colour(paint) + b" rg") + self._opacity(paint.opacity)

    def drawing(self, style: Style, scale: float, dash_offset: float = 0.0) -> bytes:
        """What makes lines this style; widths become points."""
        offset = number(dash_offset * scale, PLACES)
        # Dashes of no length are dots by their caps, but some viewers draw none: they get the least length.
        least = 10.0**-PLACES if style.line_cap != "butt" else 0.0
        lengths = [max(length * scale, 0 if i % 2 else least) for i, length in enumerate(style.line_dash)]
        dashes = " ".join(number(length, PLACES) for length in lengths)
        parts = {
            "ink": _colour(style.ink) + b" RG",
            "width": f"{_width(style.line_width * scale)} w".encode(),
            "cap": f"{CAPS[style.line_cap]} J".encode(),
            "join": f"{JOINS[style.line_join]} j".encode(),
            "dash": f"[{dashes}] {offset} d".encode(),
        }
        changed = b"".join(self._changed(name, words) for name, words in parts.items())
        return changed + self._opacity(style.ink.opacity)

    def _opacity(self, opacity: float) -> bytes:
        if opacity == 1 and "opacity" not in self._said:
            return b""
        return self._changed("opacity", self._alpha_name((opacity, opacity)) + b" gs")

    def _changed(self, name: str, words: bytes) -> bytes:
        if self._said.get(name) == words:
            return b""
        self._said[name] = words
        return words + b"\n"


def _colour(colour: Colour) -> bytes:
    return " ".join(number(channel / 255, 4) for channel in colour._rgb).encode()


def _width(width: float) -> str:
    """A width, which is never 0, however thin: that would be as thin as a machine can."""
    written = number(width, PLACES)
    return written if written != "0" else f"{max(width, 1e-9):.9f}"
