"""Where contours begin and corners are, and how many rounds and arcs there are."""

from __future__ import annotations

import numpy as np
import pytest

from ovlo import BadValue
from ovlo.core.pen.pointer import pointer_columns
from ovlo.core.pen.spirals import piece_count


def test_a_turn_says_how_many_rounds_it_has(nib):
    rounds = nib.full_turn(5)
    assert len(rounds) == 5
    assert [len(rounds) for _ in rounds] == [5] * 5


def test_the_corners_of_a_rectangle_from_its_corner(sheet, nib):
    nib.rectangle(30, 10, anchor="corner")
    (path,) = sheet.paths()
    assert {tuple(point) for point in path.contours[0].tolist()} == {(0, 0), (30, 0), (30, 10), (0, 10)}


@pytest.mark.parametrize("move", ["forward", "line_to"])
def test_a_contour_begins_where_the_nib_was_lowered(nib, move):
    nib.forward(7)
    nib.lift()
    if move == "forward":
        nib.left(30)
        nib.forward(20)
    else:
        nib.line_to(10, 20)
    begin = nib.position
    nib.lower()
    nib.turn_to(90)
    nib.forward(5)
    nib.left(90)
    nib.forward(5)
    nib.line_to_start()
    assert nib.position == begin


def test_an_arc_may_not_lead_out_of_reach_upwards(nib):
    nib.travel_to(0, 0.9e7)
    with pytest.raises(BadValue, match="arc_left"):
        nib.arc_left(0.2e7, 90)
    assert nib.position == (0, 0.9e7)


@pytest.mark.parametrize("radius", [0.01, 1, 1e5])
def test_a_spiral_is_made_of_arcs_whatever_its_size(sheet, nib, radius):
    nib.spiral(3, radius, radius / 2)
    assert len(sheet._columns.arcs) == piece_count(3, radius, radius / 2, "linear")


@pytest.mark.parametrize("rounds", [0.5, 1, 3, 10, 37])
def test_a_spiral_that_is_a_circle_has_24_arcs_a_round(rounds):
    assert piece_count(rounds, 50, 50, "linear") == 24 * rounds


def test_the_pointer_is_26_px_long_even_on_both_sides_and_has_a_light_point():
    columns = pointer_columns()
    tail = [(-9, 3.5), (-15, 7), (-26, 4.5)]
    corners = [*tail, *((x, -y) for x, y in reversed(tail)), (0, 0)]
    assert [tuple(point) for point in columns.points[:8].tolist()] == [(0, 0), *corners]
    assert columns.closings["step"][0] == 7
    assert [area["red"] for area in columns.areas] == [0x2A, 0xF4]
    assert np.ptp(columns.points[-2:], axis=0).max() <= 4
