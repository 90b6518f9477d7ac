"""Reading a trail: it changes nothing there, and is right beside a thread that writes."""

from __future__ import annotations

import threading

import numpy as np
import pytest

from ovlo import BadValue, Motif, Sheet, column, layered
from ovlo.core.paint.order import painted
from ovlo.core.paint.outlines import borders, strokes
from ovlo.core.sheet.host import Stop, hosted
from ovlo.outlets import as_bytes

ROUNDS = 400


def bow(nib):
    nib.arc_left(8, 120)
    nib.circle(3, fill="gold")


def flutter(sheet, rounds=ROUNDS):
    """Everything a nib can leave, again and again."""
    nib, other = sheet.new_nib(), sheet.new_nib(20, 20)
    piece = Motif.record(bow)
    for i in range(rounds):
        nib.ink = ("navy", "tomato", "teal")[i % 3]
        with nib.area("gold"):
            nib.forward(5)
            nib.arc_left(9, 200)
            nib.line_to_start()
        other.stamp(piece, turn=i)
        other.forward(7)
        other.text("kite")
        nib.circle(4)
        nib.travel(3)
        nib.left(11)


@pytest.mark.parametrize("read_between", [True, False])
def test_reading_changes_nothing(read_between):
    sheet = Sheet()
    nib, other = sheet.new_nib(-100), sheet.new_nib(100)
    nib.stamp(Motif.record(bow))
    if read_between:
        _ = sheet.trail.x
    other.forward(50)
    nib.forward(50)
    drawn = strokes(sheet._columns)
    # Each nib's own line begins where that nib stood, not where the stamp or the other nib was.
    assert {(-100, 0), (100, 0)} <= {tuple(point) for point in drawn.vertices[drawn.moves].tolist()}


def test_a_reader_beside_a_writer_sees_a_whole_drawing_at_any_moment():
    sheet = Sheet()
    writer = threading.Thread(target=flutter, args=(sheet,))
    writer.start()
    lengths = []
    while writer.is_alive() or len(lengths) < 3:
        columns = sheet._columns
        lengths.append(len(columns))
        runs = columns.runs
        assert (runs["start"] < max(len(columns), 1)).all()
        assert (runs["style"] < len(columns.styles)).all()
        assert (runs["area"] < len(columns.areas)).all()
        assert (columns.arcs["step"] < len(columns)).all()
        if len(columns):
            assert runs["start"][0] == 0
        marks = painted(columns).marks
        assert all(mark.fill is None or len(borders(columns)) for mark in marks if hasattr(mark, "fill"))
    writer.join()
    assert lengths == sorted(lengths)
    alone = Sheet()
    flutter(alone)
    assert as_bytes(sheet, ".svg") == as_bytes(alone, ".svg")
    assert len(sheet.trail) == len(alone.trail) > 10 * ROUNDS


def test_finished_arrays_cannot_be_written_to_and_make_their_outlines_once():
    sheet = Sheet()
    flutter(sheet, 2)
    columns = sheet._columns
    with pytest.raises(ValueError, match="read-only"):
        columns.runs["nib"] = 7
    assert strokes(columns) is strokes(columns)
    before = strokes(columns).vertices.copy()
    painted(columns).flattened(0.05)
    assert np.array_equal(strokes(columns).vertices, before)


def test_what_ovlo_draws_for_itself_is_not_charged_to_the_program(tmp_path):
    with hosted(step_limit=60) as host:
        sheet = Sheet()
        nib = sheet.new_nib()
        for _ in nib.full_turn(6):
            nib.forward(40)
        for _ in range(20):
            sheet.save(tmp_path / "kite.svg", overlay="grid,steps,angles,pointer,findings")
            sheet.cropped(-50, -50, 100, 100, whole=False)
    assert list(host.sheets) == [sheet]


def test_joins_of_a_program_count():
    motif = Motif.record(lambda nib: nib.forward(9))

    def double(motif, times):
        return double(layered([motif, motif]), times - 1) if times else motif

    with hosted(step_limit=1000), pytest.raises(Stop):
        double(motif, 20)
    with hosted(step_limit=1000):
        assert len(column([double(motif, 4)])._columns) == 2 * 2**4


def all_sorts(nib):
    with nib.area("gold"):
        nib.arc_left(20, 90)
        nib.forward(10)
    nib.text("bay", size=10)
    nib.circle(4, fill="navy")
    with nib.area("teal"):
        nib.polyline([(30, 0), (30, 30)])
        nib.line_to_start()


def test_stamps_laid_in_a_loop_are_what_one_stamp_after_another_is():
    """Whatever their steps apart, scales, turns and texts: against pieces that are drawn for themselves."""
    piece = Motif.record(all_sorts)
    together, apart = Sheet(), Sheet()
    nib, other = together.new_nib(), apart.new_nib()
    for i, gap in enumerate((0, 0, 0, 1, 2, 0, 1)):
        for one in (nib, other):
            one.travel_to(20 * i, 5 * i)
            for _ in range(gap):
                one.forward(3)
        nib.stamp(piece, scale=1 + i / 4, turn=30 * i)
        moved = piece.scaled(1 + i / 4).turned(30 * i)
        other.stamp(moved)
        _ = apart.trail.x  # read between, so that each is laid by itself
    a, b = together._columns, apart._columns
    assert a.points == pytest.approx(b.points)
    drawn = a.of_steps("pen") == 1
    assert a.steps["heading"][drawn] == pytest.approx(b.steps["heading"][drawn])
    for name in ("start", "contour", "area", "pen", "nib"):
        assert a.runs[name].tolist() == b.runs[name].tolist()
    assert a.arcs["step"].tolist() == b.arcs["step"].tolist()
    for name in ("ux", "uy", "vx", "vy", "sweep"):
        assert a.arcs[name] == pytest.approx(b.arcs[name])
    assert a.areas["step"].tolist() == b.areas["step"].tolist()
    assert a.areas["order"].tolist() == b.areas["order"].tolist()
    assert [tuple(row) for row in a.area_ends.tolist()] == [tuple(row) for row in b.area_ends.tolist()]
    assert [(text.step, text.order, text.words) for text in a.texts] == [
        (text.step, text.order, text.words) for text in b.texts
    ]
    for one, two in zip(a.texts, b.texts, strict=True):
        assert (one.x, one.y, one.size, one.heading) == pytest.approx((two.x, two.y, two.size, two.heading))
    assert sorted(a.area_ends["area"].tolist()) == list(range(len(a.areas)))
    spans = together._trail.stamped()
    assert len(spans) == 7
    assert (np.diff(spans, axis=1) == len(piece._columns)).all()
    # Each is laid behind the jump to its place.
    assert [int(a.of_steps("pen")[first - 1]) for first, _ in spans.tolist()] == [0] * 7


def test_trails_are_equal_only_if_all_of_them_is():
    def trail(*more):
        sheet = Sheet()
        nib = sheet.new_nib()
        nib.forward(5)
        for change in more:
            change(nib)
        return sheet._columns

    assert trail().is_equal(trail())
    changes = (
        lambda nib: nib.forward(1),
        lambda nib: nib.text("a"),
        lambda nib: nib.circle(2, fill="red"),
        lambda nib: nib.pause(2),
    )
    found = [trail(), *(trail(change) for change in changes)]
    for i, one in enumerate(found):
        assert [one.is_equal(other) for other in found] == [i == k for k in range(len(found))]
    assert trail(changes[1]).is_equal(trail(changes[1]))
    assert not trail(changes[1]).is_equal(trail(lambda nib: nib.text("b")))


@pytest.mark.parametrize("deed", [
    lambda nib: nib.forward(9), lambda nib: nib.arc_left(9, 80), lambda nib: nib.arc_right(9, 80),
    lambda nib: nib.circle(5, fill="red"), lambda nib: nib.text("hi"), lambda nib: nib.walk([1, 2], 30),
    lambda nib: nib.stamp(Motif.record(bow)), lambda nib: nib.travel(5),
    lambda nib: nib.polyline([(1, 2), (3, 4)]),
])  # fmt: skip
def test_what_is_taken_back_leaves_all_as_it_was(deed):
    sheet = Sheet()
    nib = sheet.new_nib(3, 4, 50)
    with nib.area("gold"):
        nib.arc_left(7, 70)
    before, pose = sheet._columns, nib.pose
    deed(nib)
    assert not sheet._columns.is_equal(before)
    while len(sheet._columns) > len(before) or len(sheet._columns.texts) > len(before.texts):
        sheet.undo()
    assert sheet._columns.is_equal(before)
    assert nib.pose == pytest.approx(pose)
    nib.forward(5)
    assert len(sheet._columns) == len(before) + 1


def test_things_are_taken_back_one_by_one_whatever_they_are():
    sheet = Sheet()
    nib = sheet.new_nib()
    deeds = (
        lambda: nib.circle(5), lambda: nib.text("one"), lambda: nib.star(5, 9), lambda: nib.forward(7),
        lambda: nib.text("two"), lambda: nib.text("three"), lambda: nib.stamp(Motif.record(bow)),
        lambda: nib.arc_left(9, 30), lambda: nib.circle(3, fill="red"), lambda: nib.walk([1, 2, 3], 9),
    )  # fmt: skip
    moments = []
    for deed in deeds:
        moments.append((sheet._columns, nib.pose))
        deed()
    for columns, pose in reversed(moments):
        sheet.undo()
        assert sheet._columns.steps.tolist() == columns.steps.tolist()
        assert sheet._columns.texts == columns.texts
        assert nib.pose == pytest.approx(pose)
    with pytest.raises(BadValue, match="undo: nothing is left to take back"):
        sheet.undo()
    nib.forward(5)
    with pytest.raises(BadValue, match="undo: only 1 can be taken back, not 2"):
        sheet.undo(2)


def test_the_words_of_a_stamp_lie_on_what_was_drawn_before_it():
    def label(nib):
        nib.rectangle(40, 20, fill="gold")
        nib.text("7")

    sheet = Sheet()
    nib = sheet.new_nib()
    nib.rectangle(200, 200, fill="navy")
    nib.stamp(Motif.record(label))
    columns = sheet._columns
    (text,) = columns.texts
    assert text.step > columns.areas["step"].max()
    assert text.order > columns.areas["order"].max()


def test_the_step_that_closes_a_contour_is_the_one_that_was_drawn_to_its_start():
    sheet = Sheet()
    nib = sheet.new_nib()
    for _ in range(3):
        nib.forward(10)
        nib.left(90)
    nib.line_to_start()
    assert sheet._columns.closings["step"].tolist() == [4]
