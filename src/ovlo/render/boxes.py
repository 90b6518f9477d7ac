"""Boxes of pixels: united, clipped, and pixels laid over those in a box.

united((0, 0, 4, 4), (2, 2, 8, 8))    # (0, 0, 8, 8)
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

Box = tuple[int, int, int, int]
"""Columns and rows of pixels: left, top, right, bottom; the last two not included."""

NOTHING: Box = (0, 0, 0, 0)


def united(a: Box, b: Box) -> Box:
    """The box around two boxes."""
    if a[0] >= a[2] or a[1] >= a[3]:
        return b
    if b[0] >= b[2] or b[1] >= b[3]:
        return a
    return min(a[0], b[0]), min(a[1], b[1]), max(a[2], b[2]), max(a[3], b[3])


def clipped(box: tuple[float, float, float, float], to: Box) -> Box:
    """The whole pixels that a box touches, inside another."""
    left, top = (
        int(np.clip(np.floor(v), low, high)) for v, low, high in zip(box[:2], to[:2], to[2:], strict=True)
    )
    right, bottom = (
        int(np.clip(np.ceil(v), low, high)) for v, low, high in zip(box[2:], to[:2], to[2:], strict=True)
    )
    return left, top, right, bottom


def laid_over(pixels: NDArray[np.uint8], box: Box, over: NDArray[np.uint8]) -> Box:
    """Lay pixels over a frame at a place; returns the box of the frame they cover."""
    height, width = pixels.shape[:2]
    left, top, right, bottom = seen = clipped(box, (0, 0, width, height))
    if left >= right or top >= bottom:
        return seen
    part = over[top - box[1] : bottom - box[1], left - box[0] : right - box[0]]
    under = pixels[top:bottom, left:right]
    opacity = part[..., 3:] / 255
    below = under[..., 3:] / 255 * (1 - opacity)
    whole = opacity + below
    mixed = opacity * part[..., :3] + below * under[..., :3]
    np.divide(mixed, whole, out=mixed, where=whole > 0)
    under[..., :3] = np.rint(mixed)
    under[..., 3:] = np.rint(255 * whole)
    return seen
