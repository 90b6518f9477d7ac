"""Where a nib stands and which way it points: `Pose(x, y, heading)`."""

from __future__ import annotations

from typing import NamedTuple


class Pose(NamedTuple):
    """A place and a heading.

    Attributes
    ----------
    x, y : float
        Sheet units from the centre of the sheet, y up.
    heading : float
        Degrees in [0, 360), 0 east, growing anticlockwise.

    Examples
    --------
    >>> from ovlo import Sheet
    >>> Sheet(640, 480).new_nib(x=-20, heading=90).pose
    Pose(x=-20.0, y=0.0, heading=90.0)
    """

    x: float = 0.0
    y: float = 0.0
    heading: float = 0.0
