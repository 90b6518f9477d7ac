"""The page as a file: one that replays a drawing anywhere, and reaches for nothing outside itself.

write(Path("kite.html"), page_of(message(sheet)))
"""

from __future__ import annotations

import base64
import hashlib
import re
import zlib
from functools import lru_cache
from importlib.resources import files

MODULES = ("data.js", "view.js", "trace.js", "paint.js", "replay.js", "overlays.js", "panel.js", "main.js")
"""The page's script, each module after those it needs."""

IMPORT = re.compile(r"^import \{[^}]*\} from \"[^\"]*\";\n", re.MULTILINE)
EXPORT = re.compile(r"^export (?=(async )?function|const)", re.MULTILINE)


def page_of(message: bytes) -> bytes:
    """The page with the message of a drawing in it."""
    packed = base64.b64encode(zlib.compress(message, 9)).decode()
    page = _empty_page().replace(
        "<!-- message -->", f'<script type="text/plain" id="message">{packed}</script>'
    )
    return page.encode()


@lru_cache(maxsize=1)
def _empty_page() -> str:
    """The page with its style and its script, and a policy that lets in nothing else."""
    style, script = asset("page.css"), script_of(MODULES)
    policy = (
        f"default-src 'none'; style-src {_digest(style)}; script-src {_digest(script)}; "
        "base-uri 'none'; form-action 'none'"
    )
    page = asset("page.html")
    page = page.replace("<!-- policy -->", f'<meta http-equiv="Content-Security-Policy" content="{policy}">')
    page = page.replace("<!-- style -->", f"<style>{style}</style>")
    return page.replace("<!-- script -->", f'<script type="module">{script}</script>')


def asset(name: str) -> str:
    """A file of the page."""
    return files("ovlo.browser").joinpath("assets", name).read_text(encoding="utf-8")


def script_of(modules: tuple[str, ...]) -> str:
    """Modules joined to one, since a file opened from disk may not import others."""
    joined = "\n".join(asset(name) for name in modules)
    return EXPORT.sub("", IMPORT.sub("", joined))


def _digest(text: str) -> str:
    """By what a policy knows a part of the page (CSP 3, 2.3.1)."""
    return f"'sha256-{base64.b64encode(hashlib.sha256(text.encode()).digest()).decode()}'"
