"""The words the studio completes and explains: names with their signature and first sentence, and colours.

vocabulary()["kinds"]["nib"][0]    # {"name": "arc", "signature": "arc(radius, …)", "about": "…"}
"""

from __future__ import annotations

import inspect
from functools import cache
from typing import Any

import ovlo
from ovlo.core.sheet.motif import Motif
from ovlo.core.sheet.nib import Nib
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.colour_names import NAMED
from ovlo.core.values.dice import Dice

KINDS = {"nib": Nib, "sheet": Sheet, "dice": Dice, "motif": Motif}

MAKERS = {"Sheet": "sheet", "new_nib": "nib", "Motif": "motif", "from_svg": "motif", "Dice": "dice"}
"""What gives one of a kind: `sail = sheet.new_nib()` makes `sail` a nib."""

STARS = {"VAR_POSITIONAL": "*", "VAR_KEYWORD": "**"}

Entry = dict[str, Any]


@cache
def vocabulary() -> dict[str, Any]:
    """All words, as they are told to the page."""
    from ovlo.program.drawing import Drawing

    kinds = {name: _members(kind) for name, kind in KINDS.items()}
    kinds["ovlo"] = [_entry(name, getattr(ovlo, name)) for name in ovlo.__all__ if not name.startswith("_")]
    kinds["drawing"] = _members(Drawing)
    return {
        "kinds": kinds,
        "makers": MAKERS,
        "colours": [[name, f"#{digits}"] for name, digits in NAMED.items()],
    }


def _members(kind: type) -> list[Entry]:
    return [
        _entry(name, inspect.getattr_static(kind, name)) for name in dir(kind) if not name.startswith("_")
    ]


def _entry(name: str, value: object) -> Entry:
    value = value.__func__ if isinstance(value, classmethod | staticmethod) else value
    about = inspect.getdoc(value) if isinstance(value, property) or callable(value) else None
    first = (about or "").split("\n\n")[0].replace("\n", " ")
    if isinstance(value, property) or not callable(value):
        return {"name": name, "signature": name, "about": first, "takes": [], "isCall": False}
    try:
        parameters = list(inspect.signature(value).parameters.values())
    except (TypeError, ValueError):
        parameters = []
    taken = [one for one in parameters if one.name not in ("self", "cls") and not one.name.startswith("_")]
    signature = f"{name}({', '.join(map(_told, taken))})"
    return {
        "name": name,
        "signature": signature,
        "about": first,
        "takes": [one.name for one in taken if one.kind in (one.POSITIONAL_OR_KEYWORD, one.KEYWORD_ONLY)],
        "isCall": True,
    }


def _told(parameter: inspect.Parameter) -> str:
    star = STARS.get(parameter.kind.name, "")
    default = parameter.default
    is_plain = default is not parameter.empty and isinstance(default, int | float | str | bool | None | tuple)
    return f"{star}{parameter.name}{f'={default!r}' if is_plain else ''}"
