"""A drawing's signature is its interface: what its parameters are, and whether a value will do.

parameters = parameters_of(function)
parameters["sides"].read("7")       # 7
parameters["sides"].check(7)        # 7
"""

from __future__ import annotations

import inspect
import types
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Annotated, Any, Literal, NamedTuple, Union, get_args, get_origin, get_type_hints

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

    Parameters
    ----------
    low, high : float
        The ends, low at most high.
    step : float, optional
        What a control moves by, above 0.

    Raises
    ------
    BadValue, BadType
        When there is no such range.

    Examples
    --------
    >>> from typing import Annotated
    >>> @drawing()
    ... def kite(nib, sides: Annotated[int, Span(3, 12)] = 4):
    ...     nib.polygon(sides, radius=90)
    >>> kite.run(sides=5)
    <Sheet 640 × 480 px, 7 steps>
    """

    low: float
    high: float
    step: float | None = None

    def __post_init__(self) -> None:
        for name in ("low", "high"):
            arguments.real(getattr(self, name), "Span", name, arguments.LARGEST_NUMBER)
        if self.low > self.high:
            raise BadValue(f"Span({self.low:g}, {self.high:g}): low must be at most high; swap them.")
        if self.step is not None:
            arguments.positive(self.step, "Span", "step")

    def __str__(self) -> str:
        step = f" in steps of {self.step:g}" if self.step is not None else ""
        return f"{self.low:g} to {self.high:g}{step}"


class Kind(NamedTuple):
    """A type of parameter: its name for people, how it is read from text, and what passes."""

    name: str
    read: Callable[[str], object]
    check: Callable[[object, str, str], object]
    choices: tuple[object, ...] = ()


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
        raise BadType(f"{call}: {name} must be a text, not {arguments.brief(value)}.")
    return value


def _check_number(value: object, call: str, name: str) -> float:
    number = arguments.real(value, call, name, arguments.LARGEST_NUMBER)
    return int(number) if isinstance(value, int) else number


def _read_anything(text: str) -> object:
    try:
        return _read_number(text)
    except ValueError:
        return text


KINDS: dict[object, Kind] = {
    int: Kind("whole number", int, arguments.whole),
    float: Kind("number", _read_number, _check_number),
    bool: Kind("yes or no", _read_truth, arguments.truth),
    str: Kind("text", str, _check_text),
    Colour: Kind("colour", str, lambda value, call, name: colour.parse(value, f"{call}: {name}")),
    MISSING: Kind("anything", _read_anything, lambda value, call, name: value),
}


def _choice(values: tuple[object, ...]) -> Kind:
    words = {str(value): value for value in values}

    def check(value: object, call: str, name: str) -> object:
        if any(value is one or (type(value) is type(one) and value == one) for one in values):
            return value
        near = arguments.near(value, words)
        raise BadValue(
            f"{call}: {name} must be one of {', '.join(words)}, not {arguments.brief(value)}{near}."
        )

    return Kind(f"one of {', '.join(words)}", lambda text: words.get(text, text), check, values)


class Parameter(NamedTuple):
    """One parameter of a drawing.

    Attributes
    ----------
    name : str
    kind : Kind
    span : Span or None
    default : object
        MISSING when it must be given.
    """

    name: str
    kind: Kind
    span: Span | None = None
    default: object = MISSING

    def check(self, value: object, call: str) -> object:
        """The value if it will do, or an error that says what would."""
        passed = self.kind.check(value, call, self.name)
        if self.span is not None and isinstance(passed, int | float):
            arguments.between(passed, call, self.name, self.span.low, self.span.high)
        return passed

    def read(self, text: str, call: str) -> object:
        """The value that a text means."""
        try:
            value = self.kind.read(text.strip())
        except ValueError:
            raise BadValue(f"{call}: {self.name} must be a {self.allowed}, not {text!r}.") from None
        return self.check(value, call)

    @property
    def allowed(self) -> str:
        """What it may be, for people."""
        return f"{self.kind.name}, {self.span}" if self.span is not None else self.kind.name

    @property
    def is_number(self) -> bool:
        """Whether it may be dragged."""
        return self.kind in (KINDS[int], KINDS[float])

    @property
    def reach(self) -> tuple[float, float]:
        """From where to where a number may be dragged: its span, or a range around its default."""
        if self.span is not None:
            return self.span.low, self.span.high
        default = self.default if isinstance(self.default, int | float) else 0
        if default == 0:
            return (0, 10) if self.kind.name == "whole number" else (-100, 100)
        return (0, 2 * default) if default > 0 else (2 * default, 0)

    @property
    def step(self) -> float | None:
        """What a number is moved by; None for anything."""
        if self.span is not None and self.span.step is not None:
            return self.span.step
        return 1 if self.kind.name == "whole number" else None

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
    return f"{value}"


def parameters_of(function: Callable[..., object]) -> dict[str, Parameter]:
    """The parameters of a drawing's function after the nib, by name."""
    signature = inspect.signature(function)
    hints = _hints(function)
    found = {}
    for item in list(signature.parameters.values())[1:]:
        if item.kind in (item.VAR_POSITIONAL, item.VAR_KEYWORD):
            raise BadType(f"{_where(function)}: a drawing cannot take *{item.name}; name each parameter.")
        if item.name in RESERVED:
            raise BadValue(
                f"{_where(function)}: a drawing cannot have a parameter {item.name!r}, "
                "which Ovlo takes itself; give it another name."
            )
        found[item.name] = _parameter(function, item, hints.get(item.name, MISSING))
    return found


RESERVED = ("seed", "fit", "fit_each", "overlay", "seconds", "steps_per_second", "at_once", "wait", "pointer")
"""What `run`, `save` and `vary` take beside a drawing's own parameters."""


def _parameter(function: Callable[..., object], item: inspect.Parameter, hint: object) -> Parameter:
    span = None
    if get_origin(hint) is Annotated:
        hint, *notes = get_args(hint)
        span = next((note for note in notes if isinstance(note, Span)), None)
    if hint is MISSING and item.default not in (MISSING, None):
        # A number without annotation may be any number: side=90 does not forbid 37.5.
        hint = float if type(item.default) is int else type(item.default)
    if get_origin(hint) is Literal:
        kind = _choice(get_args(hint))
    elif hint in KINDS:
        kind = KINDS[hint]
    else:
        raise BadType(
            f"{_where(function)}: {item.name} is of the type {_type_name(hint)}, which nobody could "
            "type in; use int, float, bool, str, Colour or Literal[…]."
        )
    if span is not None and hint not in (int, float):
        raise BadType(f"{_where(function)}: {item.name} has a Span, but is a {kind.name}, not a number.")
    parameter = Parameter(item.name, kind, span, item.default)
    if item.default is not MISSING:
        parameter.check(item.default, f"{_where(function)}: the default")
    return parameter


def _hints(function: Callable[..., object]) -> dict[str, Any]:
    try:
        return get_type_hints(function, include_extras=True)
    except OvloError as error:
        raise type(error)(f"{_where(function)}: {error}") from None
    except Exception as error:
        raise BadType(f"{_where(function)}: its annotations cannot be read ({error}).") from error


def _type_name(hint: object) -> str:
    if isinstance(hint, type) and get_origin(hint) is None:
        return hint.__name__
    if isinstance(hint, types.UnionType) or get_origin(hint) is Union:
        return " | ".join(_type_name(part) for part in get_args(hint))
    return str(hint).replace("typing.", "")


def _where(function: Callable[..., object]) -> str:
    code = inspect.unwrap(function).__code__
    return f"{code.co_filename}, line {code.co_firstlineno}, {function.__name__}"


def check_names(parameters: dict[str, Parameter], names: Iterable[str], call: str) -> None:
    """Refuse a name that no parameter has."""
    for name in names:
        if name not in parameters:
            known = ", ".join(parameters) or "none"
            near = arguments.near(name, parameters)
            raise BadValue(f"{call}: there is no parameter {name!r}{near}; its parameters: {known}.")


def checked(parameters: dict[str, Parameter], values: dict[str, Any], call: str) -> dict[str, Any]:
    """All parameters with their values, defaults included, every one of them checked."""
    check_names(parameters, values, call)
    found = {}
    for name, parameter in parameters.items():
        if name in values:
            found[name] = parameter.check(values[name], call)
        elif parameter.default is MISSING:
            raise BadValue(
                f"{call}: {name} ({parameter.allowed}) has no default; "
                f"give it as {name}=… here, or with --set {name}=… on the command line."
            )
        else:
            found[name] = parameter.default
    return found
