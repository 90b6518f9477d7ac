"""In which order strokes are drawn, and from which end, so that the lifted pen travels little.

order, backwards = ordered(starts, ends, home=(0, 0))

First, free ends are joined to the nearest free end, the shortest joins first. Then the order is improved as
long as something is gained by turning a part of it round (2-opt; Croes, 1958) or by moving up to three
strokes elsewhere (Or, 1976), looking only at ends that are near each other.
"""

from __future__ import annotations

import random
from collections import deque
from collections.abc import Iterator
from math import hypot

import numpy as np

from ovlo.core.values.arrays import Bools, Floats, Ints

NEAR = 8
"""Ends of other strokes that are looked at from each end."""

FIRST = 4
"""The same for the first order, in which each end is looked at many times."""

MANY, LONG = 20_000, 0.15
"""Of more strokes than these, only so many are looked at first: those with the longest ways to them."""

LONGEST_TURN = 8_000
"""Strokes that are turned round at once; more costs time and gains hardly anything."""

MOST_MOVED = 3
"""Strokes that are moved elsewhere at once."""

LEAST_GAIN = 1e-7

KICKS, KICKS_EACH, MOST_KICKED = 100, 10, 100_000
"""How often an order is changed at random: in all, for each stroke, and times strokes."""

KICKED = 50
"""Strokes among which parts are exchanged."""


def ordered(
    starts: Floats, ends: Floats, home: tuple[float, float], is_final: bool = True
) -> tuple[Ints, Bools]:
    """An order with little travel, and which strokes are drawn from their end.

    Parameters
    ----------
    starts, ends : float arrays of shape (n, 2)
        A closed stroke has both in one place.
    home : (float, float)
        Where the pen is at first; where it is at last does not matter.
    is_final : bool
        Whether it is to be as good as can be; a first order needs not.
    """
    count = len(starts)
    if count == 0:
        return np.empty(0, np.int64), np.empty(0, bool)
    # Stroke 0 is home; end 2k is where stroke k begins, 2k + 1 where it ends.
    places = np.empty((2 * count + 2, 2))
    places[:2], places[2::2], places[3::2] = home, starts, ends
    sequence = _chained(places)
    if count > 1:
        sequence = _improved(places, sequence, is_final)
    entries = sequence[2::2]
    return (entries >> 1) - 1, (entries & 1) == 1


def travel(starts: Floats, ends: Floats, home: tuple[float, float]) -> float:
    """How far the lifted pen goes between strokes drawn in this order, from home on."""
    if not len(starts):
        return 0.0
    here = np.vstack([[home], ends[:-1]])
    return float(np.hypot(*(starts - here).T).sum())


def neighbours(places: Floats, count: int) -> Ints:
    """The nearest ends of other strokes to each end, shape (ends, count); -1 for none.

    A stroke that begins and ends in one place counts once.
    """
    from scipy.spatial import cKDTree

    is_point = (places[::2] == places[1::2]).all(axis=1)
    ends = np.arange(len(places))
    listed = ends[~(is_point[ends >> 1] & (ends & 1 == 1))]
    found = cKDTree(places[listed]).query(places, k=np.arange(1, count + 3))[1]
    others = np.append(listed, -1)[np.minimum(found, len(listed))]
    others[others >> 1 == (ends >> 1)[:, None]] = -1
    # Those that count to the front, in their order.
    order = np.argsort(others < 0, axis=1, kind="stable")
    return np.take_along_axis(others, order, axis=1)[:, :count]


def _chained(places: Floats) -> Ints:
    """The ends in a first order: joins of nearest free ends, the shortest first.

    Two free ends that are each other's nearest are joined whatever else is, so all such pairs are found at
    once; fifteen rounds join a hundred thousand strokes.
    """
    count = len(places) // 2
    partner = [-1] * (2 * count)
    opposite = np.arange(2 * count) ^ 1
    """The other end of the chain that an end is of."""
    free = np.ones(2 * count, bool)
    free[0] = False  # home is left, never come to
    joins, looked = 0, FIRST
    while joins < count - 1:
        ends = np.flatnonzero(free)
        before = joins
        for a, b in _mutual(places, ends, opposite, min(looked, len(ends))):
            beyond = int(opposite[a])
            if beyond == b:  # the ends of one chain, since both pairs of two chains were joined
                continue
            partner[a], partner[b] = b, a
            free[a] = free[b] = False
            far = int(opposite[b])
            opposite[beyond], opposite[far] = far, beyond
            joins += 1
        # Many ends in one place have nothing but each other near them.
        looked = FIRST if joins > before else 2 * looked
    sequence = [0, 1]
    while (end := partner[sequence[-1]]) >= 0:
        sequence += [end, end ^ 1]
    return np.array(sequence, np.int64)


def _mutual(places: Floats, ends: Ints, opposite: Ints, looked: int) -> Iterator[tuple[int, int]]:
    """Pairs of free ends of two chains that are each other's nearest, the nearest pairs first."""
    from scipy.spatial import cKDTree

    apart, found = cKDTree(places[ends]).query(places[ends], k=np.arange(1, looked + 1))
    others = ends[found]
    is_own = (others == ends[:, None]) | (others == opposite[ends][:, None])
    column = np.where(is_own, np.inf, apart).argmin(axis=1)
    rows = np.arange(len(ends))
    nearest = np.where(is_own[rows, column], -1, others[rows, column])
    nearest_to = np.full(len(places), -1)
    nearest_to[ends] = nearest
    is_mutual = (nearest >= 0) & (nearest_to[nearest] == ends) & (ends < nearest)
    distance = apart[rows, column][is_mutual]
    order = np.argsort(distance, kind="stable")
    return zip(ends[is_mutual][order].tolist(), nearest[is_mutual][order].tolist(), strict=True)


def _improved(places: Floats, sequence: Ints, is_final: bool) -> Ints:
    """An order from which neither turning a part round nor moving a few strokes gains anything."""
    improver = _Improver(places, sequence, neighbours(places, NEAR).tolist())
    strokes = np.array(improver.strokes())
    if len(strokes) > MANY:  # most is gained where the pen travels farthest
        ways = np.hypot(*(places[sequence[2::2]] - places[sequence[1:-1:2]]).T)
        strokes = strokes[ways >= np.quantile(ways, 1 - LONG)]
    improver.run(strokes.tolist())
    if is_final:
        improver.kick()
    return improver.sequence()


class _Improver:
    """An order of strokes that is changed bit by bit.

    The sequence holds the ends in the order they are passed: that of stroke number i at 2i and 2i + 1. It and
    the places in it are arrays that NumPy turns round at once; single entries are read by memory views, which
    is faster.
    """

    def __init__(self, places: Floats, sequence: Ints, near: list[list[int]]) -> None:
        self._places = places
        self._x: list[float] = places[:, 0].tolist()
        self._y: list[float] = places[:, 1].tolist()
        self._near = near
        self._is_point: list[bool] = (places[::2] == places[1::2]).all(axis=1).tolist()
        self._ends = sequence.astype(np.int32)
        self._slots = np.empty(len(sequence), np.int32)
        self._slots[self._ends] = np.arange(len(sequence), dtype=np.int32)
        self._all = np.arange(len(sequence), dtype=np.int32)
        self._count = len(sequence)
        self._end_at = memoryview(self._ends)  # type: ignore[arg-type]
        self._slot_of = memoryview(self._slots)  # type: ignore[arg-type]

    def strokes(self) -> list[int]:
        """All strokes in their order."""
        strokes: list[int] = (self._ends[2::2] >> 1).tolist()
        return strokes

    def sequence(self) -> Ints:
        """The ends in their order."""
        return self._ends.astype(np.int64)

    def kick(self) -> None:
        """Exchange two neighbouring parts at random, improve what that touched, and keep it if it is better.

        That leads out of orders in which no single change gains anything (Martin, Otto and Felten, 1991). For
        a few strokes it costs little, of many it would take too long to matter.
        """
        count = self._count // 2 - 1
        chance = random.Random(count)
        length = self._length()
        for _ in range(min(KICKS, KICKS_EACH * count, MOST_KICKED // count) if count > 3 else 0):
            first = chance.randrange(count - 2)
            cuts = sorted(chance.sample(range(first, min(first + KICKED, count + 1)), 3))
            a, b, c = (2 * cut + 2 for cut in cuts)
            before = self._ends.copy()
            self._shift(a, b, c, False)
            touched = {int(self._ends[i]) >> 1 for i in (a - 1, a, a + c - b - 1, a + c - b, c - 1)}
            if c < self._count:
                touched.add(int(self._ends[c]) >> 1)
            self.run(sorted(touched - {0}))
            now = self._length()
            if now < length - LEAST_GAIN:
                length = now
                continue
            self._ends[:] = before
            self._slots[before] = self._all

    def _length(self) -> float:
        """How far the lifted pen goes."""
        leave, enter = self._places[self._ends[1:-1:2]], self._places[self._ends[2::2]]
        return float(np.hypot(*(enter - leave).T).sum())

    def run(self, strokes: list[int]) -> None:
        """Improve, from some strokes on, until nothing is gained."""
        waiting = deque(strokes)
        is_waiting = [False] * (self._count // 2)
        for stroke in strokes:
            is_waiting[stroke] = True
        while waiting:
            stroke = waiting.popleft()
            is_waiting[stroke] = False
            while touched := self._turn(2 * stroke) or self._turn(2 * stroke + 1) or self._move(stroke):
                for end in touched:
                    other = end >> 1
                    if other and not is_waiting[other]:
                        is_waiting[other] = True
                        waiting.append(other)

    def _apart(self, a: int, b: int) -> float:
        return hypot(self._x[a] - self._x[b], self._y[a] - self._y[b])

    def _turn(self, end: int) -> tuple[int, ...]:
        """Turn round what lies between two links, if that gains something; the ends it touched."""
        x, y, end_at, slot_of, count = self._x, self._y, self._end_at, self._slot_of, self._count
        slot = slot_of[end]
        # A link leads from an odd slot to the even one after it; `step` leads from this end along its link.
        step = 1 if slot & 1 else -1
        if not 0 < slot + step < count:
            return ()
        partner = end_at[slot + step]
        mine = hypot(x[end] - x[partner], y[end] - y[partner])
        for other in self._near[end]:
            if other < 0:
                break
            gap = hypot(x[end] - x[other], y[end] - y[other])
            if gap >= mine:
                break
            there = slot_of[other]
            if (there ^ slot) & 1:
                if not self._is_point[other >> 1]:
                    continue
                there ^= 1
                other = end_at[there]
            beyond = there + step
            if beyond <= 0:
                continue
            gain = mine - gap
            last = beyond >= count
            if not last:
                far = end_at[beyond]
                gain += hypot(x[other] - x[far], y[other] - y[far])
                gain -= hypot(x[partner] - x[far], y[partner] - y[far])
            if gain <= LEAST_GAIN:
                continue
            low, high = (slot, there) if slot < there else (there, slot)
            first, stop = (low + 1, high + 1) if step > 0 else (low, high)
            if stop - first > 2 * LONGEST_TURN:
                continue
            self._reverse(first, stop)
            return (end, partner, other) if last else (end, partner, other, far)
        return ()

    def _reverse(self, first: int, stop: int) -> None:
        ends = self._ends[first:stop]
        ends[:] = ends[::-1].copy()
        self._slots[ends] = self._all[first:stop]

    def _move(self, stroke: int) -> tuple[int, ...]:
        """Move up to MOST_MOVED strokes from this one on elsewhere, if that gains something."""
        end_at, slot_of, count, apart = self._end_at, self._slot_of, self._count, self._apart
        slot = slot_of[2 * stroke] & ~1
        before = end_at[slot - 1]
        for number in range(1, MOST_MOVED + 1):
            stop = slot + 2 * number
            if stop > count:
                break
            entry, leave = end_at[slot], end_at[stop - 1]
            after = end_at[stop] if stop < count else -1
            freed = apart(before, entry)
            if after >= 0:
                freed += apart(leave, after) - apart(before, after)
            if freed <= LEAST_GAIN:
                continue
            for end, opposite in ((entry, leave), (leave, entry)):
                for other in self._near[end]:
                    if other < 0:
                        break
                    gap = apart(end, other)
                    if gap >= freed:
                        break
                    there = slot_of[other]
                    if slot <= there < stop:
                        continue
                    # `other` leads here if it is the end of its stroke, else what is moved leads to it.
                    for link in (there,) if not self._is_point[other >> 1] else (there | 1, there & ~1):
                        low = link if link & 1 else link - 1
                        if low < 1 or low == slot - 1 or low == stop - 1:
                            continue
                        a = end_at[low]
                        b = end_at[low + 1] if low + 1 < count else -1
                        from_a, to_b = (end, opposite) if link & 1 else (opposite, end)
                        added = apart(a, from_a)
                        if b >= 0:
                            added += apart(to_b, b) - apart(a, b)
                        if freed - added <= LEAST_GAIN or abs(low - slot) > 2 * LONGEST_TURN:
                            continue
                        self._shift(slot, stop, low + 1, from_a != entry)
                        return tuple(e for e in (before, after, entry, leave, a, b) if e >= 0)
        return ()

    def _shift(self, first: int, stop: int, before: int, is_turned: bool) -> None:
        """Move a part of the sequence to the front of another slot, turned round or not."""
        part = self._ends[first:stop].copy()
        if is_turned:
            part = part[::-1]
        size = stop - first
        if before <= first:
            low, high = before, stop
            self._ends[low + size : high] = self._ends[low:first].copy()
            self._ends[low : low + size] = part
        else:
            low, high = first, before
            self._ends[low : high - size] = self._ends[stop:high].copy()
            self._ends[high - size : high] = part
        self._slots[self._ends[low:high]] = self._all[low:high]
