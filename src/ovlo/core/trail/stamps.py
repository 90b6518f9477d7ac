"""Pieces laid into a trail: many copies of finished arrays, put in their places all at once.

    laid(columns, stamps, [kite.columns])

A stamp is only noted when it is made. When the trail is read, the copies of one piece are worked out in a
single NumPy pass over all its stamps, which is what makes ten thousand of them cheap.
"""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from ovlo.core.trail.columns import TABLES, Columns, Style, step_column
from ovlo.core.trail.similarity import Similarity, headings_in_range, moved_text, place, scaled
from ovlo.core.values.arrays import Floats, Ints
from ovlo.core.values.degrees import directions

Rows = NDArray[np.void]


LOT = 1 << 13
"""Steps worked out at once."""


STAMP = np.dtype(
    [
        ("at", "i8"),  # the piece is laid before this step
        ("piece", "i8"),
        ("scale", "f8"),
        ("turn", "f8"),
        ("x", "f8"),
        ("y", "f8"),
        ("nib", "i8"),
        ("contour", "i8"),  # the number of the first contour of the piece
    ]
)


def laid(trail: Columns, stamps: Rows, pieces: list[Columns]) -> Columns:
    """A trail with its stamps in their places."""
    grown = np.append(0, np.cumsum(_sizes(stamps, pieces)))
    firsts = stamps["at"] + grown[:-1]
    merged = _Merged(trail, stamps["at"], grown)
    order = np.argsort(stamps["piece"], kind="stable")
    bounds = np.searchsorted(stamps["piece"][order], np.arange(1, len(pieces)))
    for piece, chosen in zip(pieces, np.split(order, bounds), strict=True):
        if len(chosen):
            merged.add(piece, stamps[chosen], firsts[chosen])
    return merged.columns()


class _Merged:
    """The rows of a trail and of the pieces laid into it, collected part by part."""

    def __init__(self, trail: Columns, at: Ints, grown: Ints) -> None:
        self._steps = np.empty(len(trail) + int(grown[-1]), trail.steps.dtype)

        def shift(steps: Ints) -> Ints:
            return steps + grown[np.searchsorted(at, steps, "right")]

        self._steps[shift(np.arange(len(trail)))] = trail.steps
        self._parts = {
            name: [_with(getattr(trail, name), step_column(name), shift)]
            for name in TABLES
            if name != "steps"
        }
        self._texts = [text._replace(step=int(shift(np.array(text.step)))) for text in trail.texts]
        self._styles = {style: number for number, style in enumerate(trail.styles)}
        self._areas = len(trail.areas)

    def add(self, piece: Columns, stamps: Rows, firsts: Ints) -> None:
        """Lay a piece once for each stamp, its first steps being those given."""
        scale, x, y = (stamps[name] for name in ("scale", "x", "y"))
        turn = headings_in_range(stamps["turn"])
        cosine, sine = directions(turn)
        factors = (scale * (cosine + 1j * sine))[:, None]
        moves = (x + 1j * y)[:, None]
        count = len(stamps)

        points = piece.steps["x"] + 1j * piece.steps["y"]
        steps = self._steps.view("f8").reshape(-1, 3)
        # Lot by lot, so that what is in between stays in the processor's cache.
        lot = max(1, LOT // max(1, len(piece)))
        for i in range(0, count, lot):
            some = slice(i, i + lot)
            placed = factors[some] * points + moves[some]
            headings = turn[some, None] + piece.steps["heading"]
            np.subtract(headings, 360.0, out=headings, where=headings >= 360.0)
            for target, rows in _targets(steps, firsts[some], len(piece)):
                target[..., 0], target[..., 1] = placed.real[rows], placed.imag[rows]
                target[..., 2] = headings[rows]

        runs = _copies(piece.runs, count)
        place(runs, "x", "y", factors, moves)
        runs["start"] += firsts[:, None]
        copies = np.arange(count)[:, None]
        runs["contour"] += stamps["contour"][:, None]
        runs["nib"] = stamps["nib"][:, None]
        runs["style"] = self._style_numbers(piece.styles, scale)[copies, runs["style"]]
        areas = self._areas + len(piece.areas) * copies
        runs["area"] = np.where(runs["area"] >= 0, runs["area"] + areas, -1)
        self._parts["runs"].append(runs.ravel())
        self._areas += len(piece.areas) * count

        for name in self._parts.keys() - {"runs"}:
            part = _copies(getattr(piece, name), count)
            part["step"] += firsts[:, None]
            if name == "arcs":
                place(part, "ux", "uy", factors, 0)
                place(part, "vx", "vy", factors, 0)
            if name == "area_ends":
                part["area"] += areas
            self._parts[name].append(part.ravel())
        if not piece.texts:
            return
        for *where, first in zip(*(part.tolist() for part in (scale, turn, x, y, firsts)), strict=True):
            texts = (moved_text(text, Similarity(*where)) for text in piece.texts)
            self._texts += [text._replace(step=text.step + first) for text in texts]

    def _style_numbers(self, styles: tuple[Style, ...], scales: Floats) -> NDArray[np.int32]:
        """The number of each style at each scale, shape (stamps, styles)."""
        distinct, which = np.unique(scales, return_inverse=True)
        numbers = [
            [self._styles.setdefault(scaled(style, scale), len(self._styles)) for style in styles]
            for scale in distinct.tolist()
        ]
        return np.array(numbers, np.int32).reshape(len(distinct), -1)[which]

    def columns(self) -> Columns:
        """Everything, in the order of the steps."""
        sorted_parts = {name: np.concatenate(parts) for name, parts in self._parts.items()}
        for name, rows in sorted_parts.items():
            if name != "areas":  # they are known by their number
                sorted_parts[name] = rows[np.argsort(rows[step_column(name)], kind="stable")]
        self._reorder(sorted_parts["areas"])
        return Columns(
            steps=self._steps, texts=tuple(self._texts), styles=tuple(self._styles), **sorted_parts
        )

    def _reorder(self, areas: Rows) -> None:
        """Number areas and texts anew in the order of their steps."""
        texts = self._texts
        steps = np.append(areas["step"], [text.step for text in texts])
        orders = np.append(areas["order"], [text.order for text in texts])
        ranks = np.empty(len(steps), np.int64)
        ranks[np.lexsort((orders, steps))] = np.arange(len(steps))
        areas["order"] = ranks[: len(areas)]
        placed = zip(texts, ranks[len(areas) :].tolist(), strict=True)
        self._texts = [text._replace(order=order) for text, order in placed]


def laid_places(places: NDArray[np.int32], stamps: Rows, pieces: list[Columns]) -> NDArray[np.int32]:
    """Where steps came from, those of pieces included: from where the nib was placed for the stamp."""
    if not len(stamps):
        return places
    counts = np.bincount(stamps["at"], _sizes(stamps, pieces), len(places) + 1).astype(np.int64)
    counts[1:] += 1
    return np.repeat(np.append(np.int32(-1), places), counts)


def spans(stamps: Rows, pieces: list[Columns]) -> Ints:
    """The first step of each stamp in the trail, and one past its last, shape (n, 2)."""
    sizes = _sizes(stamps, pieces)
    stops: Ints = stamps["at"] + np.cumsum(sizes)
    return np.column_stack([stops - sizes, stops])


def _sizes(stamps: Rows, pieces: list[Columns]) -> Ints:
    """The steps of each stamp."""
    found: Ints = np.array([len(piece) for piece in pieces], np.int64)[stamps["piece"]]
    return found


def _targets(steps: Floats, firsts: Ints, length: int) -> Iterator[tuple[Floats, slice]]:
    """Where blocks of steps go, as views to be written to, and which blocks go there.

    Blocks that are equally far apart, as those of a loop are, make one view of shape (blocks, length, 3).
    """
    gaps = np.diff(firsts)
    if len(firsts) > 1 and (gaps == gaps[0]).all():
        row, number = steps.strides
        shape, strides = (len(firsts), length, 3), (int(gaps[0]) * row, row, number)
        yield np.lib.stride_tricks.as_strided(steps[firsts[0] :], shape, strides), slice(None)
        return
    for i, first in enumerate(firsts.tolist()):
        yield steps[None, first : first + length], slice(i, i + 1)


def _with(rows: Rows, name: str, change: object) -> Rows:
    """A copy of some rows with a column changed by a function."""
    changed = rows.copy()
    changed[name] = change(rows[name])  # type: ignore[operator]
    return changed


def _copies(rows: Rows, count: int) -> Rows:
    """The rows again and again, shape (count, rows)."""
    return np.repeat(rows[None], count, axis=0)
