"""One control for each parameter: a slider, a choice, a tick box or a field, in a panel beside the picture.

Controls(screen, about, changed).values
"""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING, Any

from ovlo.live.screen import INK, Screen
from ovlo.live.worker import About, Wanted

if TYPE_CHECKING:
    from matplotlib.axes import Axes

PANEL = 320
"""Pixels across."""

FIELD, HOVER = "#ffffff", "#e4eef0"
ACCENT = "#2a9d8f"


class Controls:
    """The controls of one drawing."""

    def __init__(
        self, screen: Screen, about: About, values: dict[str, str], changed: Callable[[], object]
    ) -> None:
        self._screen, self._changed = screen, changed
        self._axes: list[Axes] = []
        self.widgets: dict[str, Any] = {}
        self.values: dict[str, str] = {}
        self._top = 14.0
        self._title(about)
        for wanted in about.parameters:
            self._add(wanted, values.get(wanted.name, wanted.default))

    def remove(self) -> None:
        """Take the controls away."""
        for widget in self.widgets.values():
            widget.disconnect_events()
        for axes in self._axes:
            self._screen.remove(axes)

    @property
    def is_typing(self) -> bool:
        """Whether keys go into a field."""
        return any(getattr(widget, "capturekeystrokes", False) for widget in self.widgets.values())

    @property
    def bottom(self) -> float:
        """Where the next thing in the panel may stand, in pixels from the top."""
        return self._top

    def _place(self, height: float, inset: float = 0.0, **how: Any) -> Axes:
        screen, top = self._screen, self._top

        def where() -> tuple[float, float, float, float]:
            left = screen.size[0] - PANEL + 16 + inset
            return left, top, PANEL - 32 - inset, height

        axes = screen.place(where, **how)
        self._axes.append(axes)
        return axes

    def _words(self, words: str, height: float, **how: Any) -> Axes:
        axes = self._place(height, frameon=False, xticks=[], yticks=[])
        axes.text(0, 0.5, words, color=INK, va="center", **how)
        self._top += height
        return axes

    def _title(self, about: About) -> None:
        self._words(about.name, 26, size=13, weight="bold")
        if about.summary:
            import textwrap

            lines = textwrap.wrap(about.summary, 44)[:3]
            self._words("\n".join(lines), 17.0 * len(lines), size=9.5)
        self._top += 14

    def _add(self, wanted: Wanted, given: str) -> None:
        self.values[wanted.name] = given
        getattr(self, f"_add_{wanted.kind}")(wanted, given)
        self._top += 12

    def _set(self, name: str, value: str) -> None:
        if self.values.get(name) != value:
            self.values[name] = value
            self._changed()

    def _add_span(self, wanted: Wanted, given: str) -> None:
        from matplotlib.widgets import Slider

        name, screen = wanted.name, self._screen
        words = self._words(name, 18, size=10)
        shown = words.text(1, 0.5, given, color=INK, va="center", ha="right", size=10)
        value = self._number(given, wanted.low)
        high = max(wanted.high, wanted.low + 1e-9)
        slider = Slider(
            self._place(20), "", wanted.low, high, valinit=value, valstep=wanted.step, color=ACCENT
        )
        slider.vline.set_visible(False)
        slider.valtext.set_visible(False)
        # Drawing the whole window for each move would take longer than the picture.
        slider.drawon = False
        is_whole = (
            wanted.step is not None and float(wanted.step).is_integer() and wanted.low == int(wanted.low)
        )

        def moved(number: float) -> None:
            text = str(round(number)) if is_whole else f"{number:.4g}"
            shown.set_text(text)
            screen.redraw(words)
            screen.redraw(slider.ax)
            self._set(name, text)

        slider.on_changed(moved)
        self.widgets[name] = slider
        self._top += 20

    @staticmethod
    def _number(text: str, otherwise: float) -> float:
        try:
            return float(text)
        except ValueError:
            return otherwise

    def _add_choice(self, wanted: Wanted, given: str) -> None:
        from matplotlib.widgets import RadioButtons

        self._words(wanted.name, 18, size=10)
        height = 22.0 * len(wanted.choices)
        active = wanted.choices.index(given) if given in wanted.choices else 0
        buttons = RadioButtons(self._place(height), wanted.choices, active=active, activecolor=ACCENT)
        buttons.on_clicked(lambda label: self._set(wanted.name, str(label)))
        self.widgets[wanted.name] = buttons
        self._top += height

    def _add_tick(self, wanted: Wanted, given: str) -> None:
        from matplotlib.widgets import CheckButtons

        box = CheckButtons(self._place(26), [wanted.name], [given.lower() in ("yes", "true")])
        box.on_clicked(lambda _: self._set(wanted.name, "yes" if box.get_status()[0] else "no"))
        self.widgets[wanted.name] = box
        self._top += 26

    def _add_field(self, wanted: Wanted, given: str) -> None:
        from matplotlib.widgets import TextBox

        self._words(f"{wanted.name} ({wanted.allowed})", 18, size=10)
        field = TextBox(self._place(28), "", initial=given, color=FIELD, hovercolor=HOVER)
        field.on_submit(lambda text: self._set(wanted.name, text))
        self.widgets[wanted.name] = field
        self._top += 28
