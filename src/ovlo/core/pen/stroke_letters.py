"""Letters of single strokes, which a pen writes as it draws lines: `text(…, font="stroke")`.

pieces, missing = laid("kite", 16, (0, 0), 90, "start", "alphabetic", "normal")

The alphabet stands in stroke_letters.json, which `make letters` draws.
"""

from __future__ import annotations

import json
from functools import cache
from importlib.resources import files
from itertools import pairwise
from math import atan2, ceil, cos, degrees, radians, sin, tan
from typing import NamedTuple

import numpy as np

from ovlo.core.trail.trail import PACK_STEP, Piece
from ovlo.core.values.arrays import Floats
from ovlo.core.values.choices import ANCHOR, RISE, Baseline, Slant, TextAlign
from ovlo.core.values.degrees import direction, normal

STROKE = "stroke"
"""The name of the font."""

LEAN = tan(radians(12))
"""How far slanted letters lean, as a share of their height."""

CHORD = 3
"""Degrees of an arc that one chord stands for."""

BOX = [[0.06, 0.0], [0.46, 0.0], [0.46, 0.7], [0.06, 0.7], [0.06, 0.0]]
"""What stands for a letter that the alphabet does not have, and how far it is to the next one."""

BOX_ADVANCE = 0.52

Matrix = tuple[float, float, float, float]


class _Part(NamedTuple):
    """A line or an arc of a letter: its end, the direction there, and u, v and sweep of an arc (see ARC)."""

    end: complex
    along: complex
    u: complex
    v: complex
    sweep: float


class _Letter(NamedTuple):
    advance: float
    strokes: list[tuple[complex, list[_Part]]]


def laid(
    words: str,
    size: float,
    place: tuple[float, float],
    heading: float,
    align: TextAlign,
    baseline: Baseline,
    slant: Slant,
) -> tuple[list[Piece], str]:
    """The strokes of words as pieces of a shape, and the letters that the alphabet does not have."""
    cosine, sine = direction(heading)
    lean = 0.0 if slant == "normal" else LEAN
    matrix = size * cosine, size * (lean * cosine - sine), size * sine, size * (lean * sine + cosine)
    back, drop = ANCHOR[align] * width(words), RISE[baseline]
    x = place[0] - size * (back * cosine - drop * sine)
    y = place[1] - size * (back * sine + drop * cosine)
    pieces = []
    for word in words:
        letter = _letter(word)
        pieces += [_piece(start, parts, matrix, x, y) for start, parts in letter.strokes]
        x += size * letter.advance * cosine
        y += size * letter.advance * sine
    return pieces, "".join(word for word in dict.fromkeys(words) if word not in _alphabet())


def width(words: str) -> float:
    """How far words reach along their line, as a share of the size."""
    return sum(_letter(word).advance for word in words)


def lines(words: str, slant: Slant) -> list[Floats]:
    """The strokes of words from the origin along the x axis as chords, in shares of the size."""
    lean, x, found = 0.0 if slant == "normal" else LEAN, 0.0, []
    for word in words:
        letter = _letter(word)
        for start, parts in letter.strokes:
            points, place = [start], start
            for part in parts:
                if part.sweep:
                    turns = (
                        np.radians(part.sweep) * np.arange(1, count := ceil(abs(part.sweep) / CHORD)) / count
                    )
                    points += (place - part.u + part.u * np.exp(1j * turns)).tolist()
                points.append(place := part.end)
            places = np.array(points)
            found.append(np.column_stack([x + places.real + lean * places.imag, places.imag]))
        x += letter.advance
    return found


def _piece(start: complex, parts: list[_Part], matrix: Matrix, x: float, y: float) -> Piece:
    """A stroke under a matrix, at a place."""
    a, b, c, d = matrix

    def turned(vector: complex) -> tuple[float, float]:
        return a * vector.real + b * vector.imag, c * vector.real + d * vector.imag

    dx, dy = turned(start)
    steps, arcs = [], []
    for number, part in enumerate(parts):
        end, along = turned(part.end), turned(part.along)
        steps.append(PACK_STEP(x + end[0], y + end[1], normal(degrees(atan2(along[1], along[0])))))
        if part.sweep:
            arcs.append((number, *turned(part.u), *turned(part.v), part.sweep))
    return (x + dx, y + dy), b"".join(steps), arcs, False


@cache
def _alphabet() -> dict[str, list[list[list[float]]]]:
    return json.loads(files(__package__).joinpath("stroke_letters.json").read_text("utf-8"))  # type: ignore[no-any-return]


@cache
def _letter(word: str) -> _Letter:
    advance, *strokes = _alphabet().get(word, [BOX_ADVANCE, BOX])
    return _Letter(advance, [_parts(stroke) for stroke in strokes])  # type: ignore[arg-type]


def _parts(stroke: list[list[float]]) -> tuple[complex, list[_Part]]:
    """A stroke: where it begins, and its lines and arcs."""
    places = [complex(place[0], place[1]) for place in stroke]
    parts = []
    for (start, end), place in zip(pairwise(places), stroke[1:], strict=True):
        if len(place) == 2:
            parts.append(_Part(end, end - start, 0j, 0j, 0.0))
            continue
        sweep = place[2]
        half = radians(sweep) / 2
        # The centre is beside the middle of the chord, to the left of an arc to the left.
        u = start - ((start + end) / 2 + (end - start) / 2 * 1j / tan(half))
        along = u * 1j * complex(cos(2 * half), sin(2 * half))
        parts.append(_Part(end, along if sweep > 0 else -along, u, u * 1j, sweep))
    return places[0], parts
