"""One function's marks as they are, the rest pale.

only(sheet, "sail", "--only")
"""

from __future__ import annotations

from dataclasses import replace
from typing import TYPE_CHECKING, TypeVar

import numpy as np
from numpy.typing import NDArray

from ovlo.core.trail.columns import Columns
from ovlo.core.trail.origins import Origins
from ovlo.core.values import arguments
from ovlo.core.values.arrays import Bools, Floats
from ovlo.core.values.colour import WHITE, Colour
from ovlo.core.values.errors import BadUse, BadValue

if TYPE_CHECKING:
    from ovlo.core.sheet.sheet import Sheet

Channel = TypeVar("Channel", float, Floats)

KEPT = 0.15
"""How much of its colour a pale mark keeps; the rest is paper."""


def only(sheet: Sheet, function: str, call: str) -> Columns:
    """A sheet's trail with all but one function's marks pale."""
    columns, origins = sheet._columns, sheet._origins
    if origins is None:
        raise BadUse(f"{call}: the lines of the program were not recorded; `ovlo draw --only` records them.")
    places = kept_places(origins, function, call)

    def kept(numbers: NDArray[np.integer]) -> Bools:
        found: Bools = (numbers >= 0) & places[numbers]
        return found

    paper = sheet.paper if sheet.paper.opacity == 1 else WHITE
    runs = columns.runs_split_at(np.flatnonzero(np.diff(kept(origins.steps))) + 1)
    runs["style"] += np.where(kept(origins.steps)[runs["start"]], 0, len(columns.styles)).astype(np.int32)
    pale_styles = tuple(style._replace(ink=_pale(style.ink, paper)) for style in columns.styles)
    areas = columns.areas.copy()
    is_pale = ~kept(areas["origin"])
    for name, ground in zip(("red", "green", "blue"), paper._rgb, strict=True):
        areas[name][is_pale] = _thinned(areas[name][is_pale], ground)
    texts = tuple(
        text if text.origin >= 0 and places[text.origin] else text._replace(ink=_pale(text.ink, paper))
        for text in columns.texts
    )
    return replace(columns, runs=runs, areas=areas, texts=texts, styles=columns.styles + pale_styles)


def kept_places(origins: Origins, function: str, call: str) -> Bools:
    """Which places a function and what it calls have, or an error that offers the nearest name."""
    names = dict.fromkeys(call.function for call in origins.calls)
    if function not in names:
        raise BadValue(
            f"{call}: no function {function!r} drew anything{arguments.near(function, names)}; "
            f"the functions that drew are {', '.join(names)}."
        )
    return origins.places_in(function)


def _pale(colour: Colour, paper: Colour) -> Colour:
    """A colour mixed with that of the paper, in sRGB as a thin layer of ink is."""
    red, green, blue = (_thinned(ink, ground) for ink, ground in zip(colour._rgb, paper._rgb, strict=True))
    return Colour(red, green, blue, colour.opacity)


def _thinned(channel: Channel, ground: float) -> Channel:
    return KEPT * channel + (1 - KEPT) * ground
