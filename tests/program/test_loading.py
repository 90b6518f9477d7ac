"""Program files that are none: one sentence each, and in bounded time."""

from __future__ import annotations

import os
import sys
from pathlib import Path

import pytest

from ovlo.core.values.errors import FileError, ProgramFailed
from ovlo.program.loading import load


@pytest.mark.parametrize(
    ("source", "words"),
    [
        ("x = " + "-" * 200_000 + "1", "nested too deeply"),
        ("x = " + "+".join(["1"] * 200_000), "nested too deeply"),
        ("x = " + "(" * 300 + "1" + ")" * 300, "too many nested parentheses"),
        ("x = '\0'", "null bytes"),
        ("def kite(:", "invalid syntax"),
    ],
)
def test_what_python_cannot_read_is_told_in_short(tmp_path, source, words):
    path = tmp_path / "kite.py"
    path.write_text(source)
    with pytest.raises(ProgramFailed, match=words) as failed:
        load(str(path))
    assert max(map(len, str(failed.value).splitlines())) < 400


def test_what_is_no_file_is_not_waited_for(tmp_path):
    os.mkfifo(tmp_path / "pipe.py")
    for path in (tmp_path / "pipe.py", Path("/dev/zero")):
        with pytest.raises(FileError, match="is not a readable file"):
            load(str(path))


def test_a_file_too_large_for_a_program_is_not_read_whole(tmp_path):
    path = tmp_path / "kite.py"
    with path.open("wb") as file:
        file.truncate(10**10)
    with pytest.raises(FileError, match="larger than 10 MB"):
        load(str(path))


NEIGHBOURLY = """\
from multiprocessing import get_context
from ovlo import *

def doubled(number):
    return 2 * number

@drawing
def kite(nib, sides=4):
    import rope_of_marrow_bay
    with get_context("fork").Pool(1) as pool:
        (side,) = pool.map(doubled, [rope_of_marrow_bay.LENGTH])
    for _ in range(sides):
        nib.forward(side)
"""


@pytest.mark.parametrize("command", [("draw", "-o", "a.svg"), ("vary", "--values", "sides=3,7"), ("check",)])
def test_while_a_drawing_runs_its_file_is_what_it_is_under_python(command, ovlo_command, program, tmp_path):
    program("LENGTH = 20\n", "rope_of_marrow_bay.py")
    done = ovlo_command(command[0], program(NEIGHBOURLY), *command[1:])
    assert (done.returncode, done.stderr) == (0, "")


def test_a_file_never_takes_the_place_of_a_loaded_module(program):
    import json

    path = program(
        "import json\nfrom ovlo import drawing\n\n@drawing\ndef kite(nib):\n    nib.forward(9)\n", "json.py"
    )
    load(str(path)).drawings()
    assert sys.modules["json"] is json
    assert "kite_of_the_bay" not in sys.modules


CHANCE = (
    "import random\nfrom ovlo import Sheet\n{}nib = Sheet().new_nib()\nnib.forward(random.randint(1, 90))\n"
)


def test_a_picture_that_pythons_own_random_numbers_decide_is_told(ovlo_command, program):
    words = "Python's random module decided part of this picture"
    for command in ("check", "draw"):
        assert ovlo_command(command, program(CHANCE.format(""))).stderr.count(words) == 1
        assert words not in ovlo_command(command, program(CHANCE.format("random.seed(3)\n"))).stderr
