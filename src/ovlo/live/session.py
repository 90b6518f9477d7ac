"""A live session: controls beside the picture, which is drawn anew when they move or the file is saved.

Session(Request("kite.py", {})).run()
"""

from __future__ import annotations

import linecache
import shlex
import textwrap
import threading
import time
from dataclasses import replace
from pathlib import Path
from typing import Any

from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.dice import fresh_seed
from ovlo.live.controls import PANEL, Controls
from ovlo.live.player import TICK, Player
from ovlo.live.screen import INK, Screen
from ovlo.live.window import LARGEST
from ovlo.live.worker import About, Answer, Request, Worker
from ovlo.program.loading import split_target

TROUBLE = "#9c2a1f"
GRACE = 0.3
"""Seconds a program may go on drawing values that are out of date before it is stopped."""

MOST_LINES, WRAP = 18, 92


class Session:
    """A window on a program."""

    def __init__(self, request: Request) -> None:
        self.request = request
        self.path, self.name = split_target(request.target)
        self.screen = Screen("live", self.path.name, *LARGEST, panel=PANEL)
        blank = Sheet(640, 480)
        self.player = Player(self.screen, blank)
        self.controls: Controls | None = None
        self.drawings: tuple[About, ...] = ()
        self.trouble = ""
        self._chosen = self.name
        self._keys_of_drawings: dict[str, str] = {}
        self._buttons: list[Any] = []
        self._button_axes: list[Any] = []
        self._worker = Worker()
        self._wanted: Request | None = request
        self._asked_at = 0.0
        self._is_first = True
        self._changed = threading.Event()
        self._closed = threading.Event()
        self._add_keys()
        self._add_panel_buttons()
        threading.Thread(target=self._watch, daemon=True).start()

    def run(self) -> None:
        """Until the window is closed."""
        self.screen.every(TICK, self.tick)
        try:
            self.screen.show(wait=True)
        finally:
            self._closed.set()
            self._worker.close()

    # ── asking and answering ──────────────────────────────────────────────────────────────────────────────

    def tick(self) -> None:
        """Whatever is due: an answer, a request, a saved file, a frame of the replay."""
        if self._changed.is_set():
            self._changed.clear()
            linecache.checkcache()
            self._forget_choice()
            self.redraw()
        answer = self._worker.answer()
        if answer is not None:
            self._take(answer)
        if self._wanted is not None:
            if not self._worker.is_busy:
                self._asked_at = time.perf_counter()
                self._worker.ask(self._wanted)
                self._wanted = None
            elif time.perf_counter() - self._asked_at > GRACE:
                self._worker.stop()
        self.player.tick()

    def _forget_choice(self) -> None:
        """A saved file may have other drawings."""
        self.drawings = ()

    def redraw(self) -> None:
        """Draw with the values of the controls."""
        values = dict(self.request.values)
        if self.controls is not None:
            values = {name: value for name, value in self.controls.values.items() if value != ""}
        target = f"{self.path}:{self._chosen}" if self._chosen else str(self.path)
        # A file that was saved may have other parameters than the controls were made for.
        is_lenient = self.controls is not None
        self.request = replace(self.request, target=target, values=values, is_lenient=is_lenient)
        self._wanted = self.request

    def _take(self, answer: Answer) -> None:
        """Show what came, or what went wrong over what was there."""
        self.trouble = answer.trouble
        if len(answer.drawings) > 1:
            self._offer(answer.drawings)
            return
        if answer.drawings:
            self._set_controls(answer.drawings[0])
        # After a failure the last good picture stays, or the picture so far if there is no other.
        if answer.sheet is not None and (not answer.trouble or self._is_first):
            self._show(answer.sheet)
        self.screen.clear_above()
        if answer.trouble:
            lines = [part for line in answer.trouble.splitlines() for part in _wrapped(line)]
            cut = [*lines[:3], "…", *lines[-(MOST_LINES - 4) :]] if len(lines) > MOST_LINES else lines
            self.screen.lay_above("\n".join(cut).replace("$", r"\$"), TROUBLE, "monospace")

    def _show(self, sheet: Sheet) -> None:
        was_playing = self._is_first
        self._is_first = False
        self.screen.set_title(f"{sheet.title or self.path.stem} – {self.path.name}")
        if was_playing:
            self.player.replay.steps = 0
            self.player.take(sheet)
            self.player.replay.steps = 0
            self.player.repaint()
            self.player.play()
            return
        self.player.replay.pause()
        self.player.replay.steps = self.player.replay.length
        self.player.take(sheet)

    # ── the panel ─────────────────────────────────────────────────────────────────────────────────────────

    def _set_controls(self, about: About) -> None:
        """The controls of a drawing, if they are not there yet."""
        if self.drawings == (about,) and self.controls is not None:
            return
        values = self.controls.values if self.controls is not None else self.request.values
        self._clear_panel()
        self.drawings, self._chosen = (about,), "" if about.is_script else about.name
        self.controls = Controls(self.screen, about, values, self.redraw)
        self.screen.canvas.draw()

    def _clear_panel(self) -> None:
        if self.controls is not None:
            self.controls.remove()
            self.controls = None
        for axes in self._button_axes:
            self.screen.remove(axes)
        self._buttons.clear()
        self._button_axes.clear()

    def _offer(self, drawings: tuple[About, ...]) -> None:
        """A button for each drawing of the file; keys draw them too."""
        from matplotlib.widgets import Button

        self._clear_panel()
        self.drawings = drawings
        for number, about in enumerate(drawings):
            key = f"   [{about.shortcut}]" if about.shortcut else ""

            def where(top: float = 16 + 44 * number) -> tuple[float, float, float, float]:
                return self.screen.size[0] - PANEL + 16, top, PANEL - 32, 36

            axes = self.screen.place(where)
            button = Button(axes, f"{about.name}{key}", color="#dfe5ea", hovercolor="#c9d3db")
            button.on_clicked(lambda _, name=about.name: self.choose(name))  # type: ignore[misc]
            self._buttons.append(button)
            self._button_axes.append(axes)
        self._keys_of_drawings = {about.shortcut: about.name for about in drawings if about.shortcut}
        self.screen.canvas.draw()
        lines = [f"{about.shortcut or ' '}   {about.name}   {about.summary}".rstrip() for about in drawings]
        self.screen.clear_above()
        self.screen.lay_above("Choose a drawing:\n\n" + "\n".join(lines), INK, "monospace")

    def choose(self, name: str) -> None:
        """Draw one of several drawings, on a sheet of its own size."""
        self._clear_panel()
        self._chosen = name
        self._is_first = True
        self.request = replace(self.request, values={}, seed=None)
        self.player.view.fit()
        self.redraw()

    def _add_panel_buttons(self) -> None:
        from matplotlib.widgets import Button

        screen = self.screen
        labels = {"r": "other chance (r)", "c": "command line (c)", "x": "stop (x)", "s": "save (s)"}
        self._fixed = []
        for number, (key, label) in enumerate(labels.items()):
            row, column = divmod(number, 2)

            def where(row: int = row, column: int = column) -> tuple[float, float, float, float]:
                width = (PANEL - 40) / 2
                left = screen.size[0] - PANEL + 16 + column * (width + 8)
                return left, screen.size[1] - 84 + 40 * row, width, 32

            button = Button(screen.place(where), label, color="#dfe5ea", hovercolor="#c9d3db")
            button.on_clicked(lambda _, key=key: self.player.keys[key]())  # type: ignore[misc]
            self._fixed.append(button)

    # ── keys ──────────────────────────────────────────────────────────────────────────────────────────────

    def _add_keys(self) -> None:
        self.player.keys |= {"r": self.reseed, "c": self.tell_command, "x": self.stop}
        self.player.is_typing = lambda: self.controls is not None and self.controls.is_typing
        self.screen.on("key_press_event", self._on_key)

    def _on_key(self, event: Any) -> None:
        if self.player.hears_keys() and event.key in self._keys_of_drawings:
            self.choose(self._keys_of_drawings[event.key])

    def reseed(self) -> None:
        """Another chance."""
        self.request = replace(self.request, seed=fresh_seed())
        self.redraw()

    def stop(self) -> None:
        """Stop the program."""
        self._worker.stop()

    @property
    def command(self) -> str:
        """The command line that draws what is seen."""
        words = ["ovlo", "draw", self.request.target]
        for name, value in self.request.values.items():
            words += ["--set", f"{name}={value}"]
        if self.player.sheet.seed is not None:
            words += ["--seed", str(self.player.sheet.seed)]
        return shlex.join(words)

    def tell_command(self) -> None:
        """Copy the command line, print it, and show it."""
        print(self.command, flush=True)
        widget = getattr(self.screen.canvas, "get_tk_widget", None)
        if widget is not None:
            widget().clipboard_clear()
            widget().clipboard_append(self.command)
        self.player.say(self.command)

    # ── the file ──────────────────────────────────────────────────────────────────────────────────────────

    def _watch(self) -> None:
        """Take note when the file is saved, whichever way the editor does it."""
        from watchfiles import watch

        path = self.path.resolve()
        for changes in watch(path.parent, stop_event=self._closed, debounce=100, step=30, recursive=False):
            if any(Path(changed).resolve() == path for _, changed in changes):
                self._changed.set()


def _wrapped(line: str) -> list[str]:
    """A line of a traceback, broken where it is too long, its beginning kept."""
    indent = " " * (len(line) - len(line.lstrip()) + 2)
    return textwrap.wrap(line, WRAP, drop_whitespace=False, subsequent_indent=indent) or [""]
