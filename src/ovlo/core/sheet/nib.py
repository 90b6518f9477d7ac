"""The nib: a steered pen with its style, its blocks and its loop.

nib = sheet.new_nib()
for _ in nib.full_turn(5):
    nib.forward(90)
"""

from __future__ import annotations

from typing import TYPE_CHECKING, Any, Protocol

from ovlo.core.pen.arcs import Arcs
from ovlo.core.pen.blocks import Blocks
from ovlo.core.pen.lines import Lines
from ovlo.core.pen.shapes import Shapes
from ovlo.core.pen.text import Words
from ovlo.core.pen.travels import Travels
from ovlo.core.pen.walk import Walks
from ovlo.core.trail.colouring import coloured
from ovlo.core.trail.columns import JUMP, Columns, Style
from ovlo.core.trail.similarity import check_reach
from ovlo.core.trail.trail import PACK_STEP, Trail
from ovlo.core.values import arguments
from ovlo.core.values.degrees import normal
from ovlo.core.values.errors import BadType, BadUse, UnknownName
from ovlo.core.values.everyday import SINGLE, unknown
from ovlo.core.values.pose import Pose

if TYPE_CHECKING:
    from ovlo.core.sheet.sheet import Sheet
    from ovlo.core.values.colour import Colour
    from ovlo.core.values.dice import Dice


class Recording(Protocol):
    """What a motif is to a nib: something recorded."""

    @property
    def _columns(self) -> Columns: ...


MOST_SECONDS = 600
"""That a replay may hold."""

HERE, PLAIN = Pose(), Style()


class _Word:
    """An everyday word that is no name of a nib's: who reads, calls or sets it is told what is."""

    __slots__ = ("_name",)

    def __init__(self, name: str) -> None:
        self._name = name

    def __get__(self, nib: object, owner: type) -> object:
        raise UnknownName(unknown("nib", self._name, dir(owner)), name=self._name, obj=nib or owner)

    def __set__(self, nib: object, value: object) -> None:
        self.__get__(nib, type(nib))


class _Kind(type):
    """What kind of class `Nib` is: one that answers everyday words, and does not show that it knows them."""

    def __new__(cls, name: str, bases: tuple[type, ...], body: dict[str, Any]) -> _Kind:
        known = {word for base in bases for word in dir(base)} | body.keys()
        words = {word: _Word(word) for word in SINGLE if word not in known}
        return super().__new__(cls, name, bases, words | body)

    def __dir__(cls) -> list[str]:
        return [name for name in super().__dir__() if type(_found(cls, name)) is not _Word]


def _found(kind: type, name: str) -> object:
    return next((vars(base)[name] for base in kind.__mro__ if name in vars(base)), None)


class Nib(Blocks, Shapes, Words, Arcs, Walks, Lines, Travels, metaclass=_Kind):
    """The steered pen. `Sheet.new_nib` makes one.

    `help(ovlo.Nib.star)` tells about one of its names, with an example:

    - Walk: forward, back, line_to, line_by, line_to_start, arc_left, arc_right, walk
    - Turn: left, right, turn_to, aim_at
    - Move without a line: travel, travel_to, travel_by, lift, lower
    - Shapes around it: circle, ellipse, polygon, star, rectangle, spiral
    - Words and motifs: text, stamp
    - Look: ink, line_width, line_dash, line_cap, line_join
    - Blocks: lifted, styled, area, returning
    - Loop: full_turn
    - Replays: pointer, pause
    - Ask: position, heading, pose, is_lifted, distance_to, heading_to, sheet, dice

    Examples
    --------
    >>> from ovlo import Sheet
    >>> nib = Sheet(640, 480).new_nib(heading=90)
    >>> nib.forward(50)
    >>> nib.pose
    Pose(x=0.0, y=50.0, heading=90.0)
    """

    __slots__ = ("_dice", "_pointer", "_sheet", "_start")

    def __init__(
        self,
        trail: Trail | None = None,
        number: int = 0,
        pose: Pose = HERE,
        style: Style = PLAIN,
        sheet: Sheet | None = None,
        dice: Dice | None = None,
        pointer: Recording | None = None,
    ) -> None:
        if type(trail) is not Trail:
            raise BadUse("Nib: a nib belongs to a sheet, which makes it: nib = sheet.new_nib().")
        super().__init__(trail, number, pose, style)
        self._sheet = sheet
        self._dice = dice
        self._pointer = pointer
        self._start = pose

    def __dir__(self) -> list[str]:
        return dir(type(self))

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
    def pointer(self) -> Recording | None:
        """What shows where this nib is and where it points while a drawing replays.

        A motif whose origin is put on the nib, None for none, or the point of a pen, as at first. It is never
        part of the drawing.
        """
        return self._pointer

    @pointer.setter
    def pointer(self, value: Recording | None) -> None:
        if value is not None:
            _columns_of(value, "pointer", "; None hides the pointer")
        self._pointer = value

    def pause(self, seconds: float) -> None:
        """Let replays and animations hold here; it makes no mark.

        Parameters
        ----------
        seconds : float
            From 0 to 600.

        Examples
        --------
        >>> nib.pause(0.5)
        """
        self._trail.pause(arguments.between(seconds, "pause", "seconds", 0, MOST_SECONDS))

    def stamp(
        self,
        motif: Recording,
        scale: float = 1,
        turn: float = 0,
        ink: str | Colour | None = None,
        fill: str | Colour | None = None,
    ) -> None:
        """Lay a motif here, its origin on the nib's pose; the nib stays where it is.

        The nib's own ink, widths and dashes change nothing of it, an open `area` does not take up its
        contours, and its pauses are left out. A lifted nib stamps nothing.

        Parameters
        ----------
        motif : Motif
        scale : float
            How many times as large, above 0; line widths scale with it.
        turn : float
            Degrees added to the heading.
        ink, fill : str or Colour, optional
            The colour of all its lines and words, and of all its areas, instead of its own.

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
        columns = coloured(_columns_of(motif, "stamp"), ink, fill, "stamp")
        scale = arguments.positive(scale, "stamp", "scale")
        heading = normal(self._heading + arguments.angle(turn, "stamp", "turn"))
        check_reach(columns, scale, self._x, self._y, "stamp")
        if self._is_lifted:
            self._trail.leave_out("stamp", self._x, self._y)
            return
        # The placing is a jump, after which the contour that the nib walks goes on.
        self._begin(JUMP)
        self._record(PACK_STEP(self._x, self._y, heading))
        self._trail.stamp(columns, (scale, heading, self._x, self._y), self._number)

    # ── for sheets, which are cleared and copied ───────────────────────────────────────────────────────────

    def _forget_marks(self) -> None:
        """Go on where it stands after the sheet was cleared, inside the blocks that are open."""
        self._begin_trail()
        for block in self._blocks:
            block._forget_marks()

    def _state(self) -> tuple[object, ...]:
        """All but its sheet and its open blocks."""
        return tuple(self.pose), self._start, self._style, self._is_lifted, self._pointer

    def __reduce__(self) -> tuple[object, ...]:
        """A nib is copied and sent to other processes with its sheet."""
        return _nib_of, (self.sheet, self._number)

    def _restore(self, state: tuple[Any, ...]) -> None:
        """Take on what `_state` gave."""
        (self._x, self._y, heading), self._start, self._style, self._is_lifted, self._pointer = state
        self._set_heading(heading)
        self._begin_trail()


def _nib_of(sheet: Sheet, number: int) -> Nib:
    """The nib that `Nib.__reduce__` took apart."""
    return sheet.nibs[number]


def _columns_of(motif: Recording, call: str, more: str = "") -> Columns:
    try:
        columns = motif._columns
    except Exception:  # whatever a thing does when it is asked for what it has not
        columns = None
    if type(columns) is not Columns:
        raise BadType(
            f"{call}: {arguments.brief(motif)} is no motif; Motif.record(…) makes one of a function{more}."
        )
    return columns
