"""A drawing as a page of its own, in a file.

Path("kite.html").write_bytes(b"".join(page_of_sheet(sheet)))
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.errors import BadValue
from ovlo.core.values.finding import Finding
from ovlo.page.document import page_of
from ovlo.page.message import message, packed, parts
from ovlo.render.additions.contact import Cell
from ovlo.render.page import Page

LARGEST = 20_000_000
"""Bytes of a page that holds many pictures."""


def page_of_sheet(
    sheet: Sheet,
    findings: Sequence[Finding] | None = None,
    fit: bool = False,
    overlay: tuple[str, ...] = (),
    only: str = "",
    **playing: Any,
) -> list[bytes]:
    """The page of a sheet in pieces, and how it begins.

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
    return page_of(message(sheet, findings, start), still=_still(sheet, fit), title=sheet.title)


STILL = 800
"""Pixels, across or down, of the picture that stands until the script has run."""


def _still(sheet: Sheet, fit: bool) -> bytes:
    """A sheet's picture as PNG, no larger than a window."""
    from ovlo.render.formats.png import render  # pages that the server sends have none

    page = Page.of(sheet, fit=fit)
    scale = min(1.0, STILL / max(page.pixel_width, page.pixel_height))
    return b"".join(render(sheet._columns, Page.of(sheet, scale, fit)))


def page_of_cells(cells: Sequence[Cell]) -> bytes:
    """The page that holds the pictures of a contact sheet, with sliders that choose among them.

    Raises
    ------
    BadValue
        If they are too large for a page.
    """
    messages: list[bytes] = []
    combinations: list[dict[str, Any]] = []
    source = None
    for cell in cells:
        number = None
        if cell.sheet is not None:
            head, arrays = parts(cell.sheet, None)
            # Said once, not with every picture.
            source = source or head["source"]
            number, head["source"] = len(messages), None
            messages.append(packed(head, arrays))
        combinations.append({"values": cell.values, "trouble": cell.trouble, "message": number})
    parameters = [
        {"name": name, "kind": "list", "allowed": "", "default": value, "choices": _values_of(name, cells)}
        for name, value in cells[0].values.items()
    ]
    choices = {"parameters": parameters, "combinations": combinations, "source": source}
    page = b"".join(page_of(*messages, choices=choices))
    if len(page) > LARGEST:
        raise BadValue(
            f"save: the page would be {len(page) / 1e6:.0f} MB; the limit is "
            f"{LARGEST // 1_000_000} MB. Give fewer values."
        )
    return page


def _values_of(name: str, cells: Sequence[Cell]) -> list[str]:
    """The values of a parameter, in the order in which they come."""
    return list(dict.fromkeys(cell.values[name] for cell in cells))
