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
import pkgutil
import sys
from collections.abc import Callable, Iterable
from contextlib import suppress
from os import PathLike
from types import ModuleType
from typing import TYPE_CHECKING, Any, Concatenate, Generic, ParamSpec, TypeVar, overload

from ovlo.core.sheet import unsaved
from ovlo.core.sheet.answers import answer_errors
from ovlo.core.sheet.door import outlets, studio
from ovlo.core.sheet.host import current_host, hosted
from ovlo.core.sheet.nib import Nib
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values import arguments
from ovlo.core.values.choices import Unit
from ovlo.core.values.colour import Colour
from ovlo.core.values.errors import BadType, BadUse, BadValue, OvloError, UnknownName
from ovlo.core.values.sealed import Sealed
from ovlo.program.lines import recorded_lines
from ovlo.program.parameters import MISSING, check_names, checked, parameters_of, typed, where
from ovlo.program.shortcuts import checked_shortcut

if TYPE_CHECKING:
    from ovlo.core.values.finding import Finding
    from ovlo.program.variations import Variations

P = ParamSpec("P")
R = TypeVar("R")


class Drawing(Sealed, Generic[P, R]):
    """A function that draws, with the sheet it draws on. `@drawing` makes one.

    Values are given by name, as in `kite.run(sides=5)`, or in the order of the parameters.
    """

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
        self._module: ModuleType | None = None
        """The module of its file, if `ovlo` executed it."""

    def __repr__(self) -> str:
        return f"<Drawing {self._name}>"

    if TYPE_CHECKING:

        def __call__(self, nib: Nib, *args: P.args, **kwargs: P.kwargs) -> R:
            """Draw with a nib, as the plain function does."""

    else:

        def __call__(self, *args, **kwargs):
            """Draw with a nib, as the plain function does."""
            if not args and "nib" not in kwargs:
                given = ", ".join(f"{name}={arguments.brief(value)}" for name, value in kwargs.items())
                words = f"{self._name}: a call needs a nib, as in {self._name}(nib"
                raise BadType(f"{words}); {self._name}.run({given}) draws on a sheet of its own.")
            unsaved.is_used(self)
            return self._function(*args, **kwargs)

        def __getattr__(self, name: str) -> object:
            if name in DRAWING_WORDS:
                first = next(iter(self._parameters.values()), None)
                given = "" if first is None else f"{first.name}={first.shown_default or '…'}"
                words = f"{self._name} has no {name!r}; {self._name}.run({given}) draws it and gives a sheet"
                raise UnknownName(f"{words}, which has save, show and check.", name=name, obj=self)
            return super().__getattr__(name)

    @overload
    def run(self, *args: P.args, **values: P.kwargs) -> Sheet: ...

    @overload
    def run(self, *args: object, seed: int | None, traced: bool = False, **values: object) -> Sheet: ...

    @overload
    def run(self, *args: object, traced: bool, **values: object) -> Sheet: ...

    def run(  # type: ignore[misc]  # no type says that P has no parameter called seed
        self, *args: object, seed: int | None = None, traced: bool = False, **values: object
    ) -> Sheet:
        """Draw on a new sheet.

        Parameters
        ----------
        seed : int, optional
            The seed of the sheet's dice.
        traced : bool
            Record the lines of the program that draw each step, for `steps`, `calls`, `check` and pages.
        *args, **values
            The drawing's own parameters; those left out have their defaults.

        Returns
        -------
        Sheet
            The sheet with the picture.

        Raises
        ------
        BadValue, BadType
            If there is no such parameter, or a value is of the wrong type or out of range; nothing is drawn
            then.

        Examples
        --------
        >>> @drawing(width=320, height=240)
        ... def kite(nib, side=90):
        ...     for _ in nib.full_turn(4):
        ...         nib.forward(side)
        >>> kite.run(side=40)
        <Sheet 320 × 240 px, 5 steps>
        """
        traced = arguments.truth(traced, f"{self._name}.run", "traced")
        return self._run(args, values, seed, traced)

    def _run(
        self, args: tuple[object, ...], values: dict[str, Any], seed: int | None, traced: bool = False
    ) -> Sheet:
        unsaved.is_used(self)
        try:
            parameters = self._complete(self._by_name(args, values))
        except OvloError as error:
            # Under plain Python, too, users see their own lines only.
            raise error.with_traceback(None) from None
        if traced and current_host() is None:
            return recorded_lines(lambda: self._drawn(parameters, seed))
        return self._drawn(parameters, seed)

    def _drawn(self, parameters: dict[str, Any], seed: int | None) -> Sheet:
        """Draw with values that are checked."""
        sheet = self._new_sheet(seed=seed)
        sheet.title = self._name
        sheet.parameters = {name: parameters[name] for name in typed(self._parameters)}
        sheet._description = _first_words(self._function)
        function: Callable[..., R] = self._function
        try:
            function(sheet.new_nib(), **parameters)
        except Exception as error:
            with suppress(AttributeError, TypeError):  # an error of the program's own may take no attributes
                error.sheet = sheet  # type: ignore[attr-defined]
            if current_host() is None and "IPython" in sys.modules:
                studio.show_unfinished(sheet)
            raise
        return sheet

    def _by_name(self, args: tuple[object, ...], values: dict[str, Any]) -> dict[str, Any]:
        """Values given in the order of the parameters and by name, all by name."""
        names = list(self._parameters)
        if len(args) > len(names):
            takes = f"takes {', '.join(names)}" if names else "has no parameters"
            given = f"{len(args)} value" if len(args) == 1 else f"{len(args)} values"
            raise BadType(f"{self._name}: it {takes}, but {given} were given.")
        by_place = dict(zip(names, args, strict=False))
        if twice := by_place.keys() & values.keys():
            raise BadType(f"{self._name}: {min(twice)} is given twice, by its place and by its name.")
        return by_place | values

    def __reduce__(self) -> tuple[object, ...]:
        """A drawing is found again by its module and its name, as a function is."""
        return pkgutil.resolve_name, (f"{self.__module__}:{self._function.__qualname__}",)

    def _repr_mimebundle_(self, include: object = None, exclude: object = None) -> dict[str, str]:
        """What a notebook shows: the picture with all defaults, if every parameter has one."""
        if any(parameter.default is MISSING for parameter in self._parameters.values()):
            return {"text/plain": repr(self)}
        return {"image/svg+xml": self.run(seed=None)._repr_svg_(), "text/plain": repr(self)}

    def _read(self, settings: dict[str, str]) -> dict[str, Any]:
        """The values that texts, as typed on a command line, stand for."""
        check_names(self._parameters, settings, "--set")
        return {name: self._parameters[name].read(text, "--set") for name, text in settings.items()}

    def _complete(self, values: dict[str, Any]) -> dict[str, Any]:
        """All parameters with their values, defaults included, every one of them checked."""
        return checked(self._parameters, values, self._name)

    @overload
    def save(self, path: str | PathLike[str], /, *args: P.args, **values: P.kwargs) -> None: ...

    @overload
    def save(
        self,
        path: str | PathLike[str],
        /,
        *args: object,
        seed: int | None,
        fit: bool = False,
        overlay: str | Iterable[str] = (),
        **values: object,
    ) -> None: ...

    @overload
    def save(
        self,
        path: str | PathLike[str],
        /,
        *args: object,
        fit: bool,
        overlay: str | Iterable[str] = (),
        **values: object,
    ) -> None: ...

    @overload
    def save(
        self, path: str | PathLike[str], /, *args: object, overlay: str | Iterable[str], **values: object
    ) -> None: ...

    def save(  # type: ignore[misc]
        self,
        path: str | PathLike[str],
        /,
        *args: object,
        seed: int | None = None,
        fit: bool = False,
        overlay: str | Iterable[str] = (),
        **values: object,
    ) -> None:
        """Draw on a new sheet and write it to a file; see `run` and `Sheet.save`."""
        if "scale" in values and "scale" not in self._parameters:
            to = f"{self._name}.run().save({arguments.brief(str(path))}, scale={values['scale']})"
            raise BadValue(f"{self._name}: there is no parameter 'scale'; to scale the picture, write {to}")
        # The page shows the lines of the program.
        if isinstance(path, str | PathLike) and os.fspath(path).lower().endswith(".html"):
            sheet = self._run(args, values, seed, traced=True)
        else:
            sheet = self._run(args, values, seed)
        sheet.save(path, fit=fit, overlay=overlay)

    def show(
        self,
        *args: object,
        seed: int | None = None,
        seconds: float | None = None,
        steps_per_second: float | None = None,
        at_once: bool = False,
        wait: bool = True,
        pointer: bool = False,
        **values: object,
    ) -> None:
        """Draw on a new sheet and replay it in the browser, with the program beside it.

        See `run` and `Sheet.show`.
        """
        sheet = self._run(args, values, seed, traced=True)
        sheet.show(
            seconds=seconds, steps_per_second=steps_per_second, at_once=at_once, wait=wait, pointer=pointer
        )

    @overload
    def check(self, *args: P.args, **values: P.kwargs) -> list[Finding]: ...

    @overload
    def check(self, *args: object, seed: int | None, **values: object) -> list[Finding]: ...

    def check(  # type: ignore[misc]
        self, *args: object, seed: int | None = None, **values: object
    ) -> list[Finding]:
        """Draw on a new sheet and find what may be wrong, with the lines of the program.

        Parameters
        ----------
        seed : int, optional
            The seed of the sheet's dice.
        *args, **values
            The drawing's own parameters.

        Returns
        -------
        list of Finding
            What `ovlo check` finds; see `Sheet.check`.

        Examples
        --------
        >>> @drawing()
        ... def kite(nib, side=90):
        ...     nib.polygon(4, side_length=side)
        >>> kite.check(side=40)
        []
        """
        return self._run(args, values, seed, traced=True).check()

    @overload
    def live(self, *args: P.args, **values: P.kwargs) -> None: ...

    @overload
    def live(self, *args: object, seed: int | None, **values: object) -> None: ...

    def live(  # type: ignore[misc]
        self, *args: object, seed: int | None = None, **values: object
    ) -> None:
        """Open the studio on this drawing: its picture, its program and a control for each parameter.

        Parameters
        ----------
        seed : int, optional
            The seed of the sheet's dice.
        *args, **values
            The initial values of the controls.

        Raises
        ------
        NoBrowser
            If no browser can be opened.
        BadUse
            If the drawing is not in a file that can be run again.
        """
        unsaved.is_used(self)
        given = self._by_name(args, values)
        self._complete(given)
        if current_host() is None:
            studio.live(self, given, seed)

    def vary(
        self, *, fit_each: bool = False, overlay: str | Iterable[str] = (), **ranges: object
    ) -> Variations:
        """Draw every combination of the given values, to be compared on a captioned contact sheet.

        Parameters
        ----------
        fit_each : bool
            Zoom each picture to its cell; otherwise all have the same scale, so that sizes can be compared.
        overlay : str or iterable of str
            What to lay over each picture; see `Sheet.save`.
        **ranges
            For each parameter (or `seed`) a list of values, or one value.

        Returns
        -------
        Variations
            To be saved, shown, or displayed by a notebook. A combination that fails shows its error.

        Raises
        ------
        BadValue, BadType
            If there is no such parameter, a list is empty, or there are more than 500 combinations.

        Examples
        --------
        >>> @drawing()
        ... def kite(nib, sides=4):
        ...     nib.polygon(sides, radius=90)
        >>> kite.vary(sides=[3, 4, 5])
        <Variations kite, varied, 3 pictures>
        """
        unsaved.is_used(self)
        return outlets.vary(self, ranges, fit_each, overlay)


DRAWING_WORDS = ("draw", "make", "plot", "render", "start", "sheet", "call", "execute", "create")
"""Words tried for `run`."""


@overload
def drawing(width: Callable[Concatenate[Nib, P], R]) -> Drawing[P, R]: ...


@overload
def drawing(
    width: float = 640,
    height: float = 480,
    paper: str | Colour = "white",
    unit: Unit = "px",
    shortcut: str | None = None,
) -> Callable[[Callable[Concatenate[Nib, P], R]], Drawing[P, R]]: ...


def drawing(
    width: Any = 640,
    height: float = 480,
    paper: str | Colour = "white",
    unit: Unit = "px",
    shortcut: str | None = None,
) -> Any:
    """Make a function that takes a nib first into a drawing.

    `@drawing` is short for `@drawing()`.

    Parameters
    ----------
    width, height : float
        The size of its sheet, in `unit`.
    paper : str or Colour
        The colour of the paper.
    unit : "px" or "mm"
        The unit of all lengths.
    shortcut : str, optional
        A key that selects it on the page of `ovlo live`, if a file has several drawings.

    Returns
    -------
    decorator
        Turns a function into a `Drawing`.

    Raises
    ------
    BadValue, BadType
        If the sheet cannot be made, the function takes no nib, or the page itself uses the key.

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
    if isinstance(width, str) and not width.strip().replace(".", "").isdigit():
        raise BadType(
            f"drawing: a drawing is called by its function's name; leave {arguments.brief(width)} out: "
            "@drawing()."
        )
    new_sheet = functools.partial(Sheet, width, height, paper, unit)
    _check_sheet(new_sheet)
    key = checked_shortcut(shortcut)

    def decorate(function: Callable[Concatenate[Nib, P], R]) -> Drawing[P, R]:
        _check_function(function)
        made = Drawing(function, new_sheet, key)
        if current_host() is None:
            name = made._name
            frame = sys._getframe(1)
            # `@drawing` alone comes through one more call of ours.
            frame = frame if frame.f_globals is not globals() or frame.f_back is None else frame.f_back
            answer_errors(frame)
            unsaved.wait_for_saving(made, f"the drawing {name}", f'{name}.save("{name}.svg")', frame)
        return made

    return decorate


def _check_function(function: Callable[..., object]) -> None:
    """Refuse what cannot be a drawing."""
    arguments.takes_nib(function, "drawing")
    name = getattr(function, "__name__", None)
    if not isinstance(name, str):
        raise BadType(f"drawing: give a function defined with def, not {arguments.brief(function)}.")
    first = next(iter(inspect.signature(function).parameters))
    if first in ("self", "cls") and "." not in function.__qualname__.rpartition("<locals>.")[2]:
        raise BadType(
            f"{where(function)}: {name} is no method, so leave out {first}: "
            f"def {name}({', '.join([*inspect.signature(function).parameters][1:])})."
        )
    if first in ("self", "cls") and "." in function.__qualname__.rpartition("<locals>.")[2]:
        raise BadType(
            f"{where(function)}: {name} is a method, since it takes {first} first. Make a drawing of a "
            f"function that calls it: def draw_{name}(nib): thing.{name}(nib)."
        )
    if inspect.iscoroutinefunction(function) or inspect.isasyncgenfunction(function):
        raise BadType(f"{where(function)}: a drawing cannot be async; write def {name} instead of async def.")
    if inspect.isgeneratorfunction(function):
        raise BadType(
            f"{where(function)}: a drawing cannot be a generator, which draws nothing when called; "
            f"remove yield from {name}."
        )


def _first_words(function: Callable[..., object]) -> str:
    """What a function's docstring says first, as far as it can stand in any file."""
    words = " ".join((inspect.getdoc(function) or "").partition("\n\n")[0].split())
    return "".join(character for character in words if character.isprintable())


def source_file(function: Callable[..., object]) -> str:
    """The file that defines a function."""
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
