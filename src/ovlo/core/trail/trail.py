"""The record of everything drawn, growing as the nibs move.

    trail.start_run(nib, style, PenState.DRAW, contour, area, x, y)
    trail.record(pack(x, y, heading))

A nib writes a run row when something that changes seldom has changed, then one row a step. To read,
ask for `columns()`: finished arrays that later steps do not change. Reading changes nothing here, so one
thread may read while another draws.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import Protocol

from ovlo.core.trail.columns import (
    ARC,
    AREA,
    AREA_END,
    FILL_RULES,
    JUMP,
    RUN,
    STEP,
    Columns,
    PenState,
    Style,
    Text,
    Wording,
)
from ovlo.core.trail.origins import NOWHERE, LiftedMark, Origins, Recorder
from ovlo.core.trail.rows import packer
from ovlo.core.trail.store import Standing, Store
from ovlo.core.values.arrays import Ints
from ovlo.core.values.colour import Colour
from ovlo.core.values.pose import Pose

Append = Callable[[bytes], None]

Curve = tuple[int, float, float, float, float, float]
"""A step among some, and the curve it is; see ARC."""

Piece = tuple[tuple[float, float], bytes, Iterable[Curve], bool]
"""A part of a shape: where it begins, its packed steps, its curves, and whether it is closed."""

Before = tuple[int, float, float]
"""In which contour a nib is, and where it stands."""

PACK_STEP, PACK_RUN, PACK_TWO_RUNS, PACK_ARC = packer(STEP), packer(RUN), packer(RUN, 2), packer(ARC)
PACK_AREA, PACK_AREA_END = packer(AREA), packer(AREA_END)

STEP_BYTES = STEP.itemsize
STEP_DOUBLES, AREA_DOUBLES = STEP_BYTES // 8, AREA.itemsize // 8
"""Numbers of a row; by them rows are counted where every call counts, without asking the table."""


NO_RUN = object()
"""What is being written when no run is, which is no nib's own."""


class StepCounter(Protocol):
    """Who watches over a run: it counts what is recorded, and may note where that came from."""

    @property
    def recorder(self) -> Recorder | None:
        """What notes where steps come from."""

    def count(self, more: int) -> None:
        """Count what a trail is about to hold."""

    def foresee(self, more: int) -> None:
        """Stop the run before so much is worked out, if it would be too much."""

    def counted(self, append: Append) -> Append:
        """An append that counts first."""


class Trail:
    """The columnar record of everything drawn; `watch` counts it."""

    def __init__(self, watch: StepCounter | None = None) -> None:
        self._watch = watch
        self._recorder = None if watch is None else watch.recorder
        self._known_origins: Origins | None = None
        self.contours = 0
        """The highest number that a contour has; who begins one takes the next."""
        self.clear()

    def __len__(self) -> int:
        return len(self._store)

    # ── writing ───────────────────────────────────────────────────────────────────────────────────────────

    def clear(self) -> None:
        """Forget everything recorded; who wrote here takes `record` anew."""
        self._store = Store()
        self._left_out: dict[tuple[int, str], LiftedMark] = {}
        self._finished: tuple[tuple[int, ...], Columns] | None = None
        self._origins: tuple[tuple[int, ...], Origins] | None = None
        self._last_style: Style | None = None
        self._last_number = 0
        self.record = self._recording()
        """Append one packed step."""
        self.writing = NO_RUN
        """The run being written: a nib whose own run is another one starts anew."""

    def _recording(self) -> Append:
        record: Append = self._store.steps.append
        if self._watch is not None:
            record = self._watch.counted(record)
        if self._recorder is not None:
            record = self._noting_origins(record, self._recorder)
        return record

    def start_run(
        self, nib: int, style: Style, pen: PenState, contour: int, area: int, x: float, y: float
    ) -> object:
        """Begin a run at the next step; returns what `writing` holds while it lasts."""
        if self._watch is not None:
            self._watch.count(1)
        store = self._store
        if style is not self._last_style:
            self._number_style(style)
        step = len(store.steps.storage) // STEP_DOUBLES
        store.runs.append(PACK_RUN(step, contour, x, y, nib, self._last_number, pen, area))
        self.writing = writing = object()
        return writing

    def _number_style(self, style: Style) -> None:
        # Looking a style up costs more than all else of a run, and it is mostly the same one.
        styles = self._store.styles
        self._last_number = styles.setdefault(style, len(styles))
        self._last_style = style

    def interrupt(self) -> None:
        """End the run being written: the next step begins another."""
        self.writing = NO_RUN

    def record_piece(
        self,
        nib: int,
        style: Style,
        pen: PenState,
        outer: int,
        area: int,
        before: Before | None,
        heading: float,
        piece: Piece,
    ) -> Before:
        """Append a jump to where a piece begins, in the outer area, and the piece in an area of its own.

        `before` says in which contour and from where the jump is, None that the run being written is one of
        jumps; what comes back is that of a piece that follows. Many calls are one here: shapes are drawn by
        the thousand.
        """
        (x, y), steps, arcs, is_closed = piece
        count = len(steps) // STEP_BYTES
        if self._watch is not None:
            self._watch.count(count + 1 if before is None else count + 2)
        store = self._store
        if style is not self._last_style:
            self._number_style(style)
        number = self._last_number
        self.contours = contour = self.contours + 1
        first = len(store.steps.storage) // STEP_DOUBLES + 1
        if before is None:
            runs = PACK_RUN(first, contour, x, y, nib, number, pen, area)
        else:
            old_contour, x0, y0 = before
            runs = PACK_TWO_RUNS(
                first - 1, old_contour, x0, y0, nib, number, JUMP, outer,
                first, contour, x, y, nib, number, pen, area,
            )  # fmt: skip
        self.writing = NO_RUN
        store.wholes.extend((first - 1, first + count, 0))
        self._append(runs, first, arcs, PACK_STEP(x, y, heading) + steps)
        if is_closed:
            store.closings.add(first + count - 1)
        return contour, x, y

    def as_one(self, count: int) -> None:
        """Let the last so many pieces be taken back as one."""
        wholes = self._store.wholes
        first, stop = wholes[-3 * count], wholes[-2]
        del wholes[-3 * count :]
        wholes.extend((first, stop, 0))

    def record_arc(self, packed: bytes, u: tuple[float, float], v: tuple[float, float], sweep: float) -> None:
        """Append one packed step that is an arc."""
        step = len(self._store.steps.storage) // STEP_DOUBLES
        self._append(b"", step, ((0, *u, *v, sweep),), packed)

    def record_many(self, steps: bytes) -> None:
        """Append packed steps."""
        if self._watch is not None:
            self._watch.count(len(steps) // STEP_BYTES - 1)
        first = len(self._store.steps)
        self._store.wholes.extend((first, first + len(steps) // STEP_BYTES, 1))
        self.record(steps)

    def _append(self, runs: bytes, first: int, arcs: Iterable[Curve], steps: bytes) -> None:
        """Append packed steps after the rows that they need, and neither where they are interrupted.

        The steps of the arcs count from `first`.
        """
        store = self._store
        try:
            store.runs.append(runs)
            for step, ux, uy, vx, vy, sweep in arcs:
                store.arcs.append(PACK_ARC(first + step, ux, uy, vx, vy, sweep))
            self.record(steps)
        except BaseException:  # Ctrl-C
            store.take_back()
            self.interrupt()
            raise

    def foresee(self, count: int) -> None:
        """Stop the program before so many steps are worked out, if it may not draw them."""
        if self._watch is not None:
            self._watch.foresee(count)

    def close_contour(self) -> None:
        """Mark the last step as the one that closes its contour."""
        store = self._store
        store.closings.add(len(store.steps.storage) // STEP_DOUBLES - 1)

    def open_area(self, fill: Colour, fill_rule: str) -> int:
        """Begin an area beneath the next step; returns its number."""
        if self._watch is not None:
            self._watch.count(1)
        self.writing = NO_RUN
        store = self._store
        number = len(store.areas.storage) // AREA_DOUBLES
        rule, order = FILL_RULES.index(fill_rule), number + len(store.texts)
        step = len(store.steps.storage) // STEP_DOUBLES
        paint = fill.red, fill.green, fill.blue, fill.opacity
        store.areas.append(PACK_AREA(step, order, *paint, rule, self._here()))
        return number

    def end_area(self, area: int) -> None:
        """End an area's block."""
        step = len(self._store.steps.storage) // STEP_DOUBLES
        self._store.area_ends.append(PACK_AREA_END(area, step))

    def write_text(self, x: float, y: float, heading: float, wording: Wording, ink: Colour) -> None:
        """Put words beneath the next step."""
        if self._watch is not None:
            self._watch.count(1)
        self.writing = NO_RUN
        store = self._store
        step = len(store.steps.storage) // STEP_DOUBLES
        store.texts.append(Text(step, store.order, x, y, heading, *wording, ink, self._here()))

    def stand(self, nib: int, pose: Pose, is_text: bool) -> None:
        """Note where a nib stands that writes the next text, or stamps."""
        store = self._store
        store.standing.append(Standing(len(store.steps), len(store.texts) if is_text else -1, nib, pose))

    def leave_out(self, call: str, x: float, y: float) -> None:
        """Note, where it is noted what comes from where, a mark that a lifted nib does not make."""
        if self._recorder is not None:
            key = self._recorder.here(), call
            known = self._left_out.get(key, LiftedMark(*key, x, y, 0))
            self._left_out[key] = known._replace(times=known.times + 1)

    def pause(self, seconds: float) -> None:
        """Hold replays before the next step."""
        if self._watch is not None:
            self._watch.count(1)
        self._store.pauses.add(len(self._store.steps), seconds)

    def stamp(self, piece: Columns, place: tuple[float, float, float, float], nib: int) -> None:
        """Lay a finished piece at a scale, a turn, and x and y, as if that nib had made it.

        It is worked out when the trail is read; only the numbers of its contours are given out here.
        """
        if self._watch is not None:
            self._watch.count(len(piece) + len(piece.runs) + len(piece.areas) + len(piece.texts))
        self._store.stamp(piece, place, nib, self.contours + 1)
        self.contours += piece.contour_count
        self.interrupt()

    def take_back(self, count: int) -> dict[int, Pose]:
        """Go back to before the last things drawn; the poses that nibs had then, by their number."""
        store, origins = self._store, self._recorder is not None
        moment = store.moment_before(count)
        poses = store.poses_at(moment)
        self.clear()
        self._store = store.until(moment, origins)
        self.record = self._recording()
        return poses

    def restore(self, columns: Columns, origins: Origins | None) -> None:
        """Hold what another trail held, and go on from there."""
        # Places have numbers of their own in every run, so what follows is not noted among those handed over.
        self._recorder, self._known_origins = None, origins
        self.clear()
        self.contours = max(self.contours, columns.contour_count)
        self._store.begin_with(columns)

    # ── reading ───────────────────────────────────────────────────────────────────────────────────────────

    def columns(self) -> Columns:
        """All that is recorded so far, as finished arrays."""
        lengths, finished = self._store.lengths, self._finished
        if finished is None or finished[0] != lengths:
            self._finished = finished = lengths, self._store.columns()
        return finished[1]

    def stamped(self) -> Ints:
        """The first step of each stamp, and one past its last, shape (n, 2)."""
        return self._store.stamped()

    def origins(self) -> Origins | None:
        """Where the steps came from, if that is recorded."""
        if self._recorder is None:
            return None if self._known_origins is None else self._known_origins.of_length(len(self))
        lengths, found = (*self._store.lengths, *self._recorder.lengths), self._origins
        if found is None or found[0] != lengths:
            self._origins = found = lengths, self._recorder.found(*self._store.noted())
        return found[1]._replace(left_out=tuple(self._left_out.values()))

    def _noting_origins(self, append: Append, recorder: Recorder) -> Append:
        """An append that notes where the program is, and where another entry of a function begins."""
        places, enter, here, one = self._store.places, self._store.entered.extend, recorder.here, STEP_BYTES
        note, last = places.append, NOWHERE

        def append_noting(rows: bytes) -> None:
            nonlocal last
            append(rows)
            place = here()
            if recorder.entry != last:
                last = recorder.entry
                enter((len(places), last))
            if len(rows) == one:
                note(place)
            else:
                places.extend([place] * (len(rows) // one))

        return append_noting

    def _here(self) -> int:
        return NOWHERE if self._recorder is None else self._recorder.here()
