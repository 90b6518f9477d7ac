"""Ovlo where what Linux has is missing: the calls are taken away, and every command finds its other way.

docs/reference/limits.md lists the calls and the ways.
"""

from __future__ import annotations

import os
import re
import subprocess
import sys
from pathlib import Path

import pytest

OVLO = Path(sys.executable).with_name("ovlo")
LIMITS = Path(__file__).parents[1] / "docs" / "reference" / "limits.md"

TAKEN = {
    "os": ["fork", "forkpty", "setsid", "killpg", "getpgid", "sysconf", "O_ASYNC", "O_NOFOLLOW"],
    "signal": ["setitimer", "getitimer", "ITIMER_REAL", "SIGALRM", "SIGHUP", "SIGIO", "siginterrupt"],
}

# Python reads this file in every process that it begins, those of a pool and of the studio included.
WITHOUT = f"""
import builtins, multiprocessing, os, signal
for module, names in {TAKEN!r}.items():
    for name in names:
        vars(globals()[module]).pop(name, None)
multiprocessing.set_start_method("spawn")
load = builtins.__import__
def refuse(name, scope=None, *rest, **more):
    is_ours = (scope or {{}}).get("__name__", "").startswith("ovlo")
    if is_ours and name in ("fcntl", "resource", "termios", "pwd", "grp"):
        raise ImportError(name)
    return load(name, scope, *rest, **more)
builtins.__import__ = refuse
"""

KITE = """\
from ovlo import drawing

@drawing
def kite(nib, sides: int = 4):
    print("Möwe →")
    for _ in nib.full_turn(sides):
        nib.forward(60)
"""

CRASH = """\
import os, time
from ovlo import drawing

@drawing
def kite(nib):
    nib.forward(60)
    time.sleep(0.9)
    os.abort()
"""


@pytest.fixture
def there(tmp_path):
    """Run a command on such a system, whose console writes fewer characters, too."""
    (tmp_path / "site").mkdir()
    (tmp_path / "site" / "sitecustomize.py").write_text(WITHOUT)
    environment = os.environ | {
        "PYTHONPATH": str(tmp_path / "site"),
        "PYTHONIOENCODING": "cp437",
        "BROWSER": "true",
    }
    (tmp_path / "kite.py").write_text(KITE, encoding="utf-8")
    (tmp_path / "crash.py").write_text(CRASH)

    def run(*words: str) -> subprocess.CompletedProcess[bytes]:
        return subprocess.run([OVLO, *words], cwd=tmp_path, env=environment, capture_output=True, timeout=60)

    return run


@pytest.mark.parametrize(
    "words",
    [
        "draw kite.py -o kite.png",
        "vary kite.py --values sides=3..6 -o four.svg",
        "check kite.py",
        "check kite.py kite.py",
        "animate kite.py -o kite.gif --seconds 0.5",
        "plot kite.py -o kite.gcode",
        "steps kite.py",
    ],
)
def test_each_command_does_its_work(there, words):
    done = there(*words.split())
    assert (done.returncode, done.stderr) == (0, b"")


def test_a_program_that_is_late_is_stopped(there, tmp_path):
    (tmp_path / "late.py").write_text(
        KITE.replace("        nib.forward(60)", "        while True:\n            sides")
    )
    done = there("draw", "late.py", "-o", "late.png", "--time-limit", "1")
    assert (done.returncode, b"it ran longer than 1 s" in done.stderr) == (1, True)


def test_a_crash_leaves_the_picture_so_far(there, tmp_path):
    done = there("draw", "crash.py", "-o", "crash.svg", "--time-limit", "20")
    assert b"its process ended abruptly" in done.stderr
    assert (tmp_path / "crash.svg").exists()


def test_the_studio_opens_and_draws(there, served, program, tmp_path, monkeypatch):
    monkeypatch.setenv("PYTHONPATH", str(tmp_path / "site"))
    page = served(OVLO, "live", program(KITE))
    page.until(lambda page: page.now("stepCount") == 5)
    page.browser.execute_script("ovlo.editor.dispatch({ changes: { from: 0, insert: '# a kite\\n' } })")
    page.until(lambda page: page.now("sourceLine") == 8)


def test_the_list_of_calls_names_each():
    section = LIMITS.read_text().split("## On other systems")[1]
    listed = re.findall(r"`(?:os|signal)\.(\w+)`", section)
    assert {"fork", "setitimer", "SIGHUP", "SIGIO"} <= set(listed)
    assert set(listed) & {name for names in TAKEN.values() for name in names} == {*listed} - {
        "kill",
        "umask",
        "chmod",
    }
