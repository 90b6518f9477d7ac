"""What differs between two pictures of one shape: words, colours, widths.

text_words(texts_a, texts_b, by, tolerance)
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from ovlo.core.compare.line_set import Lines
from ovlo.core.compare.nearest import NEIGHBOURS, SearchableLines
from ovlo.core.compare.side import SAME, Picture
from ovlo.core.paint.measures import TextBox
from ovlo.core.trail.columns import Style, Text
from ovlo.core.trail.similarity import Similarity, moved_text
from ovlo.core.values.arrays import Complexes, Ints
from ovlo.core.values.colour import Colour
from ovlo.core.values.degrees import half_turned

LOOKED_AT = 20_000
"""Points whose colours are compared."""


def text_words(
    a: Picture, b: Picture, by: Similarity, tolerance: float, box: TextBox | None = None
) -> tuple[str, ...]:
    """Which words one picture has and the other has not, at the same place, in sentences.

    With `box`, which gives a text's corners, words are the same wherever they were aligned.
    """
    left = list(b.texts)
    alone: list[Text] = []
    for text in a.texts:
        there = moved_text(text, by)
        match = next(
            (one for one in left if not by.is_mirrored and _is_same_text(there, one, tolerance, box)), None
        )
        if match is None:
            alone.append(text)
        else:
            left.remove(match)
    found = []
    for text in list(alone):
        there = moved_text(text, by)
        other = next((one for one in left if one.words == there.words and _is_beside(there, one)), None)
        if other is not None and (manner := _other_manner(there, other)):
            alone.remove(text)
            left.remove(other)
            found.append(f"The text {text.words!r} has {manner}.")
    found += [
        f"The text {text.words!r} is only in {name}."
        for name, texts in (("A", alone), ("B", left))
        for text in texts
    ]
    return tuple(found)


def _is_beside(a: Text, b: Text) -> bool:
    """Whether two texts begin within a letter of each other."""
    return abs(complex(a.x - b.x, a.y - b.y)) <= max(a.size, b.size)


def _other_manner(a: Text, b: Text) -> str:
    """What of a text is other in A than in B."""
    return ", ".join(
        f"{name} {_plain(getattr(a, name))} in A, but {_plain(getattr(b, name))} in B"
        for name in ("weight", "slant", "font", "size")
        if _plain(getattr(a, name)) != _plain(getattr(b, name))
    )


def _plain(value: object) -> str:
    return f"{value:.4g}" if isinstance(value, float) else f"{value}"


def _is_same_text(a: Text, b: Text, tolerance: float, box: TextBox | None) -> bool:
    manner = ("words", "font", "weight", "slant")
    turn = abs(half_turned(a.heading - b.heading))
    if (
        any(getattr(a, name) != getattr(b, name) for name in manner)
        or abs(a.size - b.size) > SAME * b.size
        or turn >= 1e-4
    ):
        return False
    if box is None:
        is_aligned = (a.align, a.baseline) == (b.align, b.baseline)
        return is_aligned and abs(complex(a.x - b.x, a.y - b.y)) <= tolerance
    apart = np.abs(np.subtract(box(a), box(b))).max()
    return bool(apart <= max(tolerance, SAME * b.size * len(b.words)))


def look_words(a: Picture, b: Picture, by: Similarity, tolerance: float) -> tuple[str, ...]:
    """Which colours and widths differ where the shapes are the same, in sentences."""
    areas = [[_area_look(row) for row in picture.columns.areas] for picture in (a, b)]
    found: list[list[str]] = []
    # Lines of a larger picture may be wider with it, or not.
    for scale in dict.fromkeys([1.0, by.scale]):
        lines = [[_line_look(style, s) for style in one.columns.styles] for one, s in ((a, scale), (b, 1.0))]
        found.append(_unlike(a.raw[0], b.raw[0], lines, by, tolerance, "lines"))
    return (*min(found, key=len), *_unlike(a.raw[1], b.raw[1], areas, by, tolerance, "areas"))


def _line_look(style: Style, scale: float) -> str:
    dash = (
        f", dashed {' '.join(f'{scale * length:.4g}' for length in style.line_dash)}"
        if style.line_dash
        else ""
    )
    return f"{style.ink.css}, {scale * style.line_width:.4g} wide{dash}"


def _area_look(row: NDArray[np.void]) -> str:
    return Colour(*(float(row[name]) for name in ("red", "green", "blue", "opacity"))).css


def _unlike(
    a: Lines, b: Lines, looks: list[list[str]], by: Similarity, tolerance: float, what: str
) -> list[str]:
    """How lines of one picture look where they look otherwise in the other; the uppermost counts."""
    used = {looks[0][i] for i in np.unique(a.looks)} | {looks[1][i] for i in np.unique(b.looks)}
    if len(used) < 2 or not len(a) or not len(b):
        return []
    spacing = max(float(a.lengths.sum()) / LOOKED_AT, 1e-300)
    ours, theirs = SearchableLines(a, spacing), SearchableLines(b, spacing * by.scale)
    middles = ours.z[2 * len(a) :]
    some = middles[:: max(1, len(middles) // LOOKED_AT)]
    mine = np.array(looks[0])[_uppermost(ours, some, tolerance / by.scale)]
    other = np.array(looks[1])[_uppermost(theirs, by.points(some), tolerance)]
    differ = mine != other
    pairs, counts = np.unique(np.column_stack([mine[differ], other[differ]]), axis=0, return_counts=True)
    order = np.argsort(-counts)[:3]
    return [
        f"{counts[i] / len(some):.0%} of the {what} are {pairs[i][0]} in A, but {pairs[i][1]} in B."
        for i in order
    ]


def _uppermost(layer: SearchableLines, z: Complexes, tolerance: float) -> Ints:
    """The look of the last line drawn through each point; there is one."""
    owners = layer.owners[layer.nearest(z, NEIGHBOURS[1])]
    distances = layer.lines.distances(np.repeat(z, owners.shape[1]), owners.ravel()).reshape(owners.shape)
    near = distances <= np.maximum(2 * tolerance, distances.min(axis=1, keepdims=True))
    last = np.where(near, owners, -1).max(axis=1)
    return np.asarray(layer.lines.looks[last])
