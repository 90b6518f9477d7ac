"""What the picture and the source tell, joined: one finding for one cause, at the line that is to be changed.

findings = joined(of_picture, files)

A turn or an ink leaves no step, so the picture knows only of the lines beside it; the source knows where it
is written.
"""

from __future__ import annotations

import ast
from collections.abc import Iterable, Iterator
from dataclasses import replace

from ovlo.core.values.finding import Finding
from ovlo.program.source.rules import parsed, source_findings
from ovlo.program.source.tree import called

EXPLAINED = {
    "radians-for-degrees": {
        "turns-miss-360", "rosette-misses-360", "not-closed", "off-sheet", "tiny-picture", "drift",
    },
    "degrees-for-radians": {"off-sheet", "not-closed", "stray-line"},
    "whole-division": {"turns-miss-360", "rosette-misses-360", "not-closed", "drift", "retraced-line"},
    "not-called": {"still-lifted", "unread-parameter", "never-called"},
    "not-entered": {"empty-area", "not-closed", "still-lifted"},
    "same-call": {"off-sheet", "tiny-picture", "retraced-line", "drift", "covered"},
    "unread-parameter": {"retraced-line", "covered"},
}  # fmt: skip
"""What in a picture is explained by what is wrong in the source of the function it comes from."""

STYLED = {"no-contrast": "ink", "hairline": "line_width"}
"""Which style a rule is about, if its mend names it."""

TURNS = {"left", "right", "turn_to", "full_turn"}

Loop = ast.For | ast.While


def joined(of_picture: list[Finding], files: Iterable[str]) -> list[Finding]:
    """All findings: the picture's, but for those that the source explains, then the source's."""
    of_source = [one for file in files for one in source_findings(file)]
    left = [one for one in of_picture if not any(_explains(cause, one) for cause in of_source)]
    return [_at_style(_at_turn(one)) for one in left] + [
        one for one in of_source if not any(_explains(cause, one) for cause in of_source)
    ]


def _explains(cause: Finding, other: Finding) -> bool:
    """Whether a finding of the source is the cause of another: it is about lines of the same function."""
    if other.rule not in EXPLAINED.get(cause.rule, ()) or cause.file != other.file:
        return False
    if cause.rule in ("radians-for-degrees", "whole-division", "unread-parameter", "not-called"):
        return True  # the value may come from another function
    tree = parsed(cause.file)
    first, last = _function_lines(tree, cause.lines[0]) if tree is not None else (0, 0)
    return any(first <= line <= last for line in (*other.lines, *other.callers))


def _function_lines(tree: ast.Module, line: int) -> tuple[int, int]:
    """The lines of the function of the module that a line is in; those of the module outside."""
    for node in tree.body:
        if isinstance(node, ast.FunctionDef) and node.lineno <= line <= (node.end_lineno or node.lineno):
            return node.lineno, node.end_lineno or node.lineno
    return 1, max((node.end_lineno or 0 for node in tree.body), default=1)


def _at_turn(finding: Finding) -> Finding:
    """A finding about turns, at the line of the turn."""
    if finding.rule not in ("turns-miss-360", "rosette-misses-360") or not finding.lines:
        return finding
    tree = parsed(finding.file)
    if tree is None:
        return finding
    line = finding.lines[-1]
    if finding.rule == "turns-miss-360":
        turn = next(_turns_around(tree, line, is_inner=True), None)
    else:
        callers = (turn for caller in finding.callers for turn in _turns_around(tree, caller, is_inner=False))
        turn = next(callers, None) or next(_turns_around(tree, line, is_inner=False), None)
    if turn is None:
        return finding
    beside = {*finding.lines, *finding.callers} - {turn}
    return replace(finding, lines=(turn,), callers=tuple(sorted(beside)))


def _at_style(finding: Finding) -> Finding:
    """A finding about an ink or a width, at the line that sets it last before what it is seen in."""
    name = STYLED.get(finding.rule)
    tree = parsed(finding.file) if name is not None and finding.lines else None
    if tree is None or name is None or f" {name}" not in finding.mend:
        return finding
    for line in (finding.lines[0], *finding.callers):
        first, _ = _function_lines(tree, line)
        found = [one for one in _lines_that_set(tree, name) if first <= one < line]
        if found:
            beside = {*finding.lines, *finding.callers} - {max(found)}
            return replace(finding, lines=(max(found),), callers=tuple(sorted(beside)))
    return finding


def _lines_that_set(tree: ast.Module, name: str) -> Iterator[int]:
    """The lines that set a style of a nib, or begin a block with it."""
    for node in ast.walk(tree):
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
        for node in ast.walk(tree)
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
