"""The position and heading of a nib: `Pose(x, y, heading)`."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ovlo.core.values.sealed import unchanging


@unchanging
@dataclass(frozen=True, slots=True, eq=False)
class Pose:
    """A position and a heading.

    Attributes
    ----------
    x, y : float
        Sheet units from the centre of the sheet, y up.
    heading : float
        Degrees in [0, 360), 0 east, increasing anticlockwise.

    Examples
    --------
    >>> from ovlo import Sheet
    >>> Sheet(640, 480).new_nib(x=-20, heading=90).pose
    Pose(x=-20.0, y=0.0, heading=90.0)
    """

    x: float = 0.0
    y: float = 0.0
    heading: float = 0.0

    def __iter__(self) -> Iterator[float]:
        """x, y and heading, for unpacking: `x, y, heading = nib.pose`."""
        return iter((self.x, self.y, self.heading))

    def __eq__(self, other: object) -> bool:
        # A pose is as good as its numbers, also where somebody compares it with a plain tuple.
        return tuple(self) == tuple(other) if isinstance(other, Pose | tuple) else NotImplemented

    def __hash__(self) -> int:
        return hash(tuple(self))


def point_in_words(x: float, y: float) -> str:
    """A point as a sentence has it, with four digits: (57.92, 0); what is only rounding is 0."""
    return "({:.4g}, {:.4g})".format(*(round(part, 9) + 0.0 for part in (x, y)))
