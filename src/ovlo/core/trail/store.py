"""The tables of one drawing as they grow, and a reading of them that is whole at any moment.

    store.runs.add(…)
    store.steps.append(…)
    store.columns()

A row that a step needs (its run, its arc, its area) is written before the step. A reading takes the steps
first and drops what lies beyond them, so it is right also between two rows, and beside a thread that writes.
"""

from __future__ import annotations

from array import array
from bisect import bisect_left, bisect_right
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from ovlo.core.trail.columns import TABLES, Columns, PenState, Style, Text, step_column
from ovlo.core.trail.curves import signed_sweeps
from ovlo.core.trail.origins import NOWHERE
from ovlo.core.trail.rows import Table
from ovlo.core.trail.stamps import STAMP, laid, laid_places, spans
from ovlo.core.values.arrays import Ints
from ovlo.core.values.degrees import normal
from ovlo.core.values.errors import BadValue
from ovlo.core.values.pose import Pose


class Moment(NamedTuple):
    """A moment of a drawing: after so many steps, stamped ones left out, and texts."""

    steps: int
    texts: int


class Standing(NamedTuple):
    """Where a nib stood when it wrote a text (the number `text`) or stamped (-1), at the next step."""

    step: int
    text: int
    nib: int
    pose: Pose

    def is_before(self, moment: Moment) -> bool:
        """Whether a moment is after it."""
        return self.step < moment.steps if self.text < 0 else self.text < moment.texts


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
        self.entered = array("q")
        """Pairs: a step, and the entry of a function that it and those after it are made in."""
        self.stamps = Table(STAMP)
        self._stamped_steps = 0
        self.pieces: list[Columns] = []
        self._numbers: dict[int, int] = {}
        self.wholes = array("q")
        """Of what is taken back as one: its first step, one past its last, and whether its nib went along."""
        self.standing: list[Standing] = []
        """Where nibs stood for texts and stamps, whose own headings are not those of their nibs."""

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

    def stamp(
        self,
        piece: Columns,
        place: tuple[float, float, float, float],
        nib: int,
        contour: int,
        at: int | None = None,
    ) -> None:
        """Note a piece that is to be laid behind the last step; its contours are numbered from `contour`."""
        number = self._numbers.setdefault(id(piece), len(self.pieces))
        if number == len(self.pieces):
            self.pieces.append(piece)
        self.stamps.add(len(self.steps) if at is None else at, number, *place, nib, contour)
        self._stamped_steps += len(piece.steps)

    def take_back(self) -> None:
        """Forget what was written for steps that never came, since the program was interrupted first."""
        for name in ("runs", "arcs"):
            table = getattr(self, name)
            table.cut(int(np.searchsorted(table.rows()[step_column(name)], len(self.steps))))

    # ── going back ────────────────────────────────────────────────────────────────────────────────────────

    def moment_before(self, count: int) -> Moment:
        """The moment before the last things drawn: a step, what counts as one, a stamp or a text each.

        Raises
        ------
        BadValue
            If there is less.
        """
        steps, texts = len(self.steps), len(self.texts)
        starts, stamped = self._nib_starts(), set(self.stamps.rows()["at"].tolist())
        firsts, stops = self.wholes[::3], self.wholes[1::3]
        for done in range(count):
            while steps - 1 in starts and not (texts and self.texts[texts - 1].step >= steps):
                steps -= 1
            if texts and self.texts[texts - 1].step >= steps:
                texts -= 1
                continue
            if not steps:
                left = (
                    f"only {done} can be taken back, not {count:,}"
                    if done
                    else "nothing is left to take back"
                )
                raise BadValue(f"undo: {left}.")
            number = bisect_left(stops, steps)
            is_whole = steps not in stamped and number < len(stops) and firsts[number] < steps
            steps = firsts[number] if is_whole else steps - 1
        return Moment(steps, texts)

    def _nib_starts(self) -> set[int]:
        """The steps that only put a nib to where it starts."""
        runs = self.runs.rows()
        _, first = np.unique(runs["nib"], return_index=True)
        steps = self.steps.rows()
        return {
            int(run["start"])
            for run in runs[first]
            if run["pen"] == PenState.JUMP and (run["x"], run["y"]) == tuple(steps[int(run["start"])])[:2]
        }

    def poses_at(self, moment: Moment) -> dict[int, Pose]:
        """The pose of each nib before the first of its own steps after a moment, by its number."""
        columns, _ = self._read()
        inside = np.zeros(len(columns), bool)  # shapes and stamps leave their nib where it is
        for first, stop, has_gone in zip(*(self.wholes[i::3] for i in range(3)), strict=True):
            inside[first + 1 : stop] = not has_gone
        inside[self.stamps.rows()["at"] - 1] = True
        steps = moment.steps + np.flatnonzero(~inside[moment.steps :])
        nibs, first = np.unique(columns.of_steps("nib")[steps], return_index=True)
        sweeps = np.zeros(len(columns))
        sweeps[columns.arcs["step"]] = signed_sweeps(columns.arcs)
        # The last that is noted of a nib is the first that it did.
        taken_back = [entry for entry in reversed(self.standing) if not entry.is_before(moment)]
        earliest = {entry.nib: (entry.step, entry.pose) for entry in taken_back}
        for nib, step in zip(nibs.tolist(), steps[first].tolist(), strict=True):
            if nib not in earliest or step < earliest[nib][0]:
                x, y = columns.starts[step].tolist()
                heading = normal(float(columns.steps["heading"][step] - sweeps[step]))
                earliest[nib] = step, Pose(x, y, heading)
        return {nib: pose for nib, (_, pose) in earliest.items()}

    def until(self, moment: Moment, has_places: bool) -> Store:
        """What was there at an earlier moment, as a store of its own."""
        columns, stamps = self._read()
        found, count = Store(), moment.steps
        areas = int((columns.areas["step"] < count).sum())
        for name in TABLES:
            rows = getattr(columns, name)
            if name == "steps":
                rows = rows[:count]
            elif name in OF_STEPS:
                rows = rows[rows[step_column(name)] < count]
            elif name == "area_ends":
                rows = rows[rows["area"] < areas].copy()
                rows["step"] = np.minimum(rows["step"], count)
            else:
                # What lies beneath a step that is taken back goes with it, as an area does.
                rows = rows[rows["step"] < count + (name == "pauses")]
            getattr(found, name).extend(rows)
        found.texts = self.texts[: moment.texts]
        found.standing = [entry for entry in self.standing if entry.is_before(moment)]
        found.styles = dict(self.styles)
        found.places = self.places[:count] if has_places else array("i")
        for at in range(0, len(self.entered), 2):
            if self.entered[at] < count:
                found.entered.extend(self.entered[at : at + 2])
        for stamp in stamps[stamps["at"] <= count]:
            at, number, *place, nib, contour = stamp.item()
            found.stamp(self.pieces[number], tuple(place), nib, contour, at)
        found.wholes = self.wholes[: 3 * bisect_right(self.wholes[1::3], count)]
        return found

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

    def noted(self) -> tuple[NDArray[np.int32], NDArray[np.int32]]:
        """The place of each step and the entry of a function it was made in, stamped ones included.

        A program stopped in a step noted one place less.
        """
        columns, stamps = self._read()
        count = len(columns)
        places = np.frombuffer(self.places.tobytes(), np.int32)[:count]
        places = np.append(places, np.full(count - len(places), NOWHERE, np.int32))
        changes = np.frombuffer(self.entered.tobytes(), np.int64).reshape(-1, 2)
        entries = np.full(count, NOWHERE, np.int32)
        if len(changes):
            rows = np.searchsorted(changes[:, 0], np.arange(count), "right") - 1
            entries = np.where(rows >= 0, changes[rows, 1], NOWHERE).astype(np.int32)
        return laid_places(places, stamps, self.pieces), laid_places(entries, stamps, self.pieces)

    def stamped(self) -> Ints:
        """The first step of each stamp, and one past its last, shape (n, 2)."""
        _, stamps = self._read()
        return spans(stamps, self.pieces)

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
