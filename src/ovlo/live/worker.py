"""A process that runs the user's program, so that an endless loop never stops the window.

worker = Worker()
worker.ask(Request("kite.py:kite", {"sides": "5"}, seed=None))
worker.answer()    # None until it is there
"""

from __future__ import annotations

import multiprocessing
import os
import signal
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from multiprocessing.connection import Connection
from multiprocessing.process import BaseProcess
from types import ModuleType

from ovlo.core.sheet.host import Stop
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.errors import OvloError
from ovlo.program.loading import AnyDrawing, Program, load
from ovlo.program.parameters import MISSING, Parameter
from ovlo.program.running import Limits, run_drawing, run_program, telling_where

AGAIN = 0.1
"""Seconds between two times a program is told to stop."""

PATIENCE = 2.0
"""Seconds a program has to stop when it is told to, before its process is ended."""


@dataclass(frozen=True)
class Request:
    """A drawing to be drawn, with values as text; lenient, those it has no parameter for are left out."""

    target: str
    values: dict[str, str]
    seed: int | None = None
    is_lenient: bool = False
    limits: Limits = field(default_factory=Limits)


@dataclass(frozen=True)
class Wanted:
    """A parameter as the window needs it: values are text.

    Attributes
    ----------
    kind : "span", "choice", "tick" or "field"
    allowed : str
        What may be given, in words.
    default : str
        "" when it must be given.
    low, high, step : float
        Of a span.
    choices : tuple of str
    """

    name: str
    kind: str
    allowed: str
    default: str
    low: float = 0.0
    high: float = 0.0
    step: float | None = None
    choices: tuple[str, ...] = ()

    @classmethod
    def of(cls, parameter: Parameter) -> Wanted:
        """What a parameter asks for."""
        default = "" if parameter.default is MISSING else parameter.shown_default
        about = parameter.name, parameter.allowed, default
        if parameter.span is not None:
            span = parameter.span
            step = span.step or (1.0 if parameter.kind.name == "whole number" else None)
            return cls(about[0], "span", *about[1:], low=span.low, high=span.high, step=step)
        if parameter.kind.choices:
            return cls(about[0], "choice", *about[1:], choices=tuple(map(str, parameter.kind.choices)))
        if parameter.kind.name == "yes or no":
            return cls(about[0], "tick", *about[1:])
        return cls(about[0], "field", *about[1:])


@dataclass(frozen=True)
class About:
    """What is known of a drawing before it is drawn."""

    name: str
    shortcut: str
    summary: str
    parameters: tuple[Wanted, ...]
    is_script: bool = False


@dataclass(frozen=True)
class Answer:
    """What came of a request: a sheet, or trouble in words, or both."""

    request: Request
    sheet: Sheet | None = None
    trouble: str = ""
    drawings: tuple[About, ...] = ()
    seconds: float = 0.0


def serve(line: Connection) -> None:
    """Answer requests until the window hangs up."""
    # Ctrl-C at the terminal is the window's; what stops a program is told apart by its being at work.
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    known = _Known()
    while True:
        try:
            request = line.recv()
        except (EOFError, OSError, KeyboardInterrupt):
            return
        begin = time.perf_counter()
        try:
            answer = _answered(request, begin, known)
        except OvloError as error:
            answer = Answer(request, trouble=str(error))
        except Stop as stop:  # told again while it was already stopping
            answer = Answer(request, trouble=f"Stopped: {stop}.")
        try:
            line.send(answer)
        except (BrokenPipeError, OSError):
            return
        except Exception as error:  # a value of the user's that cannot be sent
            line.send(Answer(request, trouble=f"The picture cannot be handed to the window: {error}"))


class _Known:
    """The file as it was executed last, so that another value does not execute it again."""

    def __init__(self) -> None:
        self._key: tuple[object, ...] = ()
        self._drawings: list[AnyDrawing] = []

    def drawings(self, program: Program) -> list[AnyDrawing]:
        """The drawings a request may mean: the one it names, or all."""
        state = program.path.stat()
        key = program.path, program.name, state.st_mtime_ns, state.st_size
        if key != self._key:
            with telling_where():
                found = program.drawings()
                chosen = [program.drawing()] if program.name else list(found.values())
            self._key, self._drawings = key, chosen
        return self._drawings


def _answered(request: Request, begin: float, known: _Known) -> Answer:
    program = load(request.target)
    if not program.declares:
        outcome = run_program(program, request.values, request.seed, request.limits, traced=True)
        about = About(program.path.stem, "", "A script, which has no parameters.", (), is_script=True)
        return Answer(request, outcome.sheet, outcome.trouble, (about,), time.perf_counter() - begin)
    chosen = known.drawings(program)
    drawings = tuple(About(one._name, one._shortcut, _summary(one.__doc__), _wanted(one)) for one in chosen)
    if len(chosen) != 1:
        return Answer(request, drawings=drawings)
    values = request.values
    if request.is_lenient:
        values = {name: text for name, text in values.items() if name in chosen[0]._parameters}
    outcome = run_drawing(chosen[0], values, request.seed, request.limits, traced=True)
    trouble = outcome.trouble.replace("Ctrl-C was pressed", "it was told to")
    return Answer(request, outcome.sheet, trouble, drawings, time.perf_counter() - begin)


def _wanted(drawing: AnyDrawing) -> tuple[Wanted, ...]:
    return tuple(Wanted.of(parameter) for parameter in drawing._parameters.values())


def _summary(words: str | None) -> str:
    lines = (words or "").strip().splitlines()
    return lines[0] if lines else ""


@contextmanager
def _nothing_as_main() -> Iterator[None]:
    """A block in which new processes do not run the program that opened the window once more."""
    before = sys.modules["__main__"]
    sys.modules["__main__"] = ModuleType("__main__")
    try:
        yield
    finally:
        sys.modules["__main__"] = before


class Worker:
    """The window's end of the line to the process."""

    def __init__(self) -> None:
        self._context = multiprocessing.get_context("spawn")
        self._asked: Request | None = None
        self._told_to_stop = self._interrupted = 0.0
        self._start()

    def _start(self) -> None:
        ours, theirs = self._context.Pipe()
        process: BaseProcess = self._context.Process(target=serve, args=(theirs,), daemon=True)
        with _nothing_as_main():
            process.start()
        theirs.close()
        self._line, self._process = ours, process

    @property
    def is_busy(self) -> bool:
        """Whether an answer is due."""
        return self._asked is not None

    def ask(self, request: Request) -> None:
        """Ask for a drawing; there must be no other under way."""
        if not self._process.is_alive():
            self._start()
        self._asked = request
        self._told_to_stop = 0.0
        self._line.send(request)

    def stop(self) -> None:
        """Tell the program to stop; it answers with what it has drawn."""
        if self._asked is not None and not self._told_to_stop:
            self._told_to_stop = time.perf_counter()
            self._interrupt()

    def _interrupt(self) -> None:
        """What Ctrl-C does; it is not heard before the program runs, and so given again."""
        self._interrupted = time.perf_counter()
        if os.name == "posix" and self._process.pid is not None:
            os.kill(self._process.pid, signal.SIGINT)

    def answer(self) -> Answer | None:
        """The answer, if it has come; a program that does not stop is ended."""
        request = self._asked
        if request is None:
            return None
        try:
            if self._line.poll():
                self._asked = None
                answer: Answer = self._line.recv()
                return answer
        except (EOFError, OSError):
            self._restart()
            return Answer(request, trouble="The program ended its process.")
        except Exception as error:  # a value of a class that is only known over there
            return Answer(request, trouble=f"The picture cannot be handed to the window: {error}")
        now = time.perf_counter()
        if self._told_to_stop and now - self._interrupted > AGAIN:
            self._interrupt()
        if self._told_to_stop and now - self._told_to_stop > PATIENCE:
            self._restart()
            return Answer(request, trouble="Stopped: the program did not listen, so its process was ended.")
        return None

    def _restart(self) -> None:
        self.close()
        self._start()

    def close(self) -> None:
        """End the process."""
        self._asked = None
        self._line.close()
        self._process.kill()
        self._process.join(1)
