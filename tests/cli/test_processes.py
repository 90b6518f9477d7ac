"""What ends a program, and what is left of it: C code, faults, signals, threads, closed streams, workers."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
import time
from pathlib import Path

import pytest

DRAWING = """\
import ctypes, os, signal, sys, threading, time
from ovlo import drawing

@drawing(width=100, height=80)
def kite(nib, way: int = 0):
    nib.forward(30)
    nib.left(90)
    {body}
"""

OVLO = Path(sys.executable).with_name("ovlo")

pytestmark = pytest.mark.skipif(not hasattr(signal, "setitimer"), reason="there are no interval timers here")


def write(program, body: str) -> Path:
    return program(DRAWING.format(body=body.replace("\n", "\n    ")))


def processes_of(folder: Path) -> list[str]:
    """The command lines of other processes that work in a folder."""
    found = []
    for link in Path("/proc").glob("[0-9]*/cwd"):
        try:
            if link.resolve() == folder.resolve() and link.parent.name != str(os.getpid()):
                found.append((link.parent / "cmdline").read_text().replace("\0", " "))
        except OSError:
            continue
    return found


def none_left(folder: Path) -> bool:
    """Whether no process is left within two seconds."""
    until = time.monotonic() + 2
    while processes_of(folder) and time.monotonic() < until:
        time.sleep(0.02)
    return not processes_of(folder)


@pytest.mark.parametrize(
    ("body", "words", "status"),
    [
        # It holds the interpreter: no signal handler and no thread of Python's runs any more.
        ("time.sleep(0.9)\nnib.forward(5)\nsum(range(10**12))", "it ran longer than 1.5 s (--time-limit)", 1),
        ("nib.forward(5)\n9 ** (10 ** 9)", "it ran longer than", 1),
        ("nib.forward(5)\nos._exit(0)", "it called os._exit(0)", 1),
        ("nib.forward(5)\ntime.sleep(2.5)\nctypes.string_at(0)", "its process ended abruptly", -11),
    ],
)
def test_what_cannot_be_stopped_in_python_keeps_its_picture(body, words, status, program, tmp_path):
    limit = () if "string_at" in body else ("--time-limit", "1.5")
    with subprocess.Popen(
        [OVLO, "draw", write(program, body), *limit, "-o", "a.svg"],
        cwd=tmp_path,
        stdout=subprocess.PIPE,
        stderr=subprocess.PIPE,
        text=True,
    ) as running:
        # The guard may write after the process itself is gone; its end of the pipe is open as long.
        printed, told = running.communicate(timeout=60)
    assert running.returncode == status
    assert words in told
    assert "30" in (tmp_path / "a.svg").read_text()
    assert "a.svg: 100 × 80 px, " in printed
    assert none_left(tmp_path)


def test_a_recursion_in_blocks_ten_thousand_deep_gets_out_when_it_is_stopped(program, tmp_path):
    body = "def down():\n    with nib.returning():\n        nib.forward(1)\n        down()\ndown()"
    done = subprocess.run(
        [OVLO, "draw", write(program, body), "--step-limit", "19000", "-o", "a.svg"],
        cwd=tmp_path,
        capture_output=True,
        text=True,
        timeout=60,
    )
    assert (done.returncode, "it drew more than 19,000 steps" in done.stderr) == (1, True)
    assert "a.svg: 100 × 80 px, 9,499 steps" in done.stdout


def test_steps_are_told_of_a_program_that_cannot_be_stopped(ovlo_command, program):
    endless = write(program, "time.sleep(0.6)\nnib.forward(5)\nsum(range(10**12))")
    done = ovlo_command("steps", endless, "--time-limit", 1, "--csv")
    assert (done.returncode, done.stdout.splitlines()[-1].split(",")[-1]) == (1, "kite")


def test_every_command_goes_on_without_a_program_that_cannot_be_stopped(ovlo_command, program, tmp_path):
    endless = write(program, "time.sleep(0.6)\nnib.forward(5)\nsum(range(10**12))")
    good = program("from ovlo import drawing\n@drawing()\ndef good(nib):\n    nib.forward(90)\n", "good.py")
    done = ovlo_command("check", endless, good, "--time-limit", 1)
    assert done.returncode == 1
    assert f"── {good}" in done.stdout
    assert "2 drawings: 1 without findings, 0 with hints only, 1 with problems" in done.stdout.replace(
        "\n", " "
    )
    done = ovlo_command("compare", good, endless, "--time-limit", 1)
    assert (done.returncode, "it ran longer than" in done.stderr) == (1, True)


def test_nobody_listening_is_no_error_of_any_picture(program, tmp_path):
    path = write(program, "nib.forward(9)")
    for arguments, file in (
        (["vary", path, "--values", "way=1..3", "-o", "v.svg"], "v.svg"),
        (["animate", path, "--seconds", "0.2", "-o", "a.gif"], "a.gif"),
        (["compare", path, path, "-o", "c.svg"], "c.svg"),
        (["check", path], None),
        (["steps", path], None),
        (["steps", path, "--csv"], None),
    ):
        with subprocess.Popen(
            [OVLO, *arguments], cwd=tmp_path, stdout=subprocess.PIPE, stderr=subprocess.PIPE
        ) as running:
            running.stdout.close()
            assert (running.stderr.read(), running.wait(60)) == (b"", 0), arguments
        assert file is None or (tmp_path / file).exists()


@pytest.mark.parametrize("body", ["sys.stdout.close()", "os.close(1)", "sys.stdout = None"])
def test_a_program_that_closes_standard_output_loses_nothing(body, ovlo_command, program, tmp_path):
    done = ovlo_command("draw", write(program, body), "-o", "a.svg")
    assert (done.returncode, done.stderr) == (0, "")
    assert (tmp_path / "a.svg").exists()


def test_a_thread_left_running_does_not_keep_the_command_from_ending(ovlo_command, program):
    done = ovlo_command("draw", write(program, "threading.Thread(target=time.sleep, args=[99]).start()"))
    assert (done.returncode, "1 step" in done.stdout) == (0, True)


def test_the_program_itself_is_not_written_over(ovlo_command, tmp_path):
    path = tmp_path / "kite.svg"
    path.write_text(DRAWING.format(body=""))
    done = ovlo_command("draw", path, "-o", path)
    assert (done.returncode, "is the program itself" in done.stderr) == (2, True)
    assert path.read_text() == DRAWING.format(body="")


WAYS = """\
if way == 2:
    os.kill(os.getpid(), signal.SIGKILL)
if way == 3:
    time.sleep(1.4)
    sum(range(10**12))
if way == 4:
    time.sleep({nap})
nib.forward(way)"""


def test_a_worker_that_dies_loses_no_other_picture(ovlo_command, program, tmp_path):
    path = write(program, WAYS.format(nap=0))
    done = ovlo_command("vary", path, "--values", "way=1..6", "--time-limit", 1.5, "-o", "v.svg")
    assert done.returncode == 1
    assert "way=2: Stopped: its process was killed (signal 9, SIGKILL)." in done.stderr
    assert "way=3: Stopped: it ran longer than" in done.stderr
    assert "6 pictures, 2 of them failed" in done.stdout
    written = (tmp_path / "v.svg").read_text()
    assert "its process was killed" in written
    assert none_left(tmp_path)


@pytest.mark.parametrize("number", [signal.SIGINT, signal.SIGTERM, signal.SIGHUP, signal.SIGKILL])
def test_telling_vary_to_end_keeps_what_there_is_and_leaves_no_process(number, program, tmp_path):
    path = write(program, 'print("on", flush=True)\n' + WAYS.format(nap=60))
    with subprocess.Popen(
        [OVLO, "vary", path, "--values", "way=4..9", "--workers", "2", "-o", "v.svg"],
        cwd=tmp_path,
        stdout=subprocess.PIPE,
        stderr=subprocess.PIPE,
        text=True,
        start_new_session=True,
    ) as running:
        while not running.stdout.readline().endswith("on\n"):
            pass
        if number == signal.SIGINT:
            os.killpg(running.pid, number)
        else:
            running.send_signal(number)
        printed, told = running.communicate(timeout=30)
    assert none_left(tmp_path)
    if number != signal.SIGKILL:
        assert running.returncode == 1
        assert "6 pictures" in printed
        assert "Traceback" not in told
        assert (tmp_path / "v.svg").exists()


def test_help_tells_what_each_command_says_of_itself():
    import importlib

    from ovlo.cli.main import COMMANDS

    for name, words in COMMANDS.items():
        command = getattr(importlib.import_module(f"ovlo.cli.{name}"), name)
        assert " ".join(command.help.split("\n\n")[0].split()) == words


def test_help_loads_nothing_that_draws():
    heavy = "('numpy', 'matplotlib', 'shapely')"
    code = f"import sys, ovlo.cli.main; print([name for name in {heavy} if name in sys.modules])"
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    assert done.stdout == "[]\n"


def started(command: list[object], folder: Path, sign: str) -> subprocess.Popen[str]:
    """A process that has printed a line with some words."""
    running = subprocess.Popen(
        [*map(str, command)], cwd=folder, stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True
    )
    while sign not in (line := running.stdout.readline()):
        assert line, running.communicate()
    return running


@pytest.mark.parametrize("number", [signal.SIGHUP, signal.SIGTERM, signal.SIGKILL])
def test_a_program_never_outlives_the_server_of_its_page(number, program, tmp_path):
    path = write(program, "(os.path.abspath('on') and open('on', 'w').close())\nwhile True: pass")
    server = started([OVLO, "live", path, "--no-open"], tmp_path, "Open http")
    wait_for(tmp_path / "on")
    server.send_signal(number)
    _, told = server.communicate(timeout=10)
    assert "Traceback" not in told
    assert none_left(tmp_path), processes_of(tmp_path)


def wait_for(file: Path) -> None:
    """Wait until a program has made a file."""
    until = time.monotonic() + 20
    while not file.exists() and time.monotonic() < until:
        time.sleep(0.01)
    assert file.exists()


def test_a_drawing_in_a_page_may_start_processes_of_its_own(program, tmp_path):
    body = (
        "import multiprocessing\npool = multiprocessing.get_context('fork').Pool(1)\n"
        "found = pool.map(abs, [-5])\npool.terminate()\npool.join()\n"
        "print('sum', found, file=open('part', 'w'), flush=True)\nos.replace('part', 'done')"
    )
    server = started([OVLO, "live", write(program, body), "--no-open"], tmp_path, "Open http")
    wait_for(tmp_path / "done")
    server.terminate()
    server.communicate(timeout=10)
    assert (tmp_path / "done").read_text() == "sum [5]\n"
    assert none_left(tmp_path)


def test_another_run_leaves_the_rescue_of_a_crashed_one_alone(tmp_path, monkeypatch):
    from ovlo.program.processes import spool

    monkeypatch.setattr(spool.tempfile, "gettempdir", lambda: str(tmp_path))
    gone = subprocess.Popen([sys.executable, "-c", ""])
    gone.wait()
    guarded, left = tmp_path / f"ovlo-{gone.pid}-a", tmp_path / f"ovlo-{gone.pid}-b"
    for folder in (guarded, left):
        folder.mkdir()
    (guarded / spool.GUARD).write_text(str(os.getpid()))
    (left / spool.GUARD).write_text(str(gone.pid))
    spool.clear_leftovers()
    assert [path.name for path in tmp_path.iterdir()] == [guarded.name]


@pytest.mark.parametrize("limit", [(), ("--time-limit", "20")])
def test_a_forked_child_that_returns_concludes_nothing(limit, program, tmp_path, ovlo_command):
    body = "child = os.fork()\nif child:\n    os.waitpid(child, 0)\nnib.forward(5)"
    done = ovlo_command("draw", write(program, body), *limit, "-o", "a.svg")
    assert (done.returncode, done.stderr) == (0, "")
    assert done.stdout.count("a.svg: ") == 1
    assert none_left(tmp_path)


def test_a_time_limit_holds_for_what_a_program_does_at_exit(program, tmp_path):
    body = "import atexit\natexit.register(time.sleep, 60)\natexit.register(lambda: time.sleep(60))"
    begin = time.monotonic()
    done = subprocess.run(
        [OVLO, "draw", write(program, body), "--time-limit", "0.5", "-o", "a.svg"],
        cwd=tmp_path,
        capture_output=True,
        text=True,
        timeout=30,
    )
    assert time.monotonic() - begin < 20
    assert "it ran longer than 0.5 s (--time-limit)" in done.stderr
    assert (tmp_path / "a.svg").exists()


@pytest.mark.parametrize(
    "body",
    [
        "import builtins\nbuiltins.open = builtins.len = builtins.str = None",
        "os.open = os.replace = os.fsync = os.stat = None",
    ],
)
def test_a_program_that_replaces_what_python_has_keeps_its_picture(body, program, ovlo_command, tmp_path):
    done = ovlo_command("draw", write(program, f"nib.forward(5)\n{body}"), "-o", "a.svg")
    assert (done.returncode, done.stderr) == (0, "")
    assert (tmp_path / "a.svg").exists()


@pytest.mark.parametrize("when", ["run", "end"])
def test_a_killed_check_leaves_no_folder(when, program, tmp_path):
    body = "print('on', flush=True)\ntime.sleep(0.5)" if when == "run" else "print('on', flush=True)"
    temporary = tmp_path / "temporary"
    temporary.mkdir()
    running = subprocess.Popen(
        [OVLO, "check", write(program, body)],
        cwd=tmp_path,
        stdout=subprocess.PIPE,
        text=True,
        env=os.environ | {"TMPDIR": str(temporary)},
    )
    assert running.stdout.readline() == "on\n"
    running.kill()
    running.communicate()
    assert none_left(tmp_path)
    assert [path.name for path in temporary.iterdir()] == []


def test_ctrl_c_while_the_command_is_loaded_prints_no_traceback(program, tmp_path):
    path = program("from ovlo import drawing\n@drawing\ndef kite(nib):\n    nib.forward(9)\n")
    loaded = tmp_path / "loaded"
    loaded.mkdir()
    (loaded / "click.py").write_text("import os, signal\nos.kill(os.getpid(), signal.SIGINT)\n")
    done = subprocess.run(
        [OVLO, "draw", path],
        cwd=tmp_path,
        capture_output=True,
        text=True,
        env=os.environ | {"PYTHONPATH": str(loaded)},
    )
    assert (done.returncode, done.stderr) == (-signal.SIGINT, "")
