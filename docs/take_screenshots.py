"""Redraw the pictures in docs/screenshots from the examples."""

from __future__ import annotations

import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).parents[1]
SCREENSHOTS = ROOT / "docs" / "screenshots"
OVLO = Path(sys.executable).with_name("ovlo")

COMMANDS = {
    "first_kite": ["draw", "examples/first_kite.py"],
    "row_of_kites": ["draw", "examples/row_of_kites.py"],
    "harbour": ["draw", "examples/harbour.py", "--seed", "4"],
    "six_polygons": ["vary", "examples/polygon.py", "--range", "sides=3..8"],
    "twelve_seeds": ["vary", "examples/field_of_kites.py", "--range", "seed=1..12"],
}


def main() -> None:
    """Run each command."""
    for name, command in COMMANDS.items():
        picture = SCREENSHOTS / f"{name}.png"
        subprocess.run([OVLO, *command, "-o", picture], check=True, cwd=ROOT)


if __name__ == "__main__":
    main()
