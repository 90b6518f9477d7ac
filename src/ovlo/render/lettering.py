"""Letters as shapes: what a text looks like and how much room it takes.

    vertices, codes = glyphs(text)

Fonts are found by their CSS family names with Matplotlib's font manager.
"""

from __future__ import annotations

import warnings
from collections.abc import Callable
from contextlib import suppress
from functools import lru_cache
from typing import TYPE_CHECKING, NamedTuple

import numpy as np

from ovlo.core.paint.outlines import LINE, MOVE
from ovlo.core.pen import stroke_letters
from ovlo.core.trail.columns import Text
from ovlo.core.values import arguments
from ovlo.core.values.arrays import Bytes, Floats
from ovlo.core.values.choices import ANCHOR, RISE
from ovlo.core.values.degrees import direction
from ovlo.core.values.errors import FileError, MissingFont, MissingGlyph

if TYPE_CHECKING:
    from matplotlib.font_manager import FontProperties

GENERIC = {"serif", "sans-serif", "monospace", "cursive", "fantasy"}

DRAWN_SIZE = 100.0
"""The size letters are shaped at; they are scaled from there."""


def foot(text: Text) -> tuple[float, float]:
    """Where the foot of the letters is, at the nib's place along the words."""
    cosine, sine = direction(text.heading)
    drop = RISE[text.baseline] * text.size
    return text.x + drop * sine, text.y - drop * cosine


def beginning(text: Text) -> tuple[float, float]:
    """Where the first letter begins, at its foot."""
    back = ANCHOR[text.align] and ANCHOR[text.align] * width(text)
    cosine, sine = direction(text.heading)
    x, y = foot(text)
    return x - back * cosine, y - back * sine


def glyphs(text: Text) -> tuple[Floats, Bytes]:
    """The letters as a path in sheet units, where they stand; quadratic and cubic curves included."""
    letters = _shaped(text.words, text.font, text.weight, text.slant)
    scale = text.size / DRAWN_SIZE
    cosine, sine = direction(text.heading)
    turned = letters.vertices * scale @ np.array([[cosine, sine], [-sine, cosine]])
    return turned + beginning(text), letters.codes


def single_strokes(text: Text) -> tuple[Floats, Bytes]:
    """The words in letters of single strokes, as wide as in their own font, as `glyphs` gives its letters."""
    drawn = stroke_letters.lines(text.words, text.slant)
    if not drawn:
        return np.empty((0, 2)), np.empty(0, np.uint8)
    stretch = width(text) / (text.size * stroke_letters.width(text.words))
    cosine, sine = direction(text.heading)
    places = np.vstack(drawn) * text.size * (stretch, 1)
    codes = np.full(len(places), LINE, np.uint8)
    codes[np.cumsum([0, *map(len, drawn[:-1])])] = MOVE
    return places @ np.array([[cosine, sine], [-sine, cosine]]) + beginning(text), codes


def box(text: Text) -> tuple[Floats, Floats]:
    """The lower left and upper right corners of the inked letters, each of shape (2,)."""
    vertices, _ = glyphs(text)
    if not len(vertices):
        here = np.array(foot(text))
        return here, here
    return vertices.min(axis=0), vertices.max(axis=0)


def need_fonts() -> None:
    """Refuse text where Matplotlib, which looks for fonts, has no folder to keep the list of them."""
    try:
        import matplotlib.font_manager  # noqa: F401  # heavy
    except OSError as error:
        raise FileError(
            "The list of fonts has nowhere to be kept; set the environment variable MPLCONFIGDIR to a "
            "folder that can be written to."
        ) from error


def width(text: Text) -> float:
    """How far the words reach along their line, in sheet units."""
    return _shaped(text.words, text.font, text.weight, text.slant).advance * text.size / DRAWN_SIZE


def words_width(words: str, size: float) -> float:
    """How far words in the default font reach along their line."""
    return _shaped(words, "sans-serif", "normal", "normal").advance * size / DRAWN_SIZE


class _Letters(NamedTuple):
    vertices: Floats
    codes: Bytes
    advance: float


@lru_cache(maxsize=1024)
def _shaped(words: str, font: str, weight: str, slant: str) -> _Letters:
    """Words shaped at DRAWN_SIZE from the origin along the x axis."""
    need_fonts()
    from matplotlib.textpath import text_to_path

    properties = font_properties(font, weight, slant).copy()
    properties.set_size(DRAWN_SIZE)
    shown = shown_words(words, font, weight, slant)
    vertices, codes = text_to_path.get_text_path(properties, shown)
    advance, _, _ = text_to_path.get_text_width_height_descent(shown, properties, ismath=False)
    scale = DRAWN_SIZE / text_to_path.FONT_SCALE
    points = np.asarray(vertices, float).reshape(-1, 2) * scale
    return _Letters(points, np.asarray(codes, np.uint8), float(advance))


BOX = "\N{WHITE SQUARE}"
"""What is shown for a letter that no font has; where they lack it too, the first letter that they have."""


@lru_cache(maxsize=1024)
def shown_words(words: str, font: str, weight: str, slant: str) -> str:
    """Words with a box for each letter that their fonts do not have, after a warning."""
    from matplotlib.font_manager import fontManager, get_font

    fonts = [
        get_font(path) for path in fontManager._find_fonts_by_props(font_properties(font, weight, slant))
    ]
    known = set().union(*(face.get_charmap() for face in fonts))
    missing = {letter for letter in words if ord(letter) not in known}
    if not missing:
        return words
    names = [face.family_name for face in fonts]
    warnings.warn(_without(names, sorted(missing, key=words.index)), MissingGlyph, stacklevel=2)
    box = BOX if ord(BOX) in known else chr(min(known - set(range(33))))
    return "".join(box if letter in missing else letter for letter in words)


def _without(fonts: list[str], letters: list[str]) -> str:
    """A warning that no font has some letters."""
    has = f"font {fonts[0]} has" if len(fonts) == 1 else f"fonts {' and '.join(fonts)} have"
    shown = "a box is shown in its place" if len(letters) == 1 else "boxes are shown in their place"
    them = "it" if len(letters) == 1 else "them"
    listed = arguments.named_letters(letters)
    return f"The {has} no {listed}; {shown}. Name a font that has {them} after a comma."


@lru_cache(maxsize=256)
def font_properties(font: str, weight: str, slant: str) -> FontProperties:
    """What the font manager knows the available families by; a warning when there is none.

    A letter that the first lacks comes from the next (CSS Fonts 4, 5.2).
    """
    need_fonts()
    from matplotlib.font_manager import FontProperties, fontManager, get_font

    new: Callable[..., FontProperties] = FontProperties
    families = [name.strip().strip("'\"") for name in font.split(",") if name.strip()]
    found = []
    for family in families:
        is_generic = family.lower() in GENERIC
        wanted = family.lower() if is_generic else family
        with suppress(ValueError):
            properties = new(family=[wanted], weight=weight, style=slant)
            fontManager.findfont(properties, fallback_to_default=is_generic)
            found.append(wanted)
    if found:
        return new(family=found, weight=weight, style=slant)
    fallback = new(family=["sans-serif"], weight=weight, style=slant)
    used = get_font(fontManager.findfont(fallback)).family_name
    warnings.warn(f"The font {font!r} is not installed; {used} is used instead.", MissingFont, stacklevel=2)
    return fallback
