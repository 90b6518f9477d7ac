"""The overlay of angles: every corner has both, or it is said how many have not."""

from __future__ import annotations

import numpy as np
import pytest

from ovlo import Sheet
from ovlo.render import lettering
from ovlo.render.additions.overlays import with_overlays
from ovlo.render.page import Page


def overlaid(steer, width=400, height=300, scale=2):
    """What the overlay writes on a drawing, and where: words, and the boxes of their letters."""
    sheet = Sheet(width, height)
    steer(sheet.new_nib())
    columns, page = with_overlays(sheet._columns, sheet, Page.of(sheet, scale), ["angles"])
    return [(text.words, *lettering.box(text)) for text in columns.texts], page


def test_words_of_a_sharp_corner_stand_beside_its_sides():
    def spike(nib):
        nib.forward(120)
        nib.left(160)
        nib.forward(120)

    found, _ = overlaid(spike)
    ((low, high),) = [box for words, *box in found if words == "20°"]
    # The two sides, as points: none is under the words.
    shares = np.linspace(0, 1, 200)[:, None]
    ends = np.array([[120, 0]]) + shares * [[120 * np.cos(np.radians(160)), 120 * np.sin(np.radians(160))]]
    points = np.vstack([shares * [[120, 0]], ends])
    assert not ((points > low) & (points < high)).all(axis=1).any()
    assert (np.array([120, 0]) >= low - 40).all()
    assert (np.array([120, 0]) <= high + 40).all()


@pytest.mark.parametrize("place", [(185, 140), (-185, -140)])
def test_words_beyond_the_edge_are_moved_onto_the_page(place):
    x, y = place

    def edge(nib):
        nib.travel_to(x, y - np.sign(y) * 100)
        nib.polyline([(x, y), (x - np.sign(x) * 100, y)])

    found, page = overlaid(edge)
    angles = [box for words, *box in found if words == "90°"]
    assert len(angles) == 2
    for low, high in angles:
        assert (low >= (page.left, -150)).all()
        assert (high <= (page.left + page.width, 150)).all()


def test_corners_without_room_are_counted():
    def comb(nib):
        nib.forward(60)
        for _ in range(3):
            nib.left(90)
            nib.forward(4)
        nib.forward(60)

    found, _ = overlaid(comb)
    words = [words for words, *_ in found]
    assert "3 corners have no room for both angles" in words
    square = [words for words, *_ in overlaid(lambda nib: nib.rectangle(150, 150))[0]]
    assert square.count("90°") == 8
    assert not any("no room" in words for words in square)
