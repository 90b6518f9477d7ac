"""Blocks, which `with` opens on a nib and which restore what they changed; and the loop of a full turn.

    with nib.styled(ink="tomato"), nib.area("gold"):
        for _ in nib.full_turn(5):
            nib.forward(90)

The blocks that are open stand on the nib, the innermost last. One that ends while a later one of its kind is
open, as may happen in generators, leaves it to that one to put back what was before both.
"""

from __future__ import annotations

import sys
from collections.abc import Iterator, Sequence
from math import hypot
from types import FrameType
from typing import Any

from ovlo.core.pen.look import Styling, checked_changes
from ovlo.core.pen.steering import Contour, Steering
from ovlo.core.pen.unused import HOW, Unused
from ovlo.core.trail.columns import DRAW, FILL_RULES, TRACE
from ovlo.core.values import arguments, colour
from ovlo.core.values.choices import FillRule, LineCap, LineJoin
from ovlo.core.values.colour import Colour
from ovlo.core.values.degrees import normal
from ovlo.core.values.errors import BadUse

CAME_BACK = 1e-9
"""A nib this close to a point, relative to its coordinates, is there but for rounding."""


class Block(Unused):
    """What `with` opens on a nib."""

    __slots__ = ()

    FIX = (
        "{call}: a block does nothing by itself; write `with nib.{how}:` and indent the lines that belong "
        "to it."
    )

    def __enter__(self) -> None:
        if self._is_open:  # in a recursion, looking among all open ones would take ever longer
            raise BadUse(
                f"{self._call}: this block is already open; make a new one with nib.{self._call}(…)."
            )
        self._code = None
        self._begin()
        self._nib._blocks.append(self)
        self._is_open = True

    def __exit__(self, *_: object) -> None:
        blocks = self._nib._blocks
        self._is_open = False
        later = None
        if blocks[-1] is self:
            del blocks[-1]
        else:
            at = blocks.index(self)
            del blocks[at]
            later = next((block for block in blocks[at:] if type(block) is type(self)), None)
        if later is None:
            self._end()
        else:
            self._hand_over(later)

    def __bool__(self) -> bool:
        asked = "; nib.is_lifted says whether the pen is lifted" if self._call == "lifted" else ""
        self._code = None
        raise BadUse(
            f"{self._call}: a block cannot be used as a condition; open it by `with "
            f"nib.{HOW[self._call]}:`{asked}."
        )

    def _begin(self) -> None:
        """Change the nib, and keep what was before."""
        raise NotImplementedError

    def _end(self) -> None:
        """Put back what was before."""
        raise NotImplementedError

    def _hand_over(self, later: Any) -> None:
        """Let a later block of this kind put back what was before this one."""
        raise NotImplementedError

    def _forget_marks(self) -> None:
        """Go on, on a sheet that was cleared."""


class _Lifted(Block):
    __slots__ = ("_was_lifted",)
    _nib: Styling

    def _begin(self) -> None:
        self._was_lifted = self._nib._is_lifted
        self._nib.lift()

    def _end(self) -> None:
        if self._was_lifted:
            self._nib.lift()
        else:
            self._nib.lower()

    def _hand_over(self, later: _Lifted) -> None:
        later._was_lifted = self._was_lifted


class _Styled(Block):
    __slots__ = ("_changes", "_kept")

    def __init__(self, nib: Steering, changes: dict[str, Any], made_at: FrameType) -> None:
        super().__init__(nib, "styled", made_at)
        self._changes = changes

    def _begin(self) -> None:
        style = self._nib._style
        self._kept = {name: getattr(style, name) for name in self._changes}
        self._put(self._changes)

    def _end(self) -> None:
        self._put(self._kept)

    def _put(self, values: dict[str, Any]) -> None:
        self._nib._style = self._nib._style._replace(**values)
        self._nib._run = None

    def _hand_over(self, later: _Styled) -> None:
        self._put({name: value for name, value in self._kept.items() if name not in later._kept})
        later._kept |= {name: value for name, value in self._kept.items() if name in later._kept}


class _Interrupting(Block):
    """A block in which other contours are walked than before it."""

    __slots__ = ("_contour",)

    def _interrupt(self) -> None:
        """Begin a contour, and keep the one that is interrupted."""
        nib = self._nib
        self._contour: Contour | None = nib._contour, nib._contour_start, nib._traced_contour
        nib._run = None
        nib._begin_contour()

    def _go_on(self) -> None:
        """Go on with the contour that was interrupted."""
        nib = self._nib
        nib._run = None
        if self._contour is None:
            nib._begin_contour()
        else:
            nib._contour, nib._contour_start, nib._traced_contour = self._contour


class _Returning(_Interrupting):
    __slots__ = ("_pose",)

    def _begin(self) -> None:
        nib = self._nib
        self._pose = nib._x, nib._y, nib._heading
        self._interrupt()

    def _end(self) -> None:
        nib, (x, y, heading) = self._nib, self._pose
        if nib._x != x or nib._y != y:
            nib._jump(x, y)
        nib._set_heading(heading)
        self._go_on()

    def _hand_over(self, later: _Returning) -> None:
        later._pose, later._contour = self._pose, self._contour

    def _forget_marks(self) -> None:
        self._contour = None


class _Area(_Interrupting):
    __slots__ = ("_area", "_before", "_fill", "_fill_rule", "_pen", "_place")

    def __init__(
        self, nib: Steering, fill: Colour, outline: bool, fill_rule: str, made_at: FrameType
    ) -> None:
        super().__init__(nib, "area", made_at)
        self._fill, self._fill_rule = fill, fill_rule
        self._pen = DRAW if outline else TRACE

    def _begin(self) -> None:
        self._open()
        self._place = self._nib._x, self._nib._y
        self._interrupt()

    def _open(self) -> None:
        nib = self._nib
        self._area = nib._trail.open_area(self._fill, self._fill_rule)
        self._before = nib._area, nib._lowered_pen
        nib._area, nib._lowered_pen = self._area, self._pen
        nib._jump_run = None

    def _end(self) -> None:
        nib = self._nib
        nib._trail.end_area(self._area)
        nib._area, nib._lowered_pen = self._before
        nib._run = nib._jump_run = None
        # Back where it was, the nib goes on with the contour that the block interrupted.
        x, y = self._place
        if hypot(nib._x - x, nib._y - y) <= CAME_BACK * (1 + abs(nib._x) + abs(nib._y)):
            self._go_on()

    def _hand_over(self, later: _Area) -> None:
        self._nib._trail.end_area(self._area)
        later._before, later._place, later._contour = self._before, self._place, self._contour

    def _forget_marks(self) -> None:
        self._open()
        self._contour = None


class Rounds(Unused):
    """The rounds of a loop: 0, 1, … with a turn after each."""

    __slots__ = ("_count", "_rounds")

    FIX = "{call}: this does nothing by itself; write `for _ in nib.{how}:` and indent the lines to repeat."

    def __init__(self, nib: Steering, count: int, rounds: int, made_at: FrameType) -> None:
        super().__init__(nib, "full_turn", made_at)
        self._count, self._rounds = count, rounds

    def __iter__(self) -> Iterator[int]:
        self._code = None
        return self._turning()

    def __len__(self) -> int:
        return self._count

    def _turning(self) -> Iterator[int]:
        nib, count, rounds = self._nib, self._count, self._rounds
        start = nib._heading
        for i in range(count):
            before = nib._heading
            yield i
            if nib._heading != before:  # the body turned: the whole round is turned with it
                start += nib._heading - before
            # Whole numbers keep the remainder exact, so the last one is 0 and the heading is `start`.
            nib._set_heading(normal(start + 360 * rounds * (i + 1) % (360 * count) / count))


class Blocks(Styling):
    """The blocks and the loop of a nib."""

    __slots__ = ()

    def lifted(self) -> Block:
        """Open a block in which the pen is lifted; afterwards it is as before.

        Examples
        --------
        >>> with nib.lifted():
        ...     nib.forward(40)
        >>> nib.is_lifted
        False
        """
        return _Lifted(self, "lifted", sys._getframe(1))

    def styled(
        self,
        *,
        ink: str | Colour | None = None,
        line_width: float | None = None,
        line_dash: float | Sequence[float] | None = None,
        line_cap: LineCap | None = None,
        line_join: LineJoin | None = None,
    ) -> Block:
        """Open a block in another style; afterwards the style is as before.

        Parameters
        ----------
        ink, line_width, line_dash, line_cap, line_join
            As the attributes of these names; those left out are unchanged. `line_dash=()` is a solid line.

        Raises
        ------
        BadValue, BadType
            If one of them is not valid; nothing has changed then.

        Examples
        --------
        >>> with nib.styled(ink="tomato", line_width=5):
        ...     nib.forward(40)
        >>> nib.line_width
        2.0
        """
        given = {
            "ink": ink,
            "line_width": line_width,
            "line_dash": line_dash,
            "line_cap": line_cap,
            "line_join": line_join,
        }
        changes = checked_changes({name: value for name, value in given.items() if value is not None})
        return _Styled(self, changes, sys._getframe(1))

    def area(self, fill: str | Colour, *, outline: bool = True, fill_rule: FillRule = "nonzero") -> Block:
        """Open a block whose contours are painted as one area.

        The area lies under every mark made inside the block and over every earlier mark. Each contour is
        closed for the area. Blocks can be nested; an inner block's contours belong to it alone. After an
        exception the area is what was traced so far.

        Parameters
        ----------
        fill : str or Colour
            The colour of the area.
        outline : bool
            Whether to draw the lines walked inside the block.
        fill_rule : "nonzero" or "evenodd"
            What counts as inside, as in SVG's `fill-rule`; with "evenodd" a contour inside another is a hole.

        Raises
        ------
        BadValue, BadType
            If the colour is unknown or there is no such rule; nothing has changed then.

        Examples
        --------
        >>> with nib.area("tomato"):
        ...     for _ in nib.full_turn(4):
        ...         nib.forward(90)
        """
        if outline is not True:
            outline = arguments.truth(outline, "area", "outline")
        if fill_rule is not FILL_RULES[0]:
            fill_rule = arguments.choice(fill_rule, "area", "fill_rule", FILL_RULES)
        return _Area(self, colour.parse(fill, "area"), outline, fill_rule, sys._getframe(1))

    def returning(self) -> Block:
        """Open a block after which the nib is back at its earlier pose; no line is drawn on the way back.

        The contour that the block interrupts continues afterwards. The style is not restored.

        Examples
        --------
        A string that hangs from the kite:

        >>> with nib.returning():
        ...     nib.turn_to(270)
        ...     nib.forward(80)
        >>> nib.pose
        Pose(x=0.0, y=0.0, heading=0.0)
        """
        return _Returning(self, "returning", sys._getframe(1))

    def full_turn(self, count: int, rounds: int = 1, *, clockwise: bool = False) -> Rounds:
        """Run the body of a loop `count` times, turning by 360·rounds/count after each.

        A body that walks one side gives a regular polygon; a body that returns to its start gives a rosette.
        Headings are computed as start + 360·rounds·i/count, not summed, so that all turns together come to
        exactly `rounds` times 360. Turns made by the body itself are kept.

        Parameters
        ----------
        count : int
            How many times to run the body, 1 or more.
        rounds : int
            How many times to go round in all, 1 or more; `full_turn(5, rounds=2)` walks a five-pointed star.
        clockwise : bool
            Turn right instead of left.

        Returns
        -------
        iterable of int
            0 to count - 1.

        Raises
        ------
        BadValue, BadType
            If `count` or `rounds` is not a whole number of 1 or more.

        Examples
        --------
        >>> for _ in nib.full_turn(6):
        ...     nib.forward(30)
        >>> nib.heading
        0.0
        """
        count = arguments.whole(count, "full_turn", "count", least=1)
        rounds = arguments.whole(rounds, "full_turn", "rounds", least=1)
        clockwise = arguments.truth(clockwise, "full_turn", "clockwise")
        return Rounds(self, count, -rounds if clockwise else rounds, sys._getframe(1))
