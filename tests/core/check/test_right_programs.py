"""Right programs that look like mistakes: none of them is called wrong."""

from __future__ import annotations

import math
from collections.abc import Callable

import pytest

from ovlo import Nib, Sheet, ramp
from ovlo.core.values.finding import PROBLEM

RIGHT: dict[str, Callable[[Nib], object]] = {}
OPEN_ON_PURPOSE = ("cup", "letter_u", "maze_gate")
"""These may be meant, and may be slips: a hint says so."""


def right(draw: Callable[[Nib], object]) -> Callable[[Nib], object]:
    RIGHT[draw.__name__] = draw
    return draw


@right
def circle_rosette(nib):
    for _ in nib.full_turn(12):
        nib.arc_left(40, 360)


@right
def clover(nib):
    for _ in nib.full_turn(4):
        nib.arc_left(30, 180)
        nib.arc_left(30, 180)


@right
def nautilus(nib):
    for i in range(12):
        nib.arc_left(10 + 5 * i, 360)
        nib.left(15)


@right
def four_decimals(nib):
    for _ in range(7):
        nib.forward(60)
        nib.left(51.4286)


@right
def cup(nib):
    nib.turn_to(270)
    nib.forward(60)
    nib.left(90)
    nib.forward(60)
    nib.left(90)
    nib.forward(60)


@right
def letter_u(nib):
    nib.turn_to(270)
    for i in range(3):
        nib.forward(80)
        if i < 2:
            nib.left(90)


@right
def chess(nib):
    for i in range(8):
        for j in range(8):
            nib.travel_to(-140 + 40 * i, -140 + 40 * j)
            nib.rectangle(40, 40, fill="black" if (i + j) % 2 else "white", outline=False)


@right
def gradient(nib):
    for i, c in enumerate(ramp("white", "navy", 40)):
        nib.travel_to(0, -200 + 10 * i)
        nib.rectangle(600, 10, fill=c, outline=False)


@right
def washes(nib):
    for i in range(30):
        nib.travel_to(i * 3, 0)
        nib.circle(60, fill="#0080ff05", outline=False)


@right
def ring_cut(nib):
    nib.line_width = 10
    nib.circle(60)
    nib.rectangle(140, 8, fill="white", outline=False)


@right
def label(nib):
    nib.line_width = 4
    nib.forward(100)
    nib.travel_to(50, 0)
    nib.rectangle(40, 20, fill="white", outline=False)
    nib.text("kite", 12, align="middle", baseline="middle")


@right
def white_ground(nib):
    nib.rectangle(640, 480, fill="white", outline=False)
    nib.circle(50, fill="tomato")


@right
def ground_bleeds(nib):
    nib.rectangle(700, 520, fill="skyblue", outline=False)
    nib.circle(50, fill="tomato")


@right
def sun_bleeds(nib):
    nib.travel_to(320, 240)
    nib.circle(90, fill="gold", outline=False)


@right
def maze_gate(nib):
    nib.travel_to(-100, -100)
    for _ in range(3):
        nib.forward(200)
        nib.left(90)
    nib.forward(185)


@right
def house_door(nib):
    nib.travel_to(10, 0)
    nib.forward(60)
    nib.left(90)
    nib.forward(70)
    nib.left(45)
    nib.forward(200 / math.sqrt(8) * 1.0)
    nib.left(90)
    nib.forward(200 / math.sqrt(8))
    nib.left(45)
    nib.forward(70)
    nib.left(90)
    nib.forward(62)


@right
def corners_lifted(nib):
    pts = []
    nib.lift()
    for _ in range(5):
        nib.forward(70)
        nib.left(72)
        pts.append(nib.position)
    nib.lower()
    nib.travel_to(pts[0])
    for p in pts[1:]:
        nib.line_to(p)
    nib.line_to(pts[0])


@right
def chain(nib):
    nib.travel_to(-200, 0)
    for _ in range(6):
        nib.arc_left(15, 360)
        nib.forward(40)


@right
def bar0(nib):
    for i, v in enumerate([3, 0, 5]):
        nib.travel_to(60 * i, 0)
        nib.turn_to(0)
        with nib.area("teal"):
            for d in (40, v * 20, 40, v * 20):
                nib.forward(d)
                nib.left(90)


@right
def scatter_covered(nib):
    for _ in range(300):
        nib.travel_to(nib.dice.point(30))
        nib.circle(25, fill=nib.dice.colour())


@right
def windows_night(nib):
    nib.rectangle(200, 300, fill="#101020")
    for i in range(4):
        for j in range(5):
            nib.travel_to(-60 + 40 * i, -100 + 50 * j)
            nib.rectangle(20, 25, fill="gold" if (i * j) % 3 else "#111122", outline=False)


@right
def finish_flag(nib):
    for i in range(10):
        for j in range(4):
            nib.travel_to(-100 + 20 * i, 20 * j)
            nib.rectangle(20, 20, fill=("white", "black")[(i + j) % 2], outline=False)


@right
def beads(nib):
    nib.travel_to(-200, 0)
    for _ in range(6):
        nib.forward(40)
        nib.circle(8, fill="gold")


@pytest.mark.parametrize("name", RIGHT)
def test_right_programs_that_look_wrong_are_left_in_peace(name):
    sheet = Sheet(640, 480, seed=3)
    RIGHT[name](sheet.new_nib())
    found = sheet.check()
    assert [str(one) for one in found if one.severity == PROBLEM or name not in OPEN_ON_PURPOSE] == []


def test_most_of_what_one_style_draws_must_be_unseen():
    sheet = Sheet(640, 480)
    nib = sheet.new_nib()
    nib.ink = "white"
    nib.forward(50)
    nib.ink = "navy"
    for _ in range(3):
        nib.forward(50)
        nib.left(40)
    (one,) = [one for one in sheet.check() if one.rule == "no-contrast"]
    assert one.message == "This line cannot be distinguished from what lies beneath it: #ffffff on #ffffff."


def test_mends_can_be_typed():
    sheet = Sheet(640, 480)
    nib = sheet.new_nib()
    for _ in range(7):
        nib.forward(60)
        nib.left(52)
    (one,) = sheet.check()
    assert one.fix.startswith("Turn by 360 / 7 (about 51.43°) after each side")
