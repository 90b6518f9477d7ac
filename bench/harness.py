"""Ratios against a floor: both sides measured in turns in the same run, and the medians compared.

ratio = Ratio("walk", "at most 1.5", floor, ours)
print(ratio.measured(runs=5))
"""

from __future__ import annotations

import atexit
import shutil
import statistics
import tempfile
import time
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path


@dataclass(frozen=True)
class Ratio:
    """What is measured, against what, and how much it may be."""

    what: str
    floor_name: str
    at_most: float
    floor: Callable[[], object]
    ours: Callable[[], object]
    per_floor: float = 1
    per_ours: float = 1

    def measured(self, runs: int = 5) -> Measured:
        """Run floor and ours in turns."""
        floors, ours = [], []
        for _ in range(runs):
            floors.append(seconds(self.floor) / self.per_floor)
            ours.append(seconds(self.ours) / self.per_ours)
        return Measured(self, statistics.median(floors), statistics.median(ours))


@dataclass(frozen=True)
class Measured:
    """Medians of a ratio's two sides, in seconds (or in what the row says)."""

    ratio: Ratio
    floor: float
    ours: float

    @property
    def value(self) -> float:
        """How many times the floor ours is."""
        return self.ours / self.floor

    def row(self) -> tuple[str, ...]:
        """The cells of a table row."""
        verdict = "yes" if self.value <= self.ratio.at_most else "NO"
        return (
            self.ratio.what,
            self.ratio.floor_name,
            _in_milliseconds(self.floor),
            _in_milliseconds(self.ours),
            f"{self.value:.2f}",
            f"{self.ratio.at_most:g}",
            verdict,
        )


def seconds(work: Callable[[], object]) -> float:
    """How long one call takes."""
    start = time.perf_counter()
    work()
    return time.perf_counter() - start


def temporary_folder() -> Path:
    """A folder for files, gone when the measuring ends."""
    folder = tempfile.mkdtemp()
    atexit.register(shutil.rmtree, folder, ignore_errors=True)
    return Path(folder)


def _in_milliseconds(value: float) -> str:
    return f"{value * 1000:.4g} ms"
