"""Checks at the public edge: a value in, the same value as a plain number out.

    radius = positive(radius, "circle", "radius")

Every message names the call, the value and the fix.
"""

from __future__ import annotations

import unicodedata
from collections.abc import Callable, Collection, Iterable, Mapping, Sequence
from itertools import islice
from math import isfinite, nan
from numbers import Integral, Number
from types import BuiltinFunctionType, FunctionType, MethodType
from typing import Any, TypeVar

from ovlo.core.values.colour_names import NAMED
from ovlo.core.values.errors import BadType, BadValue

LARGEST = 1e7
"""The largest length or coordinate: too far out to be seen, near enough for any picture to end."""

LARGEST_NUMBER = 10**15
"""The largest number that need not be a length: of angles, dice, and a program's own parameters."""

MOST = 1_000_000
"""The most parts of one thing: sides of a polygon, pieces of a spiral, colours of a ramp, items of a list."""


Word = TypeVar("Word", bound=str)


def subject(call: str, name: str) -> str:
    """What a sentence is about: a parameter of a call, or an attribute, which is its own call."""
    return f"{call}: {name}" if name else call


def real(value: object, call: str, name: str, most: float = LARGEST) -> float:
    """A finite real number as a float (NumPy scalars, fractions and decimals are welcome)."""
    kind = type(value)
    if (kind is float or kind is int) and -most <= value <= most:  # type: ignore[operator]
        return float(value)  # type: ignore[arg-type]
    number = _number(value)
    if number is None:
        fix = _fix_of_number(value, call)
        raise BadType(f"{subject(call, name)} must be a number, not {brief(value)}; {fix}.")
    if not isfinite(number):
        raise BadValue(
            f"{subject(call, name)} must be a finite number, but is {_brief(value)}; "
            "check the calculation it comes from."
        )
    if not -most <= number <= most:
        raise BadValue(
            f"{subject(call, name)} must be from {-most:,.0f} to {most:,.0f}, but is {_brief(value)}; "
            "check the calculation it comes from."
        )
    return number


def within_reach(x: float, y: float, call: str) -> None:
    """Refuse a place that is too far away."""
    if not max(abs(x), abs(y)) <= LARGEST:
        raise BadValue(
            f"{call}: this would lead to ({x:g}, {y:g}); nothing may be farther than {LARGEST:,.0f} "
            "from the centre. Take shorter steps."
        )


def _number(value: object) -> float | None:
    """What a value is as a float: nan or infinite where it has no finite one, None if it is no number."""
    try:
        if _is_time(value):
            return None
        # An array of no dimensions is what NumPy hands out for one number.
        if getattr(value, "shape", None) == () and callable(item := getattr(value, "item", None)):
            value = item()
        if isinstance(value, bool | type) or not isinstance(value, Number):
            return None
        return float(value)  # type: ignore[arg-type]
    except OverflowError:
        return float("inf")
    except ValueError:  # a decimal that is to signal that it is no number
        return nan
    except Exception:  # a class of the program's own that fails at it
        return None


def _is_time(value: object) -> bool:
    """Whether a value is a span of time, which NumPy calls a whole number."""
    return type(value).__name__ == "timedelta64"


SHAPES = ("circle", "ellipse", "polygon", "star", "rectangle")


def _fix_of_number(value: object, call: str) -> str:
    if value is None:
        return "a function gives None unless it ends with return"
    if isinstance(value, FunctionType | MethodType | BuiltinFunctionType):
        return "call it with brackets"
    if not isinstance(value, str):
        return "give an int or a float"
    if call in SHAPES and (value.strip().lower() in NAMED or value.startswith("#")):
        return f"a colour needs its name: fill={value!r}"
    try:
        float(value)
    except ValueError:
        return "give a number such as 90"
    return "write it without quotes"


def angle(value: object, call: str, name: str) -> float:
    """Degrees, of any number of turns."""
    return real(value, call, name, LARGEST_NUMBER)


def positive(value: object, call: str, name: str) -> float:
    """A finite real number above zero."""
    number = real(value, call, name)
    if number <= 0:
        raise BadValue(f"{subject(call, name)} must be above 0, but is {_brief(value)}.")
    return number


def not_negative(value: object, call: str, name: str) -> float:
    """A finite real number of zero or more."""
    kind = type(value)
    if (kind is float or kind is int) and 0 <= value <= LARGEST:  # type: ignore[operator]
        return float(value)  # type: ignore[arg-type]
    number = real(value, call, name)
    if number < 0:
        raise BadValue(f"{subject(call, name)} must be 0 or more, but is {_brief(value)}.")
    return number


def between(value: object, call: str, name: str, low: float, high: float) -> float:
    """A real number in a range, both ends included."""
    number = real(value, call, name, max(LARGEST, abs(low), abs(high)))
    if not low <= number <= high:
        raise BadValue(f"{subject(call, name)} must be from {low:g} to {high:g}, but is {_brief(value)}.")
    return number


def truth(value: object, call: str, name: str) -> bool:
    """True or False."""
    if not isinstance(value, bool):
        if type(value).__name__ in ("bool", "bool_") and type(value).__module__ == "numpy":
            return bool(value)
        raise BadType(f"{subject(call, name)} must be True or False, not {brief(value)}.")
    return value


def whole(value: object, call: str, name: str, least: int | None = None) -> int:
    """A whole number, of at least `least` if given (2.0 will do, 2.5 will not)."""
    if type(value) is int and (least or 0) <= value <= LARGEST_NUMBER:
        return value
    about = subject(call, name)
    if isinstance(value, bool) or _is_time(value):
        raise BadType(f"{about} must be a whole number, not {brief(value)}.")
    number = int(value) if isinstance(value, Integral) else real(value, call, name, LARGEST_NUMBER)
    if abs(number) > LARGEST_NUMBER:
        raise BadValue(f"{about} must be at most {LARGEST_NUMBER:,}, but is {_brief(value)}.")
    if number != int(number):
        nearest = round(number) if least is None else max(least, round(number))
        raise BadValue(f"{about} must be a whole number, but is {_brief(value)}; try {nearest}.")
    if least is not None and number < least:
        raise BadValue(f"{about} must be {least} or more, but is {_brief(value)}.")
    return int(number)


def text(value: object, call: str, name: str, fix: str = "remove it") -> str:
    """One line of text that can stand in any file: XML 1.0, 2.2, without tabs and breaks."""
    if not isinstance(value, str):
        raise BadType(
            f"{subject(call, name)} must be a string, not {brief(value)}; str(…) converts any value."
        )
    if len(value) > MOST:
        raise BadValue(f"{subject(call, name)} has {len(value):,} characters; the limit is {MOST:,}.")
    if value.isprintable():
        return value
    for character in value:
        # Controls, halves of surrogate pairs, breaks of lines and paragraphs, and what is no character.
        if unicodedata.category(character) in ("Cc", "Cs", "Zl", "Zp") or character in "\ufffe\uffff":
            raise BadValue(f"{call}: {brief(value)} contains the control character {character!r}; {fix}.")
    return value


def choice(value: object, call: str, name: str, allowed: Collection[Word]) -> Word:
    """One of a few words."""
    for word in allowed:
        if isinstance(value, str) and value == word:
            return word
    words = ", ".join(repr(word) for word in allowed)
    raise BadValue(f"{subject(call, name)} must be one of {words}, not {brief(value)}{near(value, allowed)}.")


def point(x: object, y: object, call: str) -> tuple[float, float]:
    """A point given as two numbers, or as one pair in `x`."""
    if y is None and type(x) is tuple and len(x) == 2:
        x, y = x
    elif y is None:
        if isinstance(x, str) or not isinstance(x, Iterable):
            raise BadType(f"{call}: a point must be two numbers, x and y, or one pair, not {brief(x)}.")
        pair = listed(x, call, "the point", "it is two numbers")
        if len(pair) != 2:
            raise BadType(f"{call}: a point must have two numbers, x and y, but {brief(x)} has {len(pair)}.")
        x, y = pair
    return real(x, call, "x"), real(y, call, "y")


def listed(value: object, call: str, name: str, fix: str) -> list[Any]:
    """The items of an iterable that is not a string; `fix` says what to write instead."""
    about = subject(call, name)
    if isinstance(value, str | bytes | Mapping) or not isinstance(value, Iterable):
        raise BadType(f"{about} must be a list, not {brief(value)}; {fix}.")
    try:
        found = list(islice(value, MOST + 1))
    except TypeError:  # an array of no dimensions calls itself iterable
        raise BadType(f"{about} must be a list, not {brief(value)}; {fix}.") from None
    if len(found) > MOST:
        raise BadValue(f"{about} has more than {MOST:,} items, which is the limit; {fix}.")
    return found


def method(value: object, name: str) -> Callable[..., Any] | None:
    """A method of an object, if it has one; whatever else its class does when it is asked."""
    try:
        found = getattr(value, name, None)
    except Exception:
        return None
    return found if callable(found) else None


def by_name(values: object, call: str) -> dict[str, object]:
    """Values by name, of which the names and the texts can stand in any file."""
    if not isinstance(values, dict):
        raise BadType(f"{call} must be a dict of values by name, not {brief(values)}.")
    for name, value in values.items():
        text(name, call, "each name")
        if isinstance(value, str):
            text(value, call, name)
    return dict(values)


def at_most(count: int, call: str, what: str, most: int = MOST) -> None:
    """Refuse more parts of one thing than anybody can see."""
    if count > most:
        raise BadValue(f"{call}: {count:,} {what} are too many; the limit is {most:,}.")


def takes_nib(function: object, call: str) -> None:
    """Refuse a function that has no place for a nib."""
    import inspect  # heavy, and not wanted for drawing itself

    if not callable(function) or isinstance(function, type) or inspect.isbuiltin(function):
        raise BadType(f"{call}: give a function that takes a nib, not {brief(function)}.")
    name = getattr(function, "__name__", brief(function))
    try:
        first = next(iter(inspect.signature(function).parameters.values()), None)
    except (TypeError, ValueError):  # a class, or one of Python's own
        raise BadType(
            f"{call}: Ovlo cannot see whether {brief(function)} takes a nib; give a function of your own."
        ) from None
    if first is None or first.kind in (first.KEYWORD_ONLY, first.VAR_KEYWORD):
        raise BadType(f"{call}: {name} must take the nib first: def {name}(nib, …).")


CLOSE = 0.72
"""How alike two words must be for one to be offered for the other; below it hints are far-fetched."""


def near(word: object, known: Iterable[str], most: int = 3) -> str:
    """` (did you mean …?)` with the nearest known names, or nothing."""
    found = nearest(word, known, most)
    return f" (did you mean {' or '.join(repr(name) for name in found)}?)" if found else ""


def nearest(word: object, known: Iterable[str], most: int = 3) -> list[str]:
    """The known names that are nearly a word, the nearest first."""
    if not isinstance(word, str):
        return []
    import difflib  # only a mistake needs it

    by_letters = {name.lower(): name for name in known}
    found = difflib.get_close_matches(word.lower(), list(by_letters), n=most, cutoff=CLOSE)
    return [by_letters[letters] for letters in found]


LONGEST = 60
"""Characters of a value in a message."""


def brief(value: object) -> str:
    """A value as a program would write it, shortened; never fails, whatever its class does."""
    if type(value) is int and value.bit_length() > 200:
        return "a whole number of more than 60 digits"
    if isinstance(value, FunctionType | MethodType | BuiltinFunctionType):
        return (
            "a function without a name" if value.__name__ == "<lambda>" else f"the function {value.__name__}"
        )
    try:
        words = repr(value)
    except Exception:
        words = f"a {type(value).__name__} that cannot be shown"
    words = "".join(c if c.isprintable() else c.encode("unicode_escape").decode() for c in words)
    return words if len(words) <= LONGEST else f"{words[: LONGEST - 1]}…"


def _brief(value: object) -> str:
    """A number in a few characters."""
    try:
        text = f"{value}"
    except Exception:  # a whole number of thousands of digits, or one that cannot be shown
        text = brief(value)
    return text if len(text) <= 24 else f"{text[:20]}…"


MOST_LISTED = 6
"""Letters that are named in one warning."""


def named_letters(letters: Sequence[str]) -> str:
    """The first letters that a font does not have, as a warning lists them."""
    return ", ".join(map(repr, letters[:MOST_LISTED])) + " …" * (len(letters) > MOST_LISTED)
