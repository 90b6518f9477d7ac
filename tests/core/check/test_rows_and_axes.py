"""Rows that overlap or miss their axis, lines drawn twice, open leaves: what is told, and what is meant."""

from __future__ import annotations

import pytest

from ovlo import drawing

RULES = {
    "odd-one-out",
    "covered-row",
    "off-axis",
    "short-row",
    "drawn-again",
    "open-border",
    "words-off-centre",
    "words-over-frame",
}


def told(steer):
    sheet = drawing(width=400, height=400)(steer).run(traced=True)
    return [(one.rule, one.message) for one in sheet.check() if one.rule in RULES]


def bars(
    step=40, wide=lambda i: 60, x=lambda x: x, y=lambda i: -90, fill="teal", turn=0, count=5, chance=False
):
    def steer(nib):
        if chance:
            nib.dice.integer(1, 6)
        nib.turn_to(turn)
        for i in range(count):
            nib.travel_to(x(-150 + step * i), y(i))
            nib.rectangle(wide(i), 20 + 9 * i, anchor="corner", fill=fill)

    return steer


def test_bars_that_are_wider_than_they_are_apart_are_told():
    ((rule, words),) = told(bars())
    assert rule == "covered-row"
    assert words == (
        "These 5 rectangles are 60 px wide, but 40 px apart, so that each covers a part of the one before."
    )
    assert [rule for rule, _ in told(bars(step=-20, x=lambda x: x + 300))] == ["covered-row"]
    assert [rule for rule, _ in told(bars(wide=lambda i: 44.5))] == ["covered-row"]


@pytest.mark.parametrize(
    "steer",
    [
        bars(step=60),
        bars(step=57),  # a little
        bars(step=0.0001, count=3),
        bars(count=3),
        bars(wide=lambda i: 60 + i),
        bars(y=lambda i: -90 + 7 * i * (i + 1)),
        bars(x=lambda x: x + x * x / 200),
        bars(fill="rgb(0 128 128 / 50%)"),
        bars(fill=None),
        bars(turn=30),
        bars(chance=True),
    ],
)
def test_bars_that_stand_as_they_should_are_not_told(steer):
    assert [rule for rule, _ in told(steer) if rule == "covered-row"] == []


def coat(left=-24, right=24, rest=0, one=False, chance=False):
    def steer(nib):
        if chance:
            nib.dice.integer(1, 6)
        nib.rectangle(200, 320, fill="navy")
        nib.travel_to(rest, 130)
        nib.polygon(4, radius=40, fill="white")
        for x in (left,) if one else (left, right):
            nib.travel_to(x, 40)
            nib.circle(8, fill="gold")
        nib.travel_to(0, -140)
        nib.rectangle(160, 12, fill="white")

    return steer


def test_a_row_beside_the_axis_of_all_else_is_told_with_its_side():
    assert told(coat(-24, 36)) == [
        (
            "off-axis",
            "What is drawn here has its middle 6 px to the right of the axis on which all else has it.",
        )
    ]
    ((_, words),) = told(coat(-36, 24))
    assert "6 px to the left" in words


@pytest.mark.parametrize(
    "steer",
    [
        coat(),
        coat(-24, 25),  # less than a pixel from its middle
        coat(-24, 36, rest=5),  # two do not keep the axis
        coat(9, 90),  # far aside
        coat(9, one=True),
        coat(-24, 36, chance=True),
    ],
)
def test_what_keeps_the_axis_or_is_elsewhere_is_not_told(steer):
    assert [rule for rule, _ in told(steer) if rule == "off-axis"] == []


def test_gleams_on_balls_in_the_middle_may_be_beside_it():
    def balls(nib):
        for x in (-80, 0, 80):
            nib.travel_to(x, 40)
            nib.circle(30, fill="crimson")
        for x in (-80, 0, 80):
            nib.travel_to(x - 10, 52)
            nib.circle(5, fill="white")
        nib.travel_to(0, -60)
        nib.rectangle(200, 20, fill="peru")
        nib.travel_to(0, -90)
        nib.rectangle(160, 20, fill="peru")

    assert told(balls) == []


def boats(count=5, first=-125, step=50, ground=300, last=30, chance=False):
    def steer(nib):
        if chance:
            nib.dice.integer(1, 6)
        nib.rectangle(ground, 120, fill="lightblue")
        for i, _ in enumerate([0] * count):  # as many as it is, whatever a parameter says
            nib.travel_to(first + step * i, 0)
            width = last if i == count - 1 else 30
            nib.ellipse(width, 24, fill="peru")
            nib.rectangle(width / 2, 10, fill="white")

    return steer


def test_a_row_that_ends_one_step_too_early_is_told_with_its_room():
    said = "This row leaves {} px at the {}, but {} px at the {}: one more would fit as well as the others."
    assert told(boats()) == [("short-row", said.format(10, "left", 60, "right"))]
    assert told(boats(first=-75)) == [("short-row", said.format(10, "right", 60, "left"))]
    assert told(boats(step=-50, first=75)) == [("short-row", said.format(10, "left", 60, "right"))]


@pytest.mark.parametrize(
    "steer",
    [
        boats(6),
        boats(first=-100),  # in the middle
        boats(first=-135),  # from the very edge
        boats(first=-127),  # uneven anyway
        boats(3, step=100),  # too few
        boats(last=36),
        boats(chance=True),
        boats(4, first=-80, step=40),  # more than a step is left on both sides
    ],
)
def test_a_row_that_is_full_or_uneven_anyway_is_not_told(steer):
    assert [rule for rule, _ in told(steer) if rule == "short-row"] == []


def threads(count=5, turn=0):
    def steer(nib):
        for _ in range(count):
            nib.forward(190)
            nib.travel(-190)
            nib.left(turn)

    return steer


def test_one_line_drawn_again_and_again_is_told():
    assert told(threads()) == [("drawn-again", "This is drawn 5 times in the same place.")]
    assert told(threads(2)) == [("drawn-again", "This is drawn exactly where the same was drawn before.")]
    assert told(threads(turn=9)) == []


def test_planks_whose_first_joint_is_the_edge_of_the_sheet_are_even():
    def deck(nib):
        for x in (-150, 0, 150):
            nib.travel_to(x, 60)
            nib.circle(30, fill="tomato")
        for i in range(10):
            nib.travel_to(-200 + 40 * i, -150)
            nib.line_by(0, 90)

    assert told(deck) == []


def test_a_meadow_that_was_to_begin_in_the_corner_is_off_the_sheet():
    def meadow(nib, x=-200, anchor="centre"):
        nib.travel_to(x, -200)
        nib.rectangle(400, 120, anchor=anchor, fill="seagreen", outline=False)

    for more, words in (({}, 'anchor="corner"'), ({"x": 0}, ""), ({"anchor": "corner"}, "")):
        sheet = drawing(width=400, height=400)(lambda nib, more=more: meadow(nib, **more)).run(traced=True)
        found = [one for one in sheet.check() if one.rule == "off-sheet"]
        assert bool(found) == bool(words)
        assert all(words in one.fix for one in found)


def gull(second="right", between="ink", ink="black", straight=False):
    def steer(nib):
        nib.ink = ink
        for side in ("left", second):
            nib.travel_to(0, 0)
            nib.turn_to(90)
            if straight:
                nib.forward(50)
            elif side == "left":
                nib.arc_left(50, 70)
            else:
                nib.arc_right(50, 70)
            if between == "style":
                nib.line_width = 9
            if between == "figure":
                nib.circle(9 + len(nib.sheet.trail))

    return steer


@pytest.mark.parametrize("straight", [True, False])
def test_an_open_line_drawn_twice_in_a_row_is_told(straight):
    assert told(gull("left", straight=straight)) == [
        ("drawn-again", "This is drawn exactly where the same was drawn before."),
    ]


@pytest.mark.parametrize(
    "steer",
    [
        gull(),
        gull("left", between="style"),
        gull("left", ink="rgb(0 0 0 / 40%)"),
        gull("left", straight=True, between="figure"),
    ],
)
def test_lines_that_differ_or_add_up_are_not_told(steer):
    assert told(steer) == []


def leaf(turn=120.0, sweep=60, second="left", more=0):
    def steer(nib):
        with nib.area("seagreen"):
            nib.arc_left(90, 60)
            nib.left(turn)
            (nib.arc_left if second == "left" else nib.arc_right)(90 + more, sweep)

    return steer


@pytest.mark.parametrize("steer", [leaf(100), leaf(80), leaf(60, second="right")])
def test_a_leaf_whose_arcs_do_not_meet_is_told(steer):
    assert told(steer) == [
        ("open-border", "This area lies between two equal arcs that do not meet where they began."),
    ]


@pytest.mark.parametrize("steer", [leaf(), leaf(0), leaf(100, more=9), leaf(100, sweep=50)])
def test_a_leaf_that_closes_or_is_none_is_not_told(steer):
    assert told(steer) == []


def tag(align="start", y=60, x=0, heading=0, title="middle"):
    def steer(nib):
        nib.travel_to(0, 0)
        nib.text("Gulls", size=20, align=title)
        nib.travel_to(x, y)
        nib.turn_to(heading)
        nib.text("Mira", size=20, align=align)

    return steer


def test_words_that_begin_where_others_have_their_middle_are_told():
    assert told(tag()) == [("words-off-centre", "The text 'Mira' begins where 'Gulls' has its middle.")]


@pytest.mark.parametrize(
    "steer", [tag("middle"), tag(y=0), tag(x=3), tag(heading=90), tag(title="start"), tag(title="end")]
)
def test_words_elsewhere_or_centred_are_not_told(steer):
    assert told(steer) == []


def flowers(turn=180, petals=6):
    def steer(nib):
        for x in (-100, 0, 100):
            nib.travel_to(x, 0)
            nib.turn_to(0)
            for _ in range(petals):
                nib.travel(20)
                nib.circle(8, fill="gold")
                nib.travel(-20)
                nib.left(turn)

    return steer


def test_of_several_flowers_each_is_told_of_alone():
    assert told(flowers()) == [
        ("drawn-again", "Of 6 figures drawn here each time, 4 lie exactly on others drawn before."),
    ]
    assert told(flowers(60)) == []
