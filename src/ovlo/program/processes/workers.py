"""Jobs done in processes of their own: one that dies takes only its own job with it.

    for result in done(draw_job, jobs, workers=2, seconds=10):
        ...

A result is what the work returned, or a `Lost` that says why there is none. Whatever ends this process, no
worker outlives it.
"""

from __future__ import annotations

import contextlib
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


class _Worker(Generic[Job, Result]):
    """A process, and the job it has."""

    def __init__(self, work: Callable[[Job], Result]) -> None:
        self._child = Child(_do_jobs, work)
        self.connection, self.process = self._child.connection, self._child.process
        self.end = self._child.end
        self.number = -1
        self.begun = 0.0

    def take(self, number: int, job: Job) -> None:
        """Begin a job."""
        self.number, self.begun = number, time.monotonic()
        self.connection.send(job)


def done(
    work: Callable[[Job], Result],
    jobs: Sequence[Job],
    workers: int,
    seconds: float | None = None,
) -> Iterator[tuple[int, Result | Lost]]:
    """Do jobs in so many processes; gives the number and the result of each as it is done.

    A job that takes longer than `seconds` is ended.
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
                        worker.take(number := waiting.pop(), jobs[number])
                limit = GRACE if told else None if seconds is None else seconds + GRACE
                since = told[0] if told else None
                for worker in _ready(crew, limit, since):
                    number, result = worker.number, _result_of(worker, limit, since)
                    if isinstance(result, Lost):
                        crew.remove(worker)
                        worker.end()
                    worker.number = -1
                    yield number, result
        finally:
            for worker in crew:
                worker.end(0.5 if worker.number < 0 else 0.0)


def _pass_on(crew: Sequence[_Worker[Job, Result]]) -> None:
    """Tell workers to end what they do."""
    for worker in crew:
        with contextlib.suppress(ProcessLookupError):
            os.kill(worker.process.pid, signal.SIGTERM)


def _ready(
    crew: Sequence[_Worker[Job, Result]], limit: float | None, since: float | None
) -> list[_Worker[Job, Result]]:
    """The workers that have a result, are dead, or are late; waits for the first of them."""
    busy = [worker for worker in crew if worker.number >= 0]
    if not busy:
        return []
    left = 0.25
    if limit is not None:
        left = min(left, *(limit - (time.monotonic() - (since or worker.begun)) for worker in busy))
    ready = wait(
        [one for worker in busy for one in (worker.connection, worker.process.sentinel)], max(left, 0)
    )
    return [
        worker
        for worker in busy
        if worker.connection in ready
        or worker.process.sentinel in ready
        or (limit is not None and time.monotonic() - (since or worker.begun) > limit)
    ]


def _result_of(worker: _Worker[Job, Result], limit: float | None, since: float | None) -> Result | Lost:
    """What a worker has to hand over."""
    try:
        if worker.connection.poll():
            result: Result = worker.connection.recv()
            return result
    except (EOFError, OSError):
        pass
    if worker.process.is_alive() and worker.process.exitcode is None and limit is not None:
        worker.process.join(0.01)
        if worker.process.is_alive():
            return Lost("it ran longer than the time limit" if since is None else "it was asked to end")
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
        connection.send(work(job))
