"""Spirals as circular arcs, so that they stay smooth however large they are shown.

start, steps, arcs = spiral_arcs(rounds=4, radius=80, inner_radius=0, growth="linear", heading=0)
"""

from __future__ import annotations

from math import ceil, log, pi

import numpy as np
from numpy.typing import NDArray

from ovlo.core.trail.columns import ARC
from ovlo.core.values.arrays import Floats
from ovlo.core.values.degrees import DEGREE

Point = tuple[float, float]


def spiral_arcs(
    rounds: float, radius: float, inner_radius: float, growth: str, heading: float
) -> tuple[Point, Floats, NDArray[np.void]]:
    """A spiral around the origin as circular arcs, each through three points of the true curve."""
    whole = 2 * pi * rounds
    rate = _rate(rounds, radius, inner_radius) if growth == "exponential" else 0.0
    count = piece_count(rounds, radius, inner_radius, growth)
    shares = np.arange(2 * count + 1) / (2 * count)
    if growth == "exponential":
        distances = inner_radius * np.exp(shares * (log(radius) - log(inner_radius)))
    else:
        distances = inner_radius + (radius - inner_radius) * shares
    angles = heading * DEGREE + whole * shares
    points = np.column_stack([distances * np.cos(angles), distances * np.sin(angles)])
    change = rate * distances if growth == "exponential" else (radius - inner_radius) / abs(whole)
    # The tangent is the direction across the radius, leaning outwards by atan(r' / r).
    lean = np.arctan2(change, distances)
    sense = 1 if rounds > 0 else -1
    headings = np.degrees(angles + sense * (pi / 2 - lean)) % 360.0
    steps = np.column_stack([points[2::2], headings[2::2]])
    start = float(points[0, 0]), float(points[0, 1])
    return start, steps, _arcs_through(points[:-2:2], points[1::2], points[2::2])


def piece_count(rounds: float, radius: float, inner_radius: float, growth: str) -> int:
    """Of how many arcs a spiral is made.

    Over an angle a, the distance of such an arc from the curve is at most about |dr/da|·a³/60: the curvature
    changes by about (dr/da)/r² along the curve, and a circle through the ends and the middle of a piece of
    length s = r·a leaves a cubic error of (change of curvature)·s³/(36·√3). It is kept below 0.005 units.
    """
    whole = abs(2 * pi * rounds)
    # As shares of the radius, so that the smallest ones do not vanish.
    tolerance = min(0.005 / radius, 1e-4)
    steepest = (
        _rate(rounds, radius, inner_radius)
        if growth == "exponential"
        else (1 - inner_radius / radius) / whole
    )
    widest = min((60 * tolerance / steepest) ** (1 / 3), pi / 12) if steepest else pi / 12
    return max(ceil(whole / widest - 1e-9), 1)


def _rate(rounds: float, radius: float, inner_radius: float) -> float:
    """By which power of e a spiral grows in a radian."""
    return (log(radius) - log(inner_radius)) / abs(2 * pi * rounds)


def _arcs_through(first: Floats, middle: Floats, last: Floats) -> NDArray[np.void]:
    """The circular arcs from first over middle to last, each of shape (a, 2); straight ones are left out."""
    b, c = middle - first, last - first
    cross = b[:, 0] * c[:, 1] - b[:, 1] * c[:, 0]
    size = np.hypot(c[:, 0], c[:, 1])
    bent = np.flatnonzero(np.abs(cross) > 1e-12 * size**2)
    b, c, cross = b[bent], c[bent], cross[bent]
    # The circumcentre relative to the first point.
    bb, cc = (b**2).sum(axis=1), (c**2).sum(axis=1)
    centre = np.column_stack([c[:, 1] * bb - b[:, 1] * cc, b[:, 0] * cc - c[:, 0] * bb])
    centre /= 2 * cross[:, None]
    u, end = -centre, c - centre
    sense = np.sign(cross)
    v = np.column_stack([-u[:, 1], u[:, 0]]) * sense[:, None]
    turned = np.arctan2((v * end).sum(axis=1), (u * end).sum(axis=1)) % (2 * pi)
    arcs = np.empty(len(bent), ARC)
    arcs["step"], arcs["sweep"] = bent, np.degrees(turned)
    arcs["ux"], arcs["uy"], arcs["vx"], arcs["vy"] = u[:, 0], u[:, 1], v[:, 0], v[:, 1]
    return arcs
