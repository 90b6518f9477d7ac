"""Do two trails show the same picture, perhaps turned, scaled, moved or mirrored?

    comparison = compare(a, b)
    comparison.is_same, comparison.by

What the lines cover counts, not how they were walked: order, direction and splitting do not matter. Moments
of the lines about their middle propose turns and scales; the points nearest to each other decide.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property
from itertools import islice

import numpy as np

from ovlo.core.compare.looks import look_words, text_words
from ovlo.core.compare.nearest import SearchableLines
from ovlo.core.compare.on_top import Look, Paint, is_same_to_the_eye
from ovlo.core.compare.proposals import proposals
from ovlo.core.compare.side import SAME, Picture
from ovlo.core.paint.measures import TextBox
from ovlo.core.trail.columns import Columns
from ovlo.core.trail.similarity import Similarity

FEW_POINTS = (16, 500)
"""Compared first, to drop proposals that are wrong."""

MOST_OFF = 0.1
"""Of those few, so many may be off: where many lines are near, the right one may not be found."""


@dataclass(frozen=True)
class Difference:
    """The largest distance between two pictures, and where: in a line, or the border of an area, of one."""

    distance: float
    place: complex
    is_only_in: str
    what: str


@dataclass(frozen=True)
class Relation:
    """What two pictures have to do with each other.

    Attributes
    ----------
    by : Similarity or None
        What makes the second of the first; None if they differ in shape.
    size : float
        The diagonal of the second picture's box, sheet units.
    difference : Difference or None
        Where they differ most, as drawn, if they do; also if nobody sees it.
    words : tuple of str
        What else differs: texts, colours, widths, rules, in sentences.
    is_same_to_the_eye : bool
        Whether they only look the same, with other marks: an area in two halves, a mark that is hidden.
    """

    by: Similarity | None
    size: float
    difference: Difference | None = None
    words: tuple[str, ...] = ()
    is_same_to_the_eye: bool = False

    @property
    def is_same_shape(self) -> bool:
        """Whether the lines, areas and texts are the same, perhaps turned, scaled, moved or mirrored."""
        return self.by is not None

    @property
    def is_same(self) -> bool:
        """Whether the pictures are the same, perhaps turned, scaled, moved or mirrored, colours included."""
        return self.by is not None and not self.words

    @property
    def is_in_place(self) -> bool:
        """Whether the second stands where the first does."""
        return self.by == Similarity()


@dataclass(frozen=True)
class CompareInputs:
    """What a comparison needs to know about pixels and texts.

    Attributes
    ----------
    paint : callable
        Paints a part of the plane, (left, bottom, right, top), as rows of red, green, blue and opacity.
    text_box : callable
        The corners of a text's box.
    pixels_per_unit : float
    """

    paint: Paint
    text_box: TextBox
    pixels_per_unit: float = 1.0


UNSEEN = 0.05
"""Pixels that nobody sees."""

MOST_LOOKED_AT = 24
"""Of a symmetrical figure, so many ways to lay it on itself are tried for colours: twelve turns, mirrored."""


def compare(a: Columns, b: Columns, inputs: CompareInputs | None = None) -> Relation:
    """What two trails' pictures have to do with each other; without inputs not what lies on top."""
    if a.is_equal(b):
        return Relation(Similarity(), 1.0)
    first, second = Picture.of(a), Picture.of(b)
    tolerance = SAME * second.size
    here = Similarity()
    apart = list(_differences(first, second, here, tolerance))
    looks = _LookRelation(first, second, inputs)
    found = max(apart, key=lambda difference: difference.distance, default=None)
    is_unseen = found is not None and inputs is not None and found.distance <= UNSEEN / inputs.pixels_per_unit
    if found is not None and is_unseen and not looks.words(here, 2 * found.distance):
        return Relation(here, second.size, found)
    best: Relation | None = None
    for by in islice(_fitting(first, second, apart, tolerance), MOST_LOOKED_AT):
        # After the first, only one that shows the same at every place is asked what differs.
        if best is not None and looks.on_top(by):
            continue
        words = looks.words(by, tolerance)
        if not words:
            return Relation(by, second.size)
        if best is None:
            best = Relation(by, second.size, None, words)
    if best is not None and len(first.all_lines):
        return best
    if found is not None and is_unseen:
        return Relation(here, second.size, found, looks.words(here, 2 * found.distance))
    words = looks.texts(here, tolerance)
    if inputs is not None and not words and first.has_marks and second.has_marks:
        is_same = is_same_to_the_eye(first, second, inputs.paint, inputs.pixels_per_unit)
        if is_same:
            return Relation(here, second.size, found, is_same_to_the_eye=True)
    return Relation(None, second.size, found, words)


def _fitting(a: Picture, b: Picture, apart: list[Difference], tolerance: float) -> Iterator[Similarity]:
    """What makes the lines and areas of one picture those of the other: standing still comes first."""
    here = Similarity()
    if not apart:
        yield here
    for by in proposals(a, b):
        is_known = not apart and by.is_near(here, tolerance)
        if is_known or not _might_be(a, b, by, tolerance):
            continue
        if next(_differences(a, b, by, tolerance), None) is None:
            yield by


class _LookRelation:
    """What differs between two pictures where the shapes are the same."""

    def __init__(self, a: Picture, b: Picture, inputs: CompareInputs | None) -> None:
        self._a, self._b, self._eyes = a, b, inputs

    @cached_property
    def _look(self) -> Look | None:
        return None if self._eyes is None else Look(self._b, self._eyes.paint)

    def texts(self, by: Similarity, tolerance: float) -> tuple[str, ...]:
        """Which words differ."""
        box = None if self._eyes is None else self._eyes.text_box
        return text_words(self._a, self._b, by, tolerance, box)

    def words(self, by: Similarity, tolerance: float) -> tuple[str, ...]:
        """Which words differ, or else colours and widths, or else what lies on top."""
        if found := self.texts(by, tolerance) or look_words(self._a, self._b, by, tolerance):
            return found
        return self.on_top(by)

    def on_top(self, by: Similarity) -> tuple[str, ...]:
        """Where another colour is seen, without regard to why."""
        return () if self._look is None else self._look.words(self._a.columns, by)


def _might_be(a: Picture, b: Picture, by: Similarity, tolerance: float) -> bool:
    """Whether a few points of one picture all lie on the other."""
    for count in FEW_POINTS:
        for ours, theirs in zip(a.layers, b.layers, strict=True):
            some = by.points(ours.z[:: len(ours.z) // count + 1])
            if len(some) and (theirs.bounds(some, 10 * tolerance) > 10 * tolerance).mean() > MOST_OFF:
                return False
    return True


def _differences(a: Picture, b: Picture, by: Similarity, tolerance: float) -> Iterator[Difference]:
    """Where two pictures are farthest apart once the first is moved: lines and areas, from both sides."""
    for ours, theirs, what in zip(a.layers, b.layers, ("line", "area"), strict=True):
        if there := _farther(ours, theirs, by, tolerance):
            yield Difference(*there, "A", what)
        if back := _farther(theirs, ours, by.inverse, tolerance / by.scale):
            distance, place = back
            z = complex(by.points(np.array([place]))[0])
            yield Difference(distance * by.scale, z, "B", what)


def _farther(
    ours: SearchableLines, theirs: SearchableLines, by: Similarity, tolerance: float
) -> tuple[float, complex] | None:
    distance, place = ours.farthest(theirs, by, tolerance)
    if distance > tolerance:
        return distance, place
    return _uncovered(ours, theirs, by, tolerance)


def _uncovered(
    ours: SearchableLines, theirs: SearchableLines, by: Similarity, tolerance: float
) -> tuple[float, complex] | None:
    """A short gap: just beyond an end of their lines, ours go on and theirs do not."""
    lines = theirs.lines
    longer = by.scale * float(ours.lines.lengths.sum()) - float(lines.lengths.sum())
    if longer <= tolerance or not len(lines):
        return None
    every = np.arange(len(lines))
    ahead = lines.ends - lines.at(every, np.full(len(lines), 1 - 1e-6))
    behind = lines.starts - lines.at(every, np.full(len(lines), 1e-6))
    ways, ends = np.concatenate([behind, ahead]), np.concatenate([lines.starts, lines.ends])
    is_way = ways != 0
    probes = ends[is_way] + 4 * tolerance * ways[is_way] / np.abs(ways[is_way])
    probes = probes[theirs.bounds(probes, 2 * tolerance) > 2 * tolerance]
    back = by.inverse
    on_ours = ours.bounds(back.points(probes), tolerance / by.scale) * by.scale <= tolerance
    for z in probes[on_ours].tolist():
        if (distance := theirs.exact(z)) > 2 * tolerance:
            return distance, z
    return None
