"""A program beside its picture: its lines, coloured.

source_of(origins)    # {"file": "kite.py", "lines": [[("kn", "from"), ("", " "), …], …]}
"""

from __future__ import annotations

import zlib
from functools import lru_cache
from pathlib import Path
from typing import Any

from ovlo.core.trail.origins import Origins
from ovlo.program.texts import text_of

MOST_LINES = 5_000


def source_of(origins: Origins) -> dict[str, Any] | None:
    """The file that drew first, as coloured lines; None where it cannot be read."""
    if not origins.places:
        return None
    path = Path(origins.places[0].file)
    try:
        text = text_of(path)
    except OSError:
        return None
    lines = coloured(text)[:MOST_LINES]
    return {"file": path.name, "lines": lines, "digest": zlib.crc32(text.encode(errors="replace"))}


@lru_cache(maxsize=4)
def coloured(text: str) -> list[list[tuple[str, str]]]:
    """The lines of a Python program as pieces of text, each with the short name of its kind."""
    from pygments.lexers import PythonLexer
    from pygments.token import STANDARD_TYPES

    lines: list[list[tuple[str, str]]] = [[]]
    for kind, value in PythonLexer(stripnl=False, ensurenl=False).get_tokens(text):
        first, *others = value.split("\n")
        for new_line, part in ((False, first), *((True, other) for other in others)):
            if new_line:
                lines.append([])
            if part:
                lines[-1].append((STANDARD_TYPES.get(kind, ""), part))
    return lines
