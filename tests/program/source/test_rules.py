"""What the source of a program tells: mistakes that no picture shows, and right programs left in peace."""

from __future__ import annotations

import pytest

from ovlo.core.values.finding import Finding
from ovlo.program.examples import example_files
from ovlo.program.source.rules import findings_in, parsed

HEAD = "from ovlo import drawing\n\n@drawing()\ndef kite(nib, sides: int = 4, side: float = 60):\n"
BODY = "    for _ in nib.full_turn(sides):\n        nib.forward(side)\n"

WRONG = {
    "a method is not called": (HEAD + "    nib.lift\n" + BODY, "not-called", 5),
    "a method at the end is not called": (
        HEAD + BODY + "    nib.line_to_start\n",
        "not-called",
        7,
    ),
    "the sheet is not cleared": (
        "from ovlo import Sheet\nsheet = Sheet()\nnib = sheet.new_nib()\nnib.forward(9)\nsheet.clear\n",
        "not-called",
        5,
    ),
    "a function is not called": (
        HEAD + BODY + "    tail\n\ndef tail(nib):\n    nib.forward(9)\n",
        "not-called",
        7,
    ),
    "a parameter is not read": (
        HEAD + "    for _ in nib.full_turn(sides):\n        nib.forward(60)\n",
        "unused-parameter",
        6,  # which has the default as a number
    ),
    "a helper's parameter is not read": (
        HEAD + BODY + "    tail(nib, 9)\n\ndef tail(nib, length):\n    nib.forward(40)\n",
        "unused-parameter",
        9,
    ),
    "a tail that nobody draws": (
        HEAD + BODY + "\ndef tail(nib, length):\n    nib.forward(length)\n",
        "unused-function",
        8,
    ),
    "a sail that nobody draws with the nib of the file": (
        "from ovlo import Sheet\nnib = Sheet().new_nib()\ndef sail():\n    nib.circle(9)\nnib.forward(9)\n",
        "unused-function",
        3,
    ),
    "a value set twice": (
        HEAD + "    turn = 90\n    turn = 360 / sides\n    nib.left(turn)\n" + BODY,
        "overwritten-value",
        5,
    ),
    "a value set twice in a loop": (
        HEAD + "    for i in range(sides):\n        length = i\n"
        "        length = side\n        nib.forward(length)\n",
        "overwritten-value",
        6,
    ),
    "a branch that never grows smaller": (
        HEAD + BODY + "    branch(nib, side)\n\ndef branch(nib, side):\n    nib.forward(side)\n"
        "    if side > 3:\n        branch(nib, side)\n",
        "infinite-recursion",
        12,
    ),
}

RIGHT = {
    "a plain kite": HEAD + BODY,
    "a value read between": HEAD + BODY + "    x = 3\n    nib.forward(x)\n    x = 4\n    nib.forward(x)\n",
    "a value for a function": "from ovlo import Sheet\nsheet = Sheet()\nnib = sheet.new_nib()\nSIDE = 3\n\n"
    "def bow():\n    nib.forward(SIDE)\n\nbow()\nSIDE = 5\nbow()\n",
    "a value that counts": HEAD + BODY + "    n = 0\n    n += 1\n    n = n * 2\n    nib.forward(n)\n",
    "a value set in a branch": HEAD
    + BODY
    + "    n = 1\n    if sides > 3:\n        n = 2\n    nib.forward(n)\n",
    "a value a loop may not set": HEAD + "    last = 0\n    for i in range(sides):\n"
    "        last = side\n    nib.forward(last)\n",
    "a loop that remembers": HEAD + "    a = b = 1\n    for _ in range(sides):\n"
    "        a, b = b, a + b\n        nib.forward(a * side)\n",
    "a recursion by chance": HEAD
    + BODY
    + "    twig(nib, side)\n\ndef twig(nib, side):\n    nib.forward(side)\n"
    "    if nib.dice.chance(0.5):\n        twig(nib, side)\n",
    "a recursion that shortens": HEAD + BODY + "    twig(nib, side)\n\ndef twig(nib, side):\n    side /= 2\n"
    "    nib.forward(side)\n    if side > 1:\n        twig(nib, side)\n",
    "a function in a list": HEAD + BODY + "    for draw in (bow, tail):\n        draw(nib)\n\n"
    "def bow(nib):\n    nib.left(9)\n\ndef tail(nib):\n    nib.forward(9)\n",
    "a function recorded": "from ovlo import Motif, Sheet\n\ndef bow(nib):\n    nib.forward(9)\n\n"
    "sheet = Sheet()\nsheet.new_nib().stamp(Motif.record(bow))\n",
    "a parameter that is left out on purpose": HEAD
    + BODY
    + "    bow(nib, 3)\n\ndef bow(nib, _size):\n    nib.forward(9)\n",
    "a docstring": HEAD + '    """A kite."""\n' + BODY,
    "a helper module": "def tail(nib, length):\n    nib.forward(40)\n",
    "no Python": "def kite(nib:\n",
}


def read(path) -> list[Finding]:
    tree = parsed(str(path))
    return [] if tree is None else findings_in(tree, str(path))


def found(tmp_path, source: str) -> list[Finding]:
    (tmp_path / "kite.py").write_text(source)
    return read(tmp_path / "kite.py")


@pytest.mark.parametrize("case", WRONG)
def test_mistakes_are_told_with_their_line_and_a_fix(case, tmp_path):
    source, rule, line = WRONG[case]
    (one,) = found(tmp_path, source)
    assert (one.rule, one.lines, one.place) == (rule, (line,), None)
    assert one.fix.endswith(".")


@pytest.mark.parametrize("case", RIGHT)
def test_right_programs_are_left_in_peace(case, tmp_path):
    assert [str(one) for one in found(tmp_path, RIGHT[case])] == []


def test_no_example_has_a_finding_in_its_source():
    assert [str(one) for path in example_files() for one in read(path)] == []


def test_the_command_and_the_page_tell_them_too(ovlo_command, program, tmp_path):
    path = program(HEAD + "    nib.lift\n" + BODY)
    done = ovlo_command("check", path)
    assert done.returncode == 1
    assert "problem: not-called\n  > 5 |     nib.lift" in done.stdout
    assert "Fix: Write nib.lift()." in done.stdout
    assert "not-called (problem)" in ovlo_command("check", "--rules").stdout
    assert ovlo_command("check", path, "--skip", "not-called").returncode == 0
    assert ovlo_command("draw", path, "-o", "kite.png", "--overlay", "findings").returncode == 0
    program(path.read_text().replace("nib.lift", "nib.lift  # ovlo: skip not-called"))
    assert ovlo_command("check", path).returncode == 0


def test_a_number_that_is_a_parameters_default_is_replaced_by_it(tmp_path):
    text = HEAD.replace("= 60", "= 70") + "    for _ in nib.full_turn(sides):\n        nib.forward(70)\n"
    (one,) = found(tmp_path, text)
    assert one.fix == "Write side instead of 70 on line 6."
    assert one.edit == (6, 20, 22, "side")
    (one,) = found(tmp_path, text + "        nib.back(70)\n")
    assert (one.edit, one.fix[:8]) == (None, "Use side")


def test_a_turn_behind_its_loop_is_indented_by_its_fix(tmp_path):
    loop = (
        HEAD
        + "    nib.circle(side)\n    for {} in range(sides):\n        nib.forward({})\n    nib.left(90)\n"
    )
    (one,) = found(tmp_path, loop.format("_", "side"))
    assert (one.rule, one.lines, one.edit) == ("turn-outside-loop", (8,), (8, 4, 4, "    "))
    assert one.fix == "Indent nib.left(90), so that the nib turns each time."
    assert found(tmp_path, loop.format("i", "10 * i + side")) == []
    assert found(tmp_path, loop.format("_", "side)\n        nib.travel(2")) == []
