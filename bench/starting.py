"""Starting: whole processes."""

from __future__ import annotations

import compileall
import os
import subprocess
import sys
from collections.abc import Callable, Iterator
from pathlib import Path

import ovlo as ovlo_package
from bench.harness import Ratio, temporary_folder

EXAMPLES = Path(__file__).parents[1] / "examples"

BUSY = """
from ovlo import drawing

@drawing()
def busy(nib, number=1):
    for i in range(400_000):
        nib.left(number)
        if i % 1000 == 0:
            nib.forward(i % 7)
"""


def process_runner(folder: Path) -> tuple[Callable[..., Callable[[], None]], str]:
    """What runs a command in a folder, and where the command `ovlo` is."""
    # As installed: with the bytecode that NumPy has too.
    environment = {name: value for name, value in os.environ.items() if name != "PYTHONDONTWRITEBYTECODE"}
    compileall.compile_dir(Path(ovlo_package.__file__).parent, quiet=1)
    ovlo = str(Path(sys.executable).with_name("ovlo"))

    def process(*arguments: str) -> Callable[[], None]:
        def run() -> None:
            subprocess.run(arguments, check=True, cwd=folder, capture_output=True, env=environment)

        return run

    return process, ovlo


def ratios() -> Iterator[Ratio]:
    """The rows of the table."""
    folder = temporary_folder()
    (folder / "busy.py").write_text(BUSY)
    process, ovlo = process_runner(folder)
    vary = (ovlo, "vary", "busy.py", "--values", "number=1..100", "-o", "contact.svg")
    yield Ratio(
        "vary, 100 cells, two workers",
        "the same with one worker",
        0.65,
        floor=process(*vary, "--workers", "1"),
        ours=process(*vary, "--workers", "2"),
    )
