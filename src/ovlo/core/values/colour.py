"""Colours: what a CSS colour string means, as a value, and colours made of others.

    parse("tomato", "ink")      # Colour(red=255, green=99, blue=71, opacity=1.0)
    ramp("gold", "navy", 5)

Names and hex colours are read here; all else of CSS Color 4 (https://www.w3.org/TR/css-color-4/), and every
mixture, is left to coloraide, which is loaded only then.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from math import isfinite
from typing import TYPE_CHECKING

from ovlo.core.values import arguments
from ovlo.core.values.colour_names import NAMED
from ovlo.core.values.errors import BadType, BadUse, BadValue
from ovlo.core.values.sealed import unchanging

if TYPE_CHECKING:
    from coloraide import Color


CHANNELS = ("red", "green", "blue", "opacity")


@unchanging
@dataclass(frozen=True, slots=True)
class Colour:
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

    def __post_init__(self) -> None:
        try:
            is_valid = min(self._rgb) >= 0 and max(self._rgb) <= 255 and 0 <= self.opacity <= 1
        except TypeError:
            is_valid = False
        if not is_valid:
            for name in CHANNELS:
                most = 1 if name == "opacity" else 255
                arguments.between(getattr(self, name), "Colour", name, 0, most)

    def __iter__(self) -> Iterator[float]:
        """Red, green, blue and opacity, for unpacking."""
        return iter((self.red, self.green, self.blue, self.opacity))

    def __call__(self, *values: object) -> Colour:
        """Somebody calls `nib.ink("red")`."""
        given = arguments.brief(values[0]) if values else '"tomato"'
        raise BadUse(f"ink: a colour cannot be called; set it with =: nib.ink = {given}.")

    @classmethod
    def from_rgb(cls, red: float, green: float, blue: float) -> Colour:
        """Make an opaque colour from red, green and blue, each 0 to 255.

        Raises
        ------
        BadValue, BadType
            If one of them is outside 0 to 255, or not a number.

        Examples
        --------
        >>> Colour.from_rgb(255, 99, 71)
        Colour(red=255.0, green=99.0, blue=71.0, opacity=1.0)
        """
        channels = {"red": red, "green": green, "blue": blue}
        return cls(*(arguments.between(value, "from_rgb", name, 0, 255) for name, value in channels.items()))

    @property
    def _rgb(self) -> tuple[float, float, float]:
        """Red, green and blue alone."""
        return self.red, self.green, self.blue

    @property
    def hex(self) -> str:
        """The colour as `#rrggbb`, without its opacity."""
        return "#" + "".join(f"{round(channel):02x}" for channel in self._rgb)

    @property
    def css(self) -> str:
        """The colour as CSS writes it: `#rrggbb`, or `#rrggbbaa` if it is not opaque."""
        return self.hex + (f"{round(self.opacity * 255):02x}" if self.opacity < 1 else "")


MOST_COLOURS = 10_000
"""Of a ramp: more than a screen tells apart."""

BLACK = Colour(0, 0, 0)
WHITE = Colour(255, 255, 255)
TRANSPARENT = Colour(0, 0, 0, 0.0)


def parse(value: object, call: str) -> Colour:
    """The colour a CSS string or a `Colour` stands for."""
    if isinstance(value, Colour):
        return value
    if not isinstance(value, str):
        fix = "; Colour.from_rgb(red, green, blue) makes one from numbers" * isinstance(value, tuple | list)
        given = arguments.brief(value)
        raise BadType(f"{call}: a colour must be a CSS string such as 'tomato', not {given}{fix}.")
    colour = _read(value)
    if colour is None and value.strip().startswith("#"):
        digits = value.strip()[1:]
        odd = sorted({c for c in digits.lower() if c not in "0123456789abcdef"})
        wrong = f"with {', '.join(map(repr, odd))}" if odd else f"of {len(digits)} digits"
        raise BadValue(
            f"{call}: {arguments.brief(value)} is a hex colour {wrong}; it must have 3, 4, 6 or 8 digits, "
            "each 0 to 9 or a to f."
        )
    if colour is None:
        raise BadValue(
            f"{call}: there is no colour {arguments.brief(value)}{arguments.near(value, NAMED)}; "
            "give a CSS colour such as 'tomato', '#0a7' or 'oklch(70% 0.1 200)'."
        )
    return colour


LONGEST = 200
"""Characters of a CSS colour: far more than any needs."""


@lru_cache(maxsize=4096)
def _read(text: str) -> Colour | None:
    word = text.strip().lower()
    if len(word) > LONGEST:
        return None
    if word == "transparent":
        return TRANSPARENT
    if word.endswith(")"):
        return _read_function(word)
    digits = NAMED.get(word) or (word[1:] if word.startswith("#") else "")
    if len(digits) in (3, 4):
        digits = "".join(digit * 2 for digit in digits)
    if len(digits) not in (6, 8) or not set(digits) <= set("0123456789abcdef"):
        return None
    red, green, blue, *opacity = bytes.fromhex(digits)
    return Colour(red, green, blue, opacity[0] / 255 if opacity else 1.0)


FUNCTIONS = ("rgb", "rgba", "hsl", "hsla", "hwb", "lab", "lch", "oklab", "oklch", "color")


def _read_function(word: str) -> Colour | None:
    if word.partition("(")[0] not in FUNCTIONS:
        return None
    from coloraide import Color

    try:
        found = Color(word)
        if not all(map(isfinite, found.coords(nans=False))):
            return None
        # CSS Color 4, 5.1: red, green and blue out of range are clamped.
        return _inside_srgb(found.clip() if word.startswith("rgb") else found)
    except (ValueError, ArithmeticError):  # numbers that no colour has are too large to be powers
        return None


def shift_hue(colour: str | Colour, angle: float) -> Colour:
    """Return a colour with its hue turned, its lightness and chroma kept as far as sRGB allows.

    Parameters
    ----------
    colour : str or Colour
    angle : float
        Degrees around the hue circle of OKLCH, from red through yellow and green to blue.

    Returns
    -------
    Colour

    Raises
    ------
    BadValue, BadType
        If the colour is unknown, or the angle is not finite.

    Examples
    --------
    >>> shift_hue("tomato", 120).hex
    '#00be5c'
    """
    shifted = _to_coloraide(parse(colour, "shift_hue")).convert("oklch")
    shifted["hue"] += arguments.angle(angle, "shift_hue", "angle")
    return _inside_srgb(shifted)


def blend(a: str | Colour, b: str | Colour, amount: float) -> Colour:
    """Mix two colours in OKLab, in which equal steps look equal.

    Parameters
    ----------
    a, b : str or Colour
    amount : float
        The share of b: 0 gives a, 1 gives b.

    Returns
    -------
    Colour

    Raises
    ------
    BadValue, BadType
        If a colour is unknown, or the amount is outside 0 to 1.

    Examples
    --------
    >>> blend("white", "black", 0.5).hex
    '#636363'
    """
    first, second = parse(a, "blend"), parse(b, "blend")
    share = arguments.between(amount, "blend", "amount", 0, 1)
    if share in (0, 1):
        return second if share else first
    return _inside_srgb(_to_coloraide(first).mix(_to_coloraide(second), share, space="oklab"))


def ramp(a: str | Colour, b: str | Colour, count: int) -> list[Colour]:
    """Return colours from one to another in equal steps of OKLab, both ends included.

    Parameters
    ----------
    a, b : str or Colour
    count : int
        The number of colours, 1 or more (1 gives a alone).

    Returns
    -------
    list of Colour

    Raises
    ------
    BadValue, BadType
        If a colour is unknown, or the count is not a whole number of 1 or more.

    Examples
    --------
    >>> [colour.hex for colour in ramp("gold", "navy", 3)]
    ['#ffd700', '#6e7e7c', '#000080']
    """
    first, second = parse(a, "ramp"), parse(b, "ramp")
    count = arguments.whole(count, "ramp", "count", least=1)
    arguments.at_most(count, "ramp", "colours", MOST_COLOURS)
    return [blend(first, second, i / (count - 1)) if i else first for i in range(count)]


def difference(a: Colour, b: Colour) -> float:
    """How unlike two opaque colours look, by CIEDE2000; 1 is about the least that anybody sees."""
    return float(_to_coloraide(a).delta_e(_to_coloraide(b), method="2000"))


def _to_coloraide(colour: Colour) -> Color:
    from coloraide import Color

    return Color("srgb", [channel / 255 for channel in colour._rgb], colour.opacity)


def _inside_srgb(colour: Color) -> Colour:
    """The nearest colour of the same hue and lightness that a screen can show (CSS Color 4, 13.2)."""
    inside = colour.convert("srgb").fit("srgb", method="oklch-chroma")
    red, green, blue = (min(max(255 * channel, 0.0), 255.0) for channel in inside.coords(nans=False))
    return Colour(red, green, blue, min(max(inside.alpha(nans=False), 0.0), 1.0))
