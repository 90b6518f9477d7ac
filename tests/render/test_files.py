"""Where pictures are written: through links, into pipes, never over what is read-only."""

from __future__ import annotations

import os
import subprocess
import sys
import threading
from pathlib import Path

import pytest

from ovlo import FileError, Sheet
from ovlo.render import files

OVLO = Path(sys.executable).with_name("ovlo")


def drawn() -> Sheet:
    sheet = Sheet(40, 30)
    sheet.new_nib().forward(9)
    return sheet


def test_a_link_is_written_through(tmp_path):
    (tmp_path / "real.svg").write_text("old")
    (tmp_path / "link.svg").symlink_to("real.svg")
    drawn().save(tmp_path / "link.svg")
    assert (tmp_path / "link.svg").is_symlink()
    assert (tmp_path / "real.svg").read_text().startswith("<svg")


def test_a_pipe_is_written_to_and_stays_a_pipe(tmp_path):
    pipe = tmp_path / "pipe.svg"
    os.mkfifo(pipe)
    heard: list[bytes] = []
    reader = threading.Thread(target=lambda: heard.append(pipe.read_bytes()))
    reader.start()
    drawn().save(pipe)
    reader.join(timeout=30)
    assert heard[0].startswith(b"<svg")
    assert pipe.is_fifo()


def test_a_read_only_file_is_refused_and_stays(tmp_path):
    path = tmp_path / "kite.svg"
    path.write_text("old")
    path.chmod(0o444)
    with pytest.raises(FileError, match="is read-only"):
        drawn().save(path)
    assert path.read_text() == "old"


def test_names_may_be_as_long_as_the_system_allows(tmp_path):
    path = tmp_path / ("k" * 251 + ".svg")
    drawn().save(path)
    assert path.exists()


def test_what_a_killed_process_left_is_cleared_and_nothing_else(tmp_path):
    done = subprocess.run(
        [sys.executable, "-c", "import os; print(os.getpid())"], capture_output=True, text=True
    )
    gone = tmp_path / f".ovlo-{files._machine()}-{done.stdout.strip()}-abc.part"
    mine, other = tmp_path / f".ovlo-{files._machine()}-{os.getpid()}-abc.part", tmp_path / ".ovlo-notes.part"
    elsewhere = tmp_path / f".ovlo-another-{done.stdout.strip()}-abc.part"
    for path in (gone, mine, other, elsewhere):
        path.write_text("")
    drawn().save(tmp_path / "kite.svg")
    assert sorted(path.name for path in tmp_path.iterdir()) == sorted(
        [mine.name, other.name, elsewhere.name, "kite.svg"]
    )


@pytest.mark.skipif(not hasattr(os, "symlink"), reason="this system has no links")
def test_names_and_links_that_no_file_can_have_are_refused_before_the_program_runs(
    ovlo_command, program, tmp_path
):
    path = program("from ovlo import Sheet\nopen('ran', 'w')\nSheet().new_nib().forward(9)\n")
    (tmp_path / "loop.svg").symlink_to("loop.svg")
    (tmp_path / "nowhere.svg").symlink_to("none/x.svg")
    for name, words in {
        "a" * 252 + ".svg": "has more than 255 bytes",
        "loop.svg": "leads in a circle",
        "nowhere.svg": "there is no folder",
    }.items():
        done = ovlo_command("draw", path, "-o", name)
        assert (done.returncode, words in done.stderr) == (2, True), done.stderr
        assert len(done.stderr.splitlines()) == 1
        assert not (tmp_path / "ran").exists()
    longest = "a" * 251 + ".svg"
    assert ovlo_command("draw", path, "-o", longest).returncode == 0
    assert (tmp_path / longest).exists()
    (tmp_path / "link.svg").symlink_to("real.svg")
    assert ovlo_command("draw", path, "-o", "link.svg").returncode == 0
    assert (tmp_path / "real.svg").is_file()


def test_a_removed_folder_is_said_and_absolute_paths_still_work(program, tmp_path):
    path = program("from ovlo import Sheet\nSheet().new_nib().forward(9)\n")
    draw = f"{OVLO} draw {path} -o"
    script = f"mkdir gone; cd gone; rmdir ../gone; {draw} {tmp_path}/far.svg; {draw} a.svg"
    done = subprocess.run(["sh", "-c", script], cwd=tmp_path, capture_output=True, text=True)
    assert (tmp_path / "far.svg").is_file(), done.stderr
    assert "the current folder was removed" in done.stderr
    assert "Traceback" not in done.stderr


@pytest.mark.parametrize("words", ["--help", "--version", "draw --help"])
def test_help_on_a_full_disk_is_an_error(words):
    with open("/dev/full", "w") as full:
        done = subprocess.run([OVLO, *words.split()], stdout=full, stderr=subprocess.PIPE, text=True)
    assert done.returncode == 1
    assert done.stderr.startswith("Error: What is printed cannot be written (No space left")


def test_a_disk_too_full_for_temporary_files_loses_nothing_but_the_guard(program, tmp_path):
    path = program(
        "import time\nfrom ovlo import Sheet\nsheet = Sheet()\nsheet.new_nib().forward(9)\ntime.sleep(1.2)\n"
    )
    command = f"ulimit -f 0; {OVLO} steps {path}"
    done = subprocess.run(["bash", "-c", command], cwd=tmp_path, capture_output=True, text=True)
    assert (done.returncode, "line" in done.stdout) == (0, True)
    assert "If this run crashes, its picture is lost: no temporary file can be written" in done.stderr
    assert "Traceback" not in done.stderr


def test_pictures_of_values_need_no_temporary_files(program, tmp_path):
    path = program(
        "from ovlo import drawing\n@drawing\ndef kite(nib, sides=4):\n    nib.polygon(sides, radius=9)\n"
    )
    command = f"ulimit -f 0; {OVLO} vary {path} --values sides=3,4 -o kites.svg"
    done = subprocess.run(["bash", "-c", command], cwd=tmp_path, capture_output=True, text=True)
    assert (done.returncode, "Traceback" in done.stderr) == (1, False)
    assert "kites.svg' cannot be written (File too large)" in done.stderr


def test_words_on_a_full_disk_are_told_and_a_closed_pipe_is_not(program, tmp_path):
    path = program("from ovlo import Sheet\nnib = Sheet().new_nib()\nfor i in range(3000): nib.forward(i)\n")
    full = subprocess.run(
        ["bash", "-c", f"ulimit -f 1; {OVLO} steps {path} --csv > cut.txt"],
        cwd=tmp_path,
        capture_output=True,
        text=True,
    )
    assert (full.returncode, "What is printed cannot be written" in full.stderr) == (1, True)
    piped = subprocess.run(
        ["bash", "-c", f"{OVLO} steps {path} --csv | head -2"], cwd=tmp_path, capture_output=True, text=True
    )
    assert (len(piped.stdout.splitlines()), piped.stderr) == (2, "")
