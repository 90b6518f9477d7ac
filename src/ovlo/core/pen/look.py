"""What a nib's lines look like, and whether its pen is on the paper at all.

nib.ink, nib.line_width = "tomato", 5
nib.lift()
"""

from __future__ import annotations

from collections.abc import Sequence

from ovlo.core.pen.steering import Steering
from ovlo.core.pen.style_checks import restyled
from ovlo.core.trail.columns import Style
from ovlo.core.values import colour
from ovlo.core.values.colour import Colour
from ovlo.core.values.errors import UnknownName


class Looks(Steering):
    """The pen of a nib and its style."""

    __slots__ = ()

    @property
    def is_lifted(self) -> bool:
        """Whether the pen is off the paper, where it leaves no mark of any kind."""
        return self._is_lifted

    @is_lifted.setter
    def is_lifted(self, value: object) -> None:
        raise UnknownName("is_lifted: it is not set by =; use lift(), lower() or `with nib.lifted():`.")

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
        self._begin_contour()

    @property
    def ink(self) -> Colour:
        """The colour of lines and texts: set a CSS colour string or a `Colour`; black at first."""
        return self._style.ink

    @ink.setter
    def ink(self, value: str | Colour) -> None:
        # Inks change more often than all else, so they take the short way.
        _, line_width, line_dash, line_cap, line_join = self._style
        self._style = Style(colour.parse(value, "ink"), line_width, line_dash, line_cap, line_join)
        self._run = None

    @property
    def line_width(self) -> float:
        """The width of lines in sheet units, above 0; 2 px at first."""
        return self._style.line_width

    @line_width.setter
    def line_width(self, value: float) -> None:
        self._restyle(line_width=value)

    @property
    def line_dash(self) -> tuple[float, ...]:
        """Lengths of dashes and gaps in turns, sheet units, as in SVG; () for a solid line, as at first."""
        return self._style.line_dash

    @line_dash.setter
    def line_dash(self, value: float | Sequence[float] | None) -> None:
        self._restyle(line_dash=value)

    @property
    def line_cap(self) -> str:
        """How lines end: "butt", "round" (at first) or "square", as in SVG."""
        return self._style.line_cap

    @line_cap.setter
    def line_cap(self, value: str) -> None:
        self._restyle(line_cap=value)

    @property
    def line_join(self) -> str:
        """How lines meet at corners: "miter", "round" (at first) or "bevel", as in SVG.

        A mitre longer than ten times the width of its line is cut off.
        """
        return self._style.line_join

    @line_join.setter
    def line_join(self, value: str) -> None:
        self._restyle(line_join=value)

    def _restyle(self, **changes: object) -> None:
        self._style = restyled(self._style, changes)
        self._run = None
