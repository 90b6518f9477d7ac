"""The largest and smallest values that are taken, in every call, and what becomes of pictures of them.

for fault in faults_of_case(case): print(fault)
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from pathlib import Path
from tempfile import TemporaryDirectory

from ovlo import Motif, OvloError
from ovlo.outlets import as_bytes
from ovlo.render.formats.animation import Playback, film_of
from torture.values import Case, Stage

EXTREMES: tuple[object, ...] = (
    *(1e7, -1e7, 1e-9, 1e-300, 1_000_000, 1e5, 3e3),
    *((1e-6, 1e-6), (1e-300, 1e7), (1e7, 1e-9)),
)

OWNERS = ("nib", "motif", "sheet.new_nib", "sheet.cropped", "Sheet", "row", "column", "end_to_end")


def is_drawn(case: Case) -> bool:
    """Whether a call has to do with what is drawn."""
    return case.call.startswith(OWNERS)


def faults_of_case(case: Case) -> Iterator[str]:
    """What goes wrong with pictures of the extremes of one parameter."""
    for value in EXTREMES:
        stage = Stage.new()
        try:
            found = case.act(stage, value)
            if isinstance(found, Motif):
                stage.nib.stamp(found)
        except OvloError:
            continue
        stage.nib.circle(30, fill="gold")
        for name, look in _looks(stage):
            try:
                look()
            except OvloError:
                continue
            except Exception as error:
                yield f"{case.call}({case.parameter}={value}), {name}: {type(error).__name__}: {error}"


def _looks(stage: Stage) -> Iterator[tuple[str, Callable[[], object]]]:
    sheet = stage.sheet
    for ending in (".svg", ".png", ".pdf"):
        yield ending, lambda ending=ending: as_bytes(sheet, ending)  # type: ignore[misc]
        yield f"{ending}, fitted", lambda ending=ending: as_bytes(sheet, ending, fit=True)  # type: ignore[misc]
    yield "check", sheet.check
    yield "cropped", lambda: sheet.cropped(-50, -50, 100, 100, whole=False)
    with TemporaryDirectory() as folder:
        yield "film", lambda: film_of(sheet, Playback(1, 5, 0, True), 1).save(Path(folder) / "kite.gif")
