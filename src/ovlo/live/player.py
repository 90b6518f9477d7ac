"""The player: a drawing that replays in a window, with its buttons, its scrubber and its keys.

Player(Screen("show", "kite", 1280, 800), sheet, seconds=4).play()
"""

from __future__ import annotations

import linecache
import re
import time
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from ovlo.core.paint.timeline import SECONDS
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.errors import OvloError
from ovlo.live.replay import Replay
from ovlo.live.screen import BAR, INK, Screen
from ovlo.live.view import View
from ovlo.program.shortcuts import WINDOW_KEYS
from ovlo.render.additions.overlays import OVERLAYS, overlays_of
from ovlo.render.boxes import NOTHING, Box, laid_over, united
from ovlo.render.files import write
from ovlo.render.moments import Moments
from ovlo.render.page import Page

if TYPE_CHECKING:
    from matplotlib.widgets import Button

TICK = 5
"""Milliseconds between frames, at least."""

LONGEST_SOURCE = 48  # characters in the status line

TELLING = 0.12
"""Seconds between two looks of the status line and the scrubber."""

BUTTONS = (
    ("|◀", "home"),
    ("◀", "left"),
    ("▶ / ❚❚", " "),
    ("▶", "right"),
    ("at once", "end"),
    ("keys ?", "?"),
)


class Player:
    """A sheet in a window."""

    def __init__(
        self, screen: Screen, sheet: Sheet, seconds: float = SECONDS, keep_mark: bool = False
    ) -> None:
        self.screen, self.keep_mark = screen, keep_mark
        self._overlays: set[str] = set()
        self.view = View()
        self._drag: tuple[float, float, tuple[float, float]] | None = None
        self._marked = NOTHING
        self._said = ""
        self._told_at = 0.0
        self._is_moving_slider = False
        self.is_typing: Callable[[], bool] = lambda: False
        self.keys: dict[str, Callable[[], object]] = {
            " ": self.toggle,
            "right": lambda: self.seek(self.replay.steps + 1),
            "left": lambda: self.seek(self.replay.steps - 1),
            "home": lambda: self.seek(0),
            "end": self.at_once,
            "+": lambda: self.set_seconds(self.replay.timeline.seconds / 2),
            "-": lambda: self.set_seconds(self.replay.timeline.seconds * 2),
            "0": self.fit,
            "s": self.save,
            "?": self.show_keys,
        }
        for number, name in enumerate(OVERLAYS, 1):
            self.keys[str(number)] = lambda name=name: self.toggle_overlay(name)  # type: ignore[misc]
        self.replay = Replay(sheet._columns, seconds)
        self._add_bar()
        self.take(sheet)
        screen.on("key_press_event", self._on_key)
        screen.on("scroll_event", self._on_scroll)
        screen.on("button_press_event", self._on_press)
        screen.on("motion_notify_event", self._on_drag)
        screen.on("button_release_event", self._on_release)
        screen.on("resize_event", lambda _: self.repaint())
        screen.after_draw.append(self._tell)

    # ── what is shown ─────────────────────────────────────────────────────────────────────────────────────

    def take(self, sheet: Sheet) -> None:
        """Show another sheet, at the step where the replay stands, or all of it if it is over."""
        was_over = self.replay.is_over
        self.sheet = sheet
        self.replay.take(sheet._columns)
        if was_over:
            self.replay.steps = self.replay.length
        self._origins = sheet._origins
        self._update_slider_range()
        self.repaint()

    def follow(self) -> None:
        """Go on with what was drawn since on the same sheet, at most a second of it."""
        columns = self.sheet._columns
        if columns is self._moments.frames.columns:
            return
        if len(columns) < len(self._moments.frames.columns):
            self.replay.steps = len(columns)
            self.take(self.sheet)
            return
        new = len(columns) - self.replay.steps
        self._moments.follow(columns)
        seconds = len(columns) * min(1.0, SECONDS * new / max(len(columns), 1)) / max(new, 1)
        self.replay.take(columns, max(seconds, 0.001))
        self._update_slider_range()
        self.replay.is_playing = False
        if new > 0:
            self.replay.play(time.perf_counter())
        else:
            self.repaint()

    def _page(self) -> Page:
        left, top, right, bottom = self.screen.room
        return self.view.page(self.sheet, right - left, bottom - top)

    def repaint(self) -> None:
        """Paint everything anew at the view and the step."""
        page = self._page()
        self._moments = Moments(self.sheet, page)
        self._moments.frames.jump(self.replay.steps)
        self._over = self._overlay(page)
        self._shown: NDArray[np.uint8] = np.empty_like(self._moments.frames.pixels)
        self._marked = NOTHING
        self._compose(self._moments.frames.whole)
        self.screen.show_frame(self._shown)
        self._tell()

    def _overlay(self, page: Page) -> NDArray[np.uint8] | None:
        """The overlays that are switched on, as pixels on nothing."""
        if not self._overlays:
            return None
        from ovlo.core.values.colour import TRANSPARENT
        from ovlo.render.formats.png import rasterise

        names = [name for name in OVERLAYS if name in self._overlays]
        return rasterise(overlays_of(self.sheet, page, names), replace(page, paper=TRANSPARENT))

    def _compose(self, box: Box) -> Box:
        """Put a part of the shown picture together; returns what changed."""
        box = united(box, self._marked)
        left, top, right, bottom = box
        self._shown[top:bottom, left:right] = self._moments.frames.pixels[top:bottom, left:right]
        if self._over is not None and left < right:
            laid_over(self._shown, box, self._over[top:bottom, left:right])
        is_there = self.keep_mark or not self.replay.is_over
        self._marked = self._moments.lay_on(self._shown, self.replay.share, is_there)
        return united(box, self._marked)

    def tick(self) -> None:
        """One frame of the replay."""
        if not self.replay.tick(time.perf_counter()):
            return
        self._push()
        # The widgets are drawn by Matplotlib, which takes longer than the picture's new lines.
        now = time.perf_counter()
        if now - self._told_at > TELLING or not self.replay.is_playing:
            self._tell()

    def _show_steps(self) -> None:
        self._push()
        self._tell()

    def _push(self) -> None:
        self.screen.push(self._compose(self._moments.frames.jump(self.replay.steps)))

    # ── replay ────────────────────────────────────────────────────────────────────────────────────────────

    def play(self) -> None:
        """Go on, or begin again."""
        if self.replay.is_over:
            self.replay.steps = 0
            self._show_steps()
        self.replay.play(time.perf_counter())

    def toggle(self) -> None:
        """Play or pause."""
        if self.replay.is_playing:
            self.replay.pause()
            self._tell()
        else:
            self.play()

    def seek(self, steps: int) -> None:
        """Go to a step and stay."""
        self.replay.seek(steps)
        self._show_steps()

    def at_once(self) -> None:
        """Show all of it."""
        self.seek(self.replay.length)

    def set_seconds(self, seconds: float) -> None:
        """Let the whole replay take so long."""
        self.replay.set_seconds(seconds, time.perf_counter())
        self._pace.set_val(f"{self.replay.timeline.seconds:.4g} s")

    def _set_pace(self, words: str) -> None:
        """A pace as typed: "4 s" for the whole, or "100 steps/s"."""
        match = re.fullmatch(r"\s*([0-9.]+)\s*(s|sec|seconds|steps?(/s)?|)\s*", words)
        try:
            value = float(match[1]) if match else 0.0
        except ValueError:
            value = 0.0
        if match is None or value <= 0:
            self.say('The pace is the length of the replay, as in "4 s", or "100 steps/s".')
            return
        seconds = self.replay.length / value if match[2].startswith("step") else value
        self.replay.set_seconds(seconds, time.perf_counter())

    # ── view ──────────────────────────────────────────────────────────────────────────────────────────────

    def fit(self) -> None:
        """See the whole sheet."""
        self.view.fit()
        self.repaint()

    def toggle_overlay(self, name: str) -> None:
        """Switch an overlay on or off."""
        self._overlays ^= {name}
        self.repaint()

    def _place(self, event: Any) -> tuple[float, float] | None:
        """Where on the sheet the mouse is, if it is over the picture."""
        column, row = self.screen.corner
        height, width = self._shown.shape[:2]
        x, y = event.x - column, self.screen.size[1] - event.y - row
        if not (0 <= x < width and 0 <= y < height):
            return None
        page = self._page()
        return page.left + x / page.pixels_per_unit, page.bottom + (height - y) / page.pixels_per_unit

    def _on_scroll(self, event: Any) -> None:
        place = self._place(event)
        if place is not None:
            self.view.zoom_at(place, event.button == "up")
            self.repaint()

    def _on_press(self, event: Any) -> None:
        if self._place(event) is not None:
            self._drag = event.x, event.y, self.view.centre

    def _on_drag(self, event: Any) -> None:
        if self._drag is None:
            return
        x, y, centre = self._drag
        scale = self._page().pixels_per_unit
        self.view.centre = centre[0] - (event.x - x) / scale, centre[1] - (event.y - y) / scale
        self.repaint()

    def _on_release(self, _: Any) -> None:
        self._drag = None

    # ── keys and words ────────────────────────────────────────────────────────────────────────────────────

    def _on_key(self, event: Any) -> None:
        if not self.hears_keys() or event.key is None:
            return
        if self.screen.words_above and event.key != "?":
            self.screen.clear_above()
        if act := self.keys.get(event.key):
            act()

    def hears_keys(self) -> bool:
        """Whether keys are for the window, and do not go into a field."""
        return not (self._pace.capturekeystrokes or self.is_typing())

    def show_keys(self) -> None:
        """What the keys do, or the picture again."""
        if self.screen.words_above:
            self.screen.clear_above()
            return
        known = {key: what for key, what in WINDOW_KEYS.items() if key in self.keys}
        lines = [f"{KEY_NAMES.get(key, key):>6}   {what}" for key, what in known.items()]
        lines += ["", " wheel   zoom", "  drag   move the view"]
        width = max(map(len, lines))
        self.screen.lay_above("\n".join(f"{line:<{width}}" for line in lines), family="monospace")

    def save(self) -> None:
        """Save what is seen as PNG in this folder, under a name that is free."""
        import io

        from PIL import Image

        name = re.sub(r"\W+", "_", self.sheet.title or "drawing")
        path = next(
            path
            for path in (Path(f"{name}{end}.png") for end in ["", *(f"-{i}" for i in range(2, 10_000))])
            if not path.exists()
        )
        written = io.BytesIO()
        Image.fromarray(self._shown).save(written, "png")
        try:
            write(path, written.getvalue())
        except OvloError as error:
            self.say(str(error))
            return
        self.say(f"Saved {path.resolve()}")

    def say(self, words: str) -> None:
        """Say something in the status line until the next step."""
        self._said = words
        self._tell()

    @property
    def status(self) -> str:
        """Step n of N, position, heading, line and function."""
        n, steps = self.replay.length, self.replay.steps
        parts = [f"step {steps:,} of {n:,}"]
        columns = self._moments.frames.columns
        if steps:
            x, y, heading = columns.steps[steps - 1].tolist()
            parts.append(f"at ({round(x, 3) + 0.0:.7g}, {round(y, 3) + 0.0:.7g})")
            parts.append(f"heading {round(heading, 3):.6g}°")
        place = self._origins.of_step(steps - 1) if self._origins is not None and steps else None
        if place is not None and self._origins is not None:
            source = linecache.getline(place.file, place.line).strip()
            if len(source) > LONGEST_SOURCE:
                source = f"{source[:LONGEST_SOURCE]}…"
            parts.append(f"line {place.line}: {source}" if source else f"line {place.line}")
            parts.append(self._origins.functions(place.call)[-1].replace("<module>", "the script"))
        return "   ·   ".join(parts)

    def _tell(self) -> None:
        """Bring the status line and the scrubber up to date."""
        self._status.set_text((self._said or self.status).replace("$", r"\$"))
        self._said = ""
        self._told_at = time.perf_counter()
        self.screen.redraw(self._told)
        self._is_moving_slider = True
        self._slider.set_val(self.replay.steps)
        self._is_moving_slider = False
        self.screen.redraw(self._slider.ax)

    # ── the bar ───────────────────────────────────────────────────────────────────────────────────────────

    def _add_bar(self) -> None:
        from matplotlib.widgets import Button, Slider, TextBox

        screen = self.screen

        def under(left: float, top: float, width: float, height: float) -> Callable[[], Any]:
            return lambda: (left, screen.size[1] - BAR + top, width, height)

        def across(top: float, height: float, left: float, right: float) -> Callable[[], Any]:
            return lambda: (left, screen.size[1] - BAR + top, screen.room[2] - left - right, height)

        told = screen.place(across(6, 24, 12, 12), frameon=False, xticks=[], yticks=[])
        self._told = told
        self._status = told.text(0, 0.5, "", color=INK, size=10, va="center")
        self._slider = Slider(
            screen.place(across(38, 20, 16, 16)), "", 0, 1, valinit=0, valstep=1, color="#2a9d8f"
        )
        self._slider.valtext.set_visible(False)
        self._slider.vline.set_visible(False)
        self._slider.drawon = False
        self._slider.on_changed(self._on_slider)
        self._buttons: dict[str, Button] = {}
        left = 16.0
        for label, key in BUTTONS:
            width = 40.0 if len(label) < 3 else 84.0
            button = Button(
                screen.place(under(left, 72, width, 32)), label, color="#dfe5ea", hovercolor="#c9d3db"
            )
            button.on_clicked(lambda _, key=key: self.keys[key]())  # type: ignore[misc]
            self._buttons[key] = button
            left += width + 8
        self._pace = TextBox(screen.place(under(left + 44, 72, 110, 32)), "pace ", color="#ffffff")
        self._pace.set_val(f"{self.replay.timeline.seconds:.4g} s")
        self._pace.on_submit(self._set_pace)

    def _update_slider_range(self) -> None:
        slider = self._slider
        slider.valmax = max(self.replay.length, 1)
        slider.ax.set_xlim(0, slider.valmax)

    def _on_slider(self, value: float) -> None:
        if not self._is_moving_slider:
            self.seek(int(value))


KEY_NAMES = {" ": "space", "right": "→", "left": "←"}
