"""Running a user's program: its sheet, or what went wrong and the sheet so far.

    outcome = run_program(load("kite.py"), {"sides": "5"}, seed=None, limits=Limits())
    outcome.sheet, outcome.trouble

A program may be stopped: by too many steps, by the clock, or by Ctrl-C. The stop is raised in the program
itself, so that what it drew is kept and the line it was in is known.
"""

from __future__ import annotations

import _thread
import signal
import sys
import sysconfig
import threading
import traceback
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from types import FrameType

import ovlo
from ovlo.core.sheet.host import Host, Stop, current_host, hosted
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.trail.origins import Recorder
from ovlo.core.values.errors import BadUse, OvloError, ProgramFailed
from ovlo.program.loading import AnyDrawing, Program

STEP_LIMIT = 5_000_000


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


@dataclass(frozen=True)
class Outcome:
    """What came of a run.

    Attributes
    ----------
    sheet : Sheet or None
        The last sheet the program made, as far as it got.
    sheet_count : int
        How many sheets it made.
    trouble : str
        What went wrong, for the user to read; "" when nothing did.
    brief : str
        The same in one sentence.
    """

    sheet: Sheet | None
    sheet_count: int
    trouble: str = ""
    brief: str = ""


def run_program(
    program: Program,
    settings: dict[str, str] | None = None,
    seed: int | None = None,
    limits: Limits = Limits(),
    traced: bool = False,
) -> Outcome:
    """Run a file's drawing with values given as text, or a script.

    `traced` asks for the place in the program that each step comes from.
    """
    if not program.declares:
        if settings:
            raise BadUse(f"{program.path} is a script, which has no parameters to set.")
        hint, title = _hint_for_script(program), program.path.stem
        return run(lambda: program.execute("__main__"), seed, limits, hint, traced, title)
    with telling_where():
        drawing = program.drawing()
    return run_drawing(drawing, settings or {}, seed, limits, traced)


def run_drawing(
    drawing: AnyDrawing, settings: dict[str, str], seed: int | None, limits: Limits, traced: bool = False
) -> Outcome:
    """Run a drawing with values given as text."""
    values = drawing._complete(drawing._read(settings))
    return run(lambda: drawing.run(seed=seed, **values), seed, limits, traced=traced)


def _hint_for_script(program: Program) -> str:
    return (
        f"{program.path} declares no drawing and makes no sheet. Begin it with\n"
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
) -> Outcome:
    """Do some work under a host; `hint` is raised if it makes no sheet and nothing else is wrong.

    `title` is that of sheets that are given none.
    """
    trouble = brief = ""
    recorder = Recorder(is_users, sys._getframe()) if traced else None
    with hosted(limits.step_limit, seed, recorder, title) as host, _stoppable(host, limits.seconds):
        try:
            work()
        except SystemExit as leaving:
            if leaving.code:
                trouble = brief = f"The program left with {leaving.code!r}."
        except (Exception, Stop) as error:
            trouble, brief = explained(error), in_brief(error)
    sheets = host.sheets
    if hint and not sheets and not trouble:
        raise BadUse(hint)
    return Outcome(sheets[-1] if sheets else None, len(sheets), trouble, brief)


def traced(work: Callable[[], Sheet]) -> Sheet:
    """A sheet with the place in the program that each step comes from."""
    if current_host() is not None:
        return work()
    with hosted(recorder=Recorder(is_users, sys._getframe())):
        return work()


@contextmanager
def telling_where() -> Iterator[None]:
    """A block in which a user's file is executed: an error of Ovlo's comes with the user's lines."""
    try:
        yield
    except BadUse:
        raise
    except Exception as error:
        raise ProgramFailed(explained(error)) from error


@contextmanager
def _stoppable(host: Host, seconds: float | None) -> Iterator[None]:
    """A block that Ctrl-C and the clock can stop; only a main thread can be stopped so."""
    if threading.current_thread() is not threading.main_thread():
        yield
        return
    is_over, is_late = threading.Event(), threading.Event()

    def stop(signal_number: int, frame: FrameType | None) -> None:
        if is_over.is_set():
            return
        late = f"its time was over ({seconds:g} s, --time-limit)" if is_late.is_set() else ""
        host.stop(late or "Ctrl-C was pressed")

    def ring() -> None:
        is_late.set()
        if hasattr(signal, "pthread_kill"):
            # A real signal also wakes a program that sleeps.
            signal.pthread_kill(threading.main_thread().ident or 0, signal.SIGINT)
        else:
            _thread.interrupt_main()

    clock = threading.Timer(seconds or 0, ring)
    clock.daemon = True
    before = signal.signal(signal.SIGINT, stop)
    if seconds is not None:
        clock.start()
    try:
        yield
    finally:
        is_over.set()
        clock.cancel()
        signal.signal(signal.SIGINT, before)


# ── what went wrong, for people ───────────────────────────────────────────────────────────────────────────


def explained(error: BaseException) -> str:
    """An error with the lines of the user's own program that led to it."""
    frames = users_frames(error)
    if isinstance(error, RecursionError):
        return _endless(frames)
    lines = "".join(traceback.format_list(frames))
    if isinstance(error, Stop):
        return f"Stopped: {error}. It was in\n{lines}".rstrip()
    if isinstance(error, OvloError):
        return f"{lines}{type(error).__name__}: {error}"
    return (lines + "".join(traceback.format_exception_only(error))).rstrip()


def in_brief(error: BaseException) -> str:
    """An error in one line, with the last of the user's lines."""
    frames = users_frames(error)
    if isinstance(error, RecursionError):
        return _endless(frames)
    place = f"line {frames[-1].lineno}: " if frames else ""
    words = str(error) or type(error).__name__
    return (
        f"{place}Stopped: {words}." if isinstance(error, Stop) else f"{place}{type(error).__name__}: {words}"
    )


def users_frames(error: BaseException) -> traceback.StackSummary:
    """The frames of a traceback that are the user's own."""
    frames = traceback.extract_tb(error.__traceback__)
    return traceback.StackSummary.from_list([frame for frame in frames if is_users(frame.filename)])


def _endless(frames: traceback.StackSummary) -> str:
    """A recursion without end, in a sentence."""
    if not frames:
        return "RecursionError: a function calls itself without end."
    turning = frames[-20:]
    names = list(dict.fromkeys(frame.name for frame in turning))
    last = turning[-1]
    who = f"{names[0]} calls itself" if len(names) == 1 else f"{', '.join(names)} call each other"
    return (
        f"{last.filename}, line {last.lineno}: {who} without end (it got {len(frames)} calls deep). "
        "Give it a case in which it only returns, such as: if depth == 0: return."
    )


@lru_cache(maxsize=256)
def is_users(filename: str) -> bool:
    """Whether a file is the user's own: not of Ovlo, Python, or an installed library."""
    if filename.startswith("<"):
        return False
    path = Path(filename).resolve()
    package = Path(ovlo.__file__).parent
    if path.is_relative_to(package / "examples"):
        return True
    paths = sysconfig.get_paths()
    others = [package, *(Path(paths[key]).resolve() for key in ("stdlib", "purelib", "platlib"))]
    return not any(path.is_relative_to(folder) for folder in others)
