"""Lengths, transforms, boxes and basic shapes of SVG files (SVG 2, chapters 7, 8 and 10).

    length("50%", em=16).of(viewport.width)
    matrix("rotate(45) scale(2)")

A map of the plane is three complex numbers: where the origin goes, and where the axes lead.
"""

from __future__ import annotations

import re
from cmath import rect
from collections.abc import Callable
from math import hypot, isfinite, radians, sqrt, tan
from typing import NamedTuple

from ovlo.core.values.units import LENGTHS
from ovlo.render.svg_reader.path_data import GAP, NUMBER, SPACE, Bend, Subpath

UNITS = {"": 1.0, "Q": LENGTHS["mm"] / LENGTHS["px"] / 4, "pc": 16.0} | {
    unit: size / LENGTHS["px"] for unit, size in LENGTHS.items()
}
"""CSS pixels in a unit (CSS Values 4, 6.2)."""
FONT_UNITS = {"em": 1.0, "ex": 0.5, "ch": 0.5}
"""Font sizes in a unit; those of x and 0 are what CSS takes where a font does not say (CSS Values 4, 6.1)."""
LENGTH = re.compile(rf"({NUMBER})(%|[A-Za-z]*)$")
TRANSFORM = re.compile(rf"{SPACE}([A-Za-z]+){SPACE}\(([^()]*)\){SPACE},?")
ARGUMENT = re.compile(rf"({NUMBER})(px|deg|rad|grad|turn)?")
DEGREES = {"": 1.0, "deg": 1.0, "grad": 0.9, "rad": 180 / 3.141592653589793, "turn": 360.0}


class Length(NamedTuple):
    """A length in user units, or a share of a side of the viewport."""

    value: float
    is_share: bool = False

    def of(self, side: float) -> float:
        """The length in user units."""
        return self.value * side if self.is_share else self.value


def length(text: str, em: float, root_em: float, needs_unit: bool = False) -> Length | None:
    """What a text says; None for no length. In CSS only 0 may have no unit."""
    match = LENGTH.match(text.strip())
    if not match or not isfinite(number := float(match[1])):
        return None
    unit = match[2]
    if unit == "%":
        return Length(number / 100, True)
    if not unit and needs_unit and number:
        return None
    small = unit.lower()
    if small == "rem":
        return Length(number * root_em)
    if small in FONT_UNITS:
        return Length(number * em * FONT_UNITS[small])
    size = UNITS.get(unit if unit == "Q" else "Q" if unit == "q" else small)
    return None if size is None else Length(number * size)


class Map(NamedTuple):
    """A map of the plane: where the origin goes, and the axes lead."""

    origin: complex = 0j
    x_axis: complex = 1 + 0j
    y_axis: complex = 1j

    def vector(self, vector: complex) -> complex:
        """Where a vector leads."""
        return vector.real * self.x_axis + vector.imag * self.y_axis

    def point(self, point: complex) -> complex:
        """Where a point goes."""
        return self.origin + self.vector(point)

    def after(self, inner: Map) -> Map:
        """First the inner map, then this one."""
        return Map(self.point(inner.origin), self.vector(inner.x_axis), self.vector(inner.y_axis))

    @property
    def scale(self) -> float:
        """By how much areas grow, as a factor of lengths."""
        return sqrt(abs((self.x_axis.conjugate() * self.y_axis).imag))

    @property
    def is_similarity(self) -> bool:
        """Whether it keeps angles, and so the shape of a line's width."""
        turned = 1j * self.x_axis
        apart = min(abs(self.y_axis - turned), abs(self.y_axis + turned))
        return apart <= 1e-6 * abs(self.x_axis)


PLAIN = Map()


def _translate(x: float, y: float = 0.0) -> Map:
    return Map(complex(x, y))


def _scale(x: float, y: float | None = None) -> Map:
    return Map(0j, complex(x, 0), complex(0, x if y is None else y))


def _rotate(angle: float, x: float = 0.0, y: float = 0.0) -> Map:
    axis = rect(1, radians(angle % 360))
    centre = complex(x, y)
    return Map(centre - centre * axis, axis, 1j * axis)


def _matrix(a: float, b: float, c: float, d: float, e: float, f: float) -> Map:
    return Map(complex(e, f), complex(a, b), complex(c, d))


KINDS: dict[str, tuple[Callable[..., Map], tuple[int, ...]]] = {
    "translate": (_translate, (1, 2)),
    "scale": (_scale, (1, 2)),
    "rotate": (_rotate, (1, 3)),
    "matrix": (_matrix, (6,)),
    "skewX": (lambda angle: Map(0j, 1 + 0j, complex(tan(radians(angle)), 1)), (1,)),
    "skewY": (lambda angle: Map(0j, complex(1, tan(radians(angle))), 1j), (1,)),
    # CSS Transforms 1, 11
    "translateX": (_translate, (1,)),
    "translateY": (lambda y: _translate(0.0, y), (1,)),
    "scaleX": (lambda x: _scale(x, 1.0), (1,)),
    "scaleY": (lambda y: _scale(1.0, y), (1,)),
}


def matrix(text: str) -> Map | None:
    """The map of a list of transforms; None for one that is not valid."""
    if text.strip() in ("", "none"):
        return PLAIN
    whole, place = PLAIN, 0
    while match := TRANSFORM.match(text, place):
        place = match.end()
        kind, counts = KINDS.get(match[1], (None, ()))
        parts = _arguments(match[2])
        if kind is None or parts is None or len(parts) not in counts:
            return None
        whole = whole.after(kind(*parts))
    ended = place == len(text) and not text.rstrip().endswith(",")
    return whole if ended and all(map(isfinite, _numbers(whole))) else None


def _numbers(plane: Map) -> list[float]:
    return [part for axis in plane for part in (axis.real, axis.imag)]


def _arguments(text: str) -> list[float] | None:
    numbers: list[float] = []
    place, text = 0, text.strip()
    while match := ARGUMENT.match(text, place):
        unit = match[2] or ""
        numbers.append(float(match[1]) * DEGREES.get(unit, 1.0))
        gap = re.compile(GAP).match(text, match.end())
        place = gap.end() if gap else match.end()
        if place == len(text):
            return None if text.endswith(",") else numbers
    return None


class Box(NamedTuple):
    """A place and a size in user units."""

    x: float
    y: float
    width: float
    height: float

    @property
    def diagonal(self) -> float:
        """What lengths that are neither across nor along are shares of (SVG 2, 7.10)."""
        return hypot(self.width, self.height) / sqrt(2)


def view_box(text: str | None) -> Box | None:
    """The box of a `viewBox`; None without a valid one."""
    numbers = _arguments(text or "")
    return Box(*numbers) if numbers and len(numbers) == 4 and min(numbers[2:]) >= 0 else None


ALIGNED = {"Min": 0.0, "Mid": 0.5, "Max": 1.0}
ASPECT = re.compile(r"(?:defer\s+)?(?:(none)|x(Min|Mid|Max)Y(Min|Mid|Max))(?:\s+(meet|slice))?$")


def fitted(view: Box, port: Box, aspect: str | None) -> Map:
    """The map of a view into the box that shows it (SVG 2, 8.2)."""
    match = ASPECT.match((aspect or "").strip()) or ASPECT.match("xMidYMid")
    assert match
    x, y = port.width / view.width, port.height / view.height
    if not match[1]:
        x = y = max(x, y) if match[4] == "slice" else min(x, y)
    shares = ALIGNED.get(match[2], 0.0), ALIGNED.get(match[3], 0.0)
    left = port.x - view.x * x + shares[0] * (port.width - view.width * x)
    top = port.y - view.y * y + shares[1] * (port.height - view.height * y)
    return Map(complex(left, top), complex(x, 0), complex(0, y))


def ellipse(centre: complex, width: float, height: float) -> Subpath:
    """An ellipse with its half-axes, from its right, clockwise as it is seen (SVG 2, 10.4)."""
    start = centre + width
    return Subpath(start, [start], [(0, complex(width), complex(0, height), 360.0)], True)


def rectangle(box: Box, rx: float, ry: float) -> Subpath:
    """A rectangle, its corners rounded, from its top left, clockwise (SVG 2, 10.2)."""
    rx, ry = min(rx, box.width / 2), min(ry, box.height / 2)
    x, y, right, bottom = box.x, box.y, box.x + box.width, box.y + box.height
    if not rx or not ry:
        start = complex(x, y)
        return Subpath(
            start, [complex(right, y), complex(right, bottom), complex(x, bottom), start], [], True
        )
    start = complex(x + rx, y)
    ends: list[complex] = []
    curves: list[Bend] = []
    corners = (
        (complex(right - rx, y), complex(right, y + ry), -1j),
        (complex(right, bottom - ry), complex(right - rx, bottom), 1),
        (complex(x + rx, bottom), complex(x, bottom - ry), 1j),
        (complex(x, y + ry), start, -1),
    )
    for before, after, outward in corners:
        if before != (ends[-1] if ends else start):
            ends.append(before)
        ahead = 1j * outward
        u, v = (complex(side.real * rx, side.imag * ry) for side in (outward, ahead))
        curves.append((len(ends), complex(u), complex(v), 90.0))
        ends.append(after)
    return Subpath(start, ends, curves, True)
