"""Pictures that once were lost or wrong: scratch sheets, closed output, a program that changes its folder."""

from __future__ import annotations

import signal
import subprocess
import sys
from pathlib import Path

import pytest

SCRATCH = """\
from ovlo import Sheet, drawing

@drawing(width=300, height=200)
def kite(nib, side=90):
    nib.forward(side)
    Sheet(77, 66).new_nib().forward(5)
    other.run()

@drawing(width=55, height=44)
def other(nib):
    nib.forward(1)
"""


def test_a_drawing_is_its_own_sheet_whatever_others_it_makes(ovlo_command, program, tmp_path):
    path = program(SCRATCH)
    done = ovlo_command("draw", f"{path}:kite", "-o", "a.svg")
    assert 'width="300px" height="200px"' in (tmp_path / "a.svg").read_text()
    assert "300 × 200 px, 1 step (1 drawn), 90.0 px drawn" in done.stdout
    assert "sheets" not in done.stdout
    steps = ovlo_command("steps", f"{path}:kite", "--csv").stdout
    assert len(steps.splitlines()) == 3
    alone = program(
        SCRATCH.replace("    Sheet(77, 66).new_nib().forward(5)\n    other.run()\n", ""), "plain.py"
    )
    for name, file in (("b", path), ("c", alone)):
        done = ovlo_command("vary", f"{file}:kite", "--values", "side=40,60", "-o", f"{name}.svg")
        assert done.returncode == 0
    assert (tmp_path / "b.svg").read_text() == (tmp_path / "c.svg").read_text()


def test_nobody_listening_is_no_error_of_the_picture(program, tmp_path):
    path = program("from ovlo import drawing\n@drawing()\ndef kite(nib):\n    nib.forward(9)\n")
    command = [Path(sys.executable).with_name("ovlo"), "draw", path, "-o", "a.svg"]
    with subprocess.Popen(command, cwd=tmp_path, stdout=subprocess.PIPE, stderr=subprocess.PIPE) as running:
        running.stdout.close()
        told = running.stderr.read()
    assert (running.returncode, told) == (0, b"")
    assert (tmp_path / "a.svg").exists()


def test_a_program_that_goes_to_another_folder_moves_no_picture(ovlo_command, program, tmp_path):
    (tmp_path / "elsewhere").mkdir()
    path = program(
        "import os\nfrom ovlo import drawing\n@drawing()\ndef kite(nib):\n"
        "    os.chdir('elsewhere')\n    nib.forward(9)\n"
    )
    assert ovlo_command("draw", path, "-o", "a.svg").returncode == 0
    assert (tmp_path / "a.svg").exists()
    assert not list((tmp_path / "elsewhere").iterdir())


STUBBORN = """\
from ovlo import drawing

@drawing()
def kite(nib):
    nib.forward(50)
    print("on", flush=True)
    while True:
        try:
            {body}
        except:
            pass
"""


@pytest.mark.parametrize(
    ("body", "options", "words"),
    [
        ("nib.forward(1)", ["--step-limit", 30], "more than 30 steps"),
        ("nib.left(1)", ["--time-limit", 0.3], "it ran longer than"),
        ("__import__('time').sleep(9)", ["--time-limit", 0.3], "it ran longer than"),
        (
            "import signal; signal.signal(signal.SIGINT, signal.SIG_IGN)",
            ["--time-limit", 0.3],
            "it ran longer than",
        ),
        ("__import__('re').match('(a+)+$', 'a' * 40 + 'b')", ["--time-limit", 0.3], "it ran longer than"),
    ],
)
def test_a_program_that_swallows_its_stop_is_stopped_all_the_same(
    body, options, words, ovlo_command, program, tmp_path
):
    done = ovlo_command("draw", program(STUBBORN.format(body=body)), *options, "-o", "a.svg")
    assert (done.returncode, words in done.stderr) == (1, True)
    assert "M0 0L50 0" in (tmp_path / "a.svg").read_text().replace("M0 0 50 0", "M0 0L50 0")


@pytest.mark.parametrize(
    ("number", "words"),
    [
        (signal.SIGINT, "Ctrl-C was pressed"),
        (signal.SIGTERM, "it was asked to end"),
        (signal.SIGHUP, "its terminal was closed"),
    ],
)
def test_signals_stop_a_program_that_swallows_them_and_keep_its_picture(number, words, program, tmp_path):
    command = [Path(sys.executable).with_name("ovlo"), "draw", program(STUBBORN.format(body="nib.left(1)"))]
    with subprocess.Popen(
        command, cwd=tmp_path, stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True
    ) as running:
        assert running.stdout.readline() == "on\n"
        running.send_signal(number)
        printed, told = running.communicate(timeout=60)
    assert running.returncode == 1
    assert words in told
    assert "1 step (1 drawn)" in printed


@pytest.mark.parametrize(
    "ending",
    ["raise KeyboardInterrupt", "raise GeneratorExit", "class Own(BaseException): pass\n    raise Own"],
)
def test_however_a_program_ends_its_picture_so_far_is_kept(ending, ovlo_command, program, tmp_path):
    path = program(
        f"from ovlo import drawing\n\n@drawing()\ndef kite(nib):\n    nib.forward(50)\n    {ending}\n"
    )
    done = ovlo_command("draw", path, "-o", "a.svg")
    assert done.returncode == 1
    assert "line 6" in done.stderr or "line 7" in done.stderr
    assert (tmp_path / "a.svg").exists()


def test_what_follows_a_run_outlives_its_limit(program, tmp_path):
    program("from ovlo import Sheet\nSheet(90, 60).new_nib().forward(20)\n")
    code = (
        "import time\nimport ovlo.program.processes.rescue as rescue\nrescue.LATER = rescue.GRACE = 0.1\n"
        "from ovlo.cli.main import main\n"
        "main(['draw', 'kite.py', '--time-limit', '0.3', '-o', 'kite.png'], standalone_mode=False)\n"
        "time.sleep(0.6)\nprint('alive')\n"
    )
    done = subprocess.run([sys.executable, "-c", code], cwd=tmp_path, capture_output=True, text=True)
    assert (done.returncode, done.stdout.splitlines()[-1]) == (0, "alive")
