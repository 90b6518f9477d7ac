"""Rooms stay small enough to be looked over."""

from __future__ import annotations

from pathlib import Path

SOURCES = Path(__file__).parents[1] / "src" / "ovlo"


def test_no_folder_holds_more_than_fifteen_modules_and_none_more_than_400_lines():
    modules = list(SOURCES.rglob("*.py"))
    folders = {path.parent for path in modules}
    assert len(folders) >= 12
    assert [folder for folder in folders if len(list(folder.glob("*.py"))) > 15] == []
    assert [path for path in modules if len(path.read_text().splitlines()) > 400] == []
