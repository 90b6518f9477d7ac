"""SVG files read back: ours, ordinary ones, and those that are refused."""

from __future__ import annotations

import os
import warnings
from pathlib import Path

import pytest

from ovlo import FileError, Motif, PartsSkipped, Sheet
from ovlo.core.paint.measures import drawn_length
from ovlo.core.paint.outlines import borders
from ovlo.core.paint.regions import region

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


LINE = 'fill="none" stroke="red"'

# What a file may say, and the plain way to say it.
SAME = {
    "a line after z without M": (
        '<path d="M0 0H9V9z l-5 5" {line}/>',
        '<path d="M0 0H9V9zM0 0l-5 5" {line}/>',
    ),
    "T after C": ('<path d="M0 0C1 5 5 5 9 0T20 3" {line}/>', '<path d="M0 0C1 5 5 5 9 0L20 3" {line}/>'),
    "S after Q": (
        '<path d="M0 0Q5 9 9 0S20 9 20 3" {line}/>',
        '<path d="M0 0Q5 9 9 0C9 0 20 9 20 3" {line}/>',
    ),
    "flags in a row": ('<path d="M0 0a5 5 0 1110 3" {line}/>', '<path d="M0 0a5 5 0 1 1 10 3" {line}/>'),
    "blanks in a path": (
        f'<path d="M0 0{" " * 900}q5 9 9 0t3 3z" {{line}}/>',
        '<path d="M0 0q5 9 9 0t3 3z" {line}/>',
    ),
    "a path up to its end": ('<path d="m 5 5 5 5" {line}/>', '<path d="M5 5L10 10" {line}/>'),
    "visibility": (
        '<g visibility="hidden"><rect width="9" height="9"/><circle r="4" visibility="visible"/></g>',
        '<circle r="4"/>',
    ),
    "a nested view": (
        '<svg x="10" y="20" width="40" height="20" viewBox="5 5 10 10"><rect x="6" y="6" width="2" height="3"/></svg>',
        '<rect x="22" y="22" width="4" height="6"/>',
    ),
    "a stretched view": (
        '<svg width="40" height="20" viewBox="0 0 10 10" preserveAspectRatio="none">'
        '<rect x="1" y="1" width="2" height="3"/></svg>',
        '<rect x="4" y="2" width="8" height="6"/>',
    ),
    "a symbol at an edge": (
        '<symbol id="k" viewBox="0 0 10 10" preserveAspectRatio="xMaxYMin"><rect width="3" height="3"/></symbol>'
        '<use href="#k" width="40" height="20"/>',
        '<rect x="20" width="6" height="6"/>',
    ),
    "shares of the view": (
        '<rect x="10%" y="20%" width="50%" height="5%"/><line x1="50%" y2="10%" {line} stroke-width="2%"/>',
        '<rect x="10" y="20" width="50" height="5"/><line x1="50" y2="10" {line} stroke-width="2"/>',
    ),
    "a share of the diagonal": ('<circle r="10%"/>', '<circle r="10"/>'),
    "shares of opacity": (
        '<rect width="9" height="9" fill="red" fill-opacity="40%"/>',
        '<rect width="9" height="9" fill="red" fill-opacity=".4"/>',
    ),
    "units": (
        '<g font-size="10"><rect x="1in" y="2pc" width="3em" height="4pt"/></g>',
        '<rect x="96" y="32" width="30" height="5.333333333"/>',
    ),
    "units of a use": (
        '<rect id="r" width="9" height="9"/><use href="#r" x="1in" y="50%"/>',
        '<rect width="9" height="9"/><rect x="96" y="50" width="9" height="9"/>',
    ),
    "opacities inside one another": (
        '<g opacity=".5"><circle r="9" fill="red" opacity=".4"/></g>',
        '<circle r="9" fill="red" fill-opacity=".2"/>',
    ),
    "what is inherited": (
        '<g stroke="red" stroke-width="3" fill="none"><path d="M0 0H9" style="stroke-width:inherit" fill="inherit"/></g>',
        '<path d="M0 0H9" {line} stroke-width="3"/>',
    ),
    "what is important": (
        "<style>path {{ stroke: red !important }} .a {{ stroke: blue }}</style>"
        '<path class="a" d="M0 0H9" fill="none" style="stroke: green"/>',
        '<path d="M0 0H9" {line}/>',
    ),
    "comments": (
        '<path d="M0 0H9" style="/* a; b */ fill: /* c */ none; stroke: red"/>',
        '<path d="M0 0H9" {line}/>',
    ),
    "a colour inside a colour": (
        '<g color="red"><g color="currentColor" fill="currentColor"><circle r="3"/></g></g>',
        '<circle r="3" fill="red"/>',
    ),
    "the colour of the element it is used on": (
        '<g color="blue" fill="currentColor"><circle r="3" color="red"/></g>',
        '<circle r="3" fill="red"/>',
    ),
    "colours of CSS": (
        '<g><circle r="1" fill="rgb(255 0 0)"/><circle r="2" fill="rebeccapurple"/>'
        '<circle r="3" fill="hsl(120, 100%, 50%)"/><circle r="4" fill="#f008"/>'
        '<circle r="5" fill="rgb(300, -9, 0)"/></g>',
        '<circle r="1" fill="#ff0000"/><circle r="2" fill="#663399"/><circle r="3" fill="#00ff00"/>'
        '<circle r="4" fill="#ff0000" fill-opacity="0.5333333333"/><circle r="5" fill="#f00"/>',
    ),
    "no width": ('<path d="M0 0H9" {line} stroke-width="0"/><circle r="3"/>', '<circle r="3"/>'),
    "dashes with units": (
        '<path d="M0 0H90" {line} stroke-dasharray="1in 5%"/>',
        '<path d="M0 0H90" {line} stroke-dasharray="96 5"/>',
    ),
    "a value that is none": (
        '<g stroke="red"><path d="M0 0H9" fill="none" stroke="inherit"/></g>',
        '<path d="M0 0H9" {line}/>',
    ),
    "a line below its fill": (
        '<circle r="9" fill="gold" stroke="red" stroke-width="6" paint-order="stroke"/>',
        '<circle r="9" fill="none" stroke="red" stroke-width="6"/><circle r="9" fill="gold"/>',
    ),
    "a gradient of one colour": (
        '<linearGradient id="g"><stop stop-color="red" stop-opacity="50%"/></linearGradient><circle r="9" fill="url(#g)"/>',
        '<circle r="9" fill="red" fill-opacity=".5"/>',
    ),
    "a server that is not there": ('<circle r="9" fill="url(#no) red"/>', '<circle r="9" fill="red"/>'),
    "a limit that cuts all mitres": (
        '<path d="M0 0L30 5L0 10" {line} stroke-width="4" stroke-miterlimit="2"/>',
        '<path d="M0 0L30 5L0 10" {line} stroke-width="4" stroke-linejoin="bevel"/>',
    ),
}


@pytest.mark.parametrize("name", SAME)
def test_what_a_file_says_in_other_words_is_drawn_alike(tmp_path, name):
    wordy, plain = (part.format(line=LINE) for part in SAME[name])
    pictures = []
    for body in (wordy, plain):
        sheet = Sheet(300, 300)
        sheet.new_nib().stamp(read(tmp_path, body))
        pictures.append(sheet.to_array())
    assert (abs(pictures[0].astype(int) - pictures[1]) > 64).mean() < 1e-4
    assert (pictures[0] != pictures[0][0, 0]).any()


REPORTED = {
    "approximated: stroke-width under a transform that distorts it (line 2)": '<path transform="scale(2 1)" d="M0 0L9 9" stroke="red"/>',
    "approximated: opacity of marks that overlap (line 2)": '<g opacity=".5"><circle r="9"/><circle r="5"/></g>',
    "approximated: stroke-miterlimit 4 (line 2)": '<path d="M0 0L30 5L0 10V30" {line} stroke-width="4"/>',
    "approximated: stroke-dashoffset that begins in a gap (line 2)": '<path d="M0 0H30" {line} stroke-linecap="round" stroke-dasharray="4 3" stroke-dashoffset="5"/>',
    "approximated: fill with a gradient, by its mean colour (line 2)": '<linearGradient id="g"><stop stop-color="red"/><stop stop-color="blue"/></linearGradient>'
    '<circle r="3" fill="url(#g)"/>',
    "left out: clipping at the edge of a viewBox (line 2)": '<svg width="9" height="9" viewBox="0 0 9 9"><circle r="30"/></svg>',
    "left out: clip-path (line 2), image (line 2), marker-end (line 2)": '<image/><path d="M0 0H9" style="marker-end: url(#m)" {line} clip-path="url(#c)"/>',
    "not recognised: attribute 'wobble' (line 2), hatch (line 2), property 'wave' (line 2)": '<hatch/><circle r="3" wobble="3" style="wave: 3"/>',
    "not recognised: fill 'tomatoe' (line 2), stroke-width '-3' (line 2)": '<circle r="3" fill="tomatoe" stroke="red" stroke-width="-3"/>',
    "not recognised: d, read up to its first error (line 2)": '<path d="M0 0H9 9 9 V9 kite" {line}/>',
    "not recognised: transform 'turn(3)' (line 2)": '<circle r="3" transform="turn(3)"/>',
}


@pytest.mark.parametrize("words", REPORTED)
def test_what_is_not_drawn_as_the_file_says_is_reported_with_its_line(tmp_path, words):
    with pytest.warns(PartsSkipped) as caught:
        read(tmp_path, "\n" + REPORTED[words].format(line=LINE))
    assert str(caught[0].message).endswith(f"picture.svg: {words}.")


@pytest.mark.parametrize("seed", range(40))
def test_odd_files_are_drawn_as_an_independent_renderer_draws_them(seed):
    from torture.svg_files import fault_of

    assert not fault_of(seed)


def test_every_element_and_property_stands_in_the_table_of_the_reference():
    from ovlo.render.svg_reader import reader, style

    page = (Path(__file__).parents[2] / "docs/reference/svg.md").read_text()
    names = reader.SHAPES | reader.GROUPS | reader.NEVER_SHOWN | reader.LOST
    names |= {name.rpartition("}")[2] for name in reader.READ}
    names |= style.PROPERTIES.keys() | style.REFUSED.keys() | style.HARMLESS
    assert not {name for name in names if f"`{name}`" not in page}
