"""What a running program has drawn, kept in a private file, so that it is not lost whatever ends the program.

    with spooled(host, folder, is_drawing=True):
        ...
    sheet = kept(folder)

A thread writes the new rows every half second, mostly from the first second on. When C code holds the
interpreter, or the process is killed, another process reads them.
"""

from __future__ import annotations

import atexit
import os
import pickle
import secrets
import shutil
import tempfile
import threading
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path
from typing import BinaryIO, NamedTuple

from ovlo.core.sheet.copies import SheetState, restored
from ovlo.core.sheet.host import Host
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.trail.following import Follower, Growth, grown
from ovlo.core.trail.origins import Origins
from ovlo.render.files import is_running, left_over
from ovlo.render.page import plain

FIRST, OFTEN = 1.0, 0.5
"""Seconds after which a run is long enough to be kept, and between two writings."""

NAME = "rows"


class Entry(NamedTuple):
    """What is written at a time: what the sheet is, what was drawn since, and where in the program."""

    is_anew: bool
    about: SheetState
    growth: Growth
    origins: Origins | None
    sheet_count: int


class Spool:
    """Writes what a host's program draws into a file."""

    def __init__(self, host: Host, file: BinaryIO, is_drawing: bool) -> None:
        self._host, self._file, self._is_drawing = host, file, is_drawing
        self._sheet: Sheet | None = None
        self._follower: Follower | None = None

    def write(self) -> None:
        """Write what is new."""
        sheets = self._host.sheets
        if not sheets:
            return
        sheet = sheets[0 if self._is_drawing else -1]
        is_anew = sheet is not self._sheet
        if is_anew or self._follower is None:
            self._sheet, self._follower = sheet, Follower(sheet._trail)
        about = SheetState.of(sheet)
        # Whatever a program gave its parameters can be read back, if only as text.
        about = about._replace(parameters={name: plain(value) for name, value in about.parameters.items()})
        recorder = self._host.recorder
        self._sheet = None  # if this fails, the next time begins anew
        growth = self._follower.growth()
        # After the steps, so that every place and entry they name is there.
        origins = None if recorder is None else recorder.found()
        entry = Entry(is_anew, about, growth, origins, len(sheets))
        self._file.write(pickle.dumps(entry, pickle.HIGHEST_PROTOCOL))
        self._file.flush()
        self._sheet = sheet


PREFIX = "ovlo-"


GUARD = "guard"
"""The file with the number of the process that watches over a run, and may be concluding it."""


def _temporary() -> Path:
    """Where temporary files go; where none can be written, a place in which no folder can be made."""
    try:
        return Path(tempfile.gettempdir())
    except FileNotFoundError:
        return Path(os.devnull)


def clear_leftovers() -> None:
    """Remove the folders of processes of ours that were killed, unless a guard still needs them."""
    for path in left_over(_temporary(), PREFIX):
        try:
            guard = int((path / GUARD).read_text())
        except (OSError, ValueError):
            guard = 0
        if not (guard and is_running(guard)):
            shutil.rmtree(path, ignore_errors=True)


def lasting_folder() -> Path:
    """A folder for this process alone, taken away when it ends."""
    folder = Path(tempfile.mkdtemp(prefix=f"{PREFIX}{os.getpid()}-"))
    atexit.register(shutil.rmtree, folder, ignore_errors=True)
    return folder


@contextmanager
def private_folder() -> Iterator[Path]:
    """A block with a folder for this process alone, which is made by whoever needs it first."""
    name = f"{PREFIX}{os.getpid()}-{secrets.token_hex(8)}"
    folder = _temporary() / name
    try:
        yield folder
    finally:
        shutil.rmtree(folder, ignore_errors=True)


@contextmanager
def spooled(host: Host, folder: Path, is_drawing: bool, first: float = FIRST) -> Iterator[threading.Event]:
    """A block in which what is drawn is kept in a folder; the event it gives is set when it ends."""
    ended = threading.Event()

    def work() -> None:
        if ended.wait(first):
            return
        # On a full disk nothing is kept; the guard says so.
        with suppress(OSError):
            folder.mkdir(mode=0o700, parents=True, exist_ok=True)
            with (folder / NAME).open("wb") as file:
                spool = Spool(host, file, is_drawing)
                while True:
                    # A part may be replaced while it is read, or not be sent: the next time is soon.
                    with suppress(Exception):
                        spool.write()
                    if ended.wait(OFTEN):
                        return

    thread = threading.Thread(target=work, name="ovlo-spool", daemon=True)
    thread.start()
    try:
        yield ended
    finally:
        ended.set()
        thread.join()


def kept(folder: Path) -> tuple[Sheet | None, int]:
    """The sheet that was kept in a folder, and how many the program had made; a torn end is left out."""
    entries: list[Entry] = []
    with suppress(OSError), (folder / NAME).open("rb") as file, suppress(Exception):
        while True:
            entry = pickle.load(file)
            if entry.is_anew:
                entries.clear()
            entries.append(entry)
    if not entries:
        return None, 0
    store = grown(entry.growth for entry in entries)
    last = entries[-1]
    origins = last.origins
    if origins is not None:
        steps, step_entries = store.noted()
        origins = origins._replace(steps=steps, step_entries=step_entries)
    return restored(Sheet, last.about, store.columns(), origins), last.sheet_count
