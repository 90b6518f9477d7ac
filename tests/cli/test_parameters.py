"""Parameters, variations and limits on the real command line."""

from __future__ import annotations

import json
import re
import signal
import subprocess
import sys
import xml.etree.ElementTree as ElementTree
from pathlib import Path

import pytest
from PIL import Image

KITES = """\
from typing import Annotated
from ovlo import Span, drawing

@drawing(width=200, height=200)
def kite(nib, sides: Annotated[int, Span(3, 12)] = 4, side: float = 40):
    '''A kite.

    More of it.'''
    if sides == 6:
        nib.forward("six")
    nib.polygon(sides, side_length=side)

@drawing()
def scatter(nib, count: int):
    for _ in range(count):
        nib.travel_to(nib.dice.point())
        nib.circle(5)
"""


def test_set_gives_values_that_are_printed_and_written(ovlo_command, program, tmp_path):
    target = f"{program(KITES, 'kites.py')}:kite"
    done = ovlo_command("draw", target, "--set", "sides=7", "--set", "side=20", "-o", "a.svg", "-o", "a.png")
    assert done.returncode == 0, done.stderr
    assert "kite with sides=7, side=20\n" in done.stdout
    about = {"drawing": "kite", "parameters": {"sides": 7, "side": 20}}
    metadata = ElementTree.parse(tmp_path / "a.svg").find("{http://www.w3.org/2000/svg}metadata")
    assert json.loads(metadata.text) == about
    with Image.open(tmp_path / "a.png") as picture:
        assert json.loads(picture.text["Description"]) == about


@pytest.mark.parametrize(
    ("arguments", "words"),
    [
        (["--set", "sides=13"], "sides must be from 3 to 12, but is 13"),
        (["--set", "sides=two"], "sides must be a whole number, 3 to 12, not 'two'"),
        (["--set", "sids=5"], "did you mean 'sides'"),
        (["--set", "sides"], "write name=value"),
        (["--set", "sides=3", "--set", "sides=4"], "twice"),
    ],
)
def test_values_that_will_not_do_end_with_a_sentence(ovlo_command, program, arguments, words):
    done = ovlo_command("draw", f"{program(KITES)}:kite", *arguments)
    assert done.returncode == 2
    assert words in done.stderr
    assert "Traceback" not in done.stderr


def test_a_missing_value_and_a_script_with_values_are_explained(ovlo_command, program):
    done = ovlo_command("draw", f"{program(KITES)}:scatter")
    assert (done.returncode, "--set count=" in done.stderr) == (2, True)
    script = program("from ovlo import Sheet\nSheet(9, 9).new_nib()\n", "script.py")
    done = ovlo_command("draw", script, "--set", "sides=3")
    assert (done.returncode, "has no parameters" in done.stderr) == (2, True)


def test_list_shows_drawings_parameters_ranges_and_defaults(ovlo_command, program):
    done = ovlo_command("draw", program(KITES), "--list")
    assert done.stdout == (
        "kite: A kite.\n"
        "  sides  whole number, 3 to 12  default 4\n"
        "  side   number                 default 40\n"
        "\n"
        "scatter\n"
        "  count  whole number  must be given\n"
    )


def test_ask_explains_a_bad_answer_asks_again_and_draws_another(ovlo_command, program, tmp_path):
    keys = "13\n5\n\ny\n3\n9.5\nn\n"
    done = ovlo_command("draw", f"{program(KITES)}:kite", "--ask", "-o", "k.svg", keys=keys)
    assert done.returncode == 0, done.stderr
    assert "sides (whole number, 3 to 12) [4]:" in done.stdout
    assert "sides must be from 3 to 12, but is 13" in done.stdout
    assert "kite with sides=5, side=40" in done.stdout
    assert "kite with sides=3, side=9.5" in done.stdout
    assert (tmp_path / "k.svg").exists()
    assert (tmp_path / "k-2.svg").exists()


def test_marks_beyond_the_sheet_are_reported_and_fit_shows_them(ovlo_command, program, tmp_path):
    source = "from ovlo import Sheet\nnib = Sheet(200, 100).new_nib()\nnib.forward(150)\nnib.circle(20)\n"
    done = ovlo_command("draw", program(source), "-o", "a.svg")
    assert "2 of 2 marks leave the sheet: 70 beyond" not in done.stdout
    assert "2 of 2 marks leave the sheet: 70 px beyond the right." in done.stdout
    assert "--fit zooms by" in done.stdout
    done = ovlo_command("draw", program(source), "-o", "a.svg", "--fit")
    assert "leave the sheet" not in done.stdout
    root = ElementTree.parse(tmp_path / "a.svg").getroot()
    left, top, width, height = map(float, root.attrib["viewBox"].split())
    assert (root.attrib["width"], root.attrib["height"]) == ("200px", "100px")
    assert left < 0 < 170 < left + width
    assert top < -20 < 20 < top + height
    assert width / height == pytest.approx(2)


def test_the_same_seed_gives_the_same_file(ovlo_command, program, tmp_path):
    target = f"{program(KITES)}:scatter"
    done = ovlo_command("draw", target, "--set", "count=9", "-o", "a.svg")
    seed = done.stdout.split("seed=")[1].split()[0]
    again = ovlo_command("draw", target, "--set", "count=9", "--seed", seed, "-o", "b.svg")
    assert f"seed={seed}" in again.stdout
    assert (tmp_path / "a.svg").read_bytes() == (tmp_path / "b.svg").read_bytes()
    assert f'"seed": {seed}' in (tmp_path / "a.svg").read_text()


def test_vary_draws_all_combinations_whatever_the_workers(ovlo_command, program, tmp_path):
    target = f"{program(KITES)}:kite"
    ranges = ["--values", "sides=3..8", "--values", "side=20,40"]
    one = ovlo_command("vary", target, *ranges, "-o", "one.png", "-o", "one.svg", "--workers", 1)
    two = ovlo_command("vary", target, *ranges, "-o", "two.png", "--workers", 2)
    assert one.returncode == two.returncode == 1  # two cells fail
    assert "12 pictures, 2 of them failed" in one.stdout
    assert "sides=6, side=20: line 10: forward: distance" in one.stderr
    assert (tmp_path / "one.png").read_bytes() == (tmp_path / "two.png").read_bytes()
    svg = (tmp_path / "one.svg").read_text()
    assert all(f"sides={sides}, side={side}<" in svg for sides in range(3, 9) for side in (20, 40))


def test_what_a_mistake_in_the_source_explains_is_not_marked_in_cells_either(ovlo_command, program, tmp_path):
    kite = "from ovlo import drawing\n@drawing\ndef kite(nib, side: float = 200):\n    for _ in range(4):\n"
    for turn, marked in (("    nib.left(90)\n", False), ("    nib.lift()\n", True)):
        path = program(f"{kite}        nib.forward(side)\n{turn}")
        done = ovlo_command("vary", path, "--values", "side=200,300", "--overlay", "findings", "-o", "k.svg")
        assert done.returncode == 0
        assert (">1</text>" in (tmp_path / "k.svg").read_text()) == marked


def test_vary_over_seeds_shows_outcomes_of_one_drawing(ovlo_command, program, tmp_path):
    done = ovlo_command(
        "vary", f"{program(KITES)}:scatter", "--set", "count=4", "--values", "seed=1..3", "-o", "seeds.svg"
    )
    assert done.returncode == 0, done.stderr
    svg = (tmp_path / "seeds.svg").read_text()
    assert all(f">seed={seed}</text>" in svg for seed in (1, 2, 3))


@pytest.mark.parametrize(
    ("ranges", "words"),
    [
        (["sides=8..3"], "is empty; put the lower end first"),
        (["sides="], "is empty; give values"),
        (["side=0..9..0"], "would never end"),
        (["side=0..1e9"], "1,000,000,001 pictures are too many"),
        (["side=a..b"], "is not a range"),
        (["sides=3..13"], "from 3 to 12"),
        (["sids=3..5"], "did you mean 'sides'"),
        ([], "at least one parameter"),
    ],
)
def test_vary_refuses_ranges_that_cannot_be(ovlo_command, program, ranges, words):
    options = [part for text in ranges for part in ("--values", text)]
    done = ovlo_command("vary", f"{program(KITES)}:kite", *options)
    assert done.returncode == 2
    assert words in done.stderr


ENDLESS = """\
from ovlo import Sheet
nib = Sheet(100, 100).new_nib()
try:
    while True:
        try:
            {body}
        except Exception:
            pass
finally:
    nib.circle(5)
"""


@pytest.mark.parametrize(
    ("body", "options", "words"),
    [
        ("nib.forward(1)", ["--step-limit", 50], "more than 50 steps"),
        ("nib.pause(1)", ["--step-limit", 50], "more than 50 steps"),
        ("nib.text('kite')", ["--step-limit", 50], "more than 50 steps"),
        (
            "nib.stamp(__import__('ovlo').Motif.record(lambda nib: None))",
            ["--step-limit", 50],
            "than 50 steps",
        ),
        ("nib.walk([1] * 40, 9)", ["--step-limit", 50], "more than 50 steps"),
        ("x = 1", ["--time-limit", 0.3], "it ran longer than"),
        ("__import__('time').sleep(60)", ["--time-limit", 0.3], "it ran longer than"),
    ],
)
def test_an_endless_program_is_stopped_with_its_line(ovlo_command, program, tmp_path, body, options, words):
    done = ovlo_command("draw", program(ENDLESS.format(body=body)), *options, "-o", "a.svg")
    assert done.returncode == 1
    assert words in done.stderr
    assert ", line " in done.stderr
    assert "Traceback" not in done.stderr
    # What the program does on its way out is not drawn any more.
    picture = tmp_path / "a.svg"
    assert picture.exists() == ("forward" in body or "text" in body or "walk" in body)
    assert not picture.exists() or not re.search(" A|A5", picture.read_text())


def test_ctrl_c_keeps_what_is_drawn(program, tmp_path):
    source = ENDLESS.format(body="pass").replace(
        "try:\n    while", "nib.forward(30)\nprint('on', flush=True)\ntry:\n    while"
    )
    running = subprocess.Popen(
        [Path(sys.executable).with_name("ovlo"), "draw", program(source), "-o", "a.svg"],
        cwd=tmp_path,
        stdout=subprocess.PIPE,
        stderr=subprocess.PIPE,
        text=True,
    )
    assert running.stdout.readline() == "on\n"
    running.send_signal(signal.SIGINT)
    printed, told = running.communicate(timeout=30)
    assert running.returncode == 1
    assert "Stopped: Ctrl-C was pressed, in" in told
    assert "1 step (1 drawn" in printed


def test_a_recursion_without_end_is_explained_in_a_sentence(ovlo_command, program):
    source = (
        "from ovlo import Sheet\nnib = Sheet(100, 100).new_nib()\n"
        "def twig(size):\n    nib.forward(size)\n    twig(size / 2)\n\ntwig(50)\n"
    )
    done = ovlo_command("draw", program(source), "-o", "a.svg")
    assert done.returncode == 1
    assert "line 5: twig calls itself without end" in done.stderr or "line 4: twig calls" in done.stderr
    assert len(done.stderr.splitlines()) == 1
    assert "a.svg" in done.stdout
