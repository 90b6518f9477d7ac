"""Where a fix is written in a program: the number or the name that it changes.

finding = with_edit(finding, tree)
finding.edit    # Edit(line=7, column=13, end_column=15, text="120")

An edit is given only where one place alone fits. Whether it is right is proved by running the program with
it.
"""

from __future__ import annotations

import ast
from collections.abc import Iterator
from dataclasses import replace
from math import isclose

from ovlo.core.values.finding import Change, Edit, Finding
from ovlo.program.source.tree import called, nodes

CALLS = {
    "turn": {"left", "right"},
    "side": {"left", "right"},
    "length": {"forward", "back"},
    "times": {"range", "full_turn"},
}
"""The calls whose number, or name, each kind of change is about."""


def with_edit(finding: Finding, tree: ast.Module | None) -> Finding:
    """A finding with the edit that its fix is, if there is one place for it."""
    change = finding._change
    if tree is None or change is None or not finding.lines:
        return finding
    lines = {*finding.lines, *finding.callers}
    calls = [
        node
        for node in _places(tree, change, lines)
        if called(node) in CALLS[change.kind] and _is_number(node, change)
    ]
    # Of several that fit, those of the very lines.
    near = [node for node in calls if node.lineno in finding.lines] or calls
    if len(near) != 1:
        return finding
    edit = _edit(near[0], change)
    # The line to be changed is shown, also where it is a loop around those the finding speaks of.
    callers = sorted({*finding.callers, edit.line}.difference(finding.lines))
    return replace(finding, edit=edit, callers=tuple(callers))


def _places(tree: ast.Module, change: Change, lines: set[int]) -> Iterator[ast.Call]:
    """The calls among some lines, or of the loops and the bodies of loops around them."""
    loops = [node for node in nodes(tree) if isinstance(node, ast.For) and _is_around(node, lines)]
    if change.kind == "times":
        yield from (loop.iter for loop in loops if isinstance(loop.iter, ast.Call))
        return
    inner = max(loops, key=lambda loop: loop.lineno, default=None)
    first, last = (inner.lineno, inner.end_lineno or inner.lineno) if inner else (min(lines), max(lines))
    for node in nodes(tree):
        if isinstance(node, ast.Call) and (node.lineno in lines or first <= node.lineno <= last):
            yield node


def _is_around(node: ast.For, lines: set[int]) -> bool:
    return any(node.lineno <= line <= (node.end_lineno or node.lineno) for line in lines)


def _is_number(node: ast.Call, change: Change) -> bool:
    """Whether the number of a call stands there as it is, alone."""
    if len(node.args) != 1 or not isinstance(node.args[0], ast.Constant):
        return False
    value = node.args[0].value
    return isinstance(value, int | float) and isclose(value, change.old, rel_tol=1e-6, abs_tol=1e-9)


def _edit(node: ast.Call, change: Change) -> Edit:
    if change.kind == "side":
        end = node.func.end_col_offset or 0
        return Edit(node.lineno, end - len(called(node)), end, change.new)
    number = node.args[0]
    return Edit(number.lineno, number.col_offset, number.end_col_offset or 0, change.new)
