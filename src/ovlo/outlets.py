"""From a sheet to a file, a window or a notebook cell: the one door from the core up to the renderers.

save(sheet, "kite.svg", scale=1)
"""

from __future__ import annotations

from os import PathLike
from pathlib import Path

from ovlo.core.sheet import Sheet
from ovlo.render.files import check_folder, write
from ovlo.render.formats import renderer_of
from ovlo.render.page import Page


def save(sheet: Sheet, path: str | PathLike[str], scale: float, fit: bool) -> None:
    """Write a sheet's picture in the format its file ending names."""
    target = Path(path)
    check_target(target)
    write(target, as_bytes(sheet, target.suffix, scale, fit))


def check_target(path: Path) -> None:
    """Refuse, before anything is drawn, a file that could not be written."""
    renderer_of(path.suffix)
    check_folder(path)


def as_bytes(sheet: Sheet, suffix: str, scale: float = 1, fit: bool = False) -> bytes:
    """A sheet's picture in the format of a file ending."""
    render = renderer_of(suffix)
    return render(sheet.trail.columns(), Page.of(sheet, scale, fit))


def show(sheet: Sheet) -> None:
    """Show a sheet in a window until it is closed."""
    from ovlo.live.window import show_picture

    show_picture(as_bytes(sheet, ".png"), sheet.title)
