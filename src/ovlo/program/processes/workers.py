"""Jobs done in processes of their own: one that dies takes only its own job with it.

    for result in done(draw_job, jobs, workers=2, seconds=10):
        ...

Work gives a `Going` whenever a further part of a job begins, and its result last; of a job without a result
there is a `Lost` that says why. Whatever ends this process, no worker outlives it.
"""

from __future__ import annotations

import contextlib
import math
import os
import signal
import threading
import time
from collections.abc import Callable, Iterator, Sequence
from multiprocessing.connection import Connection, wait
from typing import Any, Generic, NamedTuple, TypeVar

from ovlo.program.processes.child import Child

Job = TypeVar("Job")
Result = TypeVar("Result")

GRACE = 2.0
"""Seconds after its time that a job may take to stop by itself, and that workers have when all is to end."""

ENDINGS = tuple(getattr(signal, name) for name in ("SIGINT", "SIGTERM", "SIGHUP") if hasattr(signal, name))
"""What tells a process to end."""


class Lost(NamedTuple):
    """Why a job has no result."""

    reason: str


class Going(NamedTuple):
    """A job goes on, with a part that may take so many seconds."""

    seconds: float | None


class _Worker(Generic[Job, Result]):
    """A process, and the job it has."""

    def __init__(self, work: Callable[[Job], object]) -> None:
        self._child = Child(_do_jobs, work)
        self.connection, self.process = self._child.connection, self._child.process
        self.end = self._child.end
        self.number = -1
        self.begun = 0.0
        self.limit: float | None = None

    def take(self, number: int, job: Job, seconds: float | None) -> None:
        """Begin a job."""
        self.number = number
        self.go_on(seconds)
        self.connection.send(job)

    def go_on(self, seconds: float | None) -> None:
        """Begin a part of a job, which may take so many seconds."""
        self.begun, self.limit = time.monotonic(), None if seconds is None else seconds + GRACE

    def left(self, told_at: float | None) -> float:
        """Seconds until it is late; all workers are, some time after they are told to end."""
        if told_at is not None:
            return GRACE - (time.monotonic() - told_at)
        return math.inf if self.limit is None else self.limit - (time.monotonic() - self.begun)


def done(
    work: Callable[[Job], Iterator[Result | Going]],
    jobs: Sequence[Job],
    workers: int,
    seconds: float | None = None,
) -> Iterator[tuple[int, Result | Lost]]:
    """Do jobs in so many processes; gives the number and the result of each as it is done.

    A job, or its first part, that takes longer than `seconds` is ended.
    If this process is told to end, jobs that run are told too, and those not begun are lost.
    """
    waiting = list(range(len(jobs)))[::-1]
    crew: list[_Worker[Job, Result]] = []
    with _told_to_end() as told:
        try:
            while waiting or any(worker.number >= 0 for worker in crew):
                if told and waiting:
                    yield from ((number, Lost("not drawn: it was asked to end")) for number in waiting[::-1])
                    waiting.clear()
                    _pass_on(crew)
                while waiting and len(crew) < min(workers, len(jobs)):
                    crew.append(_Worker(work))
                for worker in crew:
                    if worker.number < 0 and waiting:
                        worker.take(number := waiting.pop(), jobs[number], seconds)
                told_at = told[0] if told else None
                for worker in _ready(crew, told_at):
                    number, result = worker.number, _result_of(worker, told_at)
                    if isinstance(result, Going):
                        worker.go_on(result.seconds)
                        continue
                    if isinstance(result, Lost):
                        crew.remove(worker)
                        worker.end()
                    worker.number = -1
                    yield number, result
        finally:
            # The last first: those that began later hold the lines of those before them.
            for worker in reversed(crew):
                worker.end(0.5 if worker.number < 0 else 0.0)


def _pass_on(crew: Sequence[_Worker[Job, Result]]) -> None:
    """Tell workers to end what they do."""
    for worker in crew:
        with contextlib.suppress(ProcessLookupError):
            os.kill(worker.process.pid, signal.SIGTERM)


def _ready(crew: Sequence[_Worker[Job, Result]], told_at: float | None) -> list[_Worker[Job, Result]]:
    """The workers that have a result, are dead, or are late; waits for the first of them."""
    busy = [worker for worker in crew if worker.number >= 0]
    if not busy:
        return []
    left = min(0.25, *(worker.left(told_at) for worker in busy))
    ready = wait(
        [one for worker in busy for one in (worker.connection, worker.process.sentinel)], max(left, 0)
    )
    return [
        worker
        for worker in busy
        if worker.connection in ready or worker.process.sentinel in ready or worker.left(told_at) < 0
    ]


def _result_of(worker: _Worker[Job, Result], told_at: float | None) -> Result | Lost | Going:
    """What a worker has to hand over."""
    try:
        if worker.connection.poll():
            result: Result | Going = worker.connection.recv()
            return result
    except (EOFError, OSError):
        pass
    if worker.process.is_alive() and worker.process.exitcode is None and worker.left(told_at) < 0:
        worker.process.join(0.01)
        if worker.process.is_alive():
            return Lost("it ran longer than the time limit" if told_at is None else "it was asked to end")
    worker.process.join()
    status = worker.process.exitcode or 0
    if status < 0:
        return Lost(f"its process was killed (signal {-status}, {signal.Signals(-status).name})")
    return Lost(f"its process ended with {status}")


@contextlib.contextmanager
def _told_to_end() -> Iterator[list[float]]:
    """A block in which signals to end are noted, with their time, and do not end it."""
    told: list[float] = []
    if threading.current_thread() is not threading.main_thread():
        yield told
        return
    before = {number: signal.signal(number, lambda *_: told.append(time.monotonic())) for number in ENDINGS}
    try:
        yield told
    finally:
        for number, handler in before.items():
            signal.signal(number, handler)


def _do_jobs(connection: Connection, work: Callable[[Any], Any]) -> None:
    """What a worker does: one job after the other, until nobody gives it any more."""
    for number in ENDINGS:
        signal.signal(number, signal.SIG_IGN)
    while True:
        try:
            job = connection.recv()
        except (EOFError, OSError):
            return
        for part in work(job):
            connection.send(part)
