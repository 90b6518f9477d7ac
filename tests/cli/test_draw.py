"""`ovlo draw` and `ovlo demo` as a user types them."""

from __future__ import annotations

import xml.etree.ElementTree as ElementTree

import pytest
from PIL import Image

DRAWING = """\
from ovlo import drawing

@drawing(width=320, height=240)
def kite(nib, side=90):
    for _ in nib.full_turn(4):
        nib.forward(side)
"""

SCRIPT = """\
from ovlo import Sheet
sheet = Sheet(320, 240)
nib = sheet.new_nib()
nib.forward(90)
if __name__ == "__main__":
    nib.left(90)
    nib.forward(10)
sheet.show()
"""


def test_a_drawing_is_saved_in_every_format_asked_for(ovlo_command, program, tmp_path):
    done = ovlo_command("draw", program(DRAWING), "-o", "a.svg", "-o", "a.png", "--scale", 2)
    assert done.returncode == 0, done.stderr
    values, svg, png = done.stdout.splitlines()
    assert values == "kite with side=90"
    assert svg == ("a.svg: 320 × 240 px, 4 steps (4 drawn), 360.0 px drawn, the nib came back to its start")
    assert png.startswith("a.png: ")
    assert ElementTree.parse(tmp_path / "a.svg").getroot().attrib["width"] == "640px"
    with Image.open(tmp_path / "a.png") as picture:
        assert picture.size == (640, 480)


def test_groups_are_named_after_the_functions_and_are_for_an_svg_alone(ovlo_command, program, tmp_path):
    path = program(DRAWING + "        knot(nib)\n\ndef knot(nib):\n    nib.circle(3)\n")
    assert ovlo_command("draw", path, "--groups", "-o", "a.svg").returncode == 0
    root = ElementTree.parse(tmp_path / "a.svg").getroot()
    ids = [group.get("id") for group in root.iter("{http://www.w3.org/2000/svg}g")]
    assert [name for name in ids if name.startswith("knot")] == ["knot-1", "knot-2", "knot-3", "knot-4"]
    done = ovlo_command("draw", path, "--groups", "-o", "a.svg", "-o", "b.png")
    assert (done.returncode, done.stderr) == (2, "Error: --groups: only an SVG has groups; b.png does not.\n")


def test_a_script_runs_as_main_and_its_show_does_nothing(ovlo_command, program):
    done = ovlo_command("draw", program(SCRIPT))
    assert done.returncode == 0, done.stderr
    assert "kite.svg: 320 × 240 px, 2 steps (2 drawn), 100.0 px drawn" in done.stdout
    assert "the nib ended 90.55 px from its start" in done.stdout


def test_of_several_sheets_the_last_is_the_picture(ovlo_command, program):
    source = SCRIPT + "\nother = Sheet(10, 10)\nother.new_nib()\n"
    done = ovlo_command("draw", program(source))
    assert "made 2 sheets; the picture is the last one" in done.stdout
    assert "10 × 10 px" in done.stdout


def test_a_failing_program_shows_its_own_lines_and_the_picture_so_far(ovlo_command, program, tmp_path):
    source = DRAWING.replace("nib.forward(side)", "nib.forward(side)\n        tail(nib)") + (
        "\ndef tail(nib):\n    nib.forward('ninety')\n"
    )
    done = ovlo_command("draw", program(source))
    assert done.returncode == 1
    assert "line 7, in kite" in done.stderr
    assert "line 10, in tail" in done.stderr
    assert "forward: distance must be a number, not 'ninety'" in done.stderr
    assert "site-packages" not in done.stderr
    assert "running.py" not in done.stderr
    assert "The picture so far:\nkite.svg: 320 × 240 px, 1 step" in done.stdout
    assert (tmp_path / "kite.svg").exists()


def test_one_of_several_drawings_is_picked_by_name(ovlo_command, program):
    source = DRAWING + DRAWING.replace("def kite", "def tail")
    path = program(source, "kites.py")
    assert ovlo_command("draw", f"{path}:tail").returncode == 0
    unnamed = ovlo_command("draw", path)
    assert unnamed.returncode == 2
    assert "has 2 drawings: kite, tail. Choose one" in unnamed.stderr
    misspelt = ovlo_command("draw", f"{path}:kit")
    assert misspelt.returncode == 2
    assert "did you mean 'kite'" in misspelt.stderr


@pytest.mark.parametrize(
    ("source", "status", "words"),
    [
        ("nib.forward(", 1, "SyntaxError"),
        ("print('nothing drawn')", 2, "defines no drawing and makes no sheet"),
        ("from ovlo import drawing\nname = drawing", 2, "defines no drawing at its top level"),
        ("from ovlo import Sheet\nimport nowhere_at_all", 1, "there is no module 'nowhere_at_all' here"),
        ("from ovlo import drawing\n@drawing()\ndef kite(): pass", 1, "must take the nib first"),
        ("from ovlo import drawing\n@drawing(width=0)\ndef kite(nib): pass", 1, "above 0"),
    ],
)
def test_programs_that_cannot_be_drawn(ovlo_command, program, source, status, words):
    done = ovlo_command("draw", program(source))
    assert done.returncode == status
    assert words in done.stderr
    assert "Traceback" not in done.stderr


@pytest.mark.parametrize(
    ("arguments", "status", "words"),
    [
        (["nowhere.py"], 2, "The file nowhere.py does not exist"),
        (["kit.py"], 2, "did you mean 'kite.py'"),
        (["kite.py", "-o", "kite.bmp"], 2, "no format '.bmp'"),
        (["kite.py", "-o", "no/kite.svg"], 2, "no folder 'no'"),
        (["kite.py", "--scale", "0"], 2, "0.0 is not in the range x>0"),
        (["."], 2, "is a folder"),
        (["kite.py", "--scale", "big"], 2, "not a valid float"),
    ],
)
def test_wrong_calls_end_with_one_sentence(ovlo_command, program, arguments, status, words):
    program(DRAWING)
    done = ovlo_command("draw", *arguments)
    assert done.returncode == status
    assert words in done.stderr
    assert "Traceback" not in done.stderr


@pytest.mark.long
def test_demo_draws_every_example(ovlo_command, tmp_path):
    done = ovlo_command("demo", "pictures")
    assert done.returncode == 0, done.stderr
    drawn = sorted(path.name for path in (tmp_path / "pictures").iterdir())
    assert {"first_kite.png", "first_kite.svg", "row_of_kites.png"} <= set(drawn)
    assert "row_of_kites" in done.stdout


def test_a_missing_font_is_a_warning_in_one_sentence(ovlo_command, program):
    source = "from ovlo import Sheet\nSheet(99, 99).new_nib().text('Kite', font='Nowhere Sans')\n"
    done = ovlo_command("draw", program(source), "-o", "a.png")
    assert done.returncode == 0
    assert done.stderr.startswith("Warning: The font 'Nowhere Sans' is not installed; DejaVu Sans is used")
    assert len(done.stderr.splitlines()) == 1


def test_a_misspelt_command_offers_the_nearest(ovlo_command):
    done = ovlo_command("drw")
    assert (done.returncode, "did you mean 'draw'" in done.stderr) == (2, True)
