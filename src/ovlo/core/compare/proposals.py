"""ShapeMoments of lines: by which turn and scale one figure may be another.

ShapeMoments(lines).middle, ShapeMoments(lines).spread
"""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from ovlo.core.compare.line_set import Lines
from ovlo.core.compare.side import Picture
from ovlo.core.trail.similarity import Similarity
from ovlo.core.values.degrees import half_turned

MOST_FOLD = 360
"""A symmetry of so many turns is still found."""


MOST_TRIED = 2
"""So many clear moments are asked for turns."""


UNLIKE = 1e-4
"""Lengths (as shares) or moments of one shape do not differ by more."""

CLEAR = 1e-3
"""A moment this share of the largest it could be tells a direction."""


def proposals(a: Picture, b: Picture) -> Iterator[Similarity]:
    """Similarities that may make the second picture of the first: unmirrored and small turns first."""
    if not len(a.all_lines) or not len(b.all_lines):
        yield from _text_proposals(a, b)
        return
    ours, theirs = ShapeMoments(a.all_lines), ShapeMoments(b.all_lines)
    if not ours.spread or not theirs.spread:
        yield Similarity(1.0, 0.0, *_pair(theirs.middle - ours.middle))
        return
    scale = theirs.spread / ours.spread
    if abs(theirs.length - scale * ours.length) > UNLIKE * theirs.length:
        return
    for is_mirrored in (False, True):
        middle = ours.middle.conjugate() if is_mirrored else ours.middle
        for turn in _turns(ours, theirs, is_mirrored):
            factor = scale * np.exp(1j * turn)
            move = _pair(theirs.middle - factor * middle)
            yield Similarity(scale, float(np.degrees(turn)), *move, is_mirrored)


def _text_proposals(a: Picture, b: Picture) -> Iterator[Similarity]:
    """Pictures of words only: what makes the first text the one with the same words."""
    for text in a.texts[:1]:
        for other in b.texts:
            if other.words == text.words:
                scale, turn = other.size / text.size, other.heading - text.heading
                factor = scale * np.exp(1j * np.radians(turn))
                move = complex(other.x, other.y) - factor * complex(text.x, text.y)
                yield Similarity(scale, half_turned(turn), *_pair(move))


def _turns(ours: ShapeMoments, theirs: ShapeMoments, is_mirrored: bool) -> Iterator[float]:
    """The turns by which the moments of lines become those of others, in radians, the smallest first.

    The m-th moment turns m times as fast as the picture, which leaves m turns to choose from. Figures with a
    symmetry of m turns have no clear moment below m; those of circles have none.
    """
    tried = 0
    for m, (mine, other) in enumerate(zip(ours, theirs, strict=False), 1):
        if abs(abs(mine) - abs(other)) > UNLIKE:
            return
        if abs(mine) > CLEAR and abs(other) > CLEAR:
            turn = np.angle(other / (mine.conjugate() if is_mirrored else mine)) / m
            turns = np.angle(np.exp(1j * (turn + 2 * np.pi * np.arange(m) / m)))
            yield from sorted(turns.tolist(), key=lambda one: (round(abs(one), 9), one < 0))
            tried += 1
        if tried == MOST_TRIED:
            return
    if not tried:
        yield 0.0


class ShapeMoments:
    """The middle of lines, how far they spread, and their moments as shares of the largest possible ones.

    The m-th is the integral of ((z - middle)/spread)^m along all lines, by Gauss-Legendre quadrature over
    short pieces (M. Abramowitz and I. Stegun, Handbook of Mathematical Functions, 25.4.29).
    """

    def __init__(self, lines: Lines) -> None:
        low, high = lines.box
        counts = np.clip(np.ceil(lines.lengths / (abs(high - low) / 32 or 1.0)), 1, 4096).astype(np.int64)
        nodes, weights = np.polynomial.legendre.leggauss(4)
        owners = np.repeat(np.arange(len(lines)), counts)
        number = np.arange(len(owners)) - np.repeat(np.cumsum(counts) - counts, counts)
        shares = (number[:, None] + (nodes + 1) / 2) / counts[owners][:, None]
        z = lines.at(np.repeat(owners, len(nodes)), shares.ravel())
        weight = ((lines.lengths / counts)[owners][:, None] * weights / 2).ravel()
        total = float(weight.sum())
        self.middle = complex((weight @ z) / total) if total else complex(z.mean())
        z = z - self.middle
        self.spread = float(np.sqrt(weight @ (z.real**2 + z.imag**2) / total)) if total else 0.0
        self._z = z / (float(np.abs(z).max()) or 1.0)
        self._weight = weight
        self.length = total

    def __iter__(self) -> Iterator[complex]:
        power, size = self._weight.astype(complex), self._weight.copy()
        radius = np.abs(self._z)
        for _ in range(MOST_FOLD):
            power *= self._z
            size *= radius
            yield complex(power.sum() / size.sum())


def _pair(z: complex) -> tuple[float, float]:
    return float(z.real), float(z.imag)
