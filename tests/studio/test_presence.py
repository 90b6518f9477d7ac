"""How long a program waits for its page: clocks are turned by hand."""

from __future__ import annotations

import types

import pytest

from ovlo.studio import presence
from ovlo.studio.presence import AWAKE, RETURN, TICK, Presence


@pytest.fixture
def clock(monkeypatch):
    """A clock that `sleep` turns; what is noted for a time is done then."""
    now = types.SimpleNamespace(clock=100.0, wall=0.0, events=[])

    def sleep(seconds: float) -> None:
        now.clock += seconds
        now.wall += seconds
        while now.events and now.events[0][0] <= now.clock - 100:
            now.events.pop(0)[1]()

    time = types.SimpleNamespace(monotonic=lambda: now.clock, time=lambda: now.wall, sleep=sleep)
    monkeypatch.setattr(presence, "time", time)
    return now


def waited(room: Presence, clock) -> float:
    room._wait_for_last()
    return clock.clock - 100


def test_a_page_that_is_closed_may_come_back_for_three_seconds(clock):
    room = Presence()
    room.come("page")
    clock.events = [(10, lambda: room.go("page"))]
    assert 10 + RETURN <= waited(room, clock) <= 10 + RETURN + 2 * TICK


def test_a_page_that_is_loaded_again_goes_on(clock):
    room = Presence()
    room.come("page")
    clock.events = [
        (10, lambda: room.go("page")),
        (12, lambda: room.come("again")),
        (40, lambda: room.go("again")),
    ]
    assert waited(room, clock) == pytest.approx(40 + RETURN, abs=2 * TICK)


def test_the_last_word_and_the_closed_line_are_one_leave(clock):
    room = Presence()
    room.come("page")
    clock.events = [(10, lambda: room.go("page")), (12.9, lambda: room.go("page"))]
    assert waited(room, clock) == pytest.approx(10 + RETURN, abs=2 * TICK)


def test_after_a_sleep_of_the_machine_a_page_has_longer(clock):
    room = Presence()
    room.come("page")

    def sleeps() -> None:
        clock.wall += 3600
        room.go("page")

    clock.events = [(10, sleeps)]
    assert waited(room, clock) == pytest.approx(10 + AWAKE, abs=2 * TICK)
