"""Walks over arrays: many pairs of forward and left in one NumPy pass.

    for steps, pose in walked(Pose(), distances, angles): ...

It goes block by block, so that every intermediate array stays in the processor's cache; that, and not
the arithmetic, is what makes it as fast as the bare sums over whole arrays.
"""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
from numpy.typing import ArrayLike

from ovlo.core.values.arguments import LARGEST, LARGEST_NUMBER, brief, within_reach
from ovlo.core.values.arrays import Floats
from ovlo.core.values.degrees import directions
from ovlo.core.values.errors import BadType, BadValue
from ovlo.core.values.pose import Pose

BLOCK = 1 << 14


def check_walk_reach(pose: Pose, lengths: Floats, turns: Floats) -> None:
    """Refuse a walk that leads too far away, before anything of it is recorded."""
    if abs(pose.x) + abs(pose.y) + float(np.abs(lengths).sum()) < LARGEST:
        return
    for steps, _ in walked(pose, lengths, turns):
        x, y = steps[np.argmax(np.abs(steps[:, :2]).max(axis=1)), :2].tolist()
        within_reach(x, y, "walk")


def check_walk(distances: ArrayLike, angles: ArrayLike) -> tuple[Floats, Floats]:
    """Distances and angles as two float arrays of one length, or an error."""
    lengths = _numbers(distances, "distances", LARGEST)
    turns = _numbers(angles, "angles", LARGEST_NUMBER)
    if lengths.ndim and turns.ndim and len(lengths) != len(turns):
        raise BadValue(
            f"walk: {len(lengths)} distances but {len(turns)} angles; "
            "give equally many of both, or one number for all."
        )
    size = max(lengths.size, turns.size) if lengths.size and turns.size else 0
    return np.broadcast_to(lengths, size), np.broadcast_to(turns, size)


def _numbers(values: ArrayLike, name: str, most: float) -> Floats:
    if isinstance(values, np.ma.MaskedArray) and np.ma.is_masked(values):
        raise BadValue(f"walk: {name} is a masked array; fill it first, as in {name}.filled(0).")
    try:
        given = np.asarray(values)
    except ValueError:
        raise BadType(f"walk: {name} must be one row of numbers, not nested rows.") from None
    except Exception:
        raise BadType(f"walk: {name} must be one row of numbers, not {brief(values)}.") from None
    if given.size and given.dtype.kind not in "iuf":
        raise BadType(f"walk: {name} must be numbers, not {given.dtype} values.")
    if isinstance(values, list | tuple) and any(type(value) is bool for value in values):
        raise BadType(f"walk: {name} must be numbers, not True or False.")
    if given.ndim > 1:
        raise BadValue(f"walk: {name} must be one row of numbers, not of shape {given.shape}.")
    numbers = given.astype(np.float64, copy=False)
    # One pass over the largest sizes finds nan and infinities alike: both fail the comparison.
    if numbers.size and not max(-numbers.min(), numbers.max()) <= most:
        where = int(np.argmin(np.abs(numbers) <= most))
        place = f"number {where}" if given.ndim else "the number"
        raise BadValue(
            f"walk: {name} must be finite and from {-most:,.0f} to {most:,.0f}, but {place} is "
            f"{numbers.flat[where]}."
        )
    return numbers


def walked(pose: Pose, distances: Floats, angles: Floats) -> Iterator[tuple[Floats, Pose]]:
    """The steps of a walk as blocks of rows (x, y, heading), with the pose after each block."""
    for first in range(0, len(distances), BLOCK):
        lengths = distances[first : first + BLOCK]
        headings = _headings(pose.heading, angles[first : first + BLOCK])
        cosines, sines = directions(headings[:-1])
        cosines *= lengths
        sines *= lengths
        cosines[0] += pose.x
        sines[0] += pose.y
        steps = np.empty((len(lengths), 3))
        np.cumsum(cosines, out=steps[:, 0])
        np.cumsum(sines, out=steps[:, 1])
        steps[:, 2] = headings[:-1]
        pose = Pose(float(steps[-1, 0]), float(steps[-1, 1]), float(headings[-1]))
        yield steps, pose


def _headings(start: float, angles: Floats) -> Floats:
    """The headings before each turn and after the last, in [0, 360).

    The sum runs up far beyond 360, where it rounds more coarsely than a loop that reduces at each turn.
    What each addition lost is computed exactly (Knuth, The Art of Computer Programming 2, 4.2.2: for
    s = a + b, with d = s - a, the loss is (a - (s - d)) + (b - d)) and given back.
    """
    sums = np.empty(len(angles) + 1)
    sums[0] = start
    # Whole angles are taken off first, as `left` does: the remainder is exact.
    sums[1:] = np.fmod(angles, 360.0) if np.abs(angles).max() >= 360.0 else angles
    angles = sums[1:].copy()
    np.cumsum(sums, out=sums)
    before, after = sums[:-1], sums[1:]
    added = after - before
    lost = before - (after - added)
    lost += angles
    lost -= added
    sums -= np.floor(sums * (1 / 360)) * 360.0
    if lost.any():
        sums[1:] += np.cumsum(lost)
    sums[sums < 0] += 360.0
    sums[sums >= 360.0] -= 360.0
    return sums
