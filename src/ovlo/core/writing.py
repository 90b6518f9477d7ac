"""Words on the sheet, and pauses between steps.

nib.text("Kite day at Marrow Bay", size=24)
"""

from __future__ import annotations

from ovlo.core import arguments
from ovlo.core.columns import Style, Text
from ovlo.core.pose import Pose
from ovlo.core.shapes import Shapes
from ovlo.core.styling import checked_text
from ovlo.core.trail import Trail


class Writing(Shapes):
    """What a nib writes."""

    __slots__ = ("_text_size",)

    def __init__(self, trail: Trail, number: int, pose: Pose, style: Style) -> None:
        super().__init__(trail, number, pose, style)
        # 16 px where a line is 2 px wide, so the same physical size on a sheet in mm.
        self._text_size = 8 * style.line_width

    def text(
        self,
        words: str,
        size: float | None = None,
        font: str = "sans-serif",
        weight: str = "normal",
        slant: str = "normal",
        align: str = "start",
        baseline: str = "alphabetic",
    ) -> None:
        """Write words along the heading, in the ink of the nib, which stays where it is.

        Parameters
        ----------
        words : str
            One line, without control characters.
        size : float
            The size of the font in sheet units, above 0; 16 px without it.
        font : str
            A CSS family name such as "serif" or "DejaVu Sans"; several may stand with commas between.
        weight : "normal" or "bold"
        slant : "normal", "italic" or "oblique"
        align : "start", "middle" or "end"
            Which part of the words stands at the nib.
        baseline : "alphabetic", "middle" or "hanging"
            Whether the nib is at the foot of the letters, at their middle (0.35 of the size above the foot)
            or at their top (0.75 of the size above it).

        Raises
        ------
        BadValue, BadType
            When the words are no such string, or an argument is another; nothing is written then.

        Examples
        --------
        >>> nib.text("Kite day at Marrow Bay", size=24, align="middle")
        """
        parts = checked_text(words, size, font, weight, slant, align, baseline)
        if size is None:
            parts["size"] = self._text_size
        if words and not self._is_lifted:
            self._trail.write_text(x=self._x, y=self._y, heading=self._heading, ink=self._style.ink, **parts)

    def write(self, text: Text) -> None:
        """Write a text again, where it was; for Ovlo's own use."""
        parts = text._asdict()
        del parts["step"], parts["order"], parts["origin"]
        self._trail.write_text(**parts)

    def pause(self, seconds: float) -> None:
        """Let replays and animations hold here; it makes no mark.

        Parameters
        ----------
        seconds : float
            At least 0.

        Examples
        --------
        >>> nib.pause(0.5)
        """
        self._trail.pause(arguments.not_negative(seconds, "pause", "seconds"))
