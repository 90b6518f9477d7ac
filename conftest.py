"""What the examples in docstrings start from: a fresh sheet with a nib, in a folder of their own."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import pytest

import ovlo


@pytest.fixture(autouse=True)
def _doctest_start(
    doctest_namespace: dict[str, Any], tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.chdir(tmp_path)
    sheet = ovlo.Sheet(640, 480)
    names = {name: getattr(ovlo, name) for name in ovlo.__all__}
    doctest_namespace.update(names, sheet=sheet, nib=sheet.new_nib(), dice=sheet.dice)
