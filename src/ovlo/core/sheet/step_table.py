"""A drawing as a table of its steps, as a tree of the calls that made them, and how far its nibs came.

for step in steps_of(columns, origins): ...
"""

from __future__ import annotations

from math import dist
from typing import TYPE_CHECKING, Any, NamedTuple

import numpy as np

from ovlo.core.paint.measures import CLOSED
from ovlo.core.trail import curves
from ovlo.core.trail.columns import Columns, PenState
from ovlo.core.trail.origins import Origins
from ovlo.core.values.arrays import Floats
from ovlo.core.values.colour import Colour
from ovlo.core.values.degrees import half_turned

if TYPE_CHECKING:
    from ovlo.core.sheet.sheet import Sheet


class Step(NamedTuple):
    """One step of a drawing, or a text: a row of `sheet.steps()`.

    Attributes
    ----------
    number : int
        Which step of the trail it is, from 0; of a text, the step that it lies beneath.
    nib : int or None
        Which of `sheet.nibs` made it; None for a text.
    kind : str
        "line", "arc", "curve", "jump" (a travel, or a nib's start), "lifted" (a move that would have drawn),
        "border" (of an area, without a line) or "text".
    from_x, from_y, to_x, to_y : float
        In sheet units.
    heading : float
        At its end, degrees in [0, 360).
    turn : float
        The angle by which the nib turned on the spot before it, in (-180, 180].
    length : float
        In sheet units, along the arc.
    centre_x, centre_y, sweep : float or None
        Of an arc: its centre in sheet units, and how far it turns, in degrees, to the left above 0.
    ink : str
        The CSS colour of its line or text, or "".
    line_width : float
        In sheet units; 0 if it draws no line.
    fill : str
        The CSS colour of the area that it borders, or "".
    words : str
        Of a text.
    line : int or None
        The line of the program, if lines were recorded.
    function : str
        The function that contains the line, or "".
    """

    number: int
    nib: int | None
    kind: str
    from_x: float
    from_y: float
    to_x: float
    to_y: float
    heading: float
    turn: float
    length: float
    centre_x: float | None
    centre_y: float | None
    sweep: float | None
    ink: str
    line_width: float
    fill: str
    words: str
    line: int | None
    function: str


def steps_of(columns: Columns, origins: Origins | None) -> list[Step]:
    """The steps of a trail in their order, each text before the step that it lies beneath."""
    arrays = step_arrays(columns)
    turns, fills = turns_before(columns), _fills(columns)
    lists = {name: values.tolist() for name, values in arrays.items()}
    starts = columns.starts.tolist()
    places = [_place(origins, number) for number in (origins.steps.tolist() if origins is not None else ())]
    rows = []
    for i, (x0, y0) in enumerate(starts):
        is_arc = lists["centre_x"][i] == lists["centre_x"][i]  # nan is not itself
        rows.append(
            Step(
                i,
                lists["nib"][i],
                lists["kind"][i],
                x0,
                y0,
                lists["x"][i],
                lists["y"][i],
                lists["heading"][i],
                float(turns[i]),
                lists["length"][i],
                lists["centre_x"][i] if is_arc else None,
                lists["centre_y"][i] if is_arc else None,
                lists["sweep"][i] if is_arc else None,
                lists["ink"][i],
                lists["line_width"][i],
                fills[i],
                "",
                *(places[i] if places else (None, "")),
            )
        )
    for text in reversed(columns.texts):
        here = text.x, text.y, text.x, text.y, text.heading
        looks = text.ink.css, 0.0, "", text.words
        row = Step(
            text.step, None, "text", *here, 0.0, 0.0, None, None, None, *looks, *_place(origins, text.origin)
        )
        rows.insert(text.step, row)
    return rows


def _place(origins: Origins | None, number: int) -> tuple[int | None, str]:
    """The line and the function of a place in the program."""
    place = origins.place(number) if origins is not None else None
    if origins is None or place is None:
        return None, ""
    return place.line, origins.functions(place.call)[-1]


def step_arrays(columns: Columns) -> dict[str, np.ndarray[Any, Any]]:
    """What is known of each step, as arrays of shape (n,); nan where a step is no arc."""
    count, drawn, styles = len(columns), columns.is_drawn, columns.of_steps("style")
    inks = np.array([style.ink.css for style in columns.styles] + [""], object)
    widths = np.array([style.line_width for style in columns.styles] + [0.0])
    shown = np.where(drawn, styles, len(columns.styles))
    centres, sweeps = np.full((count, 2), np.nan), np.full(count, np.nan)
    arcs = columns.arcs[~curves.is_cubic(columns.arcs)]
    centres[arcs["step"]] = columns.starts[arcs["step"]] - curves.half_axes(arcs)[0]
    sweeps[arcs["step"]] = curves.signed_sweeps(arcs)
    return {
        "x": columns.steps["x"],
        "y": columns.steps["y"],
        "heading": columns.steps["heading"],
        "is_drawn": drawn,
        "nib": columns.of_steps("nib"),
        "kind": _kinds(columns),
        "length": curves.step_lengths(columns),
        "ink": inks[shown],
        "line_width": widths[shown],
        "centre_x": centres[:, 0],
        "centre_y": centres[:, 1],
        "sweep": sweeps,
    }


NAMES = {
    PenState.JUMP: "jump",
    PenState.DRAW: "line",
    PenState.TRACE: "border",
    PenState.LIFTED: "lifted",
}


def _kinds(columns: Columns) -> np.ndarray[Any, Any]:
    """What each step is, shape (n,)."""
    kinds = np.array([NAMES[PenState(pen)] for pen in range(len(PenState))], object)[columns.of_steps("pen")]
    for is_kind, name in ((curves.is_cubic(columns.arcs), "curve"), (~curves.is_cubic(columns.arcs), "arc")):
        steps = columns.arcs["step"][is_kind]
        kinds[steps[kinds[steps] == "line"]] = name
    return kinds


def _fills(columns: Columns) -> list[str]:
    """The colour of the area that each step borders, or ""."""
    names = ("red", "green", "blue", "opacity")
    colours = [Colour(*(float(area[name]) for name in names)).css for area in columns.areas]
    return (
        [[*colours, ""][number] for number in columns.of_steps("area").tolist()]
        if colours
        else [""] * len(columns)
    )


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


class CallTotal(NamedTuple):
    """A function in the tree of calls, with all that was done inside it: a row of `sheet.calls()`.

    Attributes
    ----------
    depth : int
        How many functions called one another to get there, from 0.
    function : str
        Its name; "<module>" for the program itself.
    times : int
        How many times it was called there.
    steps : int
        How many steps were made inside it.
    drawn : float
        The length of the lines drawn inside it, in sheet units.
    """

    depth: int
    function: str
    times: int
    steps: int
    drawn: float


def call_totals(columns: Columns, origins: Origins) -> list[tuple[int, CallTotal]]:
    """The tree of calls with their numbers, each function under its caller; those that repeat are one."""
    calls = origins.calls
    call_of_place = np.array([place.call for place in origins.places] + [-1])
    call_of_step = call_of_place[origins.steps]
    known = call_of_step >= 0
    steps = np.bincount(call_of_step[known], minlength=len(calls)).astype(float)
    lengths = np.where(columns.is_drawn, curves.step_lengths(columns), 0.0)
    drawn = np.bincount(call_of_step[known], lengths[known], minlength=len(calls))
    # A call's parent stands before it, so from the last one on everything adds up.
    for number in reversed(range(len(calls))):
        if (parent := calls[number].parent) >= 0:
            steps[parent] += steps[number]
            drawn[parent] += drawn[number]
    children: dict[int, list[int]] = {}
    for number, call in enumerate(calls):
        children.setdefault(call.parent, []).append(number)
    rows: list[tuple[int, CallTotal]] = []
    waiting = [(number, 0) for number in reversed(children.get(-1, []))]
    while waiting:
        number, depth = waiting.pop()
        call = calls[number]
        here = int(steps[number]), float(drawn[number])
        rows.append((number, CallTotal(depth, call.function, call.times, *here)))
        waiting += [(child, depth + 1) for child in reversed(children.get(number, []))]
    return rows


def gaps(sheet: Sheet) -> list[float]:
    """How far each nib ended from where it started, in sheet units; 0 when it came back."""
    tolerance = CLOSED * float(curves.step_lengths(sheet._columns).sum())
    ends = [dist(nib.position, (nib._start.x, nib._start.y)) for nib in sheet.nibs]
    return [gap if gap > tolerance else 0.0 for gap in ends]
