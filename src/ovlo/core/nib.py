"""The nib: a steered pen with its style, its blocks and its loop.

nib = sheet.new_nib()
for _ in nib.full_turn(5):
    nib.forward(90)
"""

from __future__ import annotations

import inspect
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from typing import TYPE_CHECKING

from ovlo.core import arguments, colour
from ovlo.core.columns import RULES, Columns, Pen, Style
from ovlo.core.degrees import normal
from ovlo.core.errors import BadType, BadUse
from ovlo.core.pose import Pose
from ovlo.core.styling import restyled
from ovlo.core.trail import Trail
from ovlo.core.transforms import Similarity
from ovlo.core.writing import Writing

if TYPE_CHECKING:
    from ovlo.core.colour import Colour
    from ovlo.core.dice import Dice
    from ovlo.core.motif import Motif
    from ovlo.core.sheet import Sheet


CAME_BACK = 1e-9
"""A nib this share of its coordinates away from a point is there, but for rounding."""


class Nib(Writing):
    """The steered pen. `Sheet.new_nib` makes one.

    Examples
    --------
    >>> from ovlo import Sheet
    >>> nib = Sheet(640, 480).new_nib(heading=90)
    >>> nib.forward(50)
    >>> nib.pose
    Pose(x=0.0, y=50.0, heading=90.0)
    """

    __slots__ = ("_dice", "_sheet", "start")

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

    # ── the pen ──────────────────────────────────────────────────────────────────────────────────────

    @property
    def is_lifted(self) -> bool:
        """Whether the pen is off the paper, where it leaves no mark of any kind."""
        return self._is_lifted

    def lift(self) -> None:
        """Take the pen off the paper: what follows leaves no mark, until `lower`.

        Examples
        --------
        >>> nib.lift()
        >>> nib.is_lifted
        True
        """
        self._is_lifted = True
        self._run = None

    def lower(self) -> None:
        """Put the pen on the paper; a new contour begins here.

        Examples
        --------
        >>> nib.lift()
        >>> nib.forward(40)
        >>> nib.lower()
        >>> nib.is_lifted
        False
        """
        self._is_lifted = False
        self._run = None
        self.begin_contour()

    @property
    def ink(self) -> Colour:
        """The colour of lines and texts: set a CSS colour string or a `Colour`; black at first."""
        return self._style.ink

    @ink.setter
    def ink(self, value: str | Colour) -> None:
        # Inks change more often than all else, so they take the short way.
        _, line_width, dash, cap, join = self._style
        self._style = Style(colour.parse(value, "ink"), line_width, dash, cap, join)
        self._run = None

    @property
    def line_width(self) -> float:
        """The width of lines in sheet units, above 0; 2 px at first."""
        return self._style.line_width

    @line_width.setter
    def line_width(self, value: float) -> None:
        self._restyle(line_width=value)

    @property
    def dash(self) -> tuple[float, ...]:
        """Lengths of dashes and gaps in turns, sheet units, as in SVG; () for a solid line, as at first."""
        return self._style.dash

    @dash.setter
    def dash(self, value: float | Sequence[float] | None) -> None:
        self._restyle(dash=value)

    @property
    def cap(self) -> str:
        """How lines end: "butt", "round" (at first) or "square", as in SVG."""
        return self._style.cap

    @cap.setter
    def cap(self, value: str) -> None:
        self._restyle(cap=value)

    @property
    def join(self) -> str:
        """How lines meet at corners: "miter", "round" (at first) or "bevel", as in SVG."""
        return self._style.join

    @join.setter
    def join(self, value: str) -> None:
        self._restyle(join=value)

    def _restyle(self, **changes: object) -> None:
        self._style = restyled(self._style, changes)
        self._run = None

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
        contour = self._contour, self._contour_start
        self._jump(self._x, self._y)
        self._contour, self._contour_start = contour
        by = Similarity(scale, heading, self._x, self._y)
        self._trail.stamp(columns, by, self._number)

    # ── blocks and the loop ──────────────────────────────────────────────────────────────────────────

    @contextmanager
    def lifted(self) -> Iterator[None]:
        """A block with the pen lifted; afterwards it is as it was.

        Examples
        --------
        >>> with nib.lifted():
        ...     nib.forward(40)
        >>> nib.is_lifted
        False
        """
        was_lifted = self._is_lifted
        self.lift()
        try:
            yield
        finally:
            if was_lifted:
                self.lift()
            else:
                self.lower()

    @contextmanager
    def styled(
        self,
        *,
        ink: str | Colour | None = None,
        line_width: float | None = None,
        dash: float | Sequence[float] | None = None,
        cap: str | None = None,
        join: str | None = None,
    ) -> Iterator[None]:
        """A block in another style; afterwards what it changed is as it was.

        Parameters
        ----------
        ink, line_width, dash, cap, join
            As the attributes of these names; those left out stay as they are. `dash=()` is a solid line.

        Raises
        ------
        BadValue, BadType
            When one of them cannot be; nothing has changed then.

        Examples
        --------
        >>> with nib.styled(ink="tomato", line_width=5):
        ...     nib.forward(40)
        >>> nib.line_width
        2.0
        """
        given = {"ink": ink, "line_width": line_width, "dash": dash, "cap": cap, "join": join}
        changes = {name: value for name, value in given.items() if value is not None}
        before = self._style
        self._restyle(**changes)
        try:
            yield
        finally:
            kept = {name: getattr(before, name) for name in changes}
            self._style = self._style._replace(**kept)
            self._run = None

    @contextmanager
    def filled(self, paint: str | Colour, outline: bool = True, rule: str = "nonzero") -> Iterator[None]:
        """A block whose contours are painted as one area.

        The area lies under every mark made inside the block and over every earlier one. Each contour is
        closed for it. Blocks nest, an inner block's contours being its own. After an exception the area is
        what was traced.

        Parameters
        ----------
        paint : str or Colour
            The colour of the area.
        outline : bool
            Whether the lines walked inside are drawn.
        rule : "nonzero" or "evenodd"
            What counts as inside, as SVG's `fill-rule`; with "evenodd" a contour inside another is a hole.

        Raises
        ------
        BadValue, BadType
            When the colour is unknown or the rule another; nothing has changed then.

        Examples
        --------
        >>> with nib.filled("tomato"):
        ...     for _ in nib.full_turn(4):
        ...         nib.forward(90)
        """
        outline = arguments.truth(outline, "filled", "outline")
        rule = arguments.choice(rule, "filled", "rule", RULES)
        area = self._trail.open_area(colour.parse(paint, "filled"), rule)
        before, position = (self._area, self._lowered_pen), self.position
        contour = self._contour, self._contour_start, self._traced_contour
        self._area, self._lowered_pen = area, Pen.DRAW if outline else Pen.TRACE
        self._run = self._jump_run = None
        self.begin_contour()
        try:
            yield
        finally:
            self._trail.end_area(area)
            self._area, self._lowered_pen = before
            self._run = self._jump_run = None
            # Back where it was, the nib goes on with the contour that the block interrupted.
            if self.distance_to(position) <= CAME_BACK * (1 + abs(self._x) + abs(self._y)):
                self._contour, self._contour_start, self._traced_contour = contour

    @contextmanager
    def returning(self) -> Iterator[None]:
        """A block after which the nib is back at the pose it had; no line is drawn back.

        The contour the block interrupts goes on afterwards. The style is left alone.

        Examples
        --------
        A string that hangs from the kite:

        >>> with nib.returning():
        ...     nib.turn_to(270)
        ...     nib.forward(80)
        >>> nib.pose
        Pose(x=0.0, y=0.0, heading=0.0)
        """
        pose, contour = self.pose, (self._contour, self._contour_start, self._traced_contour)
        self._run = None
        self.begin_contour()
        try:
            yield
        finally:
            if self.position != pose[:2]:
                self._jump(pose.x, pose.y)
            self._set_heading(pose.heading)
            self._run = None
            self._contour, self._contour_start, self._traced_contour = contour

    def full_turn(self, n: int, turns: int = 1, clockwise: bool = False) -> Iterator[int]:
        """Run the body of a loop n times, turning by 360·turns/n after each.

        A body that walks one side gives a regular polygon; one that returns to its start, a rosette.
        Headings are computed as start + 360·turns·i/n, not summed, so that n turns come to exactly
        `turns` times 360. Turns made by the body itself are kept.

        Parameters
        ----------
        n : int
            How many times, at least 1.
        turns : int
            How often to go round in all, at least 1; 2 of 5 walk a five-pointed star.
        clockwise : bool
            Turn right instead of left.

        Returns
        -------
        Iterator of int
            0 to n - 1.

        Raises
        ------
        BadValue, BadType
            When n or turns is not a whole number of at least 1.

        Examples
        --------
        >>> for _ in nib.full_turn(6):
        ...     nib.forward(30)
        >>> nib.heading
        0.0
        """
        n = arguments.whole(n, "full_turn", "n", least=1)
        turns = arguments.whole(turns, "full_turn", "turns", least=1)
        return self._turning(n, -turns if clockwise else turns)

    def _turning(self, n: int, turns: int) -> Iterator[int]:
        start = self._heading
        for i in range(n):
            before = self._heading
            yield i
            if self._heading != before:  # the body turned: the whole round is turned with it
                start += self._heading - before
            # Whole numbers keep the remainder exact, so the last one is 0 and the heading is `start`.
            self._set_heading(normal(start + 360 * turns * (i + 1) % (360 * n) / n))


def check_takes_nib(procedure: Callable[..., object], call: str) -> None:
    """Refuse a procedure that has no place for a nib."""
    name = getattr(procedure, "__name__", repr(procedure))
    if not callable(procedure):
        raise BadType(f"{call}: give a procedure that takes a nib, not {procedure!r}.")
    first = next(iter(inspect.signature(procedure).parameters.values()), None)
    if first is None or first.kind in (first.KEYWORD_ONLY, first.VAR_KEYWORD):
        raise BadType(f"{call}: {name} must take the nib first: def {name}(nib, …).")
