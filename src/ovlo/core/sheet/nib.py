"""The nib: a steered pen with its style, its blocks and its loop.

nib = sheet.new_nib()
for _ in nib.full_turn(5):
    nib.forward(90)
"""

from __future__ import annotations

import warnings
from typing import TYPE_CHECKING, Any, get_args

from ovlo.core.pen.blocks import Blocks
from ovlo.core.pen.moves import Moves
from ovlo.core.pen.shapes import Shapes
from ovlo.core.pen.stroke_letters import STROKE, laid
from ovlo.core.trail.colouring import coloured
from ovlo.core.trail.columns import DRAW, JUMP, Columns, Style, Text, Wording
from ovlo.core.trail.similarity import check_reach
from ovlo.core.trail.trail import PACK_STEP, Trail
from ovlo.core.values import arguments
from ovlo.core.values.choices import Baseline, Slant, TextAlign, Weight
from ovlo.core.values.degrees import normal
from ovlo.core.values.errors import BadType, BadUse, BadValue, MissingGlyph, UnknownName
from ovlo.core.values.everyday import SINGLE, unknown
from ovlo.core.values.pose import Pose

if TYPE_CHECKING:
    from ovlo.core.sheet.motif import Motif
    from ovlo.core.sheet.sheet import Sheet
    from ovlo.core.values.colour import Colour
    from ovlo.core.values.dice import Dice


MOST_SECONDS = 600
"""The longest pause."""

HERE, PLAIN = Pose(), Style()


class _EverydayWord:
    """A word that is not one of a nib's names: reading, calling or setting it is answered with what is."""

    __slots__ = ("_name",)

    def __init__(self, name: str) -> None:
        self._name = name

    def __get__(self, nib: object, owner: type) -> object:
        raise UnknownName(unknown("nib", self._name, dir(owner)), name=self._name, obj=nib or owner)

    def __set__(self, nib: object, value: object) -> None:
        self.__get__(nib, type(nib))


class _NibClass(type):
    """The class of `Nib`: it answers everyday words, and does not list them."""

    def __new__(cls, name: str, bases: tuple[type, ...], body: dict[str, Any]) -> _NibClass:
        known = {word for base in bases for word in dir(base)} | body.keys()
        words = {word: _EverydayWord(word) for word in SINGLE if word not in known}
        return super().__new__(cls, name, bases, words | body)

    def __dir__(cls) -> list[str]:
        return [name for name in super().__dir__() if type(_attribute(cls, name)) is not _EverydayWord]


def _attribute(kind: type, name: str) -> object:
    return next((vars(base)[name] for base in kind.__mro__ if name in vars(base)), None)


class Nib(Blocks, Shapes, Moves, metaclass=_NibClass):
    """The steered pen. `Sheet.new_nib` makes one.

    `help(ovlo.Nib.star)` explains one of its names, with an example:

    - Walk: forward, back, line_to, line_by, polyline, line_to_start, arc_left, arc_right, walk
    - Turn: left, right, turn_to, aim_at
    - Move without a line: travel, travel_to, travel_by, lift, lower
    - Shapes around it: circle, ellipse, polygon, star, rectangle, spiral
    - Words and motifs: text, stamp
    - Another nib like it: copy
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
        pointer: Motif | None = None,
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
        """The sheet this nib draws on; an error while a motif is recorded, which has no sheet."""
        if self._sheet is None:
            raise BadUse(
                "sheet: there is no sheet while a motif is recorded; pass what you need of it as arguments."
            )
        return self._sheet

    @property
    def dice(self) -> Dice:
        """The dice of its sheet, or those passed to `Motif.record`."""
        if self._dice is None:
            raise BadUse(
                "dice: a motif has no random numbers of its own; pass dice: Motif.record(…, dice=nib.dice)."
            )
        return self._dice

    @property
    def pointer(self) -> Motif | None:
        """The motif that shows where this nib is and where it points while a drawing replays.

        Its origin is placed on the nib; by default it is the point of a pen, and None shows nothing. It is
        never part of the drawing.
        """
        return self._pointer

    @pointer.setter
    def pointer(self, value: Motif | None) -> None:
        if value is not None:
            _columns_of(value, "pointer", "; None hides the pointer")
        self._pointer = value

    def pause(self, seconds: float) -> None:
        """Hold replays and animations here; a pause leaves no mark.

        Parameters
        ----------
        seconds : float
            From 0 to 600.

        Examples
        --------
        >>> nib.pause(0.5)
        """
        self._trail.pause(arguments.between(seconds, "pause", "seconds", 0, MOST_SECONDS))

    def copy(self) -> Nib:
        """Make another nib on the same sheet, with the same pose and look.

        Examples
        --------
        >>> nib.ink = "tomato"
        >>> twin = nib.copy()
        >>> twin.left(90)
        >>> twin.ink.css, nib.heading
        ('#ff6347', 0.0)
        """
        twin = self.sheet.new_nib(*self.pose)
        twin._style, twin._is_lifted, twin._pointer = self._style, self._is_lifted, self._pointer
        return twin

    def __copy__(self) -> Nib:
        return self.copy()

    def text(
        self,
        words: str,
        size: float | None = None,
        font: str = "sans-serif",
        weight: Weight = "normal",
        slant: Slant = "normal",
        align: TextAlign = "start",
        baseline: Baseline = "alphabetic",
    ) -> None:
        """Write words along the heading, in the ink of the nib, which stays where it is.

        Parameters
        ----------
        words : str
            One line, without control characters.
        size : float
            The font size in sheet units, above 0; 16 px by default.
        font : str
            A CSS family name such as "serif" or "DejaVu Sans", or several, separated by commas; or "stroke":
            letters of single lines, drawn with the line width of the nib, as a plotter writes them.
        weight : "normal" or "bold"
            The stroke font has no other weight than the line width.
        slant : "normal", "italic" or "oblique"
        align : "start", "middle" or "end"
            Which part of the words lies at the nib.
        baseline : "alphabetic", "middle" or "hanging"
            Whether the nib is at the foot of the letters, at their middle (0.35 of the size above the foot)
            or at their top (0.75 of the size above the foot).

        Raises
        ------
        BadValue, BadType
            If the words are not such a string, or another argument is not valid; nothing is written then.

        Examples
        --------
        >>> nib.text("Kite day at Marrow Bay", size=24, align="middle")
        """
        if size is None:
            size = self._text_size
        wording = _checked_wording(words, size, font, weight, slant, align, baseline)
        if self._is_lifted:
            self._trail.leave_out("text", self._x, self._y)
        elif words and wording[2] == STROKE:
            self._write_strokes(wording)
        elif words:
            self._trail.stand(self._number, self.pose, True)
            self._trail.write_text(self._x, self._y, self._heading, wording, self._style.ink)

    def _write_strokes(self, wording: Wording) -> None:
        """Write words in letters of single lines, which are never part of an open area."""
        words, size, _, _, slant, align, baseline = wording
        pieces, missing = laid(words, size, (self._x, self._y), self._heading, align, baseline, slant)
        if missing:
            shown = "a box is" if len(missing) == 1 else "boxes are"
            sentence = (
                f"The stroke font has no {arguments.named_letters(missing)}; {shown} shown in place. "
                "Choose another font for them."
            )
            warnings.warn(MissingGlyph(sentence), stacklevel=3)
        self._record_pieces(pieces, DRAW, -1)

    def stamp(
        self,
        motif: Motif,
        scale: float = 1,
        turn: float = 0,
        ink: str | Colour | None = None,
        fill: str | Colour | None = None,
    ) -> None:
        """Stamp a motif here, its origin on the nib's pose; the nib stays where it is.

        The motif keeps its own inks, widths and dashes. An open `area` does not include its contours, and its
        pauses are left out. A lifted nib stamps nothing.

        Parameters
        ----------
        motif : Motif
        scale : float
            The factor to scale it by, above 0; line widths scale with it.
        turn : float
            Degrees added to the heading.
        ink, fill : str or Colour, optional
            One colour for all its lines and texts, and one for all its areas, in place of its own.

        Raises
        ------
        BadValue, BadType
            If it is not a motif, or a number is not valid; nothing is drawn then.

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
        self._trail.stand(self._number, self.pose, False)
        # The placing is a jump, after which the contour that the nib walks goes on.
        self._begin(JUMP)
        self._record(PACK_STEP(self._x, self._y, heading))
        self._trail.stamp(columns, (scale, heading, self._x, self._y), self._number)

    def _write(self, text: Text) -> None:
        """Write a text again, where it was."""
        self._trail.write_text(text.x, text.y, text.heading, text.wording, text.ink)

    # ── for sheets, which are cleared and copied ───────────────────────────────────────────────────────────

    def _forget_marks(self) -> None:
        """Go on where it stands after the sheet was cleared, inside the blocks that are open."""
        self._begin_trail()
        for block in self._blocks:
            block._forget_marks()

    def _go_back(self, pose: Pose | None) -> None:
        """Go on after something was taken back, from the pose before it if this nib drew it."""
        if pose is not None:
            self._x, self._y, heading = pose
            self._set_heading(heading)
        self._begin_trail()

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


def _checked_wording(
    words: str, size: float, font: str, weight: str, slant: str, align: str, baseline: str
) -> Wording:
    """The parts of a text, checked."""
    arguments.text(words, "text", "words", "remove it, and write each line with a text of its own")
    if not isinstance(font, str) or not font.strip():
        raise BadType(f"text: font must be a family name such as 'serif', not {arguments.brief(font)}.")
    arguments.text(font, "text", "font")
    families = [family.strip().lower() for family in font.split(",")]
    if STROKE in families:
        if len(families) > 1:
            raise BadValue(f"text: font='stroke' stands alone; leave out the other fonts of {font!r}.")
        if weight == "bold":
            raise BadValue("text: the stroke font has one weight; for bolder letters raise nib.line_width.")
        font = STROKE
    return (
        words,
        arguments.positive(size, "text", "size"),
        font,
        arguments.choice(weight, "text", "weight", get_args(Weight)),
        arguments.choice(slant, "text", "slant", get_args(Slant)),
        arguments.choice(align, "text", "align", get_args(TextAlign)),
        arguments.choice(baseline, "text", "baseline", get_args(Baseline)),
    )


def _columns_of(motif: Motif, call: str, more: str = "") -> Columns:
    try:
        columns = motif._columns
    except Exception:  # whatever an object does when it is asked for what it does not have
        columns = None
    if type(columns) is not Columns:
        raise BadType(
            f"{call}: {arguments.brief(motif)} is not a motif; Motif.record(…) makes one from a "
            f"function{more}."
        )
    return columns
