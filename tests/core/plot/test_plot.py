"""What a plotter draws of a picture: what is seen of it, hatched, with the pens there are, on a page."""

from __future__ import annotations

import math

import numpy as np
import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from ovlo import BadValue, Colour, Sheet
from ovlo.core.plot import hatching
from ovlo.core.plot.pens import Pen
from ovlo.core.plot.placing import placed
from ovlo.core.plot.plot import Plotted, Wishes, plot
from ovlo.core.plot.strokes import Strokes
from ovlo.core.values.colour import parse
from ovlo.render import lettering

WIDTH = 0.5


def plotted(sheet: Sheet, page=None, margin=0.0, fit_to=None, **wishes) -> Plotted:
    placing = placed((sheet.width, sheet.height), sheet.unit, page, margin, fit_to, "plot")
    return plot(sheet._columns, placing, Wishes(**wishes), lettering.glyphs, sheet.paper, "plot")


def paper(width=100, height=100) -> tuple[Sheet, object]:
    sheet = Sheet(width, height, unit="mm")
    nib = sheet.new_nib()
    nib.line_width = WIDTH
    return sheet, nib


def lines(run):
    points, firsts = run.strokes.flat(1e-3)
    return shapely.MultiLineString(np.split(points, firsts[1:-1]))


def length(found: Plotted) -> float:
    return sum(run.drawn for run in found.runs)


def test_an_opaque_area_hides_what_is_beneath_and_a_translucent_one_does_not():
    sheet, nib = paper()
    nib.travel_to(-40, 0)
    nib.line_to(40, 0)
    nib.travel_to(0, 0)
    nib.rectangle(20, 20, fill="gold")
    assert length(plotted(sheet, hatch="none")) == pytest.approx(80 - 20 + 80, abs=0.01)
    assert length(plotted(sheet, hatch="none", hidden_lines="keep")) == pytest.approx(160)
    sheet.clear()
    nib.rectangle(20, 20)
    nib.rectangle(60, 60, fill="rgb(0 0 0 / 50%)", outline=False)
    assert length(plotted(sheet, hatch="none")) == pytest.approx(80)


@pytest.mark.parametrize("outline", [True, False])
@pytest.mark.parametrize("turn", [0, 17.3])
def test_a_shared_edge_is_drawn_once_and_goes_only_if_the_later_area_draws_it(outline, turn):
    sheet, nib = paper()
    nib.left(turn)
    for place, has_line in ((-10, True), (10, outline)):
        with nib.returning():
            nib.travel(place)
            nib.rectangle(20, 20, fill="gold", outline=has_line)
    # Seven edges of 20, one of them shared.
    assert length(plotted(sheet, hatch="none")) == pytest.approx(140 if outline else 80, abs=0.02)


def test_a_chequered_floor_is_drawn_with_every_edge_once():
    sheet, nib = paper()
    for row in range(6):
        for column in range(6):
            nib.travel_to(-25 + 10 * column + row / 3, -25 + 10 * row)
            nib.rectangle(10, 10, fill="gold" if (row + column) % 2 else "white")
    (run,) = plotted(sheet, hatch="none").runs
    found = lines(run)
    # Drawn once: none of its length is lost when it is taken as a set of points.
    assert shapely.union_all(found, grid_size=1e-4).length == pytest.approx(run.drawn, rel=1e-4)


@given(
    st.lists(
        st.tuples(
            st.floats(-30, 30), st.floats(-30, 30), st.floats(2, 20), st.sampled_from(["gold", "teal"])
        ),
        min_size=1,
        max_size=8,
    )
)
@settings(max_examples=25)
def test_of_circles_on_each_other_the_outlines_that_are_seen_are_drawn(circles):
    sheet, nib = paper()
    for x, y, radius, fill in circles:
        nib.travel_to(x, y)
        nib.circle(radius, fill=fill)
    discs = [shapely.Point(x + 50, y + 50).buffer(radius, quad_segs=200) for x, y, radius, _ in circles]
    rings = [disc.boundary for disc in discs]
    wanted = shapely.union_all(
        [ring.difference(shapely.union_all(discs[i + 1 :])) for i, ring in enumerate(rings)]
    )
    found = shapely.union_all([lines(run) for run in plotted(sheet, hatch="none").runs])
    assert found.difference(wanted.buffer(0.06)).length < 0.01
    assert wanted.difference(found.buffer(0.06)).length < 0.01


@pytest.mark.parametrize("hatch", ["parallel", "crosshatch", "concentric"])
@pytest.mark.parametrize("gap", [None, 2.0])
def test_what_fills_an_area_is_inside_and_leaves_no_gap(hatch, gap):
    sheet, nib = paper()
    nib.line_width = 0.2
    with nib.area("tomato", outline=False, fill_rule="evenodd"):
        nib.line_to(40, 0)
        nib.line_to(45, 40)
        nib.line_to(5, 15)
        nib.line_to(-30, 45)
        nib.line_to(-5, -10)
        nib.travel_to(10, 5)
        nib.circle(4)
    (run,) = plotted(sheet, hatch=hatch, hatch_spacing=gap).runs
    width = run.pen.line_width
    border = shapely.Polygon([(50, 50), (90, 50), (95, 90), (55, 65), (20, 95), (45, 40)])
    area = border - shapely.Point(60, 55).buffer(4)
    inked = lines(run).buffer(width / 2)
    assert shapely.covers(area.buffer(0.1 * width + 0.01), inked)
    # No point inside is farther from a line than the gap: the border's slant, and corners, set apart.
    assert shapely.area(area.buffer(-width) - lines(run).buffer((gap or width) * 1.2)) < 0.02 * area.area


def test_a_hatch_goes_to_and_fro_without_lifting():
    sheet, nib = paper()
    nib.rectangle(40, 30, fill="tomato", outline=False)
    (run,) = plotted(sheet).runs
    assert (run.lifts, run.drawn > 1200 / run.pen.line_width * 0.9) == (1, True)


def test_words_are_the_outlines_of_their_letters():
    sheet, nib = paper()
    nib.text("Oo", size=20)
    (run,) = plotted(sheet, hatch="none").runs
    assert run.lifts == 4
    assert run.strokes.is_closed(0.05).all()


def test_dashes_are_strokes_and_dots_are_kept():
    sheet, nib = paper()
    nib.line_dash, nib.line_cap = (3, 2), "butt"
    nib.forward(20)
    nib.line_dash = ()
    nib.travel_to(-20, 20)
    nib.forward(0)
    (run,) = plotted(sheet).runs
    assert sorted(run.strokes.lengths.round(2).tolist()) == [0.0, 3.0, 3.0, 3.0, 3.0]


def test_each_ink_has_a_pen_as_wide_as_most_of_its_lines_and_a_tray_the_nearest():
    sheet, nib = paper()
    for ink, width in (("tomato", 0.5), ("navy", 0.5), ("tomato", 0.6)):
        nib.ink, nib.line_width = ink, width
        nib.forward(10 * width)
    found = plotted(sheet)
    assert [(run.pen.ink.hex, run.pen.line_width) for run in found.runs] == [
        ("#ff6347", 0.6),
        ("#000080", 0.5),
    ]
    assert {run.pen.line_width for run in plotted(sheet, pen_width=0.2).runs} == {0.2}
    tray = Pen("red", parse("red", "test"), 0.5), Pen("blue", parse("blue", "test"), 0.7)
    found = plotted(sheet, tray=tray)
    assert [(run.pen.name, round(run.drawn)) for run in found.runs] == [("red", 11), ("blue", 5)]
    assert [(one.pen.name, one.unlike > 1) for one in found.replaced] == [
        ("red", True),
        ("blue", True),
    ]


@pytest.mark.parametrize("width", [1.1, 1.6, 2.05, 3.3, 4])
@pytest.mark.parametrize("cap", ["butt", "square", "round"])
def test_a_line_wider_than_its_pen_is_filled_to_its_edge_and_no_further(cap, width):
    sheet, nib = paper()
    nib.line_cap, nib.line_width = cap, width
    ends = {"butt": 0, "square": width**2, "round": math.pi * (width / 2) ** 2}
    area = 40 * width + ends[cap]
    nib.forward(40)
    found = plotted(sheet, pen_width=0.5)
    covered = lines(found.runs[0]).buffer(0.25)
    assert (found.wide_lines, found.fine_lines) == (1, 0)
    assert covered.area == pytest.approx(area, rel=0.01)
    (one,) = plotted(sheet, pen_width=0.8 * width).runs
    assert (len(one.strokes), round(one.drawn)) == (1, 40)
    assert plotted(sheet, pen_width=2 * width).fine_lines == 1


def test_a_border_is_drawn_after_what_fills_it_even_if_its_ink_is_lighter():
    sheet, nib = paper()
    nib.ink, nib.line_width = "gold", 0.5
    nib.circle(15, fill="navy")
    assert [run.pen.ink.hex for run in plotted(sheet).runs] == ["#000080", "#ffd700"]


@pytest.mark.parametrize(
    ("order", "inks"),
    [("light-first", ["gold", "tomato", "navy"]), ("as-drawn", ["navy", "gold", "tomato"])],
)
def test_pens_that_need_not_lie_on_one_another_go_as_wished(order, inks):
    sheet, nib = paper()
    given = {ink: parse(ink, "test") for ink in ("navy", "gold", "tomato")}
    for ink, x in zip(given, (-30, 0, 30), strict=True):
        nib.ink = ink
        nib.travel_to(x, 0)
        nib.circle(5)
    assert [run.pen.ink for run in plotted(sheet, pen_order=order).runs] == [given[ink] for ink in inks]


def test_hatching_ends_beneath_the_line_of_the_border():
    sheet, nib = paper()
    nib.ink, nib.line_width = "gold", 2
    nib.rectangle(40, 40, fill="navy")
    fill = plotted(sheet, hatch="concentric").runs[0]
    inked = lines(fill).buffer(fill.pen.line_width / 2)
    low, _, high, _ = inked.bounds
    assert high - low == pytest.approx(40 - 2 / 2)  # a quarter of the border on each side


def test_the_round_end_of_a_hidden_wide_line_does_not_reach_over_what_hides_it():
    sheet, nib = paper()
    nib.line_cap, nib.line_width = "round", 4
    nib.forward(40)
    nib.ink = "gold"
    nib.travel_to(40, 0)
    nib.circle(15, fill="gold", outline=False)
    black = plotted(sheet).runs[-1]
    assert black.drawn == pytest.approx(40 - 15 - 2, abs=0.1)


def test_a_thousand_inks_are_put_in_order_without_a_table_of_all_pairs():
    sheet, nib = paper()
    for number in range(1000):
        nib.ink = Colour.from_rgb(number % 256, number // 256, 0)
        nib.forward(1)
        nib.left(7)
    assert len(plotted(sheet).runs) == 1000


def test_what_leaves_the_page_is_cut_and_told():
    sheet, nib = paper()
    nib.line_to(80, 0)
    found = plotted(sheet, page=(60.0, 90.0), margin=5.0)
    assert (found.cut_marks, length(found)) == (1, pytest.approx(25))
    found = plotted(sheet, page=(60.0, 90.0), margin=5.0, fit_to=(0.0, -1.0, 80.0, 1.0))
    assert (found.cut_marks, length(found)) == (0, pytest.approx(50))
    with pytest.raises(BadValue, match="leave no room on a page of 60 × 90 mm; take less than 30 mm"):
        plotted(sheet, page=(60.0, 90.0), margin=30.0)


def test_what_has_the_colour_of_the_paper_hides_and_is_not_drawn():
    sheet, nib = paper()
    nib.forward(30)
    nib.travel_to(15, 0)
    nib.circle(5, fill="white", outline=False)
    found = plotted(sheet)
    assert (found.paper_marks, length(found)) == (1, pytest.approx(20, abs=0.05))


def test_lines_in_the_colour_of_the_paper_leave_it_free():
    sheet, nib = paper()
    nib.rectangle(30, 30, fill="navy", outline=False)
    solid = shapely.union_all(bands(plotted(sheet)))
    nib.ink, nib.line_width = "white", 4
    nib.travel_to(-20, 0)
    nib.line_to(20, 0)
    nib.ink = "rgb(255 255 255 / 50%)"  # mixed with what is beneath, and so not free
    nib.travel_to(0, -20)
    nib.line_to(0, 20)
    found = plotted(sheet)
    free = shapely.difference(solid, shapely.union_all(bands(found)))
    assert shapely.area(free) == pytest.approx(4 * 30, rel=0.2)
    assert found.paper_marks == 2


def bands(found):
    """What the pens cover."""
    (run,) = found.runs
    points, firsts = run.strokes.flat(1e-3)
    strokes = [shapely.linestrings(part) for part in np.split(points, firsts[1:-1])]
    return shapely.buffer(strokes, run.pen.line_width / 2)


def test_words_too_small_for_their_pen_are_counted():
    sheet, nib = paper()
    nib.forward(30)
    nib.text("Kite", size=4)
    nib.text("Bay", size=20)
    assert plotted(sheet, pen_width=0.5).small_words == 1
    assert plotted(sheet, pen_width=0.3).small_words == 0


def test_the_drawn_order_can_be_kept():
    sheet, nib = paper()
    for x in (30, -30, 20, -20):
        nib.travel_to(x, 0)
        nib.forward(3)
    (kept,) = plotted(sheet, stroke_order="as-drawn").runs
    (short,) = plotted(sheet).runs
    assert (kept.strokes.starts[:, 0] - 50).round().tolist() == [30, -30, 20, -20]
    assert short.travel < kept.travel == kept.travel_before == short.travel_before


def test_more_than_five_million_strokes_are_refused_with_their_number():
    sheet, nib = paper()
    nib.rectangle(90, 90, fill="gold", outline=False)
    with pytest.raises(BadValue, match=r"would need \d\d,\d{3},\d{3} strokes; the limit is 5,000,000"):
        plotted(sheet, hatch_spacing=5e-6)


def test_wide_lines_hide_what_they_are_drawn_over():
    sheet, nib = paper()
    nib.ink = "navy"
    nib.line_width = 6
    nib.line_cap = "butt"
    nib.travel_to(-40, 0)
    nib.line_to(40, 0)
    nib.ink = "crimson"
    nib.travel_to(0, -40)
    nib.line_to(0, 40)
    over = plotted(sheet, pen_width=0.5)
    inked = {run.pen.ink.hex: shapely.union_all(shapely.buffer(lines(run), 0.25)) for run in over.runs}
    crossing = shapely.box(48, 48, 52, 52)
    assert shapely.intersection(inked["#000080"], crossing).area == pytest.approx(0, abs=0.2)
    assert shapely.intersection(inked["#dc143c"], crossing).area == pytest.approx(16, rel=0.05)
    kept = plotted(sheet, pen_width=0.5, hidden_lines="keep")
    both = [shapely.union_all(shapely.buffer(lines(run), 0.25)) for run in kept.runs]
    assert all(shapely.intersection(one, crossing).area > 14 for one in both)


def test_of_two_pens_of_one_ink_the_nearer_width_is_taken():
    sheet, nib = paper()
    nib.line_width = 0.8
    nib.forward(20)
    tray = [Pen(f"{width} mm", parse("black", "test"), width) for width in (0.3, 0.8, 1.4)]
    (run,) = plotted(sheet, tray=tuple(tray)).runs
    assert run.pen is tray[1]


@pytest.mark.parametrize("times", [3, 1])
def test_pens_that_lie_on_each_other_go_by_how_often(times):
    """Navy lies on gold three times, gold on navy once: navy is the last; and the other way round."""
    sheet, nib = paper()
    for x, (beneath, above) in enumerate([("gold", "navy")] * times + [("navy", "gold")] * (4 - times)):
        nib.travel_to(-40 + 25 * x, 0)
        nib.rectangle(20, 20, fill=beneath, outline=False)
        with nib.styled(ink=above):
            nib.forward(5)
    names = [run.pen.ink for run in plotted(sheet, pen_order="as-drawn").runs]
    inks = [parse("gold", "test"), parse("navy", "test")]
    assert names == (inks if times == 3 else inks[::-1])


def test_a_triangle_is_filled_as_a_square_is():
    sheet, nib = paper()
    nib.polygon(3, radius=20, fill="gold", outline=False)
    assert length(plotted(sheet, hatch_spacing=1)) == pytest.approx(20**2 * 3 * 3**0.5 / 4, rel=0.15)


def test_nothing_is_hatched_without_areas_and_nothing_is_small_without_words():
    sheet, nib = paper()
    nib.forward(20)
    found = plotted(sheet, hatch="crosshatch", hatch_spacing=1)
    assert (length(found), found.small_words, found.narrow_areas) == (20, 0, 0)


def test_on_transparent_paper_ink_looks_as_on_white():
    for colour in ("transparent", "white"):
        sheet = Sheet(100, 100, paper=colour, unit="mm")
        nib = sheet.new_nib()
        nib.ink = "rgb(255 0 0 / 50%)"
        nib.forward(20)
        assert [run.pen.ink.hex for run in plotted(sheet).runs] == ["#ff8080"]


def test_a_wide_line_that_comes_back_to_its_start_has_a_corner_there():
    sheet, nib = paper()
    nib.line_width, nib.line_cap, nib.line_join = 6, "butt", "miter"
    for _ in nib.full_turn(4):
        nib.forward(40)
    found = plotted(sheet, pen_width=0.5)
    covered = lines(found.runs[0]).buffer(0.25, cap_style="flat", join_style="mitre")
    assert covered.area == pytest.approx(46**2 - 34**2, rel=0.003)


def test_a_plot_and_its_wishes_cannot_be_changed_and_nothing_has_no_length():
    sheet, nib = paper()
    nib.forward(20)
    for one in (plotted(sheet), Wishes()):
        with pytest.raises(AttributeError):
            one.marks = 3
    assert Strokes.of_lines(np.empty((0, 2)), np.empty(0, np.int64)).lengths.sum() == 0


def test_lines_that_meet_are_one_stroke_wherever_each_begins():
    sheet, nib = paper()
    for begin, end in (((0, 0), (20, 0)), ((0, 0), (0, 20)), ((20, 0), (20, 20))):
        nib.travel_to(*begin)
        nib.line_to(*end)
    (run,) = plotted(sheet).runs
    assert (len(run.strokes), run.drawn) == (1, 60)


def test_all_strokes_together_are_counted_against_the_limit(monkeypatch):
    monkeypatch.setattr(hatching, "MOST_STROKES", 55)
    sheet, nib = paper()
    nib.rectangle(40, 40, fill="gold", outline=False)
    assert plotted(sheet, hatch_spacing=1).marks == 1
    for y in range(-30, 30):
        nib.travel_to(30, y)
        nib.forward(5)
    with pytest.raises(BadValue, match=r"would need \d\d strokes; the limit is 55"):
        plotted(sheet, hatch_spacing=1)
