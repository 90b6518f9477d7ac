"""Stamping a motif of 100 steps ten thousand times."""

from __future__ import annotations

import cmath
from collections.abc import Iterator

import numpy as np

from bench.harness import Ratio
from ovlo import Motif, Nib, Sheet

STAMPS = 10_000


def coil(nib: Nib) -> None:
    """A hundred steps, the nib's start among them."""
    for i in range(99):
        nib.forward(i / 10)
        nib.left(20)


def ratios() -> Iterator[Ratio]:
    """The rows of the table."""
    motif = Motif.record(coil)
    steps = motif._columns.points
    points = np.ascontiguousarray(steps).view(complex).ravel()
    turns = np.random.default_rng(4).uniform(0, 360, STAMPS).tolist()

    def bare_multiply_adds() -> None:
        found = np.empty(STAMPS * len(points), complex)
        for i, turn in enumerate(turns):
            factor = cmath.rect(0.5, turn)
            found[i * len(points) : (i + 1) * len(points)] = points * factor + 3j

    def stamp() -> None:
        sheet = Sheet(1000, 1000)
        nib = sheet.new_nib()
        for turn in turns:
            nib.stamp(motif, 0.5, turn)
        _ = sheet._columns

    yield Ratio(
        "10,000 stamps of 100 steps, and read", "10,000 complex multiply-adds", 4, bare_multiply_adds, stamp
    )
