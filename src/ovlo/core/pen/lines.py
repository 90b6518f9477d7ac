"""Lines to a place: straight moves that leave the heading as it is.

nib.line_to(60, 80)
nib.line_to_start()
"""

from __future__ import annotations

from ovlo.core.pen.steering import Steering
from ovlo.core.values import arguments


class Lines(Steering):
    """The lines of a nib to a place."""

    __slots__ = ()

    def line_to(self, x: float | tuple[float, float], y: float | None = None) -> None:
        """Go straight to a point, drawing unless the pen is lifted; the heading stays as it is.

        Parameters
        ----------
        x, y : float
            The point in sheet units, or one (x, y) pair.

        Examples
        --------
        >>> nib.line_to(60, 80)
        >>> nib.pose
        Pose(x=60.0, y=80.0, heading=0.0)
        """
        self._go(*arguments.point(x, y, "line_to"))

    def line_by(self, dx: float, dy: float) -> None:
        """Go straight by a distance east and a distance north, drawing unless the pen is lifted.

        The heading stays as it is.

        Parameters
        ----------
        dx, dy : float
            Sheet units.

        Examples
        --------
        >>> nib.line_by(30, 40)
        >>> nib.pose
        Pose(x=30.0, y=40.0, heading=0.0)
        """
        self._go(*self._place_by(dx, dy, "line_by"))

    def line_to_start(self) -> None:
        """Go straight back to where this contour began, joined there; the heading stays as it is.

        A contour begins where the nib was made, at a travel or a lifted move, at `lower`, and on entering
        `area` or `returning`. The corner is joined as SVG's `Z` joins it.
        A contour with nothing drawn stays so.

        Examples
        --------
        Half a kite, closed:

        >>> nib.forward(60)
        >>> nib.left(120)
        >>> nib.forward(60)
        >>> nib.line_to_start()
        >>> nib.position
        (0.0, 0.0)
        """
        if self._is_lifted or self._traced_contour != self._contour:
            return
        self._go(*self._contour_start)
        self._trail.close_contour()
        # Nothing is traced since, so that closing again does nothing.
        self._traced_contour = 0
        self._trail.interrupt()
