"""Arcs and cubic curves: where they are, how long, in which box, and how many chords they need."""

from __future__ import annotations

import numpy as np
import pytest

from ovlo.core.trail import curves
from ovlo.core.trail.columns import ARC

CURVES = {
    "quarter": (1, 0, 0, 1, 90),
    "backwards": (1, 0, 0, 1, -200),
    "twice round": (2, 1, -1, 2, 725),
    "ellipse": (3, 0, 0, 1, 300),
    "leaning": (3, 1, 0.5, 1, 140),
    "cubic": (0, 4, 3, 5, 0),
    "wavy cubic": (5, 3, -4, -2, 0),
    "flat cubic": (1, 0, 2, 0, 0),
}
END = np.array([[3.0, 1.0]])


def made(name):
    """The curve, where it begins and ends, and many points along it."""
    *axes, sweep = CURVES[name]
    arc = np.array([(0, *axes, sweep)], ARC)
    u, v = np.array(axes[:2], float), np.array(axes[2:], float)
    start = np.array([[10.0, -4.0]])
    t = np.linspace(0, 1, 20_001)[:, None]
    if sweep:
        angles = np.radians(sweep) * t
        points = start - u + u * np.cos(angles) + v * np.sin(angles)
    else:
        points = start + 3 * (1 - t) ** 2 * t * u + 3 * (1 - t) * t**2 * v + t**3 * END
    return arc, start, points[-1:], points


@pytest.mark.parametrize("name", CURVES)
def test_points_lengths_and_boxes_are_those_of_the_curve(name):
    arc, start, end, points = made(name)
    for share in (0.0, 0.25, 0.7, 1.0):
        at = curves.points_at(arc, start, end, np.array([share]))
        assert at[0] == pytest.approx(points[round(20_000 * share)], abs=1e-9)
    length = np.hypot(*np.diff(points, axis=0).T).sum()
    assert curves.lengths(arc, end - start)[0] == pytest.approx(length, rel=1e-6)
    low, high = curves.boxes(arc, start, end)
    assert low[0] == pytest.approx(points.min(axis=0), abs=1e-5)
    assert high[0] == pytest.approx(points.max(axis=0), abs=1e-5)


@pytest.mark.parametrize("name", CURVES)
@pytest.mark.parametrize("tolerance", [0.5, 0.01, 0.0005])
def test_chords_are_within_the_tolerance_and_not_many_more_than_needed(name, tolerance):
    arc, start, end, _ = made(name)
    count = int(curves.chord_counts(arc, start, end, tolerance)[0])
    ends = curves.points_at(
        np.repeat(arc, count + 1), np.repeat(start, count + 1, 0), np.repeat(end, count + 1, 0),
        np.arange(count + 1) / count,
    )  # fmt: skip
    middles = curves.points_at(
        np.repeat(arc, count), np.repeat(start, count, 0), np.repeat(end, count, 0),
        (np.arange(count) + 0.5) / count,
    )  # fmt: skip
    sides = np.diff(ends, axis=0)
    across = middles - ends[:-1]
    off = np.abs(sides[:, 0] * across[:, 1] - sides[:, 1] * across[:, 0]) / np.maximum(
        np.hypot(*sides.T), 1e-12
    )
    assert off.max() <= tolerance * 1.0001
    if name == "quarter" and count > 2:
        assert off.max() > tolerance / 3
    assert curves.quarter_counts(arc)[0] == max(1, int(np.ceil(abs(CURVES[name][-1]) / 90)))


def test_curves_are_measured_as_what_they_are():
    # Circles by radius times angle, to the last digit; what only looks like one, along its line.
    made = np.array([(0, 3, 4, -4, 3, 90), (0, 3, 4, -4.001, 3, 90), (0, 5, 0, 3, 4, 90)], ARC)
    spans = made["vx"], made["vy"]
    found = curves.lengths(made, np.column_stack(spans) - np.column_stack([made["ux"], made["uy"]]))
    assert found[0] == 5 * np.radians(90)
    angles = np.radians(np.linspace(0, 90, 200_001))
    for k in (1, 2):
        x, y = (made[f"u{axis}"][k] * np.cos(angles) + made[f"v{axis}"][k] * np.sin(angles) for axis in "xy")
        assert found[k] == pytest.approx(np.hypot(np.diff(x), np.diff(y)).sum(), rel=1e-9)


def test_a_cubic_needs_as_many_chords_as_its_second_differences_say():
    """Wang's formula: the root of 6/8 of the largest, over the tolerance."""
    for first, second, last in (
        ((0, 40), (30, 50), (30, 10)),
        ((10, 0), (20, 0), (30, 0)),
        ((0, 9), (9, 0), (50, 0)),
    ):
        a, b, c = map(np.array, (first, second, last))
        largest = max(np.hypot(*(b - 2 * a)), np.hypot(*(a - 2 * b + c)))
        arc = np.array([(0, *first, *second, 0)], ARC)
        count = curves.chord_counts(arc, np.zeros((1, 2)), np.array([last], float), 0.05)
        assert count[0] == max(1, np.ceil(np.sqrt(0.75 * largest / 0.05)))


@pytest.mark.parametrize("sweep", [90.2, 180.2, 270.2, 359.9, -90.2, -180.2, -270.2, -359.9])
@pytest.mark.parametrize("begin", [0, 90, 180, 270])
def test_a_box_reaches_to_an_extreme_that_is_just_passed(begin, sweep):
    angle = np.radians([begin, begin + 90])
    arc = np.array(
        [(0, *np.round(100 * np.column_stack([np.cos(angle), np.sin(angle)])).ravel(), sweep)], ARC
    )
    along = np.radians(np.append(begin + np.sign(sweep) * np.arange(0, abs(sweep), 90), begin + sweep))
    points = 100 * np.column_stack([np.cos(along), np.sin(along)])
    low, high = curves.boxes(arc, points[:1], points[-1:])
    assert low[0] == pytest.approx(points.min(axis=0), abs=1e-9)
    assert high[0] == pytest.approx(points.max(axis=0), abs=1e-9)
