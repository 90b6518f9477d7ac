"""Moving, turning, scaling and mirroring: points, poses, headings, whole trails, and back again."""

from __future__ import annotations

from math import cos, radians, sin

import numpy as np
import pytest

from ovlo import BadValue, Motif, Pose
from ovlo.core.trail.similarity import Similarity, check_reach, headings_in_range, transformed

MOVES = {
    "nothing": Similarity(1, 0, 0, 0, False),
    "moved": Similarity(1, 0, 30, -7, False),
    "turned": Similarity(1, 75, 0, 0, False),
    "scaled": Similarity(0.4, 0, 0, 0, False),
    "mirrored": Similarity(1, 0, 0, 0, True),
    "all": Similarity(2.5, 130, -12, 40, True),
}


def by_hand(by: Similarity, x: float, y: float) -> tuple[float, float]:
    y = -y if by.is_mirrored else y
    c, s = cos(radians(by.turn)), sin(radians(by.turn))
    return by.scale * (c * x - s * y) + by.x, by.scale * (s * x + c * y) + by.y


@pytest.mark.parametrize("name", MOVES)
def test_points_and_poses_go_where_they_should_and_come_back(name):
    by = MOVES[name]
    for x, y, heading in ((0, 0, 0), (3, 4, 20), (-50, 12, 300)):
        found = by.pose(Pose(x, y, heading))
        assert (found.x, found.y) == pytest.approx(by_hand(by, x, y))
        # A step ahead stays a step ahead.
        ahead = by_hand(by, x + cos(radians(heading)), y + sin(radians(heading)))
        step = by.scale * cos(radians(found.heading)), by.scale * sin(radians(found.heading))
        assert ahead == pytest.approx((found.x + step[0], found.y + step[1]))
        back = by.inverse.pose(found)
        assert (back.x, back.y) == pytest.approx((x, y))
        assert abs((back.heading - heading + 180) % 360 - 180) < 1e-9
    z = np.array([3 + 4j, -50 + 12j])
    assert by.points(z) == pytest.approx([complex(*by_hand(by, point.real, point.imag)) for point in z])
    assert by.inverse.points(by.points(z)) == pytest.approx(z)


def test_two_are_near_only_if_all_is_near():
    one = MOVES["all"]
    assert one.is_near(one._replace(x=-12.3, y=40.4), 0.5)
    assert not one.is_near(one._replace(x=-12.3, y=40.4), 0.49)
    assert not one.is_near(one._replace(is_mirrored=False), 1e9)
    assert not one.is_near(one._replace(turn=131), 1e9)
    assert not one.is_near(one._replace(scale=2.51), 1e9)


def test_headings_stay_below_a_whole_turn():
    headings = np.array([0.0, 359.5, 360.0, 725.0, -90.0, -720.0, -1e-20])
    assert headings_in_range(headings).tolist() == [0, 359.5, 0, 5, 270, 0, 0]


def flag(nib):
    nib.line_width, nib.line_dash = 3, (6, 2)
    nib.forward(40)
    nib.arc_left(20, 90)
    nib.text("bay", size=10)
    nib.ellipse(30, 12, fill="gold")


@pytest.mark.parametrize("name", MOVES)
def test_a_whole_trail_is_moved(name):
    by, columns = MOVES[name], Motif.record(flag)._columns
    found = transformed(columns, by)
    assert found.points == pytest.approx(np.array([by_hand(by, *point) for point in columns.points.tolist()]))
    assert found.starts == pytest.approx(np.array([by_hand(by, *point) for point in columns.starts.tolist()]))
    for before, after in zip(columns.arcs, found.arcs, strict=True):
        for axis in "uv":
            ends = [by_hand(by, *point) for point in ((0, 0), (before[f"{axis}x"], before[f"{axis}y"]))]
            moved = ends[1][0] - ends[0][0], ends[1][1] - ends[0][1]
            assert (after[f"{axis}x"], after[f"{axis}y"]) == pytest.approx(moved)
    assert [style.line_width for style in found.styles][-1] == pytest.approx(3 * by.scale)
    assert [style.line_dash for style in found.styles][-1] == pytest.approx((6 * by.scale, 2 * by.scale))
    assert found.texts[0].size == pytest.approx(10 * by.scale)
    kept = transformed(columns, by, keep_line_width=True)
    assert kept.styles == columns.styles


def test_words_are_never_mirrored():
    (text,) = Motif.record(lambda nib: nib.text("bay", align="start"))._columns.texts
    columns = Motif.record(lambda nib: nib.text("bay", align="start"))._columns
    across = transformed(columns, Similarity(1, 180, 0, 0, True)).texts[0]
    assert (across.heading, across.align) == (0, "end")
    down = transformed(columns, Similarity(1, 0, 0, 0, True)).texts[0]
    assert (down.heading, down.align) == (text.heading, "start")
    steep = Motif.record(lambda nib: (nib.left(60), nib.text("bay")))._columns
    other_way = transformed(steep, Similarity(1, 0, 0, 0, True)).texts[0]
    assert (other_way.heading, other_way.align) == (120, "end")
    middle = Motif.record(lambda nib: nib.text("bay", align="middle"))._columns
    assert transformed(middle, Similarity(1, 180, 0, 0, True)).texts[0].align == "middle"


def test_nothing_is_scaled_or_moved_beyond_the_plane():
    columns = Motif.record(lambda nib: nib.line_to(-3000, 4000))._columns
    check_reach(columns, 1000, 0, 0, "stamp")
    for scale, x, y in ((1e9, 0, 0), (1, 1e9, 0), (1, 0, 1e9), (1, 0, -1e9)):
        with pytest.raises(BadValue, match="stamp: this would lead to"):
            check_reach(columns, scale, x, y, "stamp")
    for wide in (
        lambda nib: nib.text("bay", size=5000),
        lambda nib: setattr(nib, "line_width", 5000) or nib.forward(1),
        lambda nib: setattr(nib, "line_dash", (5000,)) or nib.forward(1),
        lambda nib: nib.circle(5000),
    ):
        with pytest.raises(BadValue):
            check_reach(Motif.record(wide)._columns, 1e5, 0, 0, "stamp")
