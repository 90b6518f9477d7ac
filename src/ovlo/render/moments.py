"""A drawing at any moment: what is painted so far, the step that has begun, overlays, and the pointer.

    moments = MomentPainter(sheet, page)
    box = moments.move(40, share=0.5)
    part_of(moments.pixels, box)

Animations are put together here, frame by frame.
"""

from __future__ import annotations

from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.arrays import Bytes
from ovlo.render.additions.pointer import Pointers
from ovlo.render.boxes import NOTHING, PixelBox, laid_over, part_of, united
from ovlo.render.frames import Frames
from ovlo.render.page import Page


class MomentPainter:
    """A sheet on a page, step by step.

    Attributes
    ----------
    pixels : uint8 array of shape (height, width, 4)
        The moment shown; at first, the empty page.
    whole : box
        All of them.
    """

    def __init__(
        self,
        sheet: Sheet,
        page: Page,
        overlay: Bytes | None = None,
        with_pointer: bool = False,
    ) -> None:
        self._frames = Frames(sheet._columns, page)
        self._pointers = Pointers(sheet, page) if with_pointer else None
        self._overlay = overlay
        self.pixels = self._frames.pixels.copy()
        self.whole = self._frames.whole
        self._lay_overlay(self.whole)
        self._passing = NOTHING
        """Where this moment shows what the next one does not keep."""

    def move(self, steps: int, share: float) -> PixelBox:
        """Show the drawing after so many steps and a share of the next; returns the box of what changed."""
        changed = united(self._frames.jump(steps), self._passing)
        ahead, part = self._frames.ahead(share) or (NOTHING, self.pixels[:0, :0])
        changed = united(changed, ahead)
        part_of(self.pixels, changed)[:] = part_of(self._frames.pixels, changed)
        part_of(self.pixels, ahead)[:] = part
        self._lay_overlay(changed)
        self._passing = ahead
        if self._pointers is not None and (pointer := self._pointers.at(steps, share)):
            covered = laid_over(self.pixels, *pointer)
            self._passing, changed = united(ahead, covered), united(changed, covered)
        return changed

    def _lay_overlay(self, box: PixelBox) -> None:
        if self._overlay is not None:
            laid_over(self.pixels, box, part_of(self._overlay, box))
