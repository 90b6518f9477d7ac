"""Words on the sheet.

nib.text("Kite day at Marrow Bay", size=24)
"""

from __future__ import annotations

from ovlo.core.pen.steering import Steering
from ovlo.core.pen.style_checks import checked_text
from ovlo.core.trail.columns import Text


class Words(Steering):
    """The words of a nib."""

    __slots__ = ()

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
        if size is None:
            size = self._text_size
        wording = checked_text(words, size, font, weight, slant, align, baseline)
        if self._is_lifted:
            self._trail.leave_out("text", self._x, self._y)
        elif words:
            self._trail.write_text(self._x, self._y, self._heading, wording, self._style.ink)

    def _write(self, text: Text) -> None:
        """Write a text again, where it was."""
        self._trail.write_text(text.x, text.y, text.heading, text.wording, text.ink)
