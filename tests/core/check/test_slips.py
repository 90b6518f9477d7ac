"""Loops that are repeated, and single slips that leave a contour open."""

from __future__ import annotations

import pytest

from ovlo import Sheet
from ovlo.core.check.repeats import repeats


def drawn(draw, **how):
    sheet = Sheet(1000, 1000, **how)
    draw(sheet.new_nib())
    return sheet


def rules(sheet):
    return [one.rule for one in sheet.check()]


def blades(count, turn, side=100, last=100):
    def draw(nib):
        for _ in range(count):
            for length in (side, 40, last, 40):
                nib.forward(length)
                nib.left(90)
            nib.left(turn)

    return draw


def test_a_rosette_is_a_body_repeated_and_turned():
    sheet = drawn(blades(9, 40))
    (one,) = [one for one in repeats(sheet._columns, 0) if one.period == 4]
    assert (one.times, one.turn, one.is_back) == (9, pytest.approx(40), True)


def test_a_body_whose_first_travel_went_nowhere_is_counted_with_the_others():
    def draw(nib):
        for i in range(6):
            nib.travel_to(0, 0)
            nib.turn_to(60 * i)
            nib.travel(120)
            nib.polygon(5, radius=40)

    assert rules(drawn(draw)) == []


@pytest.mark.parametrize(
    ("count", "turn", "words"),
    [
        (8, 40, "one is missing"),
        (10, 40, "the last one lies on the first"),
        (9, 41, "is 9° more"),
        (9, 38, "is 18° less"),
    ],
)
def test_a_rosette_goes_round_once(count, turn, words):
    (one,) = drawn(blades(count, turn)).check()
    assert (one.rule, words in one.message) == ("rosette-misses-360", True), one


@pytest.mark.parametrize(("count", "turn"), [(9, 40), (5, 30), (20, 37), (18, 40)])
def test_fans_and_several_rounds_are_meant(count, turn):
    assert "rosette-misses-360" not in rules(drawn(blades(count, turn)))


def test_a_body_that_ends_beside_its_beginning_drifts_and_the_mend_names_the_line():
    (one,) = drawn(blades(9, 40, last=92)).check()
    assert one.rule == "drift"
    assert "Make the 3rd line 100 px long instead of 92." in one.fix


def test_a_spring_does_not_drift():
    def draw(nib):
        nib.travel_to(-300, 0)
        for _ in range(12):
            nib.arc_left(30, 360)
            nib.forward(8)
            nib.left(1)

    assert rules(drawn(draw)) == []


def walked(*steps):
    def draw(nib):
        for length, turn in steps:
            nib.forward(length)
            nib.left(turn)

    return draw


@pytest.mark.parametrize(
    ("steps", "fix"),
    [
        ([(160, 90), (90, 90), (120, 90), (90, 0)], "Make the 3rd line 160 px long instead of 120."),
        ([(200, 90), (60, 90), (60, 90), (200, 0)], "Make the 1st line 60 px long and the 2nd 200."),
        ([(120, 90), (80, 45), (60 * 2**0.5, -90), (60 * 2**0.5, 45), (80, 0)], "Turn left by 90° instead"),
        ([(180, 60), (180, 120), (180, 0)], "Turn left by 120° instead of 60°"),
    ],
)
def test_a_single_slip_is_told_with_what_undoes_it(steps, fix):
    (one,) = [one for one in drawn(walked(*steps)).check() if one.rule != "off-sheet"]
    assert (one.rule, fix in one.fix) == ("not-closed", True), one


@pytest.mark.parametrize(
    "steps",
    [
        [(60, 90), (120, 90), (160, 90), (120, 90), (60, 0)],  # a house with a door
        [(50, 90), (50, 90), (50, -90), (50, -90), (50, 0)],  # an S
        [(40, 120), (40, -120), (40, 0)],  # a Z
        [(20, 90), (20, -90), (20, -90), (20, 90)] * 6,  # battlements
    ],
)
def test_what_is_open_on_purpose_is_not_closed_by_chance(steps):
    assert rules(drawn(walked(*steps))) == []
