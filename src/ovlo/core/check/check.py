"""Checking a drawing: all rules over one sheet, one finding for one cause.

    findings(sheet, CheckInputs(boxes, letters))

What the core does not know, the size of texts and their letters, is handed in.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

import numpy as np

from ovlo.core.check import (
    again,
    areas,
    axes,
    closing,
    corners,
    lifting,
    marks,
    oddities,
    overlaps,
    retracing,
    rosettes,
    straying,
    turning,
)
from ovlo.core.check.repeats import Repeat, repeats
from ovlo.core.check.seeing import samples as points
from ovlo.core.check.seeing import seen
from ovlo.core.paint.contours import Contour, contours
from ovlo.core.paint.measures import Letters, MarkBoxes
from ovlo.core.paint.order import painted
from ovlo.core.trail.columns import Columns, PenState
from ovlo.core.trail.origins import Origin, Origins
from ovlo.core.values.finding import HINT, MOST_STEPS, Finding, Match, declared

if TYPE_CHECKING:
    from ovlo.core.sheet.sheet import Sheet

FLATNESS = 0.1
"""Pixels of the raster that a chord may be from its arc."""


FEW_CONTOURS = 200
"""Contours of a picture in which lines are looked for that miss a corner."""


RULES = declared(
    closing,
    corners,
    turning,
    rosettes,
    retracing,
    again,
    oddities,
    overlaps,
    axes,
    straying,
    marks,
    seen.Seen,
    lifting,
    areas,
)


CERTAIN = {"no-contrast", "covered", "off-sheet"}
"""Rules about marks that stay what they are, whatever a program had drawn after it was stopped."""


NEAR_STEPS, MOST_LINES = 64, 3
"""Steps before a mark among which the travel to it is looked for, and the most lines reported for it."""

FEW = 4
"""More marks of a kind that come by chance are a scatter, in which any may be hidden."""


@dataclass(frozen=True)
class CheckInputs:
    """What a check needs to know about texts and views."""

    boxes: MarkBoxes
    letters: Letters


def findings(sheet: Sheet, inputs: CheckInputs) -> list[Finding]:
    """All that the rules come upon, in the order of the rules."""
    origins = sheet._origins
    found = [_located(one, origins, sheet._columns) for one in _matches(sheet, inputs, origins)]
    order = list(RULES)
    return sorted(_merged(found), key=lambda one: order.index(one.rule))


def _matches(sheet: Sheet, inputs: CheckInputs, origins: Origins | None) -> Iterator[Match]:
    columns = sheet._columns
    of_lines = list(_of_lines(sheet, origins))
    yield from of_lines
    told = {step for one in of_lines for step in one.steps}
    for again_in in (again.drawn_again, oddities.series_again, again.open_again):
        found = list(again_in(sheet, told))
        told.update(step for one in found for step in one.steps)
        yield from found
    is_open = any(one.rule == "rosette-misses-360" for one in of_lines)
    yield from oddities.odd_ones_out(sheet, told, is_open)
    for overlapping in (overlaps.lies_on_another(sheet), overlaps.covered_row(sheet)):
        yield from (one for one in overlapping if told.isdisjoint(one.steps))
    yield from axes.off_axis(sheet, inputs.boxes, told)
    yield from axes.short_row(sheet, inputs.boxes, told)
    painting = painted(columns)
    scale = points.PIXELS / max(sheet.width, sheet.height)
    flat = painting.flattened(FLATNESS / scale)
    tilted = list(marks.left_over_heading(columns))
    yield from tilted
    known_words = {place for one in tilted for place in one.origins}
    for one in marks.off_sheet(sheet, inputs.boxes):
        if one.steps or not known_words.issuperset(one.origins):  # those words stand where they should
            yield one
    yield from marks.words_on_words(sheet, inputs.boxes)
    yield from marks.words_over_frame(sheet, inputs.boxes)
    yield from marks.words_off_centre(sheet, inputs.boxes)
    yield from marks.line_through_words(sheet, inputs.boxes)
    yield from lifting.still_lifted(sheet)
    yield from lifting.nothing_drawn(sheet)
    short = dict(areas.cut_short(columns))
    yield from areas.area_cut_short(short)
    yield from areas.filled_hole(columns, flat)
    yield from areas.empty_area(columns, flat, set(short))
    yield from marks.tiny_picture(sheet, inputs.boxes)
    yield from marks.hairline(sheet)
    if not flat.marks:
        return
    look = seen.Seen(sheet, flat, inputs.letters)
    invisible = list(look.no_contrast())
    yield from invisible
    known = {(one.steps, one.origins) for one in invisible}
    # What cannot be told from its ground is not also called hidden.
    hidden = [one for one in look.covered_marks() if (one.steps, one.origins) not in known]
    yield from _intended(hidden, sheet, look.marks(), origins)


def _of_lines(sheet: Sheet, origins: Origins | None) -> Iterator[Match]:
    """What is wrong with loops and contours: of each, only the rule that explains it best."""
    columns = sheet._columns
    every = [repeat for nib in range(len(sheet.nibs)) for repeat in repeats(columns, nib)]
    told: set[int] = set()
    for repeat in every:
        if found := _of_loop(repeat, sheet.unit, sheet._pixels_per_unit):
            told.update(repeat.all_steps)
            yield found
    every.sort(key=lambda one: one.steps[0])
    begins = np.array([one.steps[0] for one in every])
    chains = list(contours(columns, None if origins is None else origins.steps))
    known = np.empty(0, complex)
    for contour in chains:
        if told and not told.isdisjoint(contour.steps.tolist()):
            continue
        first, stop = np.searchsorted(begins, [contour.steps[0], contour.steps[-1] + 1]).tolist()
        of_contour = list(_of_contour(contour, every[first:stop], sheet, origins))
        if not of_contour:
            border = areas.open_leaf(contour, columns) or areas.open_border(
                contour, columns, sheet.unit, sheet._pixels_per_unit
            )
            of_contour = [border] if border is not None else []
        may_miss = not of_contour and len(chains) <= FEW_CONTOURS and sheet.seed is None
        # A tree that one line draws has no corner to meet.
        if may_miss and not _is_of_one_line(contour, origins):
            missed = corners.misses_corner(contour, known, sheet.unit)
            of_contour = [missed] if missed is not None else []
        if len(chains) <= FEW_CONTOURS and len(contour) <= FEW_CONTOURS:
            known = np.concatenate([known, contour.points])
        yield from (one._replace(times=contour.times) for one in of_contour)
    yield from straying.between_centred(columns, chains, sheet.unit)
    places = None if origins is None else origins.steps
    yield from straying.beside_closed_walks(columns, chains, sheet.unit, places, sheet.seed is not None)
    yield from straying.between_areas(columns, sheet.unit, places, sheet.seed is not None)


def _is_of_one_line(contour: Contour, origins: Origins | None) -> bool:
    """Whether one line of the program drew all of a contour, in whatever calls, as far as that is known."""
    places = [] if origins is None else np.unique(origins.steps[contour.steps]).tolist()
    return origins is not None and len({origins.places[one].line for one in places if one >= 0}) == 1


def _of_loop(repeat: Repeat, unit: str, pixels_per_unit: float) -> Match | None:
    return (
        rosettes.body_misses_360(repeat, unit)
        or rosettes.rosette_misses_360(repeat, pixels_per_unit)
        or rosettes.drift(repeat, unit, pixels_per_unit)
    )


def _of_contour(
    contour: Contour, every: list[Repeat], sheet: Sheet, origins: Origins | None
) -> Iterator[Match]:
    unit, pixels_per_unit = sheet.unit, sheet._pixels_per_unit
    places = None if origins is None else origins.steps
    is_equal = turning.turn_of(contour) is not None
    if again := retracing.retraced_line(contour, places):
        gap = None if is_equal else closing.would_close(contour, unit, places)
        yield again if gap is None else gap
        return
    if is_equal and contour.is_closed:
        return
    is_one_place = origins is None or len(set(origins.steps[contour.steps].tolist())) == 1
    parts = [repeat for repeat in every if repeat.period == 1]
    if total := turning.turns_miss_360(contour, is_one_place, unit, pixels_per_unit):
        yield total
    elif some := list(turning.inner_runs(contour, parts, unit)):
        yield from some
    elif gap := closing.not_closed(contour, unit, pixels_per_unit, places, _is_row(contour, every)):
        yield gap
    elif origins is not None and sheet.seed is None:  # by chance all can happen
        parts = [one for one in parts if len(set(origins.steps[one.all_steps].tolist())) == 1]
        yield from turning.long_runs(contour, parts, unit)
    if stray := straying.stray_line(contour, sheet._columns, unit, places, sheet.seed is not None):
        yield stray


def _is_row(contour: Contour, every: list[Repeat]) -> bool:
    """Whether most of a contour is the same again and again, as battlements are: it is open by nature."""
    bodies = (one for one in every if one.period > 1 and abs(one.turn) < rosettes.LEAST_TURN)
    return any(2 * one.times * one.period > len(contour) for one in bodies)


def _intended(
    hidden: list[Match], sheet: Sheet, all_marks: list[Match], origins: Origins | None
) -> Iterator[Match]:
    """Hidden marks that did not come to lie under others in a scatter: most of their kind are hidden.

    Marks are of a kind when they come from one place in the program. Where that is not known, all are, if
    there are dice; without dice none is hidden by chance, and with them any of many may be.
    """
    if origins is None and sheet.seed is None:
        yield from hidden
        return

    def kind(one: Match) -> tuple[str, int]:
        if origins is None:
            return one.kind, 0
        return one.kind, one.origins[0] if one.origins else int(origins.steps[one.steps[0]])

    of_kind, hidden_of_kind = Counter(map(kind, all_marks)), Counter(map(kind, hidden))
    for one in hidden:
        which = kind(one)
        is_scatter = sheet.seed is not None and of_kind[which] > max(hidden_of_kind[which], FEW)
        if not is_scatter and 2 * hidden_of_kind[which] > of_kind[which]:
            yield one


OF_PLACES = {"off-sheet", "covered", "lies-on-another"}
"""Rules about the place of a mark; they also report the outermost call, and the travel that led there."""


def _located(one: Match, origins: Origins | None, columns: Columns) -> Finding:
    """A finding with the lines of the program it speaks of."""
    # A text or an area has a line of its own.
    places = (
        _places(one.origins or (int(origins.steps[step]) for step in one.steps), origins) if origins else []
    )
    file = places[0].file if places else ""
    here = [place for place in places if place.file == file]
    callers = {place.called_from for place in here if place.called_from}
    if origins is not None and one.rule in OF_PLACES and one.steps:
        callers |= _lines_before(one.steps, origins, columns, file) - {place.line for place in here}
    steps = one.steps if len(one.steps) <= MOST_STEPS else (one.steps[0], one.steps[-1])
    return Finding(
        one.rule,
        HINT if one.is_hint else RULES[one.rule].usual_severity,
        one.message,
        one.fix,
        (one.place.real, one.place.imag),
        steps,
        tuple(sorted({place.line for place in here})),
        tuple(sorted(callers)),
        file,
        one.times,
        _change=one.change,
    )


def _lines_before(steps: tuple[int, ...], origins: Origins, columns: Columns, file: str) -> set[int]:
    """The lines that led to some steps: the outermost calls, and the travels before; none if many did."""
    pens, places = columns.of_steps("pen"), origins.steps
    steps = steps[:: len(steps) // MOST_STEPS + 1]
    found = origins.outermost_lines(map(origins.entry_of, steps))
    for step in steps:
        before = np.arange(max(step - NEAR_STEPS, 0), step)
        travels = before[(pens[before] == PenState.JUMP) & (places[before] != places[step])]
        place = origins.of_step(int(travels[-1])) if len(travels) else None
        if place is not None and place.file == file:
            found.add(place.line)
        if len(found) > MOST_LINES:
            return set()
    return found


def _places(numbers: Iterable[int], origins: Origins) -> list[Origin]:
    found = (origins.place(number) for number in dict.fromkeys(numbers))
    return [place for place in found if place is not None]


def _merged(found: Iterable[Finding]) -> list[Finding]:
    """Findings of one rule about the same lines are one; without lines, those with the same words."""
    groups: dict[tuple[object, ...], list[Finding]] = {}
    for one in found:
        key = (one.rule, one.file, one.lines) if one.lines else (one.rule, one.message, one.fix)
        groups.setdefault(key, []).append(one)
    return [_first_of(group) for group in groups.values()]


def _first_of(group: list[Finding]) -> Finding:
    callers = tuple(sorted({line for one in group for line in one.callers}))
    return replace(group[0], callers=callers, count=sum(one.count for one in group))
