"""Running a user's program: its sheet, or what went wrong and the sheet so far.

    outcome = run_program(load("kite.py"), {"sides": "5"}, seed=None, limits=Limits())
    outcome.sheet, outcome.trouble

A program may be stopped: by too many steps, by the clock, or by Ctrl-C. The stop is raised in the program
itself, so that what it drew is kept and the line it was in is known.
"""

from __future__ import annotations

import _thread
import atexit
import builtins
import os
import random
import signal
import sys
import threading
import time
import traceback
import warnings
from collections.abc import Callable, Iterator
from contextlib import AbstractContextManager, contextmanager, nullcontext, suppress
from dataclasses import dataclass, replace
from functools import partial
from types import FrameType
from typing import Any, NoReturn, TextIO

from ovlo.core.sheet.host import Host, hosted
from ovlo.core.trail.origins import Recorder
from ovlo.core.values.arguments import brief as shortened
from ovlo.core.values.errors import BadUse, NoEffect, OvloError, ProgramFailed
from ovlo.program.explaining import explained, in_brief
from ovlo.program.lines import is_users, users_frames
from ovlo.program.loading import AnyDrawing, Program, as_under_python
from ovlo.program.outcome import OWN_CHANCE, Outcome

STEP_LIMIT = 5_000_000

Keeping = Callable[[Host, float | None, bool], AbstractContextManager[object]]
"""What keeps the picture of a run: given its host, its limit in seconds, and whether it is a drawing's."""


@dataclass(frozen=True)
class Limits:
    """What stops a program.

    Attributes
    ----------
    step_limit : int
        How many steps, texts, pauses and changes of style its trails may hold together.
    seconds : float or None
        How long it may run.
    """

    step_limit: int = STEP_LIMIT
    seconds: float | None = None


def run_program(
    program: Program,
    settings: dict[str, str] | None = None,
    seed: int | None = None,
    limits: Limits = Limits(),
    traced: bool = False,
    keeping: Keeping | None = None,
) -> Outcome:
    """Run a file's drawing with values given as text, or a script.

    `traced` asks for the place in the program that each step comes from, `keeping` that the picture is kept
    whatever becomes of this process.
    """
    if not program.declares:
        if settings:
            raise BadUse(f"{program.path} is a script, which has no parameters to set.")
        hint, title = _hint_for_script(program), program.path.stem
        outcome = run(lambda: program.execute("__main__"), seed, limits, hint, traced, title, keeping=keeping)
        return replace(outcome, notices=(*program.uncalled, *outcome.notices))

    def load_and_draw() -> None:
        drawing = program.drawing()
        with as_under_python(drawing._module):
            drawing.run(seed=seed, **drawing._complete(drawing._read(settings or {})))

    outcome = run(load_and_draw, seed, limits, traced=traced, is_drawing=True, keeping=keeping)
    return replace(outcome, notices=(*program.uncalled, *outcome.notices))


def run_drawing(
    drawing: AnyDrawing, settings: dict[str, str], seed: int | None, limits: Limits, traced: bool = False
) -> Outcome:
    """Run a drawing with values given as text."""
    values = drawing._complete(drawing._read(settings))

    def draw() -> None:
        with as_under_python(drawing._module):
            drawing.run(seed=seed, **values)

    return run(draw, seed, limits, traced=traced, is_drawing=True)


def load_drawing(program: Program, limits: Limits) -> AnyDrawing:
    """The drawing of a file, which is executed within limits."""
    found: list[AnyDrawing] = []
    outcome = run(lambda: found.append(program.drawing()), limits=limits, is_drawing=True)
    if outcome.trouble:
        raise ProgramFailed(outcome.trouble)
    return found[0]


def _hint_for_script(program: Program) -> str:
    if program.takers:
        name = program.takers[0]
        return (
            f"{program.path} draws nothing: {name} takes a nib, but nothing calls it with one. Put "
            f"@drawing above "
            f"`def {name}`, and add at the top: from ovlo import drawing"
        )
    return (
        f"{program.path} defines no drawing and makes no sheet. Begin it with\n"
        "    from ovlo import Sheet\n"
        "    sheet = Sheet(640, 480)\n"
        "    nib = sheet.new_nib()"
    )


def run(
    work: Callable[[], object],
    seed: int | None = None,
    limits: Limits = Limits(),
    hint: str = "",
    traced: bool = False,
    title: str = "",
    is_drawing: bool = False,
    keeping: Keeping | None = None,
) -> Outcome:
    """Do some work under a host; `hint` is raised if it makes no sheet and nothing else is wrong.

    `title` is that of sheets that are given none. A script's picture is the last sheet it made, a drawing's
    is its own, which is there before any other. An error of Ovlo's in which the program has no part, such as
    a value it cannot take, is raised.
    """
    trouble = brief = ""
    stopped_at: tuple[tuple[str, int], ...] = ()
    recorder = Recorder(is_users, sys._getframe()) if traced else None
    with (
        hosted(limits.step_limit, seed, recorder, title) as host,
        nullcontext() if keeping is None else keeping(host, limits.seconds, is_drawing),
        _stoppable(host, limits.seconds),
        _leaving_by_stop(host),
        _deep(),
        noticing() as notices,
        _handlers_at_exit() as at_exit,
        _noticing_chance(notices),
        _noticing_sleep(notices),
    ):
        try:
            with _as_it_was():
                _at_work(work, at_exit)
        except SystemExit as leaving:
            if leaving.code:
                trouble = brief = f"The program exited with {shortened(leaving.code)}."
        except BaseException as error:
            if isinstance(error, OvloError) and not users_frames(error):
                raise
            trouble, brief = explained(error), in_brief(error)
            stopped_at = tuple((frame.filename, frame.lineno or 0) for frame in users_frames(error))
            # Its frames hold blocks that were made and never entered; those are told now.
            error.__traceback__ = None
    sheets = host.sheets
    if hint and not sheets and not trouble:
        raise BadUse(hint)
    if is_drawing:
        del sheets[1:]
    picture = sheets[-1] if sheets else None
    return Outcome(picture, len(sheets), trouble, brief, tuple(dict.fromkeys(notices)), stopped_at)


@contextmanager
def _noticing_chance(notices: list[str]) -> Iterator[None]:
    """A block after which it is noted that Python's own random numbers, without a seed, had a part in it."""
    before, seed, is_seeded = random.getstate(), random.seed, False

    def seed_noted(*args: Any, **kwargs: Any) -> None:
        nonlocal is_seeded
        is_seeded = True
        seed(*args, **kwargs)

    random.seed = seed_noted
    try:
        yield
    finally:
        random.seed = seed
        if random.getstate() != before and not is_seeded:
            notices.append(OWN_CHANCE)


@contextmanager
def _noticing_sleep(notices: list[str]) -> Iterator[None]:
    """A block in which it is noted that a program waits, which no picture shows."""
    sleep = time.sleep

    def sleep_noted(seconds: float) -> None:
        frame = sys._getframe(1)
        if is_users(frame.f_code.co_filename):
            place = f"{frame.f_code.co_filename}, line {frame.f_lineno}"
            notices.append(f"{place}: time.sleep only delays the picture; nib.pause(0.5) holds its replays.")
        sleep(seconds)

    time.sleep = sleep_noted  # type: ignore[assignment]
    try:
        yield
    finally:
        time.sleep = sleep


@contextmanager
def _leaving_by_stop(host: Host) -> Iterator[None]:
    """A block in which `os._exit` stops the program, instead of throwing its picture away."""
    leave, process = os._exit, os.getpid()

    def stop(status: int) -> NoReturn:
        if os.getpid() != process:  # a process of the program's own
            leave(status)
        host.stop(f"it called os._exit({status})")
        raise AssertionError

    os._exit = stop
    try:
        yield
    finally:
        os._exit = leave


@contextmanager
def _as_it_was() -> Iterator[None]:
    """A block after which Python's own functions are what they were, whatever a program replaced."""
    before = [(module, dict(vars(module))) for module in (builtins, os)]
    try:
        yield
    finally:
        for module, names in before:
            vars(module).update(names)


@contextmanager
def _handlers_at_exit() -> Iterator[list[Callable[[], object]]]:
    """A block in which what a program registers for its exit is kept, to be called under the run's limits."""
    kept: list[Callable[[], object]] = []
    register, unregister = atexit.register, atexit.unregister

    def register_kept(function: Callable[..., Any], *args: Any, **kwargs: Any) -> Callable[..., Any]:
        caller = sys._getframe(1).f_code.co_filename
        if not is_users(caller):
            return register(function, *args, **kwargs)
        kept.append(partial(function, *args, **kwargs))
        return function

    def unregister_kept(function: Callable[..., Any]) -> None:
        kept[:] = [one for one in kept if getattr(one, "func", None) != function]
        unregister(function)

    atexit.register, atexit.unregister = register_kept, unregister_kept  # type: ignore[assignment]
    try:
        yield kept
    finally:
        atexit.register, atexit.unregister = register, unregister


DEEPEST = 10_000
"""Calls a program may be deep; Python's own limit counts several of ours for one of a user's."""


@contextmanager
def _deep() -> Iterator[None]:
    """A block in which recursion may go deep."""
    before = sys.getrecursionlimit()
    sys.setrecursionlimit(max(before, DEEPEST))
    try:
        yield
    finally:
        sys.setrecursionlimit(before)


@contextmanager
def noticing() -> Iterator[list[str]]:
    """A block whose lines that do nothing are noted, each in a sentence with its place."""
    notices: list[str] = []
    with warnings.catch_warnings():
        shown = warnings.showwarning

        def note(
            message: Warning | str,
            category: type[Warning],
            filename: str,
            lineno: int,
            file: TextIO | None = None,
            line: str | None = None,
        ) -> None:
            if issubclass(category, NoEffect):
                notices.append(f"{filename}, line {lineno}: {message}")
            else:
                shown(message, category, filename, lineno, file, line)

        warnings.simplefilter("always", NoEffect)
        warnings.showwarning = note
        yield notices


@contextmanager
def telling_where() -> Iterator[None]:
    """A block in which a user's file is executed: an error of Ovlo's comes with the user's lines."""
    try:
        yield
    except Exception as error:
        if isinstance(error, BadUse) and not users_frames(error):
            raise
        raise ProgramFailed(explained(error)) from error


AGAIN, SOON = 0.02, 0.0001
"""Seconds after which a program that goes on after its stop is stopped again; and if it is stubborn."""

PATIENCE = 10
"""Stops after which it is stubborn."""


@contextmanager
def _stoppable(host: Host, seconds: float | None) -> Iterator[None]:
    """A block that Ctrl-C and the clock can stop; only a main thread can be stopped so.

    A program may catch its stop, in a loop around everything it does. So it is stopped again and again,
    wherever it is, and ever faster, until it is out: soon it is caught between two of its own lines. One on
    its way out, at a depth of calls that it never came back to, is left alone, however deep it is.
    """
    if threading.current_thread() is not threading.main_thread():
        yield
        return
    late = f"it ran longer than {seconds:g} s (--time-limit)" if seconds is not None else ""
    if not hasattr(signal, "setitimer"):
        yield from _stoppable_by_ctrl_c(host, seconds, late)
        return

    reasons: dict[int, str] = {
        signal.SIGALRM: late,
        signal.SIGINT: "Ctrl-C was pressed",
        signal.SIGTERM: "it was asked to end",
        signal.SIGHUP: "its terminal was closed",
    }
    stops, process, reason = 0, os.getpid(), ""
    outermost = sys.maxsize

    def stop(number: int, frame: FrameType | None) -> None:
        nonlocal stops, reason, outermost
        if os.getpid() != process:  # a process of the program's own, which ends as any other does
            signal.signal(number, signal.SIG_DFL)
            os.kill(os.getpid(), number)
        else:
            depth = _depth_in_program(frame)
            is_leaving, outermost = stops and depth < outermost, min(depth or sys.maxsize, outermost)
            is_running = depth > 0 and not is_leaving
            stops, reason = stops + is_running, reason or reasons[number]
            # Set anew each time: a clock that rang by itself would leave a deep program no time to get out.
            # One that has not begun yet is stopped when it has.
            signal.setitimer(signal.ITIMER_REAL, AGAIN if stops < PATIENCE else SOON)
            # What is raised while something is taken away is lost, so it waits for the next time.
            if is_running and (frame is None or frame.f_code.co_name != "__del__"):
                host.stop(reason)

    def keep_stopping() -> None:
        signal.signal(signal.SIGALRM, stop)
        signal.setitimer(signal.ITIMER_REAL, AGAIN)

    host.when_stopped = keep_stopping
    before = {number: signal.signal(number, stop) for number in reasons}
    if seconds is not None:
        signal.setitimer(signal.ITIMER_REAL, seconds)
    try:
        yield
    finally:
        signal.setitimer(signal.ITIMER_REAL, 0)
        host.when_stopped = None
        for number, handler in before.items():
            signal.signal(number, handler)


def _stoppable_by_ctrl_c(host: Host, seconds: float | None, late: str) -> Iterator[None]:
    """The same where there are no interval timers: once, by a clock in a thread."""
    is_late, is_over = threading.Event(), threading.Event()

    def stop(number: int, frame: FrameType | None) -> None:
        if _depth_in_program(frame):
            if is_late.is_set():
                is_over.set()
            host.stop(late if is_late.is_set() else "Ctrl-C was pressed")

    def ring() -> None:
        if not is_over.wait(seconds):
            is_late.set()
            # Until it is heard: the program may not have begun yet.
            while not is_over.wait(AGAIN):
                _thread.interrupt_main()

    clock = threading.Thread(target=ring, daemon=True)
    before = signal.signal(signal.SIGINT, stop)
    if seconds is not None:
        clock.start()
    try:
        yield
    finally:
        is_over.set()
        if seconds is not None:
            clock.join()
        signal.signal(signal.SIGINT, before)


def _at_work(work: Callable[[], object], at_exit: list[Callable[[], object]]) -> None:
    """Do the work of a program, and what it does at exit; while this is being called, it may be stopped."""
    process = os.getpid()
    try:
        work()
        while at_exit:
            at_exit.pop()()
    finally:
        if os.getpid() != process:
            _leave_child()


def _leave_child() -> NoReturn:
    """End a process that the program forked and that came back from it: only its parent concludes the run."""
    failed = sys.exc_info()[1]
    if failed is not None and not isinstance(failed, SystemExit):
        traceback.print_exception(failed)
    for stream in (sys.stdout, sys.stderr):
        with suppress(OSError, ValueError):
            stream.flush()
    os._exit(0 if failed is None else 1)
    raise AssertionError


def _depth_in_program(frame: FrameType | None) -> int:
    """In how many calls a program is; 0 in what follows it."""
    depth = 0
    while frame is not None:
        depth += 1
        if frame.f_code is _at_work.__code__:
            return depth
        frame = frame.f_back
    return 0
