"""What a script drew and nobody saved: said in one line when Python ends.

    wait_for_saving(sheet, "sheet", 'sheet.save("kite.svg")')
    is_used(sheet)

Only scripts that Python runs by itself are meant: not what `ovlo` runs, no prompt and no notebook.
"""

from __future__ import annotations

import atexit
import sys
from types import FrameType


class _Waiting:
    """Things that were made in the script and not used since, with what would save each."""

    def __init__(self) -> None:
        self.things: dict[int, tuple[object, str, str]] = {}

    def say(self) -> None:
        """Name the last of them, if the script did not fail anyway."""
        if not self.things or hasattr(sys, "last_value"):
            return
        _, what, fix = list(self.things.values())[-1]
        print(f"Ovlo: {what} was never saved or shown; end the file with {fix}", file=sys.stderr)


_waiting = _Waiting()


def wait_for_saving(thing: object, what: str, fix: str, frame: FrameType) -> None:
    """Say at the end that a thing made in that frame was not used, unless it is."""
    main = sys.modules.get("__main__")
    file = getattr(main, "__file__", None) or ""
    if (
        frame.f_globals is not getattr(main, "__dict__", None)
        or not file.endswith(".py")
        or sys.flags.interactive
    ):
        return
    if not _waiting.things:
        atexit.unregister(_waiting.say)
        atexit.register(_waiting.say)
    _waiting.things[id(thing)] = thing, what, fix


def is_used(thing: object) -> None:
    """A thing was saved, shown or looked at."""
    _waiting.things.pop(id(thing), None)
