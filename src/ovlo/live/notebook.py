"""Notebooks: a picture in the cell's output, which follows the next cells if asked to.

display(sheet, wait=False)
"""

from __future__ import annotations

import sys
from typing import Any

from ovlo.core.sheet.sheet import Sheet


def is_running() -> bool:
    """Whether this is a notebook: IPython with a kernel, which alone displays pictures."""
    return getattr(_shell(), "kernel", None) is not None


def _shell() -> Any:
    module = sys.modules.get("IPython")
    return module.get_ipython() if module is not None else None


def display(sheet: Sheet, wait: bool) -> None:
    """Display a sheet; without `wait`, keep the picture up to date after each cell."""
    from IPython import display as ipython

    handle = ipython.display(sheet, display_id=True)
    if wait or handle is None:
        return
    seen = len(sheet.trail)

    def look(*_: object) -> None:
        nonlocal seen
        if len(sheet.trail) != seen:
            seen = len(sheet.trail)
            handle.update(sheet)

    _shell().events.register("post_run_cell", look)
