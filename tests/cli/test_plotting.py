"""`ovlo plot`: its report, what it tells, and what it keeps when a program fails."""

from __future__ import annotations

import re
from collections import Counter

from ovlo.render.plotter import read_gcode, read_svg
from ovlo.render.plotter.machine import Machine

SCENE = """
from ovlo import drawing

@drawing(width=400, height=300)
def scene(nib, sides: int = 4):
    nib.ink = "crimson"
    nib.polygon(sides, radius=100)
    nib.ink = "navy"
    for x in (-150, 100, -100, 150):
        nib.travel_to(x, 130)
        nib.circle(10, fill="gold", outline=x > 0)
    nib.travel_to(190, 0)
    nib.forward(50)
"""


def test_the_report_tells_what_each_pen_does(ovlo_command, program, tmp_path):
    done = ovlo_command(
        "plot", program(SCENE, "scene.py"), "--set", "sides=5", "-o", "a.gcode", "-o", "a.png"
    )
    assert (done.returncode, done.stderr) == (0, "")
    lines = done.stdout.splitlines()
    assert lines[0] == "scene with sides=5"
    assert re.fullmatch(r"pen +lifts +lifts before +drawn +travel +travel before +time", lines[1])
    rows = [re.split(r" {2,}", line) for line in lines[2:6]]
    assert [row[0] for row in rows] == ["#ffd700 0.53 mm", "#dc143c 0.53 mm", "#000080 0.53 mm", "3 pens"]
    drawn = read_gcode.follow((tmp_path / "a.gcode").read_text(), Machine(), None)
    pens = Counter(move.pen for move in drawn.moves if move.is_down)
    assert [int(row[1]) for row in rows] == [*pens.values(), 8]
    assert float(rows[3][4].split()[0]) < float(rows[3][5].split()[0])
    assert lines[6:] == [
        "7 marks of the picture became 8 strokes; the way home is 113 mm.",
        "1 mark does not fit on the page and is cut; --fit makes everything fit.",
        "a.gcode: 105.8 × 79.37 mm",
        "a.png: 105.8 × 79.37 mm",
    ]


def test_a_tray_of_pens_tells_what_stands_in_for_what(ovlo_command, program, tmp_path):
    (tmp_path / "pens.toml").write_text('[red]\nink = "crimson"\nline_width = 0.4\n')
    done = ovlo_command(
        "plot", program(SCENE, "scene.py"), "--pen-tray", "pens.toml", "--fit", "--page-size", "A5"
    )
    assert done.returncode == 0
    assert re.search(r"^red replaces #\w{6}, #\w{6}, by up to \d\d CIEDE2000\.$", done.stdout, re.M)
    assert "scene-plot.svg: 148 × 210 mm" in done.stdout


def test_a_plot_of_a_program_that_fails_is_what_was_drawn_so_far(ovlo_command, program, tmp_path):
    done = ovlo_command("plot", program(SCENE + "    nib.forward('far')\n", "scene.py"), "-o", "a.svg")
    assert done.returncode == 1
    assert "The plot so far:" in done.stdout
    drawn = read_svg.follow((tmp_path / "a.svg").read_text(), Machine(), None)
    assert len({move.pen for move in drawn.moves}) == 3
    done = ovlo_command("plot", program("import nothing_like_that\n", "empty.py"), "-o", "b.svg")
    assert (done.returncode, (tmp_path / "b.svg").exists()) == (1, False)


def test_wrong_options_are_named_as_they_are_typed(ovlo_command, program, tmp_path):
    path = program(SCENE, "scene.py")
    for options, words in (
        (["--hatch-spacing", "0"], "plot: --hatch-spacing must be above 0"),
        (["--landscape"], "plot: --landscape needs a page size: add --page-size, such as A4"),
        (["--margin", "wide"], "plot: --margin must be a length such as 12mm"),
        (["-o", "a.dxf"], "-o: a plot cannot be written as '.dxf'"),
    ):
        done = ovlo_command("plot", path, *options)
        assert (done.returncode, words in done.stderr) == (2, True), done.stderr
    assert [path.name for path in tmp_path.iterdir()] == ["scene.py"]


def test_a_preview_and_a_plot_that_is_read_show_what_the_machine_draws(ovlo_command, program, tmp_path):
    path = program(SCENE, "scene.py")
    (tmp_path / "pens.toml").write_text('[machine]\nlift = "M5"\nlower = "M9"\n')
    done = ovlo_command("plot", path, "-o", "a.gcode", "-o", "a.html", "--pen-tray", "pens.toml")
    assert done.returncode == 0
    assert "<!doctype html>" in (tmp_path / "a.html").read_text()[:40].lower()
    done = ovlo_command("plot", "--read", "a.gcode", "-o", "b.png", "--pen-tray", "pens.toml")
    assert done.returncode == 0
    assert [line.split()[:3] for line in done.stdout.splitlines()[1:4]] == [
        ["pen", "1", "4"],
        ["pen", "2", "1"],
        ["pen", "3", "3"],
    ]
    # Without the tray nothing lowers the pen.
    done = ovlo_command("plot", "--read", "a.gcode")
    assert "M9 is not known to this machine and was passed over (line 10, and 7 more)." in done.stdout
    assert "Nothing is drawn." in done.stdout
    assert (tmp_path / "a.png").exists()


def test_what_cannot_be_read_is_refused(ovlo_command, program, tmp_path):
    path = program(SCENE, "scene.py")
    for options, words in (
        ([], "plot: name a program, or a plot with --read."),
        ([path, "--read", "a.gcode"], "--read shows a plot and runs no program; leave out"),
        (["--read", path], "is not a plot; name a file that ends in .gcode, .hpgl or .svg."),
        (["--read", "none.hpgl"], "'none.hpgl' cannot be read (No such file or directory)."),
        (["--read", "none.hpgl", "-o", "a.svg"], "is shown as .png or .html, not as '.svg'"),
    ):
        done = ovlo_command("plot", *options)
        assert (done.returncode, words in done.stderr) == (2, True), done.stderr
    assert [path.name for path in tmp_path.iterdir()] == ["scene.py"]
