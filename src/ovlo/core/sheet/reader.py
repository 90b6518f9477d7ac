"""The trail as users read it: where every step ended, its heading, and whether it drew.

sheet.trail.x[sheet.trail.is_drawn]
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import TYPE_CHECKING, Any

import numpy as np

from ovlo.core.trail.trail import Trail
from ovlo.core.values.arrays import Bools, Floats, Ints

if TYPE_CHECKING:
    from ovlo.core.sheet.step_table import Step


class TrailReader:
    """The columnar record of everything drawn on a sheet, read-only.

    Its length is the number of steps. A step is one move of one nib: straight, curved, or a jump (a travel, a
    lifted move, a nib's start). Turns are not steps. Iterating gives each as a `Step`. Arrays read earlier do
    not change as the trail grows.

    Examples
    --------
    >>> from ovlo import Sheet
    >>> sheet = Sheet()
    >>> nib = sheet.new_nib()
    >>> nib.forward(90)
    >>> sheet.trail.x
    array([ 0., 90.])
    >>> float(sheet.trail.length[sheet.trail.is_drawn].sum())
    90.0
    """

    __slots__ = ("_trail",)

    def __init__(self, trail: Trail) -> None:
        self._trail = trail

    def __len__(self) -> int:
        return len(self._trail)

    def __iter__(self) -> Iterator[Step]:
        from ovlo.core.sheet.step_table import steps_of  # with all of painting, which few programs need

        steps = steps_of(self._trail.columns(), self._trail.origins())
        return (step for step in steps if step.kind != "text")

    def __repr__(self) -> str:
        return f"<trail of {len(self):,} steps>"

    @property
    def x(self) -> Floats:
        """The x at the end of each step, in sheet units, shape (n,)."""
        return self._trail.columns().steps["x"]

    @property
    def y(self) -> Floats:
        """The y at the end of each step, in sheet units up from the centre, shape (n,)."""
        return self._trail.columns().steps["y"]

    @property
    def heading(self) -> Floats:
        """The heading at the end of each step, degrees in [0, 360), shape (n,)."""
        return self._trail.columns().steps["heading"]

    @property
    def is_drawn(self) -> Bools:
        """Whether each step drew a line, shape (n,); jumps do not."""
        return self._trail.columns().is_drawn

    @property
    def nib(self) -> Ints:
        """Which of `sheet.nibs` made each step, shape (n,)."""
        return self._trail.columns().of_steps("nib")

    @property
    def kind(self) -> np.ndarray[Any, Any]:
        """What each step is, as in `Step.kind`: an array of strings, shape (n,)."""
        return self._arrays()["kind"]

    @property
    def length(self) -> Floats:
        """The length of each step in sheet units, along arcs, shape (n,); jumps have a length too."""
        return self._arrays()["length"]

    @property
    def ink(self) -> np.ndarray[Any, Any]:
        """The CSS colour of each line, "" where none is drawn: an array of strings, shape (n,)."""
        return self._arrays()["ink"]

    @property
    def line_width(self) -> Floats:
        """The width of each line in sheet units, 0 where none is drawn, shape (n,)."""
        return self._arrays()["line_width"]

    @property
    def centre(self) -> Floats:
        """The centre of each arc in sheet units, shape (n, 2); nan where a step is no arc."""
        arrays = self._arrays()
        return np.column_stack([arrays["centre_x"], arrays["centre_y"]])

    @property
    def sweep(self) -> Floats:
        """The sweep of each arc in degrees, to the left above 0, shape (n,); nan where a step is no arc."""
        return self._arrays()["sweep"]

    def to_dict(self) -> dict[str, np.ndarray[Any, Any]]:
        """Return the whole table as arrays of shape (n,), which `pandas.DataFrame` takes as it is.

        Examples
        --------
        >>> nib.arc_left(30, 90)
        >>> sheet.trail.to_dict()["centre_y"]
        array([nan, 30.])
        """
        return dict(self._arrays())

    def _arrays(self) -> dict[str, np.ndarray[Any, Any]]:
        from ovlo.core.sheet.step_table import step_arrays  # with all of painting, which few programs need

        return self._trail.columns().once(step_arrays)
