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
from dataclasses import replace
from multiprocessing.connection import Connection
from pathlib import Path
from types import FrameType
from typing import Any, TextIO

from ovlo.core.sheet.host import Stop
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.errors import OvloError
from ovlo.core.values.finding import Finding
from ovlo.outlets import as_bytes, findings_of
from ovlo.page.message import packed, parts, told_finding
from ovlo.program import texts
from ovlo.program.explaining import in_brief
from ovlo.program.lines import is_users, users_frames
from ovlo.program.loading import AnyDrawing, Program, load, split_target
from ovlo.program.outcome import Outcome
from ovlo.program.parameters import typed
from ovlo.program.python_errors import syntax_in_words
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
        self._text: str | None = None
        self._sheet: Sheet | None = None
        self._shown: Draw | None = None

    def do(self, request: object) -> None:
        """Do what is asked for."""
        if isinstance(request, Draw):
            answer = self._answered(request)
            self._tell(answer)
            if answer.message and not answer.trouble and not request.number:
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

        is_disturbed = False

        def give_up(number: int, frame: FrameType | None) -> None:
            nonlocal is_disturbed
            is_disturbed = True
            raise _Disturbed

        signal.signal(signal.SIGINT, give_up)
        try:
            found = findings_of(self._sheet)
        except Exception:
            # Within NumPy and others a disturbance may become an error of their own.
            if not is_disturbed:
                raise
            found = None
        finally:
            signal.signal(signal.SIGINT, signal.SIG_IGN)
        if found is not None:
            shown = self._shown
            self._tell(Findings([_told(one, shown) for one in found], shown.version if shown else 0))

    def _answered(self, request: Draw) -> Answer:
        begin = time.perf_counter()
        with self._watched(begin) as printed:
            try:
                answer = self._drawn(request)
            except OvloError as error:
                answer = replace(Answer(request, trouble=str(error)), **_place_of(error, request))
            except Stop as stop:  # told again while it was already stopping
                answer = Answer(request, trouble=f"Stopped: {stop}.")
        about = {"printed": printed.text, "seconds": time.perf_counter() - begin, "files": self._files}
        return Answer(**vars(answer) | about)

    def _drawn(self, request: Draw) -> Answer:
        self._read(request)
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
            answer = Answer(request, trouble=str(error), drawings=abouts, chosen=chosen._name)
            return replace(answer, **_place_of(error, request))
        return self._answer(request, outcome, abouts, chosen._name)

    def _read(self, request: Draw) -> None:
        """Have the file read as the text of a request."""
        path, *_ = split_target(request.target)
        if request.text is None:
            texts.let_go(path)
        else:
            texts.hold(path, request.text)
        if request.text != self._text:
            self._drawings = {}
        self._text = request.text

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
        places = reversed(outcome.stopped_at or ())
        line = next((line for file, line in places if _is_file(file, request)), 0)
        about = {
            "trouble": trouble,
            "notices": "\n".join(outcome.notices),
            "drawings": abouts,
            "chosen": chosen,
            "line": line,
            "brief": outcome.brief,
        }
        if sheet is None:
            return Answer(request, **about)  # type: ignore[arg-type]
        head, arrays = parts(sheet, None, with_source=False)
        seed: int | None = head["seed"]
        if request.number:
            head |= {"kind": "small", "values": request.values, "turned": request.turned}
        else:
            if not trouble or self._sheet is None:  # the page shows the last good picture
                self._sheet, self._shown = sheet, request
            command = _command(request, chosen, len(abouts), seed)
            head["live"] = {"command": command, "version": request.version, "turned": request.turned}
        return Answer(request, packed(head, arrays), seed=seed, **about)  # type: ignore[arg-type]

    def _saved(self, request: Save) -> File:
        sheet = self._sheet
        if sheet is None or self._shown is None:
            return File("", b"", "Nothing is drawn yet.")
        self._read(self._shown)
        try:
            content = as_bytes(
                sheet, request.ending, overlay=request.overlays, only=request.only, scale=request.scale
            )
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


def _is_file(file: str, request: Draw) -> bool:
    """Whether that is the file that is drawn."""
    path, *_ = split_target(request.target)
    return Path(file).resolve() == path.resolve()


def _place_of(error: OvloError, request: Draw) -> dict[str, Any]:
    """The line of the file that an error is in, and what stands there."""
    cause = error.__cause__
    if isinstance(cause, SyntaxError):
        words = syntax_in_words(cause) or str(cause.msg)
        return {"line": cause.lineno or 0, "brief": f"line {cause.lineno or 0}: {words}"}
    if cause is None:
        return {}
    frames = [frame.lineno or 0 for frame in users_frames(cause) if _is_file(frame.filename, request)]
    return {"line": frames[-1], "brief": in_brief(cause)} if frames else {}


def _told(finding: Finding, shown: Draw | None) -> dict[str, Any]:
    """What the page is told of a finding, and what it may write for it."""
    is_here = shown is not None and bool(finding.file) and _is_file(finding.file, shown)
    return told_finding(finding) | {"isHere": is_here, "edit": finding.edit if is_here else None}


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
