"""Writes values into a program as the defaults of a drawing's parameters.

with_defaults("def kite(nib, sides=4): …", "kite", {"sides": "5"}).text

Only the expressions of the defaults change. A parse tree gives their places: lines as Python counts them, and
columns in bytes of UTF-8 (https://docs.python.org/3/library/ast.html#ast.AST.col_offset).
"""

from __future__ import annotations

import ast
from contextlib import suppress
from typing import NamedTuple

from ovlo.core.values.errors import BadValue
from ovlo.program.parameters import YES
from ovlo.program.source.tree import defaults
from ovlo.program.texts import lines_of, place_of

Places = dict[str, ast.expr]
"""The default of each parameter."""


class Written(NamedTuple):
    """A program with other defaults: its text, the parameters that were changed, and why others were not."""

    text: str
    done: list[str]
    left: list[str]


def with_defaults(text: str, function: str, values: dict[str, str]) -> Written:
    """A program with values, given as text, as the defaults of a function's parameters; all else stays.

    Raises
    ------
    BadValue
        If there is no such function at the top level, or more than its defaults would change.
    """
    try:
        tree = ast.parse(text)
    except (SyntaxError, ValueError, RecursionError):
        raise BadValue("The program has a mistake now; correct it first. Nothing was written.") from None
    places = _places(tree, function)
    changes, done, left = [], [], []
    for name, value in values.items():
        if name not in places:
            left.append(f"{name} has no default in the file.")
            continue
        default = places[name]
        try:
            changes.append((default, _expression(name, default, value)))
        except BadValue as error:
            left.append(str(error))
        else:
            done.append(name)
    new = _replaced(text, changes)
    if not _differ_only_there(tree, new, function, set(done)):
        raise BadValue("More than the defaults of the program would change; nothing was written.")
    return Written(new, done, left)


def _places(tree: ast.Module, function: str) -> Places:
    found = [node for node in tree.body if isinstance(node, ast.FunctionDef) and node.name == function]
    if not found:
        raise BadValue(
            f"{function} is not defined at the top level of the file, so its defaults cannot be changed."
        )
    return {one.arg: default for one, default in defaults(found[-1]).items()}


def _expression(name: str, default: ast.expr, value: str) -> str:
    """A value as Python writes it, of the kind that the default is of."""
    try:
        before = ast.literal_eval(default)
    except (ValueError, SyntaxError):
        before = None
    if isinstance(before, bool):
        return str(value.lower() in YES)
    if isinstance(before, str):
        return _quoted(value)
    if isinstance(before, int | float):
        for number in (int, float):
            with suppress(ValueError):
                return repr(number(value))
        raise BadValue(f"{value} is not a number, so the default of {name} is left unchanged.")
    raise BadValue(
        f"The default of {name}, {ast.unparse(default)}, is not a plain value, so it is left unchanged."
    )


def _quoted(value: str) -> str:
    """A string with the quotes most programs have."""
    words = repr(value)
    return words if '"' in value or not words.startswith("'") else f'"{words[1:-1]}"'


def _replaced(text: str, changes: list[tuple[ast.expr, str]]) -> str:
    lines = lines_of(text)
    spans = []
    for place, words in changes:
        assert place.end_lineno is not None
        assert place.end_col_offset is not None
        begin = place_of(lines, place.lineno, place.col_offset)
        spans.append((begin, place_of(lines, place.end_lineno, place.end_col_offset), words))
    for begin, end, expression in sorted(spans, reverse=True):
        text = text[:begin] + expression + text[end:]
    return text


def _differ_only_there(tree: ast.Module, new: str, function: str, values: set[str]) -> bool:
    """Whether two programs are the same but for the defaults of some parameters."""
    try:
        other = ast.parse(new)
    except SyntaxError:
        return False
    for one in (tree, other):
        for name, default in _places(one, function).items():
            if name in values:
                default.__class__, default.__dict__ = ast.Pass, {}  # type: ignore[assignment]
    return ast.dump(tree) == ast.dump(other)
