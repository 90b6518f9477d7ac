"""The page in a notebook's cell: a frame that holds all it needs.

CellOutput(sheet, findings, start={"play": {"seconds": 4, "loops": 1}})

The frame may run its own script and nothing else, and needs no server. Viewers that run no script show the
picture beside it, as SVG.
"""

from __future__ import annotations

import html
from collections.abc import Sequence
from typing import Any

from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.finding import Finding
from ovlo.page.document import packed_page
from ovlo.page.message import message

HEIGHT = 640
"""The height of the frame in CSS pixels."""


class CellOutput:
    """What a cell shows of a sheet."""

    def __init__(self, sheet: Sheet, findings: Sequence[Finding] | None, start: dict[str, Any]) -> None:
        page = packed_page(message(sheet, findings, start))
        self._bundle = {
            "text/html": f'<iframe sandbox="allow-scripts" srcdoc="{html.escape(page)}" '
            f'title="{html.escape(sheet.title or "A drawing")}" '
            f'style="width: 100%; height: {HEIGHT}px; border: 0"></iframe>',
            "image/svg+xml": sheet._repr_svg_(),
            "text/plain": repr(sheet),
        }

    def _repr_mimebundle_(self, include: object = None, exclude: object = None) -> dict[str, str]:
        return self._bundle
