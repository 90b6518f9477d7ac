"""Colours and widths that are set and never used.

for one in unused_style(tree): print(one.line, one.message)
"""

from __future__ import annotations

import ast
from collections.abc import Iterator

from ovlo.core.values.finding import HINT, rule
from ovlo.program.source.tree import (
    Function,
    SourceMatch,
    all_names,
    blocks,
    functions,
    last_name,
    nodes,
    read_names,
)

STYLE = {"ink", "line_width", "line_dash", "line_cap", "line_join"}

MARKS = {
    "forward", "back", "arc_left", "arc_right", "line_to", "line_by", "line_to_start", "polyline", "walk",
    "circle", "ellipse", "polygon", "star", "rectangle", "spiral", "text", "stamp",
}  # fmt: skip
"""Methods of a nib that may leave a mark."""

WORDS = {"ink"}
"""What words are drawn with."""


@rule(
    "unused-style",
    HINT,
    "Reported when an ink, a line width or another style is set again before anything is drawn, is set "
    "after the last line, or is set at the end of a loop after the lines it should affect; and when a "
    "block of `styled` draws nothing.",
)
def unused_style(tree: ast.Module) -> Iterator[SourceMatch]:
    """Styles that are set and set anew, or never drawn with, and blocks of a style that draw nothing."""
    helpers = {function.name for function in functions(tree)}
    yield from _styled_blocks(tree, helpers)
    for owner in (tree, *functions(tree)):
        ends = _is_end(owner)
        for body in blocks(owner):
            yield from _in_block(body, ends and body is owner.body, helpers)
        yield from _after_drawing(owner, helpers)


def _is_end(owner: ast.AST) -> bool:
    """Whether nothing is drawn after an owner's last statement: that of the module, or of a drawing."""
    if isinstance(owner, ast.Module):
        return True
    return isinstance(owner, Function) and any("drawing" in read_names(one) for one in owner.decorator_list)


def _styled_blocks(tree: ast.Module, helpers: set[str]) -> Iterator[SourceMatch]:
    for node in nodes(tree):
        if not isinstance(node, ast.With):
            continue
        for item in node.items:
            call = item.context_expr
            if not (isinstance(call, ast.Call) and isinstance(call.func, ast.Attribute)):
                continue
            nib = call.func.value
            if call.func.attr != "styled" or not isinstance(nib, ast.Name):
                continue
            if not any(_draws(one, nib.id, "", helpers) for one in node.body):
                yield SourceMatch(
                    node.lineno,
                    f"This block of {nib.id}.styled(…) draws nothing, so its style has no effect.",
                    "Move the lines that draw with this style into the block.",
                )


def _in_block(body: list[ast.stmt], is_end: bool, helpers: set[str]) -> Iterator[SourceMatch]:
    """Styles of one run of statements that are set anew before anything is drawn, or never drawn with."""
    waiting: dict[tuple[str, str], int] = {}
    for statement in body:
        given = _given(statement)
        if given is not None and given in waiting:
            nib, name = given
            yield SourceMatch(
                waiting[given],
                f"{nib}.{name} is set here, and set again in line {statement.lineno} before anything is "
                f"drawn.",
                "Draw something between the two lines, or remove one of them.",
            )
        for nib, name in list(waiting):
            if _draws(statement, nib, name, helpers) or _sets_within(statement, nib, name):
                waiting.pop((nib, name), None)
        if given is not None:
            waiting[given] = statement.lineno
    for (nib, name), line in waiting.items() if is_end else ():
        yield SourceMatch(
            line,
            f"{nib}.{name} is set here, but nothing is drawn with it afterwards.",
            f"Set {name} before the lines it should affect{_other_nib(body, nib, line)}.",
        )


def _sets_within(statement: ast.stmt, nib: str, name: str) -> bool:
    """Whether a statement that holds others sets a nib's style in one of them."""
    inner = (node for node in nodes(statement) if node is not statement and isinstance(node, ast.stmt))
    return any(_given(one) == (nib, name) for one in inner)


def _other_nib(body: list[ast.stmt], nib: str, line: int) -> str:
    """Another nib that draws after a line, which may have been meant."""
    for statement in body:
        for node in nodes(statement) if statement.lineno > line else ():
            if isinstance(node, ast.Attribute) and node.attr in MARKS and isinstance(node.value, ast.Name):
                return f"; or set it on {node.value.id}, which draws next" if node.value.id != nib else ""
    return ""


def _after_drawing(owner: ast.AST, helpers: set[str]) -> Iterator[SourceMatch]:
    """Styles that a loop sets from what it counts at its end, after it has drawn with the ones before."""
    for body in blocks(owner):
        for loop in body:
            if not isinstance(loop, ast.For) or (given := _given(loop.body[-1])) is None:
                continue
            nib, name = given
            counted = all_names(loop.target)
            last = loop.body[-1]
            assert isinstance(last, ast.Assign)
            is_counted = bool(counted & read_names(last.value))
            before = loop.body[:-1]
            is_set = any(_given(one) == given for one in before)
            if is_counted and not is_set and any(_draws(one, nib, name, helpers) for one in before):
                yield SourceMatch(
                    last.lineno,
                    f"{nib}.{name} is set at the end of the loop, after the lines it should affect: the "
                    f"first "
                    "round draws with an earlier value, and the last value is never used.",
                    f"Set {nib}.{name} before the lines of the loop that draw.",
                )


def _given(statement: ast.stmt) -> tuple[str, str] | None:
    """The nib and the style that a statement sets."""
    if isinstance(statement, ast.Assign) and len(statement.targets) == 1:
        target = statement.targets[0]
        if isinstance(target, ast.Attribute) and target.attr in STYLE and isinstance(target.value, ast.Name):
            return target.value.id, target.attr
    return None


def _draws(statement: ast.stmt, nib: str, name: str, helpers: set[str]) -> bool:
    """Whether a statement may draw with a nib: calls a method that marks or a helper, or hands the nib on.

    Words are drawn with the ink alone, so of another style they are no use.
    """
    owners = {id(node.value) for node in nodes(statement) if isinstance(node, ast.Attribute)}
    for node in nodes(statement):
        is_read = isinstance(getattr(node, "ctx", None), ast.Load)
        if isinstance(node, ast.Attribute) and last_name(node.value) == nib:
            is_text = node.attr == "text" and name and name not in WORDS
            if (node.attr in MARKS and not is_text) or (node.attr == name and is_read):
                return True
        elif isinstance(node, ast.Name) and is_read:
            is_handed_on = node.id == nib and id(node) not in owners
            if node.id in helpers or is_handed_on:
                return True
    return False
