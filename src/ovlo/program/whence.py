"""Where a value comes from that an error is about: the name it has, and the line that set it.

found = whence(place, lambda value: value is None)
"; " + found.words    # "; size is None, set in line 7"
"""

from __future__ import annotations

import ast
from collections.abc import Callable, Iterator
from types import TracebackType
from typing import NamedTuple

from ovlo.core.values.arguments import brief
from ovlo.program.calls import node_at, tree_of
from ovlo.program.source.tree import Function, defaults, functions, own_nodes, parameters


class Whence(NamedTuple):
    """A name, its value, the line that set it, and whether that line has the value written out."""

    name: str
    value: object
    line: int
    is_literal: bool

    @property
    def words(self) -> str:
        """What it is and where that was set, as a part of a sentence."""
        return f"{self.name} is {brief(self.value)}, set in line {self.line}"


def whence(place: TracebackType | None, is_meant: Callable[[object], bool]) -> Whence | None:
    """The first name in what was being executed that has such a value, if one line alone can have set it."""
    node = None if place is None else node_at(place)
    if node is None or place is None:
        return None
    frame = place.tb_frame
    for one in ast.walk(node):
        if not isinstance(one, ast.Name):
            continue
        is_local = one.id in frame.f_locals
        if not is_local and one.id not in frame.f_globals:
            continue
        value = frame.f_locals[one.id] if is_local else frame.f_globals[one.id]
        if is_meant(value):
            scope = _scope(place) if is_local else tree_of(place)
            return None if scope is None else _set(scope, one.id, value, place.tb_lineno)
    return None


def is_number_in_quotes(found: Whence) -> bool:
    """Whether a line writes a number as a text."""
    if not found.is_literal or not isinstance(found.value, str):
        return False
    try:
        float(found.value)
    except ValueError:
        return False
    return True


def _set(scope: ast.Module | Function, name: str, value: object, failed: int) -> Whence | None:
    """The line of a scope that gave a name its value, other than the one that failed."""
    given = [(line, node) for line, node in _settings(scope, name) if line != failed]
    written = [line for line, node in given if isinstance(node, ast.Constant) and node.value == value]
    if written:
        return Whence(name, value, written[-1], True)
    is_taken = not isinstance(scope, ast.Module) and name in [one.arg for one in parameters(scope)]
    lines = {line for line, _ in given}
    return Whence(name, value, min(lines), False) if len(lines) == 1 and not is_taken else None


def _settings(scope: ast.Module | Function, name: str) -> Iterator[tuple[int, ast.expr | None]]:
    """The lines of a scope that set a name, with what each sets it to, where that can be read off."""
    if not isinstance(scope, ast.Module):
        for parameter, default in defaults(scope).items():
            if parameter.arg == name:
                yield default.lineno, default
    for node in own_nodes(scope):
        if isinstance(node, ast.Assign | ast.AnnAssign | ast.AugAssign | ast.For | ast.NamedExpr):
            targets = node.targets if isinstance(node, ast.Assign) else [node.target]
            for target in targets:
                if isinstance(target, ast.Name) and target.id == name:
                    yield node.lineno, None if isinstance(node, ast.AugAssign | ast.For) else node.value
                elif any(isinstance(part, ast.Name) and part.id == name for part in ast.walk(target)):
                    yield node.lineno, None


def _scope(place: TracebackType) -> ast.Module | Function | None:
    """The innermost function that was being executed, or the module."""
    tree = tree_of(place)
    if tree is None or place.tb_frame.f_code.co_name == "<module>":
        return tree
    around = [one for one in functions(tree) if one.lineno <= place.tb_lineno <= (one.end_lineno or 0)]
    return around[-1] if around else tree
