"""Steering a million steps: method calls, walk, memory, and whether it stays linear."""

from __future__ import annotations

import random
import sys
from array import array
from collections.abc import Iterator
from math import cos, sin

import numpy as np

from bench.harness import Ratio
from ovlo import Sheet
from ovlo.core.trail.columns import STEP
from ovlo.core.trail.rows import Table
from ovlo.core.values.degrees import ALONG_AXES, DEGREE

STEPS = 1_000_000
BYTES_PER_STEP = 28


def ratios() -> Iterator[Ratio]:
    """The rows of the table."""
    angles = [random.Random(1).uniform(-170, 170) for _ in range(STEPS)]

    def bare_loop() -> None:
        points = array("d")
        add = points.append
        x = y = heading = 0.0
        cosine, sine = 1.0, 0.0
        for angle in angles:
            x += 1.5 * cosine
            y += 1.5 * sine
            add(x)
            add(y)
            heading = (heading + angle) % 360.0
            if heading % 90.0:
                cosine, sine = cos(heading * DEGREE), sin(heading * DEGREE)
            else:
                cosine, sine = ALONG_AXES[heading]

    def method_calls() -> None:
        nib = Sheet(640, 480).new_nib()
        for angle in angles:
            nib.forward(1.5)
            nib.left(angle)

    yield Ratio("1,000,000 × (forward, left)", "the bare loop", 1.7, bare_loop, method_calls)

    generator = np.random.default_rng(1)
    distances, turns = generator.uniform(1, 2, STEPS), generator.uniform(-170, 170, STEPS)

    def bare_walk() -> tuple[object, object]:
        headings = np.radians(np.cumsum(turns) - turns)
        return np.cumsum(distances * np.cos(headings)), np.cumsum(distances * np.sin(headings))

    def walk() -> None:
        Sheet(640, 480).new_nib().walk(distances, turns)

    yield Ratio("walk on 1,000,000 pairs", "the bare NumPy pass", 1.5, bare_walk, walk)

    def calls(count: int) -> None:
        nib = Sheet(640, 480).new_nib()
        for _ in range(count):
            nib.forward(1.5)
            nib.left(1.1)

    yield Ratio(
        "time per step, 3,000,000 steps",
        "time per step, 10,000 steps",
        1.3,
        floor=lambda: calls(10_000),
        ours=lambda: calls(3_000_000),
        per_floor=10_000,
        per_ours=3_000_000,
    )


def bytes_per_step() -> float:
    """The most a straight step takes, growth slack included, over a million of them."""
    table = Table(STEP)
    most = 0.0
    for count in range(1, STEPS + 1):
        table.add(1.0, 2.0, 3.0)
        if count >= 1000 and count % 37 == 0:
            most = max(most, sys.getsizeof(table.storage) / count)
    return most
