"""The rule about one figure of many that does not keep the law which the others keep.

list(odd_ones_out(sheet, told))

Laws: equal places in a row, in a grid or on a ring; equal sizes, turns and looks; all of them also by turns
(every second, every third) or growing by a sum or a factor.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import TYPE_CHECKING

import numpy as np

from ovlo.core.check.again import turn_instead
from ovlo.core.check.laws import (
    EACH,
    LONGEST_TURNS,
    Law,
    by_turns,
    law_of_angles,
    law_of_numbers,
    law_of_places,
    wrapped,
)
from ovlo.core.check.series import FEWEST, Figures, Series, figures, series
from ovlo.core.values.arrays import Complexes, Floats
from ovlo.core.values.finding import HINT, Change, Match, rule
from ovlo.core.values.pose import point_in_words

if TYPE_CHECKING:
    from ovlo.core.sheet.sheet import Sheet

EXACT = 1e-5
"""Of the sheet, or of a figure's size, by which places and sizes keep a law."""

NEAR_SIZE, NEAR_TURN, NEAR_PLACE = 2.0, 60.0, 2.5
"""What is farther off than by this factor, these degrees, this many sizes is no slip, but intended."""


@rule(
    "odd-one-out",
    HINT,
    f"Reported when one figure of at least {FEWEST} that a loop draws breaks the law that the others keep: "
    "equal steps along a line, in a grid or on a ring; sizes or turns that are equal or grow evenly; one "
    "look, or looks by turns; when one is missing in a row or a ring; and when one has no mirror image "
    "while the others have theirs. Not reported if random numbers are used, if several figures break a law, "
    "for the first and the last, and if one differs in more than one way.",
)
def odd_ones_out(sheet: Sheet, told: set[int], has_open_rosette: bool = False) -> Iterator[Match]:
    """One figure of each series that is odd; steps in `told` are known already, as may be an open rosette."""
    columns, origins = sheet._columns, sheet._origins
    if origins is None or sheet.seed is not None:
        return
    exact = EXACT * max(sheet.width, sheet.height)
    told, said = set(told), set()
    stamped = sheet._trail.stamped()
    every = (_odd_in(one, exact, has_open_rosette) for one in series(columns, origins, stamped))
    for found in (*every, _odd_in_mirror(figures(columns, origins, stamped), exact, sheet.width / 2)):
        if found is None or not told.isdisjoint(found.steps) or found.message in said:
            continue
        told.update(found.steps)
        said.add(found.message)  # the lines of one figure have one cause
        yield found


@rule("drawn-again")
def series_again(sheet: Sheet, told: set[int]) -> Iterator[Match]:
    """Open figures that a loop draws in places where it has drawn each of them before."""
    columns, origins = sheet._columns, sheet._origins
    if origins is None or sheet.seed is not None:
        return
    exact = EXACT * max(sheet.width, sheet.height)
    told, said = set(told), set()
    for one in series(columns, origins, sheet._trail.stamped()):
        first, last = columns.starts[one.steps[0][0]], columns.points[one.steps[0][-1]]
        if np.abs(first - last).max() <= exact:
            continue
        measures = [one.places.real / exact, one.places.imag / exact, one.lengths / exact, one.turns * 100]
        rows = np.column_stack([*np.round(measures), one.shapes, one.looks])
        _, firsts, counts = np.unique(rows, axis=0, return_index=True, return_counts=True)
        times = int(counts[0])
        if times < 2 or (counts != times).any() or (len(firsts) == 1 and times < FEWEST):
            continue
        row = int(np.setdiff1d(np.arange(len(one)), firsts)[0])
        steps = [int(step) for step in one.steps[row]]
        message = (
            f"Each of {len(firsts)} figures is drawn {times} times in the same place, {len(one)} in all."
            if len(firsts) > 1
            else f"This is drawn {times} times in the same place."
        )
        if not told.isdisjoint(steps) or message in said:
            continue
        told.update(steps)
        said.add(message)  # the lines of one figure have one cause
        yield _match(
            one,
            row,
            message,
            f"Repeat {len(firsts)} times instead of {len(one)}, or "
            f"{turn_instead(columns, np.array([some[0] for some in one.steps]))}.",
        )


def _odd_in(one: Series, exact: float, has_open_rosette: bool) -> Match | None:
    """What is odd in a series, if it is one thing."""
    size = _odd_size(one, exact)
    # Of a figure that is scaled the line is scaled too.
    every = size, _odd_turn(one), _odd_look(one), None if size else _odd_pen(one)
    odd = [found for found in every if found is not None]
    place = _odd_place(one, exact, has_open_rosette)
    if not odd:
        return None if place is None else place[1]
    ((row, match), *others) = odd
    # A figure of another size has its middle elsewhere.
    return None if others or (place is not None and abs(place[0] - row) > 1) else match


Odd = tuple[int, Match]
"""The row that is odd, and what is said of it."""


def _match(one: Series, row: int, message: str, fix: str) -> Match:
    steps = one.steps[row]
    return Match(message, fix, complex(one.places[row]), tuple(steps.tolist()))


def _which(one: Series, row: int) -> str:
    return f"Of {len(one)} figures, the {_ordinal(row + 1)}"


def _ordinal(number: int) -> str:
    ending = {1: "st", 2: "nd", 3: "rd"}.get(number % 10, "th") if number % 100 not in (11, 12, 13) else "th"
    return f"{number}{ending}"


# ── sizes, turns, looks ─────────────────────────────────────────────────────────────────────────────────────


def _odd_size(one: Series, exact: float) -> Odd | None:
    """A figure whose lines are longer or shorter, or whose box is wider or higher, than a law asks."""
    measures = [("has lines {} long, not {}", one.lengths)]
    if _size_law(one.lengths, exact) is None:  # one side of each may differ on purpose
        measures += [("is {} wide, not {}", one.sizes[:, 0]), ("is {} high, not {}", one.sizes[:, 1])]
    for words, values in measures:
        law = _size_law(values, exact)
        if law is None or (row := law.odd) is None:
            continue
        if not 1 / NEAR_SIZE <= values[row] / law.asked[row] <= NEAR_SIZE:
            continue
        asked, value = float(law.asked[row]), float(values[row])
        if one.shapes[row] == one.shapes[row - 1]:
            words = f"is {value / asked:.3g} times as large as it would be"
        message = (
            f"{_which(one, row)} {words.format(f'{value:.4g}', f'{asked:.4g}')}; "
            f"the others {_kept(law, 'are equal', 'grow evenly')}."
        )
        fix = "Unless this is intended, give it the size that the others have or grow by."
        return row, _match(one, row, message, fix)
    return None


def _size_law(values: Floats, exact: float) -> Law | None:
    """A law of sizes: equal, growing by a sum, or by a factor."""
    if not (values > exact).all():
        return None
    law = law_of_numbers(values, exact)
    if law is not None and not len(law.breaks):
        return law
    factor = law_of_numbers(np.log(values), 1e-5)
    if factor is None or (law is not None and len(factor.breaks)):
        return law
    return factor._replace(asked=np.exp(factor.asked))


def _kept(law: Law, equal: str, growing: str) -> str:
    """What the other figures do."""
    if law.is_growth:
        return growing
    return equal if law.turns == 1 else f"take turns, {law.turns} by {law.turns}"


def _odd_turn(one: Series) -> Odd | None:
    if len(np.unique(one.shapes)) > 1:
        return None
    law = law_of_angles(one.turns)
    if law is None or (row := law.odd) is None:
        return None
    off = wrapped(one.turns[row] - law.asked[row])
    if not 0.01 < abs(off) <= NEAR_TURN:
        return None
    side = "left" if off > 0 else "right"
    others = _kept(law, "point the same way", "turn evenly")
    return row, _match(
        one,
        row,
        f"{_which(one, row)} is turned {abs(off):.4g}° further to the {side}; the others {others}.",
        f"Unless this is intended, turn it {abs(off):.4g}° less.",
    )


def _odd_look(one: Series) -> Odd | None:
    looks = one.looks
    for turns in range(1, min(LONGEST_TURNS, len(one) // EACH) + 1):
        asked = np.empty_like(looks)
        for first in range(turns):
            values, counts = np.unique(looks[first::turns], return_counts=True)
            asked[first::turns] = values[counts.argmax()]
        breaks = np.flatnonzero(asked != looks)
        if not len(breaks):
            return None
        if len(breaks) == 1 and 0 < (row := int(breaks[0])) < len(one) - 1:
            others = "look alike" if turns == 1 else f"take turns, {turns} by {turns}"
            return row, _match(
                one,
                row,
                f"{_which(one, row)} has a colour that its place does not ask for; the others {others}.",
                "Unless this is intended, give it the look that its place asks for.",
            )
    return None


def _odd_pen(one: Series) -> Odd | None:
    """A figure with another line width than a law asks."""
    law = law_of_numbers(one.pens, 1e-6)
    if law is None or (row := law.odd) is None:
        return None
    message = (
        f"{_which(one, row)} has a line {one.pens[row]:.4g} wide, not {law.asked[row]:.4g}; "
        f"the others {_kept(law, 'are equal', 'grow evenly')}."
    )
    fix = "Unless this is intended, give it the line width that its place asks for."
    return row, _match(one, row, message, fix)


# ── places ──────────────────────────────────────────────────────────────────────────────────────────────────


def _odd_place(one: Series, exact: float, has_open_rosette: bool) -> Odd | None:
    """What is odd about places."""
    places = one.places
    if np.abs(places - places[0]).max() <= exact:
        return None
    line = law_of_places(places, exact)
    if line is not None and not len(line.breaks):
        return None
    ring = _ring(one, exact)
    if ring is not None:
        if not ring or (has_open_rosette and ring[0] == len(one) - 1):
            return None
        return ring
    if (found := _gap(one, exact) or _missing(one, exact)) is not None:
        return found
    if line is not None and (found := _beside(one, line, (line.asked[:, 0], line.asked[:, 1]))):
        return found
    for axis, values in enumerate((places.real, places.imag)):
        law = law_of_numbers(values, exact)
        if law is not None and len(law.breaks):
            asked = (places.real, law.asked) if axis else (law.asked, places.imag)
            if found := _beside(one, law, asked):
                return found
    return None


def _beside(one: Series, law: Law, asked: tuple[Floats, Floats]) -> Odd | None:
    """A figure beside the place that a law asks for."""
    if (row := law.odd) is None:
        return None
    place = complex(asked[0][row], asked[1][row])
    off = abs(complex(one.places[row]) - place)
    if off > NEAR_PLACE * max(float(np.median(np.abs(np.diff(one.places)))), float(np.median(one.sizes))):
        return None
    return row, _match(
        one,
        row,
        f"{_which(one, row)} lies {off:.4g} beside its place; the others keep equal steps.",
        f"Unless this is intended, put its middle at {point_in_words(place.real, place.imag)}.",
    )


def _gap(one: Series, exact: float) -> Odd | None:
    """One step that is longer or shorter than all others, in a row along a line."""
    steps = np.diff(one.places)
    usual = complex(np.median(steps.real), np.median(steps.imag))
    breaks = np.flatnonzero(np.abs(steps - usual) > exact)
    if len(breaks) != 1 or len(steps) < FEWEST or not abs(usual) > exact:
        return None
    at = int(breaks[0])
    share = steps[at] / usual
    if abs(share.imag) > 1e-3 or not 0.4 < share.real < NEAR_PLACE:
        return None
    if abs(share.real - 2) < 1e-3:
        words = f"Between the {_ordinal(at + 1)} and the next of {len(one)} figures in a row one is missing."
        return at + 1, _match(one, at + 1, words, "Unless this is intended, draw one there.")
    words = (
        f"From the {_ordinal(at + 1)} to the next of {len(one)} figures in a row the step is "
        f"{abs(steps[at]):.4g} long, elsewhere {abs(usual):.4g}."
    )
    return at + 1, _match(
        one, at + 1, words, f"Unless this is intended, make this step {abs(usual):.4g} long too."
    )


def _missing(one: Series, exact: float) -> Odd | None:
    """One figure that is left out where figures take turns: with it, all places keep a law."""
    places, steps = one.places, np.diff(one.places)
    for turns in range(1, min(LONGEST_TURNS, (len(one) + 1) // EACH) + 1):
        odd = np.flatnonzero(np.abs(steps[turns:] - steps[:-turns]) > exact)
        if not len(odd):
            return None
        at = int(odd[0]) + turns
        with_it = np.insert(places, at + 1, places[at] + steps[at - turns])
        law = by_turns(np.column_stack([with_it.real, with_it.imag]), turns, exact)
        if not len(law.breaks):
            words = f"In the places of {len(one)} figures one is left out, after the {_ordinal(at + 1)}."
            return at, _match(one, at, words, "Unless this is intended, draw one there.")
    return None


def _ring(one: Series, exact: float) -> Odd | tuple[()] | None:
    """What is odd about figures on a ring or a spiral; () where nothing is, None where they lie on none."""
    for centre in (_centre(one.places), 0j):
        if centre is None:
            continue
        radii, angles = np.abs(one.places - centre), np.degrees(np.angle(one.places - centre))
        if radii.min() <= exact:
            continue
        near, angle = law_of_numbers(radii, exact), law_of_angles(angles)
        if near is not None and angle is None:
            if not len(near.breaks) and (gap := _gap_on_ring(one, angles)):
                return gap
            continue
        if (
            near is None
            or angle is None
            or near.turns * angle.turns > len(one) // EACH
            or not angle.is_growth
        ):
            continue
        breaks = np.union1d(near.breaks, angle.breaks)
        if not len(breaks):
            return _open_ring(one, angle, exact) or ()
        if len(breaks) == 1 and 0 < breaks[0] < len(one) - 1:
            return _beside_ring(one, int(breaks[0]), near, angle, radii, angles, exact)
    return None


def _beside_ring(
    one: Series, row: int, near: Law, angle: Law, radii: Floats, angles: Floats, exact: float
) -> Odd:
    turn = wrapped(angles[row] - angle.asked[row])
    off = abs(radii[row] - near.asked[row])
    where = f"{off:.4g} farther in or out" if off > exact else f"{abs(turn):.4g}° beside its place"
    return row, _match(
        one,
        row,
        f"{_which(one, row)} lies {where}; the others lie evenly on a ring.",
        "Unless this is intended, put it on the ring with the others.",
    )


def _gap_on_ring(one: Series, angles: Floats) -> Odd | None:
    """One angle between neighbours on a ring that is larger or smaller than all others."""
    steps = wrapped(np.diff(angles))
    usual = float(np.median(steps))
    breaks = np.flatnonzero(np.abs(steps - usual) > 1e-3)
    if len(breaks) != 1 or len(steps) < FEWEST or abs(usual) < 1:
        return None
    at = int(breaks[0])
    if not 0.4 < steps[at] / usual < NEAR_PLACE:
        return None
    words = (
        f"From the {_ordinal(at + 1)} to the next of {len(one)} figures on a ring it is "
        f"{abs(steps[at]):.4g}°, elsewhere {abs(usual):.4g}°."
    )
    return at + 1, _match(
        one, at + 1, words, f"Unless this is intended, make this turn {abs(usual):.4g}° too."
    )


def _open_ring(one: Series, angle: Law, exact: float) -> Odd | None:
    """A ring that is closed but for a gap which is a little larger than the others."""
    if angle.turns > 1:
        return None
    count = len(one)
    step = float(angle.asked[1] - angle.asked[0])
    left = 360 - abs(step) * (count - 1)
    if not 1.02 * abs(step) < left < 3 * abs(step) or abs(step) < 1:
        return None
    words = (
        f"These {count} figures are {abs(step):.4g}° apart on a ring, but {left:.4g}° from the last to the "
        "first."
    )
    more = round(360 / abs(step))
    if abs(more * abs(step) - 360) < 0.01:
        fix, change = f"If the ring is to be full, draw {more} of them.", Change("times", f"{more}", count)
    else:
        fix = f"If they are to be evenly apart, turn by 360 / {count} = {360 / count:.4g}° after each."
        change = None
    return count - 1, _match(one, count - 1, words, fix)._replace(change=change)


def _centre(places: Complexes) -> complex | None:
    """The centre of the circle through most of some places: the median of those through three of them."""
    count = len(places)
    rows = np.arange(count)
    a, b, c = places, places[(rows + count // 3) % count], places[(rows + 2 * (count // 3)) % count]
    u, v = b - a, c - a
    cross = 2 * (u.conj() * v).imag
    is_flat = np.abs(cross) <= 1e-9 * (np.abs(u) * np.abs(v) + 1e-300)
    if is_flat.sum() > count / 3:
        return None
    with np.errstate(divide="ignore", invalid="ignore"):
        centres = a + 1j * (v * np.abs(u) ** 2 - u * np.abs(v) ** 2) * -1 / cross
    centres = centres[~is_flat]
    return complex(np.median(centres.real), np.median(centres.imag))


# ── mirror images ───────────────────────────────────────────────────────────────────────────────────────────

FEWEST_PAIRS = 3


def _odd_in_mirror(found: Figures | None, exact: float, edge: float) -> Match | None:
    """One figure without a mirror image, or beside it, where all others have theirs, left and right."""
    if found is None or len(found.steps) < 2 * FEWEST_PAIRS:
        return None
    x = found.places.real
    for axis in dict.fromkeys((0.0, float(x.min() + x.max()) / 2)):
        images = 2 * axis - found.places.conj()
        is_beside = np.abs(x - axis) > exact
        alike = (np.abs(found.places[:, None] - images[None, :]) <= exact) & (
            np.abs(found.lengths[:, None] - found.lengths[None, :]) <= exact
        )
        paired = is_beside & alike.any(axis=1)
        alone = np.flatnonzero(is_beside & ~paired)
        lines = set(found.lines[paired].tolist())
        if paired.sum() < max(2 * FEWEST_PAIRS, 3 * len(alone)):
            continue
        # A row is its own mirror image too, and its laws are others.
        if len(np.unique(np.round(found.places.imag[paired] / exact))) < FEWEST_PAIRS:
            continue
        if len(alone) not in (1, 2) or not lines.issuperset(found.lines[alone].tolist()):
            continue
        if len(alone) == 1 and abs(abs(x[alone[0]]) - edge) <= exact:
            continue  # a line on the very edge of the sheet is hardly seen
        if len(alone) == 1:
            return _of_figure(found, int(alone[0]), "has no mirror image", "draw it on the other side too")
        one, other = alone.tolist()
        off, share = abs(found.places[one] - images[other]), found.lengths[other] / found.lengths[one]
        if off <= found.lengths[one] / 2 and 1 / NEAR_SIZE < share < NEAR_SIZE:
            off_words = f"lies {off:.4g} beside" if off > exact else f"is {share:.3g} times as large as"
            return _of_figure(found, other, f"{off_words} its mirror image", "draw both in the same way")
    return None


def _of_figure(found: Figures, row: int, what: str, fix: str) -> Match:
    return Match(
        f"Left and right are mirror images in this picture, but this figure {what}.",
        f"Unless this is intended, {fix}.",
        complex(found.places[row]),
        tuple(found.steps[row].tolist()),
    )
