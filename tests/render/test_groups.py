"""`save(…, groups=True)`: the marks of each call of a function are a group, and the picture is the same."""

from __future__ import annotations

from xml.etree import ElementTree

import numpy as np
import pytest

from ovlo import BadUse, BadValue, Sheet, drawing
from ovlo.core.paint.groups import groups_of, kept_apart
from ovlo.core.paint.order import painted
from ovlo.render.formats.png import rasterise
from ovlo.render.page import Page

SVG = "{http://www.w3.org/2000/svg}"


def bow(nib, size=3):
    nib.circle(size, fill="tomato")


def kite(nib, fill):
    with nib.area(fill):
        for _ in nib.full_turn(4):
            nib.forward(40)
    nib.forward(20)
    with nib.returning():
        nib.right(90)
        for _ in range(2):
            nib.forward(12)
            bow(nib)
    nib.text("kite", size=8)


def side(nib):
    nib.forward(50)
    nib.left(120)


@drawing(width=400, height=300)
def scene(nib):
    for x, fill in ((-100, "gold"), (0, "teal")):
        nib.travel_to(x, 0)
        kite(nib, fill)
    bow(nib)
    bow(nib, 5)
    nib.travel_to(0, -80)
    for _ in range(3):
        side(nib)


@drawing(width=400, height=300)
def sharp(nib, ink="black", join="miter", dash=()):
    nib.line_join, nib.ink, nib.line_width, nib.line_dash = join, ink, 9, dash
    for _ in range(3):
        side(nib)
    with nib.area("gold"):
        bow(nib)
        nib.forward(30)
        side(nib)
    nib.forward(20)


def tree(element):
    """The groups in an SVG: ids, and what is in them; a mark is its tag."""
    return [
        (child.get("id"), tree(child)) if child.tag == f"{SVG}g" else child.tag.removeprefix(SVG)
        for child in element
        if child.tag not in {f"{SVG}title", f"{SVG}metadata", f"{SVG}rect"}
    ]


def test_each_call_is_a_group_with_an_id_and_a_title(tmp_path):
    scene.run(traced=True).save(tmp_path / "a.svg", groups=True)
    root = ElementTree.parse(tmp_path / "a.svg").getroot()
    ((name, whole),) = tree(root)
    bows = iter(range(1, 9))

    def kite_of(number):
        tail = [part for _ in range(2) for part in ("path", (f"bow-{next(bows)}", ["path"]))]
        return f"kite-{number}", ["path", *tail, "text"]

    sides = [(f"side-{number}", ["path"]) for number in (1, 2, 3)]
    assert name == "scene-1"
    assert whole == [kite_of(1), kite_of(2), ("bow-5", ["path"]), ("bow-6", ["path"]), *sides]
    titles = [group.find(f"{SVG}title").text for group in root.iter(f"{SVG}g")]
    assert titles.count("bow") == 6
    ids = [group.get("id") for group in root.iter(f"{SVG}g")]
    assert len(set(ids)) == len(ids)


def test_an_area_and_its_border_are_one_path_and_what_follows_is_another(tmp_path):
    scene.run(traced=True).save(tmp_path / "a.svg", groups=True)
    root = ElementTree.parse(tmp_path / "a.svg").getroot()
    group = next(group for group in root.iter(f"{SVG}g") if group.get("id") == "kite-1")
    border, line, *_ = group.findall(f"{SVG}path")
    assert (border.get("fill"), border.get("stroke")) == ("#ffd700", "#000000")
    assert (line.get("fill"), line.get("d")) == ("none", "M-100 0 -80 0M-80 0 -80 12")


@pytest.mark.parametrize(
    "sheet",
    [
        scene.run(traced=True),
        sharp.run(traced=True),
        sharp.run(join="round", ink="rgb(0 0 0 / 40%)", traced=True),
        sharp.run(join="round", dash=(20, 12), traced=True),
    ],
    ids=["scene", "mitres", "translucent", "dashed"],
)
def test_the_picture_is_the_same_to_the_pixel(sheet):
    columns = kept_apart(sheet._columns, sheet._origins)
    page = Page.of(sheet)
    apart = np.abs(rasterise(columns, page).astype(int) - rasterise(sheet._columns, page)).max(axis=2)
    # Where two lines meet that were one, the covered shares of a few pixels at their edges add up.
    assert apart.max() < 100
    assert (apart > 8).mean() < 0.0005
    assert all(groups_of(painted(columns), columns, sheet._origins))


def test_a_border_that_several_calls_draw_stays_whole_where_a_cut_would_be_seen():
    sheet = sharp.run(traced=True)
    columns = kept_apart(sheet._columns, sheet._origins)
    first, *_ = groups_of(painted(columns), columns, sheet._origins)
    assert [sheet._origins.calls[sheet._origins.entry_calls[entry]].function for entry in first] == ["sharp"]


def test_without_groups_a_file_is_as_it_was_and_undo_keeps_them_right(tmp_path):
    traced, plain = scene.run(traced=True), scene.run()
    assert traced.to_bytes("svg") == plain.to_bytes("svg")
    before = len(traced._origins.step_entries)
    traced.undo(3)
    assert len(traced._origins.step_entries) == len(traced.trail) < before
    traced.save(tmp_path / "a.svg", groups=True)
    assert b'<g id="side-1">' not in (tmp_path / "a.svg").read_bytes()


def test_what_has_no_groups_is_refused(tmp_path):
    with pytest.raises(BadUse, match=r"draw with kite\.run\(traced=True\), or run `ovlo draw --groups`"):
        Sheet().save(tmp_path / "a.svg", groups=True)
    with pytest.raises(BadValue, match=r"groups are for an SVG, not for '\.png'"):
        scene.run(traced=True).save(tmp_path / "a.png", groups=True)
    assert not list(tmp_path.iterdir())
