"""Letters of single strokes: whole alphabets, drawn as lines in every format."""

from __future__ import annotations

import math
from pathlib import Path

import numpy as np
import pytest
from letters.__main__ import FILE, alphabet, written

from ovlo import BadValue, MissingGlyph, Sheet
from ovlo.core.pen import stroke_letters

RANGES = [(0x20, 0x7F), (0xA0, 0x180), (0x391, 0x3A2), (0x3A3, 0x3CA)]
SIGNS = "±×÷≠≤≥≈√∞°−–—‘’“”…€"


def lettered(words, **how):
    sheet = Sheet(400, 200)
    nib = sheet.new_nib()
    nib.line_width = 1
    nib.text(words, font="stroke", **how)
    return sheet


def inked(sheet):
    """The box of the drawn lines: left, bottom, right, top."""
    points = np.vstack([contour for path in sheet.paths() for contour in path.contours])
    return (*points.min(axis=0), *points.max(axis=0))


def test_the_file_is_what_the_program_draws():
    assert written(alphabet()) == Path(FILE).read_text("utf-8")


def test_the_alphabets_are_whole():
    known = stroke_letters._alphabet()
    assert not [chr(n) for low, high in RANGES for n in range(low, high) if chr(n) not in known]
    assert not set(SIGNS) - known.keys()
    assert not [word for word, (_, *strokes) in known.items() if not strokes and not word.isspace()]


@pytest.mark.parametrize("word", "OSaeg&@Ωß")
def test_strokes_have_no_corner_where_an_arc_meets_a_line(word):
    for start, parts in stroke_letters._letter(word).strokes:
        here, ahead = start, None
        for part in parts:
            begin = part.u * 1j * math.copysign(1, part.sweep) if part.sweep else part.end - here
            if ahead is not None and part.sweep:
                assert abs((begin / abs(begin)) / (ahead / abs(ahead)) - 1) < 0.02
            here, ahead = part.end, part.along


def test_words_are_placed_as_other_words_are():
    left, bottom, right, top = inked(lettered("HH", size=100))
    assert (bottom, top) == (0, pytest.approx(70))
    wide = 100 * stroke_letters.width("HH")
    assert 0 < left < right < wide
    middle = inked(lettered("HH", size=100, align="middle", baseline="middle"))
    assert middle == pytest.approx((left - wide / 2, -35, right - wide / 2, 35))
    assert inked(lettered("HH", size=100, slant="italic"))[2] > right + 10
    sheet = Sheet()
    nib = sheet.new_nib(heading=90)
    nib.text("HH", size=100, font="stroke")
    assert inked(sheet) == pytest.approx((-70, left, 0, right))
    assert nib.pose == (0, 0, 90)


def test_letters_are_lines_that_no_area_includes():
    sheet = Sheet(200, 200)
    nib = sheet.new_nib()
    with nib.area("gold"):
        nib.forward(80)
        nib.text("OK", size=40, font="stroke")
        nib.left(90)
        nib.forward(80)
        nib.line_to_start()
    area, *letters = sheet.paths()
    assert [len(contour) for contour in area.contours] == [4]
    assert area.fill.css == "#ffd700"
    assert letters
    assert all(path.fill is None and path.ink.css == "#000000" for path in letters)


def test_a_lifted_nib_writes_nothing_and_weights_and_lists_are_refused():
    sheet = Sheet()
    nib = sheet.new_nib()
    with nib.lifted():
        nib.text("Kite", font="stroke")
    with pytest.raises(BadValue, match=r"one weight; for bolder letters raise nib\.line_width"):
        nib.text("Kite", font="Stroke", weight="bold")
    with pytest.raises(BadValue, match="stands alone; leave out the other fonts of 'stroke, serif'"):
        nib.text("Kite", font="stroke, serif")
    assert not sheet.paths()


def test_missing_letters_are_boxes_and_told_once():
    with pytest.warns(MissingGlyph, match="The stroke font has no '凧', 'ж'; boxes are shown") as told:
        sheet = lettered("凧 ж 凧")
    assert len(told) == 1
    assert len(sheet.paths()[0].contours) == 3
