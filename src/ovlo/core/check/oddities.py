"""The rule about one figure of many that does not keep the law which the others keep.

list(odd_ones_out(sheet, told))

Laws: equal places in a row, in a grid or on a ring; equal sizes, turns and looks; all of them also by turns
(every second, every third) or growing by a sum or a factor.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import TYPE_CHECKING, NamedTuple

import numpy as np

from ovlo.core.check.series import FEWEST, Figures, Series, figures, series
from ovlo.core.values.arrays import Complexes, Floats, Ints
from ovlo.core.values.finding import HINT, Match, rule

if TYPE_CHECKING:
    from ovlo.core.sheet.sheet import Sheet

EXACT = 1e-5
"""Of the sheet, or of a figure's size, by which places and sizes keep a law."""

LONGEST_TURNS = 12
"""Figures after which a law by turns begins again."""

EACH = 3
"""How often each of several that take turns comes at least."""

NEAR_SIZE, NEAR_TURN, NEAR_PLACE = 2.0, 60.0, 2.5
"""What is farther off than by this factor, these degrees, this many sizes is no slip, but meant."""


class Law(NamedTuple):
    """What a law asks of the rows of a series, and which rows do not keep it."""

    asked: Floats
    breaks: Ints
    turns: int
    is_growth: bool


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
    every = (_odd_in(one, exact, has_open_rosette) for one in series(columns, origins))
    for found in (*every, _odd_in_mirror(figures(columns, origins), exact)):
        if found is None or not told.isdisjoint(found.steps) or found.message in said:
            continue
        told.update(found.steps)
        said.add(found.message)  # the lines of one figure have one cause
        yield found


def _odd_in(one: Series, exact: float, has_open_rosette: bool) -> Match | None:
    """What is odd in a series, if it is one thing."""
    odd: dict[int, Callable[[], Match]] = {}
    count = 0
    for look in (_odd_size, _odd_turn, _odd_look):
        if (found := look(one, exact)) is not None:
            count += 1
            odd[found[0]] = found[1]
    if count > 1:
        return None
    place = _odd_place(one, exact, has_open_rosette)
    if count == 1:
        ((row, tell),) = odd.items()
        # A figure of another size has its middle elsewhere.
        return tell() if place is None or place[0] == row else None
    return None if place is None else place[1]()


Odd = tuple[int, Callable[[], Match]]
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
    lengths = one.lengths
    if not (lengths > 0).all():
        return None
    law = _law(lengths, exact) or _law(np.log(lengths), 1e-5)
    if law is None:
        return None
    asked = law.asked if law.asked[0] > 0 and np.abs(law.asked - lengths).max() < 1e9 else np.exp(law.asked)
    if not np.allclose(np.delete(asked, law.breaks), np.delete(lengths, law.breaks), rtol=1e-3):
        asked = np.exp(law.asked)
    row = _single(law, len(one))
    if row is None or not 1 / NEAR_SIZE <= lengths[row] / asked[row] <= NEAR_SIZE:
        return None
    share = lengths[row] / asked[row]

    def tell() -> Match:
        others = "grow evenly" if law.is_growth else "are all equal" if law.turns == 1 else "keep their turns"
        if len(np.unique(np.delete(one.shapes, row))) == 1 and one.shapes[row] == one.shapes[row - 1]:
            what = f"is {share:.3g} times as large as it would be"
        else:
            what = f"has lines {lengths[row]:.4g} long, not {asked[row]:.4g}"
        return _match(
            one,
            row,
            f"{_which(one, row)} {what}; the others {others}.",
            "If that is not meant, give it the size that the others have or grow by.",
        )

    return row, tell


def _odd_turn(one: Series, exact: float) -> Odd | None:
    if len(np.unique(one.shapes)) > 1:
        return None
    law = _law_of_angles(one.turns)
    row = None if law is None else _single(law, len(one))
    if law is None or row is None:
        return None
    off = (one.turns[row] - law.asked[row] + 180) % 360 - 180
    if not 0.01 < abs(off) <= NEAR_TURN:
        return None

    def tell() -> Match:
        side = "left" if off > 0 else "right"
        others = "turn evenly" if law.is_growth else "all point the same way"
        return _match(
            one,
            row,
            f"{_which(one, row)} is turned {abs(off):.4g}° further to the {side}; the others {others}.",
            f"If that is not meant, turn it {abs(off):.4g}° less.",
        )

    return row, tell


def _odd_look(one: Series, exact: float) -> Odd | None:
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

            def tell(row: int = row, others: str = others) -> Match:
                return _match(
                    one,
                    row,
                    f"{_which(one, row)} has a colour or a line that its place does not ask for; the others "
                    f"{others}.",
                    "If that is not meant, give it the look that its place asks for.",
                )

            return row, tell
    return None


def _single(law: Law, count: int) -> int | None:
    """The one row that breaks a law, if there is one and it is neither the first nor the last."""
    if len(law.breaks) != 1 or not 0 < law.breaks[0] < count - 1:
        return None
    return int(law.breaks[0])


# ── places ──────────────────────────────────────────────────────────────────────────────────────────────────


def _odd_place(one: Series, exact: float, has_open_rosette: bool) -> Odd | None:
    """What is odd about places."""
    places = one.places
    if np.abs(places - places[0]).max() <= exact:
        return None
    line = _law_of_places(places, exact)
    if line is not None and not len(line.breaks):
        return None
    ring = _ring(one, exact)
    if ring is not None:
        if not ring or (has_open_rosette and ring[0] == len(one) - 1):
            return None
        return ring
    if line is not None and (row := _single(line, len(one))) is not None:
        off = complex(places[row] - (line.asked[row, 0] + 1j * line.asked[row, 1]))
        if abs(off) > NEAR_PLACE * _size_of(one):
            return None
        asked = line.asked[row]

        def tell() -> Match:
            return _match(
                one,
                row,
                f"{_which(one, row)} lies {abs(off):.4g} beside its place; the others keep equal steps.",
                f"If that is not meant, put its middle at ({asked[0]:.4g}, {asked[1]:.4g}).",
            )

        return row, tell
    return _gap(one, exact) or _missing(one, exact)


def _size_of(one: Series) -> float:
    """How far apart figures are, about."""
    return float(np.median(np.abs(np.diff(one.places))))


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
        return at + 1, lambda: _match(one, at + 1, words, "If that is not meant, draw one there.")
    words = (
        f"From the {_ordinal(at + 1)} to the next of {len(one)} figures in a row the step is "
        f"{abs(steps[at]):.4g} long, elsewhere {abs(usual):.4g}."
    )
    return at + 1, lambda: _match(
        one, at + 1, words, f"If that is not meant, make this step {abs(usual):.4g} long too."
    )


def _missing(one: Series, exact: float) -> Odd | None:
    """One figure that is missing in a grid: with it, all places keep a law."""
    places = one.places
    steps = np.diff(places)
    doubled = [
        i for i in range(1, len(steps)) if abs(steps[i] - 2 * steps[i - 1]) <= exact < abs(steps[i - 1])
    ]
    for at in doubled[:EACH]:
        with_it = np.insert(places, at + 1, places[at] + steps[at] / 2)
        law = _law_of_places(with_it, exact)
        if law is not None and not len(law.breaks):
            words = f"In the places of {len(one)} figures one is left out, after the {_ordinal(at + 1)}."

            def tell(at: int = at, words: str = words) -> Match:
                return _match(one, at, words, "If that is not meant, draw one there.")

            return at, tell
    return None


def _ring(one: Series, exact: float) -> Odd | tuple[()] | None:
    """What is odd about figures on a ring; () where nothing is, and None where they lie on none."""
    places, count = one.places, len(one)
    centre = _centre(places)
    if centre is None:
        return None
    radii, angles = np.abs(places - centre), np.degrees(np.angle(places - centre))
    near, angle = _law(radii, exact), _law_of_angles(angles)
    if near is None or angle is None or near.turns * angle.turns > count // EACH or not angle.is_growth:
        return None
    breaks = np.union1d(near.breaks, angle.breaks)
    if len(breaks) > 1:
        return None
    if len(breaks) == 1:
        row = int(breaks[0])
        if not 0 < row < count - 1:
            return None
        turn = (angles[row] - angle.asked[row] + 180) % 360 - 180

        def odd() -> Match:
            off = abs(radii[row] - near.asked[row])
            where = f"{off:.4g} farther in or out" if off > exact else f"{abs(turn):.4g}° beside its place"
            return _match(
                one,
                row,
                f"{_which(one, row)} lies {where}; the others lie evenly on a ring.",
                "If that is not meant, put it on the ring with the others.",
            )

        return row, odd
    return _open_ring(one, angle, exact) or ()


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
        fix = f"If the ring is to be full, draw {more} of them."
    else:
        fix = f"If they are to be evenly apart, turn by 360 / {count} = {360 / count:.4g}° after each."
    return count - 1, lambda: _match(one, count - 1, words, fix)


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


def _odd_in_mirror(found: Figures | None, exact: float) -> Match | None:
    """One figure without a mirror image, or beside it, where all others have theirs, left and right."""
    if found is None or len(found.steps) < 2 * FEWEST_PAIRS:
        return None
    x = found.places.real
    for axis in dict.fromkeys((0.0, float(x.min() + x.max()) / 2)):
        images = 2 * axis - found.places.conj()
        is_beside = np.abs(x - axis) > exact
        alike = (
            (np.abs(found.places[:, None] - images[None, :]) <= exact)
            & (np.abs(found.lengths[:, None] - found.lengths[None, :]) <= exact)
            & (found.looks[:, None] == found.looks[None, :])
        )
        paired = is_beside & alike.any(axis=1)
        alone = np.flatnonzero(is_beside & ~paired)
        lines = set(found.lines[paired].tolist())
        if paired.sum() < max(2 * FEWEST_PAIRS, 4 * len(alone)):
            continue
        if len(alone) not in (1, 2) or not lines.issuperset(found.lines[alone].tolist()):
            continue
        if len(alone) == 1:
            return _of_figure(found, int(alone[0]), "has no mirror image", "draw it on the other side too")
        one, other = alone.tolist()
        off, share = abs(found.places[one] - images[other]), found.lengths[other] / found.lengths[one]
        if off <= found.lengths[one] / 2 and 1 / NEAR_SIZE < share < NEAR_SIZE:
            off_words = f"lies {off:.4g} beside" if off > exact else f"is {share:.3g} times as large as"
            if off <= exact and abs(share - 1) < 1e-3:
                off_words = "does not look like"
            return _of_figure(found, other, f"{off_words} its mirror image", "draw both in the same way")
    return None


def _of_figure(found: Figures, row: int, what: str, fix: str) -> Match:
    return Match(
        f"Left and right are mirror images in this picture, but this figure {what}.",
        f"If that is not meant, {fix}.",
        complex(found.places[row]),
        tuple(found.steps[row].tolist()),
    )


# ── laws of numbers ─────────────────────────────────────────────────────────────────────────────────────────


def _law(values: Floats, exact: float) -> Law | None:
    """The simplest law that all numbers keep, or all but one: equal, growing evenly, or either by turns."""
    return _law_of_rows(values[:, None], exact)


def _law_of_places(places: Complexes, exact: float) -> Law | None:
    """The same for places, which keep a law in both coordinates."""
    return _law_of_rows(np.column_stack([places.real, places.imag]), exact)


def _law_of_angles(angles: Floats) -> Law | None:
    """The same for angles in degrees."""
    step = np.median((np.diff(angles) + 180) % 360 - 180)
    even = step * np.arange(len(angles))
    off = angles - even
    unwrapped = (off - np.median(off[: len(off) // 2 + 1]) + 180) % 360 - 180
    law = _law(unwrapped, 1e-3)
    if law is None:
        return None
    asked = law.asked + angles[0] - unwrapped[0] + even
    if 0 in law.breaks.tolist():
        return None
    return law._replace(asked=asked, is_growth=bool(abs(step) > 1e-3) or law.is_growth)


def _law_of_rows(rows: Floats, exact: float) -> Law | None:
    """The simplest law that all rows keep, else that all but one keep."""
    nearly: Law | None = None
    for turns in range(1, min(LONGEST_TURNS, len(rows) // EACH) + 1):
        law = _by_turns(rows, turns, exact)
        if not len(law.breaks):
            return law
        if nearly is None and len(law.breaks) == 1 and len(rows) - 1 >= 4 * turns:
            nearly = law
    return nearly


def _by_turns(rows: Floats, turns: int, exact: float) -> Law:
    """Rows of which every so many grow by one sum: what that asks of each, and which rows break it."""
    rounds = np.arange(len(rows)) // turns
    growth = np.median(rows[turns:] - rows[:-turns], axis=0)
    level = rows - rounds[:, None] * growth
    asked = np.empty_like(rows)
    for first in range(turns):
        asked[first::turns] = np.median(level[first::turns], axis=0)
    asked += rounds[:, None] * growth
    breaks = np.flatnonzero((np.abs(rows - asked) > exact).any(axis=1))
    is_growth = bool((np.abs(growth) > exact).any())
    return Law(asked[:, 0] if rows.shape[1] == 1 else asked, breaks, turns, is_growth)
