"""The trail as users read it: where every step ended, its heading, and whether it drew.

sheet.trail.x[sheet.trail.is_drawn]
"""

from __future__ import annotations

from ovlo.core.trail.trail import Trail
from ovlo.core.values.arrays import Bools, Floats


class TrailReader:
    """The columnar record of everything drawn on a sheet, read-only.

    Its length is the number of steps. A step is one move of one nib: straight, curved, or a jump (a travel, a
    lifted move, a nib's start). Turns are not steps. Arrays read earlier do not change as the trail grows.

    Examples
    --------
    >>> from ovlo import Sheet
    >>> sheet = Sheet()
    >>> nib = sheet.new_nib()
    >>> nib.forward(90)
    >>> sheet.trail.x
    array([ 0., 90.])
    """

    __slots__ = ("_trail",)

    def __init__(self, trail: Trail) -> None:
        self._trail = trail

    def __len__(self) -> int:
        return len(self._trail)

    def __repr__(self) -> str:
        return f"<trail of {len(self):,} steps>"

    @property
    def x(self) -> Floats:
        """The x at the end of each step, in sheet units, shape (n,)."""
        return self._trail.columns().steps["x"]

    @property
    def y(self) -> Floats:
        """The y at the end of each step, in sheet units up from the centre, shape (n,)."""
        return self._trail.columns().steps["y"]

    @property
    def heading(self) -> Floats:
        """The heading at the end of each step, degrees in [0, 360), shape (n,)."""
        return self._trail.columns().steps["heading"]

    @property
    def is_drawn(self) -> Bools:
        """Whether each step drew a line, shape (n,); jumps do not."""
        return self._trail.columns().is_drawn
