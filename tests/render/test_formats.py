"""What the formats say beside the picture: text, fonts, page size, fit."""

from __future__ import annotations

import shutil
import subprocess
import xml.etree.ElementTree as ElementTree

import numpy as np
import pytest
from PIL import Image

from ovlo import Sheet
from ovlo.render.lettering import MissingFont

SVG = "{http://www.w3.org/2000/svg}"


def test_svg_text_is_text_and_escaped(sheet, nib):
    nib.left(30)
    nib.text('Gulls & "boats" <3  עגור', size=20, font="DejaVu Serif", weight="bold", align="middle")
    (text,) = ElementTree.fromstring(sheet._repr_svg_()).findall(f"{SVG}text")
    assert text.text == 'Gulls & "boats" <3  עגור'
    assert text.attrib["transform"] == "rotate(330 0 0)"
    assert (text.attrib["font-family"], text.attrib["font-weight"]) == ("DejaVu Serif", "bold")
    assert (text.attrib["text-anchor"], text.attrib["font-size"]) == ("middle", "20")


def test_svg_arcs_sweep_at_most_a_quarter_each(sheet, nib):
    nib.circle(50)
    nib.arc_left(30, 100)
    data = [path.attrib["d"] for path in ElementTree.fromstring(sheet._repr_svg_()).iter(f"{SVG}path")]
    circle = "M50 0A50 50 0 0 0 0 -50A50 50 0 0 0 -50 0A50 50 0 0 0 0 50A50 50 0 0 0 50 0Z"
    assert data == [f"{circle}M0 0A30 30 0 0 0 22.98 -10.72A30 30 0 0 0 29.54 -35.21"]


def test_areas_lie_under_their_own_strokes_and_over_earlier_marks(sheet, nib):
    nib.line_width = 20
    nib.travel_to(-100, 0)
    nib.forward(200)
    nib.travel_to(0, 0)
    nib.ink = "red"
    nib.circle(50, fill="gold")
    second = sheet.new_nib()
    second.line_width = 10
    second.forward(20)
    sheet.save("a.png")
    with Image.open("a.png") as picture:
        seen = np.asarray(picture.convert("RGB")).astype(int)
    row = [seen[240, 320 + x].tolist() for x in (10, 30, 50, 80)]
    assert row == [[0, 0, 0], [255, 215, 0], [255, 0, 0], [0, 0, 0]]


def test_a_missing_font_is_named_with_its_fallback(sheet, nib):
    nib.text("Kite", font="Nowhere Sans")
    with pytest.warns(MissingFont, match="'Nowhere Sans'.*DejaVu Sans is used"):
        sheet.save("a.png")


def test_a_pdf_has_the_size_of_the_sheet_and_text_as_text():
    if shutil.which("pdfinfo") is None:
        pytest.skip("poppler-utils is not installed")
    sheet = Sheet(210, 297, unit="mm")
    sheet.title = "Kites"
    sheet.new_nib().text("Kite day at Marrow Bay", size=9, align="middle")
    sheet.save("a.pdf")
    info = subprocess.run(["pdfinfo", "a.pdf"], capture_output=True, text=True, check=True).stdout
    assert "Title:           Kites" in info
    assert "595.276 x 841.89 pts (A4)" in info
    text = subprocess.run(["pdftotext", "a.pdf", "-"], capture_output=True, text=True, check=True).stdout
    assert "Kite day at Marrow Bay" in text
    with open("a.pdf", "rb") as first:
        before = first.read()
    sheet.save("a.pdf")
    with open("a.pdf", "rb") as again:
        assert again.read() == before


def test_fit_frames_texts_and_areas_too():
    sheet = Sheet(100, 100)
    nib = sheet.new_nib()
    nib.travel_to(300, 0)
    nib.text("far away", size=40)
    nib.travel_to(0, 500)
    nib.circle(30, fill="gold", outline=False)
    sheet.save("a.svg", fit=True)
    box = ElementTree.parse("a.svg").getroot().attrib["viewBox"]
    left, top, width, height = map(float, box.split())
    assert left + width > 420
    assert top < -530
    assert width == pytest.approx(height)


def test_fit_of_a_small_drawing_stays_smooth(sheet, nib):
    nib.line_width = 0.001
    nib.circle(0.01)
    sheet.save("a.svg", fit=True)
    (path,) = ElementTree.parse("a.svg").getroot().iter(f"{SVG}path")
    assert path.attrib["d"].startswith("M0.01 0A0.01 0.01 0 0 0 0 -0.01A")
    sheet.save("a.png", fit=True)
    with Image.open("a.png") as picture:
        assert (np.asarray(picture.convert("L")) < 100).sum() > 1000


def test_a_line_after_an_area_without_outline_keeps_its_own_cap_and_dash(sheet, nib):
    nib.circle(5, fill="gold", outline=False)
    nib.line_width, nib.line_cap, nib.line_dash = 20, "butt", (40, 40)
    for y in (-60, 60):
        nib.travel_to(-80, y)
        nib.forward(160)
    sheet.save("a.png")
    with Image.open("a.png") as picture:
        seen = np.asarray(picture.convert("L"))
    row = [bool(seen[240 - 60, 320 + x] < 50) for x in (-85, -60, -35, -20, 20, 45, 60)]
    assert row == [False, True, False, False, True, False, False]


def test_words_of_a_pdf_have_their_ink_place_and_turn(tmp_path, sheet):
    if shutil.which("pdftoppm") is None:
        pytest.skip("pdftoppm is not installed")
    nib = sheet.new_nib()
    for ink, turn in (("#ff0000", 0), ("#0000ff80", 90), ("#ff0000", 180), ("black", 30)):
        nib.ink = ink
        nib.turn_to(turn)
        nib.text("Marrow Bay", size=40, weight="bold")
    sheet.save(tmp_path / "a.pdf")
    sheet.save(tmp_path / "a.png")
    subprocess.run(["pdftoppm", "-r", "96", "-png", "-singlefile", "a.pdf", "b"], cwd=tmp_path, check=True)
    with Image.open(tmp_path / "a.png") as ours, Image.open(tmp_path / "b.png") as theirs:
        apart = np.abs(np.asarray(ours.convert("RGB"), int) - np.asarray(theirs.convert("RGB"), int))
    assert (apart.max(axis=2) > 100).mean() < 0.008  # in another ink it would be five times that
