"""The tables of one drawing as they grow, and a reading of them that is whole at any moment.

    store.runs.add(…)
    store.steps.append(…)
    store.columns()

A row that a step needs (its run, its arc, its area) is written before the step. A reading takes the steps
first and drops what lies beyond them, so it is right also between two rows, and beside a thread that writes.
"""

from __future__ import annotations

from array import array

import numpy as np
from numpy.typing import NDArray

from ovlo.core.trail.columns import TABLES, Columns, Style, Text, step_column
from ovlo.core.trail.origins import NOWHERE
from ovlo.core.trail.rows import Table
from ovlo.core.trail.stamps import STAMP, laid, laid_places

OF_STEPS = ("runs", "arcs", "closings")
"""Tables whose rows are about a step that is there; the others may stand behind the last one."""


class Store:
    """What a trail holds from its beginning, or since it was cleared."""

    steps: Table
    closings: Table
    area_ends: Table
    runs: Table
    arcs: Table
    areas: Table
    pauses: Table

    def __init__(self) -> None:
        for name, row_type in TABLES.items():
            setattr(self, name, Table(row_type))
        self.texts: list[Text] = []
        self.styles: dict[Style, int] = {}
        self.places = array("i")
        """Where in the program each step came from, if that is recorded."""
        self.stamps = Table(STAMP)
        self._stamped_steps = 0
        self.pieces: list[Columns] = []
        self._numbers: dict[int, int] = {}

    def __len__(self) -> int:
        return len(self.steps) + self._stamped_steps

    @property
    def order(self) -> int:
        """How many areas and texts there are."""
        return len(self.areas) + len(self.texts)

    @property
    def lengths(self) -> tuple[int, ...]:
        """How long each table is; they only grow."""
        return (len(self.texts), len(self.stamps), *(len(getattr(self, name)) for name in TABLES))

    def stamp(self, piece: Columns, place: tuple[float, float, float, float], nib: int, contour: int) -> None:
        """Note a piece that is to be laid behind the last step; its contours are numbered from `contour`."""
        number = self._numbers.setdefault(id(piece), len(self.pieces))
        if number == len(self.pieces):
            self.pieces.append(piece)
        self.stamps.add(len(self.steps), number, *place, nib, contour)
        self._stamped_steps += len(piece.steps)

    def take_back(self) -> None:
        """Forget what was written for steps that never came, since the program was interrupted first."""
        for name in ("runs", "arcs"):
            table = getattr(self, name)
            table.cut(int(np.searchsorted(table.rows()[step_column(name)], len(self.steps))))

    def begin_with(self, columns: Columns) -> None:
        """Begin with finished arrays."""
        for name in TABLES:
            getattr(self, name).extend(getattr(columns, name))
        self.texts.extend(columns.texts)
        self.styles.update((style, number) for number, style in enumerate(columns.styles))

    def columns(self) -> Columns:
        """All that is there now, as finished arrays."""
        columns, stamps = self._read()
        return laid(columns, stamps, self.pieces) if len(stamps) else columns

    def noted_places(self) -> NDArray[np.int32]:
        """The place of each step, stamped ones included; a program stopped in a step noted one less."""
        columns, stamps = self._read()
        noted = np.frombuffer(self.places.tobytes(), np.int32)[: len(columns)]
        noted = np.append(noted, np.full(len(columns) - len(noted), NOWHERE, np.int32))
        return laid_places(noted, stamps, self.pieces)

    def _read(self) -> tuple[Columns, NDArray[np.void]]:
        """The tables without stamps, and the stamps."""
        rows = {"steps": self.steps.rows()}
        length = len(rows["steps"])
        stamps = _up_to(self.stamps.rows(), "at", length)
        for name in list(TABLES)[1:]:
            last = length - 1 if name in OF_STEPS else length
            rows[name] = _up_to(getattr(self, name).rows(), step_column(name), last)
        texts = tuple(self.texts)
        while texts and texts[-1].step > length:
            texts = texts[:-1]
        return Columns(**rows, texts=texts, styles=tuple(self.styles)), stamps


def _up_to(rows: NDArray[np.void], column: str, last: int) -> NDArray[np.void]:
    """The rows without those at the end that are about steps after the last."""
    stop = len(rows)
    while stop and rows[column][stop - 1] > last:
        stop -= 1
    return rows[:stop]
