"""A drawing as a table of its steps, as a tree of the calls that made them, and how far its nibs came.

for row in step_rows(columns, origins): ...
"""

from __future__ import annotations

from collections.abc import Iterator
from math import dist
from typing import NamedTuple

import numpy as np

from ovlo.core.paint.measures import CLOSED, drawn_length, step_lengths
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.trail import curves
from ovlo.core.trail.columns import Columns, PenState
from ovlo.core.trail.origins import Origins
from ovlo.core.values.arrays import Bools, Floats
from ovlo.core.values.degrees import half_turned


class StepRow(NamedTuple):
    """One step: lengths in sheet units, angles in degrees."""

    number: int
    kind: str
    from_x: float
    from_y: float
    to_x: float
    to_y: float
    heading: float
    turn: float
    length: float
    ink: str
    line: int | None
    function: str


def step_rows(columns: Columns, origins: Origins | None, chosen: Bools | None = None) -> Iterator[StepRow]:
    """The steps of a trail in their order, or the chosen ones.

    `turn` is the angle by which a nib turned on the spot before the step, in (-180, 180]; where an arc leads
    is in its kind.
    """
    numbers = np.arange(len(columns)) if chosen is None else np.flatnonzero(chosen)
    kinds, turns = _kinds(columns), turns_before(columns)
    lengths, styles = step_lengths(columns), columns.of_steps("style")
    drawn = columns.is_drawn
    inks = [style.ink.css for style in columns.styles]
    for i in numbers.tolist():
        place = origins.of_step(i) if origins is not None else None
        functions = origins.functions(place.call) if origins is not None and place is not None else ("",)
        yield StepRow(
            i,
            kinds[i],
            float(columns.starts[i, 0]),
            float(columns.starts[i, 1]),
            float(columns.points[i, 0]),
            float(columns.points[i, 1]),
            float(columns.steps["heading"][i]),
            float(turns[i]),
            float(lengths[i]),
            inks[styles[i]] if drawn[i] else "",
            place.line if place is not None else None,
            functions[-1],
        )


def _kinds(columns: Columns) -> list[str]:
    """What each step is: "line", "arc 90°", "curve", "jump", …"""
    names = {
        PenState.JUMP: "jump",
        PenState.DRAW: "line",
        PenState.TRACE: "border",
        PenState.LIFTED: "lifted",
    }
    kinds = [names[PenState(pen)] for pen in columns.of_steps("pen").tolist()]
    for step, sweep in zip(
        columns.arcs["step"].tolist(), curves.signed_sweeps(columns.arcs).tolist(), strict=True
    ):
        shape = f"arc {sweep:.6g}°" if sweep else "curve"
        kinds[step] = shape if kinds[step] == "line" else f"{kinds[step]} {shape}"
    return kinds


def turns_before(columns: Columns) -> Floats:
    """By how much the nib of each step turned since its step before, degrees in (-180, 180], shape (n,)."""
    headings = columns.steps["heading"]
    beginnings = headings.copy()
    beginnings[columns.arcs["step"]] -= curves.signed_sweeps(columns.arcs)
    nibs = columns.of_steps("nib")
    order = np.argsort(nibs, kind="stable")
    turns = np.zeros(len(columns))
    same = nibs[order][1:] == nibs[order][:-1]
    turns[order[1:][same]] = (beginnings[order][1:] - headings[order][:-1])[same]
    return half_turned(turns)


class CallRow(NamedTuple):
    """A function in the tree of calls, with all that was done inside it."""

    depth: int
    function: str
    times: int
    steps: int
    drawn: float
    number: int = -1


def call_rows(columns: Columns, origins: Origins) -> list[CallRow]:
    """The tree of calls, each function under the one that called it; those that repeat are one."""
    calls = origins.calls
    call_of_place = np.array([place.call for place in origins.places] + [-1])
    call_of_step = call_of_place[origins.steps]
    known = call_of_step >= 0
    steps = np.bincount(call_of_step[known], minlength=len(calls)).astype(float)
    lengths = np.where(columns.is_drawn, step_lengths(columns), 0.0)
    drawn = np.bincount(call_of_step[known], lengths[known], minlength=len(calls))
    # A call's parent stands before it, so from the last one on everything adds up.
    for number in reversed(range(len(calls))):
        if (parent := calls[number].parent) >= 0:
            steps[parent] += steps[number]
            drawn[parent] += drawn[number]
    children: dict[int, list[int]] = {}
    for number, call in enumerate(calls):
        children.setdefault(call.parent, []).append(number)
    rows: list[CallRow] = []
    waiting = [(number, 0) for number in reversed(children.get(-1, []))]
    while waiting:
        number, depth = waiting.pop()
        call = calls[number]
        here = int(steps[number]), float(drawn[number]), number
        rows.append(CallRow(depth, call.function, call.times, *here))
        waiting += [(child, depth + 1) for child in reversed(children.get(number, []))]
    return rows


def gaps(sheet: Sheet) -> list[float]:
    """How far each nib ended from where it started, in sheet units; 0 when it came back."""
    tolerance = CLOSED * drawn_length(sheet._columns)
    ends = [dist(nib.position, (nib._start.x, nib._start.y)) for nib in sheet.nibs]
    return [gap if gap > tolerance else 0.0 for gap in ends]
