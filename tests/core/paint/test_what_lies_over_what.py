"""What lies over what, and what belongs together: marks with others between them, stamps, copies, stops."""

from __future__ import annotations

import copy
import io

import numpy as np
import pytest
from PIL import Image

from ovlo import Motif, Sheet
from ovlo.core.check.seeing.raster import spans
from ovlo.core.compare.compare import compare
from ovlo.core.paint.order import painted
from ovlo.core.paint.outlines import strokes
from ovlo.core.paint.regions import region
from ovlo.core.paint.stretch import Parts
from ovlo.core.sheet.host import Stop, hosted
from ovlo.core.sheet.step_table import gaps
from ovlo.core.trail.columns import Text
from ovlo.core.trail.origins import Recorder
from ovlo.outlets import as_bytes
from ovlo.render.formats.png import rasterise
from ovlo.render.frames import Frames
from ovlo.render.page import Page


def pixels(sheet: Sheet) -> np.ndarray:
    return np.asarray(Image.open(io.BytesIO(as_bytes(sheet, ".png"))).convert("RGB")).astype(int)


def kinds(sheet: Sheet) -> list[str]:
    """What the marks are, the lowest first."""
    return [
        "text"
        if isinstance(mark, Text)
        else "+".join(filter(None, (mark.fill and "area", mark.style and "line")))
        for mark in painted(sheet._columns).marks
    ]


def test_words_lie_over_the_small_shapes_before_them(nib):
    for _ in range(3):
        nib.circle(60, fill="gold")
    nib.text("III", size=80, align="middle", baseline="middle")
    assert (pixels(nib.sheet)[220:260, 300:340].sum(axis=2) < 60).sum() > 200


@pytest.mark.parametrize("between", ["text", "area"])
def test_a_line_with_a_mark_in_the_middle_lies_under_and_over_it(nib, between):
    other = nib.sheet.new_nib()
    nib.forward(50)
    if between == "text":
        nib.text("kite")
    else:
        other.circle(9, fill="gold", outline=False)
    nib.forward(50)
    assert kinds(nib.sheet) == ["line", between, "line"]
    assert len(strokes(nib.sheet._columns)) == 2


def test_the_outline_of_an_area_lies_over_words_written_between(nib):
    with nib.area("gold"):
        nib.text("kite")
        for _ in nib.full_turn(4):
            nib.forward(40)
    assert kinds(nib.sheet) == ["area", "text", "line"]
    nib.circle(9, fill="gold")
    assert kinds(nib.sheet)[3:] == ["area+line"]


@pytest.mark.parametrize(("cap", "count"), [("round", 78), ("square", 100), ("butt", 0)])
def test_a_line_of_no_length_shows_its_caps(cap, count):
    sheet = Sheet(60, 60)
    nib = sheet.new_nib()
    nib.line_width, nib.line_cap = 10, cap
    nib.forward(0)
    assert (pixels(sheet)[..., 0] < 128).sum() == pytest.approx(count, abs=6)


def test_stamps_have_contours_and_widths_of_their_own(nib):
    def wings(nib):
        nib.forward(20)
        nib.travel(5)
        nib.forward(20)

    gull = Motif.record(wings)
    nib.stamp(gull, scale=3)
    nib.stamp(gull)
    nib.forward(5)
    columns = nib.sheet._columns
    drawn = columns.runs[columns.is_traced]
    assert len(set(drawn["contour"].tolist())) == 5
    assert [columns.styles[number].line_width for number in drawn["style"]] == [6, 6, 2, 2, 2]


def test_a_copy_goes_on_with_contours_origins_and_pens_of_its_own():
    with hosted(recorder=Recorder(lambda file: file == __file__)):
        sheet = Sheet()
        nib = sheet.new_nib()
        nib.forward(30)
        for _ in range(6):
            nib.travel(5)
            nib.forward(30)
        nib.lift()
        line = sheet._origins.of_step(1).line
    other = copy.deepcopy(sheet)
    assert other._origins.of_step(1).line == line
    (pen,) = other.nibs
    assert pen.is_lifted
    pen.forward(40)
    pen.lower()
    pen.forward(7)
    columns = other._columns
    assert columns.is_drawn.sum() == 8
    contours = columns.runs["contour"][columns.is_traced].tolist()
    assert len(set(contours)) == 8


def test_steps_of_stamps_are_counted_and_a_stop_freezes_the_trail():
    with hosted(step_limit=60):
        nib = Sheet().new_nib()
        bow = Motif.record(lambda nib: [nib.forward(1) for _ in range(20)])
        with pytest.raises(Stop):
            [nib.stamp(bow) for _ in range(9)]
        length = len(nib.sheet.trail)
        assert length < 60
        for act in (lambda: nib.forward(9), lambda: nib.stamp(bow), lambda: nib.text("kite")):
            with pytest.raises(Stop):
                act()
        assert len(nib.sheet.trail) == length
        assert not nib.sheet._columns.texts


def test_a_stop_from_outside_freezes_the_trail_though_steps_are_left():
    with hosted(step_limit=1000) as host:
        nib = Sheet().new_nib()
        nib.forward(9)
        with pytest.raises(Stop):
            host.stop("it ran longer than")
        with pytest.raises(Stop):
            nib.forward(9)
        assert len(nib.sheet.trail) == 2


def test_after_returning_the_contour_before_it_goes_on(nib):
    nib.forward(50)
    with nib.returning():
        nib.left(40)
        nib.forward(20)
    nib.left(90)
    nib.forward(30)
    nib.line_to_start()
    assert nib.position == (0, 0)


STAR = np.array([[0, 10], [6, -8], [-9.5, 3], [9.5, 3], [-6, -8], [0, 10]], float)


def inside(vertices, codes, rule, size):
    """The numbers of the pixels inside one border, and none of them twice."""
    found = spans(vertices, codes, np.array([0, len(codes)]), np.array([rule == "evenodd"]), (size, size))
    pixels = found.pixels(size)[0].tolist()
    assert len(set(pixels)) == len(pixels)
    return pixels


@pytest.mark.parametrize(("rule", "is_inside"), [("nonzero", True), ("evenodd", False)])
def test_the_middle_of_a_star_is_inside_by_one_rule_only(rule, is_inside):
    codes = np.array([1, 2, 2, 2, 2, 79], np.uint8)
    assert (12 * 24 + 12 in inside(STAR + 12, codes, rule, 24)) == is_inside
    assert (region(STAR, codes, rule).area > 100) == is_inside


def test_two_rings_of_one_sense_are_no_hole_by_winding():
    outer = np.array([[0, 0], [20, 0], [20, 20], [0, 20], [0, 0]], float)
    squares = np.vstack([outer, outer / 2 + 5])
    codes = np.array([1, 2, 2, 2, 79] * 2, np.uint8)
    for rule, area in (("nonzero", 400), ("evenodd", 300)):
        assert len(inside(squares, codes, rule, 20)) == area
        assert region(squares, codes, rule).area == area


def test_a_line_that_shows_through_a_slit_is_not_called_covered():
    sheet = Sheet(640, 480)
    nib = sheet.new_nib(-50)
    nib.ink = "red"
    nib.line_width = 1
    nib.forward(100)
    for x, width in ((-30.2, 59), (30.2, 59)):
        nib.travel_to(x, 0)
        nib.rectangle(width, 30, fill="navy", outline=False)
    slit = [one.rule for one in sheet.check()]
    nib.travel_to(0, 0)
    nib.rectangle(9, 30, fill="navy", outline=False)
    assert ("covered" in slit, "covered" in [one.rule for one in sheet.check()]) == (False, True)


def test_a_gap_is_a_gap_in_millimetres_too():
    sheet = Sheet(100, 100, unit="mm")
    nib = sheet.new_nib()
    for _ in range(3):
        nib.forward(2)
        nib.left(120)
    nib.forward(0.2)
    assert gaps(sheet) == [pytest.approx(0.2)]


def check_frames(sheet: Sheet) -> None:
    """Each frame is the picture after so many steps."""
    columns, page = sheet._columns, Page.of(sheet)
    frames, parts = Frames(columns, page), Parts(columns)
    for steps in range(len(columns)):
        frames.jump(steps)
        apart = np.abs(frames.pixels.astype(int) - rasterise(parts.until(steps), page)).max(axis=2)
        assert (apart > 64).mean() < 0.0005, steps


def test_nested_areas_that_end_together_appear_in_their_order():
    sheet = Sheet(200, 200)
    nib = sheet.new_nib(-50, -50)
    with nib.area("gold"), nib.area("navy", outline=False):
        for _ in nib.full_turn(4):
            nib.forward(100)
    nib.travel_to(-20, -20)
    with nib.area("tomato"):
        nib.text("kite", size=40)
        nib.text("kite", size=20)
        for _ in nib.full_turn(4):
            nib.forward(40)
    nib.forward(20)
    check_frames(sheet)


def test_areas_of_two_nibs_that_overlap_in_time_appear_as_in_the_saved_picture():
    sheet = Sheet(200, 200)
    a, b = sheet.new_nib(-60, -60), sheet.new_nib(-20, -20)
    first, second = a.area("gold"), b.area("navy")
    first.__enter__()
    a.forward(80)
    second.__enter__()
    b.forward(80)
    for nib in (a, b):
        nib.left(90)
        nib.forward(80)
    a.left(90)
    a.forward(80)
    first.__exit__(None, None, None)
    b.left(90)
    b.forward(80)
    second.__exit__(None, None, None)
    a.forward(5)
    check_frames(sheet)


def test_a_stretch_keeps_areas_and_words_in_their_order_and_at_their_steps(nib):
    piece = Motif.record(lambda nib: [nib.text("bow"), nib.circle(5, fill="gold")])
    nib.stamp(piece)
    nib.text("over the bow")
    nib.circle(9, fill="navy")
    nib.text("last")
    columns = nib.sheet._columns
    for steps in range(len(columns) + 1):
        part = Parts(columns).until(steps)
        shown = [mark.words if isinstance(mark, Text) else mark.fill.hex for mark in painted(part).marks]
        assert shown == ["bow", "#ffd700", "over the bow", "#000080", "last"][: len(shown)]
        words = {text.words for text in part.texts}
        assert words == {text.words for text in columns.texts if text.step < steps or steps == len(columns)}


def test_the_uppermost_of_two_lines_tells_pictures_apart():
    def crossed(first: str, second: str):
        sheet = Sheet()
        nib = sheet.new_nib()
        for ink in (first, second):
            nib.ink = ink
            nib.forward(100)
            nib.back(100)
        return sheet._columns

    found = compare(crossed("red", "blue"), crossed("blue", "red"))
    assert any("blue" in words or "#0000ff" in words for words in found.words)
    # What nobody sees beneath is no difference.
    assert not compare(crossed("red", "blue"), crossed("lime", "blue")).words


def test_a_cut_circle_is_arcs_that_end_at_the_border(nib):
    nib.circle(40)
    whole = nib.sheet.cropped(-60, -60, 120, 120)._columns
    assert len(whole.arcs) == 1
    assert (whole.is_drawn.sum(), whole.arcs["sweep"].tolist()) == (1, [360])
    half = nib.sheet.cropped(0, -60, 60, 120, whole=False)._columns
    assert half.arcs["sweep"].sum() == pytest.approx(180)
    assert half.is_drawn.sum() == len(half.arcs)
