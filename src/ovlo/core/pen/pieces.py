"""What shapes are made of: pieces that are laid on the sheet wherever they are, and the nib stays.

nib._lay("circle", [piece], fill="gold", outline=True, fill_rule="nonzero")
"""

from __future__ import annotations

import warnings
from collections.abc import Sequence

from ovlo.core.pen.steering import Steering
from ovlo.core.trail.columns import DRAW, FILL_RULES, TRACE
from ovlo.core.trail.trail import Piece
from ovlo.core.values import arguments, colour
from ovlo.core.values.colour import Colour
from ovlo.core.values.errors import NothingDone

Point = tuple[float, float]
Fill = str | Colour | None


class Pieces(Steering):
    """The laying of pieces by a nib."""

    __slots__ = ()

    def _lay(self, call: str, pieces: Sequence[Piece], fill: Fill, outline: bool, fill_rule: str) -> None:
        """Check how a shape is to look, and record it."""
        if fill_rule is not FILL_RULES[0]:
            fill_rule = arguments.choice(fill_rule, call, "fill_rule", FILL_RULES)
        if outline is not True:
            outline = arguments.truth(outline, call, "outline")
        if self._is_lifted:
            self._trail.leave_out(call, self._x, self._y)
        elif fill is None and not outline and self._area < 0:
            words = f"{call}: without an outline and without a fill it leaves nothing; give it fill=…"
            warnings.warn(NothingDone(words), stacklevel=3)
        self._lay_pieces(pieces, None if fill is None else colour.parse(fill, call), outline, fill_rule)

    def _lay_pieces(
        self, pieces: Sequence[Piece], fill: Colour | None, outline: bool, fill_rule: str
    ) -> None:
        """Record the pieces of a shape wherever they lie."""
        if self._is_lifted or not pieces:
            return
        trail = self._trail
        outer = self._area
        area = outer if fill is None else trail.open_area(fill, fill_rule)
        pen = DRAW if outline and self._lowered_pen is DRAW else TRACE
        before = None if trail.writing is self._jump_run else (self._contour, self._x, self._y)
        try:
            for piece in pieces:
                before = trail.record_piece(
                    self._number, self._style, pen, outer, area, before, self._heading, piece
                )
        finally:
            if fill is not None:
                trail.end_area(area)
