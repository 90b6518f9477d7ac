"""The look of a nib's lines, and whether its pen is on the paper at all.

nib.ink, nib.line_width = "tomato", 5
nib.lift()
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from numbers import Number
from typing import Any, get_args

from ovlo.core.pen.steering import Steering
from ovlo.core.trail.columns import Style
from ovlo.core.values import arguments, colour
from ovlo.core.values.choices import LineCap, LineJoin
from ovlo.core.values.colour import Colour
from ovlo.core.values.errors import BadType, BadValue, UnknownName


class Styling(Steering):
    """The pen of a nib and its style."""

    __slots__ = ()

    @property
    def is_lifted(self) -> bool:
        """Whether the pen is off the paper, where it leaves no mark of any kind."""
        return self._is_lifted

    @is_lifted.setter
    def is_lifted(self, value: object) -> None:
        raise UnknownName(
            "is_lifted is read-only; lift() and lower() set it, and `with nib.lifted():` lifts for a block."
        )

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
        """The colour of lines and texts: set a CSS colour string or a `Colour`; black by default."""
        return self._style.ink

    @ink.setter
    def ink(self, value: str | Colour) -> None:
        # Inks change more often than all else, so they take the short way.
        _, line_width, line_dash, line_cap, line_join = self._style
        self._style = Style(colour.parse(value, "ink"), line_width, line_dash, line_cap, line_join)
        self._run = None

    @property
    def line_width(self) -> float:
        """The width of lines in sheet units, above 0; 2 px by default."""
        return self._style.line_width

    @line_width.setter
    def line_width(self, value: float) -> None:
        self._restyle(line_width=value)

    @property
    def line_dash(self) -> tuple[float, ...]:
        """Lengths of dashes and gaps, alternating, in sheet units; () is a solid line, the default."""
        return self._style.line_dash

    @line_dash.setter
    def line_dash(self, value: float | Sequence[float] | None) -> None:
        self._restyle(line_dash=value)

    @property
    def line_cap(self) -> LineCap:
        """How lines end: "butt", "round" (the default) or "square", as in SVG."""
        return self._style.line_cap

    @line_cap.setter
    def line_cap(self, value: LineCap) -> None:
        self._restyle(line_cap=value)

    @property
    def line_join(self) -> LineJoin:
        """How lines meet at corners: "miter", "round" (the default) or "bevel", as in SVG.

        A mitre longer than ten times its line's width becomes a bevel.
        """
        return self._style.line_join

    @line_join.setter
    def line_join(self, value: LineJoin) -> None:
        self._restyle(line_join=value)

    def _restyle(self, **changes: object) -> None:
        self._style = self._style._replace(**checked_changes(changes))
        self._run = None


def checked_changes(changes: dict[str, object]) -> dict[str, Any]:
    """Attributes of a style by name, every one of them checked."""
    return {name: CHECKS[name](value) for name, value in changes.items()}


def _line_dash(value: object) -> tuple[float, ...]:
    if value is None:
        return ()
    if isinstance(value, str):
        raise BadType(
            f"line_dash: give lengths, not {arguments.brief(value)}; (6, 4) makes dashes of 6 and gaps of 4."
        )
    is_one = isinstance(value, str | bytes | Number) or not isinstance(value, Iterable)
    many = [value] if is_one else arguments.listed(value, "line_dash", "", "as in (6, 4)")
    lengths = tuple(arguments.not_negative(length, "line_dash", "each length") for length in many)
    if lengths and not any(lengths):
        raise BadValue(
            f"line_dash: at least one length must be above 0, but all are 0 in {arguments.brief(value)}; "
            "() is a solid line."
        )
    # SVG repeats an odd list once, so that dashes and gaps swap.
    return lengths * 2 if len(lengths) % 2 else lengths


CHECKS: dict[str, Callable[[object], object]] = {
    "ink": lambda value: colour.parse(value, "ink"),
    "line_width": lambda value: arguments.positive(value, "line_width", ""),
    "line_dash": _line_dash,
    "line_cap": lambda value: arguments.choice(value, "line_cap", "", get_args(LineCap)),
    "line_join": lambda value: arguments.choice(value, "line_join", "", get_args(LineJoin)),
}
