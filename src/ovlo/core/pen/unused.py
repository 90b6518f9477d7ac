"""Blocks and loops that were made and never used: a warning names their line when they are discarded.

nib.lifted()    # NoEffect: lifted: a block does nothing by itself; …
"""

from __future__ import annotations

import warnings
from types import CodeType, FrameType

from ovlo.core.pen.steering import Steering
from ovlo.core.trail.origins import line_of
from ovlo.core.values.errors import NoEffect

HOW = {
    "area": 'area("tomato")',
    "lifted": "lifted()",
    "styled": 'styled(ink="tomato")',
    "returning": "returning()",
    "full_turn": "full_turn(4)",
}
"""How each is called."""


class Unused:
    """Something of a nib that does nothing by itself, and says so, with the line, if it is never used."""

    __slots__ = ("_call", "_code", "_instruction", "_is_open", "_nib")

    FIX = ""

    def __init__(self, nib: Steering, call: str, made_at: FrameType) -> None:
        self._nib = nib
        self._call = call
        self._is_open = False
        self._code: CodeType | None = made_at.f_code
        self._instruction = made_at.f_lasti

    def __del__(self) -> None:
        if self._code is not None:
            line = line_of(self._code, self._instruction)
            words = self.FIX.format(call=self._call, how=HOW[self._call])
            warnings.warn_explicit(NoEffect(words), None, self._code.co_filename, line)
