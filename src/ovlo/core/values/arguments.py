"""Checks at the public edge: a value in, the same value as a plain number out.

    radius = positive(radius, "circle", "radius")

Every message names the call, the value and the mend.
"""

from __future__ import annotations

import unicodedata
from collections.abc import Collection, Iterable
from numbers import Complex, Integral, Real
from typing import SupportsFloat, cast

from ovlo.core.values.colour_names import NAMED
from ovlo.core.values.errors import BadType, BadValue

LARGEST = 1e300
"""Beyond this a sum of a few lengths is no longer finite."""


def real(value: object, call: str, name: str) -> float:
    """A finite real number as a float (NumPy scalars, fractions and decimals are welcome)."""
    if isinstance(value, float | int) and not isinstance(value, bool) and -LARGEST < value < LARGEST:
        return float(value)
    if isinstance(value, bool) or not _looks_real(value):
        mend = _mend_of_number(value, call)
        raise BadType(f"{call}: {name} must be a number, not {brief(value)}; {mend}.")
    try:
        number = float(cast(SupportsFloat, value))
    except OverflowError:
        number = float("inf")
    if not -LARGEST < number < LARGEST:
        raise BadValue(
            f"{call}: {name} must be a finite number (up to 1e300), not {_brief(value)}; "
            "look at the calculation it comes from."
        )
    return number


SHAPES = ("circle", "ellipse", "polygon", "star", "rectangle")


def _mend_of_number(value: object, call: str) -> str:
    if not isinstance(value, str):
        return "give an int or a float"
    if call in SHAPES and (value.strip().lower() in NAMED or value.startswith("#")):
        return f"a colour needs its name: fill={value!r}"
    try:
        float(value)
    except ValueError:
        return "give a number such as 90"
    return "write it without quotes"


def positive(value: object, call: str, name: str) -> float:
    """A finite real number above zero."""
    number = real(value, call, name)
    if number <= 0:
        raise BadValue(f"{call}: {name} must be above 0, not {_brief(value)}.")
    return number


def not_negative(value: object, call: str, name: str) -> float:
    """A finite real number of at least zero."""
    number = real(value, call, name)
    if number < 0:
        raise BadValue(f"{call}: {name} must not be negative, not {_brief(value)}.")
    return number


def between(value: object, call: str, name: str, low: float, high: float) -> float:
    """A real number in a range, both ends included."""
    number = real(value, call, name)
    if not low <= number <= high:
        raise BadValue(f"{call}: {name} must be from {low:g} to {high:g}, not {_brief(value)}.")
    return number


def truth(value: object, call: str, name: str) -> bool:
    """True or False."""
    if not isinstance(value, bool):
        raise BadType(f"{call}: {name} must be True or False, not {brief(value)}.")
    return value


def whole(value: object, call: str, name: str, least: int | None = None) -> int:
    """A whole number, of at least `least` if given (2.0 will do, 2.5 will not)."""
    number = int(value) if isinstance(value, Integral) else real(value, call, name)
    if isinstance(value, bool):
        raise BadType(f"{call}: {name} must be a whole number, not {brief(value)}.")
    if number != int(number):
        nearest = round(number) if least is None else max(least, round(number))
        raise BadValue(f"{call}: {name} must be a whole number, not {_brief(value)}; try {nearest}.")
    if least is not None and number < least:
        raise BadValue(f"{call}: {name} must be at least {least}, not {_brief(value)}.")
    return int(number)


def text(value: object, call: str, name: str, mend: str = "take it out") -> str:
    """One line of text that can stand in any file: XML 1.0, 2.2, without tabs and breaks."""
    if not isinstance(value, str):
        raise BadType(f"{call}: {name} must be a string, not {brief(value)}; str(…) makes one of anything.")
    for character in value:
        # Controls, halves of surrogate pairs, breaks of lines and paragraphs, and what is no character.
        if unicodedata.category(character) in ("Cc", "Cs", "Zl", "Zp") or character in "\ufffe\uffff":
            raise BadValue(f"{call}: {brief(value)} holds the control character {character!r}; {mend}.")
    return value


def choice(value: object, call: str, name: str, allowed: Collection[str]) -> str:
    """One of a few words."""
    if isinstance(value, str) and value in allowed:
        return value
    words = ", ".join(repr(word) for word in allowed)
    raise BadValue(f"{call}: {name} must be one of {words}, not {brief(value)}{near(value, allowed)}.")


def point(x: object, y: object, call: str) -> tuple[float, float]:
    """A point given as two numbers, or as one pair in `x`."""
    if y is None:
        if isinstance(x, str) or not isinstance(x, Iterable):
            raise BadType(f"{call}: a point is two numbers, x and y, or one pair, not {brief(x)}.")
        pair = list(x)
        if len(pair) != 2:
            raise BadType(f"{call}: a point has two numbers, x and y, not {len(pair)}: {brief(x)}.")
        x, y = pair
    return real(x, call, "x"), real(y, call, "y")


def takes_nib(function: object, call: str) -> None:
    """Refuse a function that has no place for a nib."""
    import inspect  # heavy, and not wanted for drawing itself

    name = getattr(function, "__name__", repr(function))
    if not callable(function):
        raise BadType(f"{call}: give a function that takes a nib, not {brief(function)}.")
    first = next(iter(inspect.signature(function).parameters.values()), None)
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


def _looks_real(value: object) -> bool:
    if isinstance(value, Real):
        return True
    # A decimal and an array of no dimensions are numbers too; an array of several is not.
    alone = getattr(value, "ndim", 0) == 0
    return alone and isinstance(value, SupportsFloat) and not isinstance(value, Complex)


LONGEST = 60
"""Characters of a value in a message."""


def brief(value: object) -> str:
    """A value as a program would write it, shortened, whatever its class thinks of being shown."""
    if type(value) is int and value.bit_length() > 200:
        return "a whole number of more than 60 digits"
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
    except ValueError:  # a whole number of thousands of digits
        text = brief(value)
    return text if len(text) <= 24 else f"{text[:20]}…"
