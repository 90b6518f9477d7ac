"""An SVG file as a motif.

motif = motif_from_svg("kite.svg")
"""

from __future__ import annotations

import warnings

from ovlo.core.sheet.motif import Motif, recorded
from ovlo.core.sheet.nib import Nib
from ovlo.core.trail.columns import Style
from ovlo.core.trail.similarity import check_reach
from ovlo.core.values.colour import BLACK
from ovlo.core.values.errors import FileError, PartsSkipped
from ovlo.render.svg_reader.reader import Shape, read
from ovlo.render.svg_reader.source import svg_source


def motif_from_svg(source: object) -> Motif:
    """The picture in an SVG file, a file object or a text."""
    name, data = svg_source(source)
    try:
        shapes, losses = read(name, data)
        motif = recorded(lambda nib: _draw_into(nib, shapes))
        check_reach(motif._columns, 1, 0, 0, "from_svg")
    except (ArithmeticError, ValueError) as error:
        raise FileError(
            f"from_svg: {name} contains numbers that are not finite or far too large; it was not read."
        ) from error
    if losses:
        warnings.warn(f"{name}: {losses}.", PartsSkipped, stacklevel=3)
    return motif


def _draw_into(nib: Nib, shapes: list[Shape]) -> None:
    plain = Style(BLACK)
    for shape in shapes:
        if shape.ink is None:
            nib._style = plain
        else:
            nib.ink, nib.line_width, nib.line_dash = shape.ink, max(shape.line_width, 1e-6), shape.line_dash
            nib.line_cap, nib.line_join = shape.line_cap, shape.line_join  # type: ignore[assignment]
        if shape.line_below and shape.ink is not None and shape.fill is not None:
            nib._lay_pieces(shape.pieces, None, True, shape.fill_rule)
            nib._lay_pieces(shape.pieces, shape.fill, False, shape.fill_rule)
        else:
            nib._lay_pieces(shape.pieces, shape.fill, shape.ink is not None, shape.fill_rule)
