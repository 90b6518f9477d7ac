"""Checking a drawing: all rules over one sheet, one finding for one cause.

    findings(sheet, boxes, fitting, letters)

What the core does not know, the size of texts and their letters, is handed in.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING, NamedTuple

import numpy as np

from ovlo.core.check import (
    areas,
    closing,
    lifting,
    marks,
    polygons,
    retracing,
    rosettes,
    straying,
    turning,
)
from ovlo.core.check.seeing import contrast, seen
from ovlo.core.check.seeing import samples as points
from ovlo.core.paint.contours import Contour, contours
from ovlo.core.paint.measures import Letters, MarkBoxes
from ovlo.core.paint.order import painted
from ovlo.core.paint.repeats import FEWEST_TIMES, Repeat, repeats
from ovlo.core.trail.origins import Origin, Origins
from ovlo.core.values.finding import HINT, MOST_STEPS, PROBLEM, Finding, Match

if TYPE_CHECKING:
    from ovlo.core.sheet.sheet import Sheet

FLATNESS = 0.1
"""Pixels of the raster that a chord may be from its arc."""


class Rule(NamedTuple):
    """How bad what a rule finds is, and what it looks for."""

    severity: str
    about: str


RULES = {
    "not-closed": Rule(
        PROBLEM,
        f"Reported when a contour that does not cross itself ends within {closing.NEAR:.0%} of its size from "
        "its start without meeting it, or when undoing one slip would close it: one line with the length of "
        "another, two lengths exchanged, one turn to the wrong side, or an inner angle in place of the outer "
        f"one. Not reported for gaps of {closing.UNSEEN_GAP:g} px or less, which cannot be seen. Only a hint "
        f"if the last side is short by more than {closing.GATE:.0%} (it may leave a gate) or there are fewer "
        f"than {closing.FEW_LINES} lines (it may be a letter).",
    ),
    "turns-miss-360": Rule(
        PROBLEM,
        f"Reported when {polygons.FEWEST_SIDES} or more equal sides (within {polygons.EQUAL_SIDES:g} of "
        f"their "
        f"length) with equal turns (within {polygons.EQUAL_TURNS:g}°) do not add up to whole turns of 360°: "
        "the inner angle is used for the turn, a turn is rounded or in radians, a repeat is missing, or the "
        f"turn belongs to another number of sides. Not reported for turns below {polygons.ROUND_TURN:g}°, "
        f"which make bows. With more than {polygons.MOST_SIDES} sides, reported only for the inner angle and "
        "for near misses. Only a hint for three sides at right angles (perhaps a cup), for few wide turns "
        "(perhaps a bowl), and for a part of a longer contour, such as the roof of a house.",
    ),
    "rosette-misses-360": Rule(
        PROBLEM,
        f"Reported when a figure that returns to its start is drawn {rosettes.FEWEST_BODIES} times or more, "
        "turned each time, and the turns come to 360° but for one figure or less: one is missing, one is too "
        "many, or the turn is wrong. Fans, and turns that go round several times, are not reported.",
    ),
    "retraced-line": Rule(
        HINT,
        f"Reported when a walk returns to its start after {polygons.FEWEST_SIDES} or more steps, and all "
        "further steps repeat the first ones in the same order and, on curves, in the same direction.",
    ),
    "stray-line": Rule(
        HINT,
        f"Reported when one straight line joins two shapes of {polygons.FEWEST_SIDES} or more steps that are "
        "closed without it, leads to a shape in a direction other than the heading, or runs from the centre "
        "of one centred shape to the centre of the next, so that a travel was probably intended. Not "
        "reported "
        f"for shapes smaller than {straying.BEAD:.0%} of such lines, which are beads on a string.",
    ),
    "drift": Rule(
        PROBLEM,
        f"Reported when a figure that is walked {FEWEST_TIMES} times or more, turned each time, ends beside "
        f"its start, within {rosettes.DRIFT:.0%} of its size. Only a hint if the distance is above "
        f"{rosettes.SURE_DRIFT:.0%} of its size. The windings of a spring, closed but for one step onwards, "
        "are not reported.",
    ),
    "off-sheet": Rule(
        PROBLEM,
        "Reported when a line, area or text reaches beyond the sheet; line widths are ignored. Not reported "
        "for backgrounds that contain the whole sheet, and for areas without outline of which "
        f"{marks.BLEEDING:.0%} or more is on the sheet.",
    ),
    "no-contrast": Rule(
        PROBLEM,
        "Reported when every part of a line, area or text differs from the paper or area beneath it by less "
        f"than {contrast.ALIKE:g} CIEDE2000, and so do most marks from the same line of the program. Not "
        "reported for areas with a visible outline, backgrounds, marks that cut through a line, layers that "
        "add up, and shades (areas over others from the same line).",
    ),
    "still-lifted": Rule(
        PROBLEM,
        f"Reported when the pen is still lifted at the end after {lifting.FEWEST_LIFTED} or more moves that "
        "bend, when a closed shape is walked with the pen lifted and not drawn later, when a shape, text or "
        "stamp is placed with the pen lifted, and when nothing is drawn at all.",
    ),
    "empty-area": Rule(
        PROBLEM,
        f"Reported when an area block has fewer than {areas.FEWEST_CORNERS} corners or encloses nothing, and "
        "so do most blocks from the same line of the program.",
    ),
    "covered": Rule(
        HINT,
        "Reported when a line, area or text lies wholly under later opaque areas, as seen on a raster of "
        f"{points.PIXELS} pixels. Reported only if most of what that line of the program draws is "
        f"hidden; for "
        "a random scatter, only if all of it is.",
    ),
    "area-cut-short": Rule(
        HINT,
        "Reported when an area block ends and the lines after it close the contour that was begun inside it. "
        "Half a disc is not reported.",
    ),
    "tiny-picture": Rule(
        HINT,
        f"Reported when the whole picture takes up less than {marks.TINY:.0%} of the sheet's width and "
        f"height.",
    ),
    "hairline": Rule(
        HINT, f"Reported when lines are narrower than {marks.HAIRLINE:g} px, which can hardly be seen."
    ),
    "left-over-heading": Rule(
        HINT,
        "Reported when a text or rectangle, to which the nib travelled in a direction other than its "
        "heading, "
        "is tilted by the heading of an earlier line.",
    ),
}


FEW = 4
"""More marks of a kind that come by chance are a scatter, in which any may be hidden."""


@dataclass(frozen=True)
class CheckInputs:
    """What a check is told about texts and views."""

    boxes: MarkBoxes
    fitting: float
    letters: Letters


def findings(sheet: Sheet, inputs: CheckInputs) -> list[Finding]:
    """All that the rules come upon, in the order of the rules."""
    origins = sheet._origins
    found = [_located(rule, one, origins) for rule, one in _found(sheet, inputs, origins)]
    order = list(RULES)
    return sorted(_merged(found), key=lambda one: order.index(one.rule))


def _found(sheet: Sheet, inputs: CheckInputs, origins: Origins | None) -> Iterator[tuple[str, Match]]:
    columns = sheet._columns
    yield from _of_lines(sheet, origins)
    painting = painted(columns)
    scale = points.PIXELS / max(sheet.width, sheet.height)
    flat = painting.flattened(FLATNESS / scale)
    yield from (("off-sheet", one) for one in marks.off_sheet(sheet, inputs.boxes, inputs.fitting))
    yield from (("still-lifted", one) for one in lifting.still_lifted(sheet))
    short = dict(areas.area_cut_short(columns))
    yield from (("area-cut-short", one) for one in short.values())
    yield from (("empty-area", one) for one in areas.empty_area(columns, flat, set(short)))
    yield from (("tiny-picture", one) for one in marks.tiny_picture(sheet, inputs.boxes))
    yield from (("hairline", one) for one in marks.hairline(sheet))
    yield from (("left-over-heading", one) for one in marks.left_over_heading(columns))
    if not flat.marks:
        return
    look = seen.Seen(sheet, flat, inputs.letters)
    invisible = list(look.no_contrast())
    yield from (("no-contrast", one) for one in invisible)
    known = {(one.steps, one.origins) for one in invisible}
    # What cannot be told from its ground is not also called hidden.
    hidden = [one for one in look.covered_marks() if (one.steps, one.origins) not in known]
    yield from (("covered", one) for one in _meant(hidden, sheet, look.marks(), origins))


def _of_lines(sheet: Sheet, origins: Origins | None) -> Iterator[tuple[str, Match]]:
    """What is wrong with loops and contours: of each, only the rule that explains it best."""
    columns = sheet._columns
    every = [repeat for nib in range(len(sheet.nibs)) for repeat in repeats(columns, nib)]
    told: set[int] = set()
    for repeat in every:
        for rule, found in _of_loop(repeat, sheet.unit, sheet._pixels_per_unit):
            told.update(repeat.all_steps)
            yield rule, found
    every.sort(key=lambda one: one.steps[0])
    begins = np.array([one.steps[0] for one in every])
    chains = list(contours(columns, None if origins is None else origins.steps))
    for contour in chains:
        if told and not told.isdisjoint(contour.steps.tolist()):
            continue
        first, stop = np.searchsorted(begins, [contour.steps[0], contour.steps[-1] + 1]).tolist()
        for rule, found in _of_contour(contour, every[first:stop], sheet, origins):
            yield rule, found._replace(times=contour.times)
    yield from (("stray-line", one) for one in straying.between_centred(columns, chains, sheet.unit))


def _of_loop(repeat: Repeat, unit: str, pixels_per_unit: float) -> Iterator[tuple[str, Match]]:
    if sides := rosettes.body_misses_360(repeat, unit):
        yield "turns-miss-360", sides
    elif rosette := rosettes.rosette_misses_360(repeat, pixels_per_unit):
        yield "rosette-misses-360", rosette
    elif gap := rosettes.drift(repeat, unit, pixels_per_unit):
        yield "drift", gap


def _of_contour(
    contour: Contour, every: list[Repeat], sheet: Sheet, origins: Origins | None
) -> Iterator[tuple[str, Match]]:
    unit, pixels_per_unit = sheet.unit, sheet._pixels_per_unit
    places = None if origins is None else origins.steps
    is_equal = turning.turn_of(contour) is not None
    if again := retracing.retraced_line(contour):
        gap = None if is_equal else closing.would_close(contour, unit, places)
        yield ("retraced-line", again) if gap is None else ("not-closed", gap)
        return
    if is_equal and contour.is_closed:
        return
    is_one_place = origins is None or len(set(origins.steps[contour.steps].tolist())) == 1
    parts = [repeat for repeat in every if repeat.period == 1]
    if total := turning.turns_miss_360(contour, is_one_place, unit, pixels_per_unit):
        yield "turns-miss-360", total
    elif some := list(turning.inner_runs(contour, parts, unit)):
        yield from (("turns-miss-360", one) for one in some)
    elif gap := closing.not_closed(contour, unit, pixels_per_unit, places, _is_row(contour, every)):
        yield "not-closed", gap
    elif origins is not None and sheet.seed is None:  # by chance all can happen
        parts = [one for one in parts if len(set(origins.steps[one.all_steps].tolist())) == 1]
        yield from (("turns-miss-360", one) for one in turning.long_runs(contour, parts, unit))
    if stray := straying.stray_line(contour, sheet._columns, unit):
        yield "stray-line", stray


def _is_row(contour: Contour, every: list[Repeat]) -> bool:
    """Whether most of a contour is the same again and again, as battlements are: it is open by nature."""
    bodies = (one for one in every if one.period > 1 and abs(one.turn) < rosettes.LEAST_TURN)
    return any(2 * one.times * one.period > len(contour) for one in bodies)


def _meant(
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


def _located(rule: str, one: Match, origins: Origins | None) -> Finding:
    """A finding with the lines of the program it speaks of."""
    # A text or an area has a line of its own.
    places = (
        _places(one.origins or (int(origins.steps[step]) for step in one.steps), origins) if origins else []
    )
    file = places[0].file if places else ""
    here = [place for place in places if place.file == file]
    steps = one.steps if len(one.steps) <= MOST_STEPS else (one.steps[0], one.steps[-1])
    return Finding(
        rule,
        HINT if one.is_hint else RULES[rule].severity,
        one.message,
        one.fix,
        (one.place.real, one.place.imag),
        steps,
        tuple(sorted({place.line for place in here})),
        tuple(sorted({place.called_from for place in here if place.called_from})),
        file,
        one.times,
    )


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
