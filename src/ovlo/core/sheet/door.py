"""The one door up from the core: to what makes files, pages and displays of sheets and motifs.

    outlets().save(sheet, "kite.svg")

What is behind it is loaded when it is first asked for.
"""

from __future__ import annotations

from collections.abc import Iterable
from os import PathLike
from typing import TYPE_CHECKING, Protocol, cast

if TYPE_CHECKING:
    from ovlo.core.paint.measures import TextBox
    from ovlo.core.sheet.motif import Motif
    from ovlo.core.sheet.sheet import Sheet
    from ovlo.core.values.finding import Finding


class Outlets(Protocol):
    """What the core asks of those above it."""

    text_box: TextBox

    def save(
        self,
        sheet: Sheet,
        path: str | PathLike[str],
        *,
        scale: float,
        fit: bool,
        overlay: str | Iterable[str],
        text: str,
        dpi: float | None,
    ) -> None:
        """Write a sheet's picture."""

    def save_for_plotter(self, sheet: Sheet, path: str | PathLike[str], how: dict[str, object]) -> None:
        """Write what a plotter draws of a sheet."""

    def framed(self, sheet: Sheet) -> str:
        """A sheet's picture as SVG in a thin frame."""

    def as_bytes(self, sheet: Sheet, suffix: str) -> bytes:
        """A sheet's picture in the format of a file ending."""

    def show(self, sheet: Sheet, seconds: float, at_once: bool, wait: bool, pointer: bool) -> None:
        """Replay a sheet."""

    def check(self, sheet: Sheet) -> list[Finding]:
        """What the rules of a check come upon."""

    def live(self, drawing: object, values: dict[str, object], seed: int | None) -> None:
        """Explore a drawing."""

    def save_motif(self, motif: Motif, path: str | PathLike[str], scale: float) -> None:
        """Write a motif's picture."""

    def motif_as_bytes(self, motif: Motif, suffix: str) -> bytes:
        """A motif's picture in the format of a file ending."""

    def motif_from_svg(self, path: str | PathLike[str]) -> Motif:
        """The picture in an SVG file."""


def outlets() -> Outlets:
    """What is behind the door."""
    from ovlo import outlets as behind

    return cast(Outlets, behind)
