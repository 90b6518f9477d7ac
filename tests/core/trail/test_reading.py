"""Reading a trail: it changes nothing there, and is right beside a thread that writes."""

from __future__ import annotations

import threading

import numpy as np
import pytest

from ovlo import Motif, Sheet, column, layered
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
