"""The nib: a steered pen with its style, its blocks and its loop.

nib = sheet.new_nib()
for _ in nib.full_turn(5):
    nib.forward(90)
"""

from __future__ import annotations

from typing import TYPE_CHECKING, Any, Literal

from ovlo.core import arguments
from ovlo.core.columns import Columns, Pen, Style
from ovlo.core.degrees import normal
from ovlo.core.errors import BadType, BadUse
from ovlo.core.pen import PenHolder
from ovlo.core.pose import Pose
from ovlo.core.steering import PACK
from ovlo.core.trail import Trail

if TYPE_CHECKING:
    from ovlo.core.dice import Dice
    from ovlo.core.motif import Motif
    from ovlo.core.sheet import Sheet


class Nib(PenHolder):
    """The steered pen. `Sheet.new_nib` makes one.

    Examples
    --------
    >>> from ovlo import Sheet
    >>> nib = Sheet(640, 480).new_nib(heading=90)
    >>> nib.forward(50)
    >>> nib.pose
    Pose(x=0.0, y=50.0, heading=90.0)
    """

    __slots__ = ("_dice", "_mark", "_sheet", "start")

    def __init__(
        self,
        trail: Trail,
        number: int,
        pose: Pose,
        style: Style,
        sheet: Sheet | None,
        dice: Dice | None,
    ) -> None:
        super().__init__(trail, number, pose, style)
        self._sheet = sheet
        self._dice = dice
        self._mark: Motif | Literal["default"] | None = "default"
        self.start = pose
        """The pose it was made with."""

    def __repr__(self) -> str:
        pen = "lifted" if self._is_lifted else "lowered"
        return f"<Nib at ({self._x:g}, {self._y:g}), heading {self._heading:g}, {pen}>"

    @property
    def sheet(self) -> Sheet:
        """The sheet this nib draws on; an error while a motif is recorded, which has none."""
        if self._sheet is None:
            raise BadUse("sheet: while a motif is recorded there is no sheet; hand in what you need of it.")
        return self._sheet

    @property
    def dice(self) -> Dice:
        """The dice of its sheet, or those handed to `Motif.record`."""
        if self._dice is None:
            raise BadUse(
                "dice: a motif has no chance of its own; hand it in: Motif.record(…, dice=nib.dice)."
            )
        return self._dice

    @property
    def mark(self) -> Motif | None:
        """What shows where this nib is and where it points while a window or an animation replays.

        A motif whose origin is put on the nib, None for no mark, or the point of a pen, as at first. It is
        never part of the drawing.
        """
        from ovlo.core.nib_mark import nib_mark

        return nib_mark() if self._mark == "default" else self._mark

    @mark.setter
    def mark(self, value: Motif | None) -> None:
        if value is not None and type(getattr(value, "columns", None)) is not Columns:
            raise BadType(
                f"mark: {value!r} is no motif; Motif.record(…) makes one of a procedure, and None hides it."
            )
        self._mark = value

    def state(self) -> tuple[object, ...]:
        """All but its sheet and its open blocks; for Ovlo's own use."""
        return self.pose, self.start, self._style, self._is_lifted, self._mark

    def restore(self, state: tuple[Any, ...]) -> None:
        """Take on what `state` gave; for Ovlo's own use."""
        (self._x, self._y, heading), self.start, self._style, self._is_lifted, self._mark = state
        self._set_heading(heading)
        self._run = self._jump_run = None
        self.begin_contour()

    def wear(self, style: Style) -> None:
        """Take on a whole style; for Ovlo's own use."""
        self._style = style
        self._run = None

    def close(self) -> None:
        """Go straight back to where this contour began, joined there; the heading stays as it is.

        A contour begins where the nib was made, at a travel or a lifted move, at `lower`, and on entering
        `filled` or `returning`. The corner is joined as SVG's `Z` joins it.
        A contour with nothing drawn stays so.

        Examples
        --------
        Half a kite, closed:

        >>> nib.forward(60)
        >>> nib.left(120)
        >>> nib.forward(60)
        >>> nib.close()
        >>> nib.position
        (0.0, 0.0)
        """
        if self._is_lifted or self._traced_contour != self._contour:
            return
        self._go(*self._contour_start)
        self._trail.close_contour()

    def stamp(self, motif: Motif, scale: float = 1, turn: float = 0) -> None:
        """Lay a motif here, its origin on the nib's pose; the nib stays where it is.

        Parameters
        ----------
        motif : Motif
        scale : float
            How many times as large, above 0; line widths scale with it.
        turn : float
            Degrees added to the heading.

        Raises
        ------
        BadValue, BadType
            When it is no motif, or a number will not do; nothing is drawn then.

        Examples
        --------
        >>> gull = Motif.record(lambda nib: nib.arc_right(20, 110))
        >>> nib.stamp(gull, scale=0.5)
        >>> nib.position
        (0.0, 0.0)
        """
        columns = getattr(motif, "columns", None)
        if type(columns) is not Columns:
            raise BadType(f"stamp: {motif!r} is no motif; Motif.record(…) makes one of a procedure.")
        scale = arguments.positive(scale, "stamp", "scale")
        heading = normal(self._heading + arguments.real(turn, "stamp", "turn"))
        if self._is_lifted:
            return
        # The placing is a jump, after which the contour that the nib walks goes on.
        self._begin(Pen.JUMP)
        self._record(PACK(self._x, self._y, heading))
        self._trail.stamp(columns, (scale, heading, self._x, self._y), self._number)
