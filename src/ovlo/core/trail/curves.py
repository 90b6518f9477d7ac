"""Curves: points along them, their boxes and their lengths.

    points_at(arcs, starts, ends, shares)

An arc starts at p and is p + u·(cos t - 1) + v·sin t for t from 0 to its sweep, u and v being conjugate
half-axes of its ellipse (a circle when they are as long as each other and at right angles). A row with the
sweep 0 is a cubic Bézier curve instead, u and v leading from its start to its control points; such come only
from imported files.
"""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

import numpy as np
from numpy.typing import NDArray

from ovlo.core.trail.columns import Columns
from ovlo.core.values.arrays import Bools, Floats, Ints

MOST_CHORDS = 100_000


def half_axes(arcs: NDArray[np.void]) -> tuple[Floats, Floats]:
    """u and v of each arc, each of shape (a, 2)."""
    return np.column_stack([arcs["ux"], arcs["uy"]]), np.column_stack([arcs["vx"], arcs["vy"]])


def is_cubic(arcs: NDArray[np.void]) -> Bools:
    """Which of the curves are cubic, shape (a,)."""
    cubic: Bools = arcs["sweep"] == 0
    return cubic


def signed_sweeps(arcs: NDArray[np.void]) -> Floats:
    """The angle by which each arc turns, to the left above 0; 0 for cubic curves, shape (a,)."""
    sweeps: Floats = np.sign(arcs["ux"] * arcs["vy"] - arcs["uy"] * arcs["vx"]) * arcs["sweep"]
    return sweeps


def points_at(arcs: NDArray[np.void], starts: Floats, ends: Floats, shares: Floats) -> Floats:
    """The point of each curve at a share of its sweep (or of a cubic's parameter), shape (a, 2)."""
    u, v = half_axes(arcs)
    radians = np.radians(arcs["sweep"] * shares)[:, None]
    points: Floats = starts + u * (np.cos(radians) - 1) + v * np.sin(radians)
    cubic = is_cubic(arcs)
    if cubic.any():
        t = shares[cubic, None]
        points[cubic] = starts[cubic] + _bezier(u[cubic], v[cubic], (ends - starts)[cubic], t)
    return points


def _bezier(u: Floats, v: Floats, w: Floats, t: Floats) -> Floats:
    """A cubic from the origin with the control points u and v to w."""
    return 3 * (1 - t) ** 2 * t * u + 3 * (1 - t) * t**2 * v + t**3 * w


def chord_counts(arcs: NDArray[np.void], starts: Floats, ends: Floats, tolerance: float) -> Ints:
    """How many chords keep each curve within a tolerance, shape (a,).

    A chord over the angle a lies radius·(1 - cos(a/2)) inside a circle, and inside an ellipse at most that of
    its longer half-axis, which is below √(u² + v²). For a cubic it is Wang's formula, √(6/8 · d / tolerance)
    with d the largest second difference of its points.
    """
    u, v = half_axes(arcs)
    radii = np.sqrt((u**2).sum(axis=1) + (v**2).sum(axis=1))
    share = np.clip(tolerance / np.maximum(radii, 1e-300), 1e-12, 1.0)
    angles = np.minimum(np.degrees(2 * np.arccos(1 - share)), 45.0)
    shares = np.abs(arcs["sweep"]) / angles
    cubic = is_cubic(arcs)
    if cubic.any():
        first, second, last = u[cubic], v[cubic], (ends - starts)[cubic]
        bends = np.maximum(np.hypot(*(second - 2 * first).T), np.hypot(*(first - 2 * second + last).T))
        shares[cubic] = np.sqrt(0.75 * bends / max(tolerance, 1e-300))
    return _counts(shares)


def quarter_counts(arcs: NDArray[np.void]) -> Ints:
    """Into how many pieces of at most 90° each arc is to be cut, shape (a,)."""
    return _counts(np.abs(arcs["sweep"]) / 90 - 1e-9)


def _counts(shares: Floats) -> Ints:
    counts: Ints = np.clip(np.ceil(shares), 1, MOST_CHORDS).astype(np.int64)
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
        extreme = np.where(met & (sweeps != 0), centres + sign * reach, starts)
        low, high = np.minimum(low, extreme), np.maximum(high, extreme)
    cubic = is_cubic(arcs)
    if cubic.any():
        for extreme in _bezier_extremes(u[cubic], v[cubic], (ends - starts)[cubic]):
            low[cubic] = np.minimum(low[cubic], starts[cubic] + extreme)
            high[cubic] = np.maximum(high[cubic], starts[cubic] + extreme)
    return low, high


def _bezier_extremes(u: Floats, v: Floats, w: Floats) -> list[Floats]:
    """Where each coordinate of a cubic from the origin stands still, at the two roots of its derivative."""
    a, b, c = w - 3 * v + 3 * u, 2 * (v - 2 * u), u
    root = np.sqrt(np.maximum(b * b - 4 * a * c, 0.0))
    # The form that does not cancel (Press et al., Numerical Recipes, 5.6).
    q = -(b + np.where(b < 0, -root, root)) / 2
    with np.errstate(divide="ignore", invalid="ignore"):
        roots = (np.nan_to_num(q / a, posinf=0, neginf=0), np.nan_to_num(c / q, posinf=0, neginf=0))
    return [_bezier(u, v, w, np.clip(t, 0.0, 1.0)) for t in roots]


def lengths(arcs: NDArray[np.void], spans: Floats) -> Floats:
    """How long each curve is, shape (a,); `spans` lead from its start to its end.

    A circle's arc is radius times angle. For the others the speed is integrated by Gauss-Legendre quadrature
    with 16 nodes over pieces of 45° at most, or eighths of a cubic.
    """
    u, v = half_axes(arcs)
    radii = np.hypot(u[:, 0], u[:, 1])
    is_circle = np.isclose(radii, np.hypot(v[:, 0], v[:, 1]), rtol=1e-12, atol=0) & (
        np.abs((u * v).sum(axis=1)) <= 1e-12 * radii**2
    )
    found: Floats = radii * np.radians(np.abs(arcs["sweep"]))
    cubic = is_cubic(arcs)
    for i in np.flatnonzero(~is_circle | cubic):
        if cubic[i]:
            found[i] = _integrated(partial(_bezier_speed, u[i], v[i], spans[i]), 1.0, 8)
        else:
            sweep = np.radians(arcs["sweep"][i])
            found[i] = _integrated(partial(_ellipse_speed, u[i], v[i]), sweep, int(abs(sweep) // 0.785) + 1)
    return found


def _ellipse_speed(u: Floats, v: Floats, t: Floats) -> Floats:
    speed: Floats = np.hypot(*(v[:, None] * np.cos(t) - u[:, None] * np.sin(t)))
    return speed


def _bezier_speed(u: Floats, v: Floats, w: Floats, t: Floats) -> Floats:
    sides = u[:, None] * (1 - t) ** 2 + 2 * (v - u)[:, None] * (1 - t) * t + (w - v)[:, None] * t**2
    speed: Floats = 3 * np.hypot(*sides)
    return speed


def _integrated(speed: Callable[[Floats], Floats], end: float, pieces: int) -> float:
    """The integral of a speed from 0 to an end."""
    nodes, weights = np.polynomial.legendre.leggauss(16)
    half = end / pieces / 2
    middles = half * (2 * np.arange(pieces)[:, None] + 1)
    return float(abs(half) * (speed((middles + half * nodes).ravel()).reshape(pieces, -1) @ weights).sum())


def step_lengths(columns: Columns) -> Floats:
    """How long each step of a trail is, in sheet units, shape (n,); arcs along the arc."""
    moves = columns.points - columns.starts
    found: Floats = np.hypot(moves[:, 0], moves[:, 1])
    curved = columns.arcs["step"]
    found[curved] = lengths(columns.arcs, moves[curved])
    return found
