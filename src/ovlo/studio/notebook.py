"""Notebooks: the page in a cell, and sliders beside a picture.

    display(sheet, findings, start={"play": {"seconds": 4, "loops": 1}}, wait=True)

The page is a frame that holds all it needs: it may run its own script and nothing else, and needs no server.
Viewers that run no script find the picture beside it, as SVG.
"""

from __future__ import annotations

import html
import sys
from collections.abc import Sequence
from typing import Any

from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.errors import BadUse, OvloError
from ovlo.core.values.finding import Finding
from ovlo.page.cell import CellOutput
from ovlo.program.loading import AnyDrawing
from ovlo.program.parameters import Parameter, shown, typed


def is_running() -> bool:
    """Whether this is a notebook: IPython with a kernel, which alone displays pictures."""
    return getattr(_shell(), "kernel", None) is not None


def _shell() -> Any:
    module = sys.modules.get("IPython")
    return module.get_ipython() if module is not None else None


def display(
    sheet: Sheet, findings: Sequence[Finding] | None, start: dict[str, Any], wait: bool = True
) -> None:
    """Display a sheet; without `wait`, keep the page up to date after each cell."""
    from IPython.display import display as shown_by

    handle = shown_by(CellOutput(sheet, findings, start), display_id=True)
    if wait or handle is None:
        return
    seen = len(sheet.trail)

    def look(*_: object) -> None:
        nonlocal seen
        if len(sheet.trail) != seen:
            seen = len(sheet.trail)
            handle.update(CellOutput(sheet, None, {}))

    _shell().events.register("post_run_cell", look)


# ── controls in a cell ────────────────────────────────────────────────────────────────────────────────────


def live(drawing: AnyDrawing, values: dict[str, object], seed: int | None) -> None:
    """A control for each parameter of a drawing, and the picture that follows them."""
    try:
        import ipywidgets
    except ImportError:
        raise BadUse(
            "live: needs ipywidgets in a notebook; install it with `pip install ovlo[notebook]`."
        ) from None
    from IPython import display as ipython

    parameters = typed(drawing._parameters)
    fixed = {name: value for name, value in values.items() if name not in parameters}
    controls = {
        name: _control(ipywidgets, parameters[name], value)
        for name, value in values.items()
        if name in parameters
    }
    drawn = seed
    shown_at = None

    def draw(*_: object) -> None:
        nonlocal drawn, shown_at
        try:
            texts = {name: shown(control.value) for name, control in controls.items()}
            sheet = drawing.run(seed=drawn, **fixed, **drawing._read(texts))
        except OvloError as error:
            result: object = ipython.HTML(f"<pre>{html.escape(str(error))}</pre>")
        else:
            result = sheet
            drawn = sheet.seed if sheet.dice._is_used else drawn
        # An output of the cell, and not of a control: it stays in the notebook that is saved.
        if shown_at is None:
            shown_at = ipython.display(result, display_id=True)
        else:
            shown_at.update(result)

    for control in controls.values():
        control.observe(draw, "value")
    ipython.display(ipywidgets.VBox([*controls.values()]))
    draw()


def _control(widgets: Any, parameter: Parameter, value: object) -> Any:
    """The control that fits a parameter."""
    about = {"description": parameter.name}
    kind = parameter.kind
    if kind.choices:
        return widgets.Dropdown(
            options=[shown(choice) for choice in kind.choices], value=shown(value), **about
        )
    if kind.control == "switch":
        return widgets.Checkbox(value=value, **about)
    if not parameter.is_number or not isinstance(value, int | float):
        return widgets.Text(value=shown(value), continuous_update=False, **about)
    low, high = parameter.reach
    slider = widgets.IntSlider if kind.is_whole and isinstance(value, int) else widgets.FloatSlider
    step = parameter.step or (high - low) / 200
    return slider(value=value, min=min(low, value), max=max(high, value), step=step, **about)
