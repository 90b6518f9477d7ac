"""Small wishes of the command line: new, many files, overlays everywhere, quiet ends, clear hints."""

from __future__ import annotations

import numpy as np
import pytest
from PIL import Image, ImageSequence

SAIL = """\
from ovlo import Colour, drawing

@drawing(width=320, height=240)
def sail(nib, cloth: Colour = "tomato", sides: int = 4):
    with nib.area(cloth):
        for _ in nib.full_turn(sides):
            nib.forward(60)
"""


@pytest.mark.parametrize("more", [[], ["--script"]])
def test_a_new_program_runs_as_it_is_and_is_never_written_over(more, ovlo_command, tmp_path):
    assert ovlo_command("new", "kite.py", *more).returncode == 0
    assert ovlo_command("draw", "kite.py", "-o", "kite.png").returncode == 0
    assert ovlo_command("check", "kite.py").stdout.endswith("No findings.\n")
    before = (tmp_path / "kite.py").read_text()
    again = ovlo_command("new", "kite.py")
    assert (again.returncode, "already exists" in again.stderr) == (2, True)
    assert (tmp_path / "kite.py").read_text() == before


def test_many_files_are_checked_and_counted(ovlo_command, program):
    program(SAIL, "good.py")
    program(SAIL.replace("forward(60)", "forward(900)"), "wide.py")
    program("1 / 0\n", "broken.py")
    done = ovlo_command("check", "good.py", "wide.py", "broken.py", "missing.py")
    assert done.returncode == 1
    assert done.stdout.splitlines()[-1] == (
        "4 drawings: 1 without findings, 0 with hints only, 3 with problems."
    )
    assert "ZeroDivisionError" in done.stdout
    assert "missing.py does not exist" in done.stdout


def test_contact_sheets_and_animations_take_overlays(ovlo_command, program, tmp_path):
    path = program(SAIL, "sail.py")
    plain, more = (["vary", path, "--values", "sides=3..4", "-o", name] for name in ("a.png", "b.png"))
    assert ovlo_command(*plain).returncode == ovlo_command(*more, "--overlay", "grid").returncode == 0
    assert (tmp_path / "a.png").read_bytes() != (tmp_path / "b.png").read_bytes()
    film = ["animate", path, "--seconds", "1", "--hold", "0", "-o"]
    assert ovlo_command(*film, "c.gif", "--overlay", "grid", "--loops", "3").returncode == 0
    assert ovlo_command(*film, "d.gif", "--loops", "1").returncode == 0
    with Image.open(tmp_path / "c.gif") as looped, Image.open(tmp_path / "d.gif") as once:
        assert looped.info["loop"] == 2
        assert "loop" not in once.info
        papers = {tuple(np.asarray(frame.convert("RGB"))[3, 3]) for frame in ImageSequence.Iterator(once)}
        assert papers == {(255, 255, 255)}


def test_a_contact_sheet_shows_colours_as_they_were_written(ovlo_command, program, tmp_path):
    done = ovlo_command("vary", program(SAIL), "--values", "cloth=gold,#0a7", "-o", "a.svg")
    assert done.returncode == 0
    text = (tmp_path / "a.svg").read_text()
    assert ">cloth=gold<" in text
    assert ">cloth=#0a7<" in text


@pytest.mark.parametrize(
    ("command", "words"),
    [
        (["draw", "kite.py", "-o", "a.gif"], "ovlo animate"),
        (["vary", "kite.py", "--set", "sides=3..8"], "--values sides=3..8"),
        (["draw", "kite.py", "--only", "tail"], "--only: no function 'tail'"),
        (["draw", "kite.py", "--set", "sidess=3"], "--set: there is no parameter 'sidess'"),
        (["draw", "nofile.py"], "The file nofile.py does not exist."),
    ],
    ids=lambda value: " ".join(value) if isinstance(value, list) else "",
)
def test_hints_begin_with_what_was_typed(command, words, ovlo_command, program):
    program(SAIL)
    done = ovlo_command(*command)
    assert done.returncode == 2
    assert words in done.stderr


def test_asking_ends_quietly_at_the_end_of_input(ovlo_command, program, tmp_path):
    done = ovlo_command("draw", program(SAIL), "--ask", keys="gold\n5\n")
    assert (done.returncode, done.stderr) == (0, "")
    assert (tmp_path / "kite.svg").exists()


def test_a_picture_option_among_parameters_is_sent_to_the_picture(program):
    scope: dict[str, object] = {"__name__": "sail"}
    exec(SAIL, scope)
    with pytest.raises(ValueError, match=r"sail\.run\(\)\.save\('k.png', scale=2\)"):
        scope["sail"].save("k.png", scale=2)


def test_legends_stand_below_and_steps_that_coincide_share_a_label(ovlo_command, program, tmp_path):
    path = program(
        "from ovlo import drawing\n@drawing(width=300, height=200)\ndef kite(nib):\n    nib.forward(80)\n"
        "    nib.left(120)\n    nib.forward(80)\n    nib.back(80)\n"
    )
    assert ovlo_command("draw", path, "--overlay", "angles,steps", "-o", "a.svg").returncode == 0
    text = (tmp_path / "a.svg").read_text()
    assert 'height="250px"' in text
    assert ">2, 3<" in text
    assert ">inner angle<" in text


def test_steps_are_counted_by_what_they_are(ovlo_command, program):
    path = program(SAIL.replace("area(cloth)", "area(cloth, outline=False)") + "    nib.travel_to(9, 9)\n")
    assert "5 steps (0 drawn, 4 borders, 1 jump)" in ovlo_command("draw", path).stdout
    nothing = program("from ovlo import Sheet\nSheet().new_nib()\n", "nothing.py")
    assert "no steps, 0.0 px drawn" in ovlo_command("draw", nothing).stdout
