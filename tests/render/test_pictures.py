"""SVG and PNG, read back by independent readers."""

from __future__ import annotations

import io
import xml.etree.ElementTree as ElementTree
from random import Random

import numpy as np
import pytest
from PIL import Image

from ovlo import BadValue, FileError, Nib, Sheet
from ovlo.outlets import as_bytes
from ovlo.render.formats import png, svg_paths
from ovlo.render.numbers import number, number_text

SVG = "{http://www.w3.org/2000/svg}"


def paths(sheet: Sheet) -> list[ElementTree.Element]:
    return ElementTree.fromstring(sheet._repr_svg_()).findall(f".//{SVG}path")


def pixels(sheet: Sheet, scale: float = 1) -> np.ndarray:
    sheet.save("picture.png", scale=scale)
    with Image.open("picture.png") as picture:
        return np.asarray(picture.convert("RGBA")).astype(int)


def square(nib: Nib, side: float = 90) -> None:
    for _ in nib.full_turn(4):
        nib.forward(side)


def test_an_svg_holds_size_paper_title_and_paths(sheet, nib):
    sheet.title = 'Kites & "tails" <3'
    nib.ink = "#ff634780"
    square(nib)
    nib.line_to_start()
    root = ElementTree.fromstring(sheet._repr_svg_())
    assert root.attrib == {"width": "640px", "height": "480px", "viewBox": "-320 -240 640 480"}
    assert root.findtext(f"{SVG}title") == 'Kites & "tails" <3'
    assert root.find(f"{SVG}rect").attrib["fill"] == "#f0f8ff"
    (path,) = paths(sheet)
    assert path.attrib["d"] == "M0 0 90 0 90 -90 0 -90 0 0Z"
    assert (path.attrib["stroke"], path.attrib["stroke-opacity"]) == ("#ff6347", "0.502")


def test_steps_of_one_style_are_one_path_whatever_jumps_lie_between(sheet, nib):
    square(nib)
    nib.travel_to(-100, 0)
    nib.ink = "black"
    square(nib)
    other = sheet.new_nib()
    square(other)
    nib.ink = "navy"
    square(nib)
    assert [path.attrib["d"].count("M") for path in paths(sheet)] == [3, 1]


def test_a_contour_that_began_in_another_style_closes_with_a_line(sheet, nib):
    nib.forward(50)
    nib.left(90)
    nib.ink = "red"
    nib.forward(50)
    nib.line_to_start()
    nib.forward(-10)
    assert [path.attrib["d"] for path in paths(sheet)] == ["M0 0 50 0", "M50 0 50 -50 0 0 0 10"]


def test_what_follows_a_closing_step_begins_where_it_closed(sheet, nib):
    nib.forward(50)
    nib.left(90)
    nib.forward(50)
    nib.line_to_start()
    nib.forward(20)
    (path,) = paths(sheet)
    assert path.attrib["d"] == "M0 0 50 0 50 -50ZM0 0 0 -20"


def test_two_nibs_in_turns_do_not_mix_their_lines(sheet):
    one, two = sheet.new_nib(y=10), sheet.new_nib(y=-10)
    for _ in range(2):
        one.forward(5)
        two.forward(7)
    (path,) = paths(sheet)
    assert path.attrib["d"] == "M0 -10 5 -10M0 10 7 10M5 -10 10 -10M7 10 14 10"


def test_paths_longer_than_a_lot_are_written_like_the_others(sheet, nib, monkeypatch):
    for row, ink in enumerate(["black", "tomato", "navy", "gold"]):
        nib.ink = ink
        nib.travel_to(-40, row)
        for _ in range((9, 70, 65, 3)[row]):
            nib.forward(1.25)
            nib.left(7)
        nib.line_to_start()
    at_once = as_bytes(sheet, ".svg")
    monkeypatch.setattr(svg_paths, "LOT", 16)
    assert as_bytes(sheet, ".svg") == at_once
    assert [len(path.attrib["d"].split()) > 32 for path in paths(sheet)] == [False, True, True, False]


def test_a_sheet_in_millimetres_keeps_its_unit_and_three_decimals():
    sheet = Sheet(210, 297, unit="mm")
    sheet.new_nib().forward(1.23456)
    root = ElementTree.fromstring(sheet._repr_svg_())
    assert (root.attrib["width"], root.attrib["height"]) == ("210mm", "297mm")
    assert paths(sheet)[0].attrib["d"] == "M0 0 1.235 0"
    assert Image.open(io.BytesIO(sheet._repr_png_())).size == (794, 1123)


def test_a_png_shows_the_lines_where_they_are(sheet, nib):
    nib.ink = "red"
    nib.line_width = 6
    nib.travel_to(-100, 50)
    nib.forward(200)
    seen = pixels(sheet)
    assert seen.shape == (480, 640, 4)
    assert seen[190, 320].tolist() == [255, 0, 0, 255]
    assert seen[290, 320].tolist() == [240, 248, 255, 255]
    red = np.argwhere((seen[..., 1] < 10) & (seen[..., 0] > 250))
    assert red.min(axis=0).tolist() == [187, 218]
    assert red.max(axis=0).tolist() == [192, 421]
    assert pixels(sheet, scale=2)[380, 640].tolist() == [255, 0, 0, 255]


def test_transparent_paper_is_clear_in_a_png():
    sheet = Sheet(20, 20, paper="transparent")
    assert pixels(sheet)[..., 3].max() == 0


def test_files_are_the_same_bytes_every_time(sheet, nib):
    square(nib)
    for name in ("kite.svg", "kite.png"):
        sheet.save(f"one-{name}")
        sheet.save(f"two-{name}")
        with open(f"one-{name}", "rb") as one, open(f"two-{name}", "rb") as two:
            assert one.read() == two.read()


def long_strokes(count: int) -> Sheet:
    sheet = Sheet(1600, 1200)
    nib = sheet.new_nib()
    nib.ink = "#0000ff80"
    points = np.random.default_rng(3).uniform(-500, 500, (count, 2))
    for point in points.tolist():
        nib.line_to(point)
    return sheet


def test_a_path_beyond_aggs_cell_limit_is_split_so_that_nothing_shows(monkeypatch):
    # Few strokes, and the limits lowered alike: a path of a million takes minutes, whole or split.
    sheet = long_strokes(300)
    whole = pixels(sheet)
    monkeypatch.setattr(png, "CELLS", 100_000)
    monkeypatch.setattr(png, "LOT", 60_000)
    split = pixels(sheet)
    difference = np.abs(split - whole)
    # Only at the seams does a smoothed edge differ, a pixel here and there.
    assert (difference.max(axis=2) > 8).mean() < 0.0002


def test_a_path_agg_cannot_take_whole_is_drawn():
    sheet = Sheet(6000, 6000)
    nib = sheet.new_nib()
    x = np.tile([-2990.0, 2990.0], 6_000)
    for point in zip(x.tolist(), np.linspace(-2900, 2900, len(x)).tolist(), strict=True):
        nib.line_to(point)
    whole = Image.open(io.BytesIO(sheet._repr_png_()))
    assert np.asarray(whole.convert("L"))[3000, 100:5900].max() < 30


@pytest.mark.parametrize("size", [(1e7, 10), (1e7, 1e7), (19_000, 19_000)])
def test_a_png_too_large_says_how_large_it_may_be(size):
    with pytest.raises(BadValue, match=r"20000 a side and 80 million"):
        Sheet(*size).save("kite.png")


@pytest.mark.parametrize(
    ("path", "kind", "words"),
    [
        ("kite.xyz", BadValue, r"\.svg, \.png"),
        ("kite", BadValue, "no ending"),
        ("kite.pgn", BadValue, r"did you mean '\.png'"),
        ("missing/kite.svg", FileError, "no folder 'missing'"),
    ],
)
def test_files_that_cannot_be_written_are_refused(sheet, path, kind, words):
    with pytest.raises(kind, match=words):
        sheet.save(path)


def test_a_failed_save_leaves_the_old_file_and_nothing_else(sheet, tmp_path, monkeypatch):
    sheet.save("kite.svg")
    old = (tmp_path / "kite.svg").read_bytes()

    def full_disk(*_: object) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr("os.replace", full_disk)
    with pytest.raises(FileError, match="No space left"):
        sheet.save("kite.svg")
    assert (tmp_path / "kite.svg").read_bytes() == old
    assert [path.name for path in tmp_path.iterdir()] == ["kite.svg"]


@pytest.mark.parametrize(
    ("value", "text"),
    [
        (0, "0"),
        (-0.001, "0"),
        (90, "90"),
        (12.5, "12.5"),
        (-7.125, "-7.12"),
        (1e15, "1" + "0" * 15),
    ],
)
def test_a_number_in_a_file_has_no_needless_digits(value, text):
    assert number(value) == text


@pytest.mark.parametrize("largest", [1.0, 999.0, 1e6, 1e11])
@pytest.mark.parametrize("places", [0, 2, 3])
def test_many_numbers_at_once_look_like_each_alone(largest, places):
    values = np.random.default_rng(2).uniform(-largest, largest, 40_000)
    values[:100] = np.round(values[:100])
    text, ends = number_text(values, np.full(len(values), ord(" "), np.uint8), places)
    read = np.array(text.split(), float)
    assert np.abs(read - values).max() <= 0.5000001 * 10.0**-places + 1e-16 * largest
    assert ends[-1] == len(text)
    starts = [0, *ends[:-1].tolist()]
    for i in [0, 1, 99, 17_000, 39_999]:
        assert text[starts[i] : ends[i]].decode() == f" {number(read[i], places)}"


def test_numbers_too_large_for_the_grid_are_written_all_the_same(tmp_path):
    sheet = Sheet(100, 100, unit="mm")
    sheet.new_nib().forward(9_999_999)
    sheet.save(tmp_path / "far.svg", scale=10_000)
    assert "M0 0 9999999 0" in (tmp_path / "far.svg").read_text()
    sheet.save(tmp_path / "far.png")


@pytest.mark.parametrize("size", [20_000, 1e6])
def test_enormous_letters_are_drawn_in_every_format(size):
    sheet = Sheet(100, 100)
    sheet.new_nib(-0.3 * size, -0.3 * size).text("O", size=size, weight="bold")
    for ending in (".svg", ".png", ".pdf"):
        as_bytes(sheet, ending)


def test_the_rasteriser_by_itself_draws_what_the_package_draws(sheet, nib, monkeypatch):
    from ovlo.render.formats import agg
    from ovlo.render.formats.png import rasterise
    from ovlo.render.page import Page

    nib.ink, nib.line_dash = "#ff000080", (5, 3)
    nib.circle(90, fill="gold")
    nib.line_dash, nib.line_join = (), "miter"
    nib.star(5, 80, fill="#00ff0040", fill_rule="evenodd")
    for i in range(50):
        nib.travel_to(4 * i, 0)
        nib.circle(3 + i % 4, fill="teal")
    alone = rasterise(sheet._columns, Page.of(sheet)).copy()
    assert not isinstance(agg.new_agg(4, 4), agg._Whole)
    agg._compiled.cache_clear()
    monkeypatch.setattr(agg, "_draws", lambda module: False)
    try:
        assert isinstance(agg.new_agg(4, 4), agg._Whole)
        assert (rasterise(sheet._columns, Page.of(sheet)) == alone).all()
    finally:
        agg._compiled.cache_clear()


def thin_lines(nib):
    nib.line_width = 0.3
    rng = Random(1)
    for _ in range(400):
        nib.travel_to(rng.uniform(-300, 300), rng.uniform(-200, 200))
        nib.turn_to(rng.uniform(0, 360))
        nib.forward(300)


def there(nib):
    nib.turn_to(3)
    for i in range(60):
        nib.travel_to(-250, -180 + 6.1 * i)
        nib.forward(400)


def there_and_back(nib):
    there(nib)
    there(nib)


def crossing_walk(nib):
    rng = Random(4)
    nib.line_width = 1
    for _ in range(8000):
        nib.forward(4)
        nib.left(rng.uniform(-60, 60))
        if max(map(abs, nib.position)) > 180:
            nib.aim_at(0, 0)


@pytest.mark.parametrize(
    ("draw", "once"), [(thin_lines, thin_lines), (there_and_back, there), (crossing_walk, crossing_walk)]
)
def test_lines_that_lie_on_themselves_cover_a_pixel_once(draw, once):
    sheet, reference = Sheet(640, 480), Sheet(640, 480)
    draw(sheet.new_nib())
    once(reference.new_nib())
    plain = sheet.to_array(scale=1)[..., :3].astype(float)
    # Eight times as large, hardly a pixel is covered in part by two.
    large = reference.to_array(scale=8)[..., :3].astype(float).reshape(480, 8, 640, 8, 3).mean(axis=(1, 3))
    assert (np.abs(plain - large).max(axis=2) > 32).mean() < 0.003


def test_a_circle_walked_twice_is_no_bolder_than_one_walked_once():
    pictures = []
    for rounds in (1, 2):
        sheet = Sheet(400, 400)
        nib = sheet.new_nib(0, -120)
        for _ in range(rounds):
            nib.arc_left(120, 360)
        pictures.append(sheet.to_array(scale=1)[..., :3].astype(int))
    assert np.abs(pictures[0] - pictures[1]).max() < 40
    assert abs(pictures[0].mean() - pictures[1].mean()) < 0.15
