"""Steering against known geometry, and what it refuses."""

from __future__ import annotations

import math
from decimal import Decimal
from fractions import Fraction

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ovlo import BadType, BadValue, Nib, OvloError, Sheet, from_polar

lengths = st.floats(-500, 500)
angles = st.floats(-720, 720)


def drawn_length(nib: Nib) -> float:
    trail = nib.sheet.trail
    return float(np.hypot(np.diff(trail.x), np.diff(trail.y)).sum())


def test_a_walked_square_ends_on_the_very_floats_it_began_with(sheet):
    for side in (0.1, 33.3, 1e7 / 7):
        nib = sheet.new_nib(heading=90)
        for _ in range(4):
            nib.forward(side)
            nib.right(90)
        assert nib.pose == (0, 0, 90)


def test_360_turns_of_one_degree_give_heading_zero(nib):
    for _ in range(360):
        nib.left(1)
    assert nib.heading == 0.0


@pytest.mark.parametrize("heading", [0, 90, 180, 270])
def test_headings_along_the_axes_are_exact(nib, heading):
    nib.turn_to(heading)
    nib.forward(1)
    assert nib.position == [(1, 0), (0, 1), (-1, 0), (0, -1)][heading // 90]
    assert from_polar(1, heading) == nib.position


@pytest.mark.parametrize("turns", [1, 2, 7])
def test_every_regular_polygon_closes(turns):
    for sides in range(3, 361):
        nib = Sheet(640, 480).new_nib(heading=12.3)
        for _ in nib.full_turn(sides, rounds=turns):
            nib.forward(50)
        if turns % sides:  # otherwise it walks straight on
            assert math.hypot(*nib.position) < 1e-10 * 50 * sides
        assert nib.heading == 12.3


def test_a_thousand_rounds_of_a_thousand_gon_end_where_they_began(nib):
    for _ in range(1_000_000):
        nib.forward(1)
        nib.left(0.36)
    assert math.hypot(*nib.position) < 1e-6


@pytest.mark.parametrize("turns", [(-40, 40), (80, 100), (89.3, 89.3), (-3000, 3000)])
def test_walk_agrees_with_the_loop(turns):
    generator = np.random.default_rng(5)
    distances = generator.uniform(0, 3, 50_000)
    angles = generator.uniform(*turns, 50_000)
    walker, looper = Sheet(640, 480).new_nib(heading=7), Sheet(640, 480).new_nib(heading=7)
    walker.walk(distances, angles)
    for distance, angle in zip(distances.tolist(), angles.tolist(), strict=True):
        looper.forward(distance)
        looper.left(angle)
    walked, looped = walker.sheet.trail, looper.sheet.trail
    tolerance = 1e-9 * distances.sum()
    assert np.abs(walked.x - looped.x).max() < tolerance
    assert np.abs(walked.y - looped.y).max() < tolerance
    gap = np.abs(walked.heading - looped.heading)
    assert np.minimum(gap, 360 - gap).max() < 1e-8


def test_walk_is_exact_along_the_axes_and_takes_one_number_for_all(nib):
    nib.walk(20, [90] * 400)
    assert nib.pose == (0, 0, 0)
    assert len(nib.sheet.trail) == 401
    nib.walk([], [])
    assert len(nib.sheet.trail) == 401


@given(st.lists(st.tuples(lengths, angles), max_size=30))
def test_walking_a_path_back_returns_to_its_start(path):
    nib = Sheet(640, 480).new_nib()
    for distance, angle in path:
        nib.forward(distance)
        nib.left(angle)
    for distance, angle in reversed(path):
        nib.right(angle)
        nib.back(distance)
    assert math.hypot(*nib.position) <= 1e-9 * (drawn_length(nib) + 1)
    assert 0 <= nib.heading < 360


@given(angles, st.floats(0.1, 500))
def test_facing_a_point_and_walking_there_arrives(angle, radius):
    nib = Sheet(640, 480).new_nib(x=5, y=-3)
    target = from_polar(radius, angle, centre=(5, -3))
    nib.aim_at(target)
    nib.forward(nib.distance_to(target))
    assert math.dist(nib.position, target) < 1e-10 * (radius + 1)


def test_a_tiny_turn_to_the_right_keeps_the_heading_in_range(nib):
    nib.right(1e-20)
    assert nib.heading == 0.0


def test_whole_turns_leave_the_heading_as_it_is(nib):
    nib.turn_to(0.1)
    nib.left(360)
    nib.right(3600)
    nib.walk([0], [720])
    assert nib.heading == 0.1


def test_headings_and_points(nib):
    nib.line_to((30, 40))
    assert nib.pose == (30, 40, 0)
    assert nib.heading_to(30, 40) == 0.0
    assert nib.heading_to(30, 0) == 270.0
    nib.travel_by(-30, 0)
    nib.turn_to(-90)
    nib.travel(40)
    assert nib.pose == (0, 0, 270)


@pytest.mark.parametrize(
    "number", [np.float64(2.5), np.float32(2.5), Fraction(5, 2), Decimal("2.5"), np.array(2.5)]
)
def test_numbers_of_other_kinds_are_welcome(nib, number):
    nib.forward(number)
    nib.left(number)
    assert nib.pose == (2.5, 0, 2.5)
    assert {type(part) for part in nib.pose} == {float}


BAD_NUMBERS = [
    math.nan,
    math.inf,
    -math.inf,
    "90",
    None,
    1j,
    10**400,
    [1],
    np.array([1.0]),
    np.complex128(1),
    True,
]
CALLS = {
    "forward": lambda nib, bad: nib.forward(bad),
    "back": lambda nib, bad: nib.back(bad),
    "left": lambda nib, bad: nib.left(bad),
    "right": lambda nib, bad: nib.right(bad),
    "turn_to": lambda nib, bad: nib.turn_to(bad),
    "travel": lambda nib, bad: nib.travel(bad),
    "travel_by": lambda nib, bad: nib.travel_by(0, bad),
    "line_to": lambda nib, bad: nib.line_to(0, bad if bad is not None else "x"),
    "travel_to": lambda nib, bad: nib.travel_to((0, bad)),
    "aim_at": lambda nib, bad: nib.aim_at((bad, 0)),
    "line_width": lambda nib, bad: setattr(nib, "line_width", bad),
    "walk": lambda nib, bad: nib.walk([1.0, 2.0], [1.0, bad]),
    "new_nib": lambda nib, bad: nib.sheet.new_nib(0, bad),
    "from_polar": lambda nib, bad: from_polar(bad, 0),
}


@pytest.mark.parametrize("bad", BAD_NUMBERS, ids=repr)
@pytest.mark.parametrize("call", CALLS)
def test_bad_numbers_are_refused_with_nothing_changed(nib, call, bad):
    if call == "walk" and bad is True:
        pytest.skip("NumPy reads True in a row of numbers as 1")
    nib.forward(10)
    before = nib.pose, nib.line_width, len(nib.sheet.trail), len(nib.sheet.nibs)
    kind = BadValue if type(bad) in (float, int) else BadType
    if call == "walk":
        kind = OvloError
    with pytest.raises(kind, match=call):
        CALLS[call](nib, bad)
    assert (nib.pose, nib.line_width, len(nib.sheet.trail), len(nib.sheet.nibs)) == before


def test_walk_refuses_rows_that_do_not_match(nib):
    with pytest.raises(BadValue, match="3 distances but 2 angles"):
        nib.walk([1, 2, 3], [1, 2])
    with pytest.raises(BadValue, match="shape"):
        nib.walk([[1, 2]], 3)
    assert len(nib.sheet.trail) == 1


@pytest.mark.parametrize(
    "points", [[(0, 90), (60, 0)], np.array([[0, 90], [60, 0]]), iter([(0, 90), [60, 0]])]
)
def test_a_polyline_goes_to_each_point_and_keeps_the_heading(sheet, points):
    nib, walked = sheet.new_nib(heading=30), Sheet().new_nib(heading=30)
    nib.polyline(points)
    walked.line_to(0, 90)
    walked.line_to(60, 0)
    assert nib.pose == walked.pose
    assert nib.sheet.trail.x.tolist() == walked.sheet.trail.x.tolist()


@pytest.mark.parametrize(
    "wrong", [[(0, 90), (60,)], [(0, 90), (60, "0")], [5, 6], "sail", 5, [(0, math.nan)]]
)
def test_a_polyline_with_a_wrong_point_moves_nothing(nib, wrong):
    with pytest.raises((BadValue, BadType), match="polyline: "):
        nib.polyline(wrong)
    assert nib.position == (0, 0)


def test_a_masked_array_is_not_walked_as_if_nothing_were_masked(nib):
    masked = np.ma.array([10.0, 20.0, 30.0], mask=[0, 1, 0])
    for arrays in ((masked, 90), (10, masked)):
        with pytest.raises(BadValue, match=r"is a masked array; fill it first, as in .*\.filled\(0\)"):
            nib.walk(*arrays)
    assert len(nib.sheet.trail) == 1
    nib.walk(np.ma.array([10.0, 20.0]), 90)
    assert len(nib.sheet.trail) == 3
