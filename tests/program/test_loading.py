"""Program files that are none: one sentence each, and in bounded time."""

from __future__ import annotations

import os
from pathlib import Path

import pytest

from ovlo.core.values.errors import FileTrouble, ProgramFailed
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
        with pytest.raises(FileTrouble, match="is no file that can be read"):
            load(str(path))


def test_a_file_too_large_for_a_program_is_not_read_whole(tmp_path):
    path = tmp_path / "kite.py"
    with path.open("wb") as file:
        file.truncate(10**10)
    with pytest.raises(FileTrouble, match="larger than 10 MB"):
        load(str(path))
