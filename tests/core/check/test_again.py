"""Closed figures that lie exactly on equal ones, and figures that look alike but are meant."""

from __future__ import annotations

import pytest

from ovlo import Motif, Sheet


def found(draw) -> list[str]:
    sheet = Sheet(400, 400)
    draw(sheet.new_nib())
    return [one.message for one in sheet.check() if one.rule == "drawn-again"]


def squares(nib, count=6, more=60):
    for _ in range(count):
        nib.polygon(4, side_length=60)
        nib.left(360 / count + more)


def test_of_a_rosette_that_comes_round_too_often_the_later_figures_are_told():
    assert found(squares) == ["Of 6 figures drawn here, 3 lie exactly on others drawn before."]


def test_a_figure_walked_the_other_way_round_is_the_same():
    def draw(nib):
        for turn in (nib.left, nib.right):
            for _ in range(4):
                nib.forward(50)
                turn(90)
            nib.forward(50)
            nib.left(90)
            nib.lift()
            nib.line_to(0, 50)
            nib.lower()
            nib.turn_to(0)

    assert len(found(draw)) == 1


def test_stamps_in_one_place_are_told_with_their_number():
    motif = Motif.record(lambda nib: nib.circle(20, fill="gold"))

    def draw(nib):
        for _ in range(5):
            nib.stamp(motif)

    assert found(draw) == ["This figure is drawn 5 times in the same place."]


@pytest.mark.parametrize(
    "second",
    [
        lambda nib: nib.circle(20.001),
        lambda nib: nib.travel(0.001) or nib.circle(20),
        lambda nib: setattr(nib, "ink", "crimson") or nib.circle(20),
        lambda nib: nib.circle(20, fill="gold"),
        lambda nib: nib.arc_left(20, 180),
    ],
)
def test_what_differs_is_not_told(second):
    assert found(lambda nib: nib.circle(20) or second(nib)) == []


def test_circles_through_one_point_are_not_the_same():
    def ring(nib):
        for _ in range(11):
            nib.travel(60)
            nib.circle(60)
            nib.travel(-60)
            nib.left(360 / 11)

    assert found(ring) == []


def test_translucent_layers_and_chance_are_left_in_peace():
    def layers(nib):
        nib.ink = "rgb(0 0 0 / 40%)"
        nib.circle(20)
        nib.circle(20)

    def chance(nib):
        for _ in range(9):
            nib.travel_to(10 * nib.dice.integer(0, 1), 0)
            nib.circle(20)

    assert found(layers) == found(chance) == []


def test_a_border_that_is_drawn_again_over_what_covered_it_is_meant(program):
    from ovlo.program.loading import load
    from ovlo.program.running import Limits, run_program

    code = (
        "from ovlo import drawing\n\n@drawing\ndef port(nib):\n    nib.circle(90)\n"
        "    nib.rectangle(200, 60, fill='teal')\n    nib.circle(90)\n"
    )
    outcome = run_program(load(str(program(code))), {}, None, Limits(), True)
    assert [one.rule for one in outcome.sheet.check()] == []
