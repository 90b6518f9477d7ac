"""How runs end where there are no interval timers, what a child leaves, and what answers say in short."""

from __future__ import annotations

import os
import signal
import sys
import threading
from collections.abc import Iterator
from multiprocessing import get_start_method
from multiprocessing.util import Finalize
from types import ModuleType

import pytest

from ovlo import UnknownName
from ovlo.core.sheet.host import Stop
from ovlo.outlets import check
from ovlo.program.explaining import in_brief, put_answer
from ovlo.program.loading import as_under_python, load
from ovlo.program.processes.workers import done
from ovlo.program.running import Limits, run_program
from ovlo.program.variations import Variations

HEAD = "from ovlo import Sheet\nsheet = Sheet(400, 300)\nnib = sheet.new_nib()\n"


@pytest.mark.skipif(not hasattr(signal, "setitimer"), reason="there are no interval timers here anyway")
def test_a_run_is_stopped_by_a_thread_where_there_are_no_timers(program, monkeypatch):
    monkeypatch.delattr(signal, "setitimer")
    path, before = program(HEAD + "while True:\n    nib.left(1)\n"), signal.getsignal(signal.SIGINT)
    outcome = run_program(load(str(path)), limits=Limits(seconds=0.3))
    assert "ran longer than 0.3 s" in outcome.trouble
    assert signal.getsignal(signal.SIGINT) is before


@pytest.mark.parametrize("has_timers", [True, False])
def test_a_limit_that_is_up_before_the_program_begins_holds(program, monkeypatch, has_timers):
    if not has_timers:
        monkeypatch.delattr(signal, "setitimer", raising=False)
    path = program(HEAD + "while True:\n    nib.left(1)\n")
    assert "ran longer than 1e-06 s" in run_program(load(str(path)), limits=Limits(seconds=1e-6)).trouble


@pytest.mark.skipif(not hasattr(signal, "setitimer"), reason="there are no interval timers here anyway")
def test_a_clock_does_not_ring_after_its_run(program, monkeypatch):
    monkeypatch.delattr(signal, "setitimer")
    before = set(threading.enumerate())
    assert not run_program(load(str(program(HEAD + "nib.forward(9)\n"))), limits=Limits(seconds=60)).trouble
    assert set(threading.enumerate()) <= before


@pytest.mark.skipif(not hasattr(os, "fork"), reason="there is no fork here")
@pytest.mark.parametrize(("end", "status"), [("pass", 0), ("1 / 0", 1)])
def test_a_child_that_a_program_forks_ends_with_its_own_status(program, capfd, end, status):
    code = "import os\nchild = os.fork()\nif child:\n    nib.forward(10 + os.waitpid(child, 0)[1] // 256)\n"
    outcome = run_program(load(str(program(f"{HEAD}{code}else:\n    {end}\n"))))
    assert outcome.sheet.nibs[0].position == (10 + status, 0)
    assert ("ZeroDivisionError" in capfd.readouterr().err) == bool(status)


def test_a_program_finds_its_neighbours(program):
    path = program(HEAD)
    module = ModuleType("kite")
    module.__file__, module.__package__ = str(path), None
    with as_under_python(module):
        assert sys.path[0] == str(path.resolve().parent)


def test_one_lift_is_pointed_at_only_by_what_is_about_lifting(program):
    code = (
        HEAD
        + "nib.lift()\nnib.forward(9)\nnib.lower()\nfor _ in range(2):\n    nib.circle(20, fill='gold')\n"
    )
    outcome = run_program(load(str(program(code))), limits=Limits(), traced=True)
    (found,) = check(outcome.sheet, (), outcome.stopped_at)
    assert found.rule == "drawn-again"
    assert 4 not in found.lines


def test_what_is_thrown_away_is_kept_under_a_name_of_its_own(program):
    code = HEAD + "nib.forward(9)\nsheet.cropped()\n"
    outcome = run_program(load(str(program(code))), limits=Limits(), traced=True)
    (found,) = check(outcome.sheet, (), outcome.stopped_at)
    assert found.rule == "unused-result"
    assert "result = sheet.cropped()" in found.fix


def test_a_stop_is_told_in_one_line():
    assert in_brief(Stop("Ctrl-C was pressed")) == "Stopped: Ctrl-C was pressed."


def test_a_name_that_is_answered_is_not_answered_by_python_too():
    error = UnknownName("nib has no 'foward'; did you mean forward?", name="foward", obj=None)
    put_answer(error)
    assert error.name is None


def test_variations_are_saved_as_large_as_they_are():
    assert Variations.save.__kwdefaults__["scale"] == 1


@pytest.mark.skipif(get_start_method() != "fork", reason="a function of a test goes to no other process")
def test_processes_that_have_nothing_to_do_any_more_end_by_themselves(tmp_path):
    known = set()

    def work(number: int) -> Iterator[int]:
        if os.getpid() not in known:
            known.add(os.getpid())
            Finalize(None, (tmp_path / str(os.getpid())).touch, exitpriority=1)
        yield os.getpid()

    found = {pid for _, pid in done(work, range(40), 4)}
    assert {int(path.name) for path in tmp_path.iterdir()} == found
    assert len(found) == 4
