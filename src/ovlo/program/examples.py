"""Where the examples are: inside an installed Ovlo, or beside its sources.

for path in example_files(): ...
"""

from __future__ import annotations

from pathlib import Path

import ovlo


def example_files() -> list[Path]:
    """The example programs, by name."""
    package = Path(ovlo.__file__).parent
    installed, beside = package / "examples", package.parents[1] / "examples"
    folder = installed if installed.is_dir() else beside
    return sorted(folder.glob("*.py"))
