"""The pen of a nib: up or down, its style, its blocks and its loop.

with nib.styled(ink="tomato"), nib.filled("gold"):
    for _ in nib.full_turn(5):
        nib.forward(90)
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from contextlib import contextmanager

from ovlo.core import arguments, colour
from ovlo.core.colour import Colour
from ovlo.core.columns import RULES, Pen, Style
from ovlo.core.degrees import normal
from ovlo.core.styling import restyled
from ovlo.core.writing import Writing

CAME_BACK = 1e-9
"""A nib this share of its coordinates away from a point is there, but for rounding."""


class PenHolder(Writing):
    """What a nib does with its pen."""

    __slots__ = ()

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
