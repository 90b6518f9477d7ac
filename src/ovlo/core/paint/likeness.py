"""Numbers for rows of measures, the same for rows that are equal but for rounding.

numbered(rows, 1e-6)
"""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from ovlo.core.values.arrays import Complexes, Floats, Ints

ASIDE = 0.3719
"""Of a cell, by which the cells are moved, so that common values do not lie on their edges."""


AT_ONCE = 100_000
"""Rows that are numbered at once, since each needs several copies of its measures."""

FARTHEST = 2**62
"""Cells farther out are one, so that they fit into whole numbers."""


def coordinates(*points: Complexes) -> list[Floats]:
    """The x and y of each of some points or ways, as measures to be numbered."""
    return [part for one in points for part in (one.real, one.imag)]


def lots(count: int) -> Iterator[slice]:
    """So many rows in lots of those that are numbered at once."""
    return (slice(first, min(first + AT_ONCE, count)) for first in range(0, count, AT_ONCE))


def numbered(rows: Floats, same: float) -> Ints:
    """A number for each row, shape (n,).

    Parameters
    ----------
    rows : float array of shape (n, k)
    same : float
        By how much values may differ that are taken for one, if they do not lie on either side of an edge.
    """
    weights = np.random.default_rng(1).integers(1, 2**62, rows.shape[1], dtype=np.int64) | 1
    found = np.empty(len(rows), np.int64)
    for some in lots(len(rows)):
        with np.errstate(over="ignore"):
            cells = np.clip(np.floor(rows[some] / same + ASIDE), -FARTHEST, FARTHEST).astype(np.int64)
        found[some] = np.bitwise_xor.reduce(mixed(cells * weights), axis=1)
    return found


def mixed(numbers: Ints) -> Ints:
    """Numbers whose bits hang on all bits of others, so that sums and differences of those are not theirs.

    A step of splitmix64 (Steele, Lea and Flood, 2014); what is too large wraps round.
    """
    bits = numbers.astype(np.uint64)
    bits = (bits ^ (bits >> np.uint64(30))) * np.uint64(0xBF58476D1CE4E5B9)
    bits = (bits ^ (bits >> np.uint64(27))) * np.uint64(0x94D049BB133111EB)
    return (bits ^ (bits >> np.uint64(31))).astype(np.int64)
