"""Slips of Python that the source shows, each beside right lines that look alike."""

from __future__ import annotations

import ast

import pytest

from ovlo.core.values.finding import rules_in
from ovlo.program.source import slips
from ovlo.program.source.rules import findings_in

HEAD = "from ovlo import Motif, drawing\nimport math\n\n"
RULES = {vars(look)["declared_rule"].name for look in rules_in(slips)}


def found(code: str) -> list[tuple[str, int]]:
    """The rules that report something, and the line counted from the first after the head."""
    used = "\n\n@drawing\ndef kite(nib):\n    nib.left(math.pi)\n    nib.stamp(Motif.record(kite))\n"
    tree = ast.parse(HEAD + code + used)
    return [(one.rule, one.lines[0] - 3) for one in findings_in(tree, "kite.py") if one.rule in RULES]


@pytest.mark.parametrize(
    ("rule", "line", "code"),
    [
        ("unknown-name", 2, "def tail(nib, length):\n    nib.forward(lenght)\n"),
        ("unused-value", 2, "def tail(nib):\n    length = 30\n    nib.forward(20)\n"),
        ("unused-import", 1, "import random\n"),
        ("defined-twice", 3, "def bow(nib):\n    nib.left(9)\ndef bow(nib):\n    nib.right(9)\n"),
        ("no-effect", 2, 'def tail(nib):\n    nib.ink == "red"\n'),
        ("no-effect", 2, "def tail(nib):\n    nib.forward, 50\n"),
        ("no-effect", 2, "def tail(size):\n    size + 1\n"),
        ("no-effect", 2, "def tail(size):\n    -size\n"),
        ("unused-result", 2, "def tail(fish):\n    fish.turned(45)\n"),
        ("unused-result", 2, "def tail(sizes):\n    sorted(sizes)\n"),
        ("unused-result", 2, "def tail(word):\n    word.upper()\n"),
        ("unused-result", 2, "def tail(row, bows):\n    row(bows, gap=5).centred()\n"),
        ("unused-result", 2, "def tail(Motif, bow):\n    Motif.record(bow)\n"),
        ("unreachable", 3, "def tail(nib):\n    return 5\n    nib.left(90)\n"),
        ("unreachable", 4, "def tail(nib):\n    for _ in range(3):\n        break\n        nib.left(90)\n"),
        ("fixed-condition", 2, 'def tail(word):\n    if word == "a" or "b":\n        print(word)\n'),
        (
            "fixed-condition",
            4,
            "def tail(size):\n    if size > 5:\n        print(1)\n    elif size > 9:\n        print(2)\n",
        ),
        (
            "fixed-condition",
            3,
            "def tail(nib):\n    x = 3\n    while x > 10:\n        x -= 1\n        nib.forward(x)\n",
        ),
        ("fixed-condition", 2, "def tail(row):\n    if row % 2 == 2:\n        print(row)\n"),
        (
            "missing-brackets",
            2,
            "def tail(row, column):\n    if row + column % 2 == 0:\n        print(row)\n",
        ),
        ("unused-items", 2, "inks = ['red', 'gold', 'navy']\nprint(inks[0])\n"),
        ("shared-default", 1, "def tail(nib, places=[]):\n    places.append(nib.heading)\n"),
        ("shared-default", 1, "def tail(nib, *, places={}):\n    places[nib.heading] = 1\n"),
        ("hidden-builtin", 1, "max = 5\nprint(max(3, 4))\n"),
        (
            "hidden-builtin",
            2,
            "def tail(nib):\n    round = nib.heading / 2\n    nib.left(round(3.5) + round)\n",
        ),
        ("hidden-builtin", 1, "sum = [1, 2]\ndef tail(nib):\n    nib.left(sum(sum))\n"),
    ],
)
def test_a_slip_is_found_at_its_line(rule, line, code):
    assert found(code) == [(rule, line)]


@pytest.mark.parametrize(
    "code",
    [
        "def tail(nib):\n    for _ in range(3):\n        nib.forward(9)\n",
        "def tail(nib):\n    left, _right = nib.position\n    nib.forward(left)\n",
        "def tail(nib):\n    nib.lower()\n    nib.lift()\n",
        "print(max(3, 4))\nmax = 5\nprint(max)\n",
        "def tail(nib):\n    sum = 0\n    for i in range(3):\n        sum += i\n    nib.forward(sum)\n",
        "round = lambda number: number\nprint(round(3))\n",
        "def tail(nib, round=3):\n    nib.forward(round)\nprint(round(3.5))\n",
        "list = [3, 4]\nprint(list)\n",
        "min = None\nmin = min or 3\nprint(min)\n",
        "def max(a, b):\n    return a\nmax(3, 4)\n",
        "def turned():\n    print(9)\nturned()\n",
        "class Fish:\n    def turned(self, angle):\n        print(angle)\nfish = Fish()\nfish.turned(9)\n",
        'def tail(nib):\n    """Words about it."""\n    ...\n',
        "def tail(sizes):\n    sizes.sort()\n    max(sizes).bit_length()\n",
        "def tail(nib):\n    nib.forward(9) or nib.left(9)\n",
        "def tail(n):\n    if n > 3:\n        return 5\n    return 6\n",
        "def tail():\n    return\n    yield\n",
        "def tail(nib):\n    for i in range(3):\n        for i in range(4):\n            nib.left(i)\n",
        "def tail(nib, n):\n    for i in range(n, 0):\n        nib.forward(i)\n",
        "def tail(nib):\n    for i in range(0):\n        nib.forward(i)\n",
        "def tail(nib, size):\n    while size < 90:\n        size += 1\n",
        "def tail(nib, size):\n    while size < 90:\n        if nib.heading:\n            break\n",
        "def tail(nib, size):\n    while nib.heading < size:\n        nib.left(9)\n",
        "def tail(parts):\n    while len(parts) > 2:\n        parts.pop()\n",
        'def tail(word):\n    if word == "a" or word == "b":\n        print(word)\n',
        "def tail(word):\n    name = word or 'kite'\n    print(name)\n",
        "def tail(n):\n    if n > 10:\n        print(1)\n    elif n > 5:\n        print(2)\n",
        "def tail(n):\n    if n > 5:\n        print(1)\n    elif n < 3:\n        print(2)\n",
        "def tail(nib, places=[]):\n    nib.forward(len(places))\n",
        "def tail(nib, places=[]):\n    places = list(places)\n    places.append(nib)\n",
        "SIZE = 4\nWIDTH = 9\n",
        "def tail(row, column):\n    if (row + column) % 2 == 0 and row % 3 == 2:\n        print(row)\n",
        "def tail(row, column):\n    print(row + column % 2, 10 + column % 3 == 11)\n",
        "inks = ['red', 'gold', 'navy']\nprint(inks[0], inks[1])\n",
        "inks = ['red', 'gold', 'navy']\nprint(inks[0], len(inks))\n",
        "def tail(nib):\n    try:\n        nib.left(9)\n    except ValueError as why:\n        print(why)\n",
    ],
)
def test_right_lines_are_left_in_peace(code):
    assert found(code) == []


def test_names_of_a_star_import_are_known():
    code = "from ovlo import *\nnib = Sheet().new_nib()\n\nnib.stamp(Motif.record(petal))\nfoward(9)\n"
    names = [(one.rule, one.lines) for one in findings_in(ast.parse(code), "kite.py")]
    assert names == [("unknown-name", (4,)), ("unknown-name", (5,))]


def test_an_assignment_with_two_signs_has_an_edit():
    code = 'from ovlo import drawing\n@drawing\ndef kite(nib):\n    nib.ink  ==  "red"\n    nib.forward(9)\n'
    (one,) = findings_in(ast.parse(code), "kite.py")
    assert one.edit == (4, 11, 17, " = ")


def test_an_expression_of_two_thousand_terms_is_read():
    found("size = " + "+".join("1" * 2000) + "\n")
