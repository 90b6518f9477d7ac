"""Lines cut out of all lines are those of the stretch alone."""

from __future__ import annotations

import random

import numpy as np
import pytest

from ovlo import Sheet
from ovlo.core.paint.order import painted
from ovlo.core.paint.stretch import Parts
from ovlo.render.chords import Chords

FINE = 0.05


def wandering(seed: int) -> Sheet:
    """Two nibs that draw lines of every kind, and no area."""
    sheet, chance = Sheet(400, 300), random.Random(seed)
    nibs = [sheet.new_nib(), sheet.new_nib(heading=40)]

    def another_look(nib) -> None:
        nib.ink, nib.line_dash = chance.choice(["navy", "tomato"]), chance.choice([(), (6, 4)])

    deeds = [
        lambda nib: nib.forward(chance.uniform(-20, 20)),
        lambda nib: nib.forward(0),
        lambda nib: nib.arc_left(chance.uniform(0, 30), chance.uniform(-300, 400)),
        lambda nib: nib.line_to_start(),
        lambda nib: nib.circle(chance.uniform(0, 9)),
        lambda nib: nib.star(5, 9, outline=chance.random() < 0.8, fill=None),
        lambda nib: nib.travel(7),
        another_look,
        lambda nib: nib.left(chance.uniform(-90, 90)),
    ]
    for _ in range(150):
        chance.choice(deeds)(chance.choice(nibs))
    return sheet


def styles_of_vertices(painting) -> list:
    counts = np.diff(painting.strokes.firsts).tolist()
    return [mark.style for mark in painting.marks for _ in range(counts[mark.number])]


@pytest.mark.filterwarnings("ignore::ovlo.core.values.errors.NoEffect")
@pytest.mark.parametrize("seed", range(8))
def test_any_stretch_is_as_if_it_were_alone(seed):
    columns = wandering(seed)._columns
    chords, parts, chance = Chords(columns, FINE), Parts(columns), random.Random(seed)
    for _ in range(60):
        first, stop = sorted(chance.choices(range(len(columns) + 1), k=2))
        cut, alone = chords.between(first, stop), painted(parts.between(first, stop)).flattened(FINE)
        # Dashes that go on from before a stretch part its lines into more paths.
        assert styles_of_vertices(cut) == styles_of_vertices(alone)
        assert cut.strokes.codes.tolist() == alone.strokes.codes.tolist()
        assert np.allclose(cut.strokes.vertices, alone.strokes.vertices, atol=FINE / 40)


def test_half_a_step_is_half_its_line(sheet, nib):
    nib.forward(40)
    nib.travel(10)
    nib.arc_left(20, 90)
    chords = Chords(sheet._columns, FINE)
    quarters = [chords.beginning(step, 0.25) for step in (1, 2)]
    assert [part.strokes.vertices.tolist() for part in quarters if part] == [[[0, 0], [10, 0]], []]
    assert chords.beginning(3, 0.25) is None
