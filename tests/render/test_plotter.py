"""Files for plotters: what machines make of them is what was meant."""

from __future__ import annotations

import re
from itertools import pairwise

import numpy as np
import pytest
import shapely

from ovlo import BadValue, FileError, Sheet
from ovlo.outlets import write_plots
from ovlo.program.examples import example_files
from ovlo.program.loading import load
from ovlo.program.running import Limits, load_drawing
from ovlo.render.plotter.making import checked_order
from ovlo.render.plotter.table import FORMATS, plot_reader_of

EXAMPLES = {path.stem: path for path in example_files()}
COARSE = {".gcode": 0.002, ".hpgl": 0.04, ".svg": 0.002}
"""Millimetres by which rounding may move a place; a plotter unit is 0.025 mm."""


def work(name: str) -> Sheet:
    drawing = load_drawing(load(str(EXAMPLES[name])), Limits())
    return drawing.run(**({"seed": 4} if "dice" in EXAMPLES[name].read_text() else {}))


def lines(parts):
    return shapely.multilinestrings([shapely.linestrings(part) for part in parts])


PLOTS = [
    ("harbour", {"hatch_spacing": 2, "page_size": "A4", "landscape": True, "fit": True}),
    ("bunting", {"hatch": "concentric", "hatch_spacing": 3, "pen_tray": "pens.toml"}),
    ("wind_spinner", {"hatch": "none"}),
    ("soundings", {"hatch": "none", "page_size": "A5", "landscape": True, "fit": True}),
    ("net_loft", {"hatch": "crosshatch", "hatch_spacing": 2, "stroke_order": "as-drawn"}),
]
SMALL = ("wind_spinner", "net_loft")
PENS = '[black]\nink = "black"\nline_width = 0.3\n[gold]\nink = "gold"\nline_width = 0.5\n'


def files(folder):
    return [folder / f"plot{ending}" for ending in (*FORMATS, ".png")]


def machine_draws(path, machine, size):
    """What a simulated machine draws that is given a file; nothing goes wrong at it."""
    drawn = plot_reader_of(path.suffix)(path.read_text(), machine, size)
    assert drawn.warnings == []
    return drawn


@pytest.mark.parametrize(("name", "how"), PLOTS, ids=[name for name, _ in PLOTS])
def test_the_machine_draws_what_was_meant_and_always_the_same(name, how, tmp_path):
    (tmp_path / "pens.toml").write_text(PENS)
    how = {key: tmp_path / value if key == "pen_tray" else value for key, value in how.items()}
    sheet, order = work(name), checked_order(how, "plot")
    write_plots(sheet, files(tmp_path), order)
    if name in SMALL:
        before = [file.read_bytes() for file in files(tmp_path)]
        write_plots(sheet, files(tmp_path), order)
        assert [file.read_bytes() for file in files(tmp_path)] == before
    plotted = order.plotted(sheet)
    for ending in FORMATS:
        agrees(ending, tmp_path / f"plot{ending}", order, plotted)


def agrees(ending, path, order, plotted):
    """Check that a machine draws of a file what was meant."""
    size = plotted.placing.width, plotted.placing.height
    machine = machine_draws(path, order.machine, size)
    slack = COARSE[ending] + (plotted.tolerance if ending == ".hpgl" else 0.0)  # whose arcs are chords
    for number, run in enumerate(plotted.runs, 1):
        points, firsts = run.strokes.flat(1e-3)
        meant = np.split(points, firsts[1:-1])
        drawn = [move.points for move in machine.moves if move.is_down and move.pen == number]
        assert len(drawn) == run.lifts
        if ending != ".hpgl":  # whose units are coarse
            assert not any(
                tuple(a) == tuple(b) for one in drawn if len(one) > 2 for a, b in pairwise(one.tolist())
            )
        assert lines(drawn).length == pytest.approx(run.drawn, rel=0.02, abs=1)
        for one, other in zip(drawn, meant, strict=True):
            assert (
                shapely.hausdorff_distance(shapely.linestrings(one), shapely.linestrings(other))
                < slack + 0.01
            )
    assert {move.pen for move in machine.moves if move.is_down} == set(range(1, len(plotted.runs) + 1))
    travel = sum(run.travel for run in plotted.runs) + plotted.way_home * (ending != ".svg")
    assert machine.length(is_down=False) == pytest.approx(travel, rel=0.001, abs=1)


def test_a_plot_returns_its_report(tmp_path):
    sheet = Sheet(200, 100, unit="mm")
    nib = sheet.new_nib()
    nib.line_width = 0.5
    nib.travel_to(10, -50)
    nib.line_to(40, -50)
    nib.line_width = 1
    nib.travel_to(40, 0)
    nib.line_to(50, 0)
    report = sheet.save_plot(tmp_path / "a.gcode")
    (pen,) = report.pens
    assert (pen.name, pen.line_width, pen.travel_before) == ("#000000 0.5 mm", 0.5, pytest.approx(160, abs=2))
    assert (report.width, report.marks, report.wide_lines, report.fine_lines) == (200, 2, 1, 0)
    assert (report.strokes, report.way_home) == (pen.lifts, pytest.approx(np.hypot(140, 50), abs=1))


def test_the_svg_names_its_pens_and_says_what_it_shows(tmp_path):
    sheet = work("wind_spinner")
    (tmp_path / "pens.toml").write_text('["fine & red"]\nink = "red"\nline_width = 0.3\n')
    sheet.save_plot(tmp_path / "a.svg", pen_tray=tmp_path / "pens.toml")
    text = (tmp_path / "a.svg").read_text()
    assert '<g id="pen-1" fill="none" stroke="#ff0000" stroke-width="0.3"' in text
    assert "<title>fine &amp; red</title>" in text
    assert '"drawing": "wind_spinner"' in text


@pytest.mark.parametrize("lower", ['["M3 S90", "G4 P0.2"]', '"""M3 S90\nG4 P0.2"""'])
def test_the_codes_that_lift_and_lower_the_pen_come_from_the_machine_table(tmp_path, lower):
    sheet = Sheet(100, 100, unit="mm")
    sheet.new_nib().forward(10)
    tray = tmp_path / "pens.toml"
    tray.write_text(f'[machine]\nlift = "M5"\nlower = {lower}\nfeed = 800\nbegin = "G92 X0"\nend = "G28"\n')
    sheet.save_plot(tmp_path / "a.gcode", pen_tray=tray)
    assert (tmp_path / "a.gcode").read_text().splitlines()[2:] == [
        *("G21", "G90", "G17", "G92 X0", "M5", "(pen 1 of 1: #000000 0.53 mm)"),
        *("G0 X50 Y50", "M3 S90", "G4 P0.2", "G1 X60 Y50 F800", "M5", "G28", "M2", "%"),
    ]


def test_an_upper_left_corner_with_y_down_turns_the_coordinates_and_the_arcs(tmp_path):
    sheet = Sheet(100, 80, unit="mm")
    nib = sheet.new_nib()
    nib.arc_left(20, 90)
    tray = tmp_path / "pens.toml"
    tray.write_text('[machine]\ncorner = "upper left"\ny = "down"\nwidth = 100\nheight = 80\n')
    sheet.save_plot(tmp_path / "a.gcode", pen_tray=tray)
    text = (tmp_path / "a.gcode").read_text()
    assert "G0 X50 Y40\nG1 Z0 F500\nG2 X70 Y20 I0 J-20 F2000\n" in text
    with pytest.raises(
        BadValue, match="page of 297 × 210 mm is larger than what the machine reaches, 100 × 80"
    ):
        sheet.save_plot(tmp_path / "a.gcode", pen_tray=tray, page_size="A4", landscape=True)


def test_a_preview_shows_the_page_and_the_ways(tmp_path):
    from PIL import Image

    sheet = Sheet(100, 50, unit="mm")
    nib = sheet.new_nib()
    nib.ink = "tomato"
    nib.forward(40)
    sheet.save_plot(tmp_path / "a.png")
    picture = Image.open(tmp_path / "a.png").convert("RGB")
    assert picture.size == (1000, 500)
    assert picture.getpixel((700, 250)) == (255, 99, 71)
    way = picture.crop((230, 350, 270, 400)).getcolors(10_000)
    assert any(max(colour) < 250 for _, colour in way)


TRAYS = {
    "[a]\nink = black\n": r"not TOML: Invalid value \(at line 2, column 7\)\. Write colours in quotes",
    '[a]\nink = "blak"\nline_width = 1\n': r"line 2: a: there is no colour 'blak' \(did you mean 'black'\?\)",
    '[a]\nink = "red"\nline_width = 1\n[b]\nink = "red"\nline_width = 0\n': "line 6: b: line_width must be",
    '[a]\nink = "red"\n': "line 1: the pen 'a' has no line_width; add line_width = 0.3",
    '[a]\nink = "red"\nline_with = 1\n': r"line 3: a pen has no 'line_with' \(did you mean 'line_width'\?\)",
    'ink = "red"\n': "line 1: ink is not in a table; each pen is",
    "": "lists no pen; each is",
    '[machine]\nlift = "M5"\nlovver = "M3"\n': r"line 3: the machine has no 'lovver' \(did you mean "
    r"'lower'\?\)",
    "[machine]\nlift = 5\n": r'line 2: lift must be a list, not 5; write "M5"',
    '[machine]\nlift = ""\n': 'line 2: lift holds no code; write lift = "G0 Z5"',
    '[machine]\nlift = ["M5", 3]\n': "line 2: lift must be a string, not 3",
    '[machine]\nlift = "M5\\u0007"\n': "contains the control character",
    'machine = "M5"\n': "line 1: machine is not in a table",
    '[machine]\nlift = ["(up)", " "]\n': 'line 2: lift holds no code; write lift = "G0 Z5"',
    '[machine]\nlower = "M3 é (x"\n': "line 2: lower contains 'é'; codes are written in ASCII",
    '[machine]\nlower = "M3 (x"\n': r"line 2: lower has a comment that is not closed: 'M3 \(x'",
    "[machine]\nfeed = -1\n": "line 2: feed must be above 0",
    '[machine]\ncorner = "left"\n': "line 2: corner must be one of 'lower left', 'lower right'",
}


@pytest.mark.parametrize("tray", TRAYS)
def test_a_wrong_tray_of_pens_is_told_with_its_line(tmp_path, tray):
    (tmp_path / "pens.toml").write_text(tray)
    with pytest.raises(BadValue, match=TRAYS[tray]):
        Sheet().save_plot(tmp_path / "a.svg", pen_tray=tmp_path / "pens.toml")
    assert not (tmp_path / "a.svg").exists()


WRONG = [
    ({"page_size": "A9"}, "there is no page size 'A9'; use one of A0, A1"),
    ({"page_size": "leter"}, "did you mean 'letter'"),
    ({"page_size": "A6", "margin": "6cm"}, "margins of 60 mm leave no room"),
    ({"landscape": True}, "landscape needs a page size: add page_size"),
    ({"hatch": "dots"}, "hatch must be one of 'parallel', 'crosshatch', 'concentric', 'none', not 'dots'"),
    ({"hatch_spacing": 0}, "hatch_spacing must be above 0"),
    ({"tolerance": "thin"}, "tolerance must be a length such as 12mm"),
    ({"hatch_spacing": 0.0001}, "hatch_spacing must be 0.02 mm or more, but is 0.0001 mm"),
    ({"pen_width": 1e-300}, "pen_width must be 0.02 mm or more, but is 1e-300 mm"),
]


@pytest.mark.parametrize(("how", "words"), WRONG, ids=lambda one: str(one)[:30])
def test_what_cannot_be_is_refused_and_nothing_written(tmp_path, how, words):
    with pytest.raises(BadValue, match=re.escape(words)):
        Sheet().save_plot(tmp_path / "a.gcode", **how)
    assert not list(tmp_path.iterdir())


def test_other_endings_and_missing_trays_are_refused(tmp_path):
    with pytest.raises(
        BadValue, match=r"a plot cannot be written as '.pdf'; use one of .svg, .gcode and .hpgl"
    ):
        Sheet().save_plot(tmp_path / "a.pdf")
    with pytest.raises(FileError, match="cannot be read"):
        Sheet().save_plot(tmp_path / "a.svg", pen_tray=tmp_path / "none.toml")


def plotted_sheet() -> Sheet:
    sheet = Sheet(100, 60, unit="mm")
    nib = sheet.new_nib()
    nib.polygon(4, radius=20, fill="tomato")
    nib.travel_to(-40, -20)
    nib.line_to(-40, 20)
    return sheet


def test_the_lifted_pen_goes_around_first(tmp_path):
    for frame, box in (("page", (0, 0, 100, 60)), ("drawing", (10, 10, 70, 50))):
        plotted_sheet().save_plot(tmp_path / "a.gcode", dry_frame=frame, registration_marks=True)
        text = (tmp_path / "a.gcode").read_text()
        before = text.split("(the frame, the pen lifted)")[1].split("(pen 1")[0]
        places = [tuple(map(float, pair)) for pair in re.findall(r"G0 X(\S+) Y(\S+)", before)]
        left, bottom, right, top = box
        around = [(left, bottom), (right, bottom), (right, top), (left, top), (left, bottom)]
        assert places == [pytest.approx(place, abs=0.01) for place in around]
        assert "G1" not in before
        plotted_sheet().save_plot(tmp_path / "a.hpgl", dry_frame=frame)
        assert f"PU{40 * left:.0f},{40 * bottom:.0f},{40 * right:.0f}," in (tmp_path / "a.hpgl").read_text()


def test_each_pen_draws_the_same_marks_in_the_corners_and_may_have_a_file_of_its_own(tmp_path):
    report = plotted_sheet().save_plot(tmp_path / "a.svg", registration_marks=True, file_per_pen=True)
    files = sorted(tmp_path.glob("a*.svg"))
    assert len(files) == len(report.pens) == 2
    assert [file.name[:4] for file in files] == ["a-1-", "a-2-"]
    corners = []
    for file in files:
        paths = re.findall(r' d="(M[^"]+)"', file.read_text())
        corners.append(paths[:8])
        assert len(paths) > 8
    assert corners[0] == corners[1]
    assert corners[0][0] == "M2.5 55L7.5 55"


def test_a_pen_has_passes_and_an_angle_of_its_own(tmp_path):
    pens = {}
    for more in ("", "passes = 3\n", "hatch_angle = 90\n"):
        (tmp_path / "pens.toml").write_text(
            f'[red]\nink = "tomato"\nline_width = 0.5\n{more}[b]\nink = "black"\nline_width = 1\n'
        )
        report = plotted_sheet().save_plot(
            tmp_path / "a.svg", pen_tray=tmp_path / "pens.toml", hatch_spacing=3
        )
        text = (tmp_path / "a.svg").read_text()
        pens[more] = {pen.name: pen.drawn for pen in report.pens}, text
    assert pens["passes = 3\n"][0]["red"] == pytest.approx(3 * pens[""][0]["red"])
    assert pens["passes = 3\n"][0]["b"] == pens[""][0]["b"]
    assert pens["hatch_angle = 90\n"][1] != pens[""][1]
    (tmp_path / "pens.toml").write_text('[red]\nink = "tomato"\nline_width = 0.5\npasses = 0\n')
    with pytest.raises(BadValue, match="line 4: red: passes must be 1 or more, but is 0"):
        plotted_sheet().save_plot(tmp_path / "a.svg", pen_tray=tmp_path / "pens.toml")
