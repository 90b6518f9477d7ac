"""The two ways into the studio: a sheet is shown, a drawing is explored.

show(sheet, seconds=4, at_once=False, wait=True, pointer=False)
live(kite, {"sides": 5}, seed=None)
"""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from ovlo.core.sheet.sheet import Sheet
from ovlo.outlets import findings_of
from ovlo.studio import notebook

if TYPE_CHECKING:
    from ovlo.program.loading import AnyDrawing


def show(sheet: Sheet, seconds: float, at_once: bool, wait: bool, pointer: bool) -> None:
    """Replay a sheet in the browser, or in a notebook's cell."""
    start: dict[str, object] = {"overlays": ("pointer",) if pointer else ()}
    if not at_once:
        start["play"] = {"seconds": seconds, "loops": 1}
    if notebook.is_running():
        notebook.display(sheet, findings_of(sheet), start, wait)
        return
    from ovlo.studio.showing import show_sheet  # with the server, which a notebook does not need

    show_sheet(sheet, findings_of(sheet) if wait else None, start, wait)


def show_small_pictures(shell: Any) -> None:
    """Let a notebook show lists and tables of sheets as small pictures."""
    from ovlo.studio import small_pictures  # a shell is rare

    small_pictures.register(shell)


def show_unfinished(sheet: Sheet) -> None:
    """Display what a drawing that failed drew so far, in a notebook's cell."""
    if notebook.is_running():
        from IPython.display import display

        display(sheet)


def live(drawing: AnyDrawing, values: dict[str, object], seed: int | None) -> None:
    """Explore a drawing in the browser, or in a notebook's cell."""
    if notebook.is_running():
        notebook.live(drawing, drawing._complete(values), seed)
        return
    from ovlo.program.drawing import source_file
    from ovlo.program.parameters import shown
    from ovlo.studio.exploring.explorer import explore

    target = f"{source_file(drawing._function)}:{drawing._name}"
    explore(target, {name: shown(value) for name, value in values.items()}, seed)
