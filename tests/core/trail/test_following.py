"""Following a drawing as it grows: nothing is read twice, and nothing is missed."""

from __future__ import annotations

import pickle
import sys
import threading

import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from torture.programs import Program

from ovlo import Sheet
from ovlo.core.sheet.host import hosted
from ovlo.core.trail.columns import TABLES
from ovlo.core.trail.following import Follower, grown
from ovlo.core.trail.origins import Recorder


def same(a, b) -> bool:
    return (
        all(np.array_equal(getattr(a, name), getattr(b, name)) for name in TABLES)
        and a.texts == b.texts
        and a.styles == b.styles
    )


@given(st.integers(0, 10_000))
def test_growths_put_together_are_the_drawing(seed):
    growths = []
    followers: dict[int, Follower] = {}

    def follow(sheet: Sheet) -> None:
        follower = followers.setdefault(id(sheet), Follower(sheet._trail))
        growths.append(pickle.loads(pickle.dumps(follower.growth())))

    sheet = Program(seed, 20, follow).run()
    assert same(grown(growths).columns(), sheet._columns)
    assert not any(followers[id(sheet)].growth().rows.values())


def test_a_follower_beside_a_writer_sees_a_whole_drawing():
    sheet = Sheet()
    nib = sheet.new_nib()
    is_over = threading.Event()

    def write() -> None:
        for i in range(3000):
            with nib.area("gold"):
                nib.forward(3)
                nib.arc_left(5, 90)
            nib.text("kite")
            nib.line_width = 1 + i % 7
        is_over.set()

    writer = threading.Thread(target=write)
    follower, growths = Follower(sheet._trail), []
    writer.start()
    while not is_over.is_set():
        growths.append(follower.growth())
        columns = grown(growths).columns()
        assert columns.runs["start"].max(initial=-1) < len(columns)
        assert columns.runs["style"].max(initial=-1) < len(columns.styles)
    writer.join()
    growths.append(follower.growth())
    assert same(grown(growths).columns(), sheet._columns)


def test_growths_know_where_their_steps_came_from():
    recorder = Recorder(lambda file: file == __file__, sys._getframe())
    with hosted(recorder=recorder):
        sheet = Sheet()
        follower, growths = Follower(sheet._trail), []
        nib = sheet.new_nib()

        def post():
            nib.forward(5)
            nib.circle(4)

        for _ in range(3):
            post()
            growths.append(pickle.loads(pickle.dumps(follower.growth())))
        origins = sheet._origins
    places, entries = grown(growths).noted()
    assert places.tolist() == origins.steps.tolist()
    assert entries.tolist() == origins.step_entries.tolist()
    assert len(set(places.tolist())) > 2
