"""Trigonometry in degrees, exact at the multiples of 90.

    x, y = from_polar(100, 90)      # (0.0, 100.0), not (6.1e-15, 100.0)

Radians cannot name a right angle: pi/2 is no float, and cos of the nearest one is 6e-17. So the four
headings along the axes are looked up, and all others are computed.
"""

from __future__ import annotations

from math import cos, sin
from typing import TypeVar

import numpy as np

from ovlo.core.values import arguments
from ovlo.core.values.arrays import Floats

DEGREE = 0.017453292519943295
"""pi / 180"""

ALONG_AXES = {0.0: (1.0, 0.0), 90.0: (0.0, 1.0), 180.0: (-1.0, 0.0), 270.0: (0.0, -1.0)}


def normal(angle: float) -> float:
    """The angle in [0, 360) that points the same way, in degrees."""
    heading = angle % 360.0
    # A tiny negative angle is rounded up to 360 itself.
    return heading if heading < 360.0 else 0.0


def direction(heading: float) -> tuple[float, float]:
    """Cosine and sine of a heading in [0, 360)."""
    if heading % 90.0:
        return cos(heading * DEGREE), sin(heading * DEGREE)
    return ALONG_AXES[heading]


def directions(headings: Floats) -> tuple[Floats, Floats]:
    """Cosines and sines of headings in [0, 360), each of shape (n,)."""
    radians = headings * DEGREE
    cosines, sines = np.cos(radians), np.sin(radians)
    quarters = headings * (1 / 90)
    along = quarters == np.floor(quarters)
    if along.any():
        quarter = quarters[along].astype(np.intp)
        cosines[along] = np.array([1.0, 0.0, -1.0, 0.0])[quarter]
        sines[along] = np.array([0.0, 1.0, 0.0, -1.0])[quarter]
    return cosines, sines


Angles = TypeVar("Angles", float, Floats)


def half_turned(angles: Angles) -> Angles:
    """Angles brought into (-180, 180]."""
    return 180.0 - (180.0 - angles) % 360.0


def from_polar(radius: float, angle: float, centre: tuple[float, float] = (0.0, 0.0)) -> tuple[float, float]:
    """Return the point at a distance and an angle from a centre.

    Parameters
    ----------
    radius : float
        Distance from the centre, in sheet units; a negative radius lies on the opposite side.
    angle : float
        Degrees, anticlockwise from east.
    centre : (x, y)
        The centre.

    Returns
    -------
    (x, y)
        Exact if the angle is a multiple of 90.

    Raises
    ------
    BadValue, BadType
        If a value is not a finite number.

    Examples
    --------
    The top corner of a kite that stands 120 above the pier:

    >>> from_polar(120, 90, centre=(40, 0))
    (40.0, 120.0)
    """
    radius = arguments.real(radius, "from_polar", "radius")
    cosine, sine = direction(normal(arguments.angle(angle, "from_polar", "angle")))
    x, y = arguments.point(centre, None, "from_polar")
    return x + radius * cosine, y + radius * sine
