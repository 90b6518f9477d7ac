"""A drawing as a page of its own, in a file.

Path("kite.html").write_bytes(page_of_sheet(sheet))
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ovlo.browser.message import message
from ovlo.browser.page import page_of
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.finding import Finding


def page_of_sheet(
    sheet: Sheet,
    findings: Sequence[Finding] | None = None,
    fit: bool = False,
    overlay: tuple[str, ...] = (),
    only: str = "",
    **playing: Any,
) -> bytes:
    """The page of a sheet, and how it begins.

    Parameters
    ----------
    findings : sequence of Finding or None
        What a check came upon; None when nobody looked.
    fit : bool
        Whether all that is drawn is seen at first, instead of the sheet.
    overlay : tuple of str
        What is laid over the picture at first.
    only : str
        The function whose marks are shown alone at first.
    **playing
        `seconds` and `loops`, if it is to play at once.
    """
    start = {"fit": fit, "overlays": overlay, "only": only, "play": playing or None}
    return page_of(message(sheet, findings, start))
