"""The colours of a GIF: 256 in all, those of the drawing exactly.

Palette.of(last_frame, film).reduced(frame)
"""

from __future__ import annotations

from typing import TYPE_CHECKING, Protocol

import numpy as np
from numpy.typing import NDArray

from ovlo.core.trail.columns import Columns
from ovlo.core.values.arrays import Bytes
from ovlo.core.values.colour import Colour
from ovlo.render.page import Page

if TYPE_CHECKING:
    from PIL.Image import Image

SIZE = 256
CLEAR = SIZE - 1
"""The number of what is transparent, where the paper is not opaque."""
OPAQUE = 128
"""The least opacity, of 255, of a pixel that a GIF shows: its pixels are opaque or clear."""
FLAT = 160
"""Colours of the drawing itself, at most; the others are those in between, at the edges of lines."""

UNKNOWN = SIZE
"""In the table from colours to numbers: not looked for yet."""


class Coloured(Protocol):
    """What the colours are of."""

    columns: Columns
    page: Page


class Palette:
    """256 colours, and which of them is nearest to each colour that was met."""

    def __init__(self, colours: NDArray[np.int32]) -> None:
        self._colours = colours
        self._channels = _channels(colours)
        # One entry for each of the 16.7 million colours: looking up is one pass over a frame.
        self._numbers = np.full(1 << 24, UNKNOWN, np.uint16)
        self._numbers[colours] = np.arange(len(colours))

    @classmethod
    def of(cls, last: Image, film: Coloured) -> Palette:
        """The colours of a drawing, and the most frequent others of its last frame."""
        pixels = np.asarray(last)
        size = SIZE
        if pixels.shape[-1] == 4:
            pixels, size = pixels[pixels[..., 3] >= OPAQUE], CLEAR
        codes = _codes(pixels)
        found, counts = np.unique(codes, return_counts=True)
        wanted = _own_colours(film)
        if len(np.union1d(found, wanted)) <= size:
            return cls(np.union1d(found, wanted))
        others = found[~np.isin(found, wanted)]
        counts = counts[~np.isin(found, wanted)]
        room = size - len(wanted)
        frequent = others[np.argsort(-counts, kind="stable")[: room // 2]]
        rest = codes[~np.isin(codes, np.union1d(wanted, frequent))]
        between = _median_cut(rest, room - len(frequent))
        return cls(np.union1d(np.union1d(wanted, frequent), between))

    def reduced(self, image: Image) -> Image:
        """A picture in these colours."""
        from PIL import Image as Images

        pixels = np.asarray(image)
        codes = _codes(pixels)
        numbers = self._numbers[codes]
        new = np.unique(codes[numbers == UNKNOWN])
        if len(new):
            apart = ((_channels(new)[:, None] - self._channels[None]) ** 2).sum(axis=2)
            self._numbers[new] = apart.argmin(axis=1)
            numbers = self._numbers[codes]
        if pixels.shape[-1] == 4:
            numbers = np.where(pixels[..., 3] < OPAQUE, CLEAR, numbers)
        reduced = Images.fromarray(numbers.astype(np.uint8), "P")
        reduced.putpalette(self._channels.astype(np.uint8).tobytes())
        return reduced


def _own_colours(film: Coloured) -> NDArray[np.int32]:
    """The opaque colours of paper, lines, texts and areas."""
    columns = film.columns
    colours = [
        film.page.paper,
        *(style.ink for style in columns.styles),
        *(text.ink for text in columns.texts),
    ]
    rows = columns.areas[columns.areas["opacity"] == 1]
    channels = [one._rgb for one in colours if one.opacity == 1]
    channels += zip(*(rows[name].tolist() for name in ("red", "green", "blue")), strict=True)
    codes = dict.fromkeys(_code(Colour(*each)) for each in channels)
    return np.unique(np.array(list(codes)[:FLAT], np.int32))


def _code(colour: Colour) -> int:
    red, green, blue = (round(channel) for channel in colour._rgb)
    return red << 16 | green << 8 | blue


def _codes(pixels: Bytes) -> NDArray[np.int32]:
    wide = pixels.astype(np.int32)
    codes: NDArray[np.int32] = wide[..., 0] << 16 | wide[..., 1] << 8 | wide[..., 2]
    return codes


def _channels(codes: NDArray[np.int32]) -> NDArray[np.int32]:
    return np.stack([codes >> 16, codes >> 8 & 255, codes & 255], axis=-1)


def _median_cut(codes: NDArray[np.int32], count: int) -> NDArray[np.int32]:
    """So many colours that stand for many, by Pillow's median cut."""
    from PIL import Image as Images

    if not len(codes):
        return np.empty(0, np.int32)
    row = Images.fromarray(_channels(codes).astype(np.uint8)[None], "RGB")
    palette = row.quantize(count, Images.Quantize.MEDIANCUT).getpalette() or []
    return np.unique(_codes(np.array(palette[: 3 * count], np.uint8).reshape(-1, 3)))
