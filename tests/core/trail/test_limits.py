"""What a trail counts against a limit: each row it is about to hold, and nothing else."""

from __future__ import annotations

import pytest

from ovlo import Motif, Sheet
from ovlo.core.sheet.host import Stop, hosted


def bow(nib):
    nib.arc_left(8, 120)
    nib.text("bow")
    nib.circle(3, fill="gold")


BOW = Motif.record(bow)


def rows(sheet: Sheet) -> int:
    """The steps, runs, areas, texts and pauses of a trail."""
    columns = sheet._columns
    return sum(map(len, (columns.steps, columns.runs, columns.areas, columns.texts, columns.pauses)))


def area(nib):
    with nib.area("gold"):
        nib.polyline([(0, 0), (9, 0), (0, 9)])
        nib.line_to_start()


def two_circles(nib):
    nib.circle(5)
    nib.circle(9, fill="red")


DEEDS = {
    "forward": lambda nib: nib.forward(5),
    "arc": lambda nib: nib.arc_left(9, 200),
    "circle": lambda nib: nib.circle(4),
    "two circles": two_circles,
    "star": lambda nib: nib.star(5, 20),
    "area": area,
    "text": lambda nib: nib.text("kite"),
    "pause": lambda nib: nib.pause(1),
    "walk": lambda nib: nib.walk([4, 5, 6], 30),
    "travel": lambda nib: nib.travel(5),
    "stamp": lambda nib: nib.stamp(BOW),
    "rectangle": lambda nib: nib.rectangle(9, 5, fill="navy", outline=False),
}


@pytest.mark.parametrize("name", DEEDS)
def test_every_row_is_counted_once(name):
    with hosted(step_limit=10_000) as host:
        sheet = Sheet()
        nib = sheet.new_nib()
        nib.forward(3)
        before, left = rows(sheet), host._left
        DEEDS[name](nib)
        counted = left - host._left
        # The jump to where a stamp is laid, and its run, are counted with it.
        assert counted == rows(sheet) - before


@pytest.mark.parametrize("name", DEEDS)
def test_at_the_limit_it_stops_and_holds_no_more(name):
    with hosted(step_limit=10_000) as host:
        DEEDS[name](Sheet().new_nib())
        needed = int(10_000 - host._left)
    with hosted(step_limit=needed):
        DEEDS[name](Sheet().new_nib())
    with hosted(step_limit=needed - 1) as host:
        sheet = Sheet()
        with pytest.raises(Stop):
            DEEDS[name](sheet.new_nib())
        assert "it drew more than" in host.reason
        assert rows(sheet) < needed
        with pytest.raises(Stop):
            sheet.new_nib().forward(5)


def test_a_walk_beyond_the_limit_is_not_worked_out():
    with hosted(step_limit=100):
        sheet = Sheet()
        nib = sheet.new_nib()
        with pytest.raises(Stop):
            nib.walk([5.0] * 200, 90)
        assert len(sheet._columns) == 1
