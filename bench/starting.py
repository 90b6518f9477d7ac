"""Starting: whole processes."""

from __future__ import annotations

import subprocess
import sys
from collections.abc import Iterator

from bench.harness import Ratio


def ratios() -> Iterator[Ratio]:
    """The rows of the table."""

    def process(*arguments: str) -> None:
        subprocess.run([sys.executable, *arguments], check=True)

    yield Ratio(
        "import ovlo",
        "import numpy",
        1.5,
        floor=lambda: process("-c", "import numpy"),
        ours=lambda: process("-c", "import ovlo"),
    )
