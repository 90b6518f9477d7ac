"""Whether what lies on top is the same, where the shapes are: both painted, and their pixels compared.

Look(b, paint).words(a.columns, by)
"""

from __future__ import annotations

from collections.abc import Callable
from math import ceil

import numpy as np
from numpy.typing import NDArray

from ovlo.core.compare.side import Picture
from ovlo.core.paint.measures import widest_line
from ovlo.core.trail.columns import Columns, PenState, Style
from ovlo.core.trail.similarity import Similarity, transformed
from ovlo.core.values.arrays import Box, Bytes
from ovlo.core.values.colour import Colour
from ovlo.core.values.pose import point_in_words

Paint = Callable[[Columns, Box], Bytes]
"""Paints the part of the plane in a box: left, bottom, right, top."""

UNLIKE = 48
"""By so much of 255 colours are told apart, in 3 by 3 pixels; a share of an edge's pixel is not."""

SEEN = 64
"""By so much of 255 a single pixel shows that pictures differ; a seam between two halves is fainter."""

ROUNDED = 24
"""By so much of 255 a pixel of a file may differ from that of the file read back."""

TILE, MOST_TILES = 350, 64
"""Pixels of a tile's side, and so many tiles are painted."""

MARGIN = 0.02
"""Of the picture's size, around it."""


class Look:
    """The second picture as it is seen, to hold the first one against."""

    def __init__(self, b: Picture, paint: Paint) -> None:
        self._box = _box((b,))
        self._columns = b.columns
        self._paint = paint
        self._pixels = paint(b.columns, self._box)
        self._weighed = _weighed(self._pixels)

    def words(self, a: Columns, by: Similarity) -> tuple[str, ...]:
        """Where it shows another colour than the first, in a sentence."""
        found = []
        # Lines of a larger picture may be wider with it, or not.
        for keeps_width in (False, True) if by.scale != 1 else (False,):
            moved = transformed(a, by, keeps_width) if by != Similarity() else a
            found.append(self._unlike(self._paint(moved, self._box), _why(a, self._columns)))
        return min(found, key=len)

    def _unlike(self, ours: Bytes, why: str) -> tuple[str, ...]:
        differ = np.abs(_weighed(ours) - self._weighed).max(axis=2) > UNLIKE
        # Blocks, by their lowest corners, of which all pixels differ.
        blocks = differ[:-2] & differ[1:-1] & differ[2:]
        blocks = blocks[:, :-2] & blocks[:, 1:-1] & blocks[:, 2:]
        rows, columns = np.nonzero(blocks)
        if not len(rows):
            return ()
        # The pixel nearest the middle of them all is reported.
        middle = np.argmin((rows - rows.mean()) ** 2 + (columns - columns.mean()) ** 2)
        row, column = int(rows[middle]) + 1, int(columns[middle]) + 1
        height, width = differ.shape
        left, bottom, right, top = self._box
        x = left + (column + 0.5) / width * (right - left)
        y = top - (row + 0.5) / height * (top - bottom)
        a, b = (_named(one[row, column]) for one in (ours, self._pixels))
        return (f"At {point_in_words(x, y)} A shows {a} and B {b}, though their marks are the same: {why}.",)


def is_same_to_the_eye(a: Picture, b: Picture, paint: Paint, pixels_per_unit: float) -> bool:
    """Whether two pictures show the same where they stand, whatever marks they consist of.

    Both are painted tile by tile, two pixels for each of a file's, and if those differ one for each, where
    the rounding of a file that was read back is hardly seen; very large ones are not looked at.
    """
    return any(
        _is_painted_alike(a, b, paint, tile / pixels_per_unit, most)
        for tile, most in ((TILE, SEEN), (2 * TILE, ROUNDED))
    )


def _is_painted_alike(a: Picture, b: Picture, paint: Paint, side: float, most: int) -> bool:
    """Whether no pixel of two pictures, painted in tiles of a side, differs by more than so much."""
    left, bottom, right, top = _box((a, b))
    across, up = (max(1, ceil(reach / side)) for reach in (right - left, top - bottom))
    if across * up > MOST_TILES:
        return False
    x, y = left + side * np.arange(across + 1), bottom + side * np.arange(up + 1)
    for i in range(across):
        for k in range(up):
            tile = float(x[i]), float(y[k]), float(x[i + 1]), float(y[k + 1])
            ours, theirs = (_weighed(paint(picture.columns, tile)) for picture in (a, b))
            if (np.abs(ours - theirs).max(axis=2) > most).any():
                return False
    return True


def _box(pictures: tuple[Picture, ...]) -> Box:
    """The box of everything in some pictures, with some room around it."""
    places = [complex(text.x, text.y) for one in pictures for text in one.texts]
    for one in pictures:
        places += one.all_lines.box if len(one.all_lines) else ()
    places = places or [0j]
    edge = max(MARGIN * one.size + widest_line(one.columns) for one in pictures) + 1e-9
    left, right = min(z.real for z in places) - edge, max(z.real for z in places) + edge
    bottom, top = min(z.imag for z in places) - edge, max(z.imag for z in places) + edge
    return left, bottom, right, top


def _why(a: Columns, b: Columns) -> str:
    """Why the same marks may look otherwise."""
    for name, noun in (("line_cap", "caps"), ("line_join", "joins")):
        ours, theirs = ({getattr(style, name) for style in _drawn_styles(one)} for one in (a, b))
        if ours != theirs and len(ours) == len(theirs) == 1:
            return f"lines have {ours.pop()} {noun} in A, but {theirs.pop()} {noun} in B"
    return "they lie over each other in another order, or their caps, joins or repeats differ"


def _drawn_styles(columns: Columns) -> list[Style]:
    """The styles of the lines that are drawn."""
    used = np.unique(columns.runs["style"][columns.runs["pen"] == PenState.DRAW])
    return [columns.styles[number] for number in used.tolist()]


def _weighed(pixels: Bytes) -> NDArray[np.float32]:
    """Colours as far as they are seen."""
    weighed = pixels.astype(np.float32)
    weighed[..., :3] *= weighed[..., 3:] / 255
    return weighed


def _named(pixel: Bytes) -> str:
    red, green, blue, opacity = pixel.tolist()
    return Colour(red, green, blue, opacity / 255).css if opacity else "nothing"
