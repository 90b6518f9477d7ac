"""Arcs: points along them, their boxes and their lengths.

    points_at(arcs, starts, shares)

An arc starts at p and is p + u·(cos t - 1) + v·sin t for t from 0 to its sweep, u and v being conjugate
half-axes of its ellipse (a circle when they are as long as each other and at right angles).
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]

MOST_CHORDS = 100_000


def half_axes(arcs: NDArray[np.void]) -> tuple[Floats, Floats]:
    """u and v of each arc, each of shape (a, 2)."""
    return np.column_stack([arcs["ux"], arcs["uy"]]), np.column_stack([arcs["vx"], arcs["vy"]])


def points_at(arcs: NDArray[np.void], starts: Floats, angles: Floats) -> Floats:
    """The point of each arc at an angle in degrees from its start, shape (a, 2)."""
    u, v = half_axes(arcs)
    radians = np.radians(angles)[:, None]
    points: Floats = starts + u * (np.cos(radians) - 1) + v * np.sin(radians)
    return points


def chord_counts(arcs: NDArray[np.void], tolerance: float) -> NDArray[np.int64]:
    """How many chords keep each arc within a tolerance, shape (a,).

    A chord over the angle a lies radius·(1 - cos(a/2)) inside a circle, and inside an ellipse at most that of
    its longer half-axis, which is below √(u² + v²).
    """
    u, v = half_axes(arcs)
    radii = np.sqrt((u**2).sum(axis=1) + (v**2).sum(axis=1))
    share = np.clip(tolerance / np.maximum(radii, 1e-300), 1e-12, 1.0)
    angles = np.minimum(np.degrees(2 * np.arccos(1 - share)), 45.0)
    return _counts(np.abs(arcs["sweep"]) / angles)


def quarter_counts(arcs: NDArray[np.void]) -> NDArray[np.int64]:
    """Into how many pieces of at most 90° each arc is to be cut, shape (a,)."""
    return _counts(np.abs(arcs["sweep"]) / 90 - 1e-9)


def _counts(shares: Floats) -> NDArray[np.int64]:
    counts: NDArray[np.int64] = np.clip(np.ceil(shares), 1, MOST_CHORDS).astype(np.int64)
    return counts


def boxes(arcs: NDArray[np.void], starts: Floats, ends: Floats) -> tuple[Floats, Floats]:
    """The lower left and upper right corners of each arc's box, each of shape (a, 2).

    Along an axis the arc is u·cos t + v·sin t, which is extreme where tan t = v/u.
    """
    u, v = half_axes(arcs)
    reach = np.hypot(u, v)
    centres = starts - u
    sweeps = arcs["sweep"][:, None]
    low, high = np.minimum(starts, ends), np.maximum(starts, ends)
    crest = np.degrees(np.arctan2(v, u))
    for angle, sign in ((crest, 1.0), (crest + 180.0, -1.0)):
        # The first time the extreme is met, going the way the arc goes.
        met = np.where(sweeps >= 0, angle % 360.0, -angle % 360.0) <= np.abs(sweeps)
        extreme = np.where(met, centres + sign * reach, starts)
        low, high = np.minimum(low, extreme), np.maximum(high, extreme)
    return low, high


def lengths(arcs: NDArray[np.void]) -> Floats:
    """How long each arc is, shape (a,): Gauss-Legendre quadrature of its speed, 16 nodes to 45° at most."""
    u, v = half_axes(arcs)
    radii = np.hypot(u[:, 0], u[:, 1])
    is_circle = np.isclose(radii, np.hypot(v[:, 0], v[:, 1]), rtol=1e-12, atol=0) & (
        np.abs((u * v).sum(axis=1)) <= 1e-12 * radii**2
    )
    sweeps = np.radians(np.abs(arcs["sweep"]))
    found: Floats = radii * sweeps
    for i in np.flatnonzero(~is_circle):
        found[i] = _ellipse_length(u[i], v[i], np.radians(arcs["sweep"][i]))
    return found


def _ellipse_length(u: Floats, v: Floats, sweep: float) -> float:
    nodes, weights = np.polynomial.legendre.leggauss(16)
    count = max(1, int(np.ceil(abs(sweep) / (np.pi / 4))))
    edges = np.linspace(0, sweep, count + 1)
    half = sweep / count / 2
    t = (edges[:-1, None] + half + half * nodes).ravel()
    speed = np.hypot(*(v[:, None] * np.cos(t) - u[:, None] * np.sin(t)))
    return float(abs(half) * (speed.reshape(count, -1) @ weights).sum())
