"""Loops and recursions that the source shows to be wrong, each beside right programs that look alike."""

from __future__ import annotations

import ast

import pytest

from ovlo.core.values.finding import rules_in
from ovlo.program.source import loops, recursion
from ovlo.program.source.rules import findings_in
from ovlo.program.texts import Source

HEAD = "from ovlo import Sheet\nsheet = Sheet()\nnib = sheet.new_nib()\n"
RULES = {vars(look)["declared_rule"].name for look in rules_in(loops, recursion)}


def found(code: str):
    tree = ast.parse(HEAD + code)
    return [one for one in findings_in(tree, "kite.py") if one.rule in RULES]


TREE = (
    "def tree(length):\n    if length < 8:\n        return\n    nib.forward(length)\n    nib.left(25)\n"
    "    tree(length * 0.7)\n    nib.right(50)\n    tree(length * 0.7)\n    nib.left(25)\n{}tree(90)\n"
)
PETALS = (
    "def bloom(count):\n    for _ in range(count):\n        nib.circle(30)\n        nib.left({})\nbloom(6)\n"
)
RING = "for _ in nib.full_turn(8):\n    nib.circle(30)\n{}"
SIZES = "def square(size):\n    nib.rectangle(size, size)\n{}"
DIAL = "for hour in range(12):\n    nib.travel_to(20 * hour, 0)\n{}"
SNAIL = (
    "def snail(turns, step):\n    if turns == 0:\n        return\n    nib.forward(step)\n"
    "    snail({})\nsnail(9, 2)\n"
)


NESTED = "for i in range(3):\n    for {} in range(4):\n        nib.left(9)\n    nib.forward(i)\n"
CURL = "def curl(steps):\n    for i in range(steps):\n        {}\n        nib.left(360 / 24)\ncurl(60)\n"


@pytest.mark.parametrize(
    ("rule", "line", "code"),
    [
        ("no-way-back", 8, TREE.format("")),
        ("other-count", 4, PETALS.format("360 / 8")),
        ("other-count", 5, PETALS.format("90)\n        nib.left(360 / 8")),
        ("turned-twice", 3, RING.format("    nib.left(360 / 8)\n")),
        ("turned-twice", 3, RING.format("    nib.left(45)\n")),
        ("unused-loop-value", 4, SIZES.format("for size in range(20, 90, 20):\n    square(20)\n")),
        ("unused-loop-value", 4, SIZES.format("for radius in range(20, 90, 20):\n    nib.circle(20)\n")),
        ("unused-loop-value", 1, "for side in (-1, 1):\n    nib.forward(50)\n    nib.left(9)\n"),
        ("unused-loop-value", 1, "for i, (x, y) in enumerate([(1, 2), (3, 4)]):\n    nib.travel_to(x, i)\n"),
        ("unused-loop-value", 2, 'for colour in ["red", "gold"]:\n    nib.ink = "red"\n    nib.left(9)\n'),
        ("drawn-after-loop", 3, DIAL.format("nib.text(str(hour))\n")),
        ("drawn-after-loop", 3, DIAL.format('with nib.area("gold"):\n    nib.polyline([(0, 9), (9, 9)])\n')),
        ("turn-outside-loop", 5, SIZES.format("for _ in range(6):\n    square(20)\nnib.left(60)\n")),
        ("infinite-recursion", 5, SNAIL.format("turns, step + 1")),
        ("same-loop-name", 2, NESTED.format("i")),
        ("unused-loop-value", 3, "inks = nib, nib\nfor ink in inks:\n    nib.ink = inks[0]\n    nib.left(9)"),
        ("drawn-after-loop", 3, "for i in range(9):\n    nib.circle(9)\nnib.text(str(i))\n"),
        ("empty-range", 1, "for i in range(10, 0):\n    nib.forward(i)\n"),
        ("empty-range", 2, "def rings(nib, most=5):\n    for i in range(most, 0):\n        nib.circle(i)\n"),
        ("empty-range", 1, "for i in range(1, 10, -1):\n    nib.forward(i)\n"),
        ("endless-loop", 2, "size = 9\nwhile size < 90:\n    nib.forward(size)\n"),
        ("endless-loop", 1, "while True:\n    nib.forward(9)\n"),
    ],
)  # fmt: skip
def test_a_loop_is_found_at_its_line(rule, line, code):
    (one,) = found(code)
    assert (one.rule, one.lines) == (rule, (line + 3,)), one
    if one.edit is not None and rule != "empty-range":
        edited = Source(HEAD + code, "utf-8").edited(one.edit).text
        assert "\n\n" not in edited  # a line of which nothing is left goes
        assert found(edited.removeprefix(HEAD)) == []


@pytest.mark.parametrize(
    "code",
    [
        TREE.format("    nib.back(length)\n"),
        "def koch(length, depth):\n    if depth == 0:\n        nib.forward(length)\n        return\n"
        "    koch(length / 3, depth - 1)\n    nib.left(60)\n    koch(length / 3, depth - 1)\nkoch(90, 3)\n",
        "def hilbert(depth, angle):\n    if depth == 0:\n        return\n    nib.right(angle)\n"
        "    hilbert(depth - 1, -angle)\n    nib.forward(8)\n    hilbert(depth - 1, angle)\nhilbert(4, 90)\n",
        PETALS.format("360 / count"),
        CURL.format("nib.forward(5)"),
        CURL.format("nib.circle(i)"),
        RING.format(""),
        RING.format("    nib.left(30)\n"),
        "for _ in nib.full_turn(6):\n    nib.left(60)\n    nib.back(9)\n    nib.right(60)\n",
        SIZES.format("for angle in range(0, 360, 30):\n    square(60)\n    nib.left(30)\n"),
        SIZES.format("for size in range(20, 90, 20):\n    square(size)\n"),
        'for _ in ["red", "gold"]:\n    nib.ink = "red"\n    nib.forward(9)\n',
        DIAL.format("    nib.text(str(hour))\n"),
        DIAL.format("nib.forward(20)\n"),
        "for _ in range(3):\n    nib.travel(20)\nnib.circle(9)\n",
        "def bay():\n    for _ in range(6):\n        nib.circle(20)\n    nib.left(60)\nbay()\n",
        "def row():\n    nib.forward(20)\nfor _ in range(6):\n    row()\nnib.left(60)\nrow()\n",
        SNAIL.format("turns - 1, step"),
        "def walk(letters, step):\n    for letter in letters:\n        if letter == '[':\n"
        "            walk(letters, step)\n        nib.forward(step)\nwalk(iter('ab'), 9)\n",
        "def chain(kind, left):\n    if kind == 1:\n        nib.left(9)\n    if left > 0:\n"
        "        chain(kind, left - 1)\nchain(1, 5)\n",
        NESTED.format("k"),
        "for _ in (0, 90, 180):\n    nib.forward(90)\n    nib.left(90)\n",
        "for i, (x, _) in enumerate([(1, 2), (3, 4)]):\n    nib.travel_to(x, i)\n",
        SIZES.format("for angle in range(30, 390, 30):\n    square(60)\n    nib.left(30)\n"),
        "for i in range(10, 0, -1):\n    nib.forward(i)\n",
        "for i in range(9):\n    if nib.dice.chance(0.1):\n        break\nnib.text(str(i))\n",
        "for side in range(5, 90, 5):\n    nib.forward(side)\n    nib.left(90)\nnib.forward(side)\n",
        "def rings(nib, most=0):\n    for i in range(1, most):\n        nib.circle(i)\nrings(nib, 5)\n",
        'inks = ["red", "gold"]\nfor ink in inks:\n    nib.ink = ink\n    nib.circle(9, fill=inks[0])\n',
    ],
)
def test_right_loops_are_left_in_peace(code):
    assert [str(one) for one in found(code)] == []
