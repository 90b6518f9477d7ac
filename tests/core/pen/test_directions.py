"""Which way each step of a shape points, which contour it is of, and what a lifted pen begins anew."""

from __future__ import annotations

import math
import sys

import numpy as np
import pytest

from ovlo import BadUse, BadValue, NoEffect, Sheet
from ovlo.core.pen import stroke_letters
from ovlo.core.pen.pointer import LENGTH, pointer_columns
from ovlo.core.pen.spirals import piece_count, spiral_arcs
from ovlo.core.sheet.host import hosted
from ovlo.core.trail.curves import half_axes, points_at
from ovlo.core.trail.origins import Recorder

SHAPES = {
    "circle": lambda nib: nib.circle(50, turn=7),
    "ellipse": lambda nib: nib.ellipse(100, 40, turn=33),
    "polygon": lambda nib: nib.polygon(6, radius=50, turn=11),
    "star": lambda nib: nib.star(7, 50, every=3),
    "parts": lambda nib: nib.star(6, 50, turn=15),
    "inner": lambda nib: nib.star(4, 50, inner_radius=10),
    "rectangle": lambda nib: nib.rectangle(70, 30, turn=20),
    "corner": lambda nib: nib.rectangle(70, 30, anchor="corner"),
    "spiral": lambda nib: nib.spiral(3, 80, inner_radius=10, turn=40),
    "spiral back": lambda nib: nib.spiral(-2.5, 80, inner_radius=10),
    "spiral grown": lambda nib: nib.spiral(4, 80, inner_radius=2, growth="exponential"),
    "spiral shrunk": lambda nib: nib.spiral(-1, 80, inner_radius=2, growth="exponential"),
    "letters": lambda nib: nib.text("Rag & 2", size=60, font="stroke", slant="italic"),
}


@pytest.mark.parametrize("name", SHAPES)
@pytest.mark.parametrize("pose", [(0, 0, 0), (30, -20, 200)])
def test_each_step_arrives_in_the_direction_of_its_line(name, pose):
    nib = Sheet(640, 480).new_nib(*pose)
    SHAPES[name](nib)
    columns = nib.sheet._columns
    drawn = columns.of_steps("pen") == 1
    arcs = {int(arc["step"]): number for number, arc in enumerate(columns.arcs)}
    for step in np.flatnonzero(drawn).tolist():
        start, end = columns.starts[step : step + 1], columns.points[step : step + 1]
        before = start
        if step in arcs:
            arc = columns.arcs[arcs[step] : arcs[step] + 1]
            before = points_at(arc, start, end, np.array([1 - 1e-6]))
        heading = math.degrees(math.atan2(*(end - before)[0, ::-1].tolist()))
        apart = (heading - columns.steps["heading"][step] + 180) % 360 - 180
        # A spiral's arcs go through three points of it each, and end a little beside its own direction.
        assert abs(apart) < (0.3 if "spiral" in name else 1e-3)
    assert nib.pose == pose


def test_rings_of_a_star_begin_straight_ahead():
    nib = Sheet().new_nib(heading=90)
    nib.star(6, 50)
    columns = nib.sheet._columns
    firsts = columns.runs["start"][columns.runs["pen"] == 1]
    assert columns.starts[firsts] == pytest.approx(np.array([(0, 50), (-50 * 0.75**0.5, 25)]))


@pytest.mark.parametrize(("rounds", "radius", "inner", "growth"), [
    (3, 80, 0, "linear"), (-3, 80, 20, "linear"), (5, 400, 1, "exponential"), (0.2, 9, 3, "exponential"),
])  # fmt: skip
def test_a_spiral_is_made_of_as_few_arcs_as_its_tolerance_needs(rounds, radius, inner, growth):
    count = piece_count(rounds, radius, inner, growth)
    start, steps, arcs = spiral_arcs(rounds, radius, inner, growth, 30)
    assert len(steps) == count
    assert start == pytest.approx((inner * math.cos(math.radians(30)), inner * math.sin(math.radians(30))))
    assert math.hypot(*steps[-1, :2]) == pytest.approx(radius)
    assert count >= abs(rounds) * 24  # no arc is over 15 degrees
    assert np.abs(arcs["sweep"]).max() < 30
    # Half as many would be off by more than is allowed, or be wider than that.
    starts = np.vstack([start, steps[:-1, :2]])[arcs["step"]]
    u, _ = half_axes(arcs)
    assert np.hypot(*(starts - u).T).max() < radius
    widest = 360 * abs(rounds) / count
    assert widest > 15 * 0.9 or count < 40 * abs(rounds) * max(radius, 1) ** 0.5


MOVES = {
    "forward": lambda nib: nib.forward(30),
    "back": lambda nib: nib.back(30),
    "line_to": lambda nib: nib.line_to(30, 5),
    "line_by": lambda nib: nib.line_by(30, 5),
    "arc_left": lambda nib: nib.arc_left(20, 90),
    "arc of no sweep": lambda nib: nib.arc_left(20, 0),
    "polyline": lambda nib: nib.polyline([(10, 5), (30, 9)]),
    "walk": lambda nib: nib.walk([10, 20], 90),
}


@pytest.mark.parametrize("is_block", [False, True])
@pytest.mark.parametrize("name", MOVES)
def test_a_contour_begins_where_a_lifted_move_ends(name, is_block):
    nib = Sheet().new_nib()
    nib.forward(10)
    if is_block:
        with nib.lifted():
            MOVES[name](nib)
        begun = nib.position
    else:
        nib.lift()
        MOVES[name](nib)
        begun = nib.position
        nib.lower()
    nib.forward(10)
    nib.left(90)
    nib.forward(10)
    nib.line_to_start()
    assert nib.position == begun
    columns = nib.sheet._columns
    assert len(np.unique(columns.of_steps("contour")[-3:])) == 1
    assert columns.of_steps("contour")[1] != columns.of_steps("contour")[-1]


def test_what_a_lifted_pen_leaves_out_is_noted():
    recorder = Recorder(lambda file: file == __file__, sys._getframe())
    with hosted(recorder=recorder):
        sheet = Sheet()
        nib = sheet.new_nib()
        with nib.lifted():
            for _ in range(3):
                nib.circle(9)
        (note,) = sheet._origins.left_out
    assert (note.call, note.times) == ("circle", 3)


def test_an_areas_end_is_where_its_block_ends_also_out_of_order(nib):
    first, second = nib.area("gold"), nib.area("navy")
    first.__enter__()
    nib.forward(5)
    second.__enter__()
    nib.forward(5)
    first.__exit__(None, None, None)
    nib.forward(5)
    second.__exit__(None, None, None)
    nib.forward(5)
    ends = {int(row["area"]): int(row["step"]) for row in nib.sheet._columns.area_ends}
    assert ends == {0: 3, 1: 4}


def test_blocks_refuse_what_they_cannot_be(nib):
    with pytest.raises(BadUse, match=r"open it by `with nib\.lifted\(\):`; nib\.is_lifted says whether"):
        bool(nib.lifted())
    with pytest.raises(BadUse) as caught:
        bool(nib.returning())
    assert "is_lifted" not in str(caught.value)
    with pytest.raises(Exception, match="area: outline must be True or False, not 0"):
        nib.area("gold", outline=0)
    with pytest.raises(BadValue, match="area: fill_rule must be one of"):
        nib.area("gold", fill_rule="odd")
    assert len(nib.sheet.trail) == 1


def test_a_block_that_is_never_opened_says_so_with_its_line(nib):
    with pytest.warns(
        NoEffect, match=r"write `with nib\.lifted\(\):` and indent the lines that belong to it"
    ) as told:
        nib.lifted()
    (warning,) = told
    assert warning.filename == __file__
    assert warning.lineno == sys._getframe().f_lineno - 3
    with pytest.warns(NoEffect) as told:
        nib.full_turn(5)
    assert (told[0].filename, told[0].lineno) == (__file__, sys._getframe().f_lineno - 1)


def test_a_walk_says_which_number_is_wrong_and_reaches_the_edge(nib):
    with pytest.raises(BadValue, match=r"distances must be finite .* but number 2 is nan"):
        nib.walk([1, 2, float("nan"), 4], 90)
    with pytest.raises(BadValue, match=r"angles must be finite .* but the number is inf"):
        nib.walk([1, 2], float("inf"))
    with pytest.raises(BadValue, match="walk: this would lead to"):
        nib.walk([9e6] * 2, 0)
    assert len(nib.sheet.trail) == 1
    nib.walk([5e6, 5e6, 1e7], [0, 180, 900])
    assert nib.pose == (0, 0, 0)
    other = Sheet().new_nib()
    other.walk([1, 1, 1], [350, 10.5, 359.5])
    assert other.heading == 0
    assert other.sheet.trail.heading.tolist() == [0, 0, 350, 0.5]


def test_a_move_too_far_is_refused_with_its_end(nib):
    for move in (nib.forward, nib.back):
        with pytest.raises(BadValue, match=rf"{move.__name__}: distance must be"):
            move(10**400)
        nib.travel_to(0, 0)
    nib.travel_to(-9e6, 0)
    with pytest.raises(BadValue, match=r"back: this would lead to \(-1\.8e\+07, 0\)"):
        nib.back(9e6)
    assert nib.position == (-9e6, 0)
    nib.turn_to(60)
    nib.travel_to(-6e6, 0)
    with pytest.raises(BadValue, match=r"back: this would lead to \(-1\.05e\+07, -7\.79423e\+06\)"):
        nib.back(9e6)


def test_arcs_reach_a_thousand_rounds(nib):
    nib.arc_left(1, 360_000)
    with pytest.raises(BadValue, match="sweep"):
        nib.arc_left(1, 360_000.5)


def test_the_pointer_is_symmetric_and_its_tip_is_the_nib():
    columns = pointer_columns()
    points = {(round(x, 9), round(y, 9)) for x, y in columns.points.tolist()}
    outline = {point for point in points if point[0] not in (-13, -15) or point[1]}
    assert {(x, -y) for x, y in points} == points
    assert (0, 0) in points
    assert min(x for x, _ in points) == -LENGTH == -26
    assert len(columns.areas) == 2
    # The way back to the tip closes it.
    assert [points for points in columns.points.tolist() if points == [0.0, 0.0]][1:]
    assert {(-9, 3.5), (-15, 7), (-LENGTH, 4.5)} <= outline
    # A hole in it, which the line from the tip reaches.
    (hole,) = columns.arcs
    centre = columns.starts[int(hole["step"])] - (hole["ux"], hole["uy"])
    assert (*centre.tolist(), math.hypot(hole["ux"], hole["uy"])) == pytest.approx((-15, 0, 2))
    assert (-13, 0) in points


@pytest.mark.parametrize("slant", ["normal", "italic"])
def test_letters_as_chords_are_the_letters_as_arcs(slant):
    words = "Sail & Öß @ 凧"
    chords = stroke_letters.lines(words, slant)
    pieces, missing = stroke_letters.laid(words, 1, (0, 0), 0, "start", "alphabetic", slant)
    assert missing == "凧"
    assert len(chords) == len(pieces)
    for line, (begin, steps, arcs, _) in zip(chords, pieces, strict=True):
        ends = np.frombuffer(steps).reshape(-1, 3)[:, :2]
        assert line[0] == pytest.approx(begin)
        assert line[-1] == pytest.approx(ends[-1])
        starts = np.vstack([begin, ends[:-1]])
        for number, ux, uy, vx, vy, sweep in arcs:
            # Each chord ends on its arc, and the arc has a chord for every three degrees.
            angles = np.radians(sweep) * np.arange(0, 1.0001, 1 / math.ceil(abs(sweep) / 3))
            centre = starts[number] - (ux, uy)
            on_arc = centre + np.outer(np.cos(angles), (ux, uy)) + np.outer(np.sin(angles), (vx, vy))
            apart = np.hypot(*(on_arc[:, None] - line[None]).transpose(2, 0, 1)).min(axis=1)
            assert apart.max() < 1e-9
    lean = {"normal": 0, "italic": math.tan(math.radians(12))}[slant]
    (stem, *_) = stroke_letters.lines("l", slant)
    assert stem[:, 0] - lean * stem[:, 1] == pytest.approx(
        np.full(len(stem), stem[0, 0] - lean * stem[0, 1]), abs=0.2
    )


def test_a_box_stands_for_a_letter_that_is_missing():
    (box,) = stroke_letters.lines("凧", "normal")
    assert (*box.min(axis=0), *box.max(axis=0)) == pytest.approx((0.06, 0, 0.46, 0.7))
    assert box[0].tolist() == box[-1].tolist()
    assert stroke_letters.width("凧") == pytest.approx(0.46 + 0.06)
    assert len({tuple(point) for point in box.tolist()}) == 4


@pytest.mark.parametrize("turn", [0, 33, 200])
def test_an_ellipse_begins_on_its_longer_axis_and_lies_around_the_nib(turn):
    nib = Sheet().new_nib(30, -20, 10)
    nib.ellipse(100, 40, turn=turn)
    columns = nib.sheet._columns
    (arc,) = columns.arcs
    step = int(arc["step"])
    way = math.radians(10 + turn)
    assert columns.starts[step] == pytest.approx((30 + 50 * math.cos(way), -20 + 50 * math.sin(way)))
    assert columns.points[step] == pytest.approx(columns.starts[step])
    assert columns.starts[step] - (arc["ux"], arc["uy"]) == pytest.approx((30, -20))
    assert (arc["vx"], arc["vy"]) == pytest.approx((-20 * math.sin(way), 20 * math.cos(way)))


@pytest.mark.parametrize("name", MOVES)
def test_a_lifted_pen_has_its_contours_start_where_it_is(name):
    nib = Sheet().new_nib()
    nib.forward(10)
    nib.lift()
    MOVES[name](nib)
    begun = nib.position
    nib.line_to_start()
    assert nib.position == begun


def test_a_loop_of_turns_keeps_what_its_body_turns(nib):
    nib.left(20)
    headings = []
    for i in nib.full_turn(4):
        headings.append(nib.heading)
        nib.left(5 * i)
    # Each body's own turn is added to the quarters: 20, 110, 205, 305, and 50 at the end.
    assert headings == pytest.approx([20, 110, 205, 305])
    assert nib.heading == pytest.approx(50)
    with pytest.raises(BadValue, match="full_turn: rounds must be 1 or more"):
        nib.full_turn(5, rounds=0)
    with pytest.raises(BadValue, match="full_turn: count must be 1 or more"):
        nib.full_turn(0)
    assert [nib.heading for _ in nib.full_turn(1)] == [pytest.approx(50)]


def test_two_styled_blocks_that_end_in_the_wrong_order_leave_the_style_as_it_was(nib):
    first, second = nib.styled(ink="gold", line_width=5), nib.styled(ink="navy")
    first.__enter__()
    second.__enter__()
    with pytest.raises(BadUse, match="styled: this block is already open"):
        second.__enter__()
    first.__exit__(None, None, None)
    assert (nib.ink.css, nib.line_width) == ("#000080", 2)
    second.__exit__(None, None, None)
    assert (nib.ink.css, nib.line_width) == ("#000000", 2)


def test_an_arc_of_no_radius_turns_and_one_too_far_is_refused(nib):
    nib.arc_left(0, 90)
    assert nib.pose == (0, 0, 90)
    with pytest.raises(BadValue, match="arc_left: this would lead to"):
        nib.arc_left(9e6, 180)
    assert nib.pose == (0, 0, 90)
    nib.walk([], [])
    assert nib.pose == (0, 0, 90)
    with pytest.raises(Exception, match=r"line_dash: give lengths, not 'dashed'; \(6, 4\) makes"):
        nib.line_dash = "dashed"
    nib.polyline(np.array([[5.0, 6.0], [7.0, 9.0]]))
    assert nib.position == (7, 9)


def test_pythons_own_messages_speak_of_the_nib(nib):
    with pytest.raises(TypeError, match=r"nib\.forward\(\) missing 1 required positional argument"):
        nib.forward()


def test_a_spiral_has_arcs_as_wide_as_it_may(nib):
    # By the bound in its docstring: 60 · tolerance / steepest, in radians, and 15 degrees at most.
    for rounds, radius, inner in ((3, 400, 0), (10, 900, 500), (1, 20, 19.999)):
        steepest = (1 - inner / radius) / (2 * math.pi * rounds)
        widest = min((60 * min(0.005 / radius, 1e-4) / steepest) ** (1 / 3), math.pi / 12)
        assert piece_count(rounds, radius, inner, "linear") == math.ceil(2 * math.pi * rounds / widest - 1e-9)
    nib.spiral(5, 50, inner_radius=50)
    assert len(nib.sheet._columns.arcs) == 120
