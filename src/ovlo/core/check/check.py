"""Checking a drawing: all rules over one sheet, one finding for one cause.

    findings(sheet, boxes, fitting, letters)

What the core does not know, the size of texts and their letters, is handed in.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING, NamedTuple

from ovlo.core.check import closing, contrast, marks, seen
from ovlo.core.check import samples as points
from ovlo.core.paint.contours import contours
from ovlo.core.paint.measures import MarkBoxes
from ovlo.core.paint.order import painted
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
        f"began, without meeting it. Gaps of {closing.UNSEEN_GAP:g} px or less are not seen. A last side "
        f"that is short by more than {closing.GATE:.0%} may leave a gate: that is a hint.",
    ),
    "turns-miss-360": Rule(
        PROBLEM,
        f"A contour of {closing.FEWEST_SIDES} or more equal sides (within {closing.EQUAL_SIDES:g} of their "
        f"length) and equal turns (within {closing.EQUAL_TURNS:g}°) does not add up to whole turns: the "
        "inner angle was taken for the turn, a turn was rounded, a repeat is missing, or the turn belongs to "
        f"another number of sides. Turns below {closing.ROUND_TURN:g}° make bows, which need not close, and "
        f"with more than {closing.MOST_SIDES} sides only the inner angle and near misses are meant. Three "
        "sides at right angles may be a cup: that is a hint.",
    ),
    "retraced-line": Rule(
        HINT,
        f"A walk comes back to its beginning after {closing.FEWEST_SIDES} or more steps, and all that "
        "follows draws its first steps again in the same order, curves along the same way.",
    ),
    "stray-line": Rule(
        HINT,
        f"One straight stroke joins two shapes of {closing.FEWEST_SIDES} or more steps that are closed "
        "without it, in a contour that begins with a shape: a travel may have been meant.",
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
        f"The pen is still lifted at the end after {marks.FEWEST_LIFTED} or more moves that bend, a closed "
        "shape was walked with the pen lifted and not drawn later, or nothing was drawn at all.",
    ),
    "empty-area": Rule(
        PROBLEM,
        f"An area block has fewer than {marks.FEWEST_CORNERS} corners, or no area between its lines, and so "
        "have most that come from the same line of the program.",
    ),
    "covered": Rule(
        HINT,
        f"All of a line, area or text lies under later opaque areas, on a raster of {points.PIXELS} pixels. "
        "Of what one line of the program draws, most must be hidden: in a scatter some always are.",
    ),
}


@dataclass(frozen=True)
class Eyes:
    """What a check is told about texts and views."""

    boxes: MarkBoxes
    fitting: float
    letters: seen.Letters


def findings(sheet: Sheet, eyes: Eyes) -> list[Finding]:
    """All that the rules come upon, in the order of the rules."""
    origins = sheet._origins
    found = [_located(rule, one, origins) for rule, one in _found(sheet, eyes, origins)]
    order = list(RULES)
    return sorted(_merged(found), key=lambda one: order.index(one.rule))


def _found(sheet: Sheet, eyes: Eyes, origins: Origins | None) -> Iterator[tuple[str, Found]]:
    columns = sheet._columns
    yield from _of_contours(sheet, origins)
    painting = painted(columns)
    scale = points.PIXELS / max(sheet.width, sheet.height)
    flat = painting.flattened(FLATNESS / scale)
    yield from (("off-sheet", one) for one in marks.off_sheet(sheet, eyes.boxes, eyes.fitting))
    yield from (("still-lifted", one) for one in marks.still_lifted(sheet))
    yield from (("empty-area", one) for one in marks.empty_area(columns, flat))
    if not flat.marks:
        return
    look = seen.Seen(sheet, flat, eyes.letters)
    invisible = list(look.no_contrast())
    yield from (("no-contrast", one) for one in invisible)
    known = {(one.steps, one.origins) for one in invisible}
    # What cannot be told from its ground is not also called hidden.
    hidden = [one for one in look.covered_marks() if (one.steps, one.origins) not in known]
    yield from (("covered", one) for one in _meant(hidden, sheet, look.marks(), origins))


def _of_contours(sheet: Sheet, origins: Origins | None) -> Iterator[tuple[str, Found]]:
    """What is wrong with contours: of each, only the rule that explains it best."""
    for contour in contours(sheet._columns):
        if again := closing.retraced_line(contour):
            yield "retraced-line", again
            continue
        if closing.is_regular(contour):
            continue
        is_one_place = origins is None or len(set(origins.steps[contour.steps].tolist())) == 1
        if total := closing.turns_miss_360(contour, is_one_place, sheet.unit, sheet._pixels_per_unit):
            yield "turns-miss-360", total
        elif gap := closing.not_closed(contour, sheet.unit, sheet._pixels_per_unit):
            yield "not-closed", gap
        if stray := closing.stray_line(contour, sheet.unit):
            yield "stray-line", stray


def _meant(
    hidden: list[Found], sheet: Sheet, all_marks: list[Found], origins: Origins | None
) -> Iterator[Found]:
    """Hidden marks that did not come to lie under others in a scatter: most of their kind are hidden.

    Marks are of a kind when they come from one place in the program. Where that is not known, all are, if
    there are dice; without dice none is hidden by chance.
    """
    if origins is None and sheet.seed is None:
        yield from hidden
        return

    def kind(one: Found) -> tuple[str, int]:
        if origins is None:
            return one.kind, 0
        return one.kind, one.origins[0] if one.origins else int(origins.steps[one.steps[0]])

    of_kind, hidden_of_kind = Counter(map(kind, all_marks)), Counter(map(kind, hidden))
    yield from (one for one in hidden if 2 * hidden_of_kind[kind(one)] > of_kind[kind(one)])


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
    return replace(group[0], callers=callers, count=len(group))
