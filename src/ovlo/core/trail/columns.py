"""The finished arrays of a trail: what renderers, checks and motifs read.

    columns = sheet._columns
    columns.points[columns.is_drawn]

Nothing here changes once made. A *step* is one move of one nib. What changes seldom (nib, style, pen,
contour, area) is kept as *runs*: a row where it begins, good until the next row. Curves, areas, texts and
pauses are side tables that point at a step.
"""

from __future__ import annotations

from collections.abc import Callable, Hashable
from dataclasses import dataclass, field
from enum import IntEnum
from functools import cached_property
from typing import Any, NamedTuple, TypeVar, get_args

import numpy as np
from numpy.typing import NDArray

from ovlo.core.values.arrays import Bools, Floats, Ints
from ovlo.core.values.choices import Baseline, FillRule, LineCap, LineJoin, Slant, TextAlign, Weight
from ovlo.core.values.colour import BLACK, Colour

STEP = np.dtype([("x", "f8"), ("y", "f8"), ("heading", "f8")])
"""Where a step ends."""

RUN = np.dtype(
    [
        ("start", "i8"),  # the first step of the run
        ("contour", "i8"),  # steps of one contour are joined, also over an interruption
        ("x", "f8"),  # where its nib stood before the first step
        ("y", "f8"),
        ("nib", "i4"),
        ("style", "i4"),  # a row of Columns.styles
        ("pen", "i4"),  # a PenState
        ("area", "i4"),  # a row of Columns.areas, or -1
    ]
)

ARC = np.dtype(
    [
        ("step", "i8"),
        ("ux", "f8"),  # from the centre to where the arc begins
        ("uy", "f8"),
        ("vx", "f8"),  # the conjugate half-axis: where the arc is 90° on, seen from the centre
        ("vy", "f8"),
        ("sweep", "f8"),  # degrees; negative goes the other way
    ]
)
"""Steps that are elliptical arcs, centre + u·cos(t) + v·sin(t) for t from 0 to the sweep; or, with the
sweep 0, cubic Bézier curves, whose control points are u and v away from their start."""

AREA = np.dtype(
    [
        ("step", "i8"),  # it is painted beneath this step
        ("order", "i8"),  # among areas and texts at one step
        ("red", "f8"),
        ("green", "f8"),
        ("blue", "f8"),
        ("opacity", "f8"),
        ("fill_rule", "i8"),  # an index into FILL_RULES
        ("origin", "i8"),  # where in the program it was made, if that is recorded (origins.py)
    ]
)

AREA_END = np.dtype([("area", "i8"), ("step", "i8")])
"""One past the last step made inside an area's block."""

CLOSING = np.dtype([("step", "i8")])
"""Steps that close their contour, joined there as SVG's Z joins."""

PAUSE = np.dtype([("step", "i8"), ("seconds", "f8")])
"""How long a replay holds before a step."""

TABLES = {
    "steps": STEP,
    "closings": CLOSING,
    "area_ends": AREA_END,
    "runs": RUN,
    "arcs": ARC,
    "areas": AREA,
    "pauses": PAUSE,
}
"""The tables of a trail. A row of one is written after the rows of those further down that it needs, so who
reads beside a writer takes them in this order."""

FILL_RULES = get_args(FillRule)


class PenState(IntEnum):
    """What the pen does during a run of steps."""

    JUMP = 0
    DRAW = 1
    TRACE = 2  # the border of an area, without a line
    LIFTED = 3  # a move that would have drawn


JUMP, DRAW, TRACE, LIFTED = PenState
"""By themselves: looking one up in an enumeration takes as long as packing a row."""


class Style(NamedTuple):
    """How a line is drawn; lengths in sheet units, words as in SVG."""

    ink: Colour = BLACK
    line_width: float = 2.0
    line_dash: tuple[float, ...] = ()
    line_cap: LineCap = "round"
    line_join: LineJoin = "round"


Wording = tuple[str, float, str, Weight, Slant, TextAlign, Baseline]
"""Of a text: its words, size, font, weight, slant, align and baseline."""


class Text(NamedTuple):
    """Words on the sheet, beneath step `step`."""

    step: int
    order: int
    x: float
    y: float
    heading: float
    words: str
    size: float
    font: str
    weight: Weight
    slant: Slant
    align: TextAlign
    baseline: Baseline
    ink: Colour
    origin: int = -1

    @property
    def wording(self) -> Wording:
        """All of it that does not depend on where and when it is written."""
        return self[5:12]


Made = TypeVar("Made")


def step_column(table: str) -> str:
    """Which column of a table says at which step a row is."""
    return "start" if table == "runs" else "step"


@dataclass(frozen=True, eq=False)
class Columns:
    """A trail's arrays; n steps, m runs."""

    steps: NDArray[np.void]
    runs: NDArray[np.void]
    arcs: NDArray[np.void]
    areas: NDArray[np.void]
    area_ends: NDArray[np.void]
    closings: NDArray[np.void]
    pauses: NDArray[np.void]
    texts: tuple[Text, ...]
    styles: tuple[Style, ...]
    _made: dict[tuple[Hashable, ...], Any] = field(default_factory=dict, init=False, repr=False)

    def __post_init__(self) -> None:
        for name in TABLES:
            getattr(self, name).flags.writeable = False

    def __getstate__(self) -> dict[str, Any]:
        return {name: getattr(self, name) for name in (*TABLES, "texts", "styles")}

    def __setstate__(self, state: dict[str, Any]) -> None:
        for name, value in state.items():
            object.__setattr__(self, name, value)
        object.__setattr__(self, "_made", {})
        self.__post_init__()

    def is_equal(self, other: Columns) -> bool:
        """Whether another trail has the very same arrays."""
        names = ("texts", "styles")
        return all(np.array_equal(getattr(self, one), getattr(other, one)) for one in TABLES) and all(
            getattr(self, one) == getattr(other, one) for one in names
        )

    def once(self, work: Callable[..., Made], *more: Hashable) -> Made:
        """What a function makes of these arrays and some values, worked out when it is first asked for."""
        key = (work, *more)
        if key not in self._made:
            self._made[key] = work(self, *more)
        made: Made = self._made[key]
        return made

    def __len__(self) -> int:
        return len(self.steps)

    @cached_property
    def points(self) -> Floats:
        """Where each step ends, shape (n, 2)."""
        points = self.steps.view("f8").reshape(-1, 3)[:, :2].copy()
        points.flags.writeable = False
        return points

    @cached_property
    def starts(self) -> Floats:
        """Where each step begins, shape (n, 2)."""
        starts = np.empty_like(self.points)
        starts[1:] = self.points[:-1]
        first = self.runs["start"]
        starts[first, 0] = self.runs["x"]
        starts[first, 1] = self.runs["y"]
        return starts

    def ends_of(self, steps: Ints) -> Floats:
        """Where some steps end, shape (k, 2); without the arrays of all, which take room."""
        ends = np.empty((len(steps), 2))
        ends[:, 0], ends[:, 1] = self.steps["x"][steps], self.steps["y"][steps]
        return ends

    def starts_of(self, steps: Ints) -> Floats:
        """Where some steps begin, shape (k, 2)."""
        starts = self.ends_of(steps - 1)
        runs = np.searchsorted(self.runs["start"], steps, "right") - 1
        first = np.flatnonzero(self.runs["start"][runs] == steps)
        starts[first, 0], starts[first, 1] = self.runs["x"][runs[first]], self.runs["y"][runs[first]]
        return starts

    def arcs_of(self, steps: Ints) -> NDArray[np.void]:
        """The curves that some steps are, which all are curved."""
        return self.arcs[np.searchsorted(self.arcs["step"], steps)]

    @cached_property
    def stops(self) -> Ints:
        """One past the last step of each run, shape (m,)."""
        return np.append(self.runs["start"][1:], len(self))

    def runs_split_at(self, steps: Ints) -> NDArray[np.void]:
        """The runs, begun anew at some steps."""
        starts = np.union1d(self.runs["start"], steps)
        runs: NDArray[np.void] = self.runs[np.searchsorted(self.runs["start"], starts, "right") - 1]
        runs["start"] = starts
        runs["x"], runs["y"] = self.starts[starts].T
        return runs

    @cached_property
    def events(self) -> Ints:
        """Beneath which steps areas and texts lie, ascending."""
        texts = np.array([text.step for text in self.texts], np.int64)
        return np.sort(np.append(self.areas["step"], texts))

    def of_steps(self, name: str) -> Ints:
        """A column of the runs, repeated for each step."""
        return np.repeat(self.runs[name], self.stops - self.runs["start"])

    @cached_property
    def contour_count(self) -> int:
        """One more than the highest number of a contour."""
        return int(self.runs["contour"].max(initial=-1)) + 1

    @cached_property
    def is_traced(self) -> Bools:
        """Which runs leave a line or border an area, shape (m,)."""
        traced: Bools = np.isin(self.runs["pen"], (PenState.DRAW, PenState.TRACE))
        return traced

    @cached_property
    def is_curved(self) -> Bools:
        """Whether each step is an arc or a cubic, shape (n,)."""
        is_curved = np.zeros(len(self), bool)
        is_curved[self.arcs["step"]] = True
        is_curved.flags.writeable = False
        return is_curved

    @cached_property
    def is_drawn(self) -> Bools:
        """Whether each step left a line, shape (n,)."""
        is_drawn: Bools = self.of_steps("pen") == PenState.DRAW
        is_drawn.flags.writeable = False
        return is_drawn
