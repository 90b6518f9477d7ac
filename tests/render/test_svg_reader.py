"""SVG files read back: ours, ordinary ones, and those that are refused."""

from __future__ import annotations

import os
import warnings
from pathlib import Path

import pytest

from ovlo import FileError, Motif, Sheet
from ovlo.core.paint.measures import drawn_length
from ovlo.core.paint.outlines import borders
from ovlo.core.paint.regions import region
from ovlo import PartsSkipped

HEAD = '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100" width="10cm">'


def read(tmp_path: Path, body: str, head: str = HEAD) -> Motif:
    path = tmp_path / "picture.svg"
    path.write_text(f"{head}{body}</svg>")
    return Motif.from_svg(path)


def test_a_file_that_ovlo_wrote_comes_back_with_the_same_geometry(sheet, nib):
    nib.ink, nib.line_width, nib.line_dash = "#00008080", 3, (6, 2)
    for _ in nib.full_turn(5):
        nib.forward(40.128)
    nib.line_to_start()
    nib.arc_right(30, 200)
    nib.travel_to(-90, 40)
    nib.ellipse(80, 30, turn=20, fill="gold", fill_rule="evenodd")
    nib.star(7, 50, 3, fill="#ff634740", outline=False)
    sheet.save("kite.svg")
    with warnings.catch_warnings():
        warnings.simplefilter("error")
        motif = Motif.from_svg("kite.svg")
    trail = sheet._columns
    assert motif.bounds == pytest.approx(Motif(trail, nib.pose).bounds, abs=0.02)
    assert drawn_length(motif._columns) == pytest.approx(drawn_length(trail), rel=1e-3)
    drawn = motif._columns.styles[1]
    assert (drawn.ink.css, drawn.line_width, drawn.line_dash) == ("#00008080", 3, (6, 2))
    assert motif._columns.areas["fill_rule"].tolist() == [1, 0]
    Sheet(640, 480).new_nib().stamp(motif)
    motif.save("again.svg")


def test_shapes_groups_and_transforms_are_read(tmp_path):
    motif = read(
        tmp_path,
        '<g transform="translate(10 20) scale(2)" stroke="red" fill="none" stroke-width="3">'
        '<path d="M0 0h10a5 5 0 0 1 0 10zM1 1Q5 5 9 1"/><rect x="20" width="4" height="6"/></g>'
        '<polygon points="0,-50 10,-50 10,-60" fill="#0a7"/>',
    )
    assert motif.bounds == pytest.approx((0, -40, 58, 60))
    assert motif._columns.styles[1].line_width == 6
    assert len(motif._columns.areas) == 1
    curves = motif._columns.arcs
    assert sorted(abs(curves["sweep"]).tolist()) == [0, pytest.approx(180)]


def test_an_ellipse_in_a_turned_group_is_turned(tmp_path):
    motif = read(tmp_path, '<g transform="translate(60 155) rotate(90)"><ellipse cx="-8" rx="8" ry="4"/></g>')
    assert motif.bounds == pytest.approx((56, -155, 64, -139))


def test_what_cannot_be_kept_is_left_out_and_listed(tmp_path):
    body = (
        '<defs><linearGradient id="g"/></defs><rect width="5" height="5" fill="url(#g)"/>'
        '<image href="gull.png"/><script>alert(1)</script><text>Hi</text><use href="#g"/>'
        '<circle r="4" filter="url(#f)"/>'
    )
    with pytest.warns(PartsSkipped, match=r"filter \(line 1\), image .*, script .*, text .*, use of"):
        motif = read(tmp_path, body)
    assert motif.bounds == pytest.approx((-4, -4, 4, 4))


@pytest.mark.parametrize("transform", ["scale(-1 1)", "scale(1 -1)", "matrix(0 1 1 0 0 0)", "rotate(40)"])
@pytest.mark.parametrize(
    "shape",
    [
        '<circle cx="9" r="5"/>',
        '<ellipse cy="3" rx="8" ry="2"/>',
        '<path d="M5 0A8 4 30 1 0 9 9A5 5 0 0 1 5 0z"/>',
    ],
)
def test_mirrored_curves_run_round_their_centres_as_they_should(tmp_path, transform, shape):
    plain = read(tmp_path, f"<g>{shape}</g>")
    mirrored = read(tmp_path, f'<g transform="{transform}">{shape}</g>')
    outlines = [borders(motif._columns).flattened(0.001) for motif in (plain, mirrored)]
    areas = [region(outline.vertices, outline.codes, "nonzero") for outline in outlines]
    assert areas[1].area == pytest.approx(areas[0].area, rel=1e-3)
    assert areas[1].area > 20


def test_what_is_no_file_is_not_read(tmp_path):
    os.mkfifo(tmp_path / "pipe.svg")
    with pytest.raises(FileError, match="is not a readable file"):
        Motif.from_svg(tmp_path / "pipe.svg")


BOMB = (
    '<?xml version="1.0"?><!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;">]>'
    '<svg xmlns="http://www.w3.org/2000/svg"><text>&b;</text></svg>'
)


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (BOMB, "declares entities"),
        (BOMB.encode("utf-16"), "declares entities|damaged"),
        ("<html></html>", "is not SVG: its outermost element is 'html'"),
        ("kite", "damaged or not XML"),
        (f"{HEAD}<path", "damaged or not XML"),
        (f"{HEAD}{'<g>' * 300}{'</g>' * 300}</svg>", "more than 200 deep"),
        ("", "damaged or not XML"),
        (f'{HEAD}<path d="M1e400 0L3 3"/></svg>', "numbers that are not finite"),
        (f'{HEAD}<path d="M0 0A1e200 1e200 0 0 1 9 9"/></svg>', "numbers that are not finite|is damaged"),
        (f'{HEAD}<circle r="1e9"/></svg>', "not finite or far too large"),
        (f'<?xml version="1.0" encoding="marrow"?>{HEAD}</svg>', "damaged or not XML"),
        (f'<!DOCTYPE svg [<!ATTLIST circle style CDATA "{"a:b;" * 99}">]>{HEAD}</svg>', "a document type"),
        (f'{HEAD}<circle r="5" transform="{"scale(1)" * 300}"/></svg>', "'transform' of more than 2,000"),
        (f'{HEAD}<path d="{"M0 0L1 1" * 200_000}"/></svg>', "50,000 shapes or 5 MB of paths"),
        (f"{HEAD}{'<g/>' * 126_000}</svg>", "50,000 shapes or 5 MB of paths"),
    ],
)
def test_files_that_are_no_svg_are_refused(tmp_path, content, words):
    path = tmp_path / "bad.svg"
    path.write_bytes(content if isinstance(content, bytes) else content.encode())
    with pytest.raises(FileError, match=words):
        Motif.from_svg(path)
    with pytest.raises(FileError, match="cannot be read"):
        Motif.from_svg(tmp_path / "missing.svg")


SYMBOL = (
    '<defs><symbol id="kite" viewBox="0 0 10 20"><path d="M5 0L10 10L5 20L0 10Z"/></symbol>'
    '<g id="pair"><rect id="sail" width="4" height="4"/><use href="#sail" x="6"/></g></defs>'
)


def test_what_is_defined_is_drawn_where_it_is_used(tmp_path):
    used = read(
        tmp_path,
        f'{SYMBOL}<use href="#kite" x="10" y="10" width="40" height="40" fill="red"/>'
        '<g xmlns:xlink="http://www.w3.org/1999/xlink" transform="translate(100 0)">'
        '<use xlink:href="#pair" transform="scale(2)" fill="blue"/></g>',
    )
    plain = read(
        tmp_path,
        '<path transform="translate(20 10) scale(2)" d="M5 0L10 10L5 20L0 10Z" fill="red"/>'
        '<g transform="translate(100 0) scale(2)" fill="blue"><rect width="4" height="4"/>'
        '<rect x="6" width="4" height="4"/></g>',
    )
    assert used.compare(plain).is_in_place
    assert str(used.compare(plain)) == "The same."


@pytest.mark.parametrize(
    ("body", "words"),
    [
        ('<g id="a"><use href="#b"/></g><g id="b"><use href="#a"/></g><use href="#a"/>', "inside itself"),
        (
            '<rect id="u0" width="1" height="1"/>'
            + "".join(f'<g id="u{i}">' + f'<use href="#u{i - 1}"/>' * 10 + "</g>" for i in range(1, 9)),
            "uses too much: the limit is about 50,000 shapes",
        ),
    ],
)
def test_uses_that_loop_or_flood_are_refused(tmp_path, body, words):
    with pytest.raises(FileError, match=words):
        read(tmp_path, body)


def test_path_data_that_cannot_be_right_is_told(tmp_path):
    with pytest.warns(PartsSkipped, match=r"not recognised: d \(line 1\)"):
        read(tmp_path, '<path stroke="red" d="MNaN 0L9 infinity"/><rect width="3" height="3"/>')
