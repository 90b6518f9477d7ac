"""What a rule of the source says word by word, and the program right beside each that it leaves in peace."""

from __future__ import annotations

import ast

import pytest

from ovlo.core.values.finding import PROBLEM, Finding
from ovlo.program.source import merging
from ovlo.program.source.rules import findings_in
from ovlo.program.texts import Source

ROSE = (
    "def rose(count):\n    for _ in range(count):\n        nib.circle(9)\n        nib.left(360 / {})\n"
    "rose({})\n"
)
HEAD = "from ovlo import Motif, Sheet, drawing\nnib = Sheet().new_nib()\n"


def told(code: str):
    return {one.rule: one for one in findings_in(ast.parse(HEAD + code), "kite.py")}


SAID = {
    "nib.forward, 90\n": ("no-effect", "Write nib.forward(90)."),
    "3, 90\n": ("no-effect", "Give the result a name, or remove the line."),
    "side = 9\nside + 1\n": ("no-effect", "Keep the result: side = side + 1."),
    "Motif.record(print).turned(45)\n": ("unused-result", "result = Motif.record(print).turned(45)"),
    "kite = Motif.record(print)\nkite.turned(45)\nnib.stamp(kite)\n": (
        "unused-result",
        "kite = kite.turned(45)",
    ),
    "def sail(nib, size):\n    nib.forward(size)\n": ("unused-function", "sail(nib, …)."),
    "def sail(nib):\n    nib.forward(9)\n": ("unused-function", "sail(nib)."),
    "def sail(size):\n    nib.forward(size)\n": ("unused-function", "sail(…)."),
    "def sail():\n    nib.forward(9)\n": ("unused-function", "sail()."),
    "for b, a in [(1, 2), (3, 4)]:\n    nib.forward(b)\nnib.circle(a + b)\n": ("drawn-after-loop", "each a"),
    "nib.forward(sidee)\n": ("unknown-name", ""),
    "for _ in nib.full_turn(6):\n    nib.left(60)\n    nib.forward(9)\n": ("turned-twice", "Remove"),
    "for _ in nib.full_turn(6):\n    nib.forward(9)\n    nib.left(60)\n": ("turned-twice", "Remove"),
    "side = 4\nif side == 4:\n    nib.left(9)\nelif side == 4:\n    nib.left(8)\n": ("fixed-condition", ""),
    "max = -10\nnib.forward(max(3, 4))\n": ("hidden-builtin", "max_value"),
    "from math import sin\nfor a in range(0, 9, 3):\n    nib.forward(sin(a))\n": ("degrees-for-radians", ""),
    "from math import sin\nfor hour in range(12):\n    nib.forward(sin(hour * 30))\n": (
        "degrees-for-radians",
        "",
    ),
    "from math import sin\nfor hour in range(12):\n    nib.forward(sin(30 * hour))\n": (
        "degrees-for-radians",
        "",
    ),
    "nib.left(100 // 7)\n": ("floor-division", "100 / 7"),
    ROSE.format(36, 3): (
        "other-count",
        "360 / count",
    ),
    ROSE.format(3, 4): (
        "other-count",
        "360 / count",
    ),
}


@pytest.mark.parametrize("code", SAID)
def test_a_fix_says_what_to_write(code):
    rule, fix = SAID[code]
    found = told(code)
    assert rule in found
    assert fix in found[rule].fix


QUIET = {
    "side = 9\nif nib.heading:\n    nib.forward(3)\nside = 5\nnib.forward(side)\n": "overwritten-value",
    "def sail(size):\n    print(locals())\nsail(3)\n": "unused-parameter",
    'def sail(size):\n    """Nothing yet."""\nsail(3)\n': "unused-parameter",
    "from math import *\nnib.forward(sqrt(tau))\n": "unknown-name",
    "for _ in nib.full_turn(6):\n    nib.forward(9)\n    nib.left(60)\n    nib.back(9)\n": "turned-twice",
    "side = 4\nif side == 4:\n    nib.left(9)\nelif side == 5:\n    nib.left(8)\n": "fixed-condition",
    "from math import pi\nnib.left(90 / (2 * pi))\n": "radians-for-degrees",
    "from math import sin\nfor a in range(9):\n    nib.forward(sin(a))\n": "degrees-for-radians",
    "nib.left(360 // 4)\n": "floor-division",
    "nib.left(6 // 4)\n": "floor-division",
    "nib.left(100 // 0)\n": "floor-division",
    ROSE.format(37, 3): ("other-count"),
    ROSE.format(2, 3): ("other-count"),
}


@pytest.mark.parametrize("code", QUIET)
def test_what_stands_beside_it_is_left_in_peace(code):
    assert QUIET[code] not in told(code)


def test_a_style_set_on_the_wrong_nib_is_told_with_the_one_that_draws_next():
    other = "pen = Sheet().new_nib()\npen.circle(3)\nnib.ink = 'red'\npen.circle(9)\n"
    assert told(other)["unused-style"].fix.endswith("; or set it on pen, which draws next.")
    before = "brush = Sheet().new_nib()\nbrush.circle(9)\n" + other
    assert told(before)["unused-style"].fix.endswith("; or set it on pen, which draws next.")
    alone = "pen = Sheet().new_nib()\nnib.circle(3)\npen.circle(9)\nnib.ink = 'red'\n"
    assert told(alone)["unused-style"].fix == "Set ink before the lines it should affect."


def test_blocks_turned_by_more_than_a_whole_turn_are_turned_by_a_share_of_it():
    code = "for i in range(12):\n    with nib.returning():\n        nib.turn_to(40 * i)\n"
    one = told(code)["repeated-value"]
    assert one.message.startswith("12 times 40° is more than a whole turn: after 9 figures")
    assert "nib.turn_to(30 * i)" in Source(HEAD + code, "utf-8").edited(one.edit).text


def finding(rule, severity, line, file):
    return Finding(rule, severity, "It is so.", "Make it otherwise.", None, lines=(line,), file=file)


def test_a_cause_is_as_bad_as_what_it_explains(tmp_path):
    path = tmp_path / "kite.py"
    path.write_text(HEAD + "for i in range(4):\n    nib.forward(90)\nnib.left(90)\n")
    seen = finding("off-sheet", PROBLEM, 4, str(path))
    for of_picture, severity in (([seen], PROBLEM), ([], "hint")):
        joined = {one.rule: one.severity for one in merging.joined(of_picture, [str(path)])}
        assert joined["turn-outside-loop"] == severity
        assert "off-sheet" not in joined


def test_only_what_was_left_before_a_stop_is_finished(tmp_path):
    path = tmp_path / "kite.py"
    path.write_text(HEAD + "for i in range(4):\n    nib.forward(90)\nnib.left(90)\nnib.forward(1 / 0)\n")
    file = str(path)
    one = finding("not-closed", PROBLEM, 4, file)
    assert merging.is_finished(one, ((file, 6),))
    assert not merging.is_finished(one, ((file, 4),))
    assert not merging.is_finished(one, None)
    assert not merging.is_finished(finding("still-lifted", PROBLEM, 4, file), ((file, 6),))
    assert not merging.is_finished(finding("not-closed", PROBLEM, 4, ""), ((file, 6),))
