"""Small wrong changes of a program, of the kinds that people make.

Another sign or connective; a comparison the other way round, or one off where whole numbers are counted; a
number that is one more, a tolerance a million times as wide; a condition that is the other way round; a call,
a result or a named argument left out; two arguments exchanged; x for y, left for right, first for last.

changes = changes_of(Path("src/ovlo/core/pen"), 20, "seed")
"""

from __future__ import annotations

import ast
from collections import Counter
from hashlib import sha256
from pathlib import Path
from typing import NamedTuple

ONE_OFF = {ast.Lt: ast.LtE, ast.LtE: ast.Lt, ast.Gt: ast.GtE, ast.GtE: ast.Gt}
REVERSED = {
    ast.Lt: ast.Gt, ast.LtE: ast.GtE, ast.Gt: ast.Lt, ast.GtE: ast.LtE, ast.Eq: ast.NotEq, ast.NotEq: ast.Eq,
    ast.Is: ast.IsNot, ast.IsNot: ast.Is, ast.In: ast.NotIn, ast.NotIn: ast.In,
}  # fmt: skip
COMPUTED = {ast.Add: ast.Sub, ast.Sub: ast.Add, ast.Mult: ast.Div, ast.Div: ast.Mult}
PAIRS = "x y, width height, left right, bottom top, first last, start end, before after, min max"
OPPOSITE = {one: other for pair in PAIRS.split(", ") for one, other in (pair.split(), pair.split()[::-1])}
SILENT = {"lru_cache", "TypeVar", "shapely.prepare"}
"""Calls that change nothing but how fast something is, or what a type checker says."""

EITHER_WAY = {
    *("max", "min", "maximum", "minimum", "hypot", "isclose", "allclose", "array_equal"),
    *("union", "union1d", "united", "intersection", "difference", "mixed"),
    "compare_digest",
}
"""Functions whose arguments have no order, by their last names."""

TOLERANCE, WIDER = 1e-3, 1e6


class Mutant(NamedTuple):
    """A change: in which file and lines, what it is and in what, and the whole text with it."""

    path: Path
    line: int
    last_line: int
    what: str
    inside: str
    text: str


def changes_of(folder: Path, count: int, seed: str) -> list[Mutant]:
    """So many changes of the files of a folder, drawn by a seed.

    What is drawn depends on the text of each part alone, so that a line changed elsewhere does not change it.
    """
    sites: list[tuple[str, Path, int]] = []
    for path in sorted(folder.rglob("*.py")):
        seen: Counter[str] = Counter()
        for number, node in enumerate(_nodes(ast.parse(path.read_text(encoding="utf-8")))):
            if _is_changeable(node):
                part = f"{seed} {path.name} {type(node).__name__} {ast.unparse(node)}"
                seen[part] += 1
                sites.append((sha256(f"{part} {seen[part]}".encode()).hexdigest(), path, number))
    return [_mutant(path, number) for _, path, number in sorted(sites)[:count]]


def _nodes(tree: ast.AST) -> list[ast.AST]:
    """The parts of a program that run: no annotations, and nothing that is there for type checkers alone."""
    found = [tree]
    for node in found:
        if isinstance(node, ast.If) and ast.unparse(node.test) == "TYPE_CHECKING":
            continue
        for name, value in ast.iter_fields(node):
            if name not in ("annotation", "returns", "type_comment"):
                parts = value if isinstance(value, list) else [value]
                found += [part for part in parts if _is_node(part) and not _is_silent(part, node)]
    return found


def _is_silent(node: ast.AST, around: ast.AST) -> bool:
    """Whether nothing that shows depends on a part: one of such a call, or -1 for none."""
    if isinstance(node, ast.Expr):
        node = node.value
    if isinstance(node, ast.UnaryOp):
        return ast.unparse(node) == "-1" and not isinstance(around, ast.Subscript)
    return isinstance(node, ast.Call) and ast.unparse(node.func) in SILENT


def _is_node(part: object) -> bool:
    return isinstance(part, ast.AST)


def _is_changeable(node: ast.AST) -> bool:
    if isinstance(node, ast.Compare):
        return len(node.ops) == 1
    if isinstance(node, ast.BinOp):
        return type(node.op) in COMPUTED
    if isinstance(node, ast.Constant):
        return type(node.value) in (int, float)
    if isinstance(node, ast.If):
        return ast.unparse(node.test) != "TYPE_CHECKING"
    if isinstance(node, ast.Expr):
        return isinstance(node.value, ast.Call)
    if isinstance(node, ast.Return):
        return ast.unparse(node) not in ("return", "return None")
    if isinstance(node, ast.UnaryOp):
        return isinstance(node.op, ast.Not)
    if isinstance(node, ast.Call):
        return _is_exchangeable(node) or bool(node.keywords)
    if isinstance(node, ast.Attribute | ast.Name):
        return isinstance(node.ctx, ast.Load) and _name(node) in OPPOSITE
    return isinstance(node, ast.BoolOp | ast.IfExp | ast.While)


def _is_exchangeable(call: ast.Call) -> bool:
    is_plain = not any(isinstance(one, ast.Starred) for one in call.args)
    if len(call.args) != 2 or ast.unparse(call.args[0]) == ast.unparse(call.args[1]):
        return False
    return is_plain and ast.unparse(call.func).rpartition(".")[2] not in EITHER_WAY


def _name(node: ast.Attribute | ast.Name) -> str:
    return node.attr if isinstance(node, ast.Attribute) else node.id


def _mutant(path: Path, number: int) -> Mutant:
    """The change of one part of a file, counted as `_nodes` comes to them."""
    before = path.read_text(encoding="utf-8")
    tree = ast.parse(before)
    node = _nodes(tree)[number]
    line, last = getattr(node, "lineno", 0), getattr(node, "end_lineno", 0)
    if isinstance(node, ast.If | ast.While):
        last = node.test.end_lineno
    inside = before.splitlines()[line - 1].strip() if line else ""
    what = _change(node)
    return Mutant(path, line, last, what, inside, ast.unparse(ast.fix_missing_locations(tree)))


def _is_whole(node: ast.expr) -> bool:
    """Whether one side of a comparison counts something: 2, or len(points)."""
    if isinstance(node, ast.Call):
        return ast.unparse(node.func) == "len"
    return isinstance(node, ast.Constant) and type(node.value) is int and node.value > 0


def _change(node: ast.AST) -> str:
    """Change a node; what was changed into what."""
    before = ast.unparse(node).splitlines()[0]
    if isinstance(node, ast.Compare):
        kinds = REVERSED | (ONE_OFF if any(map(_is_whole, (node.left, *node.comparators))) else {})
        node.ops = [kinds[type(node.ops[0])]()]
    elif isinstance(node, ast.BinOp):
        node.op = COMPUTED[type(node.op)]()
    elif isinstance(node, ast.BoolOp):
        node.op = ast.Or() if isinstance(node.op, ast.And) else ast.And()
    elif isinstance(node, ast.Constant):
        is_tolerance = 0 < node.value < TOLERANCE  # type: ignore[operator]
        node.value = node.value * WIDER if is_tolerance else node.value + 1  # type: ignore[operator]
    elif isinstance(node, ast.If | ast.IfExp):
        node.test = ast.UnaryOp(ast.Not(), node.test)
    elif isinstance(node, ast.While):
        node.test = ast.Constant(False)
    elif isinstance(node, ast.Expr | ast.Return):
        node.value = ast.Constant(None)
    elif isinstance(node, ast.UnaryOp):
        node.op, node.operand = ast.Not(), ast.UnaryOp(ast.Not(), node.operand)
    elif isinstance(node, ast.Call):
        if _is_exchangeable(node):
            node.args = node.args[::-1]
        else:
            node.keywords = node.keywords[:-1]
    elif isinstance(node, ast.Attribute):
        node.attr = OPPOSITE[node.attr]
    elif isinstance(node, ast.Name):
        node.id = OPPOSITE[node.id]
    return f"{before[:60]}  →  {ast.unparse(node).splitlines()[0][:60]}"
