"""The pictures of several values of a drawing's parameters, side by side.

variations = kite.vary(sides=[3, 4, 5])
variations.save("contact.png")
"""

from __future__ import annotations

from collections.abc import Iterable
from os import PathLike
from typing import Any, NamedTuple

from ovlo.core.sheet.door import outlets
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values import arguments
from ovlo.core.values.choices import TextOutput
from ovlo.core.values.sealed import Sealed
from ovlo.core.values.units import Length
from ovlo.render.additions.contact import Cell, contact_sheet
from ovlo.render.paper.paper_sheet import PaperSheet
from ovlo.render.paper.poster import PaperHow, checked_paper

MOST_COLUMNS = 100


class Layout(NamedTuple):
    """How variations are laid out; see `Variations.save`."""

    columns: int | None
    title: str | None
    paper: PaperHow


class Variations(Sealed):
    """One picture for each combination of values, made by `vary` and laid out when it is shown or saved.

    Examples
    --------
    >>> @drawing()
    ... def kite(nib, sides=4):
    ...     nib.polygon(sides, radius=90)
    >>> variations = kite.vary(sides=[3, 4, 5])
    >>> variations.values
    [{'sides': 3}, {'sides': 4}, {'sides': 5}]
    >>> variations.contact_sheet(columns=3).title
    'kite, varied'
    """

    def __init__(
        self,
        title: str,
        values: list[dict[str, Any]],
        cells: list[Cell],
        fit_each: bool = False,
        columns: int | None = None,
    ) -> None:
        self._title, self._values, self._cells = title, values, cells
        self._fit_each, self._columns = fit_each, columns

    def __repr__(self) -> str:
        return f"<Variations {self._title}, {len(self)} pictures>"

    def __len__(self) -> int:
        return len(self._cells)

    @property
    def values(self) -> list[dict[str, Any]]:
        """The values of each picture, by the parameter's name."""
        return [dict(values) for values in self._values]

    @property
    def sheets(self) -> list[Sheet | None]:
        """The sheet of each picture; None where the drawing failed before it had one."""
        return [cell.sheet for cell in self._cells]

    @property
    def errors(self) -> list[str]:
        """What went wrong with each picture, in a sentence; "" where nothing did."""
        return [cell.trouble for cell in self._cells]

    def contact_sheet(self, *, columns: int | None = None, title: str | None = None) -> Sheet:
        """Lay the pictures out on one sheet, each with a caption.

        Parameters
        ----------
        columns : int
            The number of pictures in a row, 1 to 100. By default the sheet is about 4:3, and of two ranges
            the longer one goes across.
        title : str
            By default the drawing's name.

        Returns
        -------
        Sheet
            A picture that fails shows its error in its cell.

        Raises
        ------
        BadValue, BadType
            If the number of columns or the title is not valid.
        """
        across = self._across(columns, "contact_sheet") or self._columns
        return contact_sheet(self._cells, self._heading(title), self._fit_each, across)

    def save(
        self,
        path: str | PathLike[str],
        *,
        scale: float = 1,
        text: TextOutput = "editable",
        columns: int | None = None,
        title: str | None = None,
        page_size: str | None = None,
        landscape: bool = False,
        margin: Length | None = None,
    ) -> None:
        """Write the contact sheet to a file; the file ending selects the format.

        Parameters
        ----------
        path : path
            Ends in `.png`, `.svg`, `.pdf`, or `.html` for a page with sliders that choose a picture.
        scale, text
            See `Sheet.save`.
        columns, title
            See `contact_sheet`.
        page_size, landscape, margin
            Pages of paper for a PDF, as many as are needed; see `Sheet.save`.

        Raises
        ------
        BadValue, BadType
            If a value is not valid, no format has this ending, or the page has no room.
        FileError
            If the file cannot be written.

        Examples
        --------
        >>> @drawing()
        ... def kite(nib, sides=4):
        ...     nib.polygon(sides, radius=90)
        >>> kite.vary(sides=[3, 4, 5]).save("kites.pdf", page_size="A4", columns=2)
        """
        paper: PaperHow = {"page_size": page_size, "landscape": landscape, "margin": margin}
        layout = Layout(self._across(columns, "save"), title, paper)
        outlets.save_variations(self, [path], layout, scale, text)

    def show(self, *, wait: bool = True) -> None:
        """Show the contact sheet in the browser; see `Sheet.show`."""
        self.contact_sheet().show(at_once=True, wait=wait)

    def _repr_svg_(self) -> str:
        return self.contact_sheet()._repr_svg_()

    def _repr_png_(self) -> bytes:
        return self.contact_sheet()._repr_png_()

    def _heading(self, title: str | None) -> str:
        return self._title if title is None else arguments.text(title, "save", "title")

    @staticmethod
    def _across(columns: int | None, call: str) -> int | None:
        if columns is None:
            return None
        count = arguments.whole(columns, call, "columns", 1)
        arguments.at_most(count, call, "columns", MOST_COLUMNS)
        return count

    def _laid_out(
        self, layout: Layout, suffixes: Iterable[str], scale: float, text: TextOutput
    ) -> Sheet | list[PaperSheet]:
        """The contact sheet, or the pages of paper that a layout asks for."""
        paper = checked_paper(layout.paper, suffixes, scale, "save")
        if paper is None:
            return self.contact_sheet(columns=layout.columns, title=layout.title)
        from ovlo.render.paper.handout import handout  # most contact sheets are one picture

        heading = self._heading(layout.title)
        return handout(self._cells, heading, paper, layout.columns, self._fit_each, text, "save")
