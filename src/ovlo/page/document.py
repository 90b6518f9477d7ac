"""The page as a file: one that replays a drawing anywhere, and reaches for nothing outside itself.

write(Path("kite.html"), page_of(message(sheet)))
"""

from __future__ import annotations

import base64
import hashlib
import json
import re
import zlib
from functools import lru_cache
from importlib.resources import files
from typing import Any

MODULES = tuple(
    f"{name}.js"
    for name in (
        *("data", "view", "trace", "paint", "replay", "overlays", "words", "panel", "stage", "player"),
        *("gallery", "form", "choices", "explorer", "link", "main"),
    )
)
"""The page's script, each module after those it needs."""

IMPORT = re.compile(r"^import \{[^}]*\} from \"[^\"]*\";\n", re.MULTILINE)
EXPORT = re.compile(r"^export (?=(async )?function|const)", re.MULTILINE)


def page_of(*messages: bytes, choices: dict[str, Any] | None = None) -> bytes:
    """The page with the message of a drawing in it; with several, `choices` says how one is chosen."""
    held = "".join(f'<script type="text/plain" class="message">{_packed(one)}</script>' for one in messages)
    # In JSON "<" stands in strings alone, where it may be written by its number: nothing ends the element.
    words = json.dumps(choices, ensure_ascii=False).replace("<", "\\u003c")
    chosen = "" if choices is None else f'<script type="text/plain" id="choices">{words}</script>'
    page = empty_page().replace("<!-- choices -->", chosen).replace("<!-- message -->", held)
    return page.encode()


def _packed(message: bytes) -> str:
    return base64.b64encode(zlib.compress(message, 9)).decode()


@lru_cache
def empty_page(connect: str = "'none'") -> str:
    """The page without a drawing; it may speak to nobody, or to what `connect` names."""
    style, script = asset("page.css"), script_of(MODULES)
    page = asset("page.html")
    meta = f'<meta http-equiv="Content-Security-Policy" content="{policy(connect)}">'
    page = page.replace("<!-- policy -->", meta)
    page = page.replace("<!-- style -->", f"<style>{style}</style>")
    return page.replace("<!-- script -->", f'<script type="module">{script}</script>')


@lru_cache
def policy(connect: str = "'none'") -> str:
    """What the page may load (CSP 3): its own style and script; and what it may speak to."""
    return (
        f"default-src 'none'; style-src {_digest(asset('page.css'))}; "
        f"script-src {_digest(script_of(MODULES))}; connect-src {connect}; "
        "base-uri 'none'; form-action 'none'"
    )


def asset(name: str) -> str:
    """A file of the page."""
    return files("ovlo.page").joinpath("assets", name).read_text(encoding="utf-8")


def script_of(modules: tuple[str, ...]) -> str:
    """Modules joined to one, since a file opened from disk may not import others."""
    joined = "\n".join(asset(name) for name in modules)
    return EXPORT.sub("", IMPORT.sub("", joined))


def _digest(text: str) -> str:
    """By what a policy knows a part of the page (CSP 3, 2.3.1)."""
    return f"'sha256-{base64.b64encode(hashlib.sha256(text.encode()).digest()).decode()}'"
