"""The parameters of a drawing, read from its signature, and whether a value is allowed.

parameters = parameters_of(function)
parameters["sides"].read("7")       # 7
parameters["sides"].check(7)        # 7
"""

from __future__ import annotations

import inspect
import types
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from decimal import Decimal
from enum import Enum
from math import isfinite
from numbers import Integral, Real
from os import PathLike
from pathlib import Path, PurePath
from typing import Annotated, Any, Literal, NamedTuple, TypeGuard, Union, get_args, get_origin

from ovlo.core.values import arguments, colour
from ovlo.core.values.colour import Colour
from ovlo.core.values.errors import BadType, BadValue, OvloError
from ovlo.core.values.sealed import unchanging

MISSING = inspect.Parameter.empty

YES, NO = ("yes", "true", "on", "1"), ("no", "false", "off", "0")


@unchanging
@dataclass(frozen=True, slots=True)
class Span:
    """The range of a number parameter, both ends included.

    It is the annotation itself, as in `sides: Span(3, 12) = 4`, or, for type checkers, stands in
    `Annotated[int, Span(3, 12)]`. In the short form the parameter is moved in whole numbers if both ends, the
    step and the default are whole.

    Parameters
    ----------
    low, high : float
        The ends; low is at most high.
    step : float, optional
        The increment of a slider, above 0.

    Raises
    ------
    BadValue, BadType
        If there is no such range.

    Examples
    --------
    >>> @drawing()
    ... def kite(nib, sides: Span(3, 12) = 4):
    ...     nib.polygon(sides, radius=90)
    >>> kite.run(sides=5)
    <Sheet 640 × 480 px, 7 steps>
    """

    low: float
    high: float
    step: float | None = None

    def __post_init__(self) -> None:
        for name in ("low", "high"):
            _make_plain(
                self, name, arguments.real(getattr(self, name), "Span", name, arguments.LARGEST_NUMBER)
            )
        if self.low > self.high:
            raise BadValue(f"Span({self.low:g}, {self.high:g}): low must be at most high; swap them.")
        if self.step is not None:
            _make_plain(self, "step", arguments.positive(self.step, "Span", "step"))

    def __str__(self) -> str:
        step = f" in steps of {self.step:g}" if self.step is not None else ""
        return f"{self.low:g} to {self.high:g}{step}"


def _make_plain(span: Span, name: str, number: float) -> None:
    """Keep whole numbers as they are given, and make a float of all others."""
    if type(getattr(span, name)) is not int:
        object.__setattr__(span, name, number)


class Kind(NamedTuple):
    """A type of parameter.

    Attributes
    ----------
    name : str
        Its name for people.
    read : callable
        Reads a value from text.
    check : callable
        Returns the value, or raises an error that says what is allowed.
    control : "span", "choice", "switch", "colour" or "text"
        The control that sets it on a page.
    is_whole : bool
        Whether it is moved in whole numbers.
    choices : tuple
        The values it may have, if they can be counted.
    is_typed : bool
        Whether somebody could type a value; if not, only a program sets it.
    keeps_blanks : bool
        Whether blanks around what is typed belong to it.
    """

    name: str
    read: Callable[[str], object]
    check: Callable[[object, str, str], object]
    control: str = "text"
    is_whole: bool = False
    choices: tuple[object, ...] = ()
    is_typed: bool = True
    keeps_blanks: bool = False


def _read_number(text: str) -> float:
    try:
        return int(text)
    except ValueError:
        return float(text)


def _read_truth(text: str) -> bool:
    if text.lower() not in YES + NO:
        raise ValueError(text)
    return text.lower() in YES


def _check_text(value: object, call: str, name: str) -> str:
    if not isinstance(value, str):
        raise BadType(f"{call}: {name} must be text, not {arguments.brief(value)}.")
    return value


def _check_number(value: object, call: str, name: str) -> float:
    return arguments.real(value, call, name, arguments.LARGEST_NUMBER)


def _check_path(value: object, call: str, name: str) -> Path:
    if not isinstance(value, str | PathLike):
        raise BadType(f"{call}: {name} must be a path, not {arguments.brief(value)}.")
    return Path(value)


def _check_mostly_whole(value: object, call: str, name: str) -> float:
    number = arguments.real(value, call, name, arguments.LARGEST_NUMBER)
    return int(number) if number.is_integer() else number


def _read_anything(text: str) -> object:
    try:
        number = _read_number(text)
    except ValueError:
        return text
    return number if isfinite(number) else text  # "nan" and "inf" are words too


KINDS: dict[object, Kind] = {
    int: Kind("whole number", int, arguments.whole, "span", True),
    float: Kind("number", _read_number, _check_number, "span"),
    bool: Kind("yes or no", _read_truth, arguments.truth, "switch"),
    str: Kind("text", str, _check_text, keeps_blanks=True),
    Colour: Kind(
        "colour", str, lambda value, call, name: colour.parse(value, f"{call}: {name}"), control="colour"
    ),
    Path: Kind("path", Path, _check_path),
    MISSING: Kind("anything", _read_anything, lambda value, call, name: value),
}

NUMBERS = ("number", "whole number")

MOSTLY_WHOLE = Kind("number", _read_number, _check_mostly_whole, "span", True)
"""The kind of a whole default: moved in whole numbers, but other numbers are accepted too."""


def _choice(values: tuple[object, ...]) -> Kind:
    words = {shown(value): value for value in values}

    def check(value: object, call: str, name: str) -> object:
        if any(value is one or (type(value) is type(one) and value == one) for one in values):
            return value
        near = arguments.near(value, words)
        raise BadValue(
            f"{call}: {name} must be one of {', '.join(words)}, not {arguments.brief(value)}{near}."
        )

    name = f"one of {', '.join(words)}"
    return Kind(name, lambda text: words.get(text, text), check, "choice", choices=values)


def _or_none(kind: Kind) -> Kind:
    """A kind that may be None as well, typed as "none"."""

    def read(text: str) -> object:
        return None if text.strip().lower() == "none" else kind.read(text)

    def check(value: object, call: str, name: str) -> object:
        return None if value is None else kind.check(value, call, name)

    # No slider or switch can say none.
    return kind._replace(name=f"{kind.name} or none", read=read, check=check, control="text")


class Parameter(NamedTuple):
    """One parameter of a drawing.

    Attributes
    ----------
    name : str
    kind : Kind
    span : Span or None
    default : object
        MISSING if it must be given.
    """

    name: str
    kind: Kind
    span: Span | None = None
    default: object = MISSING

    def check(self, value: object, call: str) -> object:
        """The value if it is allowed, or an error that says what is."""
        passed = self.kind.check(value, call, self.name)
        if self.span is not None and isinstance(passed, int | float):
            arguments.between(passed, call, self.name, self.span.low, self.span.high)
        return passed

    def read(self, text: str, call: str) -> object:
        """The value that a text stands for."""
        if not self.kind.is_typed:
            raise BadValue(
                f"{call}: {self.name} ({self.allowed}) cannot be typed in; it keeps its default here, and a "
                "program sets it."
            )
        try:
            value = self.kind.read(text if self.kind.keeps_blanks else text.strip())
        except ValueError:
            raise BadValue(f"{call}: {self.name} must be a {self.allowed}, not {text!r}.") from None
        return self.check(value, call)

    @property
    def allowed(self) -> str:
        """What it may be, for people."""
        return f"{self.kind.name}, {self.span}" if self.span is not None else self.kind.name

    @property
    def is_number(self) -> bool:
        """Whether a slider can set it."""
        return self.kind.control == "span"

    @property
    def reach(self) -> tuple[float, float]:
        """The ends of its slider: its span, or a range around its default."""
        if self.span is not None:
            return self.span.low, self.span.high
        default = self.default if isinstance(self.default, int | float) else 0
        if default == 0:
            return (0, 10) if self.kind.is_whole else (-100, 100)
        return (0, 2 * default) if default > 0 else (2 * default, 0)

    @property
    def step(self) -> float | None:
        """The increment of a number; None if it has none."""
        if self.span is not None and self.span.step is not None:
            return self.span.step
        return 1 if self.kind.is_whole else None

    @property
    def shown_default(self) -> str:
        """The default as it would be typed."""
        return "" if self.default is MISSING else shown(self.default)


def shown(value: object) -> str:
    """A value as it would be typed on a command line."""
    if isinstance(value, Colour):
        return value.css
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, Enum):
        return value.name
    if isinstance(value, float) and value.is_integer() and abs(value) < arguments.LARGEST_NUMBER:
        return f"{value:.0f}"
    return "none" if value is None else f"{value}"


def parameters_of(function: Callable[..., object]) -> dict[str, Parameter]:
    """The parameters of a drawing's function after the nib, by name."""
    signature = inspect.signature(function)
    hints = _hints(function)
    found = {}
    for item in list(signature.parameters.values())[1:]:
        if item.kind in (item.VAR_POSITIONAL, item.VAR_KEYWORD):
            stars = "*" if item.kind is item.VAR_POSITIONAL else "**"
            raise BadType(
                f"{where(function)}: a drawing cannot take {stars}{item.name}; name each parameter."
            )
        if item.kind is item.POSITIONAL_ONLY:
            raise BadType(
                f"{where(function)}: {item.name} stands before a /, so no value can be given by its name; "
                "leave out the /, or put it right after the nib."
            )
        if item.name in RESERVED:
            raise BadValue(
                f"{where(function)}: a drawing cannot have a parameter {item.name!r}: "
                "Ovlo uses that name itself; choose another."
            )
        found[item.name] = _parameter(function, item, hints.get(item.name, MISSING))
    return found


RESERVED = (
    "seed",
    "traced",
    "fit",
    "fit_each",
    "overlay",
    "seconds",
    "steps_per_second",
    "at_once",
    "wait",
    "pointer",
)
"""The options of `run`, `save`, `show` and `vary`, which no parameter may be called."""


def _parameter(function: Callable[..., object], item: inspect.Parameter, hint: object) -> Parameter:
    span = hint if isinstance(hint, Span) else None
    if get_origin(hint) is Annotated:
        hint, *notes = get_args(hint)
        span = next((note for note in notes if isinstance(note, Span)), None)
    kind = _kind(function, item, hint)
    if span is not None and not (kind.control == "span" or kind.name.removesuffix(" or none") in NUMBERS):
        raise BadType(f"{where(function)}: {item.name} has a Span, but is a {kind.name}, not a number.")
    parameter = Parameter(item.name, kind, span, item.default)
    if item.default is MISSING:
        return parameter
    # A default arrives as any value does: a NumPy number as Python's.
    return parameter._replace(default=parameter.check(item.default, f"{where(function)}: the default"))


def _kind(function: Callable[..., object], item: inspect.Parameter, hint: object) -> Kind:
    """The kind of a parameter, by its annotation, else by its default."""
    default = item.default
    if isinstance(hint, Span):
        numbers = [hint.low, hint.high, *(number for number in (hint.step, default) if _is_number(number))]
        return MOSTLY_WHOLE if all(float(number).is_integer() for number in numbers) else KINDS[float]
    if hint is MISSING and default is not MISSING and default is not None:
        hint = _type_of(default)
        if hint is int:  # side=90 does not forbid 37.5
            return MOSTLY_WHOLE
    parts = get_args(hint) if isinstance(hint, types.UnionType) or get_origin(hint) is Union else ()
    if len(parts) == 2 and type(None) in parts:
        (inner,) = (part for part in parts if part is not type(None))
        kind = _kind(function, item.replace(default=MISSING), inner)
        return _or_none(kind) if kind.is_typed else kind._replace(name=_type_name(hint))
    if isinstance(hint, type) and issubclass(hint, Enum):
        return _choice(tuple(hint))
    if get_origin(hint) is Literal:
        return _choice(get_args(hint))
    try:
        return KINDS[hint]
    except (KeyError, TypeError):  # a hint may be anything, also something that cannot be a key
        is_type = isinstance(hint, type | types.UnionType) or getattr(hint, "__module__", "") == "typing"
        if not is_type and get_origin(hint) is None:
            raise BadType(
                f"{where(function)}: {item.name} is annotated with {arguments.brief(hint)}, which is not a "
                "type; write int, float, bool, str, Colour, Literal[…] or Span(low, high)."
            ) from None
        return Kind(_type_name(hint), str, lambda value, call, name: value, is_typed=False)


def _type_of(default: object) -> type:
    """The type of a default, Python's own for other numbers and paths."""
    if isinstance(default, Enum):
        return type(default)
    if isinstance(default, PurePath):
        return Path
    if type(default).__name__ == "bool" or isinstance(default, bool):  # NumPy's has no base
        return bool
    for kind, own in ((Integral, int), (Real, float), (Decimal, float)):
        if isinstance(default, kind):
            return own
    return type(default)


def _is_number(value: object) -> TypeGuard[float]:
    return isinstance(value, int | float) and not isinstance(value, bool)


def _hints(function: Callable[..., object]) -> dict[str, Any]:
    try:
        return inspect.get_annotations(function, eval_str=True)
    except OvloError as error:
        raise type(error)(f"{where(function)}: {error}") from None
    except Exception as error:
        raise BadType(f"{where(function)}: its annotations cannot be read ({error}).") from error


def _type_name(hint: object) -> str:
    if isinstance(hint, type) and get_origin(hint) is None:
        return hint.__name__
    if isinstance(hint, types.UnionType) or get_origin(hint) is Union:
        return " | ".join(_type_name(part) for part in get_args(hint))
    return str(hint).replace("typing.", "")


def where(function: Callable[..., object]) -> str:
    """The file, the line and the name of a function."""
    code = inspect.unwrap(function).__code__
    return f"{code.co_filename}, line {code.co_firstlineno}, {function.__name__}"


def typed(parameters: dict[str, Parameter]) -> dict[str, Parameter]:
    """Those parameters that somebody could type a value of."""
    return {name: one for name, one in parameters.items() if one.kind.is_typed}


def check_names(parameters: dict[str, Parameter], names: Iterable[str], call: str) -> None:
    """Refuse a name that no parameter has."""
    for name in names:
        if name not in parameters:
            known = ", ".join(parameters) or "none, so far"
            near = arguments.near(name, parameters)
            raise BadValue(f"{call}: there is no parameter {name!r}{near}; the parameters are {known}.")


def checked(parameters: dict[str, Parameter], values: dict[str, Any], call: str) -> dict[str, Any]:
    """All parameters with their values, defaults included, every one of them checked."""
    check_names(parameters, values, call)
    found = {}
    for name, parameter in parameters.items():
        if name in values:
            found[name] = parameter.check(values[name], call)
        elif parameter.default is MISSING:
            option = f", or as --set {name}=… on the command line" if parameter.kind.is_typed else ""
            raise BadValue(
                f"{call}: {name} ({parameter.allowed}) has no default; give it as {name}=… in Python{option}."
            )
        else:
            found[name] = parameter.default
    return found
