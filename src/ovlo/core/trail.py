"""The record of everything drawn, growing as the nibs move.

    trail.start_run(nib, style, Pen.DRAW, contour, x, y)
    trail.record(pack(x, y, heading))

A nib writes a run row when something that changes seldom has changed, then one row a step. To read,
ask for `columns()`: finished arrays that later steps do not change.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from ovlo.core.columns import CLOSING, RUN, STEP, Columns, Pen, Style
from ovlo.core.table import Table


class Trail:
    """The columnar record of everything drawn.

    Examples
    --------
    >>> from ovlo import Sheet
    >>> sheet = Sheet(640, 480)
    >>> nib = sheet.new_nib()
    >>> nib.forward(90)
    >>> sheet.trail.x
    array([ 0., 90.])
    """

    __slots__ = (
        "_closings",
        "_contours",
        "_finished",
        "_runs",
        "_steps",
        "_style_numbers",
        "record",
        "writing",
    )

    def __init__(self) -> None:
        self._steps = Table(STEP)
        self._runs = Table(RUN)
        self._closings = Table(CLOSING)
        self._style_numbers: dict[Style, int] = {}
        self._contours = 0
        self._finished: tuple[tuple[int, ...], Columns] | None = None
        self.record = self._steps.append
        """Append one packed step."""
        self.writing = object()
        """The run being written: a nib whose own run is another one starts anew."""

    def __len__(self) -> int:
        return len(self._steps)

    def start_run(self, nib: int, style: Style, pen: Pen, contour: int, x: float, y: float) -> object:
        """Begin a run at the next step; returns what `writing` holds while it lasts."""
        number = self._style_numbers.setdefault(style, len(self._style_numbers))
        self._runs.add(len(self._steps), contour, x, y, nib, number, pen, 0)
        self.writing = object()
        return self.writing

    def new_contour(self) -> int:
        """A number no contour has yet."""
        self._contours += 1
        return self._contours

    def close_contour(self) -> None:
        """Mark the last step as the one that closes its contour."""
        self._closings.add(len(self._steps) - 1)

    def record_many(self, steps: NDArray[np.float64]) -> None:
        """Append steps given as rows of x, y and heading."""
        self.record(np.ascontiguousarray(steps).data.cast("B"))

    def clear(self) -> None:
        """Forget everything recorded."""
        for table in (self._steps, self._runs, self._closings):
            table.clear()
        self._finished = None
        self.writing = object()

    def columns(self) -> Columns:
        """All that is recorded so far, as finished arrays."""
        lengths = (len(self._steps), len(self._runs), len(self._closings))
        if self._finished is None or self._finished[0] != lengths:
            runs = self._runs.rows()
            # An interruption may fall between a run's row and its first step.
            runs = runs[runs["start"] < lengths[0]]
            columns = Columns(
                steps=self._steps.rows(),
                runs=runs,
                closings=self._closings.rows()["step"],
                styles=tuple(self._style_numbers),
            )
            self._finished = lengths, columns
        return self._finished[1]

    @property
    def x(self) -> NDArray[np.float64]:
        """Where each step ends, sheet units, shape (n,); a jump is a step, a turn is not."""
        return self.columns().points[:, 0]

    @property
    def y(self) -> NDArray[np.float64]:
        """Where each step ends, sheet units up from the centre, shape (n,)."""
        return self.columns().points[:, 1]

    @property
    def heading(self) -> NDArray[np.float64]:
        """The heading at the end of each step, degrees in [0, 360), shape (n,)."""
        return self.columns().steps["heading"]

    @property
    def is_drawn(self) -> NDArray[np.bool_]:
        """Whether each step left a line, shape (n,); jumps do not."""
        return self.columns().is_drawn
