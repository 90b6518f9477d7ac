"""Numbers, points and moves of which one keeps no law: found at its line, mended, and never invented."""

from __future__ import annotations

import ast

import pytest

from ovlo.program.source.rules import findings_in
from ovlo.program.texts import Source

HEAD = "from ovlo import Sheet\nfrom math import cos, radians, sin\nnib = Sheet().new_nib()\n"
RULES = {
    *("line-to-figure", "uneven-turns", "left-over-turn", "unlike-remainders", "number-for-name"),
    *("broken-chain", "unmirrored-point", "sine-for-cosine", "uneven-numbers", "degrees-for-radians"),
    *("fixed-condition", "other-count", "unused-parameter", "no-way-back", "drawn-before-travel"),
    *("unused-value", "short-remainder", "swapped-values", "left-out-word", "missing-f"),
}


def found(code: str):
    return [one for one in findings_in(ast.parse(HEAD + code), "kite.py") if one.rule in RULES]


STAIRS = "for _ in range(6):\n    nib.forward(40)\n    nib.left({})\n    nib.forward(20)\n    nib.right({})\n"
WEEKS = "for day in range(28):\n    nib.travel_to(day % {} * 40, day // {} * 40)\n    nib.circle(9)\n"
DECK = "def deck(plank=40, rows=5):\n    nib.rectangle({}, {})\n    nib.circle(plank + rows)\ndeck()\n"
BAND = "def band(low, high):\n    nib.rectangle(9, high - low)\n"
BANDS = BAND + "band(-90, -40)\nband({}, 10)\nband(10, 60)\nband(60, 80)\n"
LANTERN = "nib.travel_to(0, 140)\nnib.polyline([({}, 90), (60, -60), (-60, -60), (-45, {}), (0, 140)])\n"
SPIN = "".join(f"nib.line_to({r} * {{}}(3), {r} * {{}}(3))\n" for r in (5, 6, 7))
KNOT = "def knot(nib, x, y, size):\n    nib.travel_to(x, y)\n    nib.circle(size)\nknot({})\n"
BARS = "".join(f"nib.rectangle(9, {h}{{0}})\n" for h in (20, 30, 40)) + "nib.rectangle(5, 5{1})\n"
DIAL = (
    "for i in range(12):\n    angle = radians(30 * i)\n    nib.travel_to(90 * cos(angle), 90 * sin(angle))\n"
    "    nib.line_to({}(angle), {}(angle))\n"
)
TILTED = (
    "for _ in range(9):\n    nib.turn_to({})\n    nib.circle(4)\nnib.travel_to(0, 0)\n{}nib.text('Kites')\n"
)
POST = "def post(x):\n    nib.{}(x, 0)\n    nib.line_by(0, 90)\n    nib.circle(6)\n"
OAR = "def oar(side):\n    if side == '{}':\n        nib.left(90)\noar('left')\noar('right')\n"
FLAGS = "def flag(x, colour):\n    nib.travel_to(x, 0)\n    nib.circle(9, fill=colour)\n"
TICKET = (
    "def ticket(x, y):\n{}    nib.rectangle(90, 40)\n    nib.travel_to(x + 9, y)\n    nib.circle(4)\n"
    "ticket(3, 4)\n"
)
TAIL = "y = 150\nfor i in range(7):\n    size = 9 + i\n    nib.travel_to(size, {})\n    y = y - 40\n"
TREE = (
    "def branch(length):\n    if length < 9:\n        return\n    nib.forward(length)\n    nib.left(30)\n"
    "    branch(length * 0.7)\n    nib.right(60)\n    branch(length * 0.7)\n    nib.left(30)\n"
    "    nib.{}(length)\nbranch(90)\n"
)


@pytest.mark.parametrize(
    ("rule", "line", "code"),
    [
        ("line-to-figure", 2, "nib.circle(90)\nnib.line_to(-60, 0)\nnib.turn_to(40)\nnib.arc_left(9, 90)\n"),
        (
            "line-to-figure",
            1,
            "nib.line_to(-60, 0)\nwith nib.area('red'):\n    nib.polyline([(9, 9), (0, 9)])\n",
        ),
        ("line-to-figure", 1, "nib.line_to(-60, 0)\nnib.star(5, 20)\n"),
        ("line-to-figure", 2, POST.format("line_to") + "post(3)\npost(60)\n"),
        ("line-to-figure", 2, POST.format("line_to") + "for k in range(6):\n    post(40 * k)\n"),
        ("uneven-turns", 5, STAIRS.format(90, 85)),
        ("uneven-turns", 5, STAIRS.format(70, 90)),
        ("left-over-turn", 4, TILTED.format("nib.dice.number(0, 360)", "")),
        ("unlike-remainders", 2, WEEKS.format(6, 7)),
        ("number-for-name", 2, DECK.format("10 * plank", "40 * rows")),
        ("number-for-name", 2, DECK.format(40, 40)),
        ("broken-chain", 4, BANDS.format(-25)),
        ("unmirrored-point", 2, LANTERN.format(60, 90)),
        ("unmirrored-point", 2, LANTERN.format(45, 70)),
        ("sine-for-cosine", 4, DIAL.format("90 * sin", "90 * cos")),
        ("sine-for-cosine", 4, DIAL.format("90 * cos", "90 * cos")),
        ("sine-for-cosine", 3, SPIN.format("sin", "cos", "sin", "cos", "cos", "sin")),
        ("sine-for-cosine", 1, SPIN.format("sin", "cos", "cos", "sin", "cos", "sin")),
        ("number-for-name", 3, "def deck(rows):\n    size = 50\n    nib.rectangle(50 * rows, size * rows)\n"),
        ("number-for-name", 2, DECK.format("9 + 40 * rows", "plank * rows")),
        (
            "degrees-for-radians",
            2,
            DIAL.format("9 * cos", "9 * sin").replace("radians(30 * i)", "90 - 30 * i"),
        ),
        (
            "degrees-for-radians",
            2,
            DIAL.format("9 * cos", "9 * sin").replace("radians(30 * i)", "90 - 30 * i")
            + DIAL.format("8 * cos", "8 * sin"),
        ),
        ("swapped-values", 2, "def tile(width, height):\n    nib.rectangle(height, width)\ntile(4, 5)\n"),
        (
            "swapped-values",
            3,
            "def tile(x, y):\n    nib.travel_to(x, y)\n    nib.line_to(y, x)\ntile(4, 5)\n",
        ),
        ("swapped-values", 4, KNOT.format("nib, y, x, 9")),
        ("swapped-values", 4, KNOT.format("nib, x, size, y")),
        ("left-out-word", 4, BARS.format(", anchor='corner'", "")),
        ("fixed-condition", 2, OAR.format("Left")),
        ("fixed-condition", 2, "for i in range(9):\n    if i % 7 >= 7:\n        nib.forward(i)\n"),
        ("fixed-condition", 2, "for i in range(9):\n    if i % 7 > 8:\n        nib.forward(i)\n"),
        ("uneven-numbers", 1, "SIZES = [12, 12, 12, 11, 12]\nfor one in SIZES:\n    nib.forward(one)\n"),
        ("uneven-numbers", 1, "SIZES = [10, 20, 30, 45, 50, 60]\nfor one in SIZES:\n    nib.forward(one)\n"),
        (
            "uneven-numbers",
            1,
            "RINGS = [(50, 'red'), (80, 'gold'), (110, 'red'), (150, 'gold'), (170, 'red'), (200, 'gold')]\n",
        ),
        (
            "uneven-numbers",
            6,
            FLAGS + "flag(-240, 'red')\nflag(-110, 'gold')\nflag(40, 'red')\nflag(150, 'gold')\n",
        ),
        (
            "other-count",
            4,
            "def wheel(parts=12):\n    for _ in nib.full_turn(parts):\n        nib.circle(9)\n"
            "    for _ in nib.full_turn(10):\n        nib.left(180 / parts)\n        nib.circle(3)\n"
            "wheel()\n",
        ),
        (
            "unused-parameter",
            3,
            "def side(sides, length):\n    for _ in range(sides):\n        nib.forward(60)\n"
            "        nib.left(360 / sides)\nside(3, 60)\nside(4, 50)\n",
        ),
        (
            "unused-parameter",
            2,
            "def dot(x, colour):\n    nib.circle(x, fill='red')\nfor x in (3, 4):\n    dot(x, x)\n",
        ),
        ("unused-parameter", 2, "def tag(name='Mira'):\n    nib.text('name', size=9)\ntag()\n"),
        ("no-way-back", 10, TREE.format("forward")),
        ("drawn-before-travel", 2, TICKET.format("")),
        (
            "drawn-before-travel",
            3,
            "for x in (1, 2, 3):\n    y = 9\n    nib.star(5, 9)\n    nib.travel_to(x, 9)\n",
        ),
        ("missing-f", 2, "price = 3\nnib.text('{price} €', size=price)\n"),
        ("missing-f", 2, "def tag(price):\n    nib.text(words='for {price} €', size=price)\n"),
        ("unused-value", 2, "small = Motif.record(print)\nlarge = small.scaled(2)\nnib.stamp(small)\n"),
        ("unused-value", 4, TAIL.format(150)),
        ("unused-value", 5, TAIL.format(140)),
        ("unused-value", 3, "x, y = 150, 90\nfor _ in range(3):\n    nib.travel_to(150, y)\n    x -= 9\n"),
        ("short-remainder", 2, "DAYS = ['Mon', 'Tue', 'Wed']\nfor i in range(2):\n    nib.text(DAYS[i])\n"),
    ],
)
def test_what_keeps_no_law_is_found_at_its_line(rule, line, code):
    (one,) = found(code)
    assert (one.rule, one.lines) == (rule, (line + HEAD.count("\n"),)), one
    if one.edit is not None:
        edited = Source(HEAD + code, "utf-8").edited(one.edit).text
        assert [str(one) for one in found(edited.removeprefix(HEAD))] == []


@pytest.mark.parametrize(
    "code",
    [
        "nib.travel_to(5, 5)\nnib.line_to(-60, 0)\nnib.turn_to(40)\nnib.forward(9)\n",
        "nib.line_to(-60, 0)\nnib.circle(4)\n",
        KNOT.format("nib, x, y, 9"),
        "SIZE = 9\n_rest = 3\nsheet = kite.run()\n",
        "price = 3\nnib.text(f'{price} €')\nnib.text('{price} €'.format(price=price))\nnib.text('{kites}')\n",
        "def deck(boards=12):\n    nib.travel_to(480 / boards, 0)\n    nib.rectangle(12, 12)\ndeck()\n",
        KNOT.format("nib, y, x, 9") + "knot(nib, x, y, 9)\n",
        BARS.format(", anchor='corner'", ", anchor='corner'"),
        BARS.format("", ", anchor='corner'"),
        "with nib.area('red'):\n    nib.line_to(9, 9)\n    nib.turn_to(40)\n    nib.forward(9)\n",
        "nib.lift()\nnib.line_to(9, 9)\nnib.lower()\nnib.line_to(30, 9)\nnib.turn_to(20)\n",
        POST.format("line_to") + "post(3)\n",
        POST.format("travel_to") + "post(3)\npost(60)\n",
        STAIRS.format(90, 90),
        STAIRS.format(90, 60),
        "for _ in range(6):\n    nib.left(90)\n    nib.arc_left(9, 40)\n    nib.right(85)\n",
        TILTED.format("nib.dice.number(0, 360)", "nib.turn_to(0)\n"),
        TILTED.format("90", ""),
        WEEKS.format(7, 7),
        WEEKS.format(2, 7),
        "for i in range(20):\n    nib.travel_to(i % 5 * 40, i // 5 * 40)\n    nib.circle(i % 3)\n",
        DECK.format("10 * plank", "plank * rows"),
        DECK.format("400", "40 * rows"),
        BANDS.format(-40),
        BANDS.format(-25).replace("band(10,", "band(15,"),
        LANTERN.format(45, 90),
        LANTERN.format(30, 80),
        DIAL.format("9 * cos", "9 * sin"),
        DIAL.format("-90 * sin", "90 * cos"),
        OAR.format("left"),
        OAR.format("Left") + "for one in 'ab':\n    oar(one)\n",
        "for i in range(9):\n    if i % 7 > 6:\n        nib.forward(i)\n",
        "SIZES = [12, 12, 12, 30, 12]\nfor one in SIZES:\n    nib.forward(one)\n",
        "SIZES = [10, 20, 30, 45, 60]\nfor one in SIZES:\n    nib.forward(one)\n",
        FLAGS + "flag(-240, 'red')\nflag(-110, 'gold')\nflag(95, 'red')\nflag(150, 'gold')\n",
        "for _ in nib.full_turn(10):\n    nib.left(180 / 10)\n    nib.circle(9)\n",
        "def tag(name='Mira'):\n    nib.text(name, size=9)\ntag()\n",
        TREE.format("back"),
        TICKET.format("    nib.travel_to(x, y)\n"),
        "def ticket(x):\n    nib.star(5, x)\n    nib.travel_to(40, 0)\nticket(3)\n",
        "for x in (1, 2, 3):\n    nib.forward(9)\n    nib.star(5, 9)\n    nib.travel_to(x, 9)\n",
        TAIL.format("y"),
        TAIL.format(140) + "nib.forward(y)\n",
        "DAYS = ['Mon', 'Tue', 'Wed']\nfor i in range(3):\n    nib.text(DAYS[i])\n",
        "DAYS = ['Mon', 'Tue', 'Wed']\nfor i in range(2):\n    nib.text(DAYS[i + 1])\n",
        "for x, size in ((-50, 60), (0, 90), (55, 50)):\n    nib.travel_to(x, 0)\n    nib.circle(size)\n",
    ],
)
def test_what_is_right_is_left_in_peace(code):
    assert [str(one) for one in found(code)] == []


def test_words_right_behind_a_loop_that_turns_are_told_as_those_farther_on():
    loop = "for i in range(5):\n    nib.turn_to(72 * i)\n    nib.forward(9)\n"
    for between in ("", "nib.travel_to(0, 0)\n"):
        (one,) = found(f"{loop}{between}nib.text('kite')\n")
        assert (one.rule, one.lines) == ("left-over-turn", (4 + HEAD.count("\n"),))
