"""What is in a program's parse tree: its functions, the names they read, who is called.

for function in functions(tree): read_names(function)
"""

from __future__ import annotations

import ast
from collections.abc import Iterator
from typing import Any, NamedTuple

from ovlo.core.values.finding import Edit

Function = ast.FunctionDef | ast.AsyncFunctionDef
Loop = ast.For | ast.While


class SourceMatch(NamedTuple):
    """What a rule finds in a program: the line, what is wrong, and the fix; the declaration sets `rule`."""

    line: int
    message: str
    fix: str
    rule: str = ""
    edit: Edit | None = None


def nodes(tree: ast.AST) -> list[ast.AST]:
    """A node and all that is in it, level by level.

    Kept with the node, since each of fifty rules looks through the whole program: what is kept is read in a
    twentieth of the time. A tree that has been looked at is not changed any more.
    """
    kept: list[ast.AST] | None = getattr(tree, "_nodes", None)
    if kept is None:
        kept = [tree]
        for node in kept:  # grows while it is walked
            kept += children(node)
        tree._nodes = kept  # type: ignore[attr-defined]
    return kept


def children(node: ast.AST) -> list[ast.AST]:
    """The nodes right below a node, kept with it as well."""
    kept: list[ast.AST] | None = getattr(node, "_children", None)
    if kept is None:
        kept = node._children = list(ast.iter_child_nodes(node))  # type: ignore[attr-defined]
    return kept


def functions(tree: ast.AST) -> Iterator[Function]:
    """All functions, also those inside others."""
    return (node for node in nodes(tree) if isinstance(node, Function))


def parameters(function: Function) -> list[ast.arg]:
    """What a function takes by name."""
    taken = function.args
    return [*taken.posonlyargs, *taken.args, *taken.kwonlyargs]


def defaults(function: Function) -> dict[ast.arg, ast.expr]:
    """The parameters that have a default, with it."""
    taken = function.args
    positional = [*taken.posonlyargs, *taken.args]
    found = dict(zip(positional[len(positional) - len(taken.defaults) :], taken.defaults, strict=True))
    named = zip(taken.kwonlyargs, taken.kw_defaults, strict=True)
    return found | {one: value for one, value in named if value is not None}


def default_numbers(function: Function) -> dict[str, Any]:
    """The numbers but 0 that parameters have if nobody says otherwise, of those that are not given others."""
    changed = set().union(*map(changed_names, function.body))
    found = {one.arg: number_at(value) for one, value in defaults(function).items()}
    return {name: value for name, value in found.items() if value and name not in changed}


def own_nodes(owner: ast.AST) -> Iterator[ast.AST]:
    """The nodes of a module or function, without those of functions inside."""
    waiting = [owner]  # a stack, since an expression may be a thousand deep
    while waiting:
        node = waiting.pop()
        if node is not owner:
            yield node
        inner = [one for one in children(node) if not isinstance(one, Function | ast.Lambda | ast.ClassDef)]
        waiting += reversed(inner)


def blocks(owner: ast.AST) -> Iterator[list[ast.stmt]]:
    """The runs of statements of an owner, the innermost first, without those of functions inside."""
    for name in ("body", "orelse", "finalbody", "handlers", "cases"):
        for inner in (body := getattr(owner, name, None) or []):
            if not isinstance(inner, Function | ast.ClassDef):
                yield from blocks(inner)
        if body and isinstance(body[0], ast.stmt):
            yield body


def every_block(tree: ast.Module) -> Iterator[list[ast.stmt]]:
    """The runs of statements of a module and of all its functions."""
    return (body for owner in (tree, *functions(tree)) for body in blocks(owner))


def replacing(node: ast.expr | ast.stmt, text: str) -> Edit | None:
    """The edit that puts a text in the place of a part of a program; None for one of several lines."""
    if node.lineno != node.end_lineno:
        return None
    return Edit(node.lineno, node.col_offset, node.end_col_offset or 0, text)


def indenting(statement: ast.stmt) -> Edit | None:
    """The edit that puts a statement into the block before it; None for one of several lines."""
    if statement.lineno != statement.end_lineno:
        return None
    return Edit(statement.lineno, statement.col_offset, statement.col_offset, "    ")


def lone_expressions(tree: ast.AST) -> Iterator[ast.expr]:
    """The expressions that are a statement by themselves."""
    return (node.value for node in nodes(tree) if isinstance(node, ast.Expr))


def defined_names(tree: ast.AST) -> set[str]:
    """The names of values, functions and classes that a program makes itself."""
    made = (node.name for node in nodes(tree) if isinstance(node, Function | ast.ClassDef))
    return changed_names(tree).union(made)


def read_names(tree: ast.AST) -> set[str]:
    """The names that are read, also those of functions that are called."""
    found = set()
    for node in nodes(tree):
        if isinstance(node, ast.AugAssign) and isinstance(node.target, ast.Name):
            found.add(node.target.id)
        elif isinstance(node, ast.Name) and not isinstance(node.ctx, ast.Store):
            found.add(node.id)
    return found


def all_names(tree: ast.AST) -> set[str]:
    """The names that are read or given values."""
    return {node.id for node in nodes(tree) if isinstance(node, ast.Name)}


def changed_names(tree: ast.AST) -> set[str]:
    """The names that are given values."""
    return {node.id for node in nodes(tree) if isinstance(node, ast.Name) and isinstance(node.ctx, ast.Store)}


def last_name(node: ast.AST) -> str:
    """`pi` of `math.pi` and of `pi`; "" of what is no name."""
    return node.attr if isinstance(node, ast.Attribute) else getattr(node, "id", "")


def called(node: ast.AST) -> str:
    """The last name of what a call calls; "" of what is no call."""
    return last_name(node.func) if isinstance(node, ast.Call) else ""


def calls_of(tree: ast.AST, name: str) -> list[ast.Call]:
    """The calls of a function, or of a method, of some name."""
    return [node for node in nodes(tree) if isinstance(node, ast.Call) and called(node) == name]


def called_by(statement: ast.stmt) -> str:
    """The last name of what a statement calls, or of what makes its block; "" of any other statement."""
    if isinstance(statement, ast.With):
        return called(statement.items[0].context_expr)
    return called(statement.value) if isinstance(statement, ast.Expr) else ""


def number_at(node: ast.expr) -> Any:
    """The number that is written there; None for anything else."""
    try:
        value = ast.literal_eval(node)
    except (ValueError, TypeError, SyntaxError):
        return None
    return value if isinstance(value, int | float) and not isinstance(value, bool) else None


def steered(statement: ast.stmt, names: tuple[str, ...]) -> ast.Call | None:
    """The call of a statement, if it is one of a method with such a name and one argument."""
    call = statement.value if isinstance(statement, ast.Expr) else None
    is_such = isinstance(call, ast.Call) and isinstance(call.func, ast.Attribute) and call.func.attr in names
    return call if is_such and isinstance(call, ast.Call) and len(call.args) == 1 else None


def plainly_asked(test: ast.expr) -> set[str] | None:
    """The names in a condition of names and numbers; None where it asks for more than that."""
    kinds = (
        *(ast.Compare, ast.BoolOp, ast.BinOp, ast.UnaryOp, ast.Name, ast.Constant, ast.expr_context),
        *(ast.operator, ast.cmpop, ast.boolop, ast.unaryop),
    )
    if not isinstance(test, ast.Compare | ast.BoolOp | ast.UnaryOp | ast.Constant):
        return None
    if not all(isinstance(one, kinds) for one in nodes(test)):
        return None
    return read_names(test)


def lines_of(tree: ast.Module, name: str) -> set[int]:
    """The lines of a function of the file by its name, and of those that it names, and so on."""
    by_name = {function.name: function for function in functions(tree)}
    waiting, reached = [name], set[str]()
    while waiting:
        name = waiting.pop()
        if name in by_name and name not in reached:
            reached.add(name)
            waiting += read_names(by_name[name])
    return {
        line
        for name in reached
        for line in range(by_name[name].lineno, (by_name[name].end_lineno or by_name[name].lineno) + 1)
    }
