"""The odd one out: a figure that breaks the law of its neighbours, and what is so on purpose."""

from __future__ import annotations

import re

import numpy as np
import pytest

from ovlo import Motif, drawing
from ovlo.core.check.laws import law_of_angles, law_of_numbers


def told(steer, **size):
    """What is said of a drawing about odd figures."""
    sheet = drawing(width=size.get("width", 640), height=size.get("height", 480))(steer).run(traced=True)
    return [one for one in sheet.check() if one.rule == "odd-one-out"]


def row(count=9, x=lambda i: 60 * i, y=lambda i: 0, draw=lambda nib, i: nib.circle(12)):
    def steer(nib):
        for i in range(count):
            nib.travel_to(x(i) - 240, y(i))
            draw(nib, i)

    return steer


def mast(nib, height):
    with nib.returning():
        nib.turn_to(90)
        nib.forward(height)
        nib.circle(4, fill="gold")


COLOURS = ["gold", "teal", "plum"]
FLAG = Motif.record(lambda nib: [nib.polygon(3, radius=14), nib.travel(4), nib.circle(3)])

ODD = {
    "size": (row(draw=lambda nib, i: nib.circle(15 if i == 3 else 12)), "the 4th is 1.25 times as large"),
    "growth": (row(draw=lambda nib, i: nib.circle(8 + 2 * i + 5 * (i == 4))), "the others grow evenly"),
    "factor": (row(draw=lambda nib, i: nib.circle(4 * 1.2**i * (1 + 0.4 * (i == 4)))), "1.4 times as large"),
    "width": (
        row(draw=lambda nib, i: nib.rectangle(30 - 8 * (i == 5), [20, 50, 34, 62, 41, 27, 55, 30, 47][i])),
        "the 6th is 22 wide, not 30",
    ),
    "call": (row(draw=lambda nib, i: mast(nib, 60 if i == 4 else 90)), "the 5th has lines"),
    "by turns": (
        row(12, draw=lambda nib, i: nib.circle((8, 12)[i % 2] + (i == 5) * 4)),
        "take turns, 2",
    ),
    "turn": (
        row(draw=lambda nib, i: nib.rectangle(30, 12, turn=9 * (i == 6))),
        "the 7th is turned 9°",
    ),
    "look": (
        row(12, draw=lambda nib, i: nib.circle(9, fill=COLOURS[(i + (i == 7)) % 3])),
        "8th has a colour",
    ),
    "stamp": (row(draw=lambda nib, i: nib.stamp(FLAG, scale=0.8 if i == 3 else 1)), "the 4th is 0.8 times"),
    "beside": (row(y=lambda i: 11 * (i == 2)), "the 3rd lies 11 beside its place"),
    "gap": (row(x=lambda i: 50 * i + 9 * (i > 4)), "From the 5th to the next .* 59 long, elsewhere 50"),
    "missing": (
        row(x=lambda i: 50 * i + 50 * (i > 4)),
        "the 5th and the next of 9 .* one is missing",
    ),
    "in a grid": (
        row(23, lambda i: 60 * ((i + (i > 9)) % 6), lambda i: 60 * ((i + (i > 9)) // 6)),
        "of 23 figures one is left out, after the 10th",
    ),
}


@pytest.mark.parametrize("name", ODD)
def test_one_odd_figure_is_told_once(name):
    steer, words = ODD[name]
    (found,) = told(steer)
    assert found.severity == "hint"
    assert re.search(words, found.message), found.message
    assert found.lines


def ring(count, step, draw=lambda nib, i: nib.circle(9), radius=lambda i: 120, more=lambda i: 0):
    def steer(nib):
        for i in range(count):
            nib.travel_to(0, 0)
            nib.turn_to(step * i + more(i))
            nib.travel(radius(i))
            draw(nib, i)

    return steer


RINGS = {
    "open": (ring(11, 30), "30° apart on a ring, but 60° from the last to the first"),
    "by a wrong turn": (ring(12, 29), "29° apart on a ring, but 41°"),
    "farther in": (ring(12, 30, radius=lambda i: 120 - 14 * (i == 4)), "the 5th lies 14 farther in or out"),
    "beside": (ring(12, 30, more=lambda i: 7 * (i == 4)), "the 5th lies 7° beside its place"),
    "gap": (ring(12, 24, more=lambda i: 9 * (i > 5)), "From the 6th to the next .* 33°, elsewhere 24°"),
    "spiral": (ring(20, 20, radius=lambda i: 30 + 6 * i + 9 * (i == 8)), "the 9th lies 9 farther in or out"),
}


@pytest.mark.parametrize("name", RINGS)
def test_rings_and_spirals_keep_laws_too(name):
    steer, words = RINGS[name]
    assert any(re.search(words, one.message) for one in told(steer))


def moth(nib, off=0.0, sides=(1, -1)):
    for side in sides:
        for x, y, size in ((60, 70, 10), (85, 30, 7), (50, -40, 6), (70, -80, 5)):
            if (side, size) == (-1, 5) and off < 0:
                continue
            nib.travel_to(side * x, y + (off if (side, size) == (-1, 7) and off > 0 else 0))
            nib.circle(size)


def test_the_one_without_a_mirror_image_is_told():
    assert told(lambda nib: moth(nib)) == []
    (found,) = told(lambda nib: moth(nib, 6))
    assert "lies 6 beside its mirror image" in found.message
    (found,) = told(lambda nib: moth(nib, -1))
    assert "has no mirror image" in found.message


MEANT = {
    "a row": row(),
    "growing": row(draw=lambda nib, i: nib.circle(5 + i)),
    "a first one larger": row(draw=lambda nib, i: nib.circle(12 if i else 20)),
    "a last one larger": row(draw=lambda nib, i: nib.circle(20 if i == 8 else 12)),
    "two larger": row(draw=lambda nib, i: nib.circle(16 if i in (3, 6) else 12)),
    "much larger": row(draw=lambda nib, i: nib.circle(40 if i == 3 else 12)),
    "larger and of another colour": row(
        draw=lambda nib, i: nib.circle(16 if i == 3 else 12, fill="red" if i == 3 else "gold")
    ),
    "a gate": row(x=lambda i: 50 * i + 100 * (i > 4)),
    "uneven": row(x=lambda i: (0, 41, 95, 130, 200, 233, 290, 340, 420)[i]),
    "on a wave": row(y=lambda i: (0, 30, 0, -30)[i % 4]),
    "draughts": row(12, lambda i: 80 * (i % 4) + 40 * (i // 4 % 2), lambda i: 40 * (i // 4)),
    "half a ring": ring(10, 20),
    "a golden spiral": ring(30, 137.5, radius=lambda i: 20 * i**0.5),
    "a turned circle": row(draw=lambda nib, i: nib.circle(12) if i != 4 else [nib.left(30), nib.circle(12)]),
    "by dice": row(draw=lambda nib, i: nib.circle(nib.dice.number(8, 9) if i == 4 else 12)),
    "four": row(4, draw=lambda nib, i: nib.circle(12 + 3 * (i == 1))),
}


@pytest.mark.parametrize("name", MEANT)
def test_what_is_meant_is_not_told(name):
    assert told(MEANT[name]) == []


def test_laws_of_numbers_are_found_with_one_slip():
    values = np.array([3.0, 5, 7, 9, 12, 13, 15])
    law = law_of_numbers(values, 1e-6)
    assert law.asked.tolist() == [3, 5, 7, 9, 11, 13, 15]
    assert law.breaks.tolist() == [4]
    assert law_of_numbers(np.array([3.0, 5, 8.5, 9, 12, 14, 16]), 1e-6) is None
    angles = law_of_angles(np.array([350.0, 20, 50, 80, 115, 140, 170]))
    assert (angles.breaks.tolist(), angles.asked[4] % 360) == ([4], 110)


def test_rays_that_are_all_drawn_twice_are_told():
    def rays(nib, turn):
        for _ in range(12):
            with nib.returning():
                nib.travel(10)
                nib.forward(80)
            nib.left(turn)

    def rules(steer):
        return [(one.rule, one.message) for one in drawing(steer).run(traced=True).check()]

    ((rule, message),) = rules(lambda nib: rays(nib, 60))
    assert (rule, message[:52]) == ("drawn-again", "Each of 6 figures is drawn 2 times in the same place")
    assert rules(lambda nib: rays(nib, 30)) == []


def test_words_on_words_are_told_and_shadows_are_not():
    def board(nib, gap):
        for words in ("Regatta at ten", "Kites at noon"):
            nib.text(words, size=20)
            nib.travel_by(0, gap)

    def shadow(nib):
        for off in (2, 0):
            nib.travel_to(off, -off)
            nib.text("Kites", size=40)

    def rules(steer):
        return [one.rule for one in drawing(steer).run(traced=True).check()]

    assert rules(lambda nib: board(nib, -6)) == ["words-on-words"]
    assert rules(lambda nib: board(nib, -24)) == []
    assert rules(shadow) == []
