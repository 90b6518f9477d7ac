"""Pages around pictures, what a file may be called, and what is read and played to its end."""

from __future__ import annotations

import io
import re
import types

import numpy as np
import pytest
from PIL import Image

from ovlo import BadType, BadValue, Motif, Sheet
from ovlo.core.values.colour import WHITE
from ovlo.core.values.finding import Finding
from ovlo.render.additions.contact import Cell, entitle
from ovlo.render.additions.difference import difference_sheet
from ovlo.render.files import checked_path
from ovlo.render.formats import agg
from ovlo.render.lettering import box, words_width
from ovlo.render.page import MARGIN, Page, view
from ovlo.render.plotter.about import PlotDetails
from ovlo.render.plotter.machine import Machine
from ovlo.render.plotter.preview import INKS, preview
from ovlo.render.plotter.table import plot_reader_of
from ovlo.render.svg_reader.path_data import Subpath, subpaths_of


def test_a_page_around_a_motif_has_the_same_room_on_all_sides():
    motif = Motif.record(lambda nib: nib.rectangle(100, 20))
    page = Page.around(motif._columns, (-50, -10, 50, 10), 2, WHITE)
    room = 1 + MARGIN * 100
    assert (page.left, page.bottom) == (-50 - room, -10 - room)
    assert (page.width, page.height) == (100 + 2 * room, 20 + 2 * room)
    assert (page.shown_width, page.shown_height) == (2 * page.width, 2 * page.height)
    tall = Page.around(motif._columns, (-10, -50, 10, 50), 1, WHITE)
    assert (tall.width, tall.height) == (page.height, page.width)


def test_a_box_alone_is_so_many_pixels_across_or_down():
    page = Page.of_box((0, 10, 40, 30), 80)
    assert (page.left, page.bottom, page.width, page.height) == (0, 10, 40, 20)
    assert (page.shown_width, page.shown_height) == (80, 40)
    assert Page.of_box((0, 0, 20, 40), 80).shown_width == 40


def test_a_line_straight_up_is_fitted_and_a_dot_is_not():
    sheet = Sheet(400, 300)
    nib = sheet.new_nib()
    nib.forward(0)
    assert view(sheet, True) == (-200, -150, 400, 300)
    nib.turn_to(90)
    nib.forward(60)
    left, bottom, width, height = view(sheet, True)
    assert height == pytest.approx((1 + 2 * MARGIN) * 62)
    assert (left + width / 2, bottom + height / 2) == pytest.approx((0, 30))
    assert width / height == pytest.approx(400 / 300)


@pytest.mark.parametrize("value", [3, b"kite.svg", None, ["kite.svg"]])
def test_what_is_no_path_is_refused(value):
    with pytest.raises(BadType, match="save: a path must be a string such as"):
        checked_path(value, "save")


@pytest.mark.parametrize("name", ["a\0b.svg", "a\ud800.svg"])
def test_a_name_that_no_file_can_have_is_refused(name):
    with pytest.raises(BadValue, match="save: no file can be called"):
        checked_path(name, "save")


def test_what_is_half_seen_and_half_opaque_lets_three_quarters_through(tmp_path):
    path = tmp_path / "veil.svg"
    path.write_text(
        '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="40">'
        '<path d="M0 0H20V20Z" fill="rgba(0, 0, 0, 0.5)" opacity="0.5"/></svg>'
    )
    (area,) = Motif.from_svg(path)._columns.areas
    assert area["opacity"] == pytest.approx(0.25, abs=0.01)


@pytest.mark.parametrize(("loops", "said"), [(0, 0), (1, None), (2, 1), (3, 2)])
def test_a_gif_plays_as_often_as_is_wished(loops, said, tmp_path):
    sheet = Sheet(60, 40)
    sheet.new_nib().forward(20)
    sheet.animate(tmp_path / "kite.gif", seconds=0.2, fps=10, loops=loops)
    with Image.open(io.BytesIO((tmp_path / "kite.gif").read_bytes())) as film:
        assert film.info.get("loop") == said


def test_a_circle_of_a_machine_is_closed_and_no_longer():
    drawn = plot_reader_of(".hpgl")("IN;SP2;PU2000,1600;CI400;PU0,0;", Machine(), (100, 80))
    (circle,) = (move.points for move in drawn.moves if move.is_down)
    assert np.allclose(circle[0], circle[-1])
    assert np.hypot(*np.diff(circle, axis=0).T).sum() == pytest.approx(2 * np.pi * 10, rel=1e-2)
    steps = np.hypot(*np.diff(circle, axis=0).T)
    assert np.allclose(steps, steps[0])


def test_pens_that_nobody_named_are_drawn_in_inks_of_their_own():
    drawn = plot_reader_of(".hpgl")("IN;SP1;PD400,0;PU;SP2;PD400,400;PU;", Machine(), (100, 80))
    shown = preview(drawn, {}, PlotDetails(), has_travel=False)
    inks = [step.ink for step in shown.steps() if step.kind == "line"]
    assert len(set(inks)) == 2
    assert len(INKS) > 2


def test_a_closed_line_is_given_with_its_first_point_again():
    sheet = Sheet(60, 40)
    sheet.new_nib().rectangle(20, 10)
    (path,) = sheet.paths()
    assert len(path.contours[0]) == 5
    assert path.contours[0][0].tolist() == path.contours[0][-1].tolist()
    assert path.is_closed == (True,)


def test_a_line_that_goes_on_after_it_came_back_is_open():
    sheet = Sheet(60, 40)
    nib = sheet.new_nib()
    nib.rectangle(20, 10)
    nib.forward(20)
    (path,) = sheet.paths()
    assert path.is_closed == (True, False)


def test_path_data_is_read_into_its_subpaths_and_arcs_are_left_to_others():
    assert subpaths_of("M0 0l10 0v5hz") == ([Subpath(0j, [10 + 0j, 10 + 5j], [], False)], False)
    assert subpaths_of("M0 0L9") == ([], False)
    assert subpaths_of("L9 9") == ([], False)
    (line, curve), is_valid = subpaths_of("m1 2l10 0v5z m3,4 c1 0 1 1 0 1")
    assert line == Subpath(1 + 2j, [11 + 2j, 11 + 7j, 1 + 2j], [], True)
    assert curve == Subpath(4 + 6j, [4 + 7j], [(0, 1 + 0j, 1 + 1j, 0.0)], False)
    assert is_valid


def test_times_of_an_svg_that_draws_itself_are_thousandths(tmp_path):
    sheet = Sheet(60, 40)
    nib = sheet.new_nib()
    for _ in range(7):
        nib.forward(2)
        nib.text("kite")
    sheet.animate(tmp_path / "kite.svg", seconds=1)
    times = re.findall(r"--ovlo-at:([0-9.]+)s", (tmp_path / "kite.svg").read_text())
    assert max(len(time.partition(".")[2]) for time in times) == 3


def test_a_difference_is_as_wide_as_its_legend():
    a, b = Sheet(60, 40), Sheet(60, 40)
    names = "kite-of-the-north-wind.py", "kite-of-the-south-wind.py"
    sheet = difference_sheet(a, b, *names, "no")
    words = "in both", f"only in A: {names[0]}", f"only in B: {names[1]}"
    assert sheet.width == pytest.approx(24 + sum(words_width(one, 16) + 3.5 * 16 for one in words))


def test_the_box_of_a_cell_is_that_of_its_lines_as_wide_as_they_are():
    motif = Motif.record(lambda nib: (setattr(nib, "line_width", 6), nib.rectangle(100, 20)))
    assert Cell("kite", motif._columns).box == pytest.approx((-53, -13, 53, 13))
    assert Cell("nothing", Motif.record(lambda nib: nib.lift())._columns).box is None
    assert Cell("failed", None).box is None


def test_a_title_is_no_wider_than_its_room():
    sheet = Sheet(640, 480)
    for most in (100, 1000):
        nib = sheet.new_nib()
        entitle(nib, "Kite day at Marrow Bay", 0, 0, most)
    small, large = sheet._columns.texts
    assert large.size == 16
    (left, _), (right, _) = box(small)
    assert 85 < right - left <= 100


class _Odd:
    """A rasteriser that is not as we know it."""

    def __init__(self, *_: object) -> None:
        self.pixels = np.zeros((4, 4, 4), np.uint8)

    def __array__(self, *_: object, **__: object) -> np.ndarray:
        return self.pixels

    def draw_path(self, *_: object) -> None:
        self.pixels[...] = 255, 0, 0, 255


def test_a_rasteriser_that_draws_otherwise_is_not_used():
    import matplotlib.backends._backend_agg as compiled

    assert agg._draws(compiled)
    assert not agg._draws(types.SimpleNamespace(RendererAgg=_Odd))  # it fills what is outside as well
    assert not agg._draws(types.SimpleNamespace())


def test_a_finding_in_many_lines_names_three_of_them(monkeypatch):
    sheet = Sheet(400, 300)
    nib = sheet.new_nib()
    nib.forward(20)
    found = Finding("gap", "problem", "It is open.", "", (0.0, 0.0), (1,), (3, 5, 7, 9))
    monkeypatch.setattr(Sheet, "check", lambda _: [found])
    assert "gap (line 3, 5, 7): It is open." in sheet.to_bytes("svg", overlay="findings").decode()
