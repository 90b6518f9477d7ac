"""What a program keeps everywhere but in one place: found at its line, mended by its edit, never invented."""

from __future__ import annotations

import ast

import pytest

from ovlo.program.source.rules import findings_in
from ovlo.program.texts import Source

HEAD = "from ovlo import Sheet\nnib = Sheet().new_nib()\n"
RULES = {
    *("unmirrored", "uneven-numbers", "repeated-value", "short-remainder", "constant-sum", "named-figure"),
    *("quotient-for-remainder", "half-used", "changed-after-loop", "turn-outside-loop", "unused-loop-value"),
    *("unused-items", "other-count"),
}


def found(code: str):
    return [one for one in findings_in(ast.parse(HEAD + code), "kite.py") if one.rule in RULES]


BOTH = "for side in (-1, 1):\n    nib.travel_to({}, 0)\n    nib.line_to({}, 40)\n"
BACK = "for {}:\n    with nib.returning():\n        nib.left({})\n        nib.circle(9)\n"
ROW = "for x in ({}):\n    nib.travel_to(x, 0)\n    nib.circle(9)\n"
STALLS = "def stall(x):\n    nib.travel_to(x, 0)\n    nib.circle(9)\nstall({})\nstall({})\nstall({})\n"
FIGURE = "def {}(side):\n    for _ in range({}):\n        nib.forward(side)\n        nib.left({})\n{}(9)\n"
INKS = "inks = ['red', 'gold', 'navy']\nfor i in range(9):\n    nib.circle(9 + i, fill=inks[i % {}])\n"
WHEEL = (
    "for i in range(6):\n    x, y = i * 2, i * 3\n    nib.line_to(x, y)\n"
    "for i in range(6):\n    x, y = i * 2, i * 3\n    nib.line_to({})\n"
)
RAYS = (
    "def web(rays=12):\n    for i in range(rays):\n        nib.turn_to(360 * i / {})\n"
    "        nib.circle(i)\nweb()\n"
)
PETALS = (
    "def rose(parts=9):\n    for i in nib.full_turn(parts):\n        nib.arc_left(30 + i, 360 / {})\n"
    "        nib.left(180 - 360 / parts)\nrose()\n"
)
DAYS = "DAYS = ['Mon', 'Tue', 'Wed']\nfor i, (day, tide) in enumerate(zip(DAYS, [3, 4, 5])):\n"


@pytest.mark.parametrize(
    ("rule", "line", "code"),
    [
        ("unmirrored", 3, BOTH.format("side * 30", "50")),
        ("unmirrored", 3, BOTH.format("side * 30", "size")),
        ("unmirrored", 2, BOTH.format("20", "40 + 30 * side")),
        ("unmirrored", 3, "for x in (-40, 40):\n    nib.travel_to(x, 35)\n    nib.line_to(40, 30)\n"),
        (
            "unmirrored",
            3,
            "for side in (1, -1):\n    nib.line_by(8, side * -9)\n    nib.line_by(0, 5 + 2)\n",
        ),
        (
            "unmirrored",
            4,
            "for i in range(4):\n    side = 1 if i % 2 else -1\n    nib.line_by(side * 9, 2)\n"
            "    nib.line_by(-9, 2)\n",
        ),
        ("repeated-value", 1, BACK.format("side in (-1, 1)", "25")),
        ("repeated-value", 1, BACK.format("i in range(6)", "25")),
        ("other-count", 3, RAYS.format("10")),
        ("other-count", 3, PETALS.format("10")),
        (
            "changed-after-loop",
            4,
            "def tail(size):\n    for _ in range(6):\n        nib.circle(size)\n    size *= 0.9\ntail(9)\n",
        ),
        ("uneven-numbers", 1, ROW.format("-60, -20, 30, 60")),
        ("uneven-numbers", 1, ROW.format("-24, 0, 34")),
        ("uneven-numbers", 1, ROW.format("-34, 0, 43")),
        ("uneven-numbers", 5, STALLS.format(-150, -20, 150)),
        (
            "uneven-numbers",
            1,
            "for x, y in ((-60, 1), (-20, 5), (9, 3), (60, 2)):\n    nib.travel_to(x, y)\n",
        ),
        ("repeated-value", 1, BACK.format("turn in (40, 0, 40)", "turn")),
        ("repeated-value", 3, BACK.format("i in range(12)", "36 * i")),
        ("short-remainder", 3, INKS.format(2)),
        ("constant-sum", 2, "for i in range(6):\n    nib.circle(90 - 15, fill=str(i))\n"),
        ("named-figure", 2, FIGURE.format("square", 3, 90, "square")),
        ("named-figure", 4, FIGURE.format("draw_triangle", 3, 60, "draw_triangle")),
        ("named-figure", 4, FIGURE.format("hexagon", 6, 72, "hexagon")),
        ("quotient-for-remainder", 2, "for i in range(9):\n    if i / 2 == 0:\n        nib.forward(i)\n"),
        ("half-used", 5, WHEEL.format("x, x")),
        ("changed-after-loop", 4, "size = 90\nfor _ in range(6):\n    nib.circle(size)\nsize -= 9\n"),
        ("changed-after-loop", 4, "size = 90\nfor _ in range(6):\n    nib.circle(size)\nsize = size / 2\n"),
        (
            "turn-outside-loop",
            5,
            "def bow(size):\n    nib.circle(size)\nfor i in range(6):\n    bow(i)\nnib.left(20)\n",
        ),
        ("unused-loop-value", 3, DAYS + "    nib.text('Mon', size=tide + i)\n"),
        (
            "unused-loop-value",
            3,
            "WORD = 'BAY'\nfor i in range(len(WORD)):\n    nib.text(WORD[0], size=9 + i)\n",
        ),
        ("unused-items", 2, "for i in range(3):\n    nib.text('CDE'[0], size=9 + i)\n"),
    ],
)
def test_what_breaks_a_rule_of_its_own_is_found_at_its_line(rule, line, code):
    (one,) = found(code)
    assert (one.rule, one.lines) == (rule, (line + 2,)), one
    if one.edit is not None:
        edited = Source(HEAD + code, "utf-8").edited(one.edit).text
        assert [str(one) for one in found(edited.removeprefix(HEAD))] == []


@pytest.mark.parametrize(
    "code",
    [
        BOTH.format("side * 30", "side * 50"),
        BOTH.format("side * 30", "0"),
        BOTH.format("0", "side * 50"),
        BOTH.format("x + side * 30", "x"),
        BOTH.format("-200", "200").replace("side", "_"),
        "for side in (-1, 1):\n    nib.travel_to(-90, side * 40)\n    nib.line_by(30, 20)\n",
        "for side in (-1, 1):\n    nib.travel_to(5, 9 + side)\n    nib.line_to(90, 20 + side)\n",
        "for x in (-40, 60):\n    nib.travel_to(x, 35)\n    nib.line_to(40, 30)\n",
        ROW.format("-60, -20, 20, 60"),
        ROW.format("-60, -25, 30, 60"),
        ROW.format("-90, 0, 60"),
        ROW.format("-40, 0, 70"),
        ROW.format("10, 20, 40"),
        ROW.format("0, 20, 50, 60"),
        STALLS.format(-150, -90, 150),
        STALLS.format(20, 30, 35),
        "for size in (-60, -20, 30, 60):\n    nib.forward(size)\n",
        BACK.format("turn in (-40, 0, 40)", "turn"),
        "for i in range(4):\n    side = 1 if i % 2 else -1\n    nib.line_by(side * 9, 2)\n"
        "    nib.line_by(-9 * side, 2)\n",
        BACK.format("_ in range(6)", "nib.dice.number(0, 90)"),
        BACK.format("i in range(6)", "60 * i"),
        "for _ in (-1, 1):\n    with nib.returning():\n        nib.circle(9)\n    nib.travel(20)\n",
        RAYS.format("rays"),
        PETALS.format("parts"),
        "def dial(marks=12):\n    for i in range(marks):\n        nib.turn_to(360 / 12 * i)\n"
        "        nib.circle(i)\ndial()\n",
        BACK.format("i in range(10)", "36 * i"),
        BACK.format("i in range(7)", "36 * i"),
        "for length in (110, 30, 110, 30):\n    nib.forward(length)\n    nib.left(90)\n",
        "for i in range(100):\n    nib.turn_to(36 * i)\n    nib.forward(i)\n",
        INKS.format(3),
        INKS.format(1),
        "for i in range(6):\n    nib.circle(90 - 15 * i)\n",
        "nib.circle(90 - 15)\n",
        FIGURE.format("square", 4, 90, "square"),
        FIGURE.format("triangle", 3, -120, "triangle"),
        FIGURE.format("spiral", 3, 90, "spiral"),
        "def square(side):\n    for _ in nib.full_turn(4):\n        nib.forward(side)\nsquare(9)\n",
        "def square(a):\n    for _ in range(2):\n        nib.forward(a)\n        nib.left(90)\n"
        "        nib.forward(a)\n        nib.left(90)\nsquare(9)\n",
        "for i in range(9):\n    if i % 2 == 0:\n        nib.forward(i)\n",
        "for i in range(9):\n    if i / 2 == 1:\n        nib.forward(i)\n",
        WHEEL.format("x, y"),
        "for i in range(6):\n    x, y = nib.position\n    nib.line_to(x, i)\n",
        "for i in range(6):\n    x, y = i, 2 * i\n    nib.line_to(x, 0)\nnib.line_to(x, y)\n",
        "size = 90\nfor _ in range(6):\n    nib.circle(size)\nsize -= 9\nnib.circle(size)\n",
        "size = 90\nfor _ in range(6):\n    nib.circle(size)\n    size -= 9\nsize = 5\n",
        "for _ in range(2):\n    size = 9\n    for _ in range(6):\n        nib.circle(size)\n    size += 1\n",
        DAYS + "    nib.text(day, size=tide + i)\n",
        DAYS.replace("day", "_") + "    nib.text('Tide', size=tide + i)\n",
        "WORD = 'BAY'\nfor i in range(len(WORD)):\n    nib.text(WORD[i], size=9)\n    nib.text(WORD[0])\n",
        "for i in range(3):\n    nib.text('CDE'[i], size=9)\n",
    ],
)
def test_right_programs_are_left_in_peace(code):
    assert [str(one) for one in found(code)] == []


def test_a_copied_line_is_named_beside_the_parameter_it_leaves_out():
    code = (
        "def tile(nib, upper, lower):\n    pips(nib, upper)\n    nib.travel(40)\n    pips(nib, upper)\n"
        "def pips(nib, count):\n    nib.circle(count)\ntile(nib, 2, 3)\n"
    )
    (one,) = (one for one in findings_in(ast.parse(HEAD + code), "kite.py") if one.rule == "unused-parameter")
    assert one.lines == (6,)
    assert one.message.endswith("; this line says the same as line 4.")


def test_a_copied_area_is_named_too():
    code = (
        "def kite(nib, upper, lower):\n    with nib.area(upper):\n        nib.forward(9)\n"
        "    with nib.area(upper):\n        nib.forward(9)\nkite(nib, 'red', 'gold')\n"
    )
    found = [one for one in findings_in(ast.parse(HEAD + code), "kite.py") if one.rule == "unused-parameter"]
    assert [one.lines for one in found] == [(6,)]


def test_parts_of_a_whole_turn_are_degrees():
    code = (
        "from math import cos\nfor i in range(6):\n    angle = 360 / 6 * i\n    nib.line_to(cos(angle), i)\n"
    )
    rules = [one.rule for one in findings_in(ast.parse(HEAD + code), "kite.py")]
    assert "degrees-for-radians" in rules
