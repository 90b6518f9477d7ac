"""Keys: those the window uses, and those that drawings are given.

check_shortcuts(drawings)
"""

from __future__ import annotations

from collections.abc import Iterable

from ovlo.core.values import arguments
from ovlo.core.values.errors import BadType, BadValue

WINDOW_KEYS = {
    " ": "play or pause",
    "right": "one step on",
    "left": "one step back",
    "home": "back to the beginning",
    "end": "all of it at once",
    "+": "faster",
    "-": "slower",
    "0": "see the whole sheet",
    "1": "grid",
    "2": "axes",
    "3": "findings of the check",
    "4": "numbers of steps",
    "5": "angles of corners",
    "6": "where the nib ends",
    "s": "save what is seen",
    "r": "other chance (live)",
    "c": "the values as a command line (live)",
    "x": "stop the program (live)",
    "?": "these keys",
}
"""What each key does in the window."""


def checked_shortcut(key: object) -> str:
    """A key for a drawing: one character that the window does not use; "" for none."""
    if key is None:
        return ""
    if not isinstance(key, str):
        raise BadType(f"drawing: shortcut must be a key such as 'k', not {arguments.brief(key)}.")
    if len(key) != 1 or not key.isprintable():
        raise BadValue(
            f"drawing: shortcut must be a single character such as 'k', not {arguments.brief(key)}."
        )
    if key in WINDOW_KEYS:
        raise BadValue(
            f"drawing: the window itself uses the key {key!r} ({WINDOW_KEYS[key]}); choose another shortcut."
        )
    return key


def check_shortcuts(pairs: Iterable[tuple[str, str]]) -> None:
    """Refuse two drawings, given as name and shortcut, with one key."""
    owners: dict[str, str] = {}
    for name, key in pairs:
        if key and key in owners:
            raise BadValue(
                f"drawing: {owners[key]} and {name} have the same shortcut {key!r}; give one of them another."
            )
        owners[key] = name
