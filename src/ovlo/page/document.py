"""The page as a file: one that replays a drawing anywhere, and reaches for nothing outside itself.

write_in_pieces(Path("kite.html"), page_of(message(sheet)))
"""

from __future__ import annotations

import base64
import hashlib
import html
import json
import re
import zlib
from collections.abc import Iterable, Iterator
from functools import lru_cache
from importlib.resources import files
from typing import Any, NamedTuple

MODULES = tuple(
    f"{name}.js"
    for name in (
        *("data", "view", "trace", "svg", "paint", "replay", "overlays", "words", "panel", "layout"),
        *("stretches", "sharing", "stage", "player", "gallery", "form"),
    )
)
"""What all pages have of the script, each module after those it needs."""

IMPORT = re.compile(r"^import \{[^}]*\} from \"[^\"]*\";\n", re.MULTILINE)
COMMENT = re.compile(r"^ *(//[^\n]*|/\*\*(?:(?!\*/).)*\*/)\n", re.MULTILINE | re.DOTALL)
INDENT = re.compile(r"^ +", re.MULTILINE)
ICON = re.compile(r"\{icon ([a-z-]+)\}")
EXPORT = re.compile(r"^export (?=(async )?function|const)", re.MULTILINE)


class Kit(NamedTuple):
    """What one kind of page has beside: modules, the last of which begins, and their library, as text."""

    modules: tuple[str, ...]
    library: str = ""


LOT = 1 << 20
"""Bytes of a message that are compressed at once."""

LEVEL = 2
"""Of compression: more of it takes up to twice as long, and hardly shortens the numbers of a long drawing."""


def page_of(
    *messages: bytes, choices: dict[str, Any] | None = None, still: bytes = b"", title: str = ""
) -> list[bytes]:
    """The page with the message of a drawing, in pieces; with several, `choices` says how one is chosen.

    `still` is the picture as PNG, for readers and printers that run no script, and until the script has run.
    """
    page = empty_page()
    if title:  # for whoever runs no script
        page = page.replace(">A drawing<", f">{html.escape(title)}<")
    return list(_filled(page, messages, choices, still))


def packed_page(message: bytes) -> str:
    """The page of a drawing as a short one that unpacks it; it is a third as long and holds the same."""
    page = base64.b64encode(zlib.compress(empty_page().encode(), 9)).decode()
    held = b"".join(_held([message])).decode()
    return f"{asset('unpack.html')}".replace("<!-- page -->", page).replace("<!-- message -->", held)


def _held(messages: Iterable[bytes]) -> Iterator[bytes]:
    for one in messages:
        yield b'<script type="text/plain" class="message">'
        yield from _packed(one)
        yield b"</script>"


def _filled(
    page: str, messages: Iterable[bytes], choices: dict[str, Any] | None, still: bytes
) -> Iterator[bytes]:
    """The page in pieces, so that a long message is not copied with it again and again."""
    # In JSON "<" stands in strings alone, where it may be written by its number: nothing ends the element.
    words = json.dumps(choices, ensure_ascii=False).replace("<", "\\u003c")
    chosen = "" if choices is None else f'<script type="text/plain" id="choices">{words}</script>'
    data = base64.b64encode(still).decode()
    image = f'<img id="still" src="data:image/png;base64,{data}" alt="">' if still else ""
    page = page.replace("<!-- still -->", image).replace("<!-- choices -->", chosen)
    before, _, after = page.partition("<!-- message -->")
    yield before.encode()
    yield from _held(messages)
    yield after.encode()


def _packed(message: bytes) -> Iterator[bytes]:
    """A message, compressed and as text, lot by lot: neither stands whole beside the other."""
    compressor, kept = zlib.compressobj(LEVEL), b""
    for first in range(0, len(message), LOT):
        kept += compressor.compress(memoryview(message)[first : first + LOT])
        whole = len(kept) // 3 * 3  # what Base64 ends in the middle of
        yield base64.b64encode(kept[:whole])
        kept = kept[whole:]
    yield base64.b64encode(kept + compressor.flush())


@lru_cache
def file_kit() -> Kit:
    """What files have."""
    return Kit((asset("choices.js"), asset("main.js")))


@lru_cache
def served_kit() -> Kit:
    """What the page of a server has."""
    return Kit((*linked(), asset("served.js")))


def linked() -> tuple[str, ...]:
    """The modules that speak to a server."""
    return asset("explorer.js"), asset("link.js")


@lru_cache
def empty_page(connect: str = "'none'", kit: Kit | None = None) -> str:
    """The page without a drawing; it may speak to nobody, or to what `connect` names."""
    style, (script, library) = style_of("page.css"), _scripts_of(kit or file_kit())
    page = ICON.sub(r'<svg class="icon" aria-hidden="true"><use href="#icon-\1"/></svg>', asset("page.html"))
    page = page.replace("<!-- icons -->", asset("icons.svg"))
    meta = f'<meta http-equiv="Content-Security-Policy" content="{policy(connect, kit)}">'
    if library:
        page = page.replace("<!-- script -->", f"<script>{library}</script><!-- script -->")
    page = page.replace("<!-- policy -->", meta)
    page = page.replace("<!-- style -->", f"<style>{style}</style>")
    return page.replace("<!-- script -->", f'<script type="module">{script}</script>')


@lru_cache
def policy(connect: str = "'none'", kit: Kit | None = None) -> str:
    """What the page may load (CSP 3): its own style and scripts; and what it may speak to."""
    digests = " ".join(_digest(script) for script in _scripts_of(kit or file_kit()) if script)
    return (
        f"default-src 'none'; style-src {_digest(style_of('page.css'))}; "
        f"script-src {digests}; img-src data:; connect-src {connect}; "
        "base-uri 'none'; form-action 'none'"
    )


def style_of(name: str) -> str:
    """A style sheet with the colours that all pages share."""
    return asset("palette.css") + asset(name)


def asset(name: str) -> str:
    """A file of the page."""
    return files("ovlo.page").joinpath("assets", name).read_text(encoding="utf-8")


def _scripts_of(kit: Kit) -> tuple[str, str]:
    """The page's own script and the library's."""
    return _joined([*map(asset, MODULES), *kit.modules]), kit.library


def _joined(modules: list[str]) -> str:
    """Modules joined to one, since a file opened from disk may not import; without comments and indents."""
    joined = "\n".join(modules)
    return INDENT.sub("", COMMENT.sub("", EXPORT.sub("", IMPORT.sub("", joined))))


def _digest(text: str) -> str:
    """By what a policy knows a part of the page (CSP 3, 2.3.1)."""
    return f"'sha256-{base64.b64encode(hashlib.sha256(text.encode()).digest()).decode()}'"
