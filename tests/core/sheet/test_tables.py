"""A drawing as tables: the steps, the arrays of the trail, the calls."""

from __future__ import annotations

import csv
import math

import numpy as np
import pytest

from ovlo import BadUse, Motif, Sheet, Step, drawing

pandas = pytest.importorskip("pandas")


@drawing(width=200, height=160)
def harbour(nib):
    nib.forward(30)
    nib.left(90)
    nib.ink = "navy"
    nib.arc_right(20, 90)
    nib.travel_to(0, 0)
    nib.circle(10, fill="gold")
    nib.text("Marrow Bay")


def test_every_step_and_text_is_a_row_that_a_data_frame_takes():
    frame = pandas.DataFrame(harbour.run(traced=True).steps())
    assert list(frame["kind"]) == ["jump", "line", "arc", "jump", "jump", "arc", "text"]
    arc = frame.iloc[2]
    assert (arc.ink, arc.turn, arc.sweep, arc.centre_x, arc.centre_y) == ("#000080", 90, -90, 50, 0)
    assert arc.length == pytest.approx(10 * math.pi)
    assert frame.iloc[5].fill == "#ffd700"
    assert frame.iloc[6].words == "Marrow Bay"
    first = harbour._function.__code__.co_firstlineno
    assert list(frame["line"][1:] - first) == [2, 5, 6, 7, 7, 8]
    assert set(frame["function"][1:]) == {"harbour"}


def test_two_nibs_and_a_circle_add_up_to_what_they_drew():
    sheet = Sheet()
    for x in (-100, 300):
        sheet.new_nib(x=x).forward(30)
    assert sheet.trail.length[sheet.trail.is_drawn].sum() == 60
    sheet.nibs[0].circle(10)
    trail = sheet.trail
    assert trail.length[trail.nib == 0].sum() == pytest.approx(30 + 10 + 20 * math.pi)
    assert trail.centre[trail.kind == "arc"].tolist() == [[-70, 0]]
    assert np.isnan(trail.sweep[:-1]).all()
    assert (trail.ink == "").sum() == (~trail.is_drawn).sum() == 3
    assert trail.line_width.tolist() == [0, 2, 0, 2, 0, 2]


def test_the_trail_is_a_table_and_a_row_at_a_time():
    sheet = harbour.run()
    table = pandas.DataFrame(sheet.trail.to_dict())
    assert len(table) == len(sheet.trail) == len(list(sheet.trail)) == 6
    for row, step in zip(table.itertuples(), sheet.trail, strict=True):
        assert (row.x, row.y, row.kind, row.ink) == (step.to_x, step.to_y, step.kind, step.ink)


def test_the_command_prints_the_same_columns(ovlo_command, program):
    program("from ovlo import Sheet\nnib = Sheet().new_nib()\nnib.arc_left(30, 90)\nnib.text('a, b')\n")
    rows = list(csv.reader(ovlo_command("steps", "kite.py", "--csv").stdout.splitlines()))
    assert rows[0] == list(Step._fields)
    assert [row[2] for row in rows[1:]] == ["jump", "arc", "text"]
    assert rows[-1][rows[0].index("words")] == "a, b"
    table = ovlo_command("steps", "kite.py").stdout
    assert "arc 90°" in table
    assert "'a, b'" in table


def test_calls_need_recorded_lines():
    with pytest.raises(BadUse, match="traced=True"):
        harbour.run().calls()
    (total,) = harbour.run(traced=True).calls()
    assert (total.function, total.times, total.steps) == ("harbour", 1, 5)
    assert total.drawn == pytest.approx(30 + 10 * math.pi + 20 * math.pi)


def test_a_copied_nib_goes_its_own_way():
    sheet = Sheet()
    nib = sheet.new_nib(heading=30)
    nib.ink, nib.pointer = "tomato", Motif.record(lambda nib: nib.circle(3))
    nib.lift()
    twin = nib.copy()
    assert (twin.pose, twin.ink, twin.is_lifted, twin.pointer) == (nib.pose, nib.ink, True, nib.pointer)
    twin.forward(10)
    assert nib.position == (0, 0)
    assert sheet.nibs == (nib, twin)
