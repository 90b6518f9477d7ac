"""What is kept of a run whose own process cannot conclude it."""

from __future__ import annotations

import sys

from ovlo import Sheet
from ovlo.core.sheet.host import hosted
from ovlo.core.trail.origins import Recorder
from ovlo.program.processes.spool import NAME, Spool, kept


def kite(nib, side):
    for _ in range(4):
        nib.forward(side)
        nib.left(90)


def test_a_kept_drawing_is_checked_like_the_one_it_was(tmp_path):
    recorder = Recorder(lambda file: file == __file__, sys._getframe())
    with hosted(recorder=recorder) as host, (tmp_path / NAME).open("wb") as file:
        sheet, spool = Sheet(640, 480), Spool(host, file, is_drawing=True)
        nib = sheet.new_nib()
        for i in range(12):
            nib.travel_to(20 * i, 0)
            kite(nib, 15 if i == 5 else 12)
            spool.write()
    found, count = kept(tmp_path)
    assert found is not None
    assert count == 1
    assert [one.rule for one in sheet.check()] == ["odd-one-out"]
    assert found.check() == sheet.check()
    assert found._origins.step_entries.tolist() == sheet._origins.step_entries.tolist()
