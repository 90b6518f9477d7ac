"""Checks of what lines and words look like.

restyled(style, {"ink": "tomato", "line_dash": (6, 4)})
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from numbers import Number
from typing import Any

from ovlo.core.trail.columns import Style, Wording
from ovlo.core.values import arguments, colour
from ovlo.core.values.errors import BadType, BadValue

CAPS = ("butt", "round", "square")
JOINS = ("miter", "round", "bevel")
WEIGHTS = ("normal", "bold")
SLANTS = ("normal", "italic", "oblique")
ALIGNS = ("start", "middle", "end")
BASELINES = ("alphabetic", "middle", "hanging")


def restyled(style: Style, changes: dict[str, object]) -> Style:
    """A style with some attributes changed, every one of them checked first."""
    return style._replace(**checked_changes(changes))


def checked_changes(changes: dict[str, object]) -> dict[str, Any]:
    """Attributes of a style by name, every one of them checked."""
    return {name: CHECKS[name](value) for name, value in changes.items()}


def _line_dash(value: object) -> tuple[float, ...]:
    if value is None:
        return ()
    is_one = isinstance(value, str | bytes | Number) or not isinstance(value, Iterable)
    many = [value] if is_one else arguments.listed(value, "line_dash", "it", "as in (6, 4)")
    lengths = tuple(arguments.not_negative(length, "line_dash", "each length") for length in many)
    if lengths and not any(lengths):
        raise BadValue(
            f"line_dash: at least one length must be above 0, not {arguments.brief(value)}; "
            "() is a solid line."
        )
    # SVG repeats an odd list once, so that dashes and gaps swap.
    return lengths * 2 if len(lengths) % 2 else lengths


CHECKS: dict[str, Callable[[object], object]] = {
    "ink": lambda value: colour.parse(value, "ink"),
    "line_width": lambda value: arguments.positive(value, "line_width", "the width"),
    "line_dash": _line_dash,
    "line_cap": lambda value: arguments.choice(value, "line_cap", "it", CAPS),
    "line_join": lambda value: arguments.choice(value, "line_join", "it", JOINS),
}


def checked_text(
    words: str, size: float, font: str, weight: str, slant: str, align: str, baseline: str
) -> Wording:
    """The parts of a text, checked."""
    arguments.text(words, "text", "words", "take it out, and write each line with a text of its own")
    if not isinstance(font, str) or not font.strip():
        raise BadType(f"text: font must be a family name such as 'serif', not {arguments.brief(font)}.")
    arguments.text(font, "text", "font")
    return (
        words,
        arguments.positive(size, "text", "size"),
        font,
        arguments.choice(weight, "text", "weight", WEIGHTS),
        arguments.choice(slant, "text", "slant", SLANTS),
        arguments.choice(align, "text", "align", ALIGNS),
        arguments.choice(baseline, "text", "baseline", BASELINES),
    )
