"""What a script drew and nobody saved: said in one line when Python ends.

    wait_for_saving(sheet, "sheet", 'sheet.save("kite.svg")')
    is_used(sheet)

Only scripts that Python runs by itself are meant: not what `ovlo` runs, no prompt and no notebook.
"""

from __future__ import annotations

import atexit
import sys
import weakref
from types import FrameType


class _Waiting:
    """What would save each thing that was made in the script and not used since; things are not kept."""

    def __init__(self) -> None:
        self.things: dict[int, tuple[str, str]] = {}
        """By the number of the thing; 0 for the last of those that are gone."""

    def add(self, thing: object, what: str, fix: str) -> None:
        """Wait for a thing to be used."""
        self.things[id(thing)] = what, fix
        weakref.finalize(thing, self._let_go, id(thing)).atexit = False

    def _let_go(self, number: int) -> None:
        if number in self.things:
            self.things[0] = self.things.pop(number)

    def say(self) -> None:
        """Name the last of them, if the script did not fail anyway."""
        if not self.things or hasattr(sys, "last_value"):
            return
        what, fix = list(self.things.values())[-1]
        print(f"Ovlo: {what} was never saved or shown; end the file with {fix}", file=sys.stderr)


_waiting = _Waiting()


def is_by_hand(frame: FrameType) -> bool:
    """Whether a frame is of what somebody runs by hand: a script, a prompt or a notebook, no module of it."""
    return frame.f_globals is getattr(sys.modules.get("__main__"), "__dict__", None)


def wait_for_saving(thing: object, what: str, fix: str, frame: FrameType) -> None:
    """Say at the end that a thing made in that frame was not used, unless it is."""
    file = getattr(sys.modules.get("__main__"), "__file__", None) or ""
    if not is_by_hand(frame) or not file.endswith(".py") or sys.flags.interactive:
        return
    if not _waiting.things:
        atexit.unregister(_waiting.say)
        atexit.register(_waiting.say)
    _waiting.add(thing, what, fix)


def is_used(thing: object) -> None:
    """A thing was saved, shown or looked at."""
    _waiting.things.pop(id(thing), None)
