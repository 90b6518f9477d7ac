"""Small things that were wished for: scattered points, stamps in other colours, lines by a distance."""

from __future__ import annotations

import itertools
import math

import pytest

from ovlo import BadValue, Colour, Dice, Motif, Sheet
from ovlo.core.paint.measures import MarkBoxes
from ovlo.render import lettering


@pytest.mark.parametrize(
    ("count", "apart", "margin"), [(40, 30, 20), (300, None, 0), (1, None, 239), (5, 100, 50)]
)
def test_scattered_points_are_apart_on_the_sheet_and_the_same_again(count, apart, margin):
    points = Sheet(seed=7).dice.scattered(count, apart, margin)
    assert points == Sheet(seed=7).dice.scattered(count, apart, margin)
    assert len(points) == count
    assert all(abs(x) <= 320 - margin and abs(y) <= 240 - margin for x, y in points)
    nearest = min((math.dist(a, b) for a, b in itertools.combinations(points, 2)), default=1e9)
    # Random points of that number come far nearer than this.
    assert nearest >= (apart or 0.45 * math.sqrt(640 * 480 / count))


def test_scattered_points_that_find_no_room_are_refused():
    with pytest.raises(BadValue, match=r"scattered: only \d+ points fit at a distance of 200"):
        Sheet(seed=1).dice.scattered(50, min_distance=200)
    with pytest.raises(BadValue, match="leaves no room on the sheet"):
        Sheet().dice.scattered(3, margin=999)
    with pytest.raises(BadValue, match="do not belong to a sheet"):
        Dice(1).scattered(3)


def test_a_stamp_in_other_colours_leaves_the_motif_as_it_is():
    kite = Motif.record(lambda nib: nib.polygon(4, radius=20, fill="red"))
    sheet = Sheet()
    nib = sheet.new_nib()
    nib.stamp(kite, ink="navy", fill="gold")
    nib.stamp(kite)
    columns = sheet._columns
    assert columns.areas["green"].tolist() == [215, 0]
    assert Colour(0, 0, 128) in {style.ink for style in columns.styles}
    assert kite._columns.areas["green"].tolist() == [0]
    with pytest.raises(BadValue, match="stamp: there is no colour 'golden'"):
        nib.stamp(kite, fill="golden")


def test_line_by_draws_and_keeps_the_heading(nib):
    nib.left(30)
    nib.line_by(30, 40)
    assert nib.pose == (30, 40, 30)
    assert nib.sheet.trail.is_drawn.tolist() == [False, True]


def test_ten_rectangles_are_ten_marks(nib):
    for i in range(10):
        nib.travel_to(20 * i, 0)
        nib.rectangle(9, 9, fill="gold")
    assert len(MarkBoxes.of(nib.sheet._columns, lettering.box).low) == 10
