"""Where a picture stands on a page of paper, in millimetres from the page's lower left corner.

placing = placed((640, 480), "px", page_size("A4", "plot"), margin=10, fit_to=box)
placing.on_page(columns.points)
"""

from __future__ import annotations

from typing import NamedTuple

from ovlo.core.values.arrays import Box, Floats
from ovlo.core.values.errors import BadValue
from ovlo.core.values.units import MM_PER_UNIT


class Placing(NamedTuple):
    """A page, and how a picture stands on it.

    Attributes
    ----------
    width, height : float
        Of the page, in millimetres.
    scale : float
        Millimetres of paper for a sheet unit.
    move : (float, float)
        Where the sheet's centre is on the page.
    room : (left, bottom, right, top)
        Where the pen may go: the sheet, inside the margins.
    """

    width: float
    height: float
    scale: float
    move: tuple[float, float]
    room: Box

    def on_page(self, points: Floats) -> Floats:
        """Points of the sheet, shape (n, 2), on the page."""
        placed: Floats = points * self.scale + self.move
        return placed


def check_margin(size: tuple[float, float], margin: float, call: str) -> None:
    """Refuse margins that leave no room on a page; both in millimetres."""
    if 2 * margin >= min(size):
        raise BadValue(
            f"{call}: margins of {margin:g} mm leave no room on a page of {size[0]:g} × {size[1]:g} mm; "
            f"take less than {min(size) / 2:g} mm."
        )


def placed(
    size: tuple[float, float],
    unit: str,
    page: tuple[float, float] | None,
    margin: float,
    fit_to: Box | None,
    call: str,
) -> Placing:
    """A sheet on a page.

    Parameters
    ----------
    size : (float, float)
        Of the sheet, in its unit.
    unit : "px" or "mm"
    page : (float, float) or None
        Width and height in millimetres; None for one as large as the sheet.
    margin : float
        Millimetres on each side that stay empty.
    fit_to : box or None
        What is to fill the page inside the margins, in sheet units; otherwise the sheet is in the middle of
        the page, in its own size.

    Raises
    ------
    BadValue
        If the margins leave no room.
    """
    scale = MM_PER_UNIT[unit]
    width, height = page or (size[0] * scale, size[1] * scale)
    check_margin((width, height), margin, call)
    across, up = width - 2 * margin, height - 2 * margin
    inside = margin, margin, width - margin, height - margin
    if fit_to is not None:
        left, bottom, right, top = fit_to
        scale = min(across / max(right - left, 1e-9), up / max(top - bottom, 1e-9))
        move = (width - scale * (left + right)) / 2, (height - scale * (bottom + top)) / 2
        return Placing(width, height, scale, move, inside)
    half = size[0] * scale / 2, size[1] * scale / 2
    room = (
        max(inside[0], width / 2 - half[0]),
        max(inside[1], height / 2 - half[1]),
        min(inside[2], width / 2 + half[0]),
        min(inside[3], height / 2 + half[1]),
    )
    return Placing(width, height, scale, (width / 2, height / 2), room)
