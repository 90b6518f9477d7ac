"""Files of each kind are what they were: layouts, overlays, pages and plots, number by number.

An intended change changes a digest. Look at the file, then write all anew: WRITE_DIGESTS=1 pytest FILE.
"""

from __future__ import annotations

import json
import os
import re
from hashlib import sha256
from pathlib import Path

import pytest
from click.testing import CliRunner
from torture.pictures import streams

from ovlo.cli.main import main

EXAMPLES = Path(__file__).parents[2] / "examples"

PENS = """\
[black]
ink = "black"
line_width = 0.3
[gold]
ink = "gold"
line_width = 0.5
"""

STAR = """\
from ovlo import drawing


@drawing(width=300, height=240)
def star(nib, points=5, radius=90):
    with nib.area("gold"):
        for _ in range(points):
            nib.forward(radius)
            nib.right(180 - 180 / points)
    nib.travel_to(0, -100)
    nib.arc_left(40, 70)
    nib.text(f"{points} points", size=14, align="middle")
"""

NIGHT = """\
from ovlo import drawing


@drawing(width=420, height=260, paper="midnightblue")
def night(nib, stars=6):
    nib.ink = "white"
    nib.line_dash = (6, 3)
    nib.forward(90)
    nib.left(60)
    nib.forward(70)
    for _ in range(stars):
        nib.travel_to(nib.dice.point(margin=20))
        nib.star(5, nib.dice.number(4, 9), fill="khaki")
    nib.travel_to(190, 100)
    nib.turn_to(45)
    nib.line_width = 9
    nib.line_join = "miter"
    nib.polyline([(230, 120), (190, 60)])
    nib.text("Moon over Marrow Bay", size=30, font="serif")
"""

WALK = """\
from ovlo import Colour, drawing


@drawing(width=260, height=200, unit="mm")
def pier(nib, number_of_planks=40, turn_after_each=74.5, colour: Colour = "navy"):
    nib.ink = colour
    for i in range(number_of_planks):
        with nib.styled(line_width=1 + i % 3, line_dash=(4, 2) if i % 5 == 0 else None):
            nib.forward(60 + i % 30)
        nib.left(turn_after_each)
        if i % 8 == 0:
            with nib.area("gold" if i % 16 else "rgb(0 128 128 / 50%)"):
                nib.circle(9)
    nib.travel_to(-120, -90)
    nib.polygon(number_of_planks, radius=4)
    nib.text("Pier", size=9, font="stroke")
"""

FILES = {
    "walk.svg": "draw walk.py --overlay steps,findings,angles,pointer -o walk.svg",
    "tiny.svg": "compare walk.py walk.py --set-b number_of_planks=4 --set-a number_of_planks=3 -o tiny.svg",
    "night_star.svg": "compare night.py star.py --seed 2 -o night_star.svg",
    "titled.svg": f"vary star.py --values points=5,7 --title {'Kites_over_Marrow_Bay_' * 5} -o titled.svg",
    "long_walk.svg": "draw walk.py --set number_of_planks=400 --overlay steps,grid -o long_walk.svg",
    "captions.svg": (
        "vary walk.py --values number_of_planks=10,2 --values turn_after_each=74.5,119.125 "
        "--values colour=tomato,slateblue,teal --columns 6 -o captions.svg"
    ),
    "narrow.svg": "vary walk.py --values turn_after_each=70..76.5..0.5 --columns 14 -o narrow.svg",
    "film_of_walk.svg": "animate walk.py --seconds 2 --pointer -o film_of_walk.svg",
    "walk.pdf": "draw walk.py --page-size A6 --landscape --overlay axes,steps -o walk.pdf",
    "walk_plot.svg": "plot walk.py --hatch crosshatch --hatch-spacing 1.5mm --fit -o walk_plot.svg",
    "walk.gcode": "plot walk.py --set number_of_planks=12 --hatch-spacing 2mm -o walk.gcode",
    "walk.hpgl": "plot walk.py --hatch concentric --hatch-spacing 1mm --pen-tray pens.toml -o walk.hpgl",
    "overlays.svg": "draw star.py --overlay grid,axes,angles,steps,findings,pointer -o overlays.svg",
    "outlined.svg": "draw star.py --text outlines --fit -o outlined.svg",
    "dark.svg": "draw night.py --seed 2 --overlay grid,axes,angles,steps,findings,pointer -o dark.svg",
    "page.pdf": "draw star.py --page-size A5 --landscape --margin 9mm -o page.pdf",
    "fitting.pdf": "draw star.py --page-size A5 --fit --text outlines -o fitting.pdf",
    "poster.pdf": "draw star.py --page-size A3 --tiles A4 -o poster.pdf",
    "wall.pdf": "draw night.py --seed 2 --page-size A1 --landscape --tiles A4 --margin 7mm -o wall.pdf",
    "only.svg": "draw harbour.py --seed 4 --only boat --groups -o only.svg",
    "row.svg": "vary star.py --values points=5..11..2 -o row.svg",
    "grid.svg": (
        "vary star.py --values points=5..9..2 --values radius=60..90..10 --fit-each --columns 2 "
        "--title Stars --overlay findings -o grid.svg"
    ),
    "failing.svg": "vary star.py --values points=0,5,7 --set radius=80.5 -o failing.svg",
    "many.svg": "vary night.py --values seed=1..30 --title Thirty_nights_at_Marrow_Bay -o many.svg",
    "handout.pdf": "vary star.py --values points=5..21..2 --page-size A5 --title Stars -o handout.pdf",
    "film.svg": "animate star.py --seconds 3 --pointer --hold 2 -o film.svg",
    "difference.svg": "compare star.py star.py --set-b points=7 -o difference.svg",
    "other_size.svg": "compare star.py night.py --seed 2 -o other_size.svg",
    "plot.svg": "plot star.py --hatch-spacing 2mm --registration-marks -o plot.svg",
    "plot.gcode": "plot star.py --hatch crosshatch --hatch-spacing 3mm --dry-frame page -o plot.gcode",
    "plot.hpgl": "plot star.py --hatch concentric --hatch-spacing 2mm --pen-tray pens.toml -o plot.hpgl",
    "harbour.gcode": "plot harbour.py --seed 4 --page-size A4 --fit --text stroke -o harbour.gcode",
    "bunting.hpgl": "plot bunting.py --seed 4 --hatch concentric --hatch-spacing 2mm -o bunting.hpgl",
    "creel.gcode": "plot creel.py --seed 4 --hatch-spacing 2mm --hatch-angle 30 -o creel.gcode",
    "net.svg": "plot net_loft.py --hatch none --page-size A4 --fit -o net.svg",
    "night.gcode": "plot night.py --seed 2 --landscape --page-size A5 --text stroke -o night.gcode",
    "drawn.hpgl": "plot star.py --stroke-order as-drawn --pen-order as-drawn --hatch none -o drawn.hpgl",
    "steps.csv": "steps star.py --csv",
    "report.txt": "plot star.py --hatch-spacing 2mm --pen-tray pens.toml -o report.svg",
}
"""What is typed for each."""

DIGESTS = Path(__file__).with_name("digests.json")


def rounded(text: str) -> str:
    """A text with its numbers to a tenth, and nothing in it that another version writes otherwise."""
    text = re.sub(r"\d+\.\d+", lambda number: f"{float(number[0]) + 0.0031:.1f}", text)
    return re.sub(r"Ovlo \d[.\w]*|/ID \[.*?\]|\(D:.*?\)", "", text)


def read(path: Path) -> str:
    """What stands in a file, with the streams of a PDF unpacked."""
    data = path.read_bytes()
    for packed, unpacked in streams(data):
        data = data.replace(packed, unpacked)
    return data.decode("latin-1") if path.suffix == ".pdf" else data.decode()


@pytest.mark.parametrize("name", FILES)
def test_a_file_is_what_it_was(name, tmp_path, monkeypatch):
    monkeypatch.chdir(tmp_path)
    Path("star.py").write_text(STAR)
    Path("night.py").write_text(NIGHT)
    Path("walk.py").write_text(WALK)
    Path("pens.toml").write_text(PENS)
    words = FILES[name]
    example = EXAMPLES / words.split()[1]
    if example.exists():
        Path(example.name).write_text(example.read_text())
    done = CliRunner(env={"COLUMNS": "88"}).invoke(main, words.split(), prog_name="ovlo")
    assert done.exit_code in (0, 1), done.output
    made = read(Path(name)) if Path(name).exists() else done.output
    digests = json.loads(DIGESTS.read_text())
    digest = sha256(rounded(made).encode()).hexdigest()[:12]
    if "WRITE_DIGESTS" in os.environ:
        DIGESTS.write_text(json.dumps(digests | {name: digest}, indent=4, sort_keys=True) + "\n")
    else:
        assert digest == digests[name]
