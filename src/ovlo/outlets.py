"""From a sheet or motif to a file, a window or a notebook cell: the one door up to the renderers.

save(sheet, "kite.svg", scale=1)
"""

from __future__ import annotations

from collections.abc import Iterable
from os import PathLike
from pathlib import Path
from typing import TYPE_CHECKING, TypedDict, Unpack

import numpy as np
from numpy.typing import NDArray

from ovlo.core.columns import Text
from ovlo.core.errors import FileTrouble
from ovlo.core.sheet import Sheet
from ovlo.render import lettering
from ovlo.render.files import check_folder, write
from ovlo.render.formats import renderer_of
from ovlo.render.page import Page, mark_boxes

if TYPE_CHECKING:
    from ovlo.core.findings import Finding
    from ovlo.core.motif import Motif


class How(TypedDict, total=False):
    """How a picture is to look; see `Sheet.save`. `only` names a procedure whose marks are not pale."""

    scale: float
    fit: bool
    overlay: str | Iterable[str]
    only: str


def save(sheet: Sheet, path: str | PathLike[str], **how: Unpack[How]) -> None:
    """Write a sheet's picture in the format its file ending names."""
    target = Path(path)
    check_target(target)
    write(target, as_bytes(sheet, target.suffix, **how))


def check_target(path: Path) -> None:
    """Refuse, before anything is drawn, a file that could not be written."""
    renderer_of(path.suffix)
    check_folder(path)


def as_bytes(sheet: Sheet, suffix: str, **how: Unpack[How]) -> bytes:
    """A sheet's picture in the format of a file ending."""
    render = renderer_of(suffix)
    page = Page.of(sheet, how.get("scale", 1), how.get("fit", False))
    columns = sheet.trail.columns()
    if procedure := how.get("only"):
        from ovlo.core.paling import only

        columns = only(sheet, procedure)
    if overlay := how.get("overlay"):
        from ovlo.render.overlays import checked_overlays, with_overlays

        columns = with_overlays(columns, sheet, page, checked_overlays(overlay, "save"))
    return render(columns, page)


def save_motif(motif: Motif, path: str | PathLike[str], scale: float) -> None:
    """Write a motif on a page around it."""
    target = Path(path)
    check_target(target)
    write(target, motif_as_bytes(motif, target.suffix, scale))


def motif_as_bytes(motif: Motif, suffix: str, scale: float = 1) -> bytes:
    """A motif's picture in the format of a file ending."""
    return renderer_of(suffix)(motif.columns, Page.around(motif.columns, motif.box, scale))


def motif_from_svg(path: str | PathLike[str]) -> Motif:
    """The picture in an SVG file."""
    from ovlo.core.motif import Motif
    from ovlo.render.svg_reader import draw_into, read

    shapes = read(Path(path))
    motif = Motif.record(lambda nib: draw_into(nib, shapes))
    if not np.isfinite(motif.columns.points).all():
        raise FileTrouble(f"from_svg: {path} holds numbers that are not finite; it is not read.")
    return motif


def text_box(text: Text) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """The corners of a text's box."""
    return lettering.box(text)


def check(sheet: Sheet) -> list[Finding]:
    """What the rules of a check come upon."""
    from ovlo.core.checking import Eyes, findings

    eyes = Eyes(mark_boxes(sheet), Page.of(sheet, fit=True).scale, lettering.glyphs)
    return findings(sheet, eyes)


def live(target: str, values: dict[str, str], seed: int | None) -> None:
    """Open the live window on a drawing in a file."""
    from ovlo.live.session import Session
    from ovlo.live.worker import Request

    Session(Request(target, values, seed)).run()


def show(sheet: Sheet, seconds: float, at_once: bool, block: bool, nib: bool) -> None:
    """Replay a sheet in a window, or display it in a notebook."""
    from ovlo.live import notebook

    if notebook.is_running():
        notebook.display(sheet, block)
        return
    from ovlo.live.window import show_sheet

    show_sheet(sheet, seconds, at_once, block, nib)
