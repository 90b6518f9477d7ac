"""The same marks in other colours.

coloured(columns, ink="navy", fill=None, call="stamp")
"""

from __future__ import annotations

from dataclasses import replace

from ovlo.core.trail.columns import Columns
from ovlo.core.values import colour
from ovlo.core.values.colour import CHANNELS, Colour


def coloured(columns: Columns, ink: str | Colour | None, fill: str | Colour | None, call: str) -> Columns:
    """A trail with one ink for all lines and texts, and one fill for all areas, where they are given."""
    if ink is not None:
        columns = columns.once(_inked, colour.parse(ink, call))
    if fill is not None:
        columns = columns.once(_filled, colour.parse(fill, call))
    return columns


def _inked(columns: Columns, ink: Colour) -> Columns:
    styles = tuple(style._replace(ink=ink) for style in columns.styles)
    return replace(columns, styles=styles, texts=tuple(text._replace(ink=ink) for text in columns.texts))


def _filled(columns: Columns, fill: Colour) -> Columns:
    areas = columns.areas.copy()
    for name, value in zip(CHANNELS, fill, strict=True):
        areas[name] = value
    return replace(columns, areas=areas)
