"""Lines as a set, however they were drawn: straight pieces and circular arcs, with exact distances.

    lines = Lines.of(strokes(columns), tolerance)
    points, owners = lines.points(spacing)

Other curves become chords. Overlaps of collinear pieces, and of arcs of one circle, are merged; nothing is
cut where lines cross.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from ovlo.core.paint.outlines import MOVE, Outline, ranges
from ovlo.core.trail import curves
from ovlo.core.trail.columns import ARC
from ovlo.core.values.arrays import Bools, Complexes, Floats, Ints

CELL = 1e-7
"""Lines whose direction (radians) and distance from the middle (of the size) agree within this are one."""

TOUCH = 1e-9
"""Pieces of one line this share of the size apart touch."""


@dataclass(frozen=True, eq=False)
class Lines:
    """n pieces.

    Attributes
    ----------
    starts, ends : complex arrays of shape (n,)
    centres : complex array of shape (n,)
        Of the circles of arcs; 0 for straight pieces.
    sweeps : float array of shape (n,)
        Of arcs, in radians from start to end; 0 for straight pieces.
    looks : int array of shape (n,)
        How each is drawn: a row of the trail's styles, or of its areas.
    """

    starts: Complexes
    ends: Complexes
    centres: Complexes
    sweeps: Floats
    looks: Ints

    def __len__(self) -> int:
        return len(self.starts)

    @classmethod
    def of(cls, outline: Outline, tolerance: float) -> Lines:
        """The lines of paths; curves other than circular arcs become chords within a tolerance."""
        outline = _with_chords(outline, tolerance)
        vertex = np.flatnonzero(outline.codes != MOVE)
        z = outline.vertices @ np.array([1, 1j])
        owner = np.searchsorted(outline.firsts, vertex, "right") - 1
        arc_of = np.full(len(z), -1)
        arc_of[outline.arcs["step"]] = np.arange(len(outline.arcs))
        bends = arc_of[vertex] >= 0
        arcs = outline.arcs[arc_of[vertex[bends]]]
        starts, ends = z[vertex - 1], z[vertex]
        centres, sweeps = np.zeros_like(starts), np.zeros(len(vertex))
        centres[bends] = starts[bends] - (arcs["ux"] + 1j * arcs["uy"])
        sweeps[bends] = np.clip(np.radians(curves.signed_sweeps(arcs)), -2 * np.pi, 2 * np.pi)
        # What only closes a path whose last line came back is no line.
        kept = (starts != ends) | bends | (outline.codes[vertex] == 2)
        return cls(starts, ends, centres, sweeps, outline.keys[owner].astype(np.int64))._chosen(kept)

    def _chosen(self, which: Bools | Ints) -> Lines:
        return Lines(
            self.starts[which], self.ends[which], self.centres[which], self.sweeps[which], self.looks[which]
        )

    def joined(self, other: Lines) -> Lines:
        """The pieces of both."""
        names = ("starts", "ends", "centres", "sweeps", "looks")
        return Lines(*(np.concatenate([getattr(self, name), getattr(other, name)]) for name in names))

    @cached_property
    def is_arc(self) -> Bools:
        """Which pieces are arcs."""
        return np.asarray(self.sweeps != 0)

    @cached_property
    def radii(self) -> Floats:
        """Of arcs."""
        return np.abs(self.starts - self.centres)

    @cached_property
    def lengths(self) -> Floats:
        """Of all pieces."""
        return np.where(self.is_arc, self.radii * np.abs(self.sweeps), np.abs(self.ends - self.starts))

    @cached_property
    def box(self) -> tuple[complex, complex]:
        """Lower left and upper right corner, whole circles of arcs included only as far as they are drawn."""
        if not len(self):
            return 0j, 0j
        spacing = float(self.lengths.sum()) / 1000 + 1e-300
        z = np.concatenate([self.starts, self.ends, self._chosen(self.is_arc).points(spacing)[0]])
        return complex(z.real.min(), z.imag.min()), complex(z.real.max(), z.imag.max())

    # ── points and distances ──────────────────────────────────────────────────────────────────────────────

    def at(self, owners: Ints, shares: Floats) -> Complexes:
        """The points of some pieces at a share of their way."""
        starts, ends = self.starts[owners], self.ends[owners]
        points: Complexes = starts + (ends - starts) * shares
        bends = self.is_arc[owners]
        arcs = owners[bends]
        turned = np.exp(1j * self.sweeps[arcs] * shares[bends])
        points[bends] = self.centres[arcs] + (self.starts[arcs] - self.centres[arcs]) * turned
        return points

    def points(self, spacing: float) -> tuple[Complexes, Ints]:
        """Both ends of each piece, and points between that are at most so far apart; and whose they are."""
        counts = np.clip(np.ceil(self.lengths / spacing), 1, 1 << 20).astype(np.int64)
        owners = np.repeat(np.arange(len(self)), counts)
        middles = (ranges(np.zeros_like(counts), counts) + 0.5) / counts[owners]
        every = np.arange(len(self))
        z = np.concatenate([self.starts, self.ends, self.at(owners, middles)])
        return z, np.concatenate([every, every, owners])

    def distances(self, z: Complexes, owners: Ints) -> Floats:
        """From points to pieces, one each."""
        starts, ways = self.starts[owners], (self.ends - self.starts)[owners]
        squares = ways.real**2 + ways.imag**2
        along = ((z - starts) * ways.conj()).real / np.where(squares > 0, squares, 1.0)
        found: Floats = np.abs(z - starts - ways * np.clip(along, 0.0, 1.0))
        bends = self.is_arc[owners]
        if bends.any():
            found[bends] = self._arc_distances(z[bends], owners[bends])
        return found

    def _arc_distances(self, z: Complexes, arcs: Ints) -> Floats:
        spokes, first = z - self.centres[arcs], self.starts[arcs] - self.centres[arcs]
        sweeps = self.sweeps[arcs]
        angles = np.angle(spokes * first.conj()) * np.sign(sweeps) % (2 * np.pi)
        inside = angles <= np.abs(sweeps)
        to_ends = np.minimum(np.abs(z - self.starts[arcs]), np.abs(z - self.ends[arcs]))
        found: Floats = np.where(inside, np.abs(np.abs(spokes) - self.radii[arcs]), to_ends)
        return np.minimum(found, to_ends)

    # ── merging ───────────────────────────────────────────────────────────────────────────────────────────

    def merged(self, size: float) -> Lines:
        """Each line once: what overlaps on one straight line or on one circle is one piece."""
        if not len(self):
            return self
        straight, arcs = self._chosen(~self.is_arc), self._chosen(self.is_arc)
        return _merged_straight(straight, size).joined(_merged_arcs(arcs, size))


def _with_chords(outline: Outline, tolerance: float) -> Outline:
    """Curves that are no arcs of circles as chords."""
    arcs = outline.arcs
    if not len(arcs):
        return outline
    u, v = arcs["ux"] + 1j * arcs["uy"], arcs["vx"] + 1j * arcs["vy"]
    near = 1e-9 * np.abs(u)
    is_circle = (arcs["sweep"] != 0) & (np.minimum(np.abs(v - 1j * u), np.abs(v + 1j * u)) <= near)
    if is_circle.all():
        return outline
    flat = replace(outline, arcs=arcs[~is_circle])
    at = flat.arcs["step"]
    counts = curves.chord_counts(flat.arcs, flat.vertices[at - 1], flat.vertices[at], tolerance)
    moved = np.zeros(len(outline.vertices), np.int64)
    moved[at] = counts - 1
    kept = arcs[is_circle].copy()
    kept["step"] += np.cumsum(moved)[kept["step"]]
    return replace(flat.subdivided(counts), arcs=kept if len(kept) else np.empty(0, ARC))


def _merged_straight(lines: Lines, size: float) -> Lines:
    ways = lines.ends - lines.starts
    lengths = np.abs(ways)
    dots = lines._chosen(lengths <= TOUCH * size)
    lines, ways = lines._chosen(lengths > TOUCH * size), ways[lengths > TOUCH * size]
    if not len(lines):
        return dots
    units = ways / np.abs(ways)
    # One sense for both ways of walking a line: eastward, or upward where it is upright.
    upright = np.abs(units.real) < CELL
    sense = np.where(upright, np.sign(units.imag), np.sign(units.real))
    units = np.where(upright, 1j, units * sense)
    offsets = (lines.starts * units.conj()).imag
    cells = np.column_stack([np.rint(np.angle(units) / CELL), np.rint(offsets / (CELL * size))])
    _, groups = np.unique(cells, axis=0, return_inverse=True)
    groups = groups.ravel()
    low, high = (
        np.where(sense > 0, *pair) for pair in ((lines.starts, lines.ends), (lines.ends, lines.starts))
    )
    first, last = (low * units.conj()).real, (high * units.conj()).real
    order = np.lexsort((first, groups))
    # Groups are laid out one after the other, so that one pass finds where the pieces of each end.
    shift = groups[order] * 4.0 * (np.abs(np.concatenate([first, last])).max() + size)
    reach = np.maximum.accumulate(last[order] + shift)
    begins = np.append(True, first[order][1:] + shift[1:] > reach[:-1] + TOUCH * size)
    firsts = np.flatnonzero(begins)
    # The end of a merged piece is that of the piece that reaches farthest.
    numbers = np.cumsum(begins) - 1
    farthest = np.lexsort((last[order], numbers))
    lasts = farthest[np.append(firsts[1:], len(order)) - 1]
    chosen = order[firsts]
    merged = replace(lines._chosen(chosen), starts=low[chosen], ends=high[order[lasts]])
    return merged.joined(dots)


def _merged_arcs(arcs: Lines, size: float) -> Lines:
    if len(arcs) < 2:
        return arcs
    cells = np.column_stack([arcs.centres.real, arcs.centres.imag, arcs.radii]) / (CELL * size)
    _, groups = np.unique(np.rint(cells), axis=0, return_inverse=True)
    groups = groups.ravel()
    counts = np.bincount(groups)
    alone = arcs._chosen(counts[groups] == 1)
    for group in np.flatnonzero(counts > 1).tolist():
        alone = alone.joined(_on_one_circle(arcs._chosen(groups == group), size))
    return alone


def _on_one_circle(arcs: Lines, size: float) -> Lines:
    """Arcs of one circle, without overlaps, all anticlockwise."""
    centre, radius, turn = complex(arcs.centres[0]), float(arcs.radii[0]), 2 * np.pi
    begins = np.angle(np.where(arcs.sweeps > 0, arcs.starts, arcs.ends) - centre) % turn
    near = TOUCH * size / max(radius, 1e-300)
    found: list[list[float]] = []
    for begin, end in sorted(zip(begins.tolist(), (begins + np.abs(arcs.sweeps)).tolist(), strict=True)):
        if found and begin <= found[-1][1] + near:
            found[-1][1] = max(found[-1][1], end)
        else:
            found.append([begin, end])
    # What goes on beyond a whole turn meets what began first.
    while len(found) > 1 and found[0][0] <= found[-1][1] - turn + near:
        found[-1][1] = max(found[-1][1], found.pop(0)[1] + turn)
    found = [[begin, begin + turn] if end - begin >= turn - near else [begin, end] for begin, end in found]
    first = np.array([span[0] for span in found])
    sweeps = np.array([span[1] - span[0] for span in found])
    spokes = radius * np.exp(1j * first)
    starts, ends = np.asarray(centre + spokes), np.asarray(centre + spokes * np.exp(1j * sweeps))
    return Lines(starts, ends, np.full(len(found), centre), sweeps, np.full(len(found), arcs.looks[0]))
