"""The formats a picture can be written in: the one place that knows file endings.

    renderer_of(".svg")(columns, page)

A new format is a module with `render(columns, page) -> bytes` and a line in `MODULES`.
"""

from __future__ import annotations

from collections.abc import Callable
from importlib import import_module
from typing import cast

from ovlo.core import arguments
from ovlo.core.columns import Columns
from ovlo.core.errors import BadValue
from ovlo.render.page import Page

Renderer = Callable[[Columns, Page], bytes]

MODULES = {
    ".svg": "ovlo.render.svg",
    ".png": "ovlo.render.png",
    ".pdf": "ovlo.render.pdf",
}


def renderer_of(suffix: str) -> Renderer:
    """What renders files with this ending."""
    known = ", ".join(MODULES)
    if not suffix:
        raise BadValue(f"save: the file has no ending to tell its format; use one of {known}.")
    if suffix.lower() not in MODULES:
        near = arguments.near(suffix, MODULES)
        raise BadValue(f"save: there is no format {suffix!r}{near}; use one of {known}.")
    return cast(Renderer, import_module(MODULES[suffix.lower()]).render)
