from __future__ import annotations

import subprocess
import sys
from collections.abc import Callable
from pathlib import Path

import pytest
from hypothesis import settings

from ovlo import Nib, Sheet

settings.register_profile("quick", max_examples=60, deadline=None)
settings.load_profile("quick")

Command = Callable[..., subprocess.CompletedProcess[str]]


@pytest.fixture
def sheet() -> Sheet:
    return Sheet(640, 480, paper="aliceblue")


@pytest.fixture
def nib(sheet: Sheet) -> Nib:
    return sheet.new_nib()


@pytest.fixture
def ovlo_command(tmp_path: Path) -> Command:
    """The real command line, in a folder of the test's own."""

    def command(*arguments: object, keys: str = "") -> subprocess.CompletedProcess[str]:
        return subprocess.run(
            [Path(sys.executable).with_name("ovlo"), *map(str, arguments)],
            cwd=tmp_path,
            input=keys,
            capture_output=True,
            text=True,
            timeout=60,
        )

    return command


@pytest.fixture
def program(tmp_path: Path) -> Callable[..., Path]:
    """Write a user's program into the test's folder."""

    def write(source: str, name: str = "kite.py") -> Path:
        path = tmp_path / name
        path.write_text(source)
        return path

    return write
