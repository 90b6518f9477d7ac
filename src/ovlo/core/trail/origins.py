"""Where steps came from: the file, the line and the functions that led there.

    with hosted(recorder=Recorder(is_users)) as host:
        exec(code)
    host.sheets[0]._origins.of_step(3).line

Recorded only when a host asks for it. Every place a program draws from has one number, and a step keeps that
number; places share a tree of calls. The frames that led to the last step are kept, so the next one only
looks at those that are new, however deep the program is.
"""

from __future__ import annotations

import sys
from array import array
from collections.abc import Callable, Iterable
from functools import lru_cache
from inspect import CO_ASYNC_GENERATOR, CO_COROUTINE, CO_GENERATOR
from types import CodeType, FrameType
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from ovlo.core.values.arrays import Bools, Ints

NOWHERE = -1
"""The number of a place that is not in the user's program."""

NO_STEPS = np.empty(0, np.int32)

RESUMED = CO_GENERATOR | CO_COROUTINE | CO_ASYNC_GENERATOR
"""Frames that may be called again from elsewhere while they last."""

INNER = {"<listcomp>", "<setcomp>", "<dictcomp>", "<genexpr>"}
"""Frames that are part of the function they stand in."""


class Call(NamedTuple):
    """A function, called by another one or, with the parent -1, by nobody of the program's."""

    parent: int
    function: str
    file: str
    times: int


class Origin(NamedTuple):
    """A place in a program: its line, the call it is in, and the line that call was made from (or 0)."""

    file: str
    line: int
    call: int
    called_from: int


class LiftedMark(NamedTuple):
    """A mark that a lifted nib did not make: the place of the call, its name, where, and how often."""

    place: int
    call: str
    x: float
    y: float
    times: int


class Origins(NamedTuple):
    """Where the steps of a trail came from.

    Attributes
    ----------
    steps : int array of shape (n,)
        The place of each step, or NOWHERE.
    places : tuple of Origin
    calls : tuple of Call
        A tree: each one's parent stands before it.
    left_out : tuple of LiftedMark
        Shapes, words and stamps that a lifted nib did not lay.
    entry_calls, entry_parents, entry_lines : int arrays
        For each time that a function was entered: its call, the entry it was called from, or -1, and the line
        of that call, or 0.
    step_entries : int array of shape (n,)
        The entry that each step was made in, or NOWHERE.
    """

    steps: NDArray[np.int32]
    places: tuple[Origin, ...]
    calls: tuple[Call, ...]
    left_out: tuple[LiftedMark, ...] = ()
    entry_calls: NDArray[np.int32] = NO_STEPS
    entry_parents: NDArray[np.int32] = NO_STEPS
    step_entries: NDArray[np.int32] = NO_STEPS
    entry_lines: NDArray[np.int32] = NO_STEPS

    def of_length(self, count: int) -> Origins:
        """The same for a trail of so many steps; those it does not know came from nowhere."""

        def of_length(numbers: NDArray[np.int32]) -> NDArray[np.int32]:
            missing = np.full(max(count - len(numbers), 0), NOWHERE, np.int32)
            return np.append(numbers[:count], missing)

        return self._replace(steps=of_length(self.steps), step_entries=of_length(self.step_entries))

    def place(self, number: int) -> Origin | None:
        """The place with a number."""
        return self.places[number] if 0 <= number < len(self.places) else None

    def of_step(self, step: int) -> Origin | None:
        """Where a step came from."""
        return self.place(int(self.steps[step])) if 0 <= step < len(self.steps) else None

    def functions(self, call: int) -> tuple[str, ...]:
        """The functions that led to a call, the outermost first."""
        found = []
        while call >= 0:
            found.append(self.calls[call].function)
            call = self.calls[call].parent
        return tuple(reversed(found))

    def entry_of(self, step: int) -> int:
        """The entry that a step was made in, or NOWHERE."""
        return int(self.step_entries[step]) if 0 <= step < len(self.step_entries) else NOWHERE

    def entry_at(self, step: int, place: int) -> int:
        """The entry that something beneath a step was made in, at a place of the program; or NOWHERE.

        That is one of the entries which led to the step or to the one before, or were made at its place.
        """
        if not 0 <= place < len(self.places):
            return NOWHERE
        call = self.places[place].call
        for near in (step, step - 1):
            entry = self.entry_of(near)
            while entry >= 0:
                if self.entry_calls[entry] == call:
                    return entry
                entry = int(self.entry_parents[entry])
        return NOWHERE

    def outermost_lines(self, entries: Iterable[int]) -> set[int]:
        """The lines of the first of the calls that led to some entries, where they are known."""
        found = {NOWHERE: 0}  # each entry on the way is looked at once, however deep a recursion goes
        asked = set(entries)
        for entry in asked:
            way = []
            while entry not in found:
                way.append(entry)
                entry = int(self.entry_parents[entry])
            line = found[entry]
            for one in reversed(way):
                line = found[one] = line or int(self.entry_lines[one])
        return {found[entry] for entry in asked} - {0}

    def path_of(self, entry: int) -> tuple[int, ...]:
        """The entries that led to an entry, the outermost first, and itself."""
        found = []
        while entry >= 0:
            found.append(entry)
            entry = int(self.entry_parents[entry])
        return tuple(reversed(found))

    def depths(self) -> list[Ints]:
        """The entries that another one called, those of each depth together, the outermost first."""
        depths: list[int] = []
        for parent in self.entry_parents.tolist():  # an entry has a higher number than its caller
            depths.append(depths[parent] + 1 if parent >= 0 else 0)
        found = np.array(depths, np.int64)
        order = np.argsort(found, kind="stable")
        last = int(found.max(initial=0))
        return np.split(order, np.searchsorted(found[order], np.arange(1, last + 1)))[1:]

    def nearest_among(self, chosen: Bools, depths: list[Ints]) -> Ints:
        """For each entry the nearest of some that it is in, or is; -1 where there is none."""
        found = np.where(chosen, np.arange(len(chosen)), -1)
        for rows in depths:
            found[rows] = np.where(found[rows] >= 0, found[rows], found[self.entry_parents[rows]])
        return found

    def places_in(self, function: str) -> Bools:
        """Which places are in a function or in what it calls, shape (places,)."""
        inside: list[bool] = []
        for call in self.calls:
            inside.append(call.function == function or (call.parent >= 0 and inside[call.parent]))
        return np.array([place.call >= 0 and inside[place.call] for place in self.places], bool)


class Recorder:
    """Finds where the program is. One serves all trails of a run; `outside` is the frame that called it."""

    def __init__(self, is_users: Callable[[str], bool], outside: FrameType | None = None) -> None:
        self._is_users = is_users
        self._outside = outside
        self._kinds: dict[CodeType, bool] = {}
        self._frames: list[FrameType] = []
        self._calls_of_frames: list[int] = []
        self._depths: dict[FrameType, int] = {}
        self._frame: FrameType | None = None
        self._instruction = -1
        self._number = NOWHERE
        self._called_from = -1
        self._numbers: dict[tuple[int, int, int], int] = {}
        self._call_numbers: dict[tuple[int, CodeType], int] = {}
        self._counts: list[int] = []
        self.entry = NOWHERE
        """The number of the function's entry in which the program was when it was last asked for."""
        self._entered_calls, self._entered_from, self._entered_at = array("i"), array("i"), array("i")
        self._entries_of_frames: list[int] = []

    def here(self) -> int:
        """The number of the place in the user's program that is being executed."""
        frame: FrameType | None = sys._getframe(1)
        kinds = self._kinds
        try:
            while not kinds[frame.f_code]:  # type: ignore[union-attr]
                frame = frame.f_back  # type: ignore[union-attr]
        except (KeyError, AttributeError):
            frame = self._users(frame)
            if frame is None:
                return NOWHERE
        assert frame is not None
        instruction = frame.f_lasti
        if frame is self._frame:
            if instruction == self._instruction:
                return self._number
        else:
            self._enter(frame)
        self._instruction = instruction
        key = self._calls_of_frames[-1], instruction, self._called_from
        number = self._numbers.get(key)
        if number is None:
            number = self._numbers[key] = len(self._numbers)
        self._number = number
        return number

    def _users(self, frame: FrameType | None) -> FrameType | None:
        """The innermost frame of the user's program from a frame outwards."""
        while frame is not None and frame is not self._outside:
            code = frame.f_code
            if code not in self._kinds:
                self._kinds[code] = code.co_name not in INNER and self._is_users(code.co_filename)
            if self._kinds[code]:
                return frame
            frame = frame.f_back
        return None

    def _enter(self, innermost: FrameType) -> None:
        """Make the stack of frames the one that ends here."""
        depths, kinds = self._depths, self._kinds
        new: list[FrameType] = []
        frame: FrameType | None = innermost
        # What is below a known frame is as it was: it has been waiting for that frame ever since.
        while frame is not None and (frame not in depths or frame.f_code.co_flags & RESUMED):
            new.append(frame)
            frame = frame.f_back
            if frame is None or not kinds.get(frame.f_code):
                frame = self._users(frame)
        depth = 0 if frame is None else depths[frame] + 1
        for left in self._frames[depth:]:
            depths.pop(left, None)
        frames, calls, entries = self._frames, self._calls_of_frames, self._entries_of_frames
        del frames[depth:], calls[depth:], entries[depth:]
        call = calls[-1] if calls else -1
        for entered in reversed(new):
            key = call, entered.f_code
            call = self._call_numbers.get(key, -1)
            if call < 0:
                call = self._call_numbers[key] = len(self._call_numbers)
                self._counts.append(0)
            self._counts[call] += 1
            depths[entered] = len(frames)
            self._entered_at.append(frames[-1].f_lasti if frames else -1)
            frames.append(entered)
            calls.append(call)
            self._entered_calls.append(call)
            self._entered_from.append(entries[-1] if entries else NOWHERE)
            entries.append(len(self._entered_calls) - 1)
        self._frame = innermost
        self.entry = entries[-1]
        # A call's line does not change while it lasts.
        self._called_from = self._frames[-2].f_lasti if len(self._frames) > 1 else -1

    def release(self) -> None:
        """Let go of the frames of a program that has ended."""
        self._frames.clear()
        self._calls_of_frames.clear()
        self._entries_of_frames.clear()
        self._depths.clear()
        self._frame = None

    @property
    def lengths(self) -> tuple[int, ...]:
        """How many places and entries of functions there are; they only grow."""
        return len(self._numbers), len(self._entered_calls)

    def found(
        self, steps: NDArray[np.int32] = NO_STEPS, step_entries: NDArray[np.int32] = NO_STEPS
    ) -> Origins:
        """The places so far, with the numbers that some steps have, and the entries they were made in."""
        names = [(parent, code) for parent, code in self._call_numbers]
        calls = tuple(
            Call(parent, code.co_name, code.co_filename, count)
            for (parent, code), count in zip(names, self._counts, strict=True)
        )
        places = []
        for call, instruction, called_from in self._numbers:
            parent, code = names[call]
            caller = names[parent][1] if parent >= 0 else None
            line_before = line_of(caller, called_from) if caller is not None and called_from >= 0 else 0
            places.append(Origin(code.co_filename, line_of(code, instruction), call, line_before))
        entered, parents = (np.array(one, np.int32) for one in (self._entered_calls, self._entered_from))
        lines = self._lines_of_entries(entered, names)
        return Origins(steps, tuple(places), calls, (), entered, parents, step_entries, lines)

    def _lines_of_entries(
        self, entered: NDArray[np.int32], names: list[tuple[int, CodeType]]
    ) -> NDArray[np.int32]:
        """The line of the call by which each function was entered."""
        pairs = np.column_stack([entered, np.array(self._entered_at, np.int32)])
        kinds, which = np.unique(pairs, axis=0, return_inverse=True)
        lines = [
            line_of(names[parent][1], at) if at >= 0 and (parent := names[call][0]) >= 0 else 0
            for call, at in kinds.tolist()
        ]
        return np.array(lines, np.int32)[which.reshape(-1)] if lines else NO_STEPS


def line_of(code: CodeType, instruction: int) -> int:
    """The line of an instruction, or the first of its function where it has none."""
    lines = _lines(code)
    number = instruction // 2
    return int(lines[number]) if 0 <= number < len(lines) and lines[number] else code.co_firstlineno


@lru_cache(maxsize=1024)
def _lines(code: CodeType) -> NDArray[np.int32]:
    """The line of each instruction of two bytes; 0 where there is none."""
    lines = np.zeros(len(code.co_code) // 2 + 1, np.int32)
    for start, stop, line in code.co_lines():
        lines[start // 2 : stop // 2] = line or 0
    return lines
