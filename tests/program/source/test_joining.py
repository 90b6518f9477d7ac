"""One finding for one cause, at the line that is to be changed."""

from __future__ import annotations

import pytest

from ovlo.program.loading import load
from ovlo.program.running import Limits, run_program

HEAD = "from ovlo import drawing\n\n\n"


def checked(program, code):
    outcome = run_program(load(str(program(HEAD + code))), {}, None, Limits(100_000, 20), True)
    return outcome.sheet.check()


def test_a_turn_is_pointed_at_where_it_is_written(program):
    (one,) = checked(
        program,
        "def leaf(nib):\n    for _ in range(2):\n        nib.arc_left(80, 90)\n        nib.left(90)\n\n\n"
        "@drawing\ndef flower(nib):\n    for _ in range(7):\n        leaf(nib)\n        nib.left(50)\n",
    )
    assert (one.rule, one.lines, 13 in one.callers) == ("rosette-misses-360", (14,), True)


def test_an_ink_is_pointed_at_where_it_is_set(program):
    (one,) = checked(
        program, '@drawing\ndef ghost(nib):\n    nib.ink = "white"\n    nib.left(30)\n    nib.forward(90)\n'
    )
    assert (one.rule, one.lines, one.callers) == ("no-contrast", (6,), (8,))


def test_what_the_source_explains_is_not_told_of_the_picture_too(program):
    found = checked(
        program,
        "@drawing\ndef seven(nib, sides: int = 7):\n    for _ in range(sides):\n        nib.forward(60)\n"
        "        nib.left(360 // sides)\n",
    )
    assert [(one.rule, one.lines) for one in found] == [("floor-division", (8,))]


def test_a_cause_in_one_loop_explains_nothing_of_another(program):
    found = checked(
        program,
        "@drawing\ndef sails(nib):\n    for _ in nib.full_turn(6):\n        nib.rectangle(90, 30)\n"
        "        nib.left(60)\n    nib.travel_to(-50, -100)\n    for _ in range(3):\n"
        "        nib.forward(90)\n        nib.left(60)\n",
    )
    assert [(one.rule, one.lines) for one in found] == [("turns-miss-360", (12,)), ("turned-twice", (8,))]


@pytest.mark.parametrize(
    "code",
    [
        "nib.ink = 'red'\n    nib.forward(90)\n    nib.ink = 'blue'\n    nib.circle(20)",
        "nib.ink = 'red'\n    print(nib.ink)\n    nib.forward(90)",
        "nib.ink = 'red'\n    mine(nib)",
        "for colour in ('red', 'blue'):\n        nib.ink = colour\n        nib.forward(90)",
        "nib.line_width = 5\n    nib.text('north')\n    nib.forward(90)",
        "nib.line_width = 2\n    nib.polyline([(0, 9), (9, 9)])\n    nib.line_width = 1\n    nib.circle(9)",
        "import math\n    nib.left(math.degrees(math.atan2(3, 4)))\n    nib.forward(90)",
        "import math\n    nib.arc_left(60, 180 * 90 / (math.pi * 60))",
        "import math\n    nib.line_to(100, 50 * math.sin(math.radians(45)))",
        "import math\n    for x in range(0, 200, 5): nib.line_to(x, 40 * math.sin(x / 30))",
        "half = 5 // 2\n    nib.forward(20 * half)",
    ],
)
def test_styles_and_angles_that_are_right(program, code):
    mine = "def mine(nib):\n    nib.forward(90)\n\n\n"
    found = checked(program, f"{mine}@drawing\ndef kite(nib):\n    mine(nib)\n    {code}\n")
    assert [one for one in found if one.rule not in ("unused-function", "off-sheet")] == []


@pytest.mark.parametrize(("count", "rules"), [("5", ["short-row"]), ("boats", [])])
def test_a_row_as_long_as_a_parameter_says_may_be_of_any_length(program, count, rules):
    code = (
        "from ovlo import drawing\n@drawing(width=300, height=200)\ndef row(nib, boats=5):\n"
        f"    for i in range({count}):\n        nib.travel_to(-125 + 50 * i, 0)\n"
        "        nib.ellipse(30, 12, fill='teal')\n    nib.circle(boats)\n"
    )
    outcome = run_program(load(str(program(code))), limits=Limits(), traced=True)
    assert [one.rule for one in outcome.sheet.check()] == rules
