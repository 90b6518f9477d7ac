"""The screen: a Matplotlib window in which a picture is painted pixel by pixel beside its widgets.

    screen = Screen("kite", 1280, 800)
    screen.show_frame(pixels)
    screen.push(box)

Matplotlib draws the widgets; the picture is copied into the canvas of the figure, and only the rectangle
that changed is handed to the window.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from ovlo.core.values.errors import NoDisplay
from ovlo.render.boxes import Box, clipped

if TYPE_CHECKING:
    from matplotlib.axes import Axes
    from matplotlib.figure import Figure
    from matplotlib.text import Text

PLAIN = {"agg", "pdf", "svg", "ps", "pgf", "cairo", "template"}
"""Matplotlib's backends that draw without a window."""

DPI = 100
INK, GROUND, DESK = "#22303c", "#eef1f4", "#d5dbe1"
BAR = 116
"""Pixels under the picture: what is said, the scrubber, the buttons."""

NO_DISPLAY = (
    "there is no screen to open a window on; save the picture with sheet.save('picture.png') or `ovlo draw`, "
    "or the drawing of it with `ovlo animate`."
)


class Screen:
    """A window with a picture, a panel to its right and a bar under it, all laid out in pixels."""

    def __init__(self, call: str, title: str, width: int, height: int, panel: int = 0) -> None:
        import matplotlib
        from matplotlib import pyplot

        # Matplotlib's own toolbar and keys would be in the way of ours.
        settings: dict[Any, Any] = {name: [] for name in matplotlib.rcParams if name.startswith("keymap.")}
        with matplotlib.rc_context({"toolbar": "None", **settings}):
            size = width / DPI, height / DPI
            self.figure: Figure = pyplot.figure(figsize=size, dpi=DPI, facecolor=GROUND)
        if matplotlib.get_backend().lower() in PLAIN:
            pyplot.close(self.figure)
            raise NoDisplay(f"{call}: {NO_DISPLAY}")
        self.canvas: Any = self.figure.canvas
        self.panel = panel
        self.is_open = True
        self._timer: Any = None
        self._placed: list[tuple[Axes, Callable[[], tuple[float, float, float, float]]]] = []
        self._above: list[Text] = []
        self._frame: NDArray[np.uint8] = np.zeros((1, 1, 4), np.uint8)
        self.after_draw: list[Callable[[], object]] = []
        self.set_title(title)
        self.canvas.mpl_connect("draw_event", self._on_draw)
        self.canvas.mpl_connect("resize_event", lambda _: self.lay_out())
        self.canvas.mpl_connect("close_event", self._on_close)

    def set_title(self, title: str) -> None:
        """What stands over the window."""
        if self.canvas.manager is not None:
            self.canvas.manager.set_window_title(title or "Drawing")

    # ── layout ────────────────────────────────────────────────────────────────────────────────────────────

    @property
    def size(self) -> tuple[int, int]:
        """Pixels across and down."""
        width, height = self.canvas.get_width_height(physical=True)
        return int(width), int(height)

    @property
    def room(self) -> Box:
        """The pixels there are for the picture: left, top, right, bottom."""
        width, height = self.size
        return 0, 0, max(width - self.panel, 1), max(height - BAR, 1)

    def place(self, where: Callable[[], tuple[float, float, float, float]], **how: Any) -> Axes:
        """New axes at left, top, width and height in pixels, which may depend on the window's size."""
        axes = self.figure.add_axes((0, 0, 0.1, 0.1), **how)
        self._placed.append((axes, where))
        self._put(axes, where)
        return axes

    def remove(self, axes: Axes) -> None:
        """Take axes away."""
        self._placed = [pair for pair in self._placed if pair[0] is not axes]
        axes.remove()

    def lay_out(self) -> None:
        """Put everything where it belongs in a window of this size."""
        for axes, where in self._placed:
            self._put(axes, where)

    def _put(self, axes: Axes, where: Callable[[], tuple[float, float, float, float]]) -> None:
        width, height = self.size
        left, top, across, down = where()
        axes.set_position((left / width, 1 - (top + down) / height, across / width, down / height))

    # ── the picture ───────────────────────────────────────────────────────────────────────────────────────

    @property
    def corner(self) -> tuple[int, int]:
        """The column and row of the picture's upper left pixel; it stands in the middle of its room."""
        left, top, right, bottom = self.room
        height, width = self._frame.shape[:2]
        return left + max((right - left - width) // 2, 0), top + max((bottom - top - height) // 2, 0)

    def show_frame(self, frame: NDArray[np.uint8]) -> None:
        """Show another picture, whole."""
        self._frame = frame
        self.push_all()

    def push_all(self) -> None:
        """Paint the picture and what lies above it, and hand all of it to the window."""
        if not self.is_open or getattr(self.canvas, "renderer", None) is None:
            return
        buffer = self._buffer()
        left, top, right, bottom = self.room
        buffer[top:bottom, left:right] = _rgba(DESK)
        self._paste((0, 0, self._frame.shape[1], self._frame.shape[0]))
        for text in self._above:
            text.draw(self.canvas.get_renderer())
        self._blit(self.room)

    def push(self, box: Box) -> None:
        """Hand the pixels of a box of the picture to the window."""
        if not self.is_open or box[0] >= box[2] or box[1] >= box[3]:
            return
        if self._above:
            self.push_all()
            return
        self._paste(box)
        column, row = self.corner
        self._blit((box[0] + column, box[1] + row, box[2] + column, box[3] + row))

    def _paste(self, box: Box) -> None:
        column, row = self.corner
        buffer = self._buffer()
        height, width = buffer.shape[:2]
        limit = clipped(self.room, (0, 0, width, height))
        left, top, right, bottom = clipped(
            (box[0] + column, box[1] + row, box[2] + column, box[3] + row), limit
        )
        part = self._frame[top - row : bottom - row, left - column : right - column]
        opacity = part[..., 3:]
        if (opacity == 255).all():
            buffer[top:bottom, left:right] = part
            return
        # Transparent paper is shown on white.
        share = opacity / 255
        buffer[top:bottom, left:right, :3] = np.rint(part[..., :3] * share + 255 * (1 - share))
        buffer[top:bottom, left:right, 3] = 255

    def _buffer(self) -> NDArray[np.uint8]:
        return np.asarray(self.canvas.buffer_rgba())

    def _blit(self, box: Box) -> None:
        from matplotlib.transforms import Bbox

        height = self.size[1]
        self.canvas.blit(Bbox([[box[0], height - box[3]], [box[2], height - box[1]]]))

    def redraw(self, axes: Axes) -> None:
        """Draw some axes anew and hand them to the window, and nothing else."""
        if getattr(self.canvas, "renderer", None) is None or not self.is_open:
            return
        bounds = axes.get_window_extent()
        height = self.size[1]
        box = clipped(
            (bounds.x0 - 2, height - bounds.y1 - 2, bounds.x1 + 2, height - bounds.y0 + 2), (0, 0, *self.size)
        )
        self._buffer()[box[1] : box[3], box[0] : box[2]] = _rgba(GROUND)
        axes.draw(self.canvas.get_renderer())
        self._blit(box)

    # ── above the picture ─────────────────────────────────────────────────────────────────────────────────

    def lay_above(self, words: str, colour: str = INK, family: str = "sans-serif") -> None:
        """Words on a plate over the middle of the picture."""
        left, top, right, bottom = self.room
        width, height = self.size
        text = self.figure.text(
            (left + right) / 2 / width,
            1 - (top + bottom) / 2 / height,
            words,
            color=colour,
            family=family,
            size=10.5,
            ha="center",
            va="center",
            multialignment="left",
            linespacing=1.5,
            animated=True,
            bbox={"boxstyle": "round,pad=1", "facecolor": "#fffffff2", "edgecolor": colour},
        )
        self._above.append(text)
        self.push_all()

    def clear_above(self) -> None:
        """Take away what lies over the picture."""
        for text in self._above:
            text.remove()
        if self._above:
            self._above.clear()
            self.push_all()

    @property
    def words_above(self) -> str:
        """What the plates over the picture say."""
        return "\n".join(text.get_text() for text in self._above)

    # ── life ──────────────────────────────────────────────────────────────────────────────────────────────

    def _on_draw(self, _: object) -> None:
        for work in self.after_draw:
            work()
        self.push_all()

    def _on_close(self, _: object) -> None:
        self.is_open = False
        if self._timer is not None:
            self._timer.stop()

    def on(self, event: str, act: Callable[[Any], object]) -> None:
        """Let something happen at one of Matplotlib's events."""
        self.canvas.mpl_connect(event, act)

    def every(self, milliseconds: int, act: Callable[[], object]) -> None:
        """Do something again and again while the window is open."""

        def tick() -> None:
            if self.is_open:
                act()

        self._timer = self.canvas.new_timer(interval=milliseconds)
        self._timer.add_callback(tick)
        self._timer.start()

    def show(self, wait: bool) -> None:
        """Open the window; with `wait`, until it is closed."""
        from matplotlib import pyplot

        self.canvas.draw()
        pyplot.show(block=wait)

    def close(self) -> None:
        """Close the window."""
        from matplotlib import pyplot

        pyplot.close(self.figure)


def _rgba(colour: str) -> tuple[int, int, int, int]:
    red, green, blue = bytes.fromhex(colour[1:])
    return red, green, blue, 255
