"""The mistake a beginner makes next: each answer names the line, what was meant, and what to write."""

from __future__ import annotations

import re
import subprocess
import sys
import textwrap
from pathlib import Path

import pytest

from ovlo import OvloError
from ovlo.program.loading import load
from ovlo.program.running import Limits, run_program

HEAD = "from ovlo import Colour, Motif, Sheet, blend, drawing, ramp\n\n@drawing()\ndef kite(nib, side=90):\n"

SLIPS = {
    # Python's own errors, in the words of the drawing
    'nib.text("kite " + 3)': 'f"kite {3}"',
    'nib.forward(90 + "5")': "int(…) or float(…) makes a number",
    'nib.forward("90" * 1.5)': "only be repeated",
    "for i in range(7 / 2): nib.forward(9)": "range(7 // 2)",
    "nib.forward([1, 2, 3][3])": "the first is 0",
    'nib.forward({"big": 3}["bigg"])': "no key 'bigg'",
    "while nib.distance_to > 50: nib.forward(9)": "call it with brackets",
    "nib.forward(90 / 0)": "begin a loop at 1",
    "nib.travel_to(nib.position + 10)": "x, y = nib.position",
    'nib.forward(int("12px"))': "'12px' is not a number",
    'nib.forward(float("2,5"))': "2.5",
    "nib.forward(2,5)": "forward(2.5)",
    "nib.travel_to(1,5, 2)": "travel_to(1.5, 2)",
    'side = "90"; nib.forward(side)': "int(…) or float(…) makes a number of it",
    "nib.forward(print())": "ends with return",
    "nib.forward(nib.forward)": "call it with brackets",
    "range = 10; range(4)": "give that variable another name",
    'nib.line_dash = "dashed"': "(6, 4)",
    "pen.forward(90)": "sheet.new_nib() makes a nib",
    "from ovlo import full_turn": "nib.full_turn",
    "from ovlo import Sheet; Sheet.new_nib()": "then sheet.new_nib(…)",
    "from ovlo import Nib; Nib.forward(90)": "then nib.forward(…)",
    "import ovlo; ovlo.forward(90)": "nib.forward",
    'drawing("My picture")': "@drawing()",
    'drawing(background="navy")': "paper='navy'",
    "nib.stamp(kite.__call__)": "is not a motif",
    "nib.polygon(5, size=40)": "radius=40",
    "nib.set_heading(90)": "nib.turn_to(90)",
    "nib.turnright(90)": "nib.right(90)",
    "nib.turnleft(90)": "nib.left(90)",
    "nib.fwd(90)": "did you mean forward?",
    "nib.bk(90)": "did you mean back?",
    "nib.lt(90)": "did you mean left?",
    "nib.rt(90)": "did you mean right?",
    "nib.forward = 90": "nib.forward(…)",
    "Motif.record(lambda n: n.circle(9)).rotated(90)": "motif.turned(90)",
    "Motif.record(lambda n: n.circle(9)).flipped()": "motif.mirrored()",
    'Motif.record(lambda n: n.circle(9)).recolour("red")': "motif.styled(",
    "nib.dice.random_colour()": "dice.colour()",
    "nib.dice.roll()": "dice.integer(1, 6)",
    "nib.dice.uniform(1, 6)": "dice.number(0, 1)",
    "nib.sheet.nib": "sheet.new_nib() makes a nib",
    "nib.sheet.qwerty": "used most are new_nib",
    "nib.qwerty": "used most are forward",
    "with nib.full_turn(4): nib.forward(9)": "for _ in nib.full_turn(4):",
    'for x in nib.area("gold"): nib.forward(9)': "with nib.area(",
    "for i in 5: nib.forward(9)": "for i in range(5):",
    "with nib.lift(): nib.forward(9)": "nib.lifted()",
    "a, b, c = nib.position": "3 names on the left",
    "math.sqrt(2)": "import math",
    "(1, 2).append(3)": "a tuple cannot grow",
    "[1].push(3)": "append(…)",
    "nib.forward(max([]))": "an empty list has no max",
    "nib.circle(30, fill_color='red')": "write fill='red'",
    "nib.sheet.save(bay.png)": 'the name of a file needs quotes: "bay.png"',
    "nib.sheet.paper = 'navy'": "set it where it is made: Sheet(paper=…)",
    "nib.sheet.trail.x[0] = 5": "can be read, but not changed",
    "Forward(50)": "write nib.forward",
    "nib.stamp(sun)": "give it a value in a line above",
    "nib.arc(50, 90)": "nib.arc_left(radius, sweep)",
    "import mathh": "did you mean math?",
    "import marrow_bay": "there is no module 'marrow_bay' here; correct its spelling",
    "inks = ['red']; i = 1; nib.ink = inks[i]": "ends with inks[0], but i is 1; inks[i % 1] begins again",
    "inks = []; i = 0; nib.ink = inks[i]": "inks is empty, so it has no item 0",
    "nib.ink = ['red'][1]": "the first is 0",
    "not_there": "give it a value in a line above",
    "kite = 3; kite(4)": "cannot be called",
    # names: a slip of the fingers
    "nib.foward(90)": "did you mean forward?",
    "nib.fowrard(90)": "forward",
    "nib.lefft(90)": "did you mean left?",
    "nib.rihgt(90)": "did you mean right?",
    "nib.circel(30)": "did you mean circle?",
    "nib.poligon(5, radius=9)": "did you mean polygon?",
    "nib.travelto(0, 0)": "did you mean travel_to?",
    "nib.lineTo(0, 0)": "did you mean line_to?",
    "nib.line_widht = 3": "did you mean line_width?",
    "nib.Forward(90)": "did you mean forward?",
    "nib.sheet.sav('a.svg')": "did you mean save?",
    "nib.sheet.widht": "did you mean width?",
    "nib.dice.shufled([1])": "did you mean shuffled?",
    # names: everyday words
    "nib.colour = 'red'": 'nib.ink = "tomato"',
    "nib.color = 'red'": 'nib.ink = "tomato"',
    "nib.tint('red')": 'nib.ink = "tomato"',
    "nib.thickness = 3": "nib.line_width = 4",
    "nib.width = 3": "nib.line_width = 4",
    "nib.background = 'navy'": "Sheet(paper=",
    "nib.setLineColour('red')": 'nib.ink = "tomato"',
    "nib.set_colour('red')": 'nib.ink = "tomato"',
    "nib.fill('red')": 'with nib.area("gold"):',
    "nib.begin_fill()": 'with nib.area("gold"):',
    "nib.fill_colour = 'red'": 'with nib.area("gold"):',
    "nib.line_weight = 2": "nib.line_width = 4",
    "nib.move(90)": "nib.forward(90)",
    "nib.go(90)": "nib.forward(90)",
    "nib.move_to(9, 9)": "nib.line_to(x, y)",
    "nib.backward(90)": "nib.back(90)",
    "nib.hop(9)": "nib.travel_to(x, y)",
    "nib.jump(9, 9)": "nib.travel_to(x, y)",
    "nib.up()": "nib.lift()",
    "nib.pen_up()": "nib.lift()",
    "nib.down()": "nib.lower()",
    "nib.raise_pen()": "nib.lift()",
    "nib.rotate(90)": "nib.left(90)",
    "nib.turn(90)": "nib.left(90)",
    "nib.spin(90)": "nib.left(90)",
    "nib.face(0, 0)": "nib.aim_at(x, y)",
    "nib.look_at(0, 0)": "nib.aim_at(x, y)",
    "nib.direction": "nib.heading",
    "nib.hide()": "nib.pointer = None",
    "nib.cursor = None": "nib.pointer = None",
    "nib.write('Hi')": "nib.text(",
    "nib.print('Hi')": "nib.text(",
    "nib.label('Hi')": "nib.text(",
    "nib.wait(1)": "nib.pause(0.5)",
    "nib.sleep(1)": "nib.pause(0.5)",
    "nib.speed(3)": "sheet.show(seconds=10)",
    "nib.repeat(4)": "nib.full_turn(4)",
    "nib.square(60)": "nib.rectangle(60, 60)",
    "nib.draw_square(60)": "nib.rectangle(60, 60)",
    "nib.triangle(60)": "nib.polygon(3, radius=60)",
    "nib.oval(60, 30)": "nib.ellipse(90, 60)",
    "nib.ring(9)": "nib.circle(30)",
    "nib.dot(4)": "nib.circle(2",
    "nib.erase()": "sheet.clear()",
    "nib.undo()": "nib.sheet.undo()",
    "nib.reset()": "sheet.clear()",
    "nib.sheet.wipe()": "sheet.clear()",
    "nib.random(1, 6)": "nib.dice.integer(1, 6)",
    "nib.center()": "the centre of the sheet",
    "nib.sheet.background = 'navy'": "Sheet(paper=",
    "nib.sheet.forward(90)": "nib.forward",
    "nib.dice.random()": "dice.number(0, 1)",
    "Motif.record(lambda n: n.forward(9)).rotate(9)": "motif.turned(90)",
    # names that are not there
    "forward(90)": "write nib.forward(…)",
    "nibb.forward(90)": "did you mean nib?",
    "nib.forward(sides)": "did you mean side?",
    "nib.ink = red": 'a colour needs quotes: "red"',
    "shift_hue('red', 30)": "from ovlo import shift_hue",
    "Color('red')": "did you mean Colour?",
    # counts and keywords
    "nib.polygon(5, 60)": "takes one value, sides; name the size: radius=60 or side_length=60",
    "nib.forward()": "forward needs distance; write forward(distance)",
    "nib.forward(9, 9)": "forward takes one value, distance",
    "nib.left(90, 5)": "left takes one value, angle",
    "nib.circle()": "circle needs radius",
    "nib.line_by(5)": "line_by needs dy",
    "nib.arc_left(50)": "arc_left needs sweep",
    "nib.circle(30, color='red')": "write fill='red'",
    "nib.circle(30, colour='red')": "write fill='red'",
    "nib.text('Hi', colour='red')": "set nib.ink = 'red' before it",
    "nib.circle(radius=30, radus=3)": "did you mean radius=3?",
    "nib.star(5, 60, steps=2)": "star has no steps=",
    "nib.forward(distance=9, speed=3)": "It takes distance",
    "nib.circle(30, radius=30)": "radius is given twice",
    "nib.dice.integer(6)": "integer needs high",
    "ramp('red', 'blue')": "ramp needs count",
    "nib.lift(5)": "lift takes no values",
    # types and forgotten words
    "nib.forward('90')": "write it without quotes",
    "nib.forward('ninety')": "give a number such as 90",
    "nib.forward(None)": "distance must be a number, not None",
    "nib.circle(30, 'red')": "fill='red'",
    "nib.ink('red')": "set it with =: nib.ink = 'red'",
    "nib.line_width(4)": "line_width is set with =, as in nib.line_width = 4",
    "nib.heading = 90": "turn_to(90) sets it",
    "nib.position = (3, 4)": "travel_to(x, y) moves there",
    "nib.is_lifted = True": "lift() and lower() set it",
    "nib.position()": "read without brackets, as in nib.position",
    "nib.heading()": "read without brackets, as in nib.heading",
    "nib.forward[90]": "round brackets: nib.forward(90)",
    "nib.ink = '#2a9d8'": "of 5 digits; it must have 3, 4, 6 or 8",
    "nib.ink = '#gggggg'": "with 'g'; it must have",
    "nib.ink = 'tomatoe'": "did you mean 'tomato'",
    "nib.ink = (255, 0, 0)": "Colour.from_rgb(red, green, blue)",
    "nib.polygon(2, radius=9)": "sides must be 3 or more",
    "Sheet(paper='A4')": 'A4 is 210 × 297 mm: Sheet(210, 297, unit="mm")',
    "Sheet('A5')": "A5 is 148 × 210 mm",
    "from ovlo import Nib; Nib()": "sheet.new_nib()",
    "if nib.lifted(): pass": "nib.is_lifted",
    "with nib.area: pass": 'with nib.area("tomato"):',
    "with nib.lifted: pass": "with nib.lifted():",
    "for _ in nib.full_turn: pass": "in nib.full_turn(4):",
    "square(80)": "write square(nib, 80)",
    # functions and classes of their own
    "square(nib)": "square needs side as well: square(nib, side)",
    "square()": "square needs nib and side as well: square(nib, side)",
    "square(side=3)": "square needs nib as well: square(side=3, nib=…)",
    "square(nib, 3, 'red')": "square takes only nib and side; 'red' is one too many",
    "square(nib, size=3)": "square has no size=; did you mean side=3? It takes nib and side",
    "square(nib, **{'size': 3})": "square has no size=; did you mean side=…? It takes nib and side",
    "square(nib, wind=3)": "square has no wind=; it takes nib and side",
    "square(nib, 3, side=3)": "side is given twice",
    "flag(nib)": "flag needs colour as well: flag(nib, colour=…)",
    "Boat(nib)": "Boat needs length as well: Boat(nib, length)",
    "Boat(nib, 3).sail(4, 5)": "sail takes only height; 5 is one too many",
    "Boat(nib, 3).sail()": "sail needs height as well: Boat(nib, 3).sail(height)",
    "sorted([3, 4], key=square)": "square() missing 1 required positional argument: 'side'",
    "bow(80)": "bow(nib, 80)",
    "nib.stamp(square)": "Motif.record(…) makes one from a function",
    "nib.spiral(3, 50, growth='fast')": "growth must be one of",
    # what does nothing
    "nib.lifted()": "write `with nib.lifted():`",
    "nib.area('tomato')": 'write `with nib.area("tomato"):`',
    "nib.styled(ink='red')": 'write `with nib.styled(ink="tomato"):`',
    "nib.returning()": "write `with nib.returning():`",
    "nib.full_turn(4)": "write `for _ in nib.full_turn(4):`",
}

TAIL = "\ndef square(nib, side):\n    nib.forward(side)\n\ndef bow(nib, size=9):\n    nib.forward(size)\n"
TAIL += "\ndef flag(nib, *, colour):\n    pass\n"
TAIL += "\nclass Boat:\n    def __init__(self, nib, length):\n        pass\n"
TAIL += "\n    def sail(self, height):\n        pass\n"

OURS = re.compile(
    r"Shapes|Steering|Blocks|Travels|Looks|Arcs|Walks|Words\b|_Word|BadType|BadValue|BadUse|UnknownName|"
    r"ovlo[./]core|site-packages|Traceback|\bself\b|__init__"
)


def files(code: str) -> str:
    return f"{HEAD}    {code}\n{TAIL}"


def answer(path) -> str:
    try:
        outcome = run_program(load(str(path)), limits=Limits(seconds=20))
    except OvloError as error:
        return str(error)
    return "\n".join([outcome.trouble, *outcome.notices])


def test_the_table_is_long_enough():
    assert len(SLIPS) + len(WHOLE) >= 90


@pytest.mark.parametrize("code", SLIPS)
def test_a_slip_is_answered_with_its_line_and_the_fix(code, program):
    said = answer(program(files(code)))
    assert SLIPS[code] in said
    assert "line 5" in said
    assert not OURS.search(said.replace("from ovlo import Nib; Nib()", ""))


WHOLE = {
    "from ovlo import Color\n": ("did you mean Colour?", "line 1"),
    "from ovlo import drawing\n@drawing()\ndef kite(nib, sail: Colour = 'red'):\n    pass\n": (
        "from ovlo import Colour",
        "line 3",
    ),
    "def kite(nib):\n    nib.forward(9)\n": ("Put @drawing above `def kite`", "from ovlo import drawing"),
    "import ovl\n": ("did you mean ovlo?", "line 1"),
    "from ovlo import Sheet\nsheet = Sheet()\nsheet.forward(9)\n": ("nib = sheet.new_nib()", "line 3"),
    "from ovlo import drawing\n@drawing()\ndef kite():\n    pass\n": ("must take the nib first", "line 3"),
    "import ovlo\novlo.sheet()\n": ("Sheet", "line 2"),
}


@pytest.mark.parametrize("code", WHOLE)
def test_a_whole_file_is_answered(code, program):
    said = answer(program(code))
    for words in WHOLE[code]:
        assert words in said or words.startswith("line")
    assert not OURS.search(said)


@pytest.mark.parametrize(
    "code", ["nib.foward(90)", "nib.colour = 'red'", "nib.polygon(5, 60)", "nib.lifted()"]
)
@pytest.mark.parametrize("command", ["draw", "check", "steps"])
def test_commands_answer_alike(code, command, ovlo_command, program):
    done = ovlo_command(command, program(files(code)))
    assert SLIPS[code] in done.stderr
    assert "line 5" in done.stderr


PLAIN = ["nib.colour = 'red'", "nib.ink('red')", "nib.heading = 90", "nib.lifted()", "nib.circle(30, 'red')"]


@pytest.mark.parametrize("code", PLAIN)
def test_plain_python_answers_too(code, program, tmp_path):
    path = program(files(code) + "\nkite.run()\n")
    done = subprocess.run([sys.executable, path], cwd=tmp_path, capture_output=True, text=True, timeout=60)
    assert SLIPS[code] in done.stderr
    assert "line 5" in done.stderr or "kite.py:5:" in done.stderr
    assert not re.search(r"Shapes|Steering|ovlo\.core\.values", done.stderr)


def test_a_notebook_shows_the_lines_of_the_program_alone(program):
    path = program(files("nib.circle(-5)"))
    scope: dict[str, object] = {"__name__": "kite"}
    exec(compile(path.read_text(), str(path), "exec"), scope)
    with pytest.raises(OvloError) as failed:
        scope["kite"].run()
    shown = "".join(failed.value._render_traceback_())
    assert "nib.circle(-5)" in shown
    assert "/core/" not in shown


@pytest.mark.parametrize("command", ["draw", "check", "steps"])
def test_a_recursion_900_deep_is_no_mistake(command, ovlo_command, program):
    # CPython 3.12 has a limit of its own for calls that come through C, as those of a drawing do.
    depth = 300 if sys.version_info[:2] == (3, 12) else 900
    path = program(
        "from ovlo import Motif, drawing\n\n"
        f"@drawing()\ndef kite(nib, depth={depth}):\n    nib.forward(0.1)\n"
        "    nib.left(1)\n    if depth:\n        kite(nib, depth - 1)\n\n"
        f"@drawing()\ndef tail(nib, depth={depth}):\n"
        "    nib.forward(0.01)\n    if depth:\n        nib.stamp(Motif.record(tail, depth - 1))\n"
    )
    assert ovlo_command(command, f"{path}:kite").returncode == 0
    done = ovlo_command(command, f"{path}:tail")
    assert done.returncode == 0


def test_an_endless_recursion_is_told(ovlo_command, program):
    path = program("from ovlo import drawing\n\n@drawing()\ndef kite(nib):\n    nib.left(1)\n    kite(nib)\n")
    done = ovlo_command("draw", path)
    assert done.returncode == 1
    assert "kite calls itself without end" in done.stderr


@pytest.mark.parametrize("command", ["draw", "animate", "plot"])
def test_a_failed_run_does_not_replace_a_good_picture(ovlo_command, program, tmp_path, command):
    path = program(files("nib.forward(9)"))
    asked = command, path, "-o", "kite.svg", "-o", "bay.svg", "-o", "new.svg"
    assert ovlo_command(*asked).returncode == 0
    good = (tmp_path / "kite.svg").read_bytes()
    (tmp_path / "new.svg").unlink()
    program(files("nib.forward('x')"))
    done = ovlo_command(*asked)
    said = "Nothing was drawn before the error; kite.svg and bay.svg are unchanged."
    assert (done.returncode, said in done.stdout) == (1, True)
    assert (tmp_path / "kite.svg").read_bytes() == good
    program(files("nib.forward(5); nib.forward('x')"))
    assert ovlo_command(*asked).returncode == 1
    assert (tmp_path / "kite.svg").read_bytes() != good


def test_a_seed_that_changes_nothing_is_told(ovlo_command, program):
    assert "--seed" in ovlo_command("draw", program(files("nib.forward(9)")), "--seed", "4").stderr
    assert (
        "--seed"
        not in ovlo_command("draw", program(files("nib.travel_to(nib.dice.point())")), "--seed", "4").stderr
    )


def test_what_nobody_saved_is_told_at_the_end(program, tmp_path):
    def run(code: str) -> str:
        done = subprocess.run([sys.executable, program(code)], cwd=tmp_path, capture_output=True, text=True)
        return done.stderr

    sheet = "from ovlo import Sheet\nsheet = Sheet()\nsheet.new_nib().forward(9)\n"
    assert run(files("pass")) == (
        'Ovlo: the drawing kite was never saved or shown; end the file with kite.save("kite.svg")\n'
    )
    assert 'end the file with sheet.save("kite.svg")' in run(sheet)
    assert run(files("pass") + "kite.save('a.svg')\n") == ""
    assert run(sheet + "sheet.save('a.svg')\n") == ""
    assert "never saved" not in run(sheet + "1 / 0\n")


def test_control_characters_never_reach_the_terminal(ovlo_command, program):
    done = ovlo_command("draw", program(files("raise ValueError('a\\x1b[31mb\\x07')")))
    assert "\x1b" not in done.stderr
    assert r"a\x1b[31mb\x07" in done.stderr


def test_the_readme_shows_two_real_answers(ovlo_command, program):
    page = (Path(__file__).parents[2] / "README.md").read_text()
    part = page.split("keeps what was drawn before:")[1].split("## The guide")[0]
    shown = [textwrap.dedent(block).strip() for block in part.split("    $ ovlo draw kite.py\n")[1:]]
    head = 'from ovlo import drawing\n\n\n@drawing()\ndef kite(nib):\n    """A kite."""\n    '
    for code, block in zip(('nib.setLineColour("tomato")', "nib.polygon(5, 60)"), shown, strict=True):
        program(head + code + "\n")
        done = ovlo_command("draw", "kite.py")
        assert unmarked(block) == unmarked(f"{textwrap.dedent(done.stderr).strip()}\n{done.stdout.strip()}")


def unmarked(words: str) -> list[str]:
    """The lines without those by which Python marks a part of a line: each version marks another one."""
    return [line for line in words.splitlines() if line.strip(" ~^")]


UNREADABLE = {
    "nib.forward(90": "This bracket is never closed",
    "for i in range(4) nib.forward(9)": "A colon is missing",
    "def kite(nib)\n    nib.forward(9)": "A colon is missing at the end",
    "for i in range(4):\nnib.forward(9)": "Indent this line by four spaces",
    "nib.forward(90))": "a closing bracket too many",
    "nib.text('it's')": "no quote at its end",
    "  nib.forward(9)": "indented more than the one above",
    'nib.ink = "tomato': "no quote at its end",
    "else: nib.forward(9)": "no if above it",
    "nib.forward 90": "Brackets are missing: nib.forward(90).",
    "nib forward(90)": "A dot is missing: nib.forward(90)",
    "nib..forward(90)": "There is a dot too many",
    "nib.left(90°)": "Leave out the sign °",
    "for i in range 4: nib.left(9)": "Brackets are missing: range(4).",
    "nib.forward(50) nib.left(90)": "put each on a line of its own",
    "nib.forward(50);; nib.left(9)": "There is a semicolon too many.",
    "if nib.heading = 90: nib.forward(9)": "== compares two",
    'print "hi"': "Brackets are missing around what is printed",
}


@pytest.mark.parametrize("source", UNREADABLE)
def test_source_that_python_cannot_read_says_what_to_write(source, program):
    with pytest.raises(OvloError, match=re.escape(UNREADABLE[source])):
        load(str(program(f"from ovlo import Sheet\nnib = Sheet().new_nib()\n{source}\n")))


def test_a_method_without_self_a_value_used_too_early_and_a_plain_function_are_explained(program):
    cases = {
        "class Bay:\n    def fly(n): n.forward(9)\nBay().fly(nib)": "it takes self first: def fly(self, …)",
        "n = 4\ndef go():\n    n = n + 1\ngo()": "n has no value yet",
        "def leaf(nib): nib.circle(9)\nleaf.save('a.svg')": "with @drawing above its def",
        "def side(n): n * 2\nnib.forward(side(4) + 1)": "gives None, since it does not end with `return …`",
        "def sides(n): n * 2\nfor _ in range(sides(4)): nib.forward(9)": "sides(…) gives None, since it",
    }
    for source, words in cases.items():
        path = program(f"from ovlo import Sheet\nnib = Sheet().new_nib()\n{source}\n")
        assert words in run_program(load(str(path))).trouble
