"""A console that lacks some characters.

forgive()
"""

from __future__ import annotations

import io
import sys


def forgive() -> None:
    """Have a character that the console lacks shown by its number: no program fails by printing it."""
    if isinstance(sys.stdout, io.TextIOWrapper) and sys.stdout.errors == "strict":
        sys.stdout.reconfigure(errors="backslashreplace")
