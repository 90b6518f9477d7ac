"""What once came out wrong: clearing inside blocks, blocks out of order, stamps, mirrored words, mitres."""

from __future__ import annotations

import copy
import io
import pickle
import re

import numpy as np
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image

import ovlo
from ovlo import BadType, BadUse, BadValue, Motif, OvloError, Sheet, drawing
from ovlo.core.paint.cutting import cut
from ovlo.core.paint.outlines import LINE, MOVE, Outline, borders, strokes
from ovlo.core.sheet.host import Stop, hosted
from ovlo.core.trail.columns import TABLES
from ovlo.core.trail.rows import packer
from ovlo.core.values.errors import NoEffect
from ovlo.outlets import as_bytes
from ovlo.render import lettering


def svg(sheet: Sheet) -> str:
    return as_bytes(sheet, ".svg").decode()


def test_clearing_inside_an_area_goes_on_with_the_area(nib):
    sheet = nib.sheet
    with nib.area("tomato"):
        nib.forward(50)
        sheet.clear()
        for _ in nib.full_turn(3):
            nib.forward(40)
    nib.circle(9)
    assert len(borders(sheet._columns)) == 1
    assert svg(sheet).count("#ff6347") == 1
    sheet.check()


def test_clearing_inside_returning_lets_a_later_closing_begin_anew(nib):
    nib.forward(30)
    with nib.returning():
        nib.left(90)
        nib.forward(20)
        nib.sheet.clear()
        nib.forward(10)
    assert nib.pose == (30, 0, 0)
    nib.forward(50)
    nib.left(90)
    nib.forward(50)
    nib.line_to_start()
    assert nib.position == (30, 0)


@pytest.mark.parametrize("first", [0, 1])
def test_blocks_that_end_out_of_their_order_leave_the_nib_as_it_was(nib, first):
    def walked():
        with nib.area("gold", outline=False), nib.lifted(), nib.styled(ink="red"), nib.returning():
            nib.forward(20)
            yield
            nib.left(30)

    walks = [walked(), walked()]
    for walk in walks:
        next(walk)
    for walk in (walks[first], walks[1 - first]):
        next(walk, None)
    assert (nib.is_lifted, nib.ink.hex, nib.pose) == (False, "#000000", (0, 0, 0))
    nib.forward(9)
    columns = nib.sheet._columns
    assert columns.of_steps("area")[-1] == -1
    assert columns.is_drawn[-1]
    svg(nib.sheet)


def test_a_line_after_a_stamp_is_joined_to_nothing_else(sheet):
    a, b = sheet.new_nib(-100), sheet.new_nib(100)
    a.stamp(Motif.record(lambda nib: nib.forward(40)))
    _ = sheet.trail.x
    b.forward(50)
    drawn = strokes(sheet._columns)
    assert drawn.vertices[drawn.moves].tolist() == [[-100, 0], [100, 0]]


@pytest.mark.parametrize("axis", [0, 30, 90, 150])
@pytest.mark.parametrize("align", ["start", "middle", "end"])
def test_mirrored_words_stay_upright_where_their_mirror_image_is(axis, align):
    words = Motif.record(lambda nib: nib.text("Marrow Bay", size=20, align=align, baseline="middle"))
    (text,) = words.mirrored(axis)._columns.texts
    assert abs((text.heading + 90) % 360 - 90) <= 90
    # The middle of the line of words is mirrored, whichever end they begin at.
    plain = words._columns.texts[0]
    middles = []
    for one in (plain, text):
        shift = {"start": 0.5, "middle": 0.0, "end": -0.5}[one.align] * lettering.width(one)
        middles.append(complex(one.x, one.y) + shift * np.exp(1j * np.radians(one.heading)))
    assert middles[1] == pytest.approx(np.exp(2j * np.radians(axis)) * middles[0].conjugate(), abs=1e-9)


def test_one_limit_for_mitres_in_every_format(nib):
    nib.line_join = "miter"
    nib.line_width = 10
    nib.forward(60)
    nib.left(160)
    nib.forward(60)
    assert 'stroke-miterlimit="10"' in svg(nib.sheet)
    pixels = np.asarray(Image.open(io.BytesIO(as_bytes(nib.sheet, ".png"))).convert("L"))
    reached = int(np.flatnonzero((pixels < 240).any(axis=0)).max())
    # The tip of a mitre lies half the width over the sine of half the corner's angle beyond the corner.
    assert reached == pytest.approx(320 + 60 + 5 / np.sin(np.radians(10)), abs=2)


def test_a_thin_line_is_never_of_width_0(nib):
    nib.line_width = 1e-7
    nib.forward(9)
    (width,) = re.findall(r'stroke-width="([^"]+)"', svg(nib.sheet))
    assert float(width) == pytest.approx(1e-7)


def test_text_that_xml_cannot_hold_is_refused(sheet, nib):
    for bad in ("\ufffe", "\uffff", "\x00", "\x1b", "\ud800"):
        for act in (
            lambda bad=bad: nib.text(f"kite{bad}"),
            lambda bad=bad: nib.text("kite", font=f"serif{bad}"),
            lambda bad=bad: setattr(sheet, "title", f"kite{bad}"),
        ):
            with pytest.raises(BadValue, match="control character"):
                act()
    assert (sheet.title, len(sheet._columns.texts)) == ("", 0)


def test_no_value_of_new_nib_is_dropped(sheet):
    with pytest.raises(BadType, match="heading=90"):
        sheet.new_nib((1, 2), 9)
    assert sheet.new_nib((1, 2), heading=9).pose == (1, 2, 9)
    assert sheet.nibs[0].pose == (1, 2, 9)


def test_closing_twice_is_closing_once(nib):
    nib.line_cap = "square"
    nib.forward(40)
    nib.left(120)
    nib.forward(40)
    nib.line_to_start()
    once = svg(nib.sheet)
    nib.line_to_start()
    assert svg(nib.sheet) == once
    nib.forward(30)
    nib.left(90)
    nib.forward(30)
    nib.line_to_start()
    assert nib.position == pytest.approx((0, 0))
    assert svg(nib.sheet).count("Z") == 2


def test_an_arc_of_too_many_rounds_is_refused(nib):
    with pytest.raises(BadValue, match="1,000 rounds"):
        nib.arc_left(50, 360 * 30000 + 90)
    assert len(nib.sheet.trail) == 1


@pytest.mark.parametrize("y", [0, 49, 55, -57])
def test_a_wide_line_shows_though_its_middle_is_off_the_page(y):
    sheet = Sheet(100, 100)
    nib = sheet.new_nib(-30, y)
    nib.line_width, nib.line_cap = 20, "butt"
    nib.forward(60)
    pixels = np.asarray(Image.open(io.BytesIO(as_bytes(sheet, ".png"))).convert("L"))
    assert (pixels < 128).sum() == 60 * (20 - max(abs(y) + 10 - 50, 0))


@pytest.mark.parametrize("dash", [1e-300, 1e-6, (0.01, 1e-9), (1e-9, 0.01)])
def test_dashes_too_fine_to_be_seen_are_a_paler_line(dash):
    sheet = Sheet(100, 100)
    nib = sheet.new_nib(-40)
    nib.line_dash, nib.line_width, nib.line_cap = dash, 20, "butt"
    nib.forward(80)
    pixels = np.asarray(Image.open(io.BytesIO(as_bytes(sheet, ".png"))).convert("L"))
    share = {1e-300: 0.5, 1e-6: 0.5, (0.01, 1e-9): 1.0, (1e-9, 0.01): 0.0}[dash]
    assert 255 - pixels[45:55, 15:85].mean() == pytest.approx(255 * share, abs=1.5)
    assert 'stroke-dasharray="0' not in svg(sheet)


def test_dashes_go_on_around_corners_and_begin_anew_with_each_piece():
    zigzag = np.array([[0, 0], [10, 0], [10, 10], [0, 5], [5, 5]], float)
    codes = np.array([MOVE, LINE, LINE, MOVE, LINE], np.uint8)
    vertices, kinds = cut(zigzag, codes, (-20, -20, 20, 20), (6, 2))
    assert vertices.tolist() == [[0, 0], [6, 0], [8, 0], [10, 0], [10, 4], [10, 6], [10, 10], [0, 5], [5, 5]]
    assert kinds.tolist() == [MOVE, LINE, MOVE, LINE, LINE, MOVE, LINE, MOVE, LINE]
    # What a box cuts away changes nothing of the dashes that are left.
    vertices, kinds = cut(zigzag, codes, (5, -20, 20, 3), (6, 2))
    assert vertices.tolist() == [[5, 0], [6, 0], [8, 0], [10, 0], [10, 3]]


@given(st.lists(st.tuples(st.integers(-9, 9), st.integers(-9, 9)), min_size=2, max_size=7))
def test_lines_cut_to_a_box_are_what_lies_inside(points):
    vertices = np.array(points, float)
    codes = np.array([MOVE] + [LINE] * (len(points) - 1), np.uint8)
    parts, kinds = cut(vertices, codes, (-4, -3, 5, 6))
    lines = [part for part in np.split(parts, np.flatnonzero(kinds == MOVE)) if len(part)]
    whole = shapely.LineString(points).intersection(shapely.box(-4, -3, 5, 6))
    assert sum(shapely.length(shapely.linestrings(part)) for part in lines) >= whole.length - 1e-6
    assert all((abs(part - (0.5, 1.5)) <= 4.5 + 1e-9).all() for part in lines)


@pytest.mark.parametrize("curve", [lambda nib: nib.circle(5), lambda nib: nib.arc_left(9, 90)])
def test_what_ctrl_c_interrupts_leaves_nothing_to_the_next_step(nib, monkeypatch, curve):
    def interrupted(_: bytes) -> None:
        raise KeyboardInterrupt

    nib.forward(10)
    with monkeypatch.context() as during:
        during.setattr(nib._trail, "record", interrupted)
        with pytest.raises(KeyboardInterrupt):
            curve(nib)
    for _ in range(3):
        nib.forward(10)
    assert 'd="M0 0 10 0 20 0 30 0 40 0"' in svg(nib.sheet)


def test_a_nib_is_copied_with_its_sheet(nib):
    nib.forward(30)
    other = pickle.loads(pickle.dumps(nib))
    other.left(90)
    other.forward(10)
    assert (other.position, nib.position) == ((30, 10), (30, 0))
    assert other.sheet.nibs == (other,)
    with pytest.raises(BadUse, match="no sheet"):
        Motif.record(lambda nib: pickle.dumps(nib))


@pytest.mark.parametrize(
    "shape",
    [
        lambda nib: nib.circle(9, outline=False),
        lambda nib: nib.star(5, 9, outline=False),
        lambda nib: nib.polygon(5, radius=9, outline=False),
        lambda nib: nib.rectangle(5, 9, outline=False),
    ],
)
def test_a_shape_that_leaves_nothing_says_so(nib, shape):
    with pytest.warns(NoEffect, match="neither an outline nor a fill") as told:
        shape(nib)
    assert (told[0].filename, told[0].lineno) == (__file__, shape.__code__.co_firstlineno)
    with nib.area("gold"):
        shape(nib)  # its border is a part of the area


ENDLESS = [
    lambda nib: nib.text("kite", size=1e15),
    lambda nib: nib.spiral(3, 1e18),
    lambda nib: nib.polygon(10_000_000, radius=9),
    lambda nib: nib.star(10**9, 9),
    lambda nib: nib.stamp(Motif.record(lambda nib: nib.circle(9)), scale=1e7),
    lambda nib: Motif.record(lambda nib: nib.circle(9e6)).scaled(2),
    lambda nib: nib.pause(1e9),
    lambda nib: ovlo.ramp("gold", "navy", 10**400),
    lambda nib: nib.walk([9e6] * 3, 0),
    lambda nib: [nib.forward(4e6) for _ in range(3)],
    lambda nib: ovlo.end_to_end([Motif.record(lambda nib: nib.forward(9e6))] * 2),
]


@pytest.mark.parametrize("act", ENDLESS)
def test_what_would_never_come_back_is_refused(nib, act):
    with pytest.raises(BadValue):
        act(nib)
    assert abs(nib._x) <= 1e7
    svg(nib.sheet)


def test_steps_of_a_shape_are_counted_before_they_are_worked_out(monkeypatch):
    with hosted(step_limit=1000):
        nib = Sheet().new_nib()
        monkeypatch.setattr(type(nib), "_corners", lambda *_: pytest.fail("worked out"))
        with pytest.raises(Stop):
            nib.polygon(900_000, radius=9)


def test_cropping_flattens_its_areas_once(nib, monkeypatch):
    for i in range(200):
        nib.travel_to(i - 100, 0)
        nib.circle(30, fill="gold")
    flattened = Outline.flattened
    calls = []
    monkeypatch.setattr(Outline, "flattened", lambda self, *how: calls.append(how) or flattened(self, *how))
    nib.sheet.cropped(-50, -10, 100, 100, whole=False)
    assert len(calls) <= 2


@pytest.mark.parametrize("row_type", TABLES.values(), ids=TABLES)
def test_rows_are_packed_as_numpy_reads_them(row_type):
    values = [
        number + (0.5 if row_type[name].kind == "f" else 0) for number, name in enumerate(row_type.names)
    ]
    assert np.frombuffer(packer(row_type)(*values), row_type)[0].tolist() == tuple(values)


@pytest.mark.parametrize("colour", ["rgb(1e400 0 0)", "oklch(1e999 0.1 200)"])
def test_a_colour_without_end_is_no_black(nib, colour):
    with pytest.raises(BadValue, match="ink: there is no colour"):
        nib.ink = colour


@pytest.mark.parametrize("copied", [copy.deepcopy, lambda sheet: pickle.loads(pickle.dumps(sheet))])
def test_a_copied_sheet_throws_the_dice_from_where_they_were(copied):
    sheet = Sheet(seed=7)
    sheet.dice.integer(1, 1000)
    other = copied(sheet)
    assert [other.dice.integer(1, 1000) for _ in range(5)] == [sheet.dice.integer(1, 1000) for _ in range(5)]
    with pytest.raises(ValueError, match="read-only"):
        other._columns.steps["x"] = 3
    fresh = Sheet()
    assert copied(fresh).seed is None


@pytest.mark.parametrize("copied", [copy.deepcopy, lambda made: pickle.loads(pickle.dumps(made))])
def test_copied_variations_keep_their_pictures(copied, tmp_path):
    varied = drawing(lambda nib, sides=4: nib.polygon(sides, radius=40)).vary(sides=[3, 4, 5])
    varied.save(tmp_path / "kites.html")
    page = (tmp_path / "kites.html").read_bytes()
    assert page.count(b'class="message"') == 3
    copied(varied).save(tmp_path / "again.html")
    assert (tmp_path / "again.html").read_bytes() == page
    with pytest.raises(BadValue, match="takes no scale"):
        varied.save(tmp_path / "again.html", scale=2)


@pytest.mark.parametrize("copied", [copy.deepcopy, lambda sheet: pickle.loads(pickle.dumps(sheet))])
def test_a_copied_sheet_draws_the_nib_as_large_as_before(copied, sheet, nib):
    nib.forward(90)
    how = {"overlay": "pointer", "scale": 3}
    assert as_bytes(copied(sheet), ".png", **how) == as_bytes(sheet, ".png", **how)


class Unwilling:
    """An object that answers every question with an error."""

    def __getattr__(self, name):
        raise RuntimeError(name)


@pytest.mark.parametrize(
    "act",
    [
        lambda sheet: sheet.save(Unwilling()),
        lambda sheet: sheet.new_nib().polyline(Unwilling()),
        lambda sheet: sheet.new_nib().walk(Unwilling(), 9),
        lambda sheet: Motif.from_svg(Unwilling()),
        lambda sheet: sheet.check(skip=[[1], [2]]),
        lambda sheet: sheet.to_bytes("x" * 300_000),
    ],
)
def test_hostile_values_are_refused_in_a_short_sentence(sheet, act):
    with pytest.raises(OvloError) as raised:
        act(sheet)
    assert len(str(raised.value)) < 300
