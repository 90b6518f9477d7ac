"""`ovlo check`, `steps`, `compare` and the overlays of `draw`, as a user types them."""

from __future__ import annotations

import csv
import io
import json

import numpy as np
import pytest
from PIL import Image

from ovlo.program.examples import example_files

WRONG = """\
from ovlo import drawing

@drawing(width=320, height=240)
def kite(nib, sides=3):
    for _ in range(sides):
        nib.forward(60)
        nib.left(180 - 360 / sides)
    nib.travel_to(0, -100)
    tail(nib)

def tail(nib):
    nib.line_to(300, -100)
"""


def test_a_check_shows_the_line_and_the_fix(ovlo_command, program):
    done = ovlo_command("check", program(WRONG))
    assert done.returncode == 1
    assert "problem: turns-miss-360 at (60, 103.9)" in done.stdout
    assert "    6 |         nib.forward(60)\n  > 7 |         nib.left(" in done.stdout
    assert "Fix: Turn by 120° (360 / 3) after each side." in done.stdout
    assert "     9 |     tail(nib)\n  > 12 |     nib.line_to(300, -100)" in done.stdout
    assert done.stdout.endswith("2 problems. `ovlo check --rules` explains the rules.\n")


def test_a_check_as_json(ovlo_command, program):
    done = ovlo_command("check", program(WRONG), "--json", "--skip", "off-sheet")
    (finding,) = json.loads(done.stdout)
    assert finding["rule"] == "turns-miss-360"
    assert finding["severity"] == "problem"
    assert (finding["lines"], finding["callers"]) == ([7], [6])
    assert "inner angle of a triangle" in finding["message"]
    assert "120" in finding["fix"]


def test_findings_are_silenced_by_rule_and_by_comment(ovlo_command, program):
    silent = WRONG.replace(
        "nib.forward(60)", "nib.forward(60)  # ovlo: skip turns-miss-360, not-closed"
    ).replace("    tail(nib)", "    tail(nib)  # ovlo: skip off-sheet")
    done = ovlo_command("check", program(silent))
    assert (done.returncode, done.stdout.splitlines()[-1]) == (0, "No findings.")
    both = ["--skip", "turns-miss-360", "--skip", "off-sheet"]
    assert ovlo_command("check", program(WRONG), *both).returncode == 0
    misspelt = ovlo_command("check", program(WRONG), "--skip", "turns-mis-360")
    assert (misspelt.returncode, "did you mean 'turns-miss-360'" in misspelt.stderr) == (2, True)


def test_hints_count_when_strict(ovlo_command, program):
    path = program(WRONG.replace("180 - 360 / sides", "90").replace("sides=3", "sides=5"))
    quiet = ["--skip", "off-sheet"]
    assert ovlo_command("check", path, *quiet).returncode == 0
    assert ovlo_command("check", path, *quiet, "--strict").returncode == 1


def test_rules_are_explained_with_their_numbers(ovlo_command):
    done = ovlo_command("check", "--rules")
    assert done.returncode == 0
    for words in ("not-closed (problem or hint)", "10%", "covered (hint)", "CIEDE2000", "# ovlo: skip"):
        assert words in done.stdout


def test_a_failing_program_is_checked_as_far_as_it_got(ovlo_command, program):
    done = ovlo_command("check", program(WRONG.replace("    tail(nib)", "    1 / 0")))
    assert done.returncode == 1
    assert "the number to divide by is 0" in done.stderr
    assert "turns-miss-360" in done.stdout


def test_steps_as_a_table_as_csv_and_as_an_outline(ovlo_command, program):
    path = program(WRONG)
    table = ovlo_command("steps", path).stdout
    assert "line         (60, 0)              (90, 51.96)          60°       60°" in table
    rows = list(csv.DictReader(io.StringIO(ovlo_command("steps", path, "--csv", "--only", "tail").stdout)))
    assert [(row["kind"], row["line"], row["function"]) for row in rows] == [("line", "12", "tail")]
    outline = ovlo_command("steps", path, "--calls").stdout.splitlines()
    assert outline[1].split() == ["kite", "1", "5", "480.0", "px"]
    assert outline[2].split() == ["tail", "1", "1", "300.0", "px"]
    wrong = ovlo_command("steps", path, "--only", "tale")
    assert (wrong.returncode, "did you mean 'tail'" in wrong.stderr) == (2, True)


@pytest.mark.parametrize("overlay", ["grid,axes", "angles, steps", "pointer", "findings"])
def test_overlays_change_the_picture_and_nothing_else(ovlo_command, program, tmp_path, overlay):
    path = program(WRONG.replace("300", "100"))
    plain = ovlo_command("draw", path, "-o", "plain.png")
    over = ovlo_command("draw", path, "-o", "over.png", "--overlay", overlay)
    assert over.returncode == 0, over.stderr
    assert over.stdout.replace("over", "plain") == plain.stdout
    pictures = [
        np.asarray(Image.open(tmp_path / f"{name}.png").convert("L")).astype(int)
        for name in ("plain", "over")
    ]
    # What explains an overlay stands below the picture.
    changed = (abs(pictures[0] - pictures[1][: len(pictures[0])]) > 8).mean()
    assert 0.0005 < changed < 0.4


def test_an_unknown_overlay_offers_the_nearest(ovlo_command, program):
    done = ovlo_command("draw", program(WRONG), "--overlay", "gird")
    assert (done.returncode, "did you mean 'grid'" in done.stderr) == (2, True)


def test_only_one_function_is_not_pale(ovlo_command, program, tmp_path):
    ovlo_command("draw", program(WRONG), "-o", "tail.png", "--only", "tail")
    pixels = np.asarray(Image.open(tmp_path / "tail.png").convert("L"))
    assert pixels[:200].min() > 150
    assert pixels[200:].min() < 20


def star(name):
    (path,) = [file for file in example_files() if file.stem == "star_twice"]
    return f"{path}:{name}"


def test_the_star_drawn_twice_is_turned_by_18_degrees(ovlo_command, tmp_path):
    done = ovlo_command("compare", star("walked"), star("by_corners"), "-o", "diff.png")
    assert (done.returncode, done.stdout.splitlines()[0]) == (0, "The same: B is A turned by 18.00°.")
    colours = {pixel[1] for pixel in Image.open(tmp_path / "diff.png").convert("RGB").getcolors(1 << 20)}
    assert {(0, 114, 178), (224, 138, 0)} <= colours


def test_two_pictures_that_differ(ovlo_command):
    done = ovlo_command("compare", star("walked"), star("walked"), "--set-b", "points=7")
    assert done.returncode == 1
    assert done.stdout.startswith("Different: the largest distance is ")
    half = ovlo_command("compare", star("walked"), star("walked"), "--set-b", "radius=90")
    assert (half.returncode, half.stdout) == (0, "The same: B is A scaled by 0.5.\n")
    wrong = ovlo_command("compare", star("walked"), star("waked"))
    assert (wrong.returncode, "did you mean 'walked'" in wrong.stderr) == (2, True)


def test_a_folder_is_checked_in_order_and_reported_on_one_page(ovlo_command, program, tmp_path, chromium):
    (tmp_path / "bay" / "more").mkdir(parents=True)
    program(
        "from ovlo import Sheet\nnib = Sheet().new_nib()\nwhile True:\n    nib.forward(1)\n",
        "bay/a_endless.py",
    )
    program("from ovlo import Sheet\nnib = Sheet().new_nib()\nsum(range(10**12))\n", "bay/b_stuck.py")
    program("import os\nprint('<b>printed</b>')\nos._exit(3)\n", "bay/c_gone.py")
    program(WRONG + "\n\n@drawing()\ndef other(nib):\n    nib.polygon(5, radius=60)\n", "bay/d_two.py")
    program("from ovlo import Sheet\nSheet().new_nib().foward(3)\n", "bay/more/e_<i>slip.py")
    program("from ovlo import Sheet\nSheet().new_nib().forward(int(input('How far? ')))\n", "bay/more/f.py")
    program(
        "from ovlo import drawing\n@drawing\ndef model(nib):\n    nib.polygon(5, radius=60)\n", "model.py"
    )
    report = ["-o", "report.html", "--reference", "model.py"]
    done = ovlo_command("check", "bay", *report, "--time-limit", 2)
    assert done.returncode == 1
    heads = [line for line in done.stdout.splitlines() if line.startswith("── ")]
    names = [
        "a_endless.py",
        "b_stuck.py",
        "c_gone.py",
        "d_two.py:kite",
        "d_two.py:other",
        "more/e_<i>slip.py",
        "more/f.py",
    ]
    assert heads == [f"── bay/{name}" for name in names]
    assert "did you mean forward?" in done.stdout
    assert "endless-loop" in done.stdout
    # What programs print or ask is no answer of a check.
    assert "printed" not in done.stdout
    assert "How far? \n" not in done.stdout
    assert "nobody is there to type it" in done.stdout
    assert done.stdout.splitlines()[-2].startswith("7 drawings: 1 without findings")
    assert any(line.split() == ["bay/d_two.py:other", "nothing"] for line in done.stdout.splitlines())
    chromium.get((tmp_path / "report.html").as_uri())
    page = chromium
    assert len(page.find_elements("css selector", "section")) == 7
    assert page.find_elements("css selector", "section i > i, td > b, h2 > i") == []
    assert "The same." in page.find_element("css selector", "#work-4").text
    assert page.find_elements("css selector", "#work-3 .marked") != []


def test_what_cannot_be_a_folder_or_a_report_is_refused(ovlo_command, program, tmp_path):
    (tmp_path / "empty").mkdir()
    assert "empty contains no Python file" in ovlo_command("check", "empty").stderr
    path = program(WRONG)
    assert "a report is an .html file" in ovlo_command("check", path, "-o", "report.pdf").stderr
    assert "there is no folder" in ovlo_command("check", path, "-o", "none/report.html").stderr
    missing = ovlo_command("check", path, "--reference", "none.py")
    assert (missing.returncode, "none.py does not exist" in missing.stderr) == (2, True)


TRIANGLE = """\
from ovlo import drawing  # ein Dreieck, größer\r
\r
\r
@drawing\r
def sail(nib):\r
    for _ in range(3):\r
        nib.forward(90); nib.left(60)  # an angle\r
    nib.lift\r
"""


def test_fixes_that_prove_right_are_shown_or_written_and_nothing_else_changes(ovlo_command, tmp_path):
    path = tmp_path / "sail.py"
    written = TRIANGLE.encode()
    path.write_bytes(written)
    shown = ovlo_command("check", "sail.py", "--diff")
    assert "+        nib.forward(90); nib.left(120)  # an angle" in shown.stdout
    assert "+    nib.lift()" in shown.stdout
    assert path.read_bytes() == written
    fixed = ovlo_command("check", "sail.py", "--fix")
    assert fixed.returncode == 0, fixed.stdout
    assert fixed.stdout.count("fixed: ") == 2
    assert path.read_bytes() == written.replace(b"left(60)", b"left(120)").replace(b"lift\r", b"lift()\r")


def test_a_program_that_saves_and_shows_its_picture_is_fixed_and_writes_nothing(ovlo_command, program):
    path = program(
        "from ovlo import Sheet\nsheet = Sheet()\nnib = sheet.new_nib()\nfor _ in range(3):\n"
        "    nib.forward(90)\n    nib.left(60)\nsheet.save('sail.svg')\nsheet.show()\n"
    )
    done = ovlo_command("check", path, "--diff")
    assert "+    nib.left(120)" in done.stdout
    assert [one.name for one in path.parent.iterdir()] == ["kite.py"]
    assert "would be fixed: turns-miss-360" in done.stdout


def test_a_program_that_writes_or_asks_is_not_run_again_and_a_wrong_fix_not_written(ovlo_command, program):
    source = "from ovlo import Sheet\nnib = Sheet().new_nib()\n{}for _ in range(3):\n    nib.forward(9)\n"
    path = program(source.format("open('count.txt', 'a').write('.')\n") + "    nib.left(60)\n")
    before = path.read_text()
    done = ovlo_command("check", path, "--fix")
    assert "uses open, so it is not run again to prove a fix" in done.stdout
    assert (path.parent / "count.txt").read_text() == "."
    assert path.read_text() == before
    clean = program(source.format("") + "    nib.left(120)\n")
    assert "No finding has a fix" in ovlo_command("check", clean, "--fix").stdout
