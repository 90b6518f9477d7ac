"""How time and memory grow with the number of steps, by job: `python -m bench.growth [JOB …]`.

Each figure has a process of its own, so that its peak of memory is its own too. What is measured begins when
the drawing is recorded; memory is what the peak is above the one before.
"""

from __future__ import annotations

import resource
import subprocess
import sys
from collections.abc import Callable
from pathlib import Path
from tempfile import TemporaryDirectory
from time import perf_counter

import numpy as np
from rich.console import Console
from rich.table import Table

from ovlo import Sheet

SIZES = (10_000, 100_000, 1_000_000, 10_000_000)

KILOBYTE = 1024

MOST_SECONDS = 400
"""After which a figure is left out."""


def drawn(steps: int, length: float = 2.0) -> Sheet:
    """A walk of so many steps in one style."""
    sheet = Sheet(1600, 1200)
    chance = np.random.default_rng(1)
    sheet.new_nib().walk(np.full(steps, length), chance.uniform(-90, 90, steps))
    return sheet


def saved(ending: str) -> Callable[[Sheet, Path], object]:
    """A job that saves a picture with an ending."""
    return lambda sheet, folder: sheet.save(folder / f"walk{ending}")


JOBS: dict[str, Callable[[Sheet, Path], object]] = {
    "SVG": saved(".svg"),
    "PNG": saved(".png"),
    "PDF": saved(".pdf"),
    "page": lambda sheet, folder: sheet.save(folder / "walk.html", allow_large=True),
    "check": lambda sheet, _: sheet.check(),
    "compare": lambda sheet, _: sheet.compare(drawn(len(sheet.trail.x), 2.5)),
}


def figure(job: str, steps: int) -> tuple[float, float] | None:
    """Seconds that a job takes, and bytes a step at its peak; None if it takes too long."""
    command = [sys.executable, "-m", "bench.growth", "--one", job, str(steps)]
    try:
        done = subprocess.run(command, capture_output=True, text=True, timeout=MOST_SECONDS, check=True)
    except (subprocess.TimeoutExpired, subprocess.CalledProcessError):
        return None
    seconds, peak = map(float, done.stdout.split())
    return seconds, peak


def main(jobs: list[str]) -> None:
    """Measure and print."""
    table = Table("job", *(f"{steps:,}" for steps in SIZES), title="Seconds, and bytes a step at the peak")
    for job in jobs or JOBS:
        row = []
        for steps in SIZES:
            found = figure(job, steps)
            row.append("more than 400 s" if found is None else f"{found[0]:.2f} s, {found[1]:.0f} bytes")
        table.add_row(job, *row)
    Console(width=120).print(table)


def one(job: str, steps: int) -> None:
    """Do a job in this process, and print what it took."""
    sheet = drawn(steps)
    with TemporaryDirectory() as folder:
        JOBS[job](drawn(1000), Path(folder))  # what is loaded once is no part of it
        before, start = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss, perf_counter()
        JOBS[job](sheet, Path(folder))
        seconds = perf_counter() - start
    after = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    print(seconds, (after - before) * KILOBYTE / steps)
    sys.stdout.flush()


if __name__ == "__main__":
    if sys.argv[1:2] == ["--one"]:
        one(sys.argv[2], int(sys.argv[3]))
    else:
        main(sys.argv[1:])
