"""A stretch of a trail as a trail of its own: what a replay adds from one moment to the next.

Parts(columns).between(1000, 1040)
"""

from __future__ import annotations

from dataclasses import replace
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from ovlo.core.trail import curves
from ovlo.core.trail.columns import Columns
from ovlo.core.values.arrays import Ints
from ovlo.core.values.degrees import normal
from ovlo.core.values.pose import Pose


class Parts:
    """A trail that is read piece by piece."""

    def __init__(self, columns: Columns) -> None:
        self.columns = columns
        # Texts of stamps stand behind the others.
        self._texts = sorted(columns.texts, key=lambda text: text.step)
        self._text_steps = np.array([text.step for text in self._texts], np.int64)

    @cached_property
    def area_ends(self) -> Ints:
        """One past the last step of each area's block, shape (areas,); the trail's end while it is open."""
        ends = np.full(len(self.columns.areas), len(self.columns) + 1)
        rows = self.columns.area_ends
        ends[rows["area"]] = rows["step"]
        return ends

    @cached_property
    def _contour_starts(self) -> Ints:
        """The first step of the contour that each closing step closes."""
        runs = self.columns.runs[self.columns.is_traced]
        ids, first = np.unique(runs["contour"], return_index=True)
        run = np.searchsorted(self.columns.runs["start"], self.columns.closings["step"], "right") - 1
        places = np.searchsorted(ids, self.columns.runs["contour"][run])
        return np.asarray(runs["start"][first][places], np.int64)

    def between(self, first: int, stop: int) -> Columns:
        """The steps from `first` up to `stop`, with the texts and the areas that begin and end among them.

        An area that is cut by either end is not there; its lines are.
        """
        columns = self.columns
        runs = _cut(columns, first, stop)
        upto = self._upto(stop)

        opened = columns.areas["step"]
        is_kept = (opened >= first) & (opened < upto) & (self.area_ends <= stop)
        numbers = np.append(np.where(is_kept, np.cumsum(is_kept) - 1, -1), -1)
        runs["area"] = numbers[runs["area"]]
        areas = columns.areas[is_kept]
        areas["step"] -= first
        low, high = np.searchsorted(self._text_steps, (first, upto))
        texts = [text._replace(step=text.step - first) for text in self._texts[low:high]]

        orders = np.append(areas["order"], [text.order for text in texts]).astype(np.int64)
        ranks = np.empty(len(orders), np.int64)
        ranks[np.argsort(orders)] = np.arange(len(orders))
        areas["order"] = ranks[: len(areas)]
        placed = zip(texts, ranks[len(areas) :].tolist(), strict=True)

        closings = columns.closings
        within = (closings["step"] >= first) & (closings["step"] < stop) & (self._contour_starts >= first)
        return replace(
            columns,
            steps=columns.steps[first:stop],
            runs=runs,
            arcs=_shifted(_among(columns.arcs, first, stop), first),
            areas=areas,
            area_ends=columns.area_ends[:0],
            closings=_shifted(closings[within], first),
            pauses=columns.pauses[:0],
            texts=tuple(text._replace(order=order) for text, order in placed),
        )

    def has_only_lines(self, first: int, stop: int) -> bool:
        """Whether no area begins and no text lies among the steps from `first` up to `stop`."""
        low, high = np.searchsorted(self.columns.events, (first, self._upto(stop)))
        return bool(low == high)

    def _upto(self, stop: int) -> int:
        """Beneath which steps lie the areas and texts of a stretch; those after the last are of its end."""
        return stop + 1 if stop == len(self.columns) else stop

    def pose(self, step: int, share: float) -> Pose:
        """Where a nib is, and where it points, after a share of a step."""
        columns = self.columns
        start, end = columns.starts[step], columns.points[step]
        heading = float(columns.steps["heading"][step])
        arc = _among(columns.arcs, step, step + 1)
        if not len(arc):
            x, y = (start + share * (end - start)).tolist()
            return Pose(x, y, heading)
        (x, y), *_ = curves.points_at(arc, start[None], end[None], np.array([share])).tolist()
        return Pose(x, y, normal(heading - float(curves.signed_sweeps(arc)[0]) * (1 - share)))

    def beginning(self, step: int, share: float) -> Columns | None:
        """A share of one step's line; None where it leaves none, or is a cubic curve."""
        part = self.between(step, step + 1)
        if not part.is_drawn[0] or (len(part.arcs) and part.arcs["sweep"][0] == 0):
            return None
        steps, arcs = part.steps.copy(), part.arcs.copy()
        steps["x"], steps["y"], steps["heading"] = self.pose(step, share)
        arcs["sweep"] *= share
        return replace(part, steps=steps, arcs=arcs, texts=())

    def until(self, stop: int) -> Columns:
        """The drawing after so many steps."""
        return self.between(0, stop)


def _cut(columns: Columns, first: int, stop: int) -> NDArray[np.void]:
    """The runs among some steps, counted from the first of them."""
    starts = columns.runs["start"]
    low = max(int(np.searchsorted(starts, first, "right")) - 1, 0)
    high = int(np.searchsorted(starts, stop))
    runs: NDArray[np.void] = columns.runs[low:high].copy()
    if len(runs) and runs["start"][0] < first:
        runs["x"][0], runs["y"][0] = columns.starts[first]
    runs["start"] = np.maximum(runs["start"] - first, 0)
    return runs


def _among(rows: NDArray[np.void], first: int, stop: int) -> NDArray[np.void]:
    low, high = np.searchsorted(rows["step"], (first, stop))
    found: NDArray[np.void] = rows[low:high]
    return found


def _shifted(rows: NDArray[np.void], first: int) -> NDArray[np.void]:
    moved = rows.copy()
    moved["step"] -= first
    return moved
