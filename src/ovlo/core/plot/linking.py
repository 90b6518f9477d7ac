"""Strokes whose ends meet, joined into as few as can be.

strokes = joined(strokes, nearness=0.05)

Where several meet, those go on in each other that go on most straightly. A ring that touches another stroke
in such a place is then walked on the way, so that it takes no lift of its own (Hierholzer, 1873).
"""

from __future__ import annotations

import numpy as np

from ovlo.core.plot.nearness import clustered
from ovlo.core.plot.strokes import Strokes
from ovlo.core.values.arrays import Floats, Ints


def joined(strokes: Strokes, nearness: float) -> Strokes:
    """The same lines in fewer strokes; ends nearer than `nearness` (millimetres) meet."""
    count = len(strokes)
    if count < 2:
        return strokes
    # End 2k is where stroke k begins, end 2k + 1 where it ends.
    ends = np.empty((2 * count, 2))
    ends[::2], ends[1::2] = strokes.starts, strokes.ends
    node_of = clustered(ends, nearness)
    partner = _partners(node_of, _directions(strokes))
    _walk_rings_on_the_way(partner, node_of)
    order, backwards, goes_on = _chains(partner)
    return strokes.taken(order, backwards).merged(goes_on)


def _directions(strokes: Strokes) -> Floats:
    """The unit vector in which each end leads away from the stroke, shape (2k, 2)."""
    points, firsts = strokes.points, strokes.firsts
    first, last = firsts[:-1], firsts[1:] - 1
    away = np.empty((2 * len(strokes), 2))
    away[::2] = _leading(points[first + 1], points[first], -strokes.sweeps[first + 1])
    away[1::2] = _leading(points[last - 1], points[last], strokes.sweeps[last])
    return away


def _leading(before: Floats, end: Floats, sweeps: Floats) -> Floats:
    """The direction in which a line, or an arc of some sweep, arrives: an arc's is half its sweep off."""
    way = end - before
    length = np.hypot(*way.T)
    x, y = (way / np.where(length == 0, 1.0, length)[:, None]).T
    half = np.radians(sweeps / 2)
    return np.column_stack([x * np.cos(half) - y * np.sin(half), x * np.sin(half) + y * np.cos(half)])


def _partners(node_of: Ints, away: Floats) -> list[int]:
    """The end in which each goes on, or -1."""
    partner = np.full(len(node_of), -1)
    order = np.argsort(node_of, kind="stable")
    firsts = np.flatnonzero(np.diff(node_of[order], prepend=-1))
    counts = np.diff(np.append(firsts, len(order)))
    two = firsts[counts == 2]
    partner[order[two]], partner[order[two + 1]] = order[two + 1], order[two]
    for first, number in zip(firsts[counts > 2].tolist(), counts[counts > 2].tolist(), strict=True):
        ends = order[first : first + number]
        # Straight on is the other way than the other leads away.
        bend = away[ends] @ away[ends].T
        here, there = np.triu_indices(number, 1)
        for i in np.argsort(bend[here, there], kind="stable").tolist():
            a, b = int(ends[here[i]]), int(ends[there[i]])
            if partner[a] < 0 and partner[b] < 0:
                partner[a], partner[b] = b, a
    found: list[int] = partner.tolist()
    return found


def _walk_rings_on_the_way(partner: list[int], node_of: Ints) -> None:
    """Change partners where a ring meets another stroke, so that both become one."""
    chain = _chain_numbers(partner)
    leader = list(range(max(chain, default=-1) + 1))
    is_ring = [True] * len(leader)
    for end, other in enumerate(partner):
        if other < 0:
            is_ring[chain[end >> 1]] = False

    def found(number: int) -> int:
        while leader[number] != number:
            leader[number] = leader[leader[number]]
            number = leader[number]
        return number

    order = np.argsort(node_of, kind="stable")
    firsts = np.flatnonzero(np.diff(node_of[order], prepend=-1))
    counts = np.diff(np.append(firsts, len(order)))
    for first, number in zip(firsts[counts > 2].tolist(), counts[counts > 2].tolist(), strict=True):
        ends = order[first : first + number].tolist()
        for a in ends[1:]:
            b = ends[0]
            mine, theirs = found(chain[a >> 1]), found(chain[b >> 1])
            if mine == theirs or not (is_ring[mine] or is_ring[theirs]):
                continue
            c, d = partner[a], partner[b]
            # Of a ring both ends have partners; the other stroke may end here.
            partner[a], partner[b] = b, a
            if c >= 0:
                partner[c] = d
            if d >= 0:
                partner[d] = c
            leader[mine] = theirs
            is_ring[theirs] = is_ring[mine] and is_ring[theirs]


def _chain_numbers(partner: list[int]) -> list[int]:
    """The chain each stroke is in."""
    chain = [-1] * (len(partner) // 2)
    number = 0
    for stroke in range(len(chain)):
        if chain[stroke] >= 0:
            continue
        chain[stroke] = number
        for end in (2 * stroke, 2 * stroke + 1):
            other = partner[end]
            while other >= 0 and chain[other >> 1] < 0:
                chain[other >> 1] = number
                other = partner[other ^ 1]
        number += 1
    return chain


def _chains(partner: list[int]) -> tuple[Ints, np.ndarray, np.ndarray]:
    """Strokes in the order they are walked, which of them backwards, and which go on from the one before."""
    count = len(partner) // 2
    is_done = [False] * count
    order, backwards, goes_on = [], [], []
    # First those that begin at an end without a partner, then the rings.
    for only_open in (True, False):
        for stroke in range(count):
            if is_done[stroke]:
                continue
            if only_open and partner[2 * stroke] >= 0 and partner[2 * stroke + 1] >= 0:
                continue
            entry = 2 * stroke + (1 if only_open and partner[2 * stroke] >= 0 else 0)
            first = True
            while entry >= 0 and not is_done[entry >> 1]:
                is_done[entry >> 1] = True
                order.append(entry >> 1)
                backwards.append(entry & 1 == 1)
                goes_on.append(not first)
                first = False
                entry = partner[entry ^ 1]
    return np.array(order, np.int64), np.array(backwards, bool), np.array(goes_on, bool)
