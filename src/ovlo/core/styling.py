"""Checks of what lines and words look like.

restyled(style, {"ink": "tomato", "dash": (6, 4)})
"""

from __future__ import annotations

import unicodedata
from collections.abc import Callable, Iterable
from typing import Any

from ovlo.core import arguments, colour
from ovlo.core.columns import Style
from ovlo.core.errors import BadType, BadValue

CAPS = ("butt", "round", "square")
JOINS = ("miter", "round", "bevel")
WORDS = {
    "weight": ("normal", "bold"),
    "slant": ("normal", "italic", "oblique"),
    "align": ("start", "middle", "end"),
    "baseline": ("alphabetic", "middle", "hanging"),
}


def restyled(style: Style, changes: dict[str, object]) -> Style:
    """A style with some attributes changed, every one of them checked first."""
    checked: dict[str, Any] = {name: CHECKS[name](value) for name, value in changes.items()}
    return style._replace(**checked)


def _dash(value: object) -> tuple[float, ...]:
    if value is None:
        return ()
    many = value if isinstance(value, Iterable) and not isinstance(value, str) else [value]
    lengths = tuple(arguments.not_negative(length, "dash", "each length") for length in many)
    if lengths and not any(lengths):
        raise BadValue(f"dash: at least one length must be above 0, not {value!r}; () is a solid line.")
    # SVG repeats an odd list once, so that dashes and gaps swap.
    return lengths * 2 if len(lengths) % 2 else lengths


CHECKS: dict[str, Callable[[object], object]] = {
    "ink": lambda value: colour.parse(value, "ink"),
    "line_width": lambda value: arguments.positive(value, "line_width", "the width"),
    "dash": _dash,
    "cap": lambda value: arguments.choice(value, "cap", "it", CAPS),
    "join": lambda value: arguments.choice(value, "join", "it", JOINS),
}


def checked_text(words: str, size: float | None, font: str, *manner: str) -> dict[str, object]:
    """The parts of a text, checked; `manner` is weight, slant, align and baseline."""
    if not isinstance(words, str):
        raise BadType(f"text: words must be a string, not {words!r}; str(…) makes one of anything.")
    if not isinstance(font, str) or not font.strip():
        raise BadType(f"text: font must be a family name such as 'serif', not {font!r}.")
    for text in (words, font):
        for character in text:
            # Control characters, halves of surrogate pairs, and breaks of lines and paragraphs.
            if unicodedata.category(character) in ("Cc", "Cs", "Zl", "Zp"):
                raise BadValue(
                    f"text: {text!r} holds the control character {character!r}; take it out, "
                    "and write each line with a text of its own."
                )
    parts: dict[str, object] = {"words": words, "font": font}
    if size is not None:
        parts["size"] = arguments.positive(size, "text", "size")
    for (name, allowed), value in zip(WORDS.items(), manner, strict=True):
        parts[name] = arguments.choice(value, "text", name, allowed)
    return parts
