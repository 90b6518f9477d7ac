"""Marks cut out of a sheet."""

from __future__ import annotations

import math
from pathlib import Path

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ovlo import BadType, BadValue, Motif, NoEffect, Sheet
from ovlo.core.paint.measures import drawn_length
from ovlo.core.paint.outlines import borders
from ovlo.core.paint.regions import region


def scene() -> Sheet:
    sheet = Sheet(640, 480)
    nib = sheet.new_nib()
    nib.travel_to(-100, 0)
    nib.circle(30, fill="gold")
    nib.travel_to(50, 0)
    nib.star(5, 60, fill="tomato", fill_rule="evenodd")
    nib.travel_to(-130, 80)
    nib.ink, nib.line_width = "navy", 5
    nib.forward(260)
    nib.travel_to(-60, -60)
    nib.text("gull", size=12)
    return sheet


def area_of(motif: Motif) -> float:
    """The area that all areas of a motif cover."""
    outline = borders(motif._columns).flattened(0.001)
    total = 0.0
    for i, key in enumerate(outline.keys):
        inside = slice(outline.firsts[i], outline.firsts[i + 1])
        rule = ("nonzero", "evenodd")[motif._columns.areas["fill_rule"][key]]
        total += region(outline.vertices[inside], outline.codes[inside], rule).area
    return total


def test_whole_marks_come_with_their_style_around_the_centre():
    sheet = scene()
    before = len(sheet.trail)
    motif = sheet.cropped(-140, -70, 120, 110)
    assert motif.end == (0, 0, 0)
    assert motif.bounds[0] == pytest.approx(-50)
    assert motif.bounds[3] == pytest.approx(45)
    assert [text.words for text in motif._columns.texts] == ["gull"]
    assert drawn_length(motif._columns) == pytest.approx(60 * math.pi)
    assert motif._columns.arcs["sweep"].tolist() == [360, 360]  # the area's border and the line
    assert len(sheet.trail) == before


def test_cut_marks_end_at_the_border_and_arcs_stay_arcs():
    motif = scene().cropped(-100, -70, 100, 200, whole=False)
    left, bottom, right, top = motif.bounds
    assert (left, right) == pytest.approx((-50, 50))
    assert bottom < -20
    assert top == pytest.approx(50)
    assert len(motif._columns.arcs) == 2  # half a circle, cut at its top and bottom, is two arcs of a quarter
    assert drawn_length(motif._columns) == pytest.approx(30 * math.pi + 100)


@pytest.mark.filterwarnings("ignore:cropped")
@given(st.floats(-150, 100), st.floats(-80, 60), st.floats(5, 200), st.floats(5, 150))
def test_what_is_cut_into_four_is_as_much_as_the_whole(x, y, width, height):
    sheet = scene()
    whole = sheet.cropped(x, y, width, height, whole=False)
    quarters = [
        sheet.cropped(x + i * width / 2, y + j * height / 2, width / 2, height / 2, whole=False)
        for i in (0, 1)
        for j in (0, 1)
    ]
    lengths = sum(drawn_length(quarter._columns) for quarter in quarters)
    on_the_seam = 260 + 120 * 5  # a line along a seam belongs to both sides
    assert drawn_length(whole._columns) - 1e-6 <= lengths <= drawn_length(whole._columns) + on_the_seam
    assert sum(map(area_of, quarters)) == pytest.approx(area_of(whole), rel=1e-3, abs=0.2)
    reach = max(width, height) / 2 * (1 + 1e-8)
    # Texts are not cut: those whose anchor is inside are there whole.
    assert whole._columns.texts or np.abs(whole.bounds).max() <= reach


def test_cubics_are_cut_as_cubics(tmp_path):
    (tmp_path / "wave.svg").write_text(
        '<svg xmlns="http://www.w3.org/2000/svg">'
        '<path fill="none" stroke="red" d="M-50 0C-20 60 20 -60 50 0"/></svg>'
    )
    wave = Motif.from_svg(tmp_path / "wave.svg")
    sheet = Sheet(200, 200)
    sheet.new_nib().stamp(wave)
    left = sheet.cropped(-60, -50, 60, 100, whole=False)
    right = sheet.cropped(0, -50, 60, 100, whole=False)
    total = drawn_length(left._columns) + drawn_length(right._columns)
    assert total == pytest.approx(drawn_length(wave._columns), rel=1e-9)
    assert left._columns.arcs["sweep"].tolist() == [0]


@pytest.mark.parametrize(
    ("rectangle", "words"),
    [
        ((0, 0, 0, 5), "width must be above 0"),
        ((0, 0, 5, -1), "height must be above 0"),
        ((math.nan, 0, 5, 5), "x must be a finite"),
        ((0, 0, 5, 0.0), "height must be above 0"),
    ],
)
def test_a_rectangle_of_no_size_is_refused(rectangle, words):
    with pytest.raises((BadValue, BadType), match=f"cropped: {words}"):
        scene().cropped(*rectangle)


def test_what_is_whole_must_be_true_or_false():
    with pytest.raises(BadType, match="cropped: whole must be True or False"):
        scene().cropped(0, 0, 5, 5, whole="no")


@pytest.mark.parametrize(("whole", "words"), [(True, "no whole mark lies"), (False, "no mark lies")])
def test_a_cut_out_with_nothing_in_it_says_so(whole, words):
    with pytest.warns(NoEffect, match=words):
        motif = scene().cropped(300, 200, 1, 1, whole=whole)
    assert not motif._columns.is_traced.any()


def test_a_cut_out_keeps_its_paper():
    sheet = Sheet(100, 100, paper="black")
    nib = sheet.new_nib()
    nib.ink = "white"
    nib.circle(10)
    motif = sheet.cropped(-20, -20, 40, 40).turned(30).scaled(2)
    motif.save("ring.svg")
    assert 'fill="#000000"' in Path("ring.svg").read_text()
    assert motif.styled(line_width=3)._paper == sheet.paper
