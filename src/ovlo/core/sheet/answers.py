"""Answers to uncaught errors where no `ovlo` command shows them: under plain Python, at a prompt, in a
notebook.

    answer_errors(frame)    # once that frame uses Ovlo; pytest has a plugin for the same

Python words an unknown attribute or a wrong argument by itself, and nothing in Ovlo is called then. So the
hook that shows an uncaught error asks for the answer first. It is there only for what somebody runs by hand:
a program that imports a module which uses Ovlo keeps its hooks. In notebooks, only errors about what is
Ovlo's own are answered.
"""

from __future__ import annotations

import sys
from collections.abc import Callable
from contextlib import suppress
from types import FrameType, TracebackType
from typing import Any

from ovlo.core.sheet.door import outlets, studio
from ovlo.core.sheet.unsaved import is_by_hand

Shown = Callable[[type[BaseException], BaseException, TracebackType | None], object]

ANSWERED = (AttributeError, ImportError, NameError, TypeError)


class _AnsweringHook:
    """An exception hook that puts Ovlo's answer into an error, and hands it to the hook before it."""

    def __init__(self, before: Shown) -> None:
        self._before = before

    def __call__(self, kind: type[BaseException], error: BaseException, trace: TracebackType | None) -> None:
        with suppress(Exception):
            outlets.answer(error)
        self._before(kind, error, trace)


def answer_errors(frame: FrameType) -> None:
    """From now on, uncaught errors that Ovlo understands come with its answer, if the frame is by hand."""
    if not is_by_hand(frame) or isinstance(sys.excepthook, _AnsweringHook):
        return
    interactive = sys.modules.get("IPython.core.getipython")
    shell = interactive.get_ipython() if interactive is not None else None
    if shell is None:
        sys.excepthook = _AnsweringHook(sys.excepthook)
    else:
        _answer_in_notebooks(shell)
        studio.show_small_pictures(shell)


def _answer_in_notebooks(shell: Any) -> None:
    if getattr(shell, "custom_exceptions", None):  # somebody else's handler stays
        return

    def show(
        shell: Any, kind: type, error: BaseException, trace: object, tb_offset: int | None = None
    ) -> None:
        with suppress(Exception):
            outlets.answer(error, only_own=True)
        shell.showtraceback((kind, error, trace), tb_offset=tb_offset)

    shell.set_custom_exc(ANSWERED, show)
