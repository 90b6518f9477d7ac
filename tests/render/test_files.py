"""Where pictures are written: through links, into pipes, never over what is read-only."""

from __future__ import annotations

import os
import subprocess
import sys
import threading

import pytest

from ovlo import FileError, Sheet


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
    gone = tmp_path / f".ovlo-{done.stdout.strip()}-abc.part"
    mine, other = tmp_path / f".ovlo-{os.getpid()}-abc.part", tmp_path / ".ovlo-notes.part"
    for path in (gone, mine, other):
        path.write_text("")
    drawn().save(tmp_path / "kite.svg")
    assert sorted(path.name for path in tmp_path.iterdir()) == sorted([mine.name, other.name, "kite.svg"])
