"""Colours: what a CSS colour string means, as a value.

parse("tomato", "ink")      # Colour(red=255, green=99, blue=71, opacity=1.0)
"""

from __future__ import annotations

from functools import lru_cache
from typing import NamedTuple

from ovlo.core import arguments
from ovlo.core.colour_names import NAMED
from ovlo.core.errors import BadType, BadValue


class Colour(NamedTuple):
    """An immutable colour in sRGB.

    Attributes
    ----------
    red, green, blue : float
        0 to 255.
    opacity : float
        0 (clear) to 1 (opaque).

    Examples
    --------
    >>> from ovlo import Sheet
    >>> nib = Sheet(640, 480).new_nib()
    >>> nib.ink = "tomato"
    >>> nib.ink
    Colour(red=255, green=99, blue=71, opacity=1.0)
    """

    red: float
    green: float
    blue: float
    opacity: float = 1.0

    @property
    def hex(self) -> str:
        """The colour as `#rrggbb`, opacity left out."""
        return "#" + "".join(f"{round(channel):02x}" for channel in self[:3])


BLACK = Colour(0, 0, 0)
WHITE = Colour(255, 255, 255)
TRANSPARENT = Colour(0, 0, 0, 0.0)


def parse(value: object, call: str) -> Colour:
    """The colour a CSS string or a `Colour` stands for."""
    if isinstance(value, Colour):
        return value
    if not isinstance(value, str):
        raise BadType(f"{call}: a colour is a CSS string such as 'tomato', not {value!r}.")
    colour = _read(value)
    if colour is None:
        raise BadValue(
            f"{call}: there is no colour {value!r}{arguments.near(value, NAMED)}; "
            "give a CSS name or a hex colour such as '#0a7'."
        )
    return colour


@lru_cache(maxsize=4096)
def _read(text: str) -> Colour | None:
    word = text.strip().lower()
    if word == "transparent":
        return TRANSPARENT
    digits = NAMED.get(word) or (word[1:] if word.startswith("#") else "")
    if len(digits) in (3, 4):
        digits = "".join(digit * 2 for digit in digits)
    if len(digits) not in (6, 8) or not set(digits) <= set("0123456789abcdef"):
        return None
    red, green, blue, *opacity = bytes.fromhex(digits)
    return Colour(red, green, blue, opacity[0] / 255 if opacity else 1.0)
