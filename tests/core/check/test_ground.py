"""Marks painted level by level lie as if they had been painted one after the other."""

from __future__ import annotations

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from ovlo import Sheet
from ovlo.core.check.seeing.ground import Ground
from ovlo.core.check.seeing.raster import spans
from ovlo.core.paint.order import painted
from ovlo.render import lettering

places = st.floats(-90, 90).map(lambda x: round(x, 1))
discs = st.tuples(places, places, st.floats(4, 60), st.sampled_from(["gold", "teal", "#aa0000", "#00000080"]))


def grounds_of(sheet):
    return Ground(sheet, painted(sheet._columns).flattened(0.02), lettering.glyphs)


@given(some=st.lists(discs, min_size=1, max_size=30))
@settings(max_examples=12, deadline=None)
def test_levels_paint_what_painting_in_order_paints(some):
    sheet = Sheet(200, 200)
    nib = sheet.new_nib()
    for x, y, radius, fill in some:
        nib.travel_to(x, y)
        nib.polygon(5, radius=radius, fill=fill, outline=radius > 30)
    ground = grounds_of(sheet)
    painting = painted(sheet._columns).flattened(0.02)
    border = painting.borders
    top = np.full(ground.shape[0] * ground.shape[1], -1)
    colours = np.full((len(top), 3), 255.0)
    for number, position in enumerate(ground.fills.positions.tolist()):
        vertices, codes = border.path(int(ground.fills.borders[number]))
        ends = np.array([0, len(codes)])
        pixels, _ = spans(ground.to_pixels(vertices), codes, ends, np.array([False]), ground.shape).pixels(
            ground.shape[1]
        )
        *paint, opacity = ground.fills.paints[number]
        colours[pixels] += opacity * (np.array(paint) - colours[pixels])
        if opacity == 1:
            top[pixels] = position
    assert (ground.top == top).all()
    assert np.abs(ground.colours(np.arange(len(top))) - colours).max() < 0.01


def test_a_line_beneath_an_area_is_told_from_what_lies_beneath_it():
    sheet = Sheet(200, 200, paper="white")
    nib = sheet.new_nib()
    nib.ink = "white"
    nib.forward(50)  # on white paper
    nib.ink = "black"
    nib.rectangle(150, 150, fill="navy")
    nib.ink = "white"
    nib.back(50)  # on the navy area
    assert len(grounds_of(sheet).alike_pieces) == 1


def test_a_thousand_alike_contours_are_looked_at_once_and_counted():
    sheet = Sheet(2000, 2000)
    nib = sheet.new_nib()
    for i in range(100):
        nib.travel_to(18 * i - 900, 9 * i - 450)
        nib.turn_to(7 * i)
        for _ in range(5):
            nib.forward(20 + i / 10)
            nib.left(108)
    (one,) = [one for one in sheet.check() if one.rule == "turns-miss-360"]
    assert one.count == 100
