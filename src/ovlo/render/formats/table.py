"""The formats a picture can be written in: the one place that knows file endings.

    b"".join(renderer_of(".svg")(columns, page))

A new format is a module with `render(columns, page) -> Iterable[bytes]`, a file in pieces, and a line in
`MODULES`.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from importlib import import_module
from typing import cast

from ovlo.core.trail.columns import Columns
from ovlo.core.values import arguments
from ovlo.core.values.errors import BadValue
from ovlo.render.page import Page

Renderer = Callable[[Columns, Page], Iterable[bytes]]

MODULES = {
    ".svg": "ovlo.render.formats.svg",
    ".png": "ovlo.render.formats.png",
    ".pdf": "ovlo.render.formats.pdf",
}


PAGE = ".html"
"""A page that replays the picture; it is made where the browser's part is known."""

MOVING = (".gif", ".apng", ".webp")
"""What only animations are written as."""


def renderer_of(suffix: str, call: str) -> Renderer:
    """What renders files with this ending."""
    known = ", ".join((*MODULES, PAGE))
    if not suffix:
        raise BadValue(f"{call}: the file name has no ending to select the format; use one of {known}.")
    if suffix.lower() in MOVING:
        raise BadValue(
            f"{call}: {suffix} is an animation, which `ovlo animate` writes; use one of {known} here."
        )
    if suffix.lower() not in MODULES:
        near = arguments.near(suffix, (*MODULES, PAGE))
        raise BadValue(f"{call}: there is no format {arguments.brief(suffix)}{near}; use one of {known}.")
    return cast(Renderer, import_module(MODULES[suffix.lower()]).render)


def is_page(suffix: str) -> bool:
    """Whether a file ending is that of the page, which is made elsewhere."""
    return suffix.lower() == PAGE
