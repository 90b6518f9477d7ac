"""Where steps came from: lines, functions, and what it costs in memory."""

from __future__ import annotations

import inspect
import pickle
import sys

import numpy as np
import pytest

from ovlo import Motif, Sheet
from ovlo.core.sheet.host import hosted
from ovlo.core.sheet.only import only
from ovlo.core.sheet.step_table import call_totals, steps_of
from ovlo.core.trail.origins import Recorder, line_of

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


class Log:
    """The calls of a traced program as it says them itself: who called, and in which line."""

    def __init__(self, nib):
        self.nib, self.parents, self.lines, self.open, self.steps = nib, [], [], [-1], []

    def called(self, work, *values):
        frame = inspect.currentframe().f_back.f_back
        self.parents.append(self.open[-1])
        self.lines.append(frame.f_lineno)
        self.open.append(len(self.parents) - 1)
        work(*values)
        self.open.pop()

    def step(self):
        self.nib.forward(1)
        self.steps.append(self.open[-1])


def twig(log, depth):
    def inside():
        log.step()
        if depth:
            twig(log, depth - 1)
            twig(log, 0)
        log.step()

    log.called(inside)


def test_entries_are_the_calls_that_were_made():
    recorder = Recorder(lambda file: file == __file__, sys._getframe())
    with hosted(recorder=recorder):
        log = Log(Sheet().new_nib())
        twig(log, 3)
        twig(log, 1)
        log.step()
        origins = log.nib.sheet._origins
    # `inside` is entered through `called`, `step` below it: only the entries of `inside` are the log's.
    names = [origins.calls[call].function for call in origins.entry_calls.tolist()]
    mine = [entry for entry, name in enumerate(names) if name == "inside"]
    number = {entry: k for k, entry in enumerate(mine)}

    def nearest(entry):
        while entry >= 0 and entry not in number:
            entry = int(origins.entry_parents[entry])
        return number.get(entry, -1)

    assert len(mine) == len(log.parents)
    assert [nearest(int(origins.entry_parents[entry])) for entry in mine] == log.parents
    assert [nearest(origins.entry_of(step)) for step in range(1, len(origins.steps))] == log.steps
    # The ways of walking up agree with each other.
    chosen = np.isin(np.arange(len(names)), mine)
    found = origins.nearest_among(chosen, origins.depths())
    assert [number.get(entry, -1) for entry in found.tolist()] == [nearest(e) for e in range(len(names))]
    for entry in range(len(names)):
        path = origins.path_of(entry)
        assert path[-1] == entry
        assert [int(origins.entry_parents[one]) for one in path] == [-1, *path[:-1]]
    for depth, rows in enumerate(origins.depths(), 1):
        assert {len(origins.path_of(entry)) for entry in rows.tolist()} == {depth + 1}
    # Each is under the line that called the first of them.
    outer = {origins.path_of(entry)[0] for entry in mine}
    lines = {entry: int(origins.entry_lines[origins.path_of(entry)[1]]) for entry in mine if outer}
    for entry in mine:
        assert origins.outermost_lines([entry]) == {lines[entry]}
    assert origins.outermost_lines(mine) == set(lines.values())
    assert origins.path_of(-1) == ()
    assert (origins.entry_of(-1), origins.entry_of(999)) == (-1, -1)


def test_what_lies_beneath_a_step_is_of_an_entry_of_its_place(traced):
    nib = traced.new_nib()

    def alone(words):
        nib.text(words)

    def before(words):
        nib.text(words)
        nib.forward(5)

    def behind(words):
        nib.forward(5)
        nib.text(words)

    nib.forward(5)
    alone("1")
    before("2")
    behind("3")
    columns, origins = traced._columns, traced._origins
    entries = [origins.entry_at(text.step, text.origin) for text in columns.texts]
    # What makes no step has no entry of its own that is known.
    assert entries[0] == -1
    names = [origins.calls[origins.entry_calls[entry]].function for entry in entries[1:]]
    assert names == ["before", "behind"]
    assert origins.entry_at(columns.texts[0].step, -1) == -1
    assert origins.entry_at(columns.texts[0].step, len(origins.places)) == -1
    assert origins.place(-1) is None
    assert origins.place(len(origins.places)) is None
    assert origins.place(len(origins.places) - 1) is not None


def test_lines_of_instructions_are_those_of_the_program():
    def three(nib):
        nib.left(1)
        nib.left(2)

    first = three.__code__.co_firstlineno
    ends = {line for _, _, line in three.__code__.co_lines() if line}
    found = {line_of(three.__code__, at) for at in range(0, len(three.__code__.co_code), 2)}
    assert found <= ends | {first}
    assert first + 2 in found
    assert line_of(three.__code__, -2) == first
    assert line_of(three.__code__, 10_000) == first


def test_the_first_step_and_a_text_at_the_end_know_the_entry_they_were_made_in(traced):
    def flag(nib):
        nib.forward(9)
        nib.text("wind")

    nib = traced.new_nib()
    flag(nib)
    nib.forward(3)
    origins, text = traced._origins, traced._columns.texts[0]
    first = int(np.flatnonzero(origins.step_entries >= 0)[0])
    assert origins.entry_of(first) == origins.step_entries[first]
    assert origins.entry_of(-1) == origins.entry_of(99) == -1
    assert origins.functions(origins.entry_calls[origins.entry_at(text.step, text.origin)])[-1] == "flag"
    assert origins.entry_at(text.step, -1) == origins.entry_at(text.step, len(origins.places)) == -1


def test_places_in_the_outermost_function_are_all(traced):
    nib = traced.new_nib()
    sail(nib)
    origins = traced._origins
    outermost = origins.functions(origins.places[-1].call)[0]
    assert origins.places_in(outermost).all()
    assert not origins.places_in("tree").any()


def test_lines_are_read_anew_after_more_was_drawn(traced):
    nib = traced.new_nib()
    for length in (10, 20, 30):
        side(nib, length)
        origins, count = traced._origins, len(traced.trail)
        assert len(origins.steps) == count
        assert origins.of_step(count - 1).line == LINE + 4


def test_a_sheet_from_elsewhere_knows_the_lines_of_what_it_came_with(traced):
    side(traced.new_nib(), 10)
    other = pickle.loads(pickle.dumps(traced))
    assert other._origins.of_step(1).line == LINE + 4
    other.new_nib().forward(20)
    assert other._origins.of_step(1).line == LINE + 4
    assert other._origins.of_step(3) is None
