"""Strokes: arcs found again, lines drawn once, ends joined, an order with little travel."""

from __future__ import annotations

import numpy as np
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st
from scipy.sparse.csgraph import minimum_spanning_tree
from scipy.spatial.distance import pdist, squareform

from ovlo.core.plot.arcs import fitted
from ovlo.core.plot.entering import entered
from ovlo.core.plot.linking import joined
from ovlo.core.plot.once import drawn_once
from ovlo.core.plot.routing import ordered, travel
from ovlo.core.plot.strokes import Strokes

TOLERANCE = 0.02


def strokes_of(*lines) -> Strokes:
    parts = [np.array(line, float) for line in lines]
    return Strokes.of_lines(np.vstack(parts), np.array([len(part) for part in parts]))


def shapes_of(strokes: Strokes):
    points, firsts = strokes.flat(1e-4)
    return [shapely.LineString(part) for part in np.split(points, firsts[1:-1])]


def circle(x=50.0, y=50.0, radius=10.0, pieces=100, begin=0.0, sweep=360.0):
    angles = np.radians(begin + np.linspace(0, sweep, pieces + 1))
    return np.column_stack([x + radius * np.cos(angles), y + radius * np.sin(angles)])


def wave(count=300):
    across = np.linspace(0, 50, count)
    return np.column_stack([across, 3 * np.sin(across / 4)])


def test_chords_of_a_circle_become_arcs_and_a_hexagon_stays_one():
    found = fitted(strokes_of(circle(), circle()[::-1], circle(pieces=6)), TOLERANCE)
    assert found.counts.tolist() == [5, 5, 7]
    assert found.sweeps[:5] == pytest.approx([0, 90, 90, 90, 90])
    assert found.sweeps[5:10] == pytest.approx([0, -90, -90, -90, -90])
    assert not found.sweeps[10:].any()
    assert found.lengths[:2] == pytest.approx([20 * np.pi] * 2)


@pytest.mark.parametrize(
    "line",
    [
        wave(),
        circle(pieces=80, sweep=250),
        np.vstack([circle(sweep=90, pieces=30), circle(y=70, begin=-90, sweep=-90, pieces=30)[1:]]),
        np.vstack([[[0, 50]], circle(begin=180, sweep=-180, pieces=40), [[90, 50], [90, 50.01], [90, 0]]]),
    ],
    ids=["wave", "arc", "two arcs", "arc between lines"],
)
def test_what_is_left_of_a_line_is_nowhere_off_by_more_than_the_tolerance(line):
    found = fitted(strokes_of(line), TOLERANCE)
    assert len(found.points) < len(line) / 2
    assert shapely.hausdorff_distance(shapes_of(found)[0], shapely.LineString(line)) <= TOLERANCE


def test_an_arc_whose_ends_were_cut_off_lies_on_its_circle():
    line = circle()[3:60]
    line[0] = (line[0] + line[1]) / 2
    found = fitted(strokes_of(line), TOLERANCE)
    assert np.hypot(*(found.points - 50).T) == pytest.approx(np.full(len(found.points), 10.0))


def test_what_was_drawn_is_not_drawn_again():
    square = [[0, 0], [10, 0], [10, 10], [0, 10], [0, 0]]
    lines = [square, circle(pieces=200), square[::-1], [[-5, 0], [25, 0]], circle(pieces=200)[3:60][::-1]]
    found, rows = drawn_once(fitted(strokes_of(*lines), TOLERANCE))
    assert rows.tolist() == [0, 1, 3, 3]
    assert found.lengths == pytest.approx([40, 20 * np.pi, 5, 15])
    assert found.points[-4:].tolist() == [[-5, 0], [0, 0], [10, 0], [25, 0]]


def test_a_corner_whose_second_side_begins_on_a_drawn_line_is_two_strokes():
    found, rows = drawn_once(strokes_of([[10, 5], [10, 0]], [[0, 0], [10, 0], [10, 10]]))
    assert rows.tolist() == [0, 1, 1]
    assert found.lengths == pytest.approx([5, 10, 5])
    assert found.points.tolist() == [[10, 5], [10, 0], [0, 0], [10, 0], [10, 5], [10, 10]]


@given(
    st.lists(
        st.tuples(st.integers(0, 5), st.integers(0, 20), st.integers(1, 20), st.booleans()),
        min_size=1,
        max_size=12,
    ),
    st.floats(0, 180),
)
def test_overlapping_lines_cover_what_they_covered_and_nothing_twice(spans, heading):
    turn = np.radians(heading)
    frame = np.array([[np.cos(turn), np.sin(turn)], [-np.sin(turn), np.cos(turn)]])
    lines = []
    for row, begin, length, is_back in spans:
        line = np.array([[begin, row], [begin + length, row]]) @ frame
        lines.append(line[::-1] if is_back else line)
    found, _ = drawn_once(strokes_of(*lines))
    covered = {(row, place) for row, begin, length, _ in spans for place in range(begin, begin + length)}
    assert found.lengths.sum() == pytest.approx(len(covered))


def test_a_net_is_drawn_in_as_few_strokes_as_can_be():
    size = 6
    across = [[[k, i], [k + 1, i]] for i in range(size + 1) for k in range(size)]
    net = strokes_of(*across, *[np.array(line)[:, ::-1] for line in across])
    found = joined(net, 0.01)
    # Every stroke begins and ends where an odd number of lines meet: here, along the border.
    assert len(found) == 4 * (size - 1) / 2
    assert found.lengths.sum() == pytest.approx(net.lengths.sum())


def test_a_ring_is_walked_on_the_way_of_a_line_that_meets_it():
    found = joined(
        strokes_of([[0, 0], [10, 0]], [[10, 0], [15, 5], [15, -5], [10, 0]], [[10, 0], [20, 0]]), 0.01
    )
    assert len(found) == 1
    assert {tuple(found.starts[0]), tuple(found.ends[0])} == {(0, 0), (20, 0)}


def walked(starts, ends, order, backwards):
    back = backwards[:, None]
    return np.where(back, ends[order], starts[order]), np.where(back, starts[order], ends[order])


place = st.tuples(st.floats(0, 100), st.floats(0, 100))


@given(st.lists(st.tuples(place, st.one_of(place, st.none())), max_size=30))
def test_every_stroke_is_drawn_once_in_any_order(lines):
    starts = np.array([start for start, _ in lines]).reshape(-1, 2)
    ends = np.array([start if end is None else end for start, end in lines]).reshape(-1, 2)
    order, _ = ordered(starts, ends, (0.0, 0.0))
    assert sorted(order.tolist()) == list(range(len(lines)))


@pytest.mark.parametrize(("length", "most"), [(0.0, 1.25), (1 / 3, 1.05)], ids=["dots", "strokes"])
def test_travel_is_near_that_of_the_shortest_tree(length, most):
    random = np.random.default_rng(5)
    middles = random.random((500, 2)) * 100
    angles = random.random(500) * 2 * np.pi
    reach = np.column_stack([np.cos(angles), np.sin(angles)]) * length * 100 / np.sqrt(500) / 2
    starts, ends = middles - reach, middles + reach
    order, backwards = ordered(starts, ends, (0.0, 0.0))
    way = travel(*walked(starts, ends, order, backwards), (0.0, 0.0))
    assert way <= most * minimum_spanning_tree(squareform(pdist(middles))).sum()


def test_a_closed_stroke_is_begun_where_the_pen_comes_by():
    square = strokes_of([[40, 40], [40, 60], [60, 60], [60, 40], [40, 40]])
    found = entered(square, square.is_closed(0.01), (0.0, 50.0))
    assert found.points.tolist() == [[40, 50], [40, 60], [60, 60], [60, 40], [40, 40], [40, 50]]
    ring = fitted(strokes_of(circle()), TOLERANCE)
    found = entered(ring, ring.is_closed(0.01), (0.0, 50.0))
    assert [found.starts[0], found.ends[0]] == [pytest.approx([40, 50])] * 2
    assert found.lengths == pytest.approx(ring.lengths)


@pytest.mark.parametrize("times", [1, 2, 3])
def test_what_is_drawn_again_goes_to_and_fro_or_round_without_a_lift(times):
    square = [(0, 0), (9, 0), (9, 9), (0, 9), (0, 0)]
    arc = fitted(strokes_of([(20 + 5 * np.cos(a), 5 * np.sin(a)) for a in np.linspace(0, 2, 60)]), TOLERANCE)
    once = Strokes.together([strokes_of([(0, 0), (5, 0)], square), arc])
    again = once.repeated(times)
    assert len(again) == len(once)
    assert again.lengths == pytest.approx(times * once.lengths)
    assert again.starts == pytest.approx(once.starts)
    assert again.ends[[0, 2]] == pytest.approx((once.ends if times % 2 else once.starts)[[0, 2]])
    for one, other in zip(shapes_of(again), shapes_of(once), strict=True):
        assert shapely.hausdorff_distance(one, other) < 0.01
    assert len(again.after(2)) == 1
