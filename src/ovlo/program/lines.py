"""Which lines are the user's own: not those of Ovlo, Python, or an installed library.

is_users("/home/ada/kite.py")    # True
sheet = recorded_lines(lambda: kite.run())    # its steps know their lines
"""

from __future__ import annotations

import os
import sys
import sysconfig
import traceback
from collections.abc import Callable
from functools import lru_cache
from types import TracebackType

import ovlo
from ovlo.core.sheet.host import hosted
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.trail.origins import Recorder


def users_frames(error: BaseException) -> traceback.StackSummary:
    """The frames of a traceback that are the user's own."""
    frames = traceback.extract_tb(error.__traceback__)
    return traceback.StackSummary.from_list([frame for frame in frames if _is_shown(frame.filename)])


def last_users(error: BaseException) -> TracebackType | None:
    """The innermost part of a traceback that is the user's own."""
    found, part = None, error.__traceback__
    while part is not None:
        if _is_shown(part.tb_frame.f_code.co_filename):
            found = part
        part = part.tb_next
    return found


def recorded_lines(work: Callable[[], Sheet]) -> Sheet:
    """A sheet with the place in the program that each step comes from."""
    with hosted(recorder=Recorder(is_users, sys._getframe())):
        return work()


PROMPTS = ("<stdin>", "<console>", "<python-input", "<ipython-input")
"""The file names of what is typed at a prompt."""


def _is_shown(filename: str) -> bool:
    """Whether a user wrote these lines, in a file or at a prompt."""
    return filename.startswith(PROMPTS) or is_users(filename)


@lru_cache(maxsize=4096)
def is_users(filename: str) -> bool:
    """Whether a file is the user's own: not of Ovlo, Python, or an installed library."""
    if filename.startswith("<"):
        return False
    examples, *others = _known_folders()
    # Most names say so by themselves; it takes the system's time to find out where others lead.
    if not filename.startswith(examples) and filename.startswith(tuple(others)):
        return False
    path = os.path.realpath(filename)
    return path.startswith(examples) or not path.startswith(tuple(others))


@lru_cache(maxsize=1)
def _known_folders() -> tuple[str, ...]:
    """The folder of Ovlo's examples, then those of Ovlo, Python and installed libraries."""
    package, paths = os.path.dirname(ovlo.__file__), sysconfig.get_paths()
    installed = [paths[key] for key in ("stdlib", "purelib", "platlib")]
    others = [package, *installed]
    folders = [os.path.join(package, "examples"), *others, *(os.path.realpath(one) for one in others)]
    return tuple(f"{folder}{os.sep}" for folder in folders)
