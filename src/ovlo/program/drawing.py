"""The decorator that makes a procedure a drawing.

    @drawing(width=640, height=480, paper="aliceblue")
    def kite(nib, side=90):
        for _ in nib.full_turn(4):
            nib.forward(side)

    kite.save("kite.svg")

The procedure stays what it was: `kite(nib, 40)` draws with any nib and checks nothing.
"""

from __future__ import annotations

import functools
from collections.abc import Callable, Iterable
from os import PathLike
from typing import Any, Concatenate, Generic, ParamSpec, TypeVar

from ovlo.core import arguments
from ovlo.core.colour import Colour
from ovlo.core.dice import fresh_seed
from ovlo.core.errors import BadType, OvloError
from ovlo.core.nib import Nib
from ovlo.core.sheet import Sheet
from ovlo.program.parameters import check_names, checked, parameters_of

P = ParamSpec("P")
R = TypeVar("R")


class Drawing(Generic[P, R]):
    """A procedure that draws, with the sheet it draws on. `@drawing` makes one."""

    def __init__(self, procedure: Callable[Concatenate[Nib, P], R], new_sheet: Callable[..., Sheet]) -> None:
        functools.update_wrapper(self, procedure)
        self._procedure = procedure
        self._new_sheet = new_sheet
        self.name = procedure.__name__
        self.parameters = parameters_of(procedure)

    def __repr__(self) -> str:
        return f"<Drawing {self.name}>"

    def __call__(self, nib: Nib, *args: P.args, **kwargs: P.kwargs) -> R:
        """Draw with a nib, as the plain procedure does."""
        return self._procedure(nib, *args, **kwargs)

    def run(self, *, seed: int | None = None, **values: object) -> Sheet:
        """Draw on a new sheet.

        Parameters
        ----------
        seed : int, optional
            Of the sheet's dice.
        **values
            The drawing's own parameters; those left out have their defaults.

        Returns
        -------
        Sheet
            With the picture on it.

        Raises
        ------
        BadValue, BadType
            When there is no such parameter, or a value is of another type or out of range; nothing is
            drawn then.

        Examples
        --------
        >>> @drawing(width=320, height=240)
        ... def kite(nib, side: float = 90):
        ...     for _ in nib.full_turn(4):
        ...         nib.forward(side)
        >>> kite.run(side=40)
        <Sheet 320 × 240 px, 5 steps>
        """
        parameters = self.complete(values)
        sheet = self._new_sheet(seed=seed)
        sheet.title, sheet.parameters = self.name, parameters
        procedure: Callable[..., R] = self._procedure
        procedure(sheet.new_nib(), **parameters)
        return sheet

    def read(self, settings: dict[str, str]) -> dict[str, Any]:
        """The values that texts, as typed on a command line, stand for."""
        check_names(self.parameters, settings, self.name)
        return {name: self.parameters[name].read(text, self.name) for name, text in settings.items()}

    def complete(self, values: dict[str, Any]) -> dict[str, Any]:
        """All parameters with their values, defaults included, every one of them checked."""
        return checked(self.parameters, values, self.name)

    def save(
        self,
        path: str | PathLike[str],
        /,
        *,
        seed: int | None = None,
        fit: bool = False,
        overlay: str | Iterable[str] = (),
        **values: object,
    ) -> None:
        """Draw on a new sheet and write it to a file; see `run` and `Sheet.save`."""
        self.run(seed=seed, **values).save(path, fit=fit, overlay=overlay)

    def show(self, *, seed: int | None = None, **values: object) -> None:
        """Draw on a new sheet and show it in a window; see `run` and `Sheet.show`."""
        self.run(seed=seed, **values).show()

    def vary(self, *, fit_each: bool = False, **ranges: object) -> Sheet:
        """Draw every combination of some values into one captioned contact sheet.

        Parameters
        ----------
        fit_each : bool
            Zoom each picture to its cell; otherwise all have one scale, so that sizes compare.
        **ranges
            For each parameter (or `seed`) a list of values, or one value.

        Returns
        -------
        Sheet
            The contact sheet. A combination that fails shows its error in its cell.

        Raises
        ------
        BadValue, BadType
            When there is no such parameter, a list is empty, or there are more than 400 combinations.

        Examples
        --------
        >>> @drawing()
        ... def kite(nib, sides: int = 4):
        ...     nib.polygon(sides, radius=90)
        >>> kite.vary(sides=[3, 4, 5]).title
        'kite, varied'
        """
        from ovlo.program import varying
        from ovlo.render.contact import contact_sheet

        lists = {name: varying.listed(value) for name, value in ranges.items()}
        varying.check_ranges(self, lists)
        seed = fresh_seed()
        cells = [varying.draw_cell(self, values, seed) for values in varying.combinations(lists)]
        return contact_sheet(cells, f"{self.name}, varied", fit_each, varying.grid_width(lists))


def drawing(
    width: float = 640,
    height: float = 480,
    paper: str | Colour = "white",
    unit: str = "px",
) -> Callable[[Callable[Concatenate[Nib, P], R]], Drawing[P, R]]:
    """Make a procedure that takes a nib first into a drawing.

    Parameters
    ----------
    width, height : float
        The size of its sheet, in `unit`.
    paper : str or Colour
        The colour of the paper.
    unit : "px" or "mm"
        What lengths are counted in.

    Returns
    -------
    decorator
        Turns a procedure into a `Drawing`.

    Raises
    ------
    BadValue, BadType
        When the sheet cannot be made, or the procedure takes no nib.

    Examples
    --------
    >>> @drawing(paper="aliceblue")
    ... def kite(nib, side=90):
    ...     nib.forward(side)
    >>> kite
    <Drawing kite>
    """
    if callable(width):
        raise BadType("drawing: write @drawing() with brackets, also when nothing stands in them.")
    new_sheet = functools.partial(Sheet, width, height, paper, unit)
    _check_sheet(new_sheet)

    def decorate(procedure: Callable[Concatenate[Nib, P], R]) -> Drawing[P, R]:
        arguments.takes_nib(procedure, "drawing")
        return Drawing(procedure, new_sheet)

    return decorate


def _check_sheet(new_sheet: Callable[..., Sheet]) -> None:
    """Say at once that a sheet cannot be made, without showing it to a host."""
    from ovlo.core.hosting import hosted

    with hosted():
        try:
            new_sheet()
        except OvloError as error:
            raise type(error)(f"drawing: {error}") from None
