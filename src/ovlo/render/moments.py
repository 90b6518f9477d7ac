"""A drawing at any moment: what is painted so far, the step that has begun, and the pointer over both.

    moments = Moments(sheet, page)
    moments.frames.jump(40)
    moments.lay_on(pixels, share=0.5, with_pointer=True)

Replays and animations are put together here, frame by frame.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from ovlo.core.sheet.sheet import Sheet
from ovlo.render.additions.pointer import Pointers
from ovlo.render.boxes import NOTHING, Box, laid_over, united
from ovlo.render.frames import Frames
from ovlo.render.page import Page


class Moments:
    """The frames of a sheet on a page, and the pointers of its nibs."""

    def __init__(self, sheet: Sheet, page: Page) -> None:
        self.frames = Frames(sheet._columns, page)
        self.pointers = Pointers(sheet, page)

    def lay_on(self, pixels: NDArray[np.uint8], share: float, with_pointer: bool) -> Box:
        """Lay a share of the next step, and the pointer, over a frame; returns the box of what changed."""
        changed = NOTHING
        if ahead := self.frames.ahead(share):
            changed, part = ahead
            left, top, right, bottom = changed
            pixels[top:bottom, left:right] = part
        if with_pointer and (pointer := self.pointers.at(self.frames.steps, share)):
            changed = united(changed, laid_over(pixels, *pointer))
        return changed
