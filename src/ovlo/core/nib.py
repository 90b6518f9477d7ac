"""The nib: a steered pen with its style, its blocks and its loop.

nib = sheet.new_nib()
for _ in nib.full_turn(5):
    nib.forward(90)
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from typing import TYPE_CHECKING

from ovlo.core import arguments, colour
from ovlo.core.columns import Style
from ovlo.core.degrees import normal
from ovlo.core.pose import Pose
from ovlo.core.steering import Steering
from ovlo.core.trail import Trail

if TYPE_CHECKING:
    from ovlo.core.colour import Colour
    from ovlo.core.sheet import Sheet


class Nib(Steering):
    """The steered pen. `Sheet.new_nib` makes one.

    Examples
    --------
    >>> from ovlo import Sheet
    >>> nib = Sheet(640, 480).new_nib(heading=90)
    >>> nib.forward(50)
    >>> nib.pose
    Pose(x=0.0, y=50.0, heading=90.0)
    """

    __slots__ = ("_sheet", "start")

    def __init__(self, trail: Trail, number: int, pose: Pose, style: Style, sheet: Sheet) -> None:
        super().__init__(trail, number, pose, style)
        self._sheet = sheet
        self.start = pose
        """The pose it was made with."""

    def __repr__(self) -> str:
        pen = "lifted" if self._is_lifted else "lowered"
        return f"<Nib at ({self._x:g}, {self._y:g}), heading {self._heading:g}, {pen}>"

    @property
    def sheet(self) -> Sheet:
        """The sheet this nib draws on."""
        return self._sheet

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
        """The colour of lines: set a CSS colour string or a `Colour`; black at first."""
        return self._style.ink

    @ink.setter
    def ink(self, value: str | Colour) -> None:
        self._style = self._style._replace(ink=colour.parse(value, "ink"))
        self._run = None

    @property
    def line_width(self) -> float:
        """The width of lines in sheet units, above 0; 2 px at first."""
        return self._style.line_width

    @line_width.setter
    def line_width(self, value: float) -> None:
        width = arguments.positive(value, "line_width", "the width")
        self._style = self._style._replace(line_width=width)
        self._run = None

    def close(self) -> None:
        """Go straight back to where this contour began, joined there; the heading stays as it is.

        A contour begins where the nib was made, at a travel or a lifted move, at `lower`, and on entering
        `returning`. The corner is joined as SVG's `Z` joins it. A contour with nothing drawn stays so.

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
