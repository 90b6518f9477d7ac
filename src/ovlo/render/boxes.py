"""Boxes of pixels: united, clipped, and pixels laid over those in a box.

united((0, 0, 4, 4), (2, 2, 8, 8))    # (0, 0, 8, 8)
"""

from __future__ import annotations

from math import ceil, floor

import numpy as np

from ovlo.core.values.arrays import Bytes

PixelBox = tuple[int, int, int, int]
"""Columns and rows of pixels: left, top, right, bottom; the last two not included."""

NOTHING: PixelBox = (0, 0, 0, 0)


def is_empty(box: PixelBox) -> bool:
    """Whether there are no pixels in a box."""
    return box[0] >= box[2] or box[1] >= box[3]


def part_of(pixels: Bytes, box: PixelBox) -> Bytes:
    """The pixels in a box, as a view."""
    left, top, right, bottom = box
    return pixels[top:bottom, left:right]


def united(a: PixelBox, b: PixelBox) -> PixelBox:
    """The box around two boxes."""
    if is_empty(a):
        return b
    if is_empty(b):
        return a
    return min(a[0], b[0]), min(a[1], b[1]), max(a[2], b[2]), max(a[3], b[3])


def clipped(box: tuple[float, float, float, float], to: PixelBox) -> PixelBox:
    """The whole pixels that a box touches, inside another."""
    left, top, right, bottom = (
        min(max(side, low), high) for side, low, high in zip(box, to[:2] * 2, to[2:] * 2, strict=True)
    )
    return floor(left), floor(top), ceil(right), ceil(bottom)


def laid_over(pixels: Bytes, box: PixelBox, over: Bytes) -> PixelBox:
    """Lay pixels over a frame at a place; returns the box of the frame they cover."""
    height, width = pixels.shape[:2]
    seen = clipped(box, (0, 0, width, height))
    if is_empty(seen):
        return seen
    left, top, right, bottom = seen
    part = part_of(over, (left - box[0], top - box[1], right - box[0], bottom - box[1]))
    under = part_of(pixels, seen)
    opacity = part[..., 3:] / 255
    below = under[..., 3:] / 255 * (1 - opacity)
    whole = opacity + below
    mixed = opacity * part[..., :3] + below * under[..., :3]
    np.divide(mixed, whole, out=mixed, where=whole > 0)
    under[..., :3] = np.rint(mixed)
    under[..., 3:] = np.rint(255 * whole)
    return seen
