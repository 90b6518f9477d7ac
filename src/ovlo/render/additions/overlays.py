"""Overlays: what helps to read a picture, drawn over it with a nib like everything else.

    with_overlays(columns, sheet, page, ("grid", "angles"))

Sizes are pixels of the picture, whatever its scale. What would stand too close together is thinned out.
"""

from __future__ import annotations

import textwrap
from collections.abc import Callable, Iterable
from dataclasses import replace
from math import atan2, ceil, cos, degrees, floor, log10, radians, sin
from typing import TYPE_CHECKING, NamedTuple

import numpy as np

from ovlo.core.paint.contours import Contour, arcs_between, contours
from ovlo.core.sheet.joining import joined
from ovlo.core.sheet.motif import default_pointer, recorded
from ovlo.core.trail import curves
from ovlo.core.trail.columns import Columns
from ovlo.core.trail.similarity import Similarity
from ovlo.core.values import arguments
from ovlo.core.values.arrays import Floats
from ovlo.core.values.choices import TextAlign
from ovlo.core.values.colour import WHITE, Colour
from ovlo.core.values.errors import BadValue
from ovlo.render.lettering import words_width
from ovlo.render.page import Page

if TYPE_CHECKING:
    from ovlo.core.sheet.nib import Nib
    from ovlo.core.sheet.sheet import Sheet

FONT = 12
GRID_GAP = 56
"""Pixels that grid lines are apart at least."""

CLEAR_SIDE = 44
"""Pixels both sides of a vertex are long at least, if its angles are to be read."""

LEAST_TURN = 0.05
"""Degrees; with less there is no corner, nor where a nib goes back along its own line."""

SHARP = 50
"""Degrees of a corner between whose sides no words fit."""

MANY, CROWDED = 60, 50
"""With more vertices than this, so many pixels are kept free around each label."""

CELL = 4
"""Pixels of the squares in which it is kept where labels are."""

MOST_FINDINGS = 9
"""Listed under a picture; the others are only ringed."""

MOST_NUMBERS = 4
"""Of steps that lie on each other."""


LINE = 20
"""Pixels from one line of a legend to the next."""


class LegendLine(NamedTuple):
    """A line of a legend."""

    words: str
    ink: str


class Overlay:
    """What is drawn over one picture: its nib, its scale, and the places already taken by labels."""

    def __init__(self, nib: Nib, sheet: Sheet, page: Page) -> None:
        self.nib, self.sheet, self.page = nib, sheet, page
        self.pixel = 1 / page.pixels_per_unit
        self.columns: Columns = sheet._columns
        red, green, blue, opacity = page.paper
        # Relative luminance without gamma is enough to tell dark paper from light.
        self.is_dark = opacity > 0.5 and 0.3 * red + 0.6 * green + 0.1 * blue < 110
        self.plain = "#e8ecf4" if self.is_dark else "#28303c"
        self.plate = Colour(*((24, 28, 36) if self.is_dark else (255, 255, 255)), 0.78)
        rows, columns = (int(side / (CELL * self.pixel)) + 1 for side in (page.height, page.width))
        self.margin = 0.0
        """Pixels kept free around each label."""
        self._taken = np.zeros((rows, columns), bool)
        self.legend: list[LegendLine] = []
        """What explains the overlays, written below the picture."""

    def lay(self, names: Iterable[str]) -> None:
        """Lay overlays over the picture, the lowest first."""
        for name in names:
            OVERLAYS[name](self)

    def wrapped_legend(self) -> list[LegendLine]:
        """The lines of the legend, broken where they would leave the page."""
        size = FONT * self.pixel
        room = self.page.width - 24 * self.pixel
        found: list[LegendLine] = []
        for words, ink in self.legend:
            most = max(12, int(len(words) * room / max(words_width(words, size), 1e-9)))
            found += [LegendLine(part, ink) for part in textwrap.wrap(words, most, subsequent_indent="    ")]
        return found

    def write(self, legend: list[LegendLine]) -> None:
        """Write a legend below the picture, on the paper's colour."""
        if not legend:
            return
        page, pixel, nib = self.page, self.pixel, self.nib
        depth = (LINE * len(legend) + LINE / 2) * pixel
        nib.turn_to(0)
        nib.travel_to(page.left + page.width / 2, page.bottom - depth / 2)
        ground = Colour(*page.paper._rgb) if page.paper.opacity else WHITE
        nib.rectangle(page.width, depth, fill=ground, outline=False)
        edge = complex(page.left, page.bottom)
        self.line((edge, edge + page.width), self.plain, 1)
        for number, (words, ink) in enumerate(legend):
            nib.travel_to(page.left + 12 * pixel, page.bottom - (LINE * number + 0.75 * LINE) * pixel)
            nib.ink = ink
            nib.text(words, size=FONT * pixel, baseline="middle")

    def line(self, points: Iterable[complex], ink: str, width: float, dash: tuple[float, ...] = ()) -> None:
        """A line through points."""
        first, *others = points
        lengths = tuple(length * self.pixel for length in dash)
        with self.nib.styled(ink=ink, line_width=width * self.pixel, line_dash=lengths):
            self.nib.travel_to(first.real, first.imag)
            for point in others:
                self.nib.line_to(point.real, point.imag)

    def label(
        self, place: complex, words: str, ink: str, align: TextAlign = "middle", must: bool = False
    ) -> bool:
        """Words on a plate, unless they would lie on other words or off the page; whether there was room."""
        size = FONT * self.pixel
        width, height = words_width(words, size) + 0.5 * size, 1.4 * size
        left = place.real - {"start": 0.25 * size, "middle": width / 2, "end": width - 0.25 * size}[align]
        box = left, place.imag - height / 2, left + width, place.imag + height / 2
        taken = self._taken[self._cells(*box)]
        if not must and (taken.any() or not (self.sees(complex(*box[:2])) and self.sees(complex(*box[2:])))):
            return False
        room = self.margin * self.pixel
        self._taken[self._cells(box[0] - room, box[1] - room, box[2] + room, box[3] + room)] = True
        self.nib.travel_to((box[0] + box[2]) / 2, place.imag)
        self.nib.turn_to(0)
        self.nib.rectangle(width, height, fill=self.plate, outline=False)
        self.nib.travel_to(place.real, place.imag)
        self.nib.ink = ink
        self.nib.text(words, size=size, align=align, baseline="middle")
        return True

    def label_at_one_of(self, places: Iterable[complex], words: str, ink: str) -> bool:
        """Words at the first place with room, moved onto the page where they would leave it."""
        size, page = FONT * self.pixel, self.page
        wide, high = (words_width(words, size) + 0.6 * size) / 2, 0.75 * size
        low, far = complex(page.left, page.bottom), complex(page.left + page.width, page.bottom + page.height)

        def inside(place: complex) -> complex:
            x = min(max(place.real, low.real + wide), far.real - wide)
            return complex(x, min(max(place.imag, low.imag + high), far.imag - high))

        return any(self.label(inside(place), words, ink) for place in places)

    def _cells(self, left: float, bottom: float, right: float, top: float) -> tuple[slice, slice]:
        """The cells of the page under a box."""
        low, size = (self.page.left, self.page.bottom), CELL * self.pixel
        columns, rows = (
            slice(max(int((first - start) / size), 0), max(int((last - start) / size) + 1, 0))
            for first, last, start in zip((left, bottom), (right, top), low, strict=True)
        )
        return rows, columns

    def sees(self, place: complex) -> bool:
        """Whether a place is on the page."""
        page = self.page
        return 0 <= place.real - page.left <= page.width and 0 <= place.imag - page.bottom <= page.height


def checked_overlays(wanted: str | Iterable[str], call: str) -> tuple[str, ...]:
    """Names of overlays, given as a list or with commas between."""
    fix = "give names such as 'grid'"
    given = wanted.split(",") if isinstance(wanted, str) else arguments.listed(wanted, call, "overlay", fix)
    names = [arguments.text(name, call, "each overlay").strip() for name in given]
    for name in filter(None, names):
        if name not in OVERLAYS:
            raise BadValue(
                f"{call}: there is no overlay {arguments.brief(name)}{arguments.near(name, OVERLAYS)}; "
                f"the overlays are {', '.join(OVERLAYS)}."
            )
    return tuple(name for name in OVERLAYS if name in names)


def overlays_of(sheet: Sheet, page: Page, names: Iterable[str]) -> Columns:
    """Some overlays alone, without what explains them."""
    return recorded(lambda nib: Overlay(nib, sheet, page).lay(names))._columns


def with_overlays(columns: Columns, sheet: Sheet, page: Page, names: Iterable[str]) -> tuple[Columns, Page]:
    """A sheet's picture with some overlays above it, and the page with room for what explains them."""
    legend: list[LegendLine] = []

    def draw(nib: Nib) -> None:
        over = Overlay(nib, sheet, page)
        over.lay(names)
        legend.extend(over.wrapped_legend())
        over.write(legend)

    laid = [columns, recorded(draw)._columns]
    room = (LINE * len(legend) + LINE / 2) / page.pixels_per_unit if legend else 0.0
    longer = replace(
        page,
        bottom=page.bottom - room,
        height=page.height + room,
        shown_height=page.shown_height * (page.height + room) / page.height,
    )
    return joined(laid, [Similarity(), Similarity()]), longer


def grid(over: Overlay) -> None:
    """Lines of equal coordinates, their numbers along the lower and the left edge."""
    page, pixel = over.page, over.pixel
    step = _round_step(GRID_GAP * pixel)
    right, top = page.left + page.width, page.bottom + page.height
    ink = "#c8d4f038" if over.is_dark else "#2d446e30"
    marks = [_multiples(page.left, right, step), _multiples(page.bottom, top, step)]
    for x in marks[0]:
        over.line((complex(x, page.bottom), complex(x, top)), ink, 1)
    for y in marks[1]:
        over.line((complex(page.left, y), complex(right, y)), ink, 1)
    for x in marks[0]:
        over.label(complex(x, page.bottom + 10 * pixel), f"{x:.10g}", over.plain)
    for y in marks[1]:
        over.label(complex(page.left + 6 * pixel, y), f"{y:.10g}", over.plain, align="start")


def _round_step(least: float) -> float:
    """The least of 1, 2 and 5 times a power of ten that is enough."""
    power: float = 10.0 ** floor(log10(least))
    return next(power * factor for factor in (1, 2, 5, 10) if power * factor >= least)


def _multiples(low: float, high: float, step: float) -> list[float]:
    return [i * step for i in range(ceil(low / step), floor(high / step) + 1)]


def axes(over: Overlay) -> None:
    """The two axes with their headings."""
    page, pixel = over.page, over.pixel
    ink, tip = over.plain, 9 * pixel
    right, top = page.left + page.width, page.bottom + page.height
    if page.bottom <= 0 <= top:
        over.line((complex(page.left, 0), complex(right, 0)), ink, 1.4)
        over.line(
            (complex(right - tip, tip / 2), complex(right, 0), complex(right - tip, -tip / 2)), ink, 1.4
        )
        over.label(complex(right - 12 * pixel, 16 * pixel), "x, heading 0°", ink, align="end")
    if page.left <= 0 <= right:
        over.line((complex(0, page.bottom), complex(0, top)), ink, 1.4)
        over.line((complex(-tip / 2, top - tip), complex(0, top), complex(tip / 2, top - tip)), ink, 1.4)
        over.label(complex(12 * pixel, top - 14 * pixel), "y, heading 90°", ink, align="start")


OUTER, INNER = ("#7cc4ff", "#ffb45c"), ("#005f9e", "#b34700")
"""The colours of outer and inner angles, on dark and on light paper: blue and orange, told apart by all."""


def angles(over: Overlay) -> None:
    """At each corner the outer angle, by which the nib turns, and the inner one."""
    outer, inner = OUTER if over.is_dark else INNER
    every = [(one, i) for one in contours(over.columns) for i in _corners(one) if over.sees(one.points[i])]
    found = [(one, i) for one, i in every if _is_clear(one, i, CLEAR_SIDE * over.pixel)]
    over.margin = CROWDED if len(found) > MANY else 0
    shown = [_show_angles(over, contour, i, outer, inner) for contour, i in found]
    over.margin = 0
    if any(shown):
        over.legend += [LegendLine("outer angle: the turn", outer), LegendLine("inner angle", inner)]
    if left_out := len(every) - shown.count(2):
        corners = "corner has" if left_out == 1 else "corners have"
        over.legend.append(LegendLine(f"{left_out} {corners} no room for both angles", over.plain))


def _corners(contour: Contour) -> list[int]:
    """The points at which two straight steps turn; 0 is where a closed contour began."""
    straight = ~contour.is_curved & (contour.lengths > 0)
    found = (np.flatnonzero(straight[1:] & straight[:-1]) + 1).tolist()
    if contour.is_closed and len(contour) > 2 and straight[0] and straight[-1]:
        found.append(0)
    return [i for i in found if LEAST_TURN <= abs(_turn(contour, i)) <= 180 - LEAST_TURN]


def _turn(contour: Contour, i: int) -> float:
    """Degrees that the nib turns at a corner, to the left above 0."""
    turn = complex(contour.sides[i]) * complex(contour.sides[i - 1]).conjugate()
    return degrees(atan2(turn.imag, turn.real))


def _show_angles(over: Overlay, contour: Contour, i: int, outer: str, inner: str) -> int:
    """Show one corner, if there is room; how many of its two angles have words."""
    corner, pixel = complex(contour.points[i]), over.pixel
    come, go = complex(contour.sides[i - 1]), complex(contour.sides[i])
    turn = _turn(contour, i)
    ahead, side = come / abs(come), 1 if turn > 0 else -1
    middle = ahead * _unit(turn / 2)
    places = [corner + far * pixel * middle for far in (40, 52)]
    if not over.label_at_one_of(places, f"{abs(turn):.4g}°", outer):
        return 0
    over.line((corner, corner + 30 * pixel * ahead), outer, 1.2, (3, 3))
    over.line(_arc(corner, 24 * pixel, ahead, turn), outer, 1.6)
    within = 180 - abs(turn)
    back = ahead * _unit(side * (180 - within / 2))
    over.line(_arc(corner, 15 * pixel, ahead * _unit(turn), side * within), inner, 1.6)
    if within >= SHARP:
        places = [corner + far * pixel * back for far in (34, 44, 54, 66)]
    else:
        # The words do not fit between the sides: they stand beside one, near the corner.
        beside = [(go / abs(go), -1j * side), (-ahead, 1j * side)]
        places = [
            corner + (along * far + along * off * 26) * pixel for far in (20, 34) for along, off in beside
        ]
    has_both = over.label_at_one_of(places, f"{within:.4g}°", inner)
    over.nib.travel_to(corner.real, corner.imag)
    over.nib.circle(2.5 * pixel, fill=over.plain, outline=False)
    return 1 + has_both


def _is_clear(contour: Contour, i: int, least: float) -> bool:
    """Whether both sides of a corner are long enough for its angles to be read."""
    return min(float(abs(contour.sides[j])) for j in (i - 1, i)) >= least


def _unit(angle: float) -> complex:
    return complex(cos(radians(angle)), sin(radians(angle)))


def _arc(centre: complex, radius: float, start: complex, sweep: float) -> list[complex]:
    return [centre + radius * start * _unit(sweep * share / 12) for share in range(13)]


def steps(over: Overlay) -> None:
    """The number of each drawn step at its middle; of many, every second, fifth, tenth, …"""
    columns = over.columns
    drawn = np.flatnonzero(columns.is_drawn)
    if not len(drawn):
        return
    # Steps that lie on each other share a label.
    middles = _middles(columns)[drawn]
    _, first, which = np.unique(
        np.round(middles / over.pixel), axis=0, return_index=True, return_inverse=True
    )
    numbers: list[list[int]] = [[] for _ in first]
    for label, step in zip(which.ravel().tolist(), drawn.tolist(), strict=True):
        numbers[label].append(step)
    order = np.argsort(first)
    digits = len(str(int(drawn[-1])))
    cells = np.floor(middles[first[order]] / ((0.7 * digits + 1) * FONT * over.pixel))
    stride = 1
    while stride < len(cells) and len(np.unique(cells[::stride], axis=0)) < 0.8 * len(cells[::stride]):
        stride = int(_round_step(1.5 * stride))
    ink = "#ffd166" if over.is_dark else "#5b2a86"
    ends = {int(drawn[0]), int(drawn[-1])}
    shown = [i for i in order.tolist() if any(step % stride == 0 or step in ends for step in numbers[i])]
    for i in shown[:2000]:
        place = complex(*middles[first[i]].tolist())
        if over.sees(place):
            words = ", ".join(map(str, numbers[i][:MOST_NUMBERS]))
            over.label(place, words + "…" * (len(numbers[i]) > MOST_NUMBERS), ink)


def _middles(columns: Columns) -> Floats:
    """The middle of each step, shape (n, 2)."""
    middles = (columns.starts + columns.points) / 2
    at = columns.arcs["step"]
    halves = np.full(len(at), 0.5)
    middles[at] = curves.points_at(columns.arcs, columns.starts[at], columns.points[at], halves)
    return middles


def pointer(over: Overlay) -> None:
    """Where each nib is at the end, and where it points, in its own pointer if it has one."""
    for one in over.sheet.nibs:
        if one.pointer is None:
            continue
        over.nib.travel_to(*one.position)
        over.nib.turn_to(one.heading)
        is_default = one.pointer is default_pointer()
        over.nib.stamp(one.pointer, scale=over.pixel if is_default else 1.0)


def findings(over: Overlay) -> None:
    """Each finding of a check: its steps, a ring with its number, and a list of what they are."""
    found = over.sheet.check()
    ink = "#ff9e80" if over.is_dark else "#b3261e"
    pixel = over.pixel
    for number, one in enumerate(found, 1):
        for step in one.steps[:200]:
            if over.columns.is_drawn[step]:
                over.line(_course_of(over.columns, step), f"{ink}55", 9)
            else:
                over.line(_course_of(over.columns, step), ink, 1.5, (2, 4))
        if one.place is None:
            continue
        place = complex(*one.place)
        over.nib.travel_to(place.real, place.imag)
        with over.nib.styled(ink=ink, line_width=2 * pixel, line_dash=()):
            over.nib.circle(11 * pixel)
        over.label(place + complex(20, 16) * pixel, str(number), ink, must=True)
    for number, one in enumerate(found[:MOST_FINDINGS], 1):
        lines = f" (line {', '.join(map(str, one.lines[:3]))})" if one.lines else ""
        over.legend.append(LegendLine(f"{number}  {one.rule}{lines}: {one.message}", ink))


def _course_of(columns: Columns, step: int) -> list[complex]:
    """Points along a step."""
    start, end = complex(*columns.starts[step]), complex(*columns.points[step])
    at = int(np.searchsorted(columns.arcs["step"], step))
    if at == len(columns.arcs) or columns.arcs["step"][at] != step:
        return [start, end]
    between = arcs_between(columns.arcs[at : at + 1], np.array([start]), np.array([end]))
    return [start, *between.ravel().tolist(), end]


OVERLAYS: dict[str, Callable[[Overlay], None]] = {
    "grid": grid,
    "axes": axes,
    "findings": findings,
    "steps": steps,
    "angles": angles,
    "pointer": pointer,
}
"""The overlays by their names, the lowest first."""
