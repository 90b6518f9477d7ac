"""Pictures compared: what is the same however it was walked, and how far apart the others are."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ovlo import Motif, Sheet
from ovlo.core.compare.compare import compare
from ovlo.core.trail.similarity import Similarity, transformed
from ovlo.outlets import compare_inputs
from ovlo.render.lettering import words_width


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


@settings(max_examples=10)
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
    assert found.words == ("100% of the areas are #ffd700 in A, but #ff6347 in B.",)


def test_words_are_compared():
    here = columns(lambda nib: nib.text("Marrow Bay"))
    there = columns(lambda nib: (nib.travel_to(30, 0), nib.left(90), nib.text("Marrow Bay")))
    assert compare(here, there).by == pytest.approx(Similarity(1, 90, 30, 0))
    found = compare(here, columns(lambda nib: nib.text("Kite day")))
    assert found.words == ("The text 'Marrow Bay' is only in A.", "The text 'Kite day' is only in B.")
    assert not found.is_same


def test_overlapping_lines_count_once():
    twice = columns(lambda nib: (square(nib), square(nib)))
    assert compare(twice, columns(square)).is_in_place


def test_similarities_undo_each_other():
    z = Motif.record(kite)._columns.points @ [1, 1j]
    for is_mirrored in (False, True):
        by = Similarity(1.5, 40, 3, -7, is_mirrored)
        assert by.inverse.points(by.points(z)) == pytest.approx(z)


# ── what lies on top, with inputs ───────────────────────────────────────────────────────────────────────────


def seen(first, second):
    """A comparison of two drawings with inputs for pixels and texts."""
    sheets = []
    for draw in (first, second):
        sheet = Sheet(640, 480)
        draw(sheet.new_nib())
        sheets.append(sheet)
    return compare(sheets[0]._columns, sheets[1]._columns, compare_inputs(sheets[1]))


def discs(*colours, x=20):
    def draw(nib):
        for i, colour in enumerate(colours):
            nib.travel_to(x * i, 0)
            nib.circle(40, fill=colour, outline=False)

    return draw


def disc_over(nib):
    nib.circle(40, fill="navy", outline=False)
    nib.circle(60, fill="gold", outline=False)


def disc_under(nib):
    nib.circle(60, fill="gold", outline=False)
    nib.circle(40, fill="navy", outline=False)


def test_what_lies_on_top_is_part_of_the_picture():
    found = seen(disc_over, disc_under)
    assert found.is_same_shape
    assert not found.is_same
    assert found.words[0].startswith("At (")
    assert "A shows #ffd700 and B #000080" in found.words[0]
    assert seen(disc_over, disc_over).is_same


@pytest.mark.parametrize(
    ("first", "second"),
    [
        (
            lambda nib: [nib.text("7", 40), nib.circle(60, fill="gold", outline=False)],
            lambda nib: [nib.circle(60, fill="gold", outline=False), nib.text("7", 40)],
        ),
        (
            lambda nib: [set_line(nib, "navy"), cross(nib, 0), set_line(nib, "gold"), cross(nib, 90)],
            lambda nib: [set_line(nib, "gold"), cross(nib, 90), set_line(nib, "navy"), cross(nib, 0)],
        ),
        (lambda nib: capped(nib, "round"), lambda nib: capped(nib, "square")),
    ],
)
def test_words_lines_and_caps_on_top_are_seen(first, second):
    assert not seen(first, second).is_same
    assert seen(first, first).is_same
    assert seen(first, lambda nib: first(nib.turn_to(0) or nib)).is_same


def set_line(nib, ink):
    nib.ink, nib.line_width = ink, 20


def cross(nib, heading):
    nib.turn_to(heading)
    nib.travel_to(0, 0)
    nib.travel(-60)
    nib.forward(120)


def capped(nib, cap):
    nib.line_width, nib.line_cap = 30, cap
    nib.forward(90)


def test_every_turn_that_fits_is_tried_before_colours_are_said_to_differ():
    found = seen(discs("navy", "gold", x=100), discs("gold", "navy", x=100))
    assert found.is_same
    assert abs(found.by.turn) == pytest.approx(180)


def test_words_are_the_same_wherever_they_were_aligned():
    def aligned(nib):
        nib.travel_to(words_width("Kite day", 30) / 2, 0)
        nib.text("Kite day", 30, align="middle")

    assert seen(lambda nib: nib.text("Kite day", 30), aligned).is_same
    assert not seen(lambda nib: nib.text("Kite day", 30, align="end"), aligned).is_in_place


def test_what_nobody_sees_is_the_same_to_the_eye():
    found = seen(square, lambda nib: [nib.forward(90.02), nib.travel_to(0, 0), square(nib)])
    assert found.is_same
    assert found.difference.distance == pytest.approx(0.02, rel=0.01)
    assert not seen(square, lambda nib: [nib.forward(90.2), nib.travel_to(0, 0), square(nib)]).is_same


@settings(max_examples=4)
@given(st.floats(-180, 180), st.floats(0.3, 3), st.booleans())
def test_a_scene_moved_is_the_same_with_eyes_too(turn, scale, is_mirrored):
    def scene(nib):
        disc_under(nib)
        set_line(nib, "tomato")
        cross(nib, 30)
        nib.star(5, 70, inner_radius=30, fill="#0a70a0")

    sheet = Sheet(640, 480)
    scene(sheet.new_nib())
    moved = transformed(sheet._columns, Similarity(scale, turn, 9, -7, is_mirrored))
    assert compare(sheet._columns, moved, compare_inputs(sheet)).is_same


def test_another_paper_is_another_picture_and_said():
    a, b = Sheet(), Sheet(paper="navy")
    for sheet in (a, b):
        sheet.new_nib().circle(40)
    assert not a.compare(b)
    assert str(a.compare(b)) == "The same shape.\nThe paper is #ffffff in A, but #000080 in B."


def test_a_mirror_image_from_left_to_right_is_called_so():
    a, b = Sheet(), Sheet()
    for sheet, heading, turn in ((a, 0, 90), (b, 180, -90)):
        nib = sheet.new_nib(heading=heading)
        nib.forward(80)
        nib.left(turn)
        nib.forward(40)
    assert str(a.compare(b)) == "The same: B is A mirrored left to right."


def pair(first, second):
    """What a comparison says of two sheets."""
    sheets = Sheet(640, 480), Sheet(640, 480)
    for sheet, draw in zip(sheets, (first, second), strict=True):
        draw(sheet.new_nib())
    return sheets[0].compare(sheets[1])


def halves(nib):
    for x in (-40, 0):
        nib.travel_to(x, 0)
        nib.rectangle(40, 40, anchor="corner", fill="teal", outline=False)


def whole(nib, width=80.0):
    nib.travel_to(-40, 0)
    nib.rectangle(width, 40, anchor="corner", fill="teal", outline=False)


def dashes(nib):
    nib.line_cap = "butt"
    for _ in range(5):
        nib.forward(10)
        nib.travel(10)


def dashed(nib, length=90):
    nib.line_cap, nib.line_dash = "butt", (10, 10)
    nib.forward(length)


def disc(nib, inner=0.0, outer=50):
    if inner:
        nib.circle(inner)
    nib.circle(outer, fill="gold")


SEEN_THE_SAME = [(halves, whole), (dashes, dashed), (disc, lambda nib: disc(nib, 20))]


@pytest.mark.parametrize(("first", "second"), SEEN_THE_SAME)
def test_what_looks_the_same_is_the_same_to_the_eye(first, second):
    for one, other in ((first, second), (second, first)):
        found = pair(one, other)
        assert (bool(found), str(found)) == (True, "The same to the eye, though drawn with other marks.")


@pytest.mark.parametrize(
    ("first", "second"),
    [
        (halves, lambda nib: whole(nib, 80.6)),
        (dashes, lambda nib: dashed(nib, 89)),
        (disc, lambda nib: (nib.circle(20), nib.circle(50))),
        (disc, lambda nib: (disc(nib), nib.travel(200), nib.circle(3))),
    ],
)
def test_a_pixel_that_differs_makes_them_different(first, second):
    for one, other in ((first, second), (second, first)):
        assert not pair(one, other)


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"weight": "bold"}, "The text 'Kite day' has weight normal in A, but bold in B."),
        ({"slant": "italic"}, "The text 'Kite day' has slant normal in A, but italic in B."),
        (
            {"weight": "bold", "size": 20},
            "The text 'Kite day' has weight normal in A, but bold in B, size 16 in A, but 20 in B.",
        ),
    ],
)
def test_the_same_words_in_another_manner_are_told_by_it(change, words):
    found = pair(lambda nib: nib.text("Kite day"), lambda nib: nib.text("Kite day", **change))
    assert found.differences == (words,)


@pytest.mark.parametrize(("name", "noun"), [("line_cap", "caps"), ("line_join", "joins")])
def test_caps_and_joins_are_named(name, noun):
    def corner(nib, **style):
        with nib.styled(line_width=12, **style):
            nib.forward(60)
            nib.left(90)
            nib.forward(60)

    other = "butt" if name == "line_cap" else "bevel"
    found = pair(corner, lambda nib: corner(nib, **{name: other}))
    assert f"lines have round {noun} in A, but {other} {noun} in B" in str(found)
