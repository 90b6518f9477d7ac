"""The marks of each call of a function together, for programs in which one picks them.

apart = kept_apart(columns, origins)
groups_of(painted(apart), apart, origins)    # for each mark, the entries of functions that led to it

A path that two calls drew is cut where one ends, if it looks the same then: where it is translucent, its
crossings would become darker.
"""

from __future__ import annotations

from dataclasses import replace
from itertools import takewhile

import numpy as np

from ovlo.core.paint.order import Painting
from ovlo.core.trail.columns import Columns, Style, Text
from ovlo.core.trail.origins import Origins

Group = tuple[int, ...]
"""Entries of functions, the outermost first; see `Origins`."""


def kept_apart(columns: Columns, origins: Origins) -> Columns:
    """A trail whose lines are paths of their own in each call, and after each area; it looks the same.

    Lines of one style in two calls get styles of their own that are equal.
    """
    if not len(columns):
        return columns
    changes = np.flatnonzero(np.diff(origins.step_entries)) + 1
    ends = columns.area_ends["step"]
    candidates = np.union1d(changes, ends[(ends > 0) & (ends < len(columns))])
    starts = columns.runs["start"]
    run_of = np.searchsorted(starts, candidates, "right") - 1
    before = np.searchsorted(starts, candidates - 1, "right") - 1
    is_opaque = np.array([style.ink.opacity == 1 for style in columns.styles])
    can_be_cut = is_opaque & [_is_cut_unseen(style) for style in columns.styles]
    contours, style = columns.runs["contour"], columns.runs["style"][run_of]
    breaks = candidates[can_be_cut[style] | (is_opaque[style] & (contours[run_of] != contours[before]))]
    runs = columns.runs_split_at(breaks)
    parts = np.searchsorted(breaks, runs["start"], "right")
    pairs, numbers = np.unique(runs["style"] + len(columns.styles) * parts, return_inverse=True)
    runs["style"] = numbers
    own = tuple(columns.styles[pair % len(columns.styles)] for pair in pairs.tolist())
    return replace(columns, runs=runs, styles=own)


def _is_cut_unseen(style: Style) -> bool:
    """Whether a line that ends and one that begins there look like one that goes on."""
    return style.line_join == style.line_cap == "round" and not style.line_dash


def groups_of(painting: Painting, columns: Columns, origins: Origins) -> list[Group]:
    """For each mark the calls that it is of: the innermost that drew all of it is the last."""
    strokes, borders = painting.strokes, painting.borders
    border_of_twin = _border_of_twins(painting)
    last_steps = strokes.vertex_steps[strokes.firsts[1:] - 1]
    found: list[Group] = []
    for mark in painting.marks:
        if isinstance(mark, Text):
            entry = origins.entry_at(mark.step, mark.origin)
            found.append(origins.path_of(entry))
            continue
        border = mark.number if mark.style is None else border_of_twin.get(mark.number)
        if border is not None:
            step, place = int(borders.steps[border]), int(columns.areas["origin"][borders.keys[border]])
            entry = origins.entry_at(step, place)
            found.append(origins.path_of(entry if entry >= 0 else origins.entry_of(step)))
            continue
        first, last = (origins.entry_of(int(steps[mark.number])) for steps in (strokes.steps, last_steps))
        path = origins.path_of(first)
        found.append(path if first == last else common(path, origins.path_of(last)))
    return found


def _border_of_twins(painting: Painting) -> dict[int, int]:
    """For the strokes that are drawn with their area, its border."""
    steps = {step: number for number, step in enumerate(painting.borders.steps.tolist())}
    return {
        mark.number: steps[step]
        for mark in painting.marks
        if not isinstance(mark, Text) and mark.style is not None and mark.fill is not None
        for step in [int(painting.strokes.steps[mark.number])]
    }


def common(one: Group, other: Group) -> Group:
    """What two groups begin with."""
    return tuple(a for a, _ in takewhile(lambda pair: pair[0] == pair[1], zip(one, other, strict=False)))
