"""Assertions for tests of programs that draw.

from ovlo.testing import assert_same

def test_the_kite_is_a_diamond():
    assert_same(kite.run(), diamond.run())
"""

from __future__ import annotations

from collections.abc import Iterable

from ovlo.core.compare.comparison import Comparison
from ovlo.core.sheet.motif import Motif
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.arguments import brief
from ovlo.core.values.errors import BadType
from ovlo.core.values.finding import PROBLEM, Finding
from ovlo.program.drawing import Drawing
from ovlo.program.loading import AnyDrawing
from ovlo.program.source.rules import parsed
from ovlo.program.source.tree import lines_of

__all__ = ["assert_clean", "assert_same"]


class PicturesDiffer(AssertionError):
    """Two pictures differ; `comparison` says how, and can save a picture of it."""

    def __init__(self, words: str, comparison: Comparison) -> None:
        super().__init__(words)
        self.comparison = comparison


def assert_same(a: Sheet | Motif | AnyDrawing, b: Sheet | Motif | AnyDrawing) -> None:
    """Assert that two pictures are the same, even if one is moved, turned, scaled or mirrored.

    Under pytest, a failing test also names a picture of both, laid over each other, in pytest's own folder.

    Parameters
    ----------
    a, b : Sheet, Motif or Drawing
        Two of a kind; a drawing is run with its defaults.

    Raises
    ------
    AssertionError
        Says what `ovlo compare` says, and the line that drew what only one picture has, if lines were
        recorded: by `drawing.run(traced=True)`, or here by a drawing.

    Examples
    --------
    >>> from ovlo.testing import assert_same
    >>> @drawing()
    ... def kite(nib, sides=4):
    ...     nib.polygon(sides, radius=90)
    >>> assert_same(kite, kite.run(sides=4))
    """
    __tracebackhide__ = True  # pytest shows the test's own line
    pictures = _drawn(a), _drawn(b)
    comparison = pictures[0].compare(pictures[1])  # type: ignore[arg-type]  # it refuses what differs
    if comparison:
        return
    words = str(comparison)
    if (difference := comparison._relation.difference) is not None:
        picture = pictures["AB".index(difference.is_only_in)]
        words += _line_at(picture, difference.place)
    raise PicturesDiffer(words, comparison)


def assert_clean(sheet: Sheet | AnyDrawing, *, skip: Iterable[str] = (), strict: bool = False) -> None:
    """Assert that `check` finds no problem, and with `strict` no hint either.

    Parameters
    ----------
    sheet : Sheet or Drawing
        A drawing is run with its defaults, and its lines are recorded; of its file, only its function and
        those that it uses are looked at.
    skip : list of str
        Names of rules to turn off.

    Raises
    ------
    AssertionError
        Lists the findings with their lines and fixes.

    Examples
    --------
    >>> from ovlo.testing import assert_clean
    >>> nib.polygon(4, radius=90)
    >>> assert_clean(sheet)
    """
    __tracebackhide__ = True
    picture = _drawn(sheet)
    if not isinstance(picture, Sheet):
        raise BadType(f"assert_clean: give a sheet or a drawing, not {brief(sheet)}.")
    findings = [finding for finding in picture.check(skip=skip) if strict or finding.severity == PROBLEM]
    if isinstance(sheet, Drawing):
        findings = _of_drawing(findings, sheet)
    if findings:
        raise AssertionError("\n".join(map(str, findings)))


def _of_drawing(findings: list[Finding], drawing: AnyDrawing) -> list[Finding]:
    """Those that are not of other functions of the drawing's file."""
    code = drawing._function.__code__
    tree = parsed(code.co_filename)
    if tree is None:
        return findings
    lines = lines_of(tree, code.co_name)
    return [
        finding
        for finding in findings
        if finding.file != code.co_filename or not finding.lines or not lines.isdisjoint(finding.lines)
    ]


def _drawn(picture: Sheet | Motif | AnyDrawing) -> Sheet | Motif:
    return picture.run(traced=True) if isinstance(picture, Drawing) else picture


def _line_at(picture: Sheet | Motif, place: complex) -> str:
    """The line of the program that drew what is nearest to a place, if that is known."""
    if not isinstance(picture, Sheet) or picture._origins is None:
        return ""
    import numpy as np  # only a failing test needs it

    columns = picture._columns
    a, b = columns.starts @ [1, 1j], columns.points @ [1, 1j]
    length = np.maximum(abs(b - a), 1e-150)  # whose square is not 0
    along = np.clip(((place - a) * (b - a).conj()).real / length**2, 0, 1)
    distances = np.where(columns.is_drawn, abs(a + along * (b - a) - place), np.inf)
    step = picture.steps()[int(np.argmin(distances))]
    return "" if step.line is None else f" It is drawn by line {step.line}, in {step.function}."
