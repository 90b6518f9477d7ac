"""Keys: those the page uses, and those that drawings are given.

check_shortcuts(drawings)
"""

from __future__ import annotations

from collections.abc import Iterable

from ovlo.core.values import arguments
from ovlo.core.values.errors import BadType, BadValue

PAGE_KEYS = {
    " ": "play or pause",
    "+": "zoom in",
    "-": "zoom out",
    "0": "fit the sheet",
    "9": "fit the drawing",
    **dict(zip("123456", ("grid", "axes", "angles", "steps", "pointer", "findings"), strict=True)),
    "7": "keep the overlays in sight",
    "8": "loop",
    "?": "shortcuts",
}
"""What each key of one character does in the page."""


def checked_shortcut(key: object) -> str:
    """A key for a drawing: one character that the page does not use; "" for none."""
    if key is None:
        return ""
    if not isinstance(key, str):
        raise BadType(f"drawing: shortcut must be a key such as 'k', not {arguments.brief(key)}.")
    if len(key) != 1 or not key.isprintable():
        raise BadValue(
            f"drawing: shortcut must be a single character such as 'k', not {arguments.brief(key)}."
        )
    if key in PAGE_KEYS:
        raise BadValue(
            f"drawing: the page uses the key {key!r} itself ({PAGE_KEYS[key]}); choose another shortcut."
        )
    return key


def check_shortcuts(pairs: Iterable[tuple[str, str]]) -> None:
    """Refuse two drawings, given as name and shortcut, with one key."""
    owners: dict[str, str] = {}
    for name, key in pairs:
        if key and key in owners:
            raise BadValue(
                f"drawing: {owners[key]} and {name} have the same shortcut {key!r}; change one of them."
            )
        owners[key] = name
