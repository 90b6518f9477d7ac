"""The pen, its blocks, the loop, and contours."""

from __future__ import annotations

import pytest

from ovlo import BadType, BadValue, Colour, Sheet


def test_a_lifted_pen_leaves_no_mark(nib):
    nib.lift()
    nib.forward(10)
    nib.lower()
    nib.forward(10)
    assert nib.sheet.trail.is_drawn.tolist() == [False, False, True]


def test_lifted_puts_the_pen_back_as_it_was_also_after_an_error(nib):
    with pytest.raises(ZeroDivisionError), nib.lifted():
        nib.forward(1 / 0)
    assert not nib.is_lifted
    nib.lift()
    with nib.lifted():
        nib.lower()
    assert nib.is_lifted


def test_returning_goes_back_without_a_line_and_keeps_the_style(nib):
    def tail() -> None:
        with nib.returning():
            nib.ink = "tomato"
            nib.left(33)
            nib.forward(20)
            nib.left(1 / 0)

    with pytest.raises(ZeroDivisionError):
        tail()
    assert nib.pose == (0, 0, 0)
    assert nib.ink == Colour(255, 99, 71)
    assert nib.sheet.trail.is_drawn.tolist() == [False, True, False]


def test_the_contour_interrupted_by_returning_goes_on(nib):
    nib.forward(50)
    with nib.returning():
        nib.left(90)
        nib.forward(20)
        nib.left(120)
        nib.forward(20)
        nib.line_to_start()
        assert nib.position == (50, 0)
    nib.left(120)
    nib.forward(50)
    nib.line_to_start()
    assert nib.position == (0, 0)


@pytest.mark.parametrize("begin", ["travel", "lifted", "lower"])
def test_close_goes_back_to_where_the_contour_began(nib, begin):
    nib.forward(10)
    if begin == "travel":
        nib.travel(5)
    elif begin == "lifted":
        with nib.lifted():
            nib.forward(5)
    else:
        nib.lower()
    start = nib.position
    nib.forward(10)
    nib.left(90)
    nib.forward(10)
    nib.line_to_start()
    assert nib.pose == (*start, 90)


def test_close_without_anything_drawn_does_nothing(nib):
    nib.line_to_start()
    nib.travel(10)
    nib.line_to_start()
    nib.lift()
    nib.line_to_start()
    assert len(nib.sheet.trail) == 2


def test_full_turn_keeps_what_the_body_turns(nib):
    for _ in nib.full_turn(4):
        nib.left(10)
    assert nib.heading == 40.0
    for _ in nib.full_turn(3, rounds=2, clockwise=True):
        heading = nib.heading
    assert heading == pytest.approx((40 - 2 * 240) % 360)
    assert nib.heading == 40.0


def test_nested_full_turns_end_in_the_heading_they_began_with(nib):
    nib.turn_to(0.1)
    for _ in nib.full_turn(7):
        for _ in nib.full_turn(11):
            nib.forward(3)
    assert nib.heading == 0.1


@pytest.mark.parametrize(
    ("bad", "kind", "words"),
    [
        (0, BadValue, "1 or more"),
        (2.5, BadValue, "whole number"),
        ("5", BadType, "without quotes"),
        (None, BadType, "number"),
        (-3, BadValue, "1 or more"),
    ],
)
def test_full_turn_refuses_at_the_call(nib, bad, kind, words):
    with pytest.raises(kind, match=words):
        nib.full_turn(bad)
    with pytest.raises(kind, match=words):
        nib.full_turn(3, rounds=bad)


def test_an_unknown_colour_offers_near_names_and_changes_nothing(nib):
    nib.ink = "#0a7"
    assert nib.ink == Colour(0, 170, 119)
    nib.ink = "#11223380"
    assert nib.ink.opacity == pytest.approx(0.5, abs=0.01)
    with pytest.raises(BadValue, match=r"ink: there is no colour 'tomatoe'.*'tomato'"):
        nib.ink = "tomatoe"
    with pytest.raises(BadType):
        nib.ink = 7
    with pytest.raises(BadValue, match="#12345"):
        nib.ink = "#12345"
    with pytest.raises(BadValue, match="line_width"):
        nib.line_width = 0
    assert nib.ink == Colour(17, 34, 51, 128 / 255)
    assert nib.line_width == 2


def test_the_pen_is_two_pixels_wide_on_a_sheet_of_any_unit():
    assert Sheet(100, 100, unit="mm").new_nib().line_width == pytest.approx(2 * 25.4 / 96)


@pytest.mark.parametrize(
    "arguments",
    [(0, 10), (10, -1), (float("nan"), 10), ("a", 10), (10, 10, "whit"), (10, 10, "white", "cm")],
)
def test_a_sheet_refuses_what_it_cannot_be(arguments):
    with pytest.raises((BadValue, BadType), match="Sheet"):
        Sheet(*arguments)


def test_clear_takes_away_marks_and_leaves_nibs(sheet):
    nib = sheet.new_nib(heading=90)
    nib.forward(10)
    sheet.clear()
    assert len(sheet.trail) == 0
    nib.forward(5)
    assert nib.position == (0, 15)
    assert sheet._columns.starts.tolist() == [[0, 10]]


def test_finished_arrays_do_not_change_later(nib):
    nib.forward(10)
    x = nib.sheet.trail.x
    nib.forward(10)
    assert x.tolist() == [0, 10]
    with pytest.raises(ValueError, match="read-only"):
        x[0] = 1
