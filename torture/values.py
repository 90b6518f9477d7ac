"""The table of values: every parameter of every public call, with what does not belong there.

    for fault in faults(): print(fault)

A call either takes a value, or raises one of Ovlo's own errors and leaves everything as it was.
"""

from __future__ import annotations

import inspect
import math
import warnings
from collections.abc import Callable, Iterator
from decimal import Decimal
from fractions import Fraction
from typing import Any, NamedTuple

import numpy as np

import ovlo
from ovlo import Colour, Dice, Motif, Nib, OvloError, Sheet, Span, drawing
from ovlo.outlets import as_bytes


class Broken(float):
    """A number that fails at everything it is asked."""

    def __float__(self) -> float:
        raise RuntimeError("no number")

    def __repr__(self) -> str:
        raise RuntimeError("not to be shown")

    __str__ = __format__ = __repr__  # type: ignore[assignment]


class Unshowable:
    """A thing that cannot be shown, nor asked for anything."""

    def __repr__(self) -> str:
        raise RuntimeError("not to be shown")

    def __getattr__(self, name: str) -> object:
        raise RuntimeError(name)


BAD: tuple[object, ...] = (
    *(None, True, False, "", "5", "nan", "tomatoe", "#12", "a\0.svg", "\ud800", "kite\x1b", "x" * 300_000),
    *(math.nan, math.inf, -math.inf, 1e308, -1e300, 1e-320, -0.0, 10**400, -(10**400), 10**5000, 2.5, -1, 0),
    *(1j, Decimal("NaN"), Decimal("sNaN"), Decimal("Infinity"), Decimal("1e999"), Fraction(10**400, 3)),
    *(np.float64("nan"), np.float32(np.inf), np.int64(-1), np.bool_(True), np.str_("5"), np.complex128(1)),
    *(np.array(5.0), np.array([1.0, 2.0]), np.array("a"), np.array(1j), np.array(None), np.zeros((2, 2))),
    *(np.datetime64("2026-05-01"), np.timedelta64(3, "s"), np.array([], float), np.array(["a"])),
    *((), (1,), (1, 2, 3), [math.nan, 1], ["a", "b"], [1, True], [[1], [1, 2]], [None], {}, {1: 2}, {"a"}),
    *(b"5", bytearray(b"5"), int, float, Sheet, Broken(), Unshowable(), lambda: 1, lambda nib: nib, len),
    *(range(10**12), iter(()), object(), Exception("no"), Ellipsis, NotImplemented, (999, 0, 0, 7)),
)

BLACK = Colour(0, 0, 0)

GOOD: dict[str, object] = {
    **dict.fromkeys(("distance", "angle", "radius", "sweep", "x", "y", "dx", "dy", "width", "height"), 20.0),
    **dict.fromkeys(("heading", "size", "factor", "low", "scale", "seconds", "red", "green", "blue"), 1.0),
    "high": 6,
    "count": 3,
    "sides": 5,
    "points": 5,
    "rounds": 2,
    "probability": 0.5,
    "step": 1,
    **dict.fromkeys(("ink", "fill", "colour", "a", "b", "paper", "value"), "tomato"),
    "words": "kite",
    "distances": [1.0, 2.0],
    "angles": 90.0,
    "amount": 0.5,
    "path": "x.svg",
    "source": "x.svg",
    "format": "svg",
    "axes": None,
    "items": ["a", "b"],
    "function": lambda nib: nib.forward(9),
    "seed": 7,
    "line_width": 2.0,
}


class Stage(NamedTuple):
    """What calls are tried on, made anew for each."""

    sheet: Sheet
    nib: Nib
    motif: Motif
    dice: Dice
    kite: Any

    @classmethod
    def new(cls) -> Stage:
        """A sheet with something on it."""
        sheet = Sheet(200, 100, seed=3)
        nib = sheet.new_nib(heading=30)
        nib.forward(20)

        @drawing(width=50, height=50)
        def kite(nib: Nib, sides: int = 3, side: float = 9, ink: Colour = BLACK) -> None:
            nib.polygon(sides, radius=side)

        return cls(sheet, nib, Motif.record(lambda nib: nib.circle(9)), sheet.dice, kite)

    def state(self) -> tuple[object, ...]:
        """All that a refused call must leave as it is."""
        nib = self.nib
        style = nib.ink, nib.line_width, nib.line_dash, nib.line_cap, nib.line_join, nib.is_lifted
        dice = self.dice._random.getstate() if self.dice._is_used else None
        return as_bytes(self.sheet, ".svg"), nib.pose, style, len(self.sheet.nibs), dice, self.sheet.title


class Case(NamedTuple):
    """One parameter of one call; `act` calls it with a value there."""

    call: str
    parameter: str
    act: Callable[[Stage, object], object]


def cases() -> Iterator[Case]:
    """Every parameter of every public call."""
    for owner in ("sheet", "nib", "motif", "dice", "kite"):
        kind = type(getattr(Stage.new(), owner))
        for name in (name for name in dir(kind) if not name.startswith("_")):
            member = inspect.getattr_static(kind, name)
            if isinstance(member, property) and member.fset is not None:
                yield Case(f"{owner}.{name} =", name, _setter(owner, name))
            elif name not in ("show", "live", "animate") and callable(getattr(kind, name)):
                yield from _of_call(f"{owner}.{name}", _bound(owner, name))
    for name in (*ovlo.__all__, "Colour.from_rgb"):
        thing: Any = Colour.from_rgb if "." in name else getattr(ovlo, name)
        if not inspect.isclass(thing) and callable(thing):
            yield from _of_call(name, _constant(thing))
    for made in (Sheet, Dice, Span):
        yield from _of_call(made.__name__, _constant(made))


def _constant(thing: Any) -> Callable[[Stage], Any]:
    return lambda _: thing


def _setter(owner: str, name: str) -> Callable[[Stage, object], object]:
    return lambda stage, value: setattr(getattr(stage, owner), name, value)


def _bound(owner: str, name: str) -> Callable[[Stage], Callable[..., object]]:
    return lambda stage: getattr(getattr(stage, owner), name)


def _of_call(call: str, thing: Callable[[Stage], Any]) -> Iterator[Case]:
    parameters = inspect.signature(thing(Stage.new())).parameters.values()
    given = {item.name: _good(item, call) for item in parameters if _is_needed(item, call)}
    names = [item.name for item in parameters if item.kind not in (item.VAR_KEYWORD, item.VAR_POSITIONAL)]
    if call in ("kite.run", "kite.save", "kite.check", "kite.vary"):
        names += ["sides", "side", "ink"]
    positional = [item.name for item in parameters if item.kind is item.POSITIONAL_ONLY]
    for name in names:
        if call.startswith("kite") and name == "nib":
            continue  # a drawing called as a function checks nothing

        def act(stage: Stage, value: object, name: str = name) -> object:
            chosen = {**{key: _made(one, stage) for key, one in given.items()}, name: value}
            if name == "side_length":
                chosen.pop("radius", None)
            first = [chosen.pop(key) for key in positional]
            return _used(thing(stage)(*first, **chosen))

        yield Case(call, name, act)


def _is_needed(item: inspect.Parameter, call: str) -> bool:
    if call == "nib.polygon" and item.name == "radius":
        return True
    return item.default is item.empty and item.kind not in (item.VAR_KEYWORD, item.VAR_POSITIONAL)


def _good(item: inspect.Parameter, call: str) -> object:
    if item.name in ("motif", "motifs"):
        return item.name
    if item.name == "other":
        return call.partition(".")[0]
    if call == "nib.position" and item.name not in GOOD:
        return 1.0
    return GOOD[item.name]


def _made(value: object, stage: Stage) -> object:
    things: dict[str, object] = {"motif": stage.motif, "motifs": [stage.motif], "sheet": stage.sheet}
    return things.get(value, value) if type(value) is str else value


def _used(found: Any) -> object:
    """Blocks and loops do nothing until they are entered."""
    if hasattr(found, "__enter__"):
        with found:
            return None
    if type(found).__name__ == "Rounds":
        next(iter(found))
    return found


def faults() -> Iterator[str]:
    """What went wrong: errors that are not Ovlo's, and refused calls that changed something."""
    for case in cases():
        for value in BAD:
            yield from fault_of(case, value)


def fault_of(case: Case, value: object) -> Iterator[str]:
    """What goes wrong with one value."""
    stage = Stage.new()
    before = stage.state()
    try:
        with warnings.catch_warnings():
            # A shape without outline and fill is told of by a warning.
            warnings.simplefilter("ignore")
            case.act(stage, value)
        as_bytes(stage.sheet, ".svg").decode()
        return
    except OvloError as error:
        if stage.state() != before:
            yield f"{case.call}({case.parameter}={_shown(value)}) changed something, then refused: {error}"
        if len(str(error)) > 600 or "\n" in str(error):
            yield f"{case.call}({case.parameter}={_shown(value)}) says too much: {len(str(error))} letters"
    except Exception as error:
        yield f"{case.call}({case.parameter}={_shown(value)}) raised {type(error).__name__}: {error}"


def _shown(value: object) -> str:
    try:
        return repr(value)[:60]
    except Exception:
        return f"<{type(value).__name__}>"
