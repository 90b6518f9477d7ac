"""Where steps came from: lines, functions, and what it costs in memory."""

from __future__ import annotations

import inspect
import sys

import pytest

from ovlo import Motif, Sheet
from ovlo.core.sheet.host import hosted
from ovlo.core.sheet.only import only
from ovlo.core.sheet.step_table import call_totals, steps_of
from ovlo.core.trail.origins import Recorder

LINE = inspect.currentframe().f_lineno  # type: ignore[union-attr]


def side(nib, length):
    nib.forward(length)
    nib.left(90)


def sail(nib):
    with nib.area("gold"):
        for _ in range(4):
            side(nib, 30)


def tree(nib, depth):
    if depth:
        nib.forward(depth)
        tree(nib, depth - 1)
        tree(nib, depth - 1)


@pytest.fixture
def traced():
    recorder = Recorder(lambda file: file == __file__, sys._getframe())
    with hosted(recorder=recorder):
        yield Sheet(640, 480)


def test_a_step_knows_its_line_and_its_functions(traced):
    nib = traced.new_nib()
    sail(nib)
    origins = traced._origins
    place = origins.of_step(1)
    assert place.line == LINE + 4
    assert place.called_from == LINE + 11
    assert origins.functions(place.call)[-2:] == ("sail", "side")
    assert origins.of_step(99) is None


def test_texts_and_areas_know_their_lines(traced):
    nib = traced.new_nib()
    nib.text("7")
    line = inspect.currentframe().f_lineno - 1
    sail(nib)
    columns, origins = traced._columns, traced._origins
    assert origins.place(columns.texts[0].origin).line == line
    assert origins.place(int(columns.areas["origin"][0])).line == LINE + 9


def test_what_is_stamped_or_walked_comes_from_one_line(traced):
    nib = traced.new_nib()
    motif = Motif.record(sail)
    nib.stamp(motif)
    line = inspect.currentframe().f_lineno - 1
    nib.walk([10, 20, 30], 90)
    origins = traced._origins
    assert len(origins.steps) == len(traced.trail)
    lines = [origins.of_step(i).line for i in range(1, len(traced.trail))]
    assert lines == [line] * (len(motif._columns) + 1) + [line + 2] * 3


def test_calls_are_counted_and_measured(traced):
    nib = traced.new_nib()
    sail(nib)
    sail(nib)
    rows = [row for _, row in call_totals(traced._columns, traced._origins)]
    found = {row.function: row for row in rows}
    assert (found["sail"].times, found["sail"].steps, found["sail"].drawn) == (2, 8, 240)
    assert (found["side"].times, found["side"].depth) == (8, found["sail"].depth + 1)


def test_recursion_shares_its_branches(traced):
    nib = traced.new_nib()
    tree(nib, 9)
    origins = traced._origins
    assert len(traced.trail) == 2**9
    assert len(origins.calls) < 20
    deep = max(row.depth for _, row in call_totals(traced._columns, origins))
    assert deep >= 8


def test_a_place_costs_four_bytes_a_step(traced):
    nib = traced.new_nib()
    for _ in range(1000):
        side(nib, 1)
    assert sys.getsizeof(traced._trail._store.places) <= 16 * len(traced.trail)


def test_plain_drawing_records_nothing():
    sheet = Sheet(640, 480)
    sail(sheet.new_nib())
    assert sheet._origins is None


def test_rows_say_how_each_step_went(traced):
    nib = traced.new_nib()
    nib.forward(30)
    nib.right(60)
    nib.arc_right(20, 90)
    nib.travel(5)
    with nib.lifted():
        nib.forward(5)
    kinds = [(row.kind, row.sweep, row.turn, row.heading) for row in steps_of(traced._columns, None)]
    assert [kind[:2] for kind in kinds] == [
        *(("jump", None), ("line", None), ("arc", -90), ("jump", None), ("lifted", None))
    ]
    assert [turn for _, _, turn, _ in kinds] == pytest.approx([0, 0, -60, 0, 0])
    assert [heading for *_, heading in kinds] == pytest.approx([0, 0, 210, 210, 210])


def test_only_one_function_keeps_its_colours(traced):
    nib = traced.new_nib()
    nib.ink = "black"
    sail(nib)
    nib.circle(20, fill="tomato")
    nib.text("7")
    columns = only(traced, "sail", "--only")
    assert columns.areas["green"].tolist() == [215.0, pytest.approx(0.15 * 99 + 0.85 * 255)]
    assert columns.texts[0].ink.red == pytest.approx(0.85 * 255)
    inks = [columns.styles[i].ink.red for i in columns.of_steps("style").tolist()]
    assert inks[1:5] == [0, 0, 0, 0]
    assert min(inks[6:]) > 200
