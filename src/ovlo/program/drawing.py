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
import inspect
from collections.abc import Callable
from os import PathLike
from typing import Concatenate, Generic, ParamSpec, TypeVar

from ovlo.core.colour import Colour
from ovlo.core.errors import BadType, OvloError
from ovlo.core.nib import Nib
from ovlo.core.sheet import Sheet

P = ParamSpec("P")
R = TypeVar("R")


class Drawing(Generic[P, R]):
    """A procedure that draws, with the sheet it draws on. `@drawing` makes one."""

    def __init__(self, procedure: Callable[Concatenate[Nib, P], R], new_sheet: Callable[[], Sheet]) -> None:
        functools.update_wrapper(self, procedure)
        self._procedure = procedure
        self._new_sheet = new_sheet
        self.name = procedure.__name__

    def __repr__(self) -> str:
        return f"<Drawing {self.name}>"

    def __call__(self, nib: Nib, *args: P.args, **kwargs: P.kwargs) -> R:
        """Draw with a nib, as the plain procedure does."""
        return self._procedure(nib, *args, **kwargs)

    def run(self, **parameters: object) -> Sheet:
        """Draw on a new sheet.

        Parameters
        ----------
        **parameters
            The drawing's own.

        Returns
        -------
        Sheet
            With the picture on it.

        Examples
        --------
        >>> @drawing(width=320, height=240)
        ... def kite(nib, side=90):
        ...     for _ in nib.full_turn(4):
        ...         nib.forward(side)
        >>> kite.run(side=40)
        <Sheet 320 × 240 px, 5 steps>
        """
        sheet = self._new_sheet()
        sheet.title = self.name
        self._procedure(sheet.new_nib(), **parameters)  # type: ignore[arg-type, call-arg]
        return sheet

    def save(self, path: str | PathLike[str], /, **parameters: object) -> None:
        """Draw on a new sheet and write it to a file; see `Sheet.save`."""
        self.run(**parameters).save(path)

    def show(self, **parameters: object) -> None:
        """Draw on a new sheet and show it in a window; see `Sheet.show`."""
        self.run(**parameters).show()


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
        _check_takes_nib(procedure)
        return Drawing(procedure, new_sheet)

    return decorate


def _check_sheet(new_sheet: Callable[[], Sheet]) -> None:
    """Say at once that a sheet cannot be made, without showing it to a host."""
    from ovlo.core.hosting import hosted

    with hosted():
        try:
            new_sheet()
        except OvloError as error:
            raise type(error)(f"drawing: {error}") from None


def _check_takes_nib(procedure: Callable[..., object]) -> None:
    first = next(iter(inspect.signature(procedure).parameters.values()), None)
    if first is None or first.kind not in (first.POSITIONAL_ONLY, first.POSITIONAL_OR_KEYWORD):
        name = getattr(procedure, "__name__", repr(procedure))
        raise BadType(f"drawing: {name} must take the nib first: def {name}(nib, …).")
