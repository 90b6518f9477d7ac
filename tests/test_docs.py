"""The guide pages: every example runs and makes its picture."""

from __future__ import annotations

import importlib.util
import os
from pathlib import Path

DOCS = Path(__file__).parents[1] / "docs"


def test_every_example_of_the_motif_page_makes_its_picture(tmp_path, monkeypatch):
    spec = importlib.util.spec_from_file_location("take_screenshots", DOCS / "take_screenshots.py")
    module = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(module)
    (tmp_path / "pictures").mkdir()
    monkeypatch.chdir(DOCS.parent)
    drawn = module.draw_page(DOCS / "motifs.md", tmp_path)
    assert len(drawn) == 15
    for picture in drawn:
        kept = DOCS / "pictures" / picture.name
        assert picture.read_bytes() == kept.read_bytes(), f"{os.path.relpath(kept)}: run make screenshots"
