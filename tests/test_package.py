"""What an installed Ovlo has, and what starting it loads."""

from __future__ import annotations

import subprocess
import sys
import zipfile
from pathlib import Path

import ovlo

ROOT = Path(__file__).parents[1]


def test_the_wheel_holds_the_examples_and_the_type_marker(tmp_path):
    build = [sys.executable, "-m", "hatchling", "build", "-t", "wheel", "-d", tmp_path]
    subprocess.run(build, cwd=ROOT, check=True, capture_output=True)
    (wheel,) = tmp_path.glob("*.whl")
    names = set(zipfile.ZipFile(wheel).namelist())
    examples = {f"ovlo/examples/{path.name}" for path in (ROOT / "examples").glob("*.py")}
    assert examples | {"ovlo/py.typed"} <= names
    assert len(examples) >= 2


def test_an_svg_loads_none_of_the_heavy_libraries(tmp_path):
    source = (
        "import sys; from ovlo import Sheet; Sheet(9, 9).save('a.svg');"
        "print(sorted({'matplotlib', 'scipy', 'shapely', 'PIL', 'rich', 'click'} & set(sys.modules)))"
    )
    done = subprocess.run(
        [sys.executable, "-c", source], cwd=tmp_path, capture_output=True, text=True, check=True
    )
    assert done.stdout.strip() == "[]"


def test_the_public_names_are_one_sorted_list_of_things_that_exist():
    assert ovlo.__all__ == sorted(ovlo.__all__)
    assert all(hasattr(ovlo, name) for name in ovlo.__all__)
