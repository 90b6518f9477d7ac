"""Lines and curves that are cut by a box: what is left lies inside, on what was drawn, and is all of it."""

from __future__ import annotations

import math

import numpy as np
import pytest
import shapely

from ovlo import Motif, Sheet
from ovlo.core.paint.measures import drawn_length
from ovlo.core.paint.outlines import borders
from ovlo.core.paint.regions import region
from ovlo.core.trail.curves import points_at

pytestmark = pytest.mark.filterwarnings("ignore:cropped")  # some boxes have nothing in them

WAVE = '<svg xmlns="http://www.w3.org/2000/svg"><path fill="none" stroke="black" d="{}"/></svg>'


def from_svg(nib, folder, path):
    (folder / "wave.svg").write_text(WAVE.format(path))
    nib.stamp(Motif.from_svg(folder / "wave.svg"))


DRAWN = {
    "line": lambda nib, folder: nib.line_to(130, 90),
    "arc": lambda nib, folder: nib.arc_left(60, 250),
    "arc back": lambda nib, folder: nib.arc_right(60, -250),
    "rounds": lambda nib, folder: nib.arc_right(45, 800),
    "ellipse": lambda nib, folder: nib.ellipse(190, 70, turn=25),
    "circle": lambda nib, folder: nib.circle(50),
    "cubic": lambda nib, folder: from_svg(nib, folder, "M-90 20C0 200 20 -200 90 40"),
    "loop": lambda nib, folder: from_svg(nib, folder, "M-60 0C120 90 120 -90 -60 10S-90 60 70 70"),
    "polygon": lambda nib, folder: nib.polygon(5, radius=70, turn=9),
}
BOXES = [(-40, -30, 80, 60), (-100, -12, 200, 24), (10, 10, 300, 300), (-7, -90, 30, 180)]


def sampled(columns, count=4000):
    """Short pieces of all that is drawn: their middles, lengths and directions, and the ends of the steps."""
    arcs = {int(arc["step"]): i for i, arc in enumerate(columns.arcs)}
    shares = np.linspace(0, 1, count + 1)
    middles, lengths = [], []
    for step in np.flatnonzero(columns.of_steps("pen") == 1).tolist():
        start, end = columns.starts[step], columns.points[step]
        if step in arcs:
            n = count + 1
            points = points_at(
                np.repeat(columns.arcs[arcs[step] : arcs[step] + 1], n),
                np.tile(start, (n, 1)), np.tile(end, (n, 1)), shares,
            )  # fmt: skip
        else:
            points = start + shares[:, None] * (end - start)
        middles.append((points[1:] + points[:-1]) / 2)
        lengths.append(np.hypot(*np.diff(points, axis=0).T))
    return np.vstack(middles), np.concatenate(lengths)


@pytest.mark.parametrize("box", BOXES)
@pytest.mark.parametrize("name", DRAWN)
def test_what_is_cut_is_what_lies_inside(name, box, tmp_path):
    sheet = Sheet(400, 400)
    nib = sheet.new_nib()
    DRAWN[name](nib, tmp_path)
    left, bottom, width, height = box
    middles, lengths = sampled(sheet._columns)
    low, high = np.array((left, bottom)), np.array((left + width, bottom + height))
    inside = ((middles >= low) & (middles <= high)).all(axis=1)
    motif = sheet.cropped(*box, whole=False)
    assert drawn_length(motif._columns) == pytest.approx(lengths[inside].sum(), abs=0.6)
    if not inside.any():
        return
    centre = np.array([left + width / 2, bottom + height / 2])
    found, _ = sampled(motif._columns, 60)
    found = found + centre
    assert ((found >= low - 0.01) & (found <= high + 0.01)).all()
    # Each of them lies on what was drawn, and each end points on along it.
    tree = shapely.STRtree(shapely.points(middles))
    nearest = tree.nearest(shapely.points(found))
    assert np.hypot(*(found - middles[nearest]).T).max() < 0.5
    columns = motif._columns
    drawn = np.flatnonzero(columns.of_steps("pen") == 1)
    arcs = {int(arc["step"]): i for i, arc in enumerate(columns.arcs)}
    for step in drawn.tolist():
        start, end = columns.starts[step : step + 1], columns.points[step : step + 1]
        before = start
        if step in arcs:
            arc = columns.arcs[arcs[step] : arcs[step] + 1]
            before = points_at(arc, start, end, np.array([1 - 1e-5]))
        heading = math.degrees(math.atan2(*(end - before)[0, ::-1].tolist()))
        assert abs((heading - columns.steps["heading"][step] + 180) % 360 - 180) < 0.05


@pytest.mark.parametrize("box", BOXES)
@pytest.mark.parametrize("name", ["ellipse", "polygon", "circle"])
def test_a_cut_area_is_what_lies_inside(name, box):
    fills = {
        "ellipse": lambda nib: nib.ellipse(190, 70, turn=25, fill="gold", outline=False),
        "polygon": lambda nib: nib.star(5, 70, turn=9, fill="gold", outline=False, fill_rule="evenodd"),
        "circle": lambda nib: nib.circle(50, fill="gold", outline=False),
    }
    sheet = Sheet(400, 400)
    fills[name](sheet.new_nib())

    def areas(columns):
        outline = borders(columns).flattened(0.001)
        rules = columns.areas["fill_rule"][outline.keys].tolist()
        return shapely.union_all(
            [region(*outline.path(i), ("nonzero", "evenodd")[rule]) for i, rule in enumerate(rules)]
        )

    left, bottom, width, height = box
    frame = shapely.box(left, bottom, left + width, bottom + height)
    expected = shapely.intersection(areas(sheet._columns), frame)
    found = areas(sheet.cropped(*box, whole=False)._columns)
    assert found.area == pytest.approx(expected.area, abs=0.5)
    if found.area:
        centre = np.array([left + width / 2, bottom + height / 2])
        moved = shapely.transform(found, lambda points: points + centre)
        assert shapely.symmetric_difference(moved, expected).area < 0.5


def test_what_lies_on_the_border_is_inside():
    sheet = Sheet(400, 400)
    nib = sheet.new_nib(-50, -20)
    for side in (100, 40, 100, 40):
        nib.forward(side)
        nib.left(90)
    nib.travel_to(0, 0)
    nib.text("on")
    for whole in (True, False):
        assert drawn_length(sheet.cropped(-50, -20, 100, 40, whole=whole)._columns) == pytest.approx(280)
        assert drawn_length(sheet.cropped(-50, -20, 99, 40, whole=whole)._columns) == pytest.approx(
            0 if whole else 238
        )
    assert len(sheet.cropped(-1, -1, 2, 2, whole=False)._columns.texts) == 1
    assert len(sheet.cropped(1, 1, 200, 200, whole=False)._columns.texts) == 0
    assert len(sheet.cropped(-1, -1, 2, 2)._columns.texts) == 0
