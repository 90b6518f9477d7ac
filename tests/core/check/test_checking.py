"""Small programs, wrong and right ones, and what a check must say of each."""

from __future__ import annotations

from random import Random

import pytest

from ovlo import Finding, Sheet, outlets
from ovlo.core.check.check import RULES
from ovlo.program.examples import example_files
from ovlo.program.loading import load
from ovlo.program.parameters import shown
from ovlo.program.running import Limits, run_drawing, run_program

SHAPES = """
def kite(nib, sides, side):
    for _ in nib.full_turn(sides):
        nib.forward(side)

def sail(nib, side, colour):
    with nib.area(colour):
        kite(nib, 4, side)

def loop(nib, n, side, turn):
    for _ in range(n):
        nib.forward(side)
        nib.left(turn)
"""

WRONG = {
    "other colours in the same place": (
        "for colour in ('teal', 'gold', 'navy') * 3:\n    sail(nib, 60, colour)",
        ["drawn-again"],
    ),
    "rays that come back too little": (
        "for _ in range(12): nib.forward(90); nib.back(85); nib.left(30)",
        ["drift"],
    ),
    "a leaf with the pen lifted": (
        "with nib.lifted():\n    nib.travel(50)\n    for _ in range(2): nib.arc_left(90, 60); nib.left(120)\n"
        "nib.forward(30)",
        ["still-lifted"],
    ),
    "lines too thin everywhere": (
        "nib.line_width = 0.01\nfor _ in range(9): nib.forward(1); nib.travel(20)",
        ["hairline"],
    ),
    "words wider than their frame": (
        "nib.rectangle(80, 30)\nnib.text('Kite day at Marrow Bay', align='middle', baseline='middle')",
        ["words-over-frame"],
    ),
    "a window that is filled": (
        "with nib.area('gold'): nib.rectangle(200, 200); nib.rectangle(80, 80)",
        ["filled-hole"],
    ),
    "a sail whose last side has no line": (
        "with nib.area('gold'): nib.line_by(0, 90); nib.line_by(60, -70)",
        ["open-border"],
    ),
    "a roof that begins in a wrong direction": (
        "kite(nib, 4, 100); nib.left(90); nib.forward(100); nib.right(60); nib.forward(100)\n"
        "nib.right(120); nib.forward(100)",
        ["misses-corner"],
    ),
    "a roof with a line too short": (
        "kite(nib, 4, 100); nib.travel_to(0, 100); nib.left(45); nib.forward(70.71)\n"
        "nib.right(90); nib.forward(57.21)",
        ["misses-corner"],
    ),
    "a roof that turns by the inner angle": (
        "kite(nib, 4, 90); nib.travel_to(0, 90); nib.left(60); nib.forward(90)\n"
        "nib.right(60); nib.forward(90)",
        ["misses-corner"],
    ),
    "words turned by what was walked before": (
        "nib.right(90)\nnib.forward(80)\nnib.travel_to(60, 20)\nnib.rectangle(40, 40)\n"
        "nib.travel_to(0, 90)\nnib.text('Harbour house')",
        ["left-over-heading"],
    ),
    "the last side too short": (
        "nib.forward(90); nib.left(90); nib.forward(60); nib.left(90)\n"
        "nib.forward(90); nib.left(90); nib.forward(55)",
        ["not-closed"],
    ),
    "the last side too long": (
        "nib.forward(90); nib.left(90); nib.forward(60); nib.left(90)\n"
        "nib.forward(90); nib.left(90); nib.forward(66)",
        ["not-closed"],
    ),
    "a corner at the wrong place": (
        "for point in [(90, 0), (110, 70), (0, 90), (4, 3)]: nib.line_to(point)",
        ["not-closed"],
    ),
    "arcs that almost meet": (
        "nib.arc_left(50, 180); nib.arc_left(50, 170)",
        ["not-closed"],
    ),
    "a triangle by its inner angle": ("loop(nib, 3, 90, 60)", ["turns-miss-360"]),
    "a pentagon by its inner angle": ("loop(nib, 5, 60, 108)", ["turns-miss-360"]),
    "a pentagon by its inner angle, clockwise": ("loop(nib, 5, 60, -108)", ["turns-miss-360"]),
    "a star by the angle of its points": ("loop(nib, 5, 60, 36)", ["turns-miss-360"]),
    "a triangle side by side, by its inner angle": (
        "nib.forward(90); nib.left(60)\nnib.forward(90); nib.left(60)\nnib.forward(90)",
        ["turns-miss-360"],
    ),
    "a heptagon with a rounded turn": ("loop(nib, 7, 60, 51)", ["turns-miss-360"]),
    "a star with a turn not quite right": ("loop(nib, 5, 90, 143)", ["turns-miss-360"]),
    "36 sides with a turn not quite right": ("loop(nib, 36, 12, 9.9)", ["turns-miss-360"]),
    "one repeat missing": ("loop(nib, 5, 60, 60)", ["turns-miss-360"]),
    "one repeat missing of a square": ("loop(nib, 3, 60, 90)", ["turns-miss-360"]),
    "the divisor of another polygon": ("loop(nib, 5, 60, 360 / 7)", ["turns-miss-360"]),
    "a guessed turn": ("loop(nib, 5, 60, 100)", ["turns-miss-360"]),
    "one side too many": ("loop(nib, 5, 60, 90)", ["retraced-line"]),
    "a hexagon by its inner angle is a triangle twice": ("loop(nib, 6, 60, 120)", ["retraced-line"]),
    "a whole round too many": ("loop(nib, 8, 60, 90)", ["retraced-line"]),
    "one blade too many": (
        "for _ in range(13):\n    kite(nib, 5, 60)\n    nib.left(30)",
        ["rosette-misses-360"],
    ),
    "a forgotten travel": ("kite(nib, 4, 60); nib.forward(120); kite(nib, 4, 60)", ["stray-line"]),
    "a forgotten travel in a loop": (
        "for _ in range(3):\n    kite(nib, 3, 40)\n    nib.forward(70)\nkite(nib, 3, 40)",
        ["stray-line"],
    ),
    "a line_to between two shapes": (
        "kite(nib, 3, 60); nib.line_to(-100, 90); kite(nib, 5, 30)",
        ["stray-line"],
    ),
    "a string beyond the top": ("nib.line_to(0, 300)", ["off-sheet"]),
    "words beyond the edge": ("nib.travel_to(200, 0); nib.text('Kite day at Marrow Bay', 40)", ["off-sheet"]),
    "a white sail on white paper": (
        "with nib.area('white', outline=False): kite(nib, 3, 90)",
        ["no-contrast"],
    ),
    "a white sail with a white outline": (
        "nib.ink = 'white'\nwith nib.area('white'): kite(nib, 3, 90)",
        ["no-contrast"],
    ),
    "a line to words": (
        "nib.line_by(90, -60)\nnib.text('kite day', align='middle')",
        ["line-through-words"],
    ),
    "words in a pale ink": ("nib.ink = '#faf0e6'\nnib.text('kite day')", ["no-contrast"]),
    "most of a round by a turn of none": (
        "for _ in range(6):\n    loop(nib, 3, 60, 120)\n    nib.left(50)",
        ["rosette-misses-360"],
    ),
    "a line in nearly the colour of the paper": ("nib.ink = '#fefefe'\nnib.forward(90)", ["no-contrast"]),
    "spars in the colour of the sail": (
        "sail(nib, 90, 'tomato')\nnib.ink = 'tomato'\nnib.travel_to(20, 45); nib.forward(50)",
        ["no-contrast"],
    ),
    "words in the colour of the sail": (
        "sail(nib, 90, 'gold')\nnib.ink = '#ffd800'\nnib.travel_to(20, 45); nib.text('7', 30)",
        ["no-contrast"],
    ),
    "the pen is never lowered": ("nib.lift()\nkite(nib, 4, 90)", ["still-lifted"]),
    "the pen is not lowered again": (
        "kite(nib, 4, 90)\nnib.lift(); nib.travel(150)\nkite(nib, 4, 60)",
        ["still-lifted"],
    ),
    "one shape in the middle is walked lifted": (
        "kite(nib, 4, 90)\nnib.lift(); nib.travel(150)\nkite(nib, 4, 60)\n"
        "nib.lower(); nib.travel_to(-200, 0); kite(nib, 3, 60)",
        ["still-lifted"],
    ),
    "only travels": ("nib.travel(90)", ["nothing-drawn"]),
    "a fill of one line": ("with nib.area('gold'): nib.forward(90)", ["empty-area"]),
    "a fill there and back": (
        "with nib.area('gold'):\n    nib.forward(90)\n    nib.back(60)",
        ["empty-area"],
    ),
    "a fill with nothing in it": (
        "with nib.area('gold'): nib.travel(90)\nkite(nib, 3, 50)",
        ["empty-area"],
    ),
    "a sky painted last": (
        "sail(nib, 60, 'tomato')\nnib.travel_to(0, 0)\nnib.rectangle(640, 480, fill='skyblue')",
        ["covered"],
    ),
    "squares with the largest last": (
        "for side in (30, 60, 90): nib.rectangle(side, side, fill='gold')",
        ["covered"],
    ),
    "words under a sail": (
        "nib.text('7', 20)\nnib.rectangle(90, 90, fill='gold')",
        ["covered"],
    ),
    "a wrong turn and a string off the sheet": (
        "loop(nib, 3, 90, 60)\nnib.travel_to(0, 0)\nnib.line_to(400, 0)",
        ["turns-miss-360", "off-sheet"],
    ),
}


BY_LINES = {
    "lines at random between stars": (
        "for _ in range(24):\n    nib.line_to(sheet.dice.point(40))\n    nib.lower()\n"
        "    loop(nib, 5, 12, 144)",
        ["stray-line"],
    ),
    "lines to where each of several waves begins": (
        "for row in range(4):\n    nib.line_to(-280, 100 - 50 * row)\n    nib.line_width = 3\n"
        "    nib.turn_to(60)\n"
        "    for _ in range(9): nib.arc_right(30, 120); nib.left(120)",
        ["stray-line"],
    ),
    "lines between areas in a grid": (
        "for row in range(3):\n    for column in range(4):\n"
        "        nib.line_to(90 * column - 200, 90 * row - 90)\n        sail(nib, 50, 'teal')",
        ["stray-line"],
    ),
    "a pen that is lifted once and for all": (
        "for _ in range(6):\n    nib.forward(30)\n    nib.lift()\n    nib.forward(20)",
        ["still-lifted"],
    ),
}
"""What is found only if it is known which line drew what."""


RIGHT = {
    "a house with its roof": (
        "kite(nib, 4, 100); nib.travel_to(0, 100); nib.left(60); nib.forward(100); nib.right(120)\n"
        "nib.forward(100)"
    ),
    "a string from a corner of a kite": (
        "kite(nib, 4, 100); nib.right(50); nib.forward(70); nib.left(30); nib.forward(60)"
    ),
    "a flag on a house": (
        "kite(nib, 4, 80); nib.travel_to(0, 80); nib.left(90); nib.forward(60)\n"
        "nib.right(90); nib.forward(30)"
    ),
    "a zigzag ring": "for _ in range(12): nib.forward(90); nib.back(40); nib.left(30)",
    "an arc out and back with the pen lifted": (
        "with nib.lifted(): nib.arc_left(90, 60); nib.arc_left(90, -60)\nnib.forward(30)"
    ),
    "words that follow a tilted shape": (
        "nib.forward(50)\nnib.right(15)\nnib.polygon(4, radius=20)\nnib.text('kite', size=8)"
    ),
    "a name in its frame": (
        "nib.rectangle(280, 30)\nnib.text('Kite day at Marrow Bay', align='middle', baseline='middle')"
    ),
    "a window that is a hole": (
        "with nib.area('gold', fill_rule='evenodd'): nib.rectangle(200, 200); nib.rectangle(80, 80)"
    ),
    "islands in one area": (
        "with nib.area('gold'):\n    for _ in range(3): nib.rectangle(30, 30); nib.travel(80)"
    ),
    "a sail in its own ink": (
        "nib.ink = 'gold'\nwith nib.area('gold'): nib.line_by(0, 90); nib.line_by(60, -70)"
    ),
    "a sail without lines": (
        "with nib.area('gold', outline=False): nib.line_by(0, 90); nib.line_by(60, -70)"
    ),
    "a flag on its pole": (
        "nib.left(90); nib.forward(80)\nfor side in (50, 30, 50): nib.right(90); nib.forward(side)"
    ),
    "a string of filled flags": ("for _ in range(5):\n    sail(nib, 30, 'gold')\n    nib.forward(50)"),
    "filled beads on a string": "for _ in range(6): nib.circle(8, fill='gold'); nib.forward(20)",
    "masts between hulls and sails": (
        "for x in (-200, 0, 200):\n    nib.travel_to(x, 0)\n    sail(nib, 40, 'sienna')\n"
        "    nib.line_by(20, 90)\n    with nib.area('white'): nib.line_by(30, -50); nib.line_by(-25, 9); "
        "nib.line_to_start()"
    ),
    "a line to the foot of words": "nib.line_to(0, 90)\nnib.turn_to(0)\nnib.text('bay', align='middle')",
    "words at the end of a line": "nib.line_to(90, 60)\nnib.turn_to(0)\nnib.text('kite day')",
    "words on a line": "nib.text('kite day')\nnib.forward(80)",
    "words with a pale shadow": (
        "for ink in ('linen', 'black'):\n    nib.ink = ink\n    nib.text('kite day')\n    nib.travel_by(2, 2)"
    ),
    "a fan of most of a round": "for _ in range(7):\n    loop(nib, 3, 60, 120)\n    nib.left(40)",
    "a constellation": "for _ in range(8):\n    nib.line_to(sheet.dice.point(40))\n    loop(nib, 5, 9, 144)",
    "dashes by lifting": (
        "for _ in range(6):\n    nib.lower()\n    nib.forward(30)\n    nib.lift()\n    nib.forward(20)"
    ),
    "a chart whose columns stand on one another": (
        "for height in (90, 60, 30):\n    nib.travel_to(0, height)\n    sail(nib, 30, 'teal')"
    ),
    "a square": "kite(nib, 4, 90)",
    "a square side by side": "nib.forward(90); nib.left(90)\n" * 4,
    "a star": "for _ in nib.full_turn(5, rounds=2): nib.forward(90)",
    "a circle of arcs": "nib.arc_left(50, 200); nib.arc_left(50, 160)",
    "a rectangle closed by close": "nib.forward(90); nib.left(90); nib.forward(50); nib.left(90)\n"
    "nib.forward(90); nib.line_to_start()",
    "a rosette of squares": "for _ in nib.full_turn(12): kite(nib, 4, 90)",
    "a rosette of triangles that share edges": "for _ in nib.full_turn(6): kite(nib, 3, 90)",
    "a bow of many small sides": "loop(nib, 18, 5, 5)",
    "a dome": "nib.left(90)\nloop(nib, 4, 40, -45)",
    "an open zigzag": "for i in range(8):\n    nib.forward(30); nib.left(120 if i % 2 else -120)",
    "an open path": "nib.forward(90); nib.left(40); nib.forward(50)",
    "a spiral": "for i in range(60):\n    nib.forward(i / 2); nib.left(20)",
    "a growing square spiral": "for i in range(30):\n    nib.forward(4 * i); nib.left(90)",
    "there and back": "for _ in nib.full_turn(8):\n    nib.forward(60); nib.back(60)",
    "a row of squares with travels": "for _ in range(3):\n    kite(nib, 4, 30)\n    nib.travel(50)",
    "flags on a string": "for _ in range(4):\n    nib.forward(30)\n    kite(nib, 3, -20)",
    "flags whose edges are the string": "for _ in range(5):\n    kite(nib, 3, -30)\n    nib.back(30)",
    "a white sail with an outline": "with nib.area('white'): kite(nib, 3, 90)",
    "an outline in the colour of its area": "nib.ink = 'tomato'\nsail(nib, 90, 'tomato')",
    "a moon cut out with paper": "nib.circle(60, fill='gold', outline=False)\nnib.travel(30)\n"
    "nib.circle(55, fill='white', outline=False)",
    "lifted moves to a place": "nib.lift(); nib.forward(30); nib.left(90); nib.forward(30); nib.lower()\n"
    "kite(nib, 4, 60)",
    "a dashed square by lifting": "for _ in nib.full_turn(4):\n    for _ in range(4):\n"
    "        nib.forward(10)\n"
    "        with nib.lifted(): nib.forward(5)",
    "parked with the pen lifted": "kite(nib, 4, 90)\nnib.lift(); nib.forward(40)",
    "a sail over a sail, peeping out": "sail(nib, 90, 'gold')\nnib.travel(10)\nsail(nib, 60, 'tomato')",
    "glass over words": "nib.text('7', 20)\nnib.rectangle(90, 90, fill='#ffd70080')",
    "shades of a sky": "from ovlo import ramp\nnib.travel_to(0, -200)\n"
    "for colour in ramp('skyblue', 'khaki', 80):\n"
    "    nib.rectangle(600, 5, fill=colour, outline=False); nib.travel_by(0, 5)",
    "a figure of eight filled": ("with nib.area('gold'): nib.polyline([(90, 90), (90, 0), (0, 90), (0, 0)])"),
    "a dot": "nib.forward(0)",
}


def checked(program, source):
    outcome = run_program(load(str(program(source))), traced=True)
    assert not outcome.trouble, outcome.trouble
    return outcome.sheet


def of_picture(sheet):
    """The findings about the picture; the helpers of these programs are not all called."""
    return [one for one in sheet.check() if one.rule in RULES]


def script(body):
    return f"from ovlo import Sheet\n{SHAPES}\nsheet = Sheet(640, 480)\nnib = sheet.new_nib()\n{body}\n"


@pytest.mark.parametrize("case", [*WRONG, *BY_LINES])
def test_wrong_programs_get_their_finding(program, case):
    body, rules = (WRONG | BY_LINES)[case]
    sheet = checked(program, script(body))
    found = of_picture(sheet)
    assert [one.rule for one in found] == rules, [str(one) for one in found]
    assert all(one.fix and one.message for one in found)
    # Where steps came from is known, so every finding that speaks of a mark names a line.
    assert all(one.lines for one in found)


@pytest.mark.parametrize("case", RIGHT)
def test_right_programs_get_none(program, case):
    assert [str(one) for one in of_picture(checked(program, script(RIGHT[case])))] == []


@pytest.mark.parametrize("case", [*WRONG, *RIGHT])
def test_a_sheet_finds_the_same_without_lines(case):
    body, rules = WRONG.get(case) or (RIGHT[case], [])
    names: dict[str, object] = {}
    exec(script(body), names)
    found = names["sheet"].check()  # type: ignore[attr-defined]
    assert sorted({one.rule for one in found}) == sorted(rules), [str(one) for one in found]
    assert all(not one.lines for one in found)


def pictures() -> list[str]:
    """Every drawing of the examples, as FILE[:NAME]."""
    found = []
    for path in example_files():
        program = load(str(path))
        names = [f":{name}" for name in program.drawings()] if program.declares else [""]
        found += [f"{path}{name}" for name in names]
    return found


@pytest.mark.parametrize("target", pictures()[::3], ids=lambda target: target.rpartition("/")[2])
def test_no_third_example_has_a_finding_without_lines_either(target):
    sheet = run_program(load(target), seed=4).sheet
    assert [str(one) for one in sheet.check()] == []


def test_a_finding_names_steps_lines_and_numbers(program):
    found = of_picture(
        checked(program, script("kite(nib, 4, 30)\nnib.travel_to(100, 0)\nloop(nib, 3, 90, 60)"))
    )
    assert len(found) == 1
    one = found[0]
    assert isinstance(one, Finding)
    assert (one.severity, one.steps) == ("problem", (6, 7, 8))
    assert one.lines == (14,)  # the turn
    assert one.callers == (13, 20)
    assert "inner angle of a triangle" in one.message
    assert "Turn by 120°" in one.fix


def test_a_gap_is_measured_and_its_fix_has_numbers():
    sheet = Sheet(640, 480)
    nib = sheet.new_nib(heading=30)
    for side in (90, 60, 90, 56):
        nib.forward(side)
        nib.left(90)
    (one,) = sheet.check()
    assert "ends 4 px from its start" in one.message
    assert "Make its last line 60 px long instead of 56" in one.fix
    assert one.place == pytest.approx((sheet.trail.x[-1], sheet.trail.y[-1]))


def test_findings_of_one_line_are_one(program):
    body = "for x in range(5):\n    nib.travel_to(60 * x - 150, 0)\n    loop(nib, 3, 20 + x, 60)"
    (one,) = of_picture(checked(program, script(body)))
    assert (one.rule, one.count) == ("turns-miss-360", 5)


def test_no_contrast_names_what_was_beneath_when_the_mark_was_made():
    sheet = Sheet(200, 160, paper="transparent")
    nib = sheet.new_nib()
    nib.rectangle(90, 60, fill="navy", outline=False)
    nib.ink = "#000082"
    # The letters are on the sail; the nib was above it, where nothing is known of what lies beneath.
    nib.travel_to(0, 32)
    nib.text("oo", 24, baseline="hanging")
    found = [one.message for one in sheet.check() if one.rule == "no-contrast"]
    assert found == ["The text 'oo' cannot be distinguished from what lies beneath it: #000082 on #000080."]
    nib.rectangle(9, 9, fill="gold", outline=False)
    assert "on #000080" in next(one.message for one in sheet.check() if one.rule == "no-contrast")


def test_off_sheet_says_how_it_would_fit_and_which_line_leaves(program):
    def fix(body: str) -> str:
        names: dict[str, object] = {}
        exec(script(body), names)
        return next(one.fix for one in names["sheet"].check() if one.rule == "off-sheet")  # type: ignore[attr-defined]

    square = "for _ in nib.full_turn(4): nib.forward(100)"
    assert fix(f"nib.travel_to(0, 220)\n{square}") == (
        "All marks fit if they are drawn 80 px lower. All would fit if x and y were exchanged."
    )
    assert fix(f"nib.travel_to(-400, -300)\n{square}").startswith(
        "All marks fit if they are drawn 80 px farther right and 60 px higher."
    )
    assert fix("nib.travel_to(0, 145)\n" + square) == "All marks fit if they are drawn 5 px lower."
    assert fix("nib.circle(300)").startswith("All marks fit at 0.8 of the size, positions included, or on")
    # Made smaller, or moved so, nothing leaves the sheet any more.
    assert Sheet(640, 480).check() != []
    sheet = Sheet(640, 480)
    sheet.new_nib().circle(0.8 * 300)
    assert sheet.check() == []
    names: dict[str, object] = {}
    exec(script(f"nib.travel_to(-400, -300)\nnib.travel_by(80, 60)\n{square}"), names)
    assert names["sheet"].check() == []  # type: ignore[attr-defined]
    found = checked(
        program, script("nib.travel_to(0, 0)\nnib.forward(50)\nnib.forward(60)\nnib.forward(400)")
    ).check()
    (one,) = [one for one in found if one.rule == "off-sheet"]
    source = program(
        script("nib.travel_to(0, 0)\nnib.forward(50)\nnib.forward(60)\nnib.forward(400)")
    ).read_text()
    assert [source.splitlines()[line - 1] for line in one.lines] == ["nib.forward(400)"]


@pytest.mark.parametrize("path", example_files(), ids=lambda path: path.stem)
def test_no_example_has_a_finding_over_its_whole_spans(path):
    chance = Random(path.stem)
    program = load(str(path))
    for drawing in program.drawings().values() if program.declares else ():
        spans = [one for one in drawing._parameters.values() if one.span is not None]
        sample = chance.randrange(2)
        values = {one.name: _sampled(one, sample, chance) for one in spans}
        sheet = run_drawing(drawing, values, sample, Limits(), traced=True).sheet
        assert [str(one) for one in sheet.check()] == [], values


def _sampled(parameter, sample, chance):
    """A value of a parameter's span: at first one of its ends, then any."""
    low, high, step = parameter.span.low, parameter.span.high, parameter.span.step
    value = chance.choice((low, high)) if sample == 0 else chance.uniform(low, high)
    if step:
        value = low + step * round((value - low) / step)
    return shown(round(value) if parameter.kind.name == "whole number" else value)


OVER_THE_EDGE = {
    "rules across the sheet": (
        "for y in (-100, 0, 100):\n    nib.travel_to(-400, y)\n    nib.forward(800)",
        None,
    ),
    "a part of a pixel": ("nib.travel_to(-320.4, 0)\nnib.forward(100)", None),
    "scales at the edge": (
        "for x in range(-360, 361, 60):\n    for y in range(-270, 271, 60):\n"
        "        nib.travel_to(x, y)\n        nib.circle(30)",
        None,
    ),
    "rays on all sides": (
        "for i in range(24):\n    nib.travel_to(0, 0)\n    nib.turn_to(15 * i + 7)\n    nib.forward(330 + i)",
        "hint",
    ),
    "a random walk": (
        "for _ in range(300):\n    nib.turn_to(nib.dice.number(0, 200))\n    nib.forward(20)",
        "hint",
    ),
    "one row of equal boats that begins too far right": (
        "for x in (-50, 50, 150, 250, 350):\n    nib.travel_to(x, 0)\n    nib.polygon(4, radius=30)",
        "problem",
    ),
    "a word": ("nib.travel_to(300, 0)\nnib.text('Marrow Bay')", "problem"),
    "a ring that is too large": ("nib.circle(250)", "problem"),
}


@pytest.mark.parametrize("case", OVER_THE_EDGE)
def test_what_leaves_the_sheet_is_a_problem_only_where_it_surprises(program, case):
    body, severity = OVER_THE_EDGE[case]
    source = f"from ovlo import Sheet\nsheet = Sheet(640, 480, seed=7)\nnib = sheet.new_nib()\n{body}\n"
    source = source if "dice" in body else source.replace(", seed=7", "")
    found = [one for one in checked(program, source).check() if one.rule == "off-sheet"]
    assert [one.severity for one in found] == ([severity] if severity else [])


def test_nothing_drawn_is_said_once_by_its_cause(ovlo_command, program):
    bare = "from ovlo import Sheet\nnib = Sheet().new_nib()\n"
    assert "Nothing was drawn at all" in ovlo_command("check", program(bare)).stdout
    unused = ovlo_command("check", program(f"{bare}\ndef sail(nib):\n    nib.forward(9)\n"))
    assert unused.returncode == 1
    assert "problem: unused-function" in unused.stdout
    assert "Nothing was drawn" not in unused.stdout
    failed = ovlo_command("check", program(f"{bare}nib.forward('90')\n"))
    assert "Nothing was drawn" not in failed.stdout
    # A nib that is there need not be made.
    with_nib = ovlo_command("check", program(f"{bare}nib.left(90)\n")).stdout
    assert "Fix: Draw with nib.forward(90).\n" in with_nib


def test_of_a_stopped_program_only_what_was_finished_is_told(ovlo_command, program):
    path = program(
        "from ovlo import Sheet\nnib = Sheet().new_nib()\n"
        "for _ in range(3):\n    nib.forward(80)\n    nib.left(60)\n"
        "while True:\n    nib.forward(2)\n    nib.left(90.01)\n"
    )
    found = ovlo_command("check", path, "--step-limit", 5000).stdout
    assert "turns-miss-360" in found
    assert "retraced-line" not in found
    assert "sides turn by" not in found


def test_a_square_walked_five_times_is_not_called_a_star(ovlo_command, program):
    path = program(
        "from ovlo import Sheet\nnib = Sheet().new_nib()\n"
        "for _ in range(20):\n    nib.forward(80)\n    nib.left(90)\n"
    )
    assert "Fix: Repeat 4 times instead of 20.\n" in ovlo_command("check", path).stdout


def test_of_what_an_endless_loop_drew_only_the_program_is_looked_at(monkeypatch):
    sheet = Sheet(100, 100)
    sheet.new_nib().polyline([(300, 0), (300, 300)])
    stopped = (("kite.py", 4),)
    assert [one.rule for one in outlets.check(sheet, (), stopped)] == ["off-sheet"]
    monkeypatch.setattr(outlets, "MOST_STOPPED", 1)
    assert outlets.check(sheet, (), stopped) == []
    assert [one.rule for one in outlets.check(sheet)] == ["off-sheet"]
