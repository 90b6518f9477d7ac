"""Checks of crowded pictures, in time and memory, against their PNG: `python -m bench.crowds [NAME …]`.

Each picture has a process of its own, so that its peak of memory is its own too.
"""

from __future__ import annotations

import random
import resource
import subprocess
import sys
from collections.abc import Callable
from statistics import median
from time import perf_counter

from rich.console import Console
from rich.table import Table

from ovlo import Colour, Motif, Nib, Sheet
from ovlo.outlets import as_bytes

RUNS = 3

MOST_MEMORY = 300
"""Megabytes above those of the finished arrays and the PNG."""

MEGABYTE = 1024
"""The kilobytes in which a peak is told."""


def circles(nib: Nib) -> None:
    """20,000 filled circles in 20,000 colours."""
    chance = random.Random(1)
    for i in range(20_000):
        nib.travel_to(chance.uniform(-480, 480), chance.uniform(-480, 480))
        nib.circle(chance.uniform(3, 20), fill=Colour.from_rgb(i % 256, i * 7 % 256, i // 256 * 3))


def stamps(nib: Nib) -> None:
    """50,000 stamps of a motif of two arcs."""
    chance = random.Random(1)
    gull = Motif.record(_gull)
    for _ in range(50_000):
        nib.travel_to(chance.uniform(-480, 480), chance.uniform(-480, 480))
        nib.stamp(gull, turn=chance.uniform(0, 360))


def _gull(nib: Nib) -> None:
    nib.arc_right(6, 90)
    nib.left(90)
    nib.arc_right(6, 90)


def tree(nib: Nib) -> None:
    """A binary tree of 65,535 limbs."""
    nib.travel_to(0, -450)
    nib.turn_to(90)
    _limb(nib, 220, 15)


def _limb(nib: Nib, length: float, depth: int) -> None:
    with nib.returning():
        nib.forward(length)
        for turn in (-28, 28) if depth else ():
            nib.left(turn)
            _limb(nib, length * 0.75, depth - 1)
            nib.right(turn)


def lines(nib: Nib) -> None:
    """100,000 lines across the sheet."""
    chance = random.Random(1)
    for _ in range(100_000):
        nib.travel_to(-490, chance.uniform(-490, 490))
        nib.line_to(490, chance.uniform(-490, 490))


CROWDS: dict[str, tuple[Callable[[Nib], None], float]] = {
    "circles": (circles, 3),
    "stamps": (stamps, 3),
    "tree": (tree, 3),
    "lines": (lines, 1.5),
}
"""What draws each, and how many times as long as its PNG a check may take."""


def measure(name: str) -> None:
    """Print how long the PNG and the check take, and how many megabytes more the check needs."""
    sheet = Sheet(1000, 1000)
    CROWDS[name][0](sheet.new_nib())
    begin = perf_counter()
    as_bytes(sheet, ".png")
    drawn, before = perf_counter() - begin, _peak()
    begin = perf_counter()
    sheet.check()
    print(drawn, perf_counter() - begin, (_peak() - before) / MEGABYTE)


def _peak() -> int:
    return resource.getrusage(resource.RUSAGE_SELF).ru_maxrss


def main(names: list[str]) -> None:
    """Measure each picture in processes of its own."""
    table = Table("check of", "its PNG takes", "the check takes", "ratio", "at most", "MB more", "at most")
    for name in names or CROWDS:
        command = [sys.executable, "-c", f"from bench.crowds import measure; measure({name!r})"]
        runs = [
            [float(word) for word in subprocess.check_output(command, stderr=subprocess.DEVNULL).split()]
            for _ in range(RUNS)
        ]
        drawn, checked, memory = (median(column) for column in zip(*runs, strict=True))
        ratio = median(run[1] / run[0] for run in runs)
        work, most = CROWDS[name]
        table.add_row(
            (work.__doc__ or name).rstrip("."),
            f"{drawn:.2f} s",
            f"{checked:.2f} s",
            f"{ratio:.2f}",
            f"{most:g}",
            f"{memory:.0f}",
            f"{MOST_MEMORY}",
        )
    Console(width=120).print(table)


if __name__ == "__main__":
    main(sys.argv[1:])
