"""What the process of a program does next, without one: the newest picture first, and nothing for ever."""

from __future__ import annotations

import pytest

from ovlo.studio.exploring.requests import Draw, Save
from ovlo.studio.exploring.schedule import AGAIN, Schedule, State

FIRST, SECOND, THIRD = (Draw("kite.py", {"sides": text}) for text in "345")
SMALL = Draw("kite.py", {}, number=1)


class Process:
    """Notes what it is asked."""

    def __init__(self) -> None:
        self.is_warm = False
        self.said: list[object] = []

    def ask(self, request: Draw | Save) -> None:
        self.said.append(request)

    def interrupt(self) -> None:
        self.said.append("interrupt")


class Clock:
    """Time that goes on when it is told to."""

    def __init__(self) -> None:
        self.now = 100.0
        self.waiting: list[tuple[float, object]] = []

    def later(self, seconds, work) -> None:
        self.waiting.append((self.now + seconds, work))

    def go(self, seconds: float) -> None:
        end = self.now + seconds
        while due := [one for one in self.waiting if one[0] <= end]:
            first = min(due, key=lambda one: one[0])
            self.waiting.remove(first)
            self.now = first[0]
            first[1]()  # type: ignore[operator]
        self.now = end


@pytest.fixture
def parts():
    process, clock, deaths = Process(), Clock(), []
    return Schedule(process, clock.later, lambda: deaths.append(1), lambda: clock.now), process, clock, deaths


def test_a_picture_is_drawn_at_once_and_the_next_when_it_is_done(parts):
    schedule, process, _, _ = parts
    schedule.want(FIRST)
    assert (schedule.state, process.said) == (State.DRAWING, [FIRST])
    schedule.rest()
    schedule.go_on()
    assert schedule.state is State.RESTING
    schedule.add([SMALL, Save(".svg", (), "")])
    assert (schedule.state, process.said[1:]) == (State.ASIDE, [SMALL])


def test_a_fresh_picture_lets_the_next_run_be_overtaken_at_once(parts):
    schedule, process, clock, _ = parts
    schedule.want(FIRST)
    schedule.rest()
    schedule.show(0.01)
    schedule.want(SECOND)
    clock.go(0.01)
    schedule.want(THIRD)
    assert schedule.state is State.STOPPING
    assert process.said == [FIRST, SECOND, "interrupt"]
    schedule.rest()
    schedule.go_on()
    assert process.said[-1] is THIRD


def test_an_old_picture_lets_a_run_come_to_its_end(parts):
    schedule, process, clock, _ = parts
    schedule.want(FIRST)
    clock.go(0.4)
    schedule.want(SECOND)
    assert schedule.state is State.DRAWING
    clock.go(0.09)
    assert schedule.state is State.DRAWING
    clock.go(0.02)
    assert schedule.state is State.STOPPING
    assert process.said == [FIRST, *["interrupt"] * process.said.count("interrupt")]


@pytest.mark.parametrize(("is_warm", "patience"), [(False, 2.0), (True, 0.4)])
def test_what_does_not_stop_is_ended(parts, is_warm, patience):
    schedule, process, clock, deaths = parts
    process.is_warm = is_warm
    schedule.show(0)
    schedule.want(FIRST)
    clock.go(0.01)
    schedule.want(SECOND)
    clock.go(patience - AGAIN)
    assert deaths == []
    clock.go(3 * AGAIN)
    assert deaths == [1]


def test_a_stop_that_is_asked_for_is_heard_once(parts):
    schedule, process, _, _ = parts
    schedule.stop()
    assert process.said == []
    schedule.want(FIRST)
    schedule.stop()
    schedule.stop()
    assert process.said == [FIRST, "interrupt"]


def test_small_pictures_give_way_and_a_file_does_not(parts):
    schedule, process, clock, _ = parts
    schedule.show(0)
    schedule.add([SMALL, SMALL])
    schedule.want(FIRST)
    assert (schedule.state, process.said) == (State.STOPPING, [SMALL, "interrupt"])
    schedule.rest()
    schedule.go_on()
    schedule.rest()
    schedule.go_on()
    assert process.said[2:] == [FIRST]  # the second small picture was of values of before
    schedule.add([Save(".svg", (), "")])
    schedule.want(SECOND)
    clock.go(5)
    assert schedule.state is State.ASIDE


def test_a_check_gives_way(parts):
    schedule, process, _, _ = parts
    schedule.may_check = True
    schedule.want(FIRST)
    assert (process.said, schedule.may_check) == (["interrupt", FIRST], False)
