"""Pictures on paper: by dots per inch, on pages, on the sheets of a poster, and with text as outlines."""

from __future__ import annotations

import re
import shutil
import subprocess

import numpy as np
import pytest
from PIL import Image

from ovlo import BadValue, Sheet, drawing
from ovlo.core.values.units import page_size
from ovlo.render.lettering import MissingGlyph
from ovlo.render.paper import handout
from ovlo.render.paper.paper_sheet import Paper

KITE = """
from ovlo import drawing

@drawing(width=400, height=300, paper="aliceblue")
def kite(nib, sides: int = 4, colour_of_its_tail: str = "gold"):
    nib.polygon(sides, radius=120, fill="tomato")
    nib.travel_to(0, -130)
    nib.text("Marrow Bay", align="middle")
"""

needs_poppler = pytest.mark.skipif(shutil.which("pdftoppm") is None, reason="pdftoppm is not installed")


def pages(folder, name, dpi=50):
    """The pages of a PDF as pictures, and its words page by page."""
    subprocess.run(["pdftoppm", "-r", str(dpi), "-png", name, "page"], cwd=folder, check=True)
    pictures = [Image.open(path).convert("RGB") for path in sorted(folder.glob("page-*.png"))]
    text = subprocess.run(["pdftotext", "-layout", name, "-"], cwd=folder, capture_output=True, text=True)
    return pictures, text.stdout.split("\f")[:-1]


def shows(picture, colour):
    """The box of the pixels of a colour, as shares of the picture."""
    where = np.argwhere((np.asarray(picture) == colour).all(axis=2))
    assert len(where), colour
    size = np.array([picture.height, picture.width])
    return (where.min(axis=0) / size).round(2).tolist(), (where.max(axis=0) / size).round(2).tolist()


def test_a_png_has_as_many_pixels_in_an_inch_as_asked(ovlo_command, program, tmp_path):
    done = ovlo_command("draw", program(KITE), "--dpi", "300", "-o", "a.png")
    assert done.returncode == 0
    with Image.open(tmp_path / "a.png") as picture:
        assert picture.size == (1250, 938)
        assert picture.info["dpi"] == pytest.approx((300, 300), rel=1e-3)
    done = ovlo_command("draw", tmp_path / "kite.py", "--dpi", "300", "-o", "a.svg")
    assert "--dpi: only a PNG has a resolution; a.svg does not" in done.stderr
    with pytest.raises(
        BadValue, match="dpi is the resolution of a PNG and replaces scale; leave one of them out"
    ):
        Sheet().save(tmp_path / "a.png", scale=2, dpi=300)


@needs_poppler
def test_a_picture_fills_a_page_inside_its_margins(ovlo_command, program, tmp_path):
    done = ovlo_command("draw", program(KITE), "--page-size", "A5", "--landscape", "--margin", "2cm")
    assert (done.returncode, "kite.pdf: a page of 210 × 148 mm" in done.stdout) == (0, True)
    (page,), _ = pages(tmp_path, "kite.pdf", dpi=127)  # five pixels a millimetre
    # 108 mm high inside the margins, so 144 mm wide.
    assert shows(page, (240, 248, 255)) == ([0.14, 0.16], [0.86, 0.84])


@needs_poppler
def test_a_poster_is_cut_into_leaves_that_overlap(ovlo_command, program, tmp_path):
    done = ovlo_command("draw", program(KITE), "--page-size", "A3", "--landscape", "--tiles", "A4")
    assert "kite.pdf: a page of 420 × 297 mm, on 4 sheets of 297 × 210 mm and a plan" in done.stdout
    pictures, words = pages(tmp_path, "kite.pdf", dpi=127)
    assert len(pictures) == 5
    assert "420 × 297 mm on 4 sheets of paper" in words[0]
    assert re.findall(r"row \d of \d, column \d of \d", "".join(words[1:])) == [
        f"row {row} of 2, column {column} of 2" for row in (1, 2) for column in (1, 2)
    ]
    # Put together as their marks say, they are the poster.
    width, height, part, up = 2100, 1485, 1075, 767
    poster = Image.new("RGB", (width, height), "white")
    for i, tile in enumerate(pictures[1:]):
        row, column = divmod(i, 2)
        left, top = (tile.width - part) // 2, (tile.height - up) // 2
        seen = tile.crop((left + 4, top + 4, left + part - 4, top + up - 4))
        poster.paste(seen, (column * (part - 50) + 4, row * (up - 50) + 4))
    ovlo_command("draw", tmp_path / "kite.py", "--page-size", "A3", "--landscape", "-o", "whole.pdf")
    for path in tmp_path.glob("page-*.png"):
        path.unlink()
    (whole,), _ = pages(tmp_path, "whole.pdf", dpi=127)
    inner = (60, 60, width - 60, height - 60)
    apart = np.abs(np.asarray(poster.crop(inner), int) - np.asarray(whole.crop(inner), int)).max(axis=2)
    assert (apart > 60).mean() < 0.01


@needs_poppler
def test_thirty_pictures_are_a_handout_of_pages(ovlo_command, program, tmp_path):
    done = ovlo_command(
        *("vary", program(KITE), "--values", "sides=3..32", "--page-size", "A4", "--columns", "4"),
        *(
            "--title",
            "Kites for everybody",
            "--set",
            "colour_of_its_tail=a long name of a colour",
            "-o",
            "a.pdf",
        ),
    )
    assert "a.pdf: 2 pages of 210 × 297 mm, 30 pictures" in done.stdout
    pictures, words = pages(tmp_path, "a.pdf")
    assert len(pictures) == 2
    assert all("Kites for everybody" in page for page in words)
    assert ["1 of 2" in words[0], "2 of 2" in words[1]] == [True, True]
    told = re.findall(r"sides=(\d+)", " ".join(words))
    assert sorted(map(int, told)) == list(range(3, 33))


def test_captions_wrap_below_their_pictures_instead_of_being_cut(tmp_path):
    from ovlo import drawing

    @drawing
    def kite(nib, number_of_all_its_sides: int = 4, what_it_is_called: str = ""):
        nib.polygon(number_of_all_its_sides, radius=60)

    names = ["a kite with a rather long name", "another kite that is called something else"]
    sheet = kite.vary(number_of_all_its_sides=[3, 4, 5, 6, 7], what_it_is_called=names).contact_sheet()
    captions = [text for text in sheet._columns.texts if text.weight == "normal"]
    assert " ".join(text.words for text in captions).count(names[1]) == 5
    from ovlo.render.lettering import width

    assert max(width(text) for text in captions) <= 300
    assert min(text.size for text in captions) >= 6


REFUSED = [
    (["--page-size", "A4", "-o", "a.svg"], "only a PDF has pages of paper; save as .pdf instead of .svg"),
    (
        ["--page-size", "A4", "--scale", "2"],
        "the page size sets the scale; leave --scale out",
    ),
    (["--tiles", "A4"], "--tiles needs a page size: add --page-size, such as A4"),
    (["--landscape"], "--landscape needs a page size"),
    (["--page-size", "A44"], "there is no page size 'A44' (did you mean 'A4'?)"),
    (["--page-size", "A6", "--margin", "6cm"], "margins of 60 mm leave no room on a page of 105 × 148 mm"),
    (["--page-size", "A4", "--tiles", "A3"], "one tile is large enough for the whole page of 210 × 297 mm"),
    (["--page-size", "A0", "--tiles", "31x31mm"], "the poster would need 979,749 tiles; the limit is 400"),
    (["--page-size", "A4", "--tiles", "2x2cm"], "tiles must be larger than 30 mm"),
]


@pytest.mark.parametrize(("options", "words"), REFUSED, ids=lambda one: " ".join(one)[:40])
def test_pages_that_cannot_be_are_refused_before_anything_is_run(
    ovlo_command, program, options, words, tmp_path
):
    done = ovlo_command("draw", program("print('run')\n" + KITE), *options)
    assert (done.returncode, done.stdout, words in done.stderr) == (2, "", True), done.stderr
    assert [path.name for path in tmp_path.iterdir()] == ["kite.py"]


def test_text_is_outlines_where_that_is_asked_for(tmp_path, sheet):
    nib = sheet.new_nib()
    nib.text("Marrow & Bay", size=40, align="middle")
    sheet.save(tmp_path / "editable.svg")
    sheet.save(tmp_path / "outlines.svg", text="outlines")
    words, shapes = (tmp_path / "editable.svg").read_text(), (tmp_path / "outlines.svg").read_text()
    assert ["<text" in words, "<text" in shapes] == [True, False]
    assert "<title>Marrow &amp; Bay</title>" in shapes
    if shutil.which("rsvg-convert") is not None:
        for name in ("editable", "outlines"):
            subprocess.run(["rsvg-convert", f"{name}.svg", "-o", f"{name}.png"], cwd=tmp_path, check=True)
        one, other = (
            np.asarray(Image.open(tmp_path / f"{n}.png").convert("L"), int) for n in ("editable", "outlines")
        )
        assert (np.abs(one - other) > 64).mean() < 0.005
    sheet.save(tmp_path / "a.pdf", text="outlines")
    assert b"/Font <<" not in (tmp_path / "a.pdf").read_bytes()
    with pytest.raises(BadValue, match="text must be one of 'editable', 'outlines', not 'loud'"):
        sheet.save(tmp_path / "b.svg", text="loud")


def test_a_letter_that_a_font_has_not_is_told_once_in_our_words(tmp_path, sheet):
    nib = sheet.new_nib()
    nib.text("kite \N{KITE}")
    with pytest.warns(
        MissingGlyph, match="The font DejaVu Sans has no '\N{KITE}'; a box is shown in its place"
    ) as told:
        sheet.save(tmp_path / "a.svg", text="outlines")
    assert len(told) == 1


def test_letters_that_one_font_lacks_come_joined_from_the_next_in_every_format(tmp_path):
    words = "\N{ARABIC LETTER MEEM}\N{ARABIC LETTER REH}\N{ARABIC LETTER HAH}\N{ARABIC LETTER BEH}"
    sheets = {font: Sheet(200, 80) for font in ("DejaVu Sans", "STIXGeneral, DejaVu Sans", "STIXGeneral")}
    for font, sheet in sheets.items():
        sheet.new_nib().text(words, size=40, font=font)
    own, next_one, boxes = sheets.values()
    assert (own.to_array() == next_one.to_array()).all()
    for ending in ("pdf", "html"):
        assert len(next_one.to_bytes(ending)) > 0
    (mark,) = (one for one in next_one.paths() if one.words)
    assert len(mark.contours) == len(next(one for one in own.paths() if one.words).contours)
    with pytest.warns(MissingGlyph, match="The font STIXGeneral has no 'م', 'ر', 'ح', 'ب'; boxes") as told:
        boxes.to_array()
    assert len(told) == 1
    assert (boxes.to_array() != own.to_array()).any()


def test_a_notebook_shows_where_a_white_sheet_ends(tmp_path):
    sheet = Sheet(200, 100)
    sheet.new_nib().forward(20)
    shown = sheet._repr_svg_()
    sheet.save(tmp_path / "a.svg")
    frame = '<rect x="-100" y="-50" width="200" height="100" fill="none" stroke="#808080"'
    assert [frame in shown, frame in (tmp_path / "a.svg").read_text()] == [True, False]


@pytest.mark.parametrize(("count", "across", "pages"), [(2, 1, 1), (5, 2, 1), (18, 3, 1), (40, 4, 2)])
def test_a_handout_fills_its_page_with_the_largest_cells(count, across, pages):
    def kite(nib, sides=3):
        nib.rectangle(160, 120)

    cells = drawing(width=160, height=120)(kite).vary(sides=range(3, 3 + count))._cells
    assert handout._largest(cells, False, 718, 995).across == across
    papers = handout.handout(
        cells, "kites", Paper(page_size("A4", "vary"), 10), None, False, "editable", "vary"
    )
    assert len(papers) == pages
