"""Travels: moves that never draw, whether the pen is lifted or not.

nib.travel_to(-200, 40)
"""

from __future__ import annotations

from ovlo.core.pen.steering import Steering
from ovlo.core.values import arguments


class Travels(Steering):
    """The travels of a nib."""

    __slots__ = ()

    def travel(self, distance: float) -> None:
        """Move straight ahead without drawing.

        Parameters
        ----------
        distance : float
            Sheet units; a negative one goes back.

        Examples
        --------
        >>> nib.travel(90)
        >>> nib.position
        (90.0, 0.0)
        """
        distance = arguments.real(distance, "travel", "distance")
        self._jump(*self._place_by(distance * self._cosine, distance * self._sine, "travel"))

    def travel_to(self, x: float | tuple[float, float], y: float | None = None) -> None:
        """Move to a point without drawing; the heading stays as it is.

        Parameters
        ----------
        x, y : float
            The point in sheet units, or one (x, y) pair.

        Examples
        --------
        >>> nib.travel_to(-200, 40)
        >>> nib.position
        (-200.0, 40.0)
        """
        self._jump(*arguments.point(x, y, "travel_to"))

    def travel_by(self, dx: float, dy: float) -> None:
        """Move by a distance east and a distance north without drawing, whatever the heading.

        Parameters
        ----------
        dx, dy : float
            Sheet units.

        Examples
        --------
        >>> nib.travel_by(0, 25)
        >>> nib.position
        (0.0, 25.0)
        """
        self._jump(*self._place_by(dx, dy, "travel_by"))
