"""The decorator that makes a function a drawing.

    @drawing(width=640, height=480, paper="aliceblue")
    def kite(nib, side=90):
        for _ in nib.full_turn(4):
            nib.forward(side)

    kite.save("kite.svg")

The function stays what it was: `kite(nib, 40)` draws with any nib and checks nothing.
"""

from __future__ import annotations

import functools
import inspect
import os
import sys
from collections.abc import Callable, Iterable
from os import PathLike
from typing import Any, Concatenate, Generic, ParamSpec, TypeVar, overload

from ovlo.core.sheet import unsaved
from ovlo.core.sheet.door import outlets
from ovlo.core.sheet.host import current_host, hosted
from ovlo.core.sheet.nib import Nib
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values import arguments
from ovlo.core.values.colour import Colour
from ovlo.core.values.dice import fresh_seed
from ovlo.core.values.errors import BadType, BadUse, BadValue, OvloError
from ovlo.core.values.sealed import Sealed
from ovlo.program.parameters import MISSING, check_names, checked, parameters_of
from ovlo.program.shortcuts import checked_shortcut

P = ParamSpec("P")
R = TypeVar("R")


class Drawing(Sealed, Generic[P, R]):
    """A function that draws, with the sheet it draws on. `@drawing` makes one."""

    def __init__(
        self,
        function: Callable[Concatenate[Nib, P], R],
        new_sheet: Callable[..., Sheet],
        shortcut: str = "",
    ) -> None:
        functools.update_wrapper(self, function)
        self._function = function
        self._new_sheet = new_sheet
        self._name = function.__name__
        self._shortcut = shortcut
        self._parameters = parameters_of(function)

    def __repr__(self) -> str:
        return f"<Drawing {self._name}>"

    def __call__(self, nib: Nib, *args: P.args, **kwargs: P.kwargs) -> R:
        """Draw with a nib, as the plain function does."""
        unsaved.is_used(self)
        return self._function(nib, *args, **kwargs)

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
        unsaved.is_used(self)
        try:
            parameters = self._complete(values)
        except OvloError as error:
            # Under plain Python, too, a user looks at their own lines.
            raise error.with_traceback(None) from None
        sheet = self._new_sheet(seed=seed)
        sheet.title, sheet.parameters = self._name, parameters
        sheet._description = _first_words(self._function)
        function: Callable[..., R] = self._function
        function(sheet.new_nib(), **parameters)
        return sheet

    def _repr_mimebundle_(self, include: object = None, exclude: object = None) -> dict[str, str]:
        """What a notebook shows: the picture with all defaults, if every parameter has one."""
        if any(parameter.default is MISSING for parameter in self._parameters.values()):
            return {"text/plain": repr(self)}
        return {"image/svg+xml": self.run()._repr_svg_(), "text/plain": repr(self)}

    def _read(self, settings: dict[str, str]) -> dict[str, Any]:
        """The values that texts, as typed on a command line, stand for."""
        check_names(self._parameters, settings, "--set")
        return {name: self._parameters[name].read(text, "--set") for name, text in settings.items()}

    def _complete(self, values: dict[str, Any]) -> dict[str, Any]:
        """All parameters with their values, defaults included, every one of them checked."""
        return checked(self._parameters, values, self._name)

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
        if "scale" in values and "scale" not in self._parameters:
            to = f"{self._name}.run().save({arguments.brief(str(path))}, scale={values['scale']})"
            raise BadValue(f"{self._name}: it has no parameter 'scale'; a picture has, so write {to}")
        from ovlo.program.running import traced

        # The page shows the lines of the program.
        if isinstance(path, str | PathLike) and os.fspath(path).lower().endswith(".html"):
            sheet = traced(lambda: self.run(seed=seed, **values))
        else:
            sheet = self.run(seed=seed, **values)
        sheet.save(path, fit=fit, overlay=overlay)

    def show(
        self,
        *,
        seed: int | None = None,
        seconds: float | None = None,
        steps_per_second: float | None = None,
        at_once: bool = False,
        wait: bool = True,
        pointer: bool = False,
        **values: object,
    ) -> None:
        """Draw on a new sheet and watch it in the browser, with the line each step comes from.

        See `run` and `Sheet.show`.
        """
        from ovlo.program.running import traced

        sheet = traced(lambda: self.run(seed=seed, **values))
        sheet.show(seconds, steps_per_second, at_once, wait, pointer)

    def live(self, *, seed: int | None = None, **values: object) -> None:
        """Open a page with a control for each parameter; the picture follows them, and the saved file.

        Parameters
        ----------
        seed : int, optional
            Of the sheet's dice.
        **values
            Where the controls stand at first.

        Raises
        ------
        NoBrowser
            When no browser can be opened.
        BadUse
            When the drawing is not in a file that can be run again.
        """
        unsaved.is_used(self)
        self._complete(values)
        if current_host() is None:
            outlets().live(self, values, seed)

    def vary(self, *, fit_each: bool = False, overlay: str | Iterable[str] = (), **ranges: object) -> Sheet:
        """Draw every combination of some values into one captioned contact sheet.

        Parameters
        ----------
        fit_each : bool
            Zoom each picture to its cell; otherwise all have one scale, so that sizes compare.
        overlay : str or iterable of str
            What to lay over each picture; see `Sheet.save`.
        **ranges
            For each parameter (or `seed`) a list of values, or one value.

        Returns
        -------
        Sheet
            The contact sheet. A combination that fails shows its error in its cell.

        Raises
        ------
        BadValue, BadType
            When there is no such parameter, a list is empty, or there are more than 500 combinations.

        Examples
        --------
        >>> @drawing()
        ... def kite(nib, sides: int = 4):
        ...     nib.polygon(sides, radius=90)
        >>> kite.vary(sides=[3, 4, 5]).title
        'kite, varied'
        """
        from ovlo.program import varying
        from ovlo.render.additions.contact import contact_sheet
        from ovlo.render.additions.overlays import checked_overlays

        unsaved.is_used(self)
        lists = {name: varying.listed(value) for name, value in ranges.items()}
        varying.check_ranges(self, lists, f"{self._name}.vary")
        seed, names = fresh_seed(), checked_overlays(overlay, f"{self._name}.vary")
        cells = [varying.draw_cell(self, values, seed, names) for values in varying.combinations(lists)]
        sheet = contact_sheet(cells, f"{self._name}, varied", fit_each, varying.grid_width(lists))
        sheet._cells = tuple(cells)
        return sheet


@overload
def drawing(width: Callable[Concatenate[Nib, P], R]) -> Drawing[P, R]: ...


@overload
def drawing(
    width: float = 640,
    height: float = 480,
    paper: str | Colour = "white",
    unit: str = "px",
    shortcut: str | None = None,
) -> Callable[[Callable[Concatenate[Nib, P], R]], Drawing[P, R]]: ...


def drawing(
    width: Any = 640,
    height: float = 480,
    paper: str | Colour = "white",
    unit: str = "px",
    shortcut: str | None = None,
) -> Any:
    """Make a function that takes a nib first into a drawing.

    `@drawing` alone is the same as `@drawing()`.

    Parameters
    ----------
    width, height : float
        The size of its sheet, in `unit`.
    paper : str or Colour
        The colour of the paper.
    unit : "px" or "mm"
        What lengths are counted in.
    shortcut : str, optional
        A key that draws it in the page of `ovlo live`, where a file has several drawings.

    Returns
    -------
    decorator
        Turns a function into a `Drawing`.

    Raises
    ------
    BadValue, BadType
        When the sheet cannot be made, the function takes no nib, or the page itself uses the key.

    Examples
    --------
    >>> @drawing(paper="aliceblue")
    ... def kite(nib, side=90):
    ...     nib.forward(side)
    >>> kite
    <Drawing kite>
    """
    if callable(width):
        return drawing()(width)
    new_sheet = functools.partial(Sheet, width, height, paper, unit)
    _check_sheet(new_sheet)
    key = checked_shortcut(shortcut)

    def decorate(function: Callable[Concatenate[Nib, P], R]) -> Drawing[P, R]:
        arguments.takes_nib(function, "drawing")
        if not isinstance(getattr(function, "__name__", None), str):
            given = arguments.brief(function)
            raise BadType(f"drawing: give a function with a name, by def, not {given}.")
        made = Drawing(function, new_sheet, key)
        if current_host() is None:
            name = made._name
            frame = sys._getframe(1)
            # `@drawing` alone comes through one more call of ours.
            frame = frame if frame.f_globals is not globals() or frame.f_back is None else frame.f_back
            unsaved.wait_for_saving(made, f"the drawing {name}", f'{name}.save("{name}.svg")', frame)
        return made

    return decorate


def _first_words(function: Callable[..., object]) -> str:
    """What a function's docstring says first, as far as it can stand in any file."""
    words = " ".join((inspect.getdoc(function) or "").partition("\n\n")[0].split())
    return "".join(character for character in words if character.isprintable())


def source_file(function: Callable[..., object]) -> str:
    """The file a function stands in."""
    path = inspect.getsourcefile(function) if inspect.isroutine(function) else None
    if path is None or not os.path.isfile(path):
        raise BadUse("live: the drawing is not in a file; save it as kite.py and run `ovlo live kite.py`.")
    return path


def _check_sheet(new_sheet: Callable[..., Sheet]) -> None:
    """Say at once that a sheet cannot be made, without showing it to a host."""
    with hosted():
        try:
            new_sheet()
        except OvloError as error:
            raise type(error)(f"drawing: {error}") from None
