"""Shapes and arcs against known geometry, and what they refuse."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ovlo import BadType, BadValue, Motif, Nib, OvloError, Sheet, from_polar
from ovlo.core.paint.measures import MarkBoxes, drawn_length
from ovlo.core.paint.outlines import CLOSE, MOVE, strokes

poses = st.tuples(st.floats(-200, 200), st.floats(-200, 200), st.floats(0, 359.9))


def nib_at(pose: tuple[float, float, float] = (0, 0, 0)) -> Nib:
    return Sheet(640, 480).new_nib(*pose)


def length(nib: Nib) -> float:
    return drawn_length(nib.sheet._columns)


def box(nib: Nib) -> tuple[float, ...]:
    whole = MarkBoxes.of(nib.sheet._columns, lambda text: (np.zeros(2), np.zeros(2))).whole
    assert whole is not None
    return whole


@given(poses, st.floats(0.1, 300), st.floats(-1000, 1000))
def test_an_arc_is_left_by_the_other_one_backwards(pose, radius, sweep):
    nib = nib_at(pose)
    nib.arc_left(radius, sweep)
    nib.arc_left(radius, -sweep)
    assert math.dist(nib.position, pose[:2]) < 1e-9 * (radius + 200)
    nib.arc_right(radius, sweep)
    expected = 3 * radius * math.radians(abs(sweep))
    assert length(nib) == pytest.approx(expected, abs=1e-9)


@given(poses, st.floats(0.1, 300), st.integers(1, 5))
def test_whole_turns_of_an_arc_come_back_exactly(pose, radius, rounds):
    nib = nib_at(pose)
    start = nib.pose
    nib.arc_left(radius, 360 * rounds)
    nib.arc_right(radius, -360 * rounds)
    assert nib.pose == start


def test_an_arc_ends_where_the_circle_says(nib):
    nib.arc_right(100, 60)
    assert nib.position == pytest.approx((100 * math.sin(math.pi / 3), -50))
    assert nib.heading == 300


def test_a_negative_radius_names_the_other_arc(nib):
    with pytest.raises(BadValue, match=r"use arc_right\(50"):
        nib.arc_left(-50, 90)
    assert len(nib.sheet.trail) == 1


SHAPES = {
    "circle": (lambda nib: nib.circle(50), 2 * math.pi * 50),
    "ellipse": (lambda nib: nib.ellipse(100, 40), 230.1310),  # by the complete elliptic integral
    "polygon": (lambda nib: nib.polygon(6, radius=50), 300),
    "side_length": (lambda nib: nib.polygon(7, side_length=30, turn=11), 210),
    "star": (lambda nib: nib.star(5, 50), 5 * 100 * math.sin(math.radians(72))),
    "parts": (lambda nib: nib.star(6, 50), 6 * 100 * math.sin(math.radians(60))),
    "inner": (
        lambda nib: nib.star(4, 50, inner_radius=10),
        8 * math.hypot(50 - 10 * 0.5**0.5, 10 * 0.5**0.5),
    ),
    "rectangle": (lambda nib: nib.rectangle(70, 30), 200),
}


@pytest.mark.parametrize("name", SHAPES)
@given(pose=poses)
def test_closed_shapes_close_exactly_and_leave_the_nib_where_it_is(name, pose):
    draw, expected = SHAPES[name]
    nib = nib_at(pose)
    before = nib.pose
    draw(nib)
    assert nib.pose == before
    assert length(nib) == pytest.approx(expected, rel=1e-6)
    outline = strokes(nib.sheet._columns)
    moves, closes = np.flatnonzero(outline.codes == MOVE), np.flatnonzero(outline.codes == CLOSE)
    assert len(moves) == len(closes) == (2 if name == "parts" else 1)
    assert (outline.vertices[moves] == outline.vertices[closes]).all()


def test_corners_lie_straight_ahead_and_width_along_the_heading(sheet):
    nib = sheet.new_nib(heading=90)
    nib.polygon(3, radius=60)
    assert (0, 60) in zip(sheet.trail.x.tolist(), sheet.trail.y.tolist(), strict=True)
    sheet.clear()
    nib.rectangle(100, 40)
    assert box(nib) == (-20, -50, 20, 50)
    sheet.clear()
    nib.ellipse(100, 40, turn=-90)
    assert box(nib) == pytest.approx((-50, -20, 50, 20))


def test_sides_have_the_very_headings_of_a_regular_ring(sheet, nib):
    nib.polygon(4, radius=60, turn=45)
    nib.polygon(6, radius=60)
    nib.star(5, 60, turn=90)
    headings = sheet.trail.heading[sheet.trail.is_drawn].tolist()
    assert headings[:4] == [180.0, 270.0, 0.0, 90.0]
    assert headings[4:10] == [120.0, 180.0, 240.0, 300.0, 0.0, 60.0]
    assert headings[10:] == [252.0, 36.0, 180.0, 324.0, 108.0]


@pytest.mark.parametrize("sides", [3, 100, 101, 1000])
def test_corners_are_where_trigonometry_puts_them(sheet, nib, sides):
    nib.turn_to(10)
    nib.polygon(sides, radius=60)
    angles = np.radians(10 + 360 * np.arange(sides + 1) / sides)
    ways = np.diff(60 * np.exp(1j * angles))
    assert np.allclose(sheet.trail.x[1:], 60 * np.cos(angles))
    assert np.allclose(np.exp(1j * np.radians(sheet.trail.heading[2:])), ways / np.abs(ways))


@given(poses, st.floats(1, 300), st.floats(-400, 400))
def test_the_box_of_an_arc_is_that_of_many_points_on_it(pose, radius, sweep):
    nib = nib_at(pose)
    nib.arc_left(radius, sweep)
    centre = from_polar(radius, pose[2] + 90, centre=pose[:2])
    angles = np.radians(pose[2] - 90 + np.linspace(0, sweep, 20_000))
    x, y = centre[0] + radius * np.cos(angles), centre[1] + radius * np.sin(angles)
    assert box(nib) == pytest.approx((x.min(), y.min(), x.max(), y.max()), abs=1e-5 * radius)


def test_an_interrupted_contour_goes_on_after_a_shape(nib):
    nib.forward(50)
    nib.circle(10)
    nib.left(120)
    nib.forward(50)
    nib.line_to_start()
    assert nib.position == (0, 0)


def test_shapes_of_no_size_and_of_a_lifted_pen_leave_nothing(nib):
    nib.circle(0)
    nib.lift()
    nib.circle(20, fill="red")
    nib.spiral(3, 50)
    nib.star(5, 50)
    assert len(nib.sheet.trail) == 1


def spiral_gap(nib: Nib, turns: float, radius: float, inner: float, growth: str) -> float:
    """How far the drawn spiral is from the closed form along the radius, at most."""
    flat = strokes(nib.sheet._columns).flattened(0.01).vertices[1:]
    angles = np.unwrap(np.arctan2(flat[:, 1], flat[:, 0]))
    angles += round((turns * 2 * np.pi - angles[-1]) / (2 * np.pi)) * 2 * np.pi
    share = angles / (2 * np.pi * turns)
    true = inner + (radius - inner) * share if growth == "linear" else inner * (radius / inner) ** share
    return float(np.abs(np.hypot(flat[:, 0], flat[:, 1]) - true).max())


@pytest.mark.parametrize(
    ("turns", "radius", "inner", "growth"),
    [
        (100, 500, 0, "linear"),
        (-100, 500, 20, "linear"),
        (3, 200, 1, "exponential"),
        (0.3, 400, 5, "linear"),
        (100, 500, 0.01, "exponential"),
    ],
)
def test_a_spiral_is_within_a_twentieth_of_a_unit_of_its_formula(nib, turns, radius, inner, growth):
    nib.spiral(turns, radius, inner_radius=inner, growth=growth)
    assert spiral_gap(nib, turns, radius, inner, growth) < 0.05
    assert nib.sheet.trail.x[-1] == pytest.approx(radius * np.cos(2 * np.pi * turns), abs=1e-6)
    assert nib.pose == (0, 0, 0)


REFUSED = {
    "sides": lambda nib: nib.polygon(2, radius=9),
    "3 or more": lambda nib: nib.polygon(-3, radius=9),
    "whole number": lambda nib: nib.polygon(4.5, radius=9),
    "neither": lambda nib: nib.polygon(4),
    "both": lambda nib: nib.polygon(4, radius=9, side_length=9),
    "every must be 1 or more": lambda nib: nib.star(5, 9, 0),
    "less than half of the points": lambda nib: nib.star(6, 9, 3),
    "either every=… or inner_radius=…": lambda nib: nib.star(7, 9, 3, inner_radius=4),
    "radius must be 0 or more": lambda nib: nib.circle(-1),
    "width must be 0 or more": lambda nib: nib.ellipse(-1, 5),
    "rounds must be from 1e-06": lambda nib: nib.spiral(0, 5),
    "swap them": lambda nib: nib.spiral(2, 5, inner_radius=6),
    "cannot begin at 0": lambda nib: nib.spiral(2, 5, growth="exponential"),
    "growth must be one of": lambda nib: nib.spiral(2, 5, growth="fast"),
    "turn must be a finite number": lambda nib: nib.star(5, 9, turn=math.nan),
    "did you mean 'tomato'": lambda nib: nib.circle(9, fill="tomatto"),
    "rule must be one of": lambda nib: nib.circle(9, fill="red", fill_rule="odd"),
    "outline must be True or False": lambda nib: nib.circle(9, outline="no"),
    "radius must be a number": lambda nib: nib.circle("9"),
}


@pytest.mark.parametrize("words", REFUSED)
def test_shapes_that_cannot_be_are_refused_with_nothing_changed(nib, words):
    before = nib.pose, len(nib.sheet.trail), len(nib.sheet._columns.areas)
    with pytest.raises((BadValue, BadType), match=words.replace("…", ".")) as refusal:
        REFUSED[words](nib)
    assert isinstance(refusal.value, OvloError)
    assert (nib.pose, len(nib.sheet.trail), len(nib.sheet._columns.areas)) == before


def test_a_rectangle_may_stand_on_its_corner(nib):
    nib.travel_to(10, 20)
    nib.left(90)
    nib.rectangle(60, 30, anchor="corner")
    assert nib.pose == (10, 20, 90)
    assert Motif(nib.sheet._columns, nib.pose).bounds == pytest.approx((-20, 20, 10, 80))
    with pytest.raises(BadValue, match="rectangle: anchor must be one of 'centre', 'corner', not 'center'"):
        nib.rectangle(60, 30, anchor="center")
