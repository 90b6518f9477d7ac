"""What the picture and the source tell, joined: one finding for one cause, at the line that is to be changed.

findings = joined(of_picture, files)

A turn or an ink leaves no step, so the picture knows only of the lines beside it; the source knows where it
is written.
"""

from __future__ import annotations

import ast
from collections.abc import Iterable, Iterator
from dataclasses import replace

from ovlo.core.values.finding import PROBLEM, Finding
from ovlo.program.source.edits import with_edit
from ovlo.program.source.rules import findings_in, parsed
from ovlo.program.source.tree import (
    Loop,
    called,
    functions,
    lone_expressions,
    nodes,
    parameters,
    read_names,
)

EXPLAINED = {
    "radians-for-degrees": {
        "turns-miss-360", "rosette-misses-360", "not-closed", "off-sheet", "tiny-picture", "drift",
    },
    "degrees-for-radians": {"off-sheet", "not-closed", "stray-line"},
    "floor-division": {"odd-one-out", "turns-miss-360", "rosette-misses-360", "not-closed", "drift"},
    "not-called": {"still-lifted", "nothing-drawn", "unused-parameter", "unused-function"},
    "not-entered": {"empty-area", "not-closed", "still-lifted", "nothing-drawn"},
    "infinite-recursion": {"off-sheet", "tiny-picture", "retraced-line", "drift", "covered"},
    "no-way-back": {"off-sheet", "not-closed", "stray-line", "retraced-line", "drift"},
    "turn-outside-loop": {"off-sheet", "drawn-again", "retraced-line", "covered", "rosette-misses-360"},
    "drawn-after-loop": {"off-sheet", "words-on-words", "tiny-picture"},
    "turned-twice": {
        "drawn-again", "retraced-line", "turns-miss-360", "rosette-misses-360", "not-closed", "covered",
    },
    "other-count": {"rosette-misses-360", "odd-one-out", "drawn-again", "retraced-line", "turns-miss-360"},
    "unused-loop-value": {"drawn-again", "retraced-line", "covered", "odd-one-out"},
    "missing-brackets": {"covered", "no-contrast"},
    "endless-loop": {"off-sheet", "tiny-picture", "retraced-line", "drift", "drawn-again", "covered"},
    "unused-parameter": {"retraced-line", "covered"},
    "missing-f": {"unused-value", "unused-parameter", "unused-loop-value"},
    "unused-function": {"still-lifted", "nothing-drawn"},
    "unreachable": {"turns-miss-360", "not-closed", "still-lifted", "nothing-drawn", "retraced-line"},
    "same-loop-name": {"turns-miss-360", "rosette-misses-360", "drift"},
    "no-effect": {"still-lifted", "nothing-drawn", "no-contrast"},
    "empty-range": {"still-lifted", "nothing-drawn", "empty-area"},
    "fixed-condition": {"still-lifted", "nothing-drawn", "empty-area", "retraced-line"},
    "unmirrored": {"drawn-again", "retraced-line", "odd-one-out"},
    "uneven-numbers": {"odd-one-out"},
    "repeated-value": {"drawn-again", "retraced-line", "covered"},
    "half-used": {"drawn-again", "off-sheet", "covered"},
    "changed-after-loop": {"drawn-again", "retraced-line", "covered"},
    "constant-sum": {"drawn-again", "covered"},
    "quotient-for-remainder": {"odd-one-out", "covered"},
    "line-to-figure": {"stray-line", "line-through-words"},
    "number-for-name": {"odd-one-out"},
    "unlike-remainders": {"odd-one-out", "drawn-again", "covered", "words-on-words"},
    "drawn-before-travel": {"covered", "off-sheet", "words-on-words", "odd-one-out"},
    "uneven-turns": {"off-sheet", "turns-miss-360", "not-closed"},
    "left-over-turn": {"left-over-heading"},
    "sine-for-cosine": {"stray-line", "off-sheet"},
}  # fmt: skip
"""What in a picture is explained by what is wrong in the source of the function it comes from."""

SEEN = {"named-figure": {"turns-miss-360", "not-closed", "rosette-misses-360", "drift"}}
"""What the source tells, and need not where the picture shows it in the same function."""

ANYWHERE = {"radians-for-degrees", "floor-division", "unused-parameter", "not-called"}
"""Causes whose values may come from another function than the one that draws."""

OF_LOOPS = {"turned-twice", "other-count", "unused-loop-value", "turn-outside-loop", "drawn-after-loop"}
"""Causes that explain only what their own loop draws."""

OF_WHOLE = {"still-lifted", "nothing-drawn", "tiny-picture"}
"""Rules about the whole of a drawing."""

OF_TURNS = {"turns-miss-360", "rosette-misses-360"}

STYLED = {"no-contrast": "ink", "hairline": "line_width"}
"""Which style a rule is about, if its fix names it."""

TURNS = {"left", "right", "turn_to", "full_turn"}


def joined(of_picture: list[Finding], files: Iterable[str]) -> list[Finding]:
    """All findings: the picture's, but for those that the source explains, then the source's."""
    trees = {file: tree for file in files if (tree := parsed(file)) is not None}
    of_source = [one for file, tree in trees.items() for one in findings_in(tree, file)]
    left = []
    for one in (*of_picture, *of_source):
        is_cause = one.rule in EXPLAINED
        explained = [other for other in of_picture if _explains(one, other, trees)] if is_cause else []
        if any(other.severity == PROBLEM for other in explained):
            one = replace(one, severity=PROBLEM)  # a cause is as bad as what it leads to
        is_seen = one.rule in SEEN and any(_is_seen(one, other, trees) for other in of_picture)
        is_meant = _counts_by_parameter(one, trees.get(one.file))
        if not is_seen and not is_meant and not any(_explains(cause, one, trees) for cause in of_source):
            left.append(with_edit(_placed(one, trees.get(one.file)), trees.get(one.file)))
    return left


def _counts_by_parameter(finding: Finding, tree: ast.Module | None) -> bool:
    """Whether a row is as long as a parameter says, which somebody may be trying values of."""
    if finding.rule != "short-row" or tree is None:
        return False
    lines = {*finding.lines, *finding.callers}
    for function in functions(tree):
        taken = {one.arg for one in parameters(function)}
        loops = [one for one in nodes(function) if isinstance(one, ast.For) and called(one.iter) == "range"]
        asked = [one for one in loops if taken & read_names(one.iter)]
        if any(not lines.isdisjoint(range(one.lineno, (one.end_lineno or 0) + 1)) for one in asked):
            return True
    return False


def is_finished(finding: Finding, stopped_at: tuple[tuple[str, int], ...] | None) -> bool:
    """Whether a program that stopped in some lines had left every loop that drew what a finding is about."""
    tree = parsed(finding.file) if finding.file else None
    if stopped_at is None or tree is None or finding.rule in OF_WHOLE:
        return False
    drew = {*finding.lines, *finding.callers}
    loops = [
        range(node.lineno, (node.end_lineno or node.lineno) + 1)
        for node in nodes(tree)
        if isinstance(node, Loop)
    ]
    stops = {line for file, line in stopped_at if file == finding.file}
    return max(drew) < max(stops, default=0) and not any(
        stop in loop and not drew.isdisjoint(loop) for loop in loops for stop in stops
    )


def _explains(cause: Finding, other: Finding, trees: dict[str, ast.Module]) -> bool:
    """Whether a finding of the source is the cause of another: it is about lines of the same function."""
    if other.rule not in EXPLAINED.get(cause.rule, ()) or other.file not in ("", cause.file):
        return False
    if cause.rule == "unused-function":
        return not other.lines  # nothing was drawn at all
    if cause.rule in ANYWHERE:
        return True
    lines_around = _loop_lines if cause.rule in OF_LOOPS else _function_lines
    first, last = lines_around(trees[cause.file], cause.lines[0])
    return any(first <= line <= last for line in (*other.lines, *other.callers))


def _is_seen(one: Finding, other: Finding, trees: dict[str, ast.Module]) -> bool:
    """Whether a finding of the picture says what the source tells."""
    first, last = _function_lines(trees[one.file], one.lines[0])
    return other.rule in SEEN[one.rule] and any(first <= line <= last for line in other.lines)


def _placed(finding: Finding, tree: ast.Module | None) -> Finding:
    """A finding at the line to be changed, the lines that led to it beside that."""
    if tree is None or not finding.lines:
        return finding
    line = _turn(finding, tree) if finding.rule in OF_TURNS else _style(finding, tree) or _lift(finding, tree)
    if line is None:
        return finding
    beside = {*finding.lines, *finding.callers} - {line}
    return replace(finding, lines=(line,), callers=tuple(sorted(beside)))


def _function_lines(tree: ast.Module, line: int) -> tuple[int, int]:
    """The lines of the function of the module that a line is in; those of the module outside."""
    for node in tree.body:
        if isinstance(node, ast.FunctionDef) and node.lineno <= line <= (node.end_lineno or node.lineno):
            return node.lineno, node.end_lineno or node.lineno
    return 1, max((node.end_lineno or 0 for node in tree.body), default=1)


def _loop_lines(tree: ast.Module, line: int) -> tuple[int, int]:
    """The lines of the innermost loop around a line; of the loop before it, if there is none around it."""
    spans = [(node.lineno, node.end_lineno or node.lineno) for node in nodes(tree) if isinstance(node, Loop)]
    around = [span for span in spans if span[0] <= line <= span[1]]
    before = [span for span in spans if span[1] < line]
    return max(around, default=None) or max(before, key=lambda span: span[1], default=(line, line))


def _turn(finding: Finding, tree: ast.Module) -> int | None:
    """The line of the turn that a finding about turns is about."""
    line = finding.lines[-1]
    if finding.rule == "turns-miss-360":
        return next(_turns_around(tree, line, is_inner=True), None)
    callers = (turn for caller in finding.callers for turn in _turns_around(tree, caller, is_inner=False))
    return next(callers, None) or next(_turns_around(tree, line, is_inner=False), None)


def _style(finding: Finding, tree: ast.Module) -> int | None:
    """The line that sets an ink or a width last before what it is seen in."""
    name = STYLED.get(finding.rule)
    if name is None or f" {name}" not in finding.fix:
        return None
    for line in (finding.lines[0], *finding.callers):
        first, _ = _function_lines(tree, line)
        found = [one for one in _lines_that_set(tree, name) if first <= one < line]
        if found:
            return max(found)
    return None


def _lift(finding: Finding, tree: ast.Module) -> int | None:
    """The one line that lifts the pen, if a finding is about a pen that stays lifted."""
    lines = [call.lineno for call in lone_expressions(tree) if called(call) == "lift"]
    return lines[0] if finding.rule == "still-lifted" and len(lines) == 1 else None


def _lines_that_set(tree: ast.Module, name: str) -> Iterator[int]:
    """The lines that set a style of a nib, or begin a block with it."""
    for node in nodes(tree):
        if isinstance(node, ast.Assign):
            if any(isinstance(target, ast.Attribute) and target.attr == name for target in node.targets):
                yield node.lineno
        elif isinstance(node, ast.With):
            calls = [item.context_expr for item in node.items if isinstance(item.context_expr, ast.Call)]
            if any(one.arg == name for call in calls for one in call.keywords):
                yield node.lineno


def _turns_around(tree: ast.Module, line: int, is_inner: bool) -> Iterator[int]:
    """The lines that turn the nib in the loops around a line, or in its run of statements."""
    around = [
        node
        for node in nodes(tree)
        if isinstance(node, Loop | ast.FunctionDef) and node.lineno <= line <= (node.end_lineno or 0)
    ]
    loops = [node for node in around if isinstance(node, Loop)]
    owners: list[ast.AST] = [*(reversed(loops) if is_inner else loops)]
    if is_inner:
        owners += reversed([node for node in around if not isinstance(node, Loop)])
    for owner in owners:
        turns = [
            statement.lineno
            for statement in owner.body  # type: ignore[attr-defined]
            if isinstance(statement, ast.Expr) and called(statement.value) in TURNS
        ]
        after = [turn for turn in turns if turn > line]
        yield from after[:1] or turns[-1:]
        if isinstance(owner, ast.For) and called(owner.iter) == "full_turn":
            yield owner.lineno
