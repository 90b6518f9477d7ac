"""The simulated machine follows files that others wrote, and says what would go wrong."""

from __future__ import annotations

import numpy as np
import pytest

from ovlo import PartsSkipped
from ovlo.render.plotter.machine import Machine
from ovlo.render.plotter.table import plot_reader_of

SERVO = Machine(lift=("M3 S30", "G4 P0.2"), lower=("M3 S90", "G4 P0.2"), corner="upper left", y="down")


PLAIN = Machine()


def follow(text, ending=".gcode", machine=PLAIN, size=(100, 80)):
    return plot_reader_of(ending)(text, machine, size)


def drawn(text, *how, **more):
    """The strokes of a file, rounded."""
    moves = follow(text, *how, **more).moves
    return [np.round(move.points, 2).tolist() for move in moves if move.is_down]


SQUARE = [[[10, 10], [30, 10], [30, 30]]]


@pytest.mark.parametrize(
    "text",
    [
        "G21 G90\nG0 X10 Y10\nG1 Z-1 F100\nX30 F900\nY30\nG0 Z5\n",
        "n10 g91 (relative)\nN20 G00 X10. Y10.\nG1 F100 Z-0.5\ng01 x20\nY20 ; up\nG0 Z4",
        "G20\nG0 X.3937008 Y.3937008\nG1 Z0 F10\nX1.1811024\nY1.1811024\nG0 Z1",
        "G92 X-10 Y-10\nG0 X0 Y0\nM3 S200\nG1 X20 F300\nY20\nM5\nM2\nG1 X99 Y99",
        "G0 X10 Y10\nM4\nG1 F5 X30\nY30\nM3 S0\nG28",
    ],
)
def test_gcode_is_followed_as_the_standard_means_it(text):
    drawing = follow(text)
    assert drawn(text) == SQUARE
    assert drawing.warnings == []


def test_the_machine_of_the_tray_says_which_codes_move_the_pen_and_where_the_origin_is():
    text = "M3 S30\nG4 P0.2\nG0 X10 Y70\nM3 S90\nG4 P0.2\nG1 X30 F500\nY50\nM3 S30\nG4 P0.2\n"
    assert drawn(text, machine=SERVO) == SQUARE
    assert follow(text).warnings == ["The pen is still down at the end (line 9)."]


def test_arcs_go_round_their_centre_or_by_their_radius():
    begin = "G0 X20 Y10\nG1 Z0 F100\n"
    by_centre = follow(begin + "G3 X10 Y20 I-10 J0\nG0 Z5").moves[1].points
    by_radius = follow(begin + "G3 X10 Y20 R10\nG0 Z5").moves[1].points
    long_way = follow(begin + "G3 X10 Y20 R-10\nG0 Z5").moves[1].points
    assert np.allclose(by_centre, by_radius)
    assert np.allclose(np.hypot(*(by_centre - (10, 10)).T), 10)
    assert np.allclose(np.hypot(*(long_way - (20, 20)).T), 10)
    assert len(long_way) > 2 * len(by_radius)
    assert "An arc does not end on its circle (line 3)." in follow(begin + "G3 X90 Y20 R10\nG0 Z5").warnings


WRONG = {
    "G0 X10 Y10\nG1 Z0\nX20\nG0 Z5": "The pen is lowered at a feed that is not set (line 2)",
    "G0 X10 Y10\nM3\nG1 X20\nX30\nM5": "The feed (F) is not set before the first move at a feed (line 3)",
    "G0 X10 Y10\nG1 Z0 F9\nX20\nM0\nX30\nG0 Z5": "The pen is down while it is changed (line 4)",
    "G0 X10 Y10\nG1 Z0 F9\nX20": "The pen is still down at the end (line 3)",
    "G0 X110 Y10\nG1 Z0 F9\nX20 Y-1\nG0 Z1": "2 places are off the page of 100 × 80 mm",
    "G5.1 X3\nG5.1\nG5.1": "G5.1 is not known to this machine and was passed over (line 1, and 2 more)",
}


@pytest.mark.parametrize("text", WRONG)
def test_what_would_go_wrong_is_said_with_its_line(text):
    assert WRONG[text] in "\n".join(follow(text).warnings)


def test_hpgl_is_followed_whoever_wrote_it():
    assert drawn("IN;SP1;PU400,400;PD1200,400,1200,1200;PU;", ".hpgl") == SQUARE
    assert drawn("IN SP1 PA PU 400 400 PR PD 800,0 0,800 PU", ".hpgl") == SQUARE
    ring = follow("IN;SP2;PU2000,1600;CI400;PU0,0;", ".hpgl")
    (circle,) = (move for move in ring.moves if move.is_down)
    assert circle.pen == 2
    assert np.allclose(np.hypot(*(circle.points - (50, 40)).T), 10)
    arc = follow("SP1;PU2400,1600;PD;AR-400,0,-90;PU;", ".hpgl").moves[1].points
    assert np.allclose(arc[-1], (50, 30))
    words = follow("IN;SP1;PU0,0;LBKite\x03;SP0;", ".hpgl").warnings
    assert words == ["LB, words in the plotter's own letters, was passed over (instruction 4)."]


def test_an_svg_is_drawn_line_by_line_in_the_size_it_says():
    text = (
        '<svg xmlns="http://www.w3.org/2000/svg" width="10cm" height="80mm" viewBox="0 0 200 160">'
        '<path d="M20 140 H60 V100" fill="none" stroke="red" stroke-width="2"/></svg>'
    )
    drawing = follow(text, ".svg", size=None)
    assert drawing.size == (100, 80)
    assert drawn(text, ".svg", size=None) == SQUARE
    ((ink, width),) = drawing.looks.values()
    assert (ink.hex, width) == ("#ff0000", 1)
    with pytest.warns(PartsSkipped, match="text"):
        follow(text.replace("</svg>", "<text>Kite</text></svg>"), ".svg")
    filled = follow(text.replace('fill="none"', 'fill="gold"'), ".svg").warnings
    assert filled == ["An area is filled, and a plotter draws only lines (path 1)."]


def test_without_a_size_the_page_holds_all_of_it():
    drawing = follow("G0 X-10 Y10\nM3\nG1 X30 F9\nY30\nM5", size=None)
    assert drawing.size == (40, 30)
    assert drawing.moves[1].points.tolist() == [[0, 10], [40, 10], [40, 30]]


def test_it_takes_as_long_as_the_feeds_say():
    drawing = follow("G0 X60\nG1 Z0 F100\nG1 X0 F600\nG0 Z5", machine=Machine(travel_feed=3600))
    assert drawing.seconds == pytest.approx(1 + 6 + 0.3)
