"""Rules about whole marks: what leaves the sheet, what a lifted pen did not draw, what fills nothing."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import islice
from typing import TYPE_CHECKING, NamedTuple

import numpy as np

from ovlo.core.paint.contours import AXES, MEETS
from ovlo.core.paint.cutting import shares_inside
from ovlo.core.paint.measures import MarkBoxes, widest_line
from ovlo.core.paint.outlines import strokes
from ovlo.core.trail.columns import Columns, PenState, Text
from ovlo.core.trail.curves import step_lengths
from ovlo.core.values.arrays import Bools, Complexes, Floats, Ints
from ovlo.core.values.finding import HINT, PROBLEM_OR_HINT, Match, rule

if TYPE_CHECKING:
    from ovlo.core.sheet.sheet import Sheet


BLEEDING = 0.2
"""An area without an outline of which so much is on the sheet was meant to run over its edge."""

EXCHANGED = 1.1
"""How far beyond the edge a picture reaches, as a share of half the sheet, whose x and y may be exchanged."""

TINY = 0.04
"""A picture of which nothing reaches farther than this share of the sheet, either way, is too small."""

HAIRLINE = 0.2
"""Pixels; narrower lines are hardly seen."""


LIKE = 4
"""So many marks of one size are a pattern, of which some may be cut by the edge."""


@rule(
    "off-sheet",
    PROBLEM_OR_HINT,
    "Reported when a line, area or text reaches beyond the sheet by a pixel or more; line widths are "
    "ignored. Not reported for backgrounds that contain the whole sheet, for areas without outline of which "
    f"{BLEEDING:.0%} or more is on the sheet, for lines that cross the whole sheet, and for a pattern of "
    f"{LIKE} or more marks of one size that is cut on several sides. Only a hint for random marks, and if "
    "marks leave the sheet on three sides or more.",
)
def off_sheet(sheet: Sheet, boxes: MarkBoxes) -> Iterator[Match]:
    """Marks that leave the sheet, unless they run over its edge on purpose."""
    columns = sheet._columns
    half = np.array([sheet.width, sheet.height]) / 2
    over = boxes.beyond(sheet.width, sheet.height)
    is_text = np.arange(over.total) >= over.total - len(columns.texts)
    sides = _sides_left(boxes, half, 1 / sheet._pixels_per_unit)
    is_out = sides.any(axis=1) & ~_bleeds(columns, boxes, half)
    is_out &= is_text | ~(_crosses(columns, sides) | _is_cut_pattern(boxes, sides, is_out))
    if not is_out.any():
        return
    far = ", ".join(
        f"{distance:.4g} {sheet.unit} beyond the {edge}" for edge, distance in over.distances.items()
    )
    texts = np.flatnonzero(is_out & is_text) - (over.total - len(columns.texts))
    first = int(np.flatnonzero(is_out)[0])
    place = np.clip((boxes.low[first] + boxes.high[first]) / 2, -half, half)
    steps = _steps_beyond(columns, half)
    steps = steps[np.isin(_marks_of(steps, boxes), np.flatnonzero(is_out & ~is_text))]
    if not len(steps):  # only the bulge of a curve leaves it
        steps = boxes.steps[is_out & ~is_text]
    is_scatter = sheet.seed is not None or (is_out.sum() >= LIKE and sides[is_out].any(axis=0).sum() > 2)
    yield Match(
        f"{over.count} of {over.total} {'mark' if over.total == 1 else 'marks'} "
        f"{'leaves' if over.count == 1 else 'leave'} the sheet: {far}.",
        _anchor_fix(sheet, steps)
        or _fix_of_place(
            sheet, boxes.chosen(is_out | ~over.is_out), boxes.chosen(_moved_with(sheet, boxes, is_out))
        ),
        complex(*place.tolist()),
        tuple(steps.tolist()),
        tuple(columns.texts[i].origin for i in texts.tolist()),
        is_hint=bool(is_scatter and not (is_out & is_text).any()),
    )


def _moved_with(sheet: Sheet, boxes: MarkBoxes, chosen: Bools) -> Bools:
    """Some marks, and all that the same calls draw: those are moved with them, as the others of a row."""
    if sheet._origins is None:
        return chosen
    texts = [text.origin for text in sheet._columns.texts]
    of_lines = boxes.steps[: len(chosen) - len(texts)]
    places = np.append(sheet._origins.steps[of_lines], np.array(texts, np.int64))
    return np.isin(places, places[chosen])


WORDS_SHARE = 0.25
"""Of the smaller of two texts, from which on they cannot be read."""

MOST_WORDS = 1000

EXACT = 1e-6
"""Of the sheet; middles that are nearer are one."""


@rule(
    "words-on-words",
    HINT,
    f"Reported when a text lies on another one, over {WORDS_SHARE:.0%} of the smaller or more. Not reported "
    "for the same words, which are a shadow, for texts that are turned, and if random numbers are used.",
)
def words_on_words(sheet: Sheet, boxes: MarkBoxes) -> Iterator[Match]:
    """Texts of which parts lie on one another."""
    texts = sheet._columns.texts
    if not 1 < len(texts) <= MOST_WORDS or sheet.seed is not None:
        return
    low, high = boxes.low[-len(texts) :], boxes.high[-len(texts) :]
    size = (high - low).prod(axis=1)
    for row in range(1, len(texts)):
        shared = np.clip(np.minimum(high[row], high[:row]) - np.maximum(low[row], low[:row]), 0, None)
        share = shared.prod(axis=1) / np.maximum(np.minimum(size[row], size[:row]), 1e-12)
        under = int(share.argmax())
        one, other = texts[row], texts[under]
        if share[under] < WORDS_SHARE or one.words == other.words or one.heading % 90 or other.heading % 90:
            continue
        yield Match(
            f"The text {_quoted(one.words)} lies on {_quoted(other.words)}, and neither can be read.",
            "Move one of them, or write it smaller.",
            complex(*((low[row] + high[row]) / 2).tolist()),
            origins=(one.origin,),
        )


@rule(
    "words-over-frame",
    HINT,
    "Reported when a text is wider or higher than the rectangle around it, which has the same middle. Not "
    "reported for texts that are turned.",
)
def words_over_frame(sheet: Sheet, boxes: MarkBoxes) -> Iterator[Match]:
    """Words that are centred in a rectangle, and do not fit into it."""
    texts = sheet._columns.texts
    if not texts or len(texts) > MOST_WORDS:
        return
    frames = list(islice(laid_rectangles(sheet._columns), MOST_WORDS))
    for text, low, high in zip(texts, boxes.low[-len(texts) :], boxes.high[-len(texts) :], strict=True):
        for frame in frames if text.align == "middle" and not text.heading % 90 else ():
            left, right = frame.corners.real.min(), frame.corners.real.max()
            bottom, top = frame.corners.imag.min(), frame.corners.imag.max()
            is_in = abs((left + right) / 2 - text.x) <= EXACT * sheet.width and bottom <= text.y <= top
            over = high - low - (right - left, top - bottom)
            # What is larger both ways is no frame, but a mark with its name.
            if is_in and (over > 1).sum() == 1:
                axis = int(over.argmax())
                wide, unit = ("wide", "high")[axis], sheet.unit
                yield Match(
                    f"The text {_quoted(text.words)} is {over[axis]:.3g} {unit} too {wide} for its frame.",
                    f"Write it smaller, or make the rectangle {np.ceil((high - low)[axis]):g} {unit} {wide}.",
                    complex(text.x, text.y),
                    origins=(text.origin,),
                )


@rule(
    "words-off-centre",
    HINT,
    "Reported when a line writes two or more texts, each of which begins at the very middle of a mark beside "
    "it or beneath it, and is not centred there; and when a text begins where others have their middle.",
)
def words_off_centre(sheet: Sheet, boxes: MarkBoxes) -> Iterator[Match]:
    """Words that begin where their middle should be."""
    texts = sheet._columns.texts
    if not texts or len(texts) > MOST_WORDS or sheet.seed is not None:
        return
    of_lines: dict[int, list[Text]] = {}
    at_x: dict[float, list[Text]] = {}
    for text in texts:
        of_lines.setdefault(text.origin, []).append(text)
        at_x.setdefault(text.x, []).append(text)
    low, high = boxes.low[: -len(texts)], boxes.high[: -len(texts)]
    middles, slack = (low[:, 0] + high[:, 0]) / 2, EXACT * sheet.width
    # Of many marks few have their middle at the x of a text.
    order = np.argsort(middles)
    for origin, written in of_lines.items():
        is_plain = all(text.align == "start" and text.heading == 0 for text in written)
        if origin < 0 or not is_plain:
            continue
        if len(written) == 1:
            yield from _beside_others(written[0], at_x[written[0].x])
            continue
        labelled = set()
        for text in written:
            first = np.searchsorted(middles, text.x - slack, "left", order)
            marks = order[first : np.searchsorted(middles, text.x + slack, "right", order)]
            bottom, top = low[marks, 1] - BESIDE * text.size, high[marks, 1] + BESIDE * text.size
            is_wide = high[marks, 0] - low[marks, 0] > text.size / 2
            labelled.add(int(marks[(bottom <= text.y) & (text.y <= top) & is_wide].max(initial=-1)))
        if -1 not in labelled and len(labelled) == len(written):
            yield Match(
                f"These {len(written)} texts begin at the middle of what they label: they are not centred.",
                'Add align="middle".',
                complex(written[0].x, written[0].y),
                origins=(origin,),
            )


def _beside_others(text: Text, at_its_x: Sequence[Text]) -> Iterator[Match]:
    """A text that begins at the x around which others, written by other lines, are centred."""
    others = [one for one in at_its_x if one.y != text.y and one.origin != text.origin]
    if others and all(one.align == "middle" and one.heading == 0 for one in others):
        yield Match(
            f"The text {_quoted(text.words)} begins where {_quoted(others[0].words)} has its middle.",
            'Add align="middle" here too.',
            complex(text.x, text.y),
            origins=(text.origin,),
        )


BESIDE = 1.5
"""How far from a mark, as a share of their size, words still label it."""

THROUGH = 0.25
"""Of the size of words, that a line is at least as long as within their box less a quarter all round."""


@rule(
    "line-through-words",
    HINT,
    "Reported when a straight line begins or ends at the very point where a text stands, and crosses its "
    "words.",
)
def line_through_words(sheet: Sheet, boxes: MarkBoxes) -> Iterator[Match]:
    """Lines from or to words that should have been travels."""
    columns = sheet._columns
    texts = columns.texts
    if not texts or len(texts) > MOST_WORDS:
        return
    steps = np.flatnonzero((columns.of_steps("pen") == PenState.DRAW) & ~columns.is_curved)
    starts, ends = columns.starts_of(steps), columns.ends_of(steps)
    slack, across = EXACT * sheet.width, np.sort([text.x for text in texts])
    # Of many lines most are nowhere near the x of a text.
    near_x = [
        np.searchsorted(across, x - 2 * slack) < np.searchsorted(across, x + 2 * slack)
        for x in (starts[:, 0], ends[:, 0])
    ]
    some = near_x[0] | near_x[1]
    steps, starts, ends = steps[some], starts[some], ends[some]
    for text, low, high in zip(texts, boxes.low[-len(texts) :], boxes.high[-len(texts) :], strict=True):
        if text.heading % 90:
            continue
        at = np.array([text.x, text.y])
        begins, stops = ((np.abs(end - at) <= slack).all(axis=1) for end in (starts, ends))
        mine = np.flatnonzero(begins | stops)
        ways, rim = ends[mine] - starts[mine], (high - low) / 4
        enters, leaves = shares_inside(starts[mine], ways, (*(low + rim), *(high - rim)))
        inside = np.maximum(leaves - enters, 0.0) * np.hypot(ways[:, 0], ways[:, 1])
        for number in mine[inside >= THROUGH * text.size].tolist():
            yield Match(
                f"This line {'begins' if begins[number] else 'ends'} where the words {_quoted(text.words)} "
                "stand, and crosses them.",
                "Move there without a line: nib.travel_to(…).",
                complex(text.x, text.y),
                (int(steps[number]),),
            )


def _quoted(words: str) -> str:
    return repr(words if len(words) <= 24 else f"{words[:23]}…")


def _sides_left(boxes: MarkBoxes, half: Floats, least: float) -> Bools:
    """On which sides each mark leaves the sheet by at least so much: left, bottom, right, top."""
    over = np.concatenate([-half - boxes.low, boxes.high - half], axis=1)
    return np.asarray(over >= least)


def _crosses(columns: Columns, sides: Bools) -> Bools:
    """Which marks are lines from beyond one side of the sheet to beyond the side that faces it."""
    across, up = sides[:, 0] & sides[:, 2], sides[:, 1] & sides[:, 3]
    lines = strokes(columns)
    ends = (
        lines.vertices[np.append(lines.moves[1:], len(lines.vertices)) - 1]
        if len(lines)
        else np.empty((0, 2))
    )
    far = np.zeros((len(sides), 2), bool)
    low, high = lines.boxes()
    # From one end of its box to the other, as a horizon goes and a circle does not.
    far[: len(ends)] = np.abs(ends - lines.vertices[lines.moves]) > 0.9 * (high - low)
    return np.asarray((across & far[:, 0]) | (up & far[:, 1]))


def _is_cut_pattern(boxes: MarkBoxes, sides: Bools, is_out: Bools) -> Bools:
    """Which marks are of one size with others, most of them on the sheet, that leave it on several sides.

    Such are tiles and scales. What leaves on one side alone is out of place.
    """
    sizes = boxes.high - boxes.low
    unit = max(float(sizes.max(initial=0.0)), 1e-300) * 1e-3
    _, kinds = np.unique(np.round(sizes / unit).astype(np.int64), axis=0, return_inverse=True)
    kinds = kinds.reshape(-1)
    all_of, out_of = np.bincount(kinds), np.bincount(kinds, is_out)
    left_by = sum((np.bincount(kinds, side & is_out) > 0).astype(int) for side in sides.T)
    return np.asarray(((all_of >= LIKE) & (2 * out_of <= all_of) & (left_by > 1))[kinds])


def _marks_of(steps: Ints, boxes: MarkBoxes) -> Ints:
    """The mark that each step is a part of, by the first step of each; texts have none."""
    order = np.argsort(boxes.steps, kind="stable")
    return np.asarray(order[np.searchsorted(boxes.steps[order], steps, "right") - 1])


def _bleeds(columns: Columns, boxes: MarkBoxes, half: Floats) -> Bools:
    """Which marks are meant to run over the edge: grounds beneath all of the sheet, areas cut by it."""
    is_area = boxes.is_bare.copy()
    is_step = boxes.steps < len(columns)
    is_area[is_step] |= columns.of_steps("area")[boxes.steps[is_step]] >= 0
    is_ground = is_area & ((boxes.low <= -half) & (boxes.high >= half)).all(axis=1)
    seen = np.minimum(boxes.high, half) - np.maximum(boxes.low, -half)
    whole = np.maximum(boxes.high - boxes.low, 1e-300)
    share = (np.maximum(seen, 0) / whole).prod(axis=1)
    # A ground as wide as the sheet that has its middle in the very corner was to have a corner there.
    middle, slack = np.abs(boxes.low + boxes.high) / 2, EXACT * half.max()
    is_wide = (boxes.high - boxes.low >= 2 * half - slack).any(axis=1)
    is_misplaced = is_wide & (np.abs(middle - half) <= slack).all(axis=1)
    return np.asarray(is_ground | (boxes.is_bare & (share >= BLEEDING) & ~is_misplaced))


def _steps_beyond(columns: Columns, half: Floats) -> Ints:
    """The steps that leave a mark and begin or end beyond the sheet."""
    ends = np.maximum(np.abs(columns.starts), np.abs(columns.points))
    is_traced = np.isin(columns.of_steps("pen"), (PenState.DRAW, PenState.TRACE))
    return np.flatnonzero(is_traced & (ends > half).any(axis=1))


def _anchor_fix(sheet: Sheet, steps: Ints) -> str:
    """What to write if rectangles that leave the sheet would fit with the nib at a corner."""
    columns, half = sheet._columns, np.array([sheet.width, sheet.height]) / 2
    found = 0
    for rectangle in laid_rectangles(columns):
        if not np.isin(rectangle.steps, steps).any():
            continue
        found += len(np.intersect1d(rectangle.steps, steps))
        # Along the heading, and to its left.
        corners = np.append(rectangle.corners, rectangle.corners + rectangle.to_corner)[4:]
        if np.abs(np.column_stack([corners.real, corners.imag]) / half).max() > 1 + MEETS:
            return ""
    if not found or found < len(steps):
        return ""
    return (
        'Write anchor="corner" if the nib stands at the lower left corner of the rectangle; without it, the '
        "nib stands at its centre."
    )


class Rectangle(NamedTuple):
    """A rectangle laid around the nib: its steps, its corners, and the way from its middle to a corner."""

    steps: Ints
    corners: Complexes
    to_corner: complex


def laid_rectangles(columns: Columns) -> Iterator[Rectangle]:
    """The rectangles around a nib, which along its heading are as long as they are wide."""
    runs, stops = columns.runs, columns.stops
    for k in np.flatnonzero((stops - runs["start"] == 4) & np.isin(runs["pen"], TRACED)).tolist():
        first = int(runs["start"][k])
        corners = columns.points[first : first + 4] @ AXES
        if first < 1 or not _is_rectangle(columns.starts[first] @ AXES, corners):
            continue
        middle, at = corners.mean(), complex(columns.starts[first - 1] @ AXES)
        if abs(at - middle) > MEETS * abs(corners[0] - middle):
            continue
        heading = np.exp(1j * np.radians(columns.steps["heading"][first - 1]))
        seen = (corners - middle) / heading
        yield Rectangle(
            np.arange(first, first + 4), corners, complex(seen.real.max(), seen.imag.max()) * complex(heading)
        )


def _move_into(low: Floats, high: Floats, half: Floats, unit: str) -> str:
    """By how much a box is to be moved to be on the sheet, in words; "" if it is too large."""
    if (high - low > 2 * half - 2).any():
        return ""
    # Whole units, so that they can be typed, and no line is on the very edge.
    dx, dy = (np.ceil(np.maximum(-half - low, 0)) - np.ceil(np.maximum(high - half, 0))).tolist()
    ways = ((dx, "farther right" if dx > 0 else "farther left"), (dy, "higher" if dy > 0 else "lower"))
    return " and ".join(f"{abs(number):g} {unit} {way}" for number, way in ways if number)


def _fix_of_place(sheet: Sheet, boxes: MarkBoxes, out: MarkBoxes) -> str:
    """How marks would fit: moved, if that is enough, else smaller, or on a larger sheet."""
    low, high = boxes.low.min(axis=0), boxes.high.max(axis=0)
    half, unit = np.array([sheet.width, sheet.height]) / 2, sheet.unit
    reach = np.maximum(-low, high)
    swaps = (reach[::-1] <= half).all() and (reach > EXCHANGED * half).any()
    exchanged = " All would fit if x and y were exchanged." if swaps else ""
    if move := _move_into(low, high, half, unit):
        return f"All marks fit if they are drawn {move}.{exchanged}"
    lowest, highest = out.low.min(axis=0), out.high.max(axis=0)
    if move := _move_into(lowest, highest, half, unit):
        return (
            f"{'It fits if it is' if len(out.low) == 1 else 'They fit if they are'} drawn {move}.{exchanged}"
        )
    width, height = np.ceil(2 * reach + widest_line(sheet._columns)).tolist()
    # Rounded down, so that it is enough. All lengths are from the centre of the sheet.
    factor = np.floor(100 * float((half / np.maximum(reach, 1e-300)).min())) / 100
    smaller = f"at {factor:g} of the size, positions included, or " if 0 < factor < 1 else ""
    return (
        f"All marks fit {smaller}on a sheet of "
        f"{max(width, sheet.width):g} × {max(height, sheet.height):g} {unit}.{exchanged}"
    )


@rule(
    "tiny-picture",
    HINT,
    f"Reported when the whole picture takes up less than {TINY:.0%} of the sheet's width and height.",
)
def tiny_picture(sheet: Sheet, boxes: MarkBoxes) -> Iterator[Match]:
    """A picture that is a speck on its sheet."""
    if (whole := boxes.whole) is None or not len(sheet._columns):
        return
    left, bottom, right, top = whole
    share = max((right - left) / sheet.width, (top - bottom) / sheet.height)
    if not 0 < share < TINY:
        return
    factor = float(f"{0.5 / share:.1g}")
    yield Match(
        f"The whole picture is {right - left:.3g} × {top - bottom:.3g} {sheet.unit}, a speck on a sheet of "
        f"{sheet.width:g} × {sheet.height:g}.",
        f"Draw it {factor:g} times as large"
        + ("" if sheet.unit == "mm" else '; if its lengths are millimetres, make the sheet with unit="mm"')
        + ".",
        complex(left + right, bottom + top) / 2,
        tuple(np.flatnonzero(sheet._columns.is_drawn).tolist()),
        is_hint=True,
    )


HAIRLINE_LENGTH = 2.0
"""Pixels; shorter lines are small anyway."""


@rule(
    "hairline",
    HINT,
    f"Reported when lines are narrower than {HAIRLINE:g} px, which can hardly be seen.",
)
def hairline(sheet: Sheet) -> Iterator[Match]:
    """Lines too narrow to be seen."""
    columns, origins = sheet._columns, sheet._origins
    widths = np.array([style.line_width for style in columns.styles] or [0.0])
    of_steps = widths[columns.of_steps("style")]
    is_narrow = columns.is_drawn & (of_steps * sheet._pixels_per_unit < HAIRLINE)
    # What is small altogether, as the end of a shrinking tail, has thin lines too, but not only such lines.
    is_long = step_lengths(columns) * sheet._pixels_per_unit > HAIRLINE_LENGTH
    is_drawn = columns.is_drawn & (is_long | bool((is_narrow == columns.is_drawn).all()))
    is_thin = is_drawn & is_narrow
    _, places = np.unique(np.zeros(len(columns)) if origins is None else origins.steps, return_inverse=True)
    if not is_thin.any():
        return
    share = np.bincount(places, is_thin) / np.maximum(np.bincount(places, is_drawn), 1)
    is_thin &= share[places] > 0.5
    for width in np.unique(of_steps[is_thin]).tolist():
        steps = np.flatnonzero(is_thin & (of_steps == width))
        wide = HAIRLINE / sheet._pixels_per_unit
        yield Match(
            f"Lines of {width:g} {sheet.unit} are too thin to be seen.",
            f"Give the nib a line_width of at least {wide:.2g} {sheet.unit}.",
            complex(*columns.points[steps[0]]),
            tuple(steps.tolist()),
            is_hint=True,
        )


LEVEL = (0, 90)
"""Headings of words that are meant: level, and upwards beside an axis."""

MOST_BETWEEN = 50
"""Travels and shapes between a walk and words that its heading tilts."""

TRACED = (PenState.DRAW, PenState.TRACE)


@rule(
    "left-over-heading",
    HINT,
    "Reported when a text or rectangle, to which the nib travelled in a direction other than its "
    "heading, "
    "is tilted by the heading of an earlier line.",
)
def left_over_heading(columns: Columns) -> Iterator[Match]:
    """Words, or a rectangle, tilted by a walk that ended before the nib travelled to them."""
    pens = columns.of_steps("pen")
    for text in columns.texts:
        if text.heading not in LEVEL and _is_left_over_text(columns, pens, text):
            yield _left_over("These words are", text.heading, complex(text.x, text.y), (), (text.origin,))
    for rectangle in laid_rectangles(columns):
        first = int(rectangle.steps[0])
        heading = float(columns.steps["heading"][first - 2])
        side = np.degrees(np.angle(rectangle.corners[1] - rectangle.corners[0])) - heading
        is_along = abs(side / 90 - round(side / 90)) <= MEETS
        is_tilted = pens[first] == PenState.DRAW and is_along and heading % 90
        if is_tilted and _is_left_over(columns, pens, first - 2, heading):
            place, steps = complex(rectangle.corners.mean()), tuple(rectangle.steps.tolist())
            yield _left_over("This rectangle is", heading, place, steps, ())


def _is_left_over_text(columns: Columns, pens: Ints, text: Text) -> bool:
    """Whether a text has the heading of a walk before it, be there shapes laid between, and travels."""
    last = text.step - 1
    for _ in range(MOST_BETWEEN):
        if last < 1:
            return False
        if _is_left_over(columns, pens, last, text.heading):
            return True
        run = int(np.searchsorted(columns.runs["start"], last, "right")) - 1
        first = int(columns.runs["start"][run])
        # After a shape the nib stands where it stood before.
        stands = columns.starts[last + 1] if last + 1 < len(columns) else np.array([text.x, text.y])
        is_shape = pens[last] in TRACED and bool((stands != columns.points[last]).any())
        if pens[last] != PenState.JUMP and not is_shape:
            return False
        last = first - 1 if is_shape else last - 1
    return False


def _is_left_over(columns: Columns, pens: Ints, travel: int, heading: float) -> bool:
    """Whether a step is a travel to a point, aside from the heading, which a walk before it had."""
    if travel < 1 or pens[travel] != PenState.JUMP or pens[travel - 1] != PenState.DRAW:
        return False
    way = complex((columns.points[travel] - columns.starts[travel]) @ AXES)
    ahead = way * np.exp(-1j * np.radians(heading))
    is_aside = abs(ahead.imag) > 1e-3 * abs(way)
    headings = columns.steps["heading"]
    return is_aside and bool(headings[travel] == heading == headings[travel - 1])


def _is_rectangle(start: complex, corners: Complexes) -> bool:
    sides = np.diff(np.append(start, corners))
    turns = sides[1:] / np.where(sides[:-1] == 0, 1, sides[:-1])
    size = np.abs(sides).max()
    return bool(abs(sides.sum()) <= MEETS * size and (np.abs(turns.real) <= MEETS * np.abs(turns)).all())


def _left_over(
    what: str, heading: float, place: complex, steps: tuple[int, ...], origins: tuple[int, ...]
) -> Match:
    return Match(
        f"{what} tilted by {heading:.4g}°, the heading at the end of the line before.",
        "Write nib.turn_to(0) before it if it should be level.",
        place,
        steps,
        origins,
        is_hint=True,
    )
