"""What goes on in the process that runs the user's program.

serve(connection)    # until the other end is closed
"""

from __future__ import annotations

import builtins
import contextlib
import io
import linecache
import os
import shlex
import signal
import sys
import threading
import time
from collections.abc import Iterator
from multiprocessing.connection import Connection
from types import FrameType
from typing import TextIO

from ovlo.core.sheet.host import Stop
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.errors import OvloError
from ovlo.outlets import as_bytes, findings_of
from ovlo.page.message import packed, parts, told_finding
from ovlo.program.lines import is_users
from ovlo.program.loading import AnyDrawing, Program, load
from ovlo.program.outcome import Outcome
from ovlo.program.parameters import typed
from ovlo.program.running import run_drawing, run_program, telling_where
from ovlo.studio.exploring.controls import controls_of
from ovlo.studio.exploring.requests import (
    Answer,
    Draw,
    DrawingInfo,
    File,
    Findings,
    Question,
    Reply,
    Running,
    Save,
    State,
    Words,
)

CALM = 0.3
"""Seconds without a request after which the picture is checked."""

OFTEN = 0.2
"""Seconds between two words about a program that runs."""

MOST_PRINTED = 20_000
"""Characters of what a program prints that the page shows, the last of them."""


def serve(connection: Connection) -> None:
    """Answer requests until the line is closed."""
    # Ctrl-C at the terminal is the server's; what stops a program is told apart by its being at work.
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    # A program saved twice in a second would be taken from what was compiled of the first.
    sys.dont_write_bytecode = True
    desk = _Desk(connection)
    while True:
        try:
            request = connection.recv()
        except (EOFError, OSError, KeyboardInterrupt):
            return
        try:
            desk.do(request)
        except _Disturbed:
            continue
        except (BrokenPipeError, OSError):
            return


class _Disturbed(BaseException):
    """Something else is to be done."""


class _Desk:
    """What is at hand in the process: the file as it was executed last, and the last picture."""

    def __init__(self, connection: Connection) -> None:
        self._connection = connection
        self._lock = threading.Lock()
        self._target = ""
        self._files: dict[str, State] = {}
        self._drawings: dict[str, AnyDrawing] = {}
        self._sheet: Sheet | None = None

    def do(self, request: object) -> None:
        """Do what is asked for."""
        if isinstance(request, Draw):
            answer = self._answered(request)
            self._tell(answer)
            if answer.message and not request.number:
                self._look_for_findings()
        elif isinstance(request, Save):
            self._tell(self._saved(request))

    def _tell(self, told: Reply) -> None:
        with self._lock:
            self._connection.send(told)

    def _look_for_findings(self) -> None:
        """Check the picture when nothing else is to be done; whatever is, comes before."""
        if self._sheet is None or self._connection.poll(CALM):
            return

        def give_up(number: int, frame: FrameType | None) -> None:
            raise _Disturbed

        signal.signal(signal.SIGINT, give_up)
        try:
            found = findings_of(self._sheet)
        finally:
            signal.signal(signal.SIGINT, signal.SIG_IGN)
        if found is not None:
            self._tell(Findings([told_finding(one) for one in found]))

    def _answered(self, request: Draw) -> Answer:
        begin = time.perf_counter()
        with self._watched(begin) as printed:
            try:
                answer = self._drawn(request)
            except OvloError as error:
                answer = Answer(request, trouble=str(error))
            except Stop as stop:  # told again while it was already stopping
                answer = Answer(request, trouble=f"Stopped: {stop}.")
        about = {"printed": printed.text, "seconds": time.perf_counter() - begin, "files": self._files}
        return Answer(**vars(answer) | about)

    def _drawn(self, request: Draw) -> Answer:
        program = load(request.target)
        if not program.declares:
            self._forget()
            outcome = run_program(program, {}, request.seed, request.limits, traced=True)
            self._note_files(program)
            name = program.path.stem
            about = DrawingInfo(name, "", "A script, which has no parameters.", [])
            return self._answer(request, outcome, (about,), name)
        drawings = self._executed(program)
        abouts = tuple(
            DrawingInfo(name, one._shortcut, _summary(one.__doc__), controls_of(one))
            for name, one in drawings.items()
        )
        chosen = drawings.get(program.name) or next(iter(drawings.values()))
        values = {name: text for name, text in request.values.items() if name in typed(chosen._parameters)}
        try:
            # A small picture shows no lines of the program.
            outcome = run_drawing(chosen, values, request.seed, request.limits, traced=not request.number)
        except OvloError as error:
            return Answer(request, trouble=str(error), drawings=abouts, chosen=chosen._name)
        return self._answer(request, outcome, abouts, chosen._name)

    def _executed(self, program: Program) -> dict[str, AnyDrawing]:
        """The drawings of a file, which is executed again when it, or what it imports, has changed."""
        target = str(program.path)
        if target != self._target or _states(self._files) != self._files or not self._drawings:
            self._forget()
            with telling_where():
                self._drawings = program.drawings()
            self._target = target
            self._note_files(program)
        is_there = program.name in (*self._drawings, "") and self._drawings
        # A drawing that was drawn may be gone from the file since: then there is another.
        if not is_there and (self._sheet is None or not self._drawings):
            program.drawing()  # says what there is
        return self._drawings

    def _forget(self) -> None:
        """Have the user's modules imported anew."""
        self._drawings = {}
        for name in list(users_modules()):
            del sys.modules[name]
        linecache.checkcache()

    def _note_files(self, program: Program) -> None:
        files = dict.fromkeys([str(program.path.resolve()), *users_modules().values()], (0, 0))
        self._files = _states(files)

    def _answer(
        self, request: Draw, outcome: Outcome, abouts: tuple[DrawingInfo, ...], chosen: str
    ) -> Answer:
        sheet = outcome.sheet
        trouble = outcome.trouble.replace("Ctrl-C was pressed", "it was asked to")
        if not trouble and outcome.notices:
            trouble = "\n".join(outcome.notices)
        about = {"trouble": trouble, "drawings": abouts, "chosen": chosen}
        if sheet is None:
            return Answer(request, **about)  # type: ignore[arg-type]
        head, arrays = parts(sheet, None)
        seed: int | None = head["seed"]
        if request.number:
            head |= {"kind": "neighbour", "values": request.values}
        else:
            self._sheet = sheet
            head["live"] = {"command": _command(request, chosen, len(abouts), seed)}
        return Answer(request, packed(head, arrays), seed=seed, **about)  # type: ignore[arg-type]

    def _saved(self, request: Save) -> File:
        sheet = self._sheet
        if sheet is None:
            return File("", b"", "Nothing is drawn yet.")
        try:
            content = as_bytes(sheet, request.ending, overlay=request.overlays, only=request.only)
        except OvloError as error:
            return File("", b"", str(error))
        return File(f"{sheet.title or 'drawing'}{request.ending}", content, "")

    @contextlib.contextmanager
    def _watched(self, begin: float) -> Iterator[_Printed]:
        """A block whose progress is told, whose questions are asked on the page, whose prints are kept."""
        main, ended = threading.get_ident(), threading.Event()

        def watch() -> None:
            while not ended.wait(OFTEN):
                line = _line_of(sys._current_frames().get(main))
                with contextlib.suppress(OSError):
                    self._tell(Running(time.perf_counter() - begin, line))

        def ask(words: object = "", /) -> str:
            self._tell(Question(str(words)))
            while not isinstance(answer := self._connection.recv(), Words):
                pass
            return answer.words

        before = builtins.input
        builtins.input = ask
        thread = threading.Thread(target=watch, daemon=True)
        thread.start()
        printed = _Printed(sys.stdout)
        try:
            with contextlib.redirect_stdout(printed):
                yield printed
        finally:
            builtins.input = before
            ended.set()
            thread.join()


class _Printed(io.TextIOBase):
    """What is printed, also kept."""

    def __init__(self, beside: TextIO) -> None:
        self._beside = beside
        self.text = ""

    def write(self, words: str) -> int:
        """Take words down."""
        self.text = (self.text + words)[-MOST_PRINTED:]
        return self._beside.write(words)

    def flush(self) -> None:
        """Hand on what is not written yet."""
        self._beside.flush()


def users_modules() -> dict[str, str]:
    """The user's own modules that are imported, with their files."""
    found = {}
    for name, module in list(sys.modules.items()):
        file = getattr(module, "__file__", None)
        if name not in ("__main__", "__mp_main__") and isinstance(file, str) and is_users(file):
            found[name] = file
    return found


def _states(files: dict[str, State]) -> dict[str, State]:
    """How files are now; one that is gone is as if it were empty."""
    found = {}
    for file in files:
        try:
            about = os.stat(file)
            found[file] = about.st_mtime_ns, about.st_size
        except OSError:
            found[file] = 0, 0
    return found


def _line_of(frame: FrameType | None) -> int:
    """The line of the user's that a program is in."""
    while frame is not None:
        if is_users(frame.f_code.co_filename):
            return frame.f_lineno
        frame = frame.f_back
    return 0


def _summary(words: str | None) -> str:
    lines = (words or "").strip().splitlines()
    return lines[0] if lines else ""


def _command(request: Draw, chosen: str, count: int, seed: int | None) -> str:
    """The command line that draws what is seen."""
    file = request.target.removesuffix(f":{chosen}")
    words = ["ovlo", "draw", file if count < 2 else f"{file}:{chosen}"]
    for name, text in request.values.items():
        words += ["--set", f"{name}={text}"]
    if seed is not None:
        words += ["--seed", str(seed)]
    return shlex.join(words)
