"""Pictures compared: what is the same however it was walked, and how far apart the others are."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ovlo import Motif, Sheet
from ovlo.core.compare.compare import compare
from ovlo.core.trail.similarity import Similarity, transformed


def columns(draw):
    sheet = Sheet(640, 480)
    draw(sheet.new_nib())
    return sheet._columns


def square(nib):
    for _ in nib.full_turn(4):
        nib.forward(90)


def square_in_pieces(nib):
    for x, y in ((0, 90), (45, 90), (90, 90), (90, 30), (90, 0), (0, 0)):
        nib.line_to(x, y)
    nib.forward(50)


def kite(nib):
    nib.forward(90)
    nib.left(70)
    nib.forward(40)
    nib.arc_left(30, 100)


def star(nib, rule="nonzero", fill="gold"):
    nib.star(5, 100, fill=fill, fill_rule=rule, outline=False)


def test_order_direction_and_splitting_do_not_matter():
    found = compare(columns(square), columns(square_in_pieces))
    assert found.is_same
    assert found.is_in_place


def test_arcs_are_compared_as_arcs():
    def in_three(nib):
        nib.travel_to(0, -50)
        nib.arc_left(50, 200)
        nib.arc_left(50, 160)
        nib.arc_left(50, 30)

    def of_chords(nib):
        for _ in nib.full_turn(360):
            nib.forward(0.8727)

    assert compare(columns(lambda nib: nib.circle(50)), columns(in_three)).is_in_place
    assert not compare(columns(lambda nib: nib.circle(50)), columns(of_chords)).is_same_shape


@settings(max_examples=25)
@given(
    st.floats(-179, 179),
    st.floats(0.2, 5),
    st.floats(-300, 300),
    st.floats(-300, 300),
    st.booleans(),
)
def test_what_was_done_to_a_picture_is_found(turn, scale, x, y, is_mirrored):
    by = Similarity(scale, turn, x, y, is_mirrored)
    before = columns(kite)
    found = compare(before, transformed(before, by))
    assert found.is_same
    assert found.by is not None
    assert found.by.is_mirrored == is_mirrored
    assert found.by.scale == pytest.approx(scale, rel=1e-6)
    assert found.by.turn == pytest.approx(turn, abs=1e-3)
    assert (found.by.x, found.by.y) == pytest.approx((x, y), abs=1e-3)


def test_of_several_turns_the_smallest_is_given():
    turned = compare(columns(square), columns(lambda nib: (nib.left(80), square(nib))))
    assert turned.by is not None
    assert turned.by.turn == pytest.approx(-10)
    rosette = [
        columns(lambda nib, a=a: (nib.left(a), [nib.polygon(4, radius=90, turn=i) for i in range(0, 90, 6)]))
        for a in (0, 2)
    ]
    assert compare(*rosette).by.turn == pytest.approx(2)  # type: ignore[union-attr]


def test_the_largest_distance_and_its_place():
    found = compare(columns(square), columns(lambda nib: (square(nib), nib.line_to(90, 90))))
    assert not found.is_same_shape
    assert found.difference is not None
    assert found.difference.distance == pytest.approx(45, abs=1e-3)
    assert found.difference.place == pytest.approx(45 + 45j, abs=1e-2)
    assert found.difference.is_only_in == "B"


@pytest.mark.parametrize("gap", [0.001, 0.5, 20])
def test_a_gap_in_a_line_is_a_difference(gap):
    def broken(nib):
        nib.forward(40)
        nib.travel(gap)
        nib.line_to(90, 0)

    pair = columns(lambda nib: nib.forward(90)), columns(broken)
    for a, b in (pair, pair[::-1]):
        found = compare(a, b)
        assert found.difference is not None
        assert 0 < found.difference.distance <= gap / 2 + 1e-9


def test_areas_and_their_rules_are_compared():
    assert compare(columns(star), columns(star)).is_same
    assert not compare(columns(star), columns(lambda nib: star(nib, "evenodd"))).is_same_shape
    assert not compare(columns(star), columns(lambda nib: nib.star(5, 100))).is_same_shape


def test_colours_are_compared_apart():
    found = compare(columns(star), columns(lambda nib: star(nib, fill="tomato")))
    assert found.is_same_shape
    assert not found.is_same
    assert found.words == ("100% of the areas are #ffd700 in A and #ff6347 in B.",)


def test_words_are_compared():
    here = columns(lambda nib: nib.text("Marrow Bay"))
    there = columns(lambda nib: (nib.travel_to(30, 0), nib.left(90), nib.text("Marrow Bay")))
    assert compare(here, there).by == pytest.approx(Similarity(1, 90, 30, 0))
    found = compare(here, columns(lambda nib: nib.text("Kite day")))
    assert found.words == ("The words 'Marrow Bay' are only in A.", "The words 'Kite day' are only in B.")
    assert not found.is_same


def test_overlapping_lines_count_once():
    twice = columns(lambda nib: (square(nib), square(nib)))
    assert compare(twice, columns(square)).is_in_place


def test_similarities_undo_each_other():
    z = Motif.record(kite)._columns.points @ [1, 1j]
    for is_mirrored in (False, True):
        by = Similarity(1.5, 40, 3, -7, is_mirrored)
        assert by.inverse.points(by.points(z)) == pytest.approx(z)
