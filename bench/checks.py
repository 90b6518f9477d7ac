"""Checks, origins and comparing, against the recording of the drawing by method calls."""

from __future__ import annotations

import sys
from collections.abc import Callable, Iterator

from bench.harness import Ratio
from ovlo import Nib, Sheet
from ovlo.core.compare.compare import compare
from ovlo.core.sheet.host import hosted
from ovlo.core.trail.columns import Columns
from ovlo.core.trail.origins import Recorder

STEPS = 100_000

BYTES_PER_ORIGIN = 16


def walk(nib: Nib, steps: int) -> None:
    """Equal calls, irregular angles."""
    for i in range(steps):
        nib.forward(3 + i % 11 * 0.37)
        nib.left(i * i % 7919 * 0.017)


def polygons(nib: Nib, steps: int) -> None:
    """Filled twelve-sided kites all over the sheet."""
    for i in range(steps // 13):
        nib.travel_to(i * 7919 % 907 - 450, i * 104729 % 911 - 450)
        with nib.area("gold"):
            for _ in nib.full_turn(12):
                nib.forward(5)


def nested(nib: Nib, depth: int, rounds: int) -> None:
    """A step at the bottom of nested calls."""
    if depth:
        nested(nib, depth - 1, rounds)
        return
    for i in range(rounds):
        nib.forward(3)
        nib.left(i % 73 * 1.7)


def sixteen_deep(nib: Nib, steps: int) -> None:
    """Every tenth step is reached anew through sixteen calls."""
    for _ in range(steps // 10):
        nested(nib, 15, 10)


def nine_hundred_deep(nib: Nib, steps: int) -> None:
    """All steps at the bottom of a deep recursion."""
    nested(nib, 900, steps)


def drawn(function: Callable[[Nib, int], None], steps: int = STEPS) -> Sheet:
    """A sheet with a drawing, recorded plainly."""
    sheet = Sheet(1000, 1000)
    function(sheet.new_nib(), steps)
    return sheet


def traced(function: Callable[[Nib, int], None], steps: int = STEPS) -> Sheet:
    """The same with the place each step comes from."""
    recorder = Recorder(lambda file: file == __file__, sys._getframe())
    with hosted(recorder=recorder):
        return drawn(function, steps)


def ratios() -> Iterator[Ratio]:
    """The rows of the table."""
    for function in (walk, sixteen_deep, nine_hundred_deep):
        name = f"origins of 100,000 steps, {function.__name__.replace('_', ' ')}"
        yield Ratio(name, "recorded plainly", 4, _of(drawn, function), _of(traced, function))
    yield Ratio(
        "time per step of origins 900 deep, 300,000 steps",
        "10,000 steps",
        1.5,
        lambda: traced(nine_hundred_deep, 10_000),
        lambda: traced(nine_hundred_deep, 300_000),
        per_floor=10_000,
        per_ours=300_000,
    )
    for function in (walk, polygons):
        sheet = drawn(function)
        name = f"check of 100,000 steps, {function.__name__}"
        yield Ratio(name, "recorded plainly", 25, _of(drawn, function), sheet.check)
    small, large = drawn(walk, 10_000), drawn(walk, 300_000)
    yield Ratio(
        "time per step of a check, 300,000 steps",
        "10,000 steps",
        1.5,
        small.check,
        large.check,
        10_000,
        300_000,
    )
    a, b = drawn(walk)._columns, drawn(_turned)._columns
    other = drawn(_and_one_more)._columns
    for name, second in (("equal", a), ("turned", b), ("different", other)):
        yield Ratio(
            f"compare, two of 100,000 steps, {name}",
            "recorded plainly",
            25,
            _of(drawn, walk),
            _compared(a, second),
        )


def _of(what: Callable[..., Sheet], function: Callable[[Nib, int], None]) -> Callable[[], object]:
    return lambda: what(function)


def _compared(a: Columns, b: Columns) -> Callable[[], object]:
    return lambda: compare(a, b)


def _and_one_more(nib: Nib, steps: int) -> None:
    walk(nib, steps - 1)
    nib.forward(99)


def _turned(nib: Nib, steps: int) -> None:
    nib.left(33)
    walk(nib, steps)


def bytes_per_origin() -> float:
    """What the places of 100,000 steps take, per step."""
    trail = traced(walk)._trail
    return sys.getsizeof(trail._store.places) / len(trail)
