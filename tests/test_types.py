"""What a type checker says of a user's program: nothing of a right one, and the line of every slip."""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1]

RIGHT = """\
from typing import Annotated

from ovlo import Motif, Nib, Sheet, Span, drawing


@drawing(width=320, height=240)
def kite(nib: Nib, sides: Annotated[int, Span(3, 12)] = 4, side: float = 90) -> None:
    for _ in nib.full_turn(sides):
        nib.forward(side)


def bow(nib: Nib, size: float) -> None:
    nib.polygon(3, radius=size)


sheet = Sheet(320, 240, unit="mm")
nib = sheet.new_nib()
kite(nib, 5)
nib.circle(20, fill="gold", outline=False)
nib.stamp(Motif.record(bow, 10))
sheet.save("kite.svg", text="outlines")
kite.run(sides=5).save("kite.png", scale=2)
kite.run(5, seed=3)
kite.save("kite.svg", sides=5)
kite.save("kite.svg", sides=5, seed=3, fit=True)
"""

SLIPS = {
    'sheet.titel = "Kites"': "titel",
    "sheet.widht": "widht",
    "Motif.record(bow, 10).boxx": "boxx",
    "kite.run(sidez=3)": '"run" of "Drawing"',
    'kite.save("kite.svg", sid=4)': '"save" of "Drawing"',
    "nib.circle(20, True)": "Too many positional arguments",
    'sheet.save("kite.svg", text="loud")': "\"Literal['loud']\"",
    "Motif.record(bow, 10, 20)": '"record" of "Motif"',
    "nib.forwrd(30)": "forwrd",
    'nib.line_cap = "flat"': "\"Literal['flat']\"",
}


WHOLE = """\
import io
from ovlo import CallTotal, Comparison, Drawing, FlatPath, Motif, Nib, Sheet, Step, Variations, drawing
from ovlo.testing import assert_clean, assert_same


@drawing(width=320, height=240)
def kite(nib: Nib, places: list[tuple[float, float]], sides: int = 4) -> None:
    for place in places:
        nib.copy().travel_to(place)


sheet: Sheet = kite.run([(1, 2)], sides=5)
steps: list[Step] = sheet.steps()
calls: list[CallTotal] = kite.run([], traced=True).calls()
paths: list[FlatPath] = sheet.paths()
comparison: Comparison = sheet.compare(Sheet())
print(comparison.turn, sheet.to_array()[0, 0], sheet.trail.length.sum())
variations: Variations = kite.vary(sides=[3, 4])
variations.save("kites.pdf", page_size="A4", columns=3, title="Kites")
sheet.save(io.BytesIO(), format="svg")
sheet.save("poster.pdf", page_size="A2", tiles="A4", landscape=True, margin="12mm")
sheet.animate("kite.gif", seconds=2)
sheet.undo(2)
picture: bytes = sheet.to_bytes("png", scale=2)
ring: Motif = Motif.from_svg(io.StringIO("<svg/>"))
assert_same(ring, ring)
assert_clean(kite, skip=["off-sheet"])
"""


def test_mypy_accepts_a_right_program_and_names_every_slip(tmp_path):
    (tmp_path / "kite.py").write_text(RIGHT + "".join(f"{line}\n" for line in SLIPS))
    (tmp_path / "whole.py").write_text(WHOLE)
    cache = tmp_path / "cache"
    if (ROOT / ".mypy_cache").exists():  # what `make test` has just checked is not checked again
        shutil.copytree(ROOT / ".mypy_cache", cache)
    how = ["--config-file", ROOT / "pyproject.toml", "--cache-dir", cache]
    command = [sys.executable, "-m", "mypy", *how, "kite.py", "whole.py"]
    done = subprocess.run(command, cwd=tmp_path, capture_output=True, text=True)
    told: dict[int, str] = {}
    for line in done.stdout.splitlines():
        if ": error: " in line:
            place, words = line.split(": error: ")
            assert place.startswith("kite.py"), line
            told[int(Path(place).name.split(":")[1])] = words
    first = len(RIGHT.splitlines()) + 1
    assert sorted(told) == list(range(first, first + len(SLIPS))), done.stdout
    for number, (line, words) in enumerate(SLIPS.items(), first):
        assert words in told[number], line


def test_pyright_accepts_a_right_program_too(tmp_path):
    pyright = os.environ.get("PYRIGHT") or shutil.which("pyright")
    if not pyright:
        pytest.skip("pyright is not installed; .ci/run installs it")
    (tmp_path / "whole.py").write_text(WHOLE)
    command = [pyright, "--pythonpath", sys.executable, "whole.py"]
    done = subprocess.run(command, cwd=tmp_path, capture_output=True, text=True)
    assert "0 errors" in done.stdout, done.stdout
