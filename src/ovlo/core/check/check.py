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
from ovlo.core.values.finding import HINT, MOST_STEPS, PROBLEM, Finding, Found

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
        f"A contour that does not cross itself ends within {closing.NEAR:.0%} of its size from where it "
        f"began, without meeting it; or it would be closed by undoing a single slip: a line as long as "
        "another one, two lengths exchanged, a turn to the other side or by the outer angle. Gaps of "
        f"{closing.UNSEEN_GAP:g} px or less are not seen. A last side that is short by more than "
        f"{closing.GATE:.0%} may leave a gate, and fewer than {closing.FEW_LINES} lines may be a letter: "
        "those are hints.",
    ),
    "turns-miss-360": Rule(
        PROBLEM,
        f"A contour of {polygons.FEWEST_SIDES} or more equal sides (within {polygons.EQUAL_SIDES:g} of their "
        f"length) and equal turns (within {polygons.EQUAL_TURNS:g}°) does not add up to whole turns: the "
        "inner angle was taken for the turn, a turn was rounded or given in radians, a repeat is missing, or "
        f"the turn belongs to another number of sides. Turns below {polygons.ROUND_TURN:g}° make bows, which "
        f"need not close, and with more than {polygons.MOST_SIDES} sides only the inner angle and near "
        "misses are meant. Three sides at right angles may be a cup, and few wide turns a bowl: those are "
        "hints. So it is for a part of a longer contour, as the roof of a house.",
    ),
    "rosette-misses-360": Rule(
        PROBLEM,
        f"A figure that comes back to where it began is drawn {rosettes.FEWEST_BODIES} times or more, turned "
        "each time, and the turns go once round but for one or less: one is missing or too many, or the turn "
        "is off. Fans, and turns that go round several times, are meant.",
    ),
    "retraced-line": Rule(
        HINT,
        f"A walk comes back to its beginning after {polygons.FEWEST_SIDES} or more steps, and all that "
        "follows draws its first steps again in the same order, curves along the same way.",
    ),
    "stray-line": Rule(
        HINT,
        f"One straight stroke joins two shapes of {polygons.FEWEST_SIDES} or more steps that are closed "
        "without it, or leads to a shape although the nib was not headed there, or runs from the middle of a "
        "centred shape to the middle of the next: a travel may have been meant. Shapes smaller than "
        f"{straying.BEAD:.0%} of such lines are beads on a string.",
    ),
    "drift": Rule(
        PROBLEM,
        f"A figure that is walked {FEWEST_TIMES} times or more, turned each time, ends beside where it "
        f"began, within {rosettes.DRIFT:.0%} of its size; above {rosettes.SURE_DRIFT:.0%} it is a hint. The "
        "windings of a spring, closed but for a step on, are meant.",
    ),
    "off-sheet": Rule(
        PROBLEM,
        "A line, area or text reaches beyond the sheet; line widths are left out. Not meant are grounds that "
        f"hold the whole sheet, and areas without outline of which {marks.BLEEDING:.0%} or more is on it.",
    ),
    "no-contrast": Rule(
        PROBLEM,
        "All of a line, area or text differs from the paper or area beneath it by less than "
        f"{contrast.ALIKE:g} of CIEDE2000, and so does most of what comes from the same line of the "
        "program. Not meant are areas whose outline is seen, grounds, what cuts a line, layers that add up, "
        "and shades: areas over others from the same line.",
    ),
    "still-lifted": Rule(
        PROBLEM,
        f"The pen is still lifted at the end after {lifting.FEWEST_LIFTED} or more moves that bend, a closed "
        "shape was walked with the pen lifted and not drawn later, a shape, words or a stamp were laid with "
        "it, or nothing was drawn at all.",
    ),
    "empty-area": Rule(
        PROBLEM,
        f"An area block has fewer than {areas.FEWEST_CORNERS} corners, or no area between its lines, and so "
        "have most that come from the same line of the program.",
    ),
    "covered": Rule(
        HINT,
        f"All of a line, area or text lies under later opaque areas, on a raster of {points.PIXELS} pixels. "
        "Of what one line of the program draws, most must be hidden, and of a scatter by dice all.",
    ),
    "area-cut-short": Rule(
        HINT,
        "An area block ends, and the lines that follow close the contour that was begun in it; half a disc "
        "is meant.",
    ),
    "tiny-picture": Rule(
        HINT, f"All of the picture takes less than {marks.TINY:.0%} of the sheet, across and up."
    ),
    "hairline": Rule(HINT, f"Lines are narrower than {marks.HAIRLINE:g} px, which is hardly seen."),
    "left-over-heading": Rule(
        HINT,
        "Words or a rectangle, to which the nib travelled aside from its heading, are tilted by the heading "
        "of the line before.",
    ),
}


FEW = 4
"""More marks of a kind that come by chance are a scatter, in which any may be hidden."""


@dataclass(frozen=True)
class Eyes:
    """What a check is told about texts and views."""

    boxes: MarkBoxes
    fitting: float
    letters: Letters


def findings(sheet: Sheet, eyes: Eyes) -> list[Finding]:
    """All that the rules come upon, in the order of the rules."""
    origins = sheet._origins
    found = [_located(rule, one, origins) for rule, one in _found(sheet, eyes, origins)]
    order = list(RULES)
    return sorted(_merged(found), key=lambda one: order.index(one.rule))


def _found(sheet: Sheet, eyes: Eyes, origins: Origins | None) -> Iterator[tuple[str, Found]]:
    columns = sheet._columns
    yield from _of_lines(sheet, origins)
    painting = painted(columns)
    scale = points.PIXELS / max(sheet.width, sheet.height)
    flat = painting.flattened(FLATNESS / scale)
    yield from (("off-sheet", one) for one in marks.off_sheet(sheet, eyes.boxes, eyes.fitting))
    yield from (("still-lifted", one) for one in lifting.still_lifted(sheet))
    short = dict(areas.area_cut_short(columns))
    yield from (("area-cut-short", one) for one in short.values())
    yield from (("empty-area", one) for one in areas.empty_area(columns, flat, set(short)))
    yield from (("tiny-picture", one) for one in marks.tiny_picture(sheet, eyes.boxes))
    yield from (("hairline", one) for one in marks.hairline(sheet))
    yield from (("left-over-heading", one) for one in marks.left_over_heading(columns))
    if not flat.marks:
        return
    look = seen.Seen(sheet, flat, eyes.letters)
    invisible = list(look.no_contrast())
    yield from (("no-contrast", one) for one in invisible)
    known = {(one.steps, one.origins) for one in invisible}
    # What cannot be told from its ground is not also called hidden.
    hidden = [one for one in look.covered_marks() if (one.steps, one.origins) not in known]
    yield from (("covered", one) for one in _meant(hidden, sheet, look.marks(), origins))


def _of_lines(sheet: Sheet, origins: Origins | None) -> Iterator[tuple[str, Found]]:
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


def _of_loop(repeat: Repeat, unit: str, pixels_per_unit: float) -> Iterator[tuple[str, Found]]:
    if sides := rosettes.body_misses_360(repeat, unit):
        yield "turns-miss-360", sides
    elif rosette := rosettes.rosette_misses_360(repeat, pixels_per_unit):
        yield "rosette-misses-360", rosette
    elif gap := rosettes.drift(repeat, unit, pixels_per_unit):
        yield "drift", gap


def _of_contour(
    contour: Contour, every: list[Repeat], sheet: Sheet, origins: Origins | None
) -> Iterator[tuple[str, Found]]:
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
    hidden: list[Found], sheet: Sheet, all_marks: list[Found], origins: Origins | None
) -> Iterator[Found]:
    """Hidden marks that did not come to lie under others in a scatter: most of their kind are hidden.

    Marks are of a kind when they come from one place in the program. Where that is not known, all are, if
    there are dice; without dice none is hidden by chance, and with them any of many may be.
    """
    if origins is None and sheet.seed is None:
        yield from hidden
        return

    def kind(one: Found) -> tuple[str, int]:
        if origins is None:
            return one.kind, 0
        return one.kind, one.origins[0] if one.origins else int(origins.steps[one.steps[0]])

    of_kind, hidden_of_kind = Counter(map(kind, all_marks)), Counter(map(kind, hidden))
    for one in hidden:
        which = kind(one)
        is_scatter = sheet.seed is not None and of_kind[which] > max(hidden_of_kind[which], FEW)
        if not is_scatter and 2 * hidden_of_kind[which] > of_kind[which]:
            yield one


def _located(rule: str, one: Found, origins: Origins | None) -> Finding:
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
        one.mend,
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
        key = (one.rule, one.file, one.lines) if one.lines else (one.rule, one.message, one.mend)
        groups.setdefault(key, []).append(one)
    return [_first_of(group) for group in groups.values()]


def _first_of(group: list[Finding]) -> Finding:
    callers = tuple(sorted({line for one in group for line in one.callers}))
    return replace(group[0], callers=callers, count=sum(one.count for one in group))
