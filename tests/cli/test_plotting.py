"""`ovlo plot`: its report, what it tells, and what it keeps when a program fails."""

from __future__ import annotations

import re

from tests.render import machines

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
    head = machines.gcode((tmp_path / "a.gcode").read_text())
    assert [int(row[1]) for row in rows] == [*(len(part) for part in head.drawn.values()), 8]
    assert float(rows[3][4].split()[0]) < float(rows[3][5].split()[0])
    assert lines[6:] == [
        "6 marks of the picture became 8 strokes; the way home is 113 mm.",
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
    assert len(machines.svg((tmp_path / "a.svg").read_text()).drawn) == 3
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
