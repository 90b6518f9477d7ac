"""Motifs: transforms, joins and stamps keep the shape, and nothing is torn apart."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ovlo import (
    BadType,
    BadValue,
    Dice,
    Motif,
    OvloError,
    Sheet,
    column,
    drawing,
    end_to_end,
    layered,
    row,
)
from ovlo.core.paint.measures import drawn_length
from ovlo.core.paint.outlines import strokes

angles, factors = st.floats(-720, 720), st.floats(0.01, 100)


def boat(nib):
    nib.line_width = 3
    with nib.area("linen"):
        for _ in nib.full_turn(3):
            nib.forward(30)
    nib.arc_right(20, 140)
    nib.ellipse(30, 12, fill="navy")
    nib.text("boat", size=10)
    nib.travel(5)


def recorded() -> Motif:
    return Motif.record(boat)


def test_a_motif_holds_what_was_drawn_and_where_the_nib_ended():
    motif = recorded()
    assert motif.end.heading == 220
    assert len(motif._columns.areas) == 2
    assert motif._columns.texts[0].words == "boat"
    assert motif._columns.styles[-1].line_width == 3
    sail = drawing()(lambda nib, size=20: nib.forward(size))
    assert Motif.record(sail, 7).end == (7, 0, 0)


def test_chance_and_sheets_must_be_handed_in():
    with pytest.raises(OvloError, match=r"Motif.record\(…, dice=nib.dice\)"):
        Motif.record(lambda nib: nib.forward(nib.dice.integer(1, 6)))
    with pytest.raises(OvloError, match="there is no sheet"):
        Motif.record(lambda nib: nib.forward(nib.sheet.width))
    first, second = (
        Motif.record(lambda nib: nib.forward(nib.dice.number(1, 6)), dice=Dice(3)) for _ in range(2)
    )
    assert first.end == second.end


@given(angles)
def test_turning_back_gives_the_same_motif(angle):
    motif = recorded()
    again = motif.turned(angle).turned(-angle)
    assert again._columns.points == pytest.approx(motif._columns.points, abs=1e-9)
    assert tuple(again.end) == pytest.approx(tuple(motif.end), abs=1e-9)


@given(angles, factors, st.floats(-1000, 1000), angles)
def test_transforms_keep_lengths_and_angles(angle, factor, dx, axis):
    motif = recorded()
    length = drawn_length(motif._columns)
    for changed, scale in (
        (motif.turned(angle), 1),
        (motif.moved(dx, -dx), 1),
        (motif.mirrored(axis), 1),
        (motif.scaled(factor), factor),
    ):
        assert drawn_length(changed._columns) == pytest.approx(scale * length, rel=1e-12 * (1 + abs(dx)))
        spans = [
            np.abs(np.subtract.outer(points @ [1, 1j], points @ [1, 1j]))
            for points in (motif._columns.points, changed._columns.points)
        ]
        assert np.abs(spans[1] - scale * spans[0]).max() <= 1e-12 * scale * (100 + abs(dx))


def test_mirroring_twice_in_any_line_is_nothing():
    motif = recorded()
    again = motif.mirrored(33).mirrored(33)
    assert again._columns.points == pytest.approx(motif._columns.points, abs=1e-9)
    up = Motif.record(lambda nib: nib.line_to(30, 10)).mirrored(90)
    assert (up._columns.points[-1] == (-30, 10)).all()
    assert up.end == (-30, 10, 180)


def test_line_widths_scale_unless_they_are_to_be_kept():
    motif = recorded()
    assert motif.scaled(2)._columns.styles[-1].line_width == 6
    assert motif.scaled(2, keep_line_width=True)._columns.styles[-1].line_width == 3
    assert motif.scaled(2)._columns.texts[0].size == 20


def test_a_box_is_tight_around_arcs():
    left, bottom, right, top = Motif.record(lambda nib: nib.arc_left(50, 270)).bounds
    assert (left, bottom, right, top) == pytest.approx((-50, 0, 50, 100))
    assert recorded().centred().bounds == pytest.approx(
        tuple(
            side * part
            for side, part in zip((-1, -1, 1, 1), recorded().centred().bounds[2:] * 2, strict=True)
        )
    )


def test_a_spiral_of_three_thousand_pieces_has_no_gap():
    piece = Motif.record(lambda nib: (nib.forward(10), nib.left(7), nib.arc_left(3, 20)))
    pieces = [piece.scaled(0.9985**i) for i in range(3000)]
    spiral = end_to_end(pieces, turn=4)
    columns = spiral._columns
    drawn = columns.is_drawn
    first = np.flatnonzero(np.diff(drawn.astype(int)) == 1) + 1
    ends, starts = columns.points[first[1:] - 2], columns.starts[first[1:]]
    assert len(first) == 3000
    size = np.ptp(columns.points, axis=0).max()
    assert np.abs(ends - starts).max() < 1e-9 * size
    assert math.dist(columns.points[-1], (spiral.end.x, spiral.end.y)) == 0


def test_rows_and_columns_align_and_keep_their_gaps():
    small = Motif.record(lambda nib: nib.circle(5))
    large = Motif.record(lambda nib: nib.circle(20)).moved(3, 4)
    for align, bottoms in {"bottom": -5, "middle": -20, "top": -35, "origin": -16}.items():
        assert row([small, large], gap=2, align=align).bounds == pytest.approx(
            (-5, min(-5, bottoms), 47, bottoms + 40 if bottoms + 40 > 5 else 5)
        )
    for align, lefts in {"left": -5, "middle": -20, "right": -35, "origin": -17}.items():
        box = column([small, large], gap=2, align=align).bounds
        assert box == pytest.approx((min(-5, lefts), -47, max(5, lefts + 40), 5))
    assert layered([small, large]).end == large.end


def test_stamps_lie_in_the_order_they_were_made(nib):
    ring = Motif.record(lambda nib: nib.circle(10, fill="gold"))
    nib.line_width = 9
    nib.forward(10)
    nib.stamp(ring, scale=2, turn=30)
    nib.back(30)
    nib.text("on top")
    nib.stamp(ring)
    nib.circle(4, fill="navy")
    trail, columns = nib.sheet.trail, nib.sheet._columns
    assert nib.pose == (-20, 0, 0)
    assert len(trail) == len(columns) == len(trail.x)
    orders = sorted((row["order"], "area") for row in columns.areas)
    orders += [(text.order, "text") for text in columns.texts]
    assert [kind for _, kind in sorted(orders)] == ["area", "text", "area", "area"]
    nib.forward(5)
    assert trail.x[-1] == -15


def test_a_stamp_is_the_motif_transformed(nib):
    motif = recorded()
    nib.travel_to(30, -40)
    nib.turn_to(200)
    nib.stamp(motif, scale=1.5, turn=40)
    expected = motif.scaled(1.5).turned(240).moved(30, -40)
    trail = nib.sheet._columns
    stamped = trail.points[-len(expected._columns) :]
    assert stamped == pytest.approx(expected._columns.points, abs=1e-9)
    assert trail.steps["heading"][-len(stamped) :] == pytest.approx(expected._columns.steps["heading"])
    assert trail.texts[0].x == pytest.approx(expected._columns.texts[0].x)
    assert strokes(trail).flattened(0.05).vertices == pytest.approx(
        strokes(expected._columns).flattened(0.05).vertices
    )


def test_a_styled_copy_changes_all_and_leaves_the_motif(nib):
    motif = recorded()
    blue = motif.styled(ink="navy", line_width=1, fill="skyblue")
    assert {style.ink.hex for style in blue._columns.styles} == {"#000080"}
    assert blue._columns.areas["blue"].tolist() == [235, 235]
    assert motif._columns.styles[-1].line_width == 3


def test_a_motif_is_shown_and_saved_on_a_page_around_it(tmp_path):
    motif = recorded()
    assert motif._repr_svg_().startswith("<svg")
    assert motif._repr_png_().startswith(b"\x89PNG")
    motif.save(tmp_path / "boat.pdf")
    assert (tmp_path / "boat.pdf").exists()
    Motif.record(lambda nib: None).save(tmp_path / "empty.png")


REFUSED = {
    "factor must be above 0": lambda motif: motif.scaled(0),
    "angle must be a finite": lambda motif: motif.turned(math.nan),
    "dx must be a finite": lambda motif: motif.moved(math.nan, 0),
    "heading must be a number": lambda motif: motif.mirrored("x"),
    "motifs is empty": lambda motif: end_to_end([]),
    "give a list of motifs": lambda motif: row(motif),
    "is not a motif": lambda motif: column([motif, "boat"]),
    "align must be one of 'bottom'": lambda motif: row([motif], align="left"),
    "align must be one of 'left'": lambda motif: column([motif], align="top"),
    "must take the nib first": lambda motif: Motif.record(lambda: None),
    "give a function": lambda motif: Motif.record(7),
    "stamp: scale must be above 0": lambda motif: Sheet(9, 9).new_nib().stamp(motif, scale=0),
    "stamp: .* is not a motif": lambda motif: Sheet(9, 9).new_nib().stamp("boat"),
    "there is no colour": lambda motif: motif.styled(fill="seagren"),
}


@pytest.mark.parametrize("words", REFUSED)
def test_what_cannot_be_is_refused(words):
    with pytest.raises((BadValue, BadType), match=words):
        REFUSED[words](recorded())
