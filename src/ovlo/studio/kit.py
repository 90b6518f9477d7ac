"""What the studio's page has beside those that only show: the editor, and what is written in it.

empty_page("ws://…", studio_kit())
"""

from __future__ import annotations

from functools import lru_cache
from importlib.resources import files

from ovlo.page.document import Kit, linked

MODULES = ("completing", "marking", "dial", "writing", "studio")
"""Each module after those it needs."""


@lru_cache
def studio_kit() -> Kit:
    """The modules of the studio, and CodeMirror as one file (`make editor` builds it)."""
    return Kit((*linked(), *(_read("assets", f"{name}.js") for name in MODULES)), editor())


def editor() -> str:
    """The built file of the editor."""
    return _read("vendor", "editor.min.js")


def _read(*names: str) -> str:
    return files("ovlo.studio").joinpath(*names).read_text(encoding="utf-8")
