"""The record of everything drawn, growing as the nibs move.

    trail.start_run(nib, style, Pen.DRAW, contour, area, x, y)
    trail.record(pack(x, y, heading))

A nib writes a run row when something that changes seldom has changed, then one row a step. To read,
ask for `columns()`: finished arrays that later steps do not change.
"""

from __future__ import annotations

from array import array
from collections.abc import Callable, Iterable

import numpy as np
from numpy.typing import NDArray

from ovlo.core.colour import Colour
from ovlo.core.columns import (
    ARC,
    AREA,
    AREA_END,
    CLOSING,
    PAUSE,
    RULES,
    RUN,
    STEP,
    Columns,
    Pen,
    Style,
    Text,
)
from ovlo.core.hosting import current_host
from ovlo.core.origins import NOWHERE, Origins
from ovlo.core.stamping import STAMP, laid
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

    def __init__(self) -> None:
        self._steps = Table(STEP)
        self._runs = Table(RUN)
        self._arcs = Table(ARC)
        self._areas = Table(AREA)
        self._area_ends = Table(AREA_END)
        self._closings = Table(CLOSING)
        self._pauses = Table(PAUSE)
        self._texts: list[Text] = []
        self._stamps = Table(STAMP)
        self._forget_stamps()
        self._style_numbers: dict[Style, int] = {}
        self._last_style: Style | None = None
        self._last_number = 0
        self._contours = 0
        self._finished: tuple[tuple[int, ...], Columns] | None = None
        host = current_host()
        self._count = host.count if host is not None else _nothing
        self.record = self._steps.append if host is None else host.counted(self._steps.append)
        """Append one packed step."""
        self._recorder = host.recorder if host is not None else None
        self._origins = array("i")
        self._known_origins: Origins | None = None
        if self._recorder is not None:
            self.record = self._noting_origins(self.record, self._recorder.here)
        self.writing = object()
        """The run being written: a nib whose own run is another one starts anew."""

    def __len__(self) -> int:
        return len(self._steps) + self._stamped

    # ── writing ───────────────────────────────────────────────────────────────────────────────────────────

    def start_run(
        self, nib: int, style: Style, pen: Pen, contour: int, area: int, x: float, y: float
    ) -> object:
        """Begin a run at the next step; returns what `writing` holds while it lasts."""
        self._count(1)
        if style is not self._last_style:
            # Looking a style up costs more than all else here, and it is mostly the same one.
            self._last_number = self._style_numbers.setdefault(style, len(self._style_numbers))
            self._last_style = style
        self._runs.add(len(self._steps), contour, x, y, nib, self._last_number, pen, area)
        self.writing = writing = object()
        return writing

    def interrupt(self) -> object:
        """End the run being written: the next step begins another."""
        self.writing = object()
        return self.writing

    def new_contour(self) -> int:
        """A number no contour has yet."""
        self._contours += 1
        return self._contours

    def record_arc(self, packed: bytes, u: tuple[float, float], v: tuple[float, float], sweep: float) -> None:
        """Append one packed step that is an arc."""
        self.record(packed)
        self._arcs.add(len(self._steps) - 1, *u, *v, sweep)

    def record_many(self, steps: bytes, arcs: Iterable[tuple[float, ...]] = ()) -> None:
        """Append packed steps; each arc's own step counts from the first of them."""
        first = len(self._steps)
        self._count(len(steps) // STEP.itemsize - 1)
        self.record(steps)
        for step, *shape in arcs:
            self._arcs.add(first + step, *shape)

    def close_contour(self) -> None:
        """Mark the last step as the one that closes its contour."""
        self._closings.add(len(self._steps) - 1)

    def open_area(self, colour: Colour, rule: str) -> int:
        """Begin an area beneath the next step; returns its number."""
        self._count(1)
        self.interrupt()
        self._areas.add(len(self._steps), self._order(), *colour, RULES.index(rule), self._here())
        return len(self._areas) - 1

    def end_area(self, area: int) -> None:
        """End an area's block."""
        self._area_ends.add(area, len(self._steps))

    def write_text(self, **parts: object) -> None:
        """Put words beneath the next step."""
        self._count(1)
        self.interrupt()
        self._texts.append(Text(len(self._steps), self._order(), **parts, origin=self._here()))  # type: ignore[arg-type]

    def pause(self, seconds: float) -> None:
        """Hold replays before the next step."""
        self._count(1)
        self._pauses.add(len(self._steps), seconds)

    def stamp(self, piece: Columns, place: tuple[float, float, float, float], nib: int) -> None:
        """Lay a finished piece at a scale, a turn, and x and y, as if that nib had made it.

        It is worked out when the trail is read.
        """
        if self._count is not _nothing:
            self._count(len(piece) + len(piece.runs) + len(piece.areas) + len(piece.texts))
        number = self._piece_numbers.setdefault(id(piece), len(self._pieces))
        if number == len(self._pieces):
            self._pieces.append(piece)
        self._stamps.add(len(self._steps), number, *place, nib)
        self._stamped += len(piece.steps)
        self.writing = object()

    def _lay_stamps(self) -> None:
        """Put what is stamped into the tables."""
        stamps = self._stamps.rows()
        columns = laid(self._snapshot(), stamps, self._pieces)
        if self._recorder is not None:
            # What is stamped comes from where the nib was placed for it.
            sizes = np.array([len(piece) for piece in self._pieces])[stamps["piece"]]
            counts = np.bincount(stamps["at"], sizes, len(self._steps) + 1).astype(np.int64)
            counts[1:] += 1
            origins = np.append(np.int32(NOWHERE), self._step_origins())
            del self._origins[:]
            self._origins.frombytes(np.repeat(origins, counts).tobytes())
        self._take(columns)

    def _take(self, columns: Columns) -> None:
        """Hold finished arrays."""
        self._forget_stamps()
        for name, table in self._tables().items():
            table.replace(getattr(columns, name))
        self._texts = list(columns.texts)
        self._finished = self._lengths(), columns
        self._style_numbers = {style: number for number, style in enumerate(columns.styles)}
        self._last_style = None
        self._contours = max(self._contours, int(columns.runs["contour"].max(initial=0)))
        self.interrupt()

    def restore(self, columns: Columns, origins: Origins | None) -> None:
        """Hold what another trail held, and go on from there."""
        self._take(columns)
        self._known_origins = origins

    def clear(self) -> None:
        """Forget everything recorded."""
        for table in self._tables().values():
            table.clear()
        self._texts.clear()
        del self._origins[:]
        self._forget_stamps()
        self._finished = None
        self.interrupt()

    def _forget_stamps(self) -> None:
        self._stamps.clear()
        self._stamped = 0
        self._pieces: list[Columns] = []
        self._piece_numbers: dict[int, int] = {}

    def _order(self) -> int:
        return len(self._areas) + len(self._texts)

    def _tables(self) -> dict[str, Table]:
        """The tables by the names their columns have."""
        return {
            "steps": self._steps,
            "runs": self._runs,
            "arcs": self._arcs,
            "areas": self._areas,
            "area_ends": self._area_ends,
            "closings": self._closings,
            "pauses": self._pauses,
        }

    # ── reading ───────────────────────────────────────────────────────────────────────────────────────────

    def columns(self) -> Columns:
        """All that is recorded so far, as finished arrays."""
        if len(self._stamps):
            self._lay_stamps()
        lengths = self._lengths()
        if self._finished is None or self._finished[0] != lengths:
            self._finished = lengths, self._snapshot()
        return self._finished[1]

    def origins(self) -> Origins | None:
        """Where the steps came from, if a host had it recorded."""
        if self._recorder is None:
            return self._known_origins
        self.columns()
        return self._recorder.found(self._step_origins())

    def _noting_origins(
        self, append: Callable[[bytes], None], here: Callable[[], int]
    ) -> Callable[[bytes], None]:
        """An append that notes where the program is."""
        note, one, origins = self._origins.append, STEP.itemsize, self._origins

        def append_noting(rows: bytes) -> None:
            append(rows)
            if len(rows) == one:
                note(here())
            else:
                origins.extend([here()] * (len(rows) // one))

        return append_noting

    def _here(self) -> int:
        return NOWHERE if self._recorder is None else self._recorder.here()

    def _step_origins(self) -> NDArray[np.int32]:
        """The place of each step; a program stopped within a step has noted one less."""
        noted = np.frombuffer(self._origins.tobytes(), np.int32)[: len(self._steps)]
        return np.append(noted, np.full(len(self._steps) - len(noted), NOWHERE, np.int32))

    def _lengths(self) -> tuple[int, ...]:
        return (len(self._texts), *(len(table) for table in self._tables().values()))

    def _snapshot(self) -> Columns:
        rows = {name: table.rows() for name, table in self._tables().items()}
        # An interruption may fall between a run's row and its first step.
        rows["runs"] = rows["runs"][rows["runs"]["start"] < len(rows["steps"])]
        return Columns(**rows, texts=tuple(self._texts), styles=tuple(self._style_numbers))

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


def _nothing(_: int) -> None:
    """What counts when nobody limits the count."""
