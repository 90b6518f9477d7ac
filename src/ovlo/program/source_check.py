"""What is wrong with a program can at times be read in its source: these rules look at the parse tree alone.

source_findings("kite.py")

They speak of lines; a place on the sheet they have none.
"""

from __future__ import annotations

import ast
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import NamedTuple

from ovlo.core.check.check import RULES as CORE_RULES
from ovlo.core.check.check import Rule
from ovlo.core.sheet.nib import Nib
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.finding import HINT, PROBLEM, Finding

RULES = {
    "not-called": Rule(
        PROBLEM,
        "A method of a nib or sheet, or a function of the file, is named on a line of its own, not called.",
    ),
    "same-call": Rule(
        PROBLEM,
        "A function calls itself with just what it was given, which it does not change; without chance that "
        "never ends.",
    ),
    "unread-parameter": Rule(
        HINT, "A function never reads one of its parameters; those with _ at their front may."
    ),
    "never-called": Rule(HINT, "A function that takes a nib is never named in its file, and is no drawing."),
    "overwritten-value": Rule(
        HINT, "A name is given a value, and another one before anything reads the first."
    ),
}

METHODS = {
    name
    for kind in (Nib, Sheet)
    for name in dir(kind)
    if not name.startswith("_") and callable(getattr(kind, name))
}

Function = ast.FunctionDef | ast.AsyncFunctionDef


class Read(NamedTuple):
    """What a rule reads in a program: the line, what is there, and the mend."""

    line: int
    message: str
    mend: str


def source_findings(file: str) -> list[Finding]:
    """What the source of a program tells; nothing where it cannot be read, or draws nothing by itself."""
    try:
        text = Path(file).read_bytes()
        tree = ast.parse(text)
    except (OSError, SyntaxError, ValueError, RecursionError):
        return []
    if not {"drawing", "Sheet"} & _read_names(tree):
        return []
    return [
        Finding(rule, RULES[rule].severity, one.message, one.mend, None, lines=(one.line,), file=file)
        for rule, look in LOOKS.items()
        for one in look(tree)
    ]


def _not_called(tree: ast.Module) -> Iterator[Read]:
    functions = {node.name for node in tree.body if isinstance(node, ast.FunctionDef)}
    for node in ast.walk(tree):
        if not isinstance(node, ast.Expr):
            continue
        named = node.value
        if isinstance(named, ast.Attribute) and isinstance(named.value, ast.Name) and named.attr in METHODS:
            words = f"{named.value.id}.{named.attr}"
        elif isinstance(named, ast.Name) and named.id in functions:
            words = named.id
        else:
            continue
        yield Read(
            node.lineno, f"{words} is named here and not called: it does nothing.", f"Write {words}(…)."
        )


def _same_call(tree: ast.Module) -> Iterator[Read]:
    for function in _functions(tree):
        taken = [one.arg for one in function.args.args]
        if not taken or _changes(function) & set(taken) or "dice" in _attributes(function):
            continue
        for node in ast.walk(function):
            if not isinstance(node, ast.Call) or not isinstance(node.func, ast.Name):
                continue
            given = [one.id if isinstance(one, ast.Name) else "" for one in node.args]
            if node.func.id == function.name and given == taken and not node.keywords:
                call = f"{function.name}({', '.join(taken)})"
                yield Read(
                    node.lineno,
                    f"{function.name} calls itself with just what it was given: that never ends.",
                    f"Give {call} something smaller, such as a shorter side or a depth that counts down.",
                )


def _unread_parameter(tree: ast.Module) -> Iterator[Read]:
    for function in _functions(tree):
        read = set().union(*(_read_names(statement) for statement in function.body))
        if _is_empty(function) or "locals" in read:
            continue
        arguments = function.args
        for one in [*arguments.posonlyargs, *arguments.args, *arguments.kwonlyargs]:
            if one.arg not in read and not one.arg.startswith("_") and one.arg not in ("self", "cls"):
                yield Read(
                    one.lineno,
                    f"{function.name} never reads its parameter {one.arg}: what is given changes nothing.",
                    f"Use {one.arg} in {function.name}, or take it out of the parameters.",
                )


def _never_called(tree: ast.Module) -> Iterator[Read]:
    for function in tree.body:
        if not isinstance(function, ast.FunctionDef) or function.decorator_list:
            continue
        takes_nib = bool(function.args.args) and function.args.args[0].arg == "nib"
        others = [node for node in tree.body if node is not function]
        named = set().union(*(_read_names(node) | _strings(node) for node in others)) if others else set()
        if takes_nib and function.name not in named:
            yield Read(
                function.lineno,
                f"{function.name} takes a nib, but nothing calls it: what it would draw is not there.",
                f"Call it where it is to draw: {function.name}(nib{', …' * (len(function.args.args) > 1)}).",
            )


def _overwritten_value(tree: ast.Module) -> Iterator[Read]:
    for owner in (tree, *_functions(tree)):
        # What functions inside read, they may read at any call.
        shared = set().union(*(_read_names(one) for one in _functions(owner) if one is not owner))
        for body in _bodies(owner):
            yield from _overwritten_in(body, shared)


def _bodies(owner: ast.AST) -> Iterator[list[ast.stmt]]:
    """The runs of statements of a module or function, without those of functions inside."""
    for name in ("body", "orelse", "finalbody", "handlers", "cases"):
        for inner in (body := getattr(owner, name, None) or []):
            if not isinstance(inner, Function | ast.ClassDef):
                yield from _bodies(inner)
        if body and isinstance(body[0], ast.stmt):
            yield body


def _overwritten_in(body: list[ast.stmt], shared: set[str]) -> Iterator[Read]:
    """Values of one run of statements that are replaced before they are read."""
    unread: dict[str, int] = {}
    for statement in body:
        name = _given_a_value(statement)
        for one in _read_names(statement):
            unread.pop(one, None)
        if not isinstance(statement, ast.Expr | ast.Assign | ast.AugAssign | ast.AnnAssign):
            unread.clear()  # who knows which way it goes
        if name is None or name in shared:
            continue
        if name in unread:
            yield Read(
                unread[name],
                f"{name} is given a value here, and in line {statement.lineno} another before it is read.",
                f"Take one of the two lines out, or use {name} between them.",
            )
        unread[name] = statement.lineno


def _given_a_value(statement: ast.stmt) -> str | None:
    """The name that a plain assignment gives a value."""
    if isinstance(statement, ast.Assign) and len(statement.targets) == 1:
        target = statement.targets[0]
        return target.id if isinstance(target, ast.Name) else None
    return None


# ── what is in a tree ─────────────────────────────────────────────────────────────────────────────────────


def _functions(tree: ast.AST) -> Iterator[Function]:
    return (node for node in ast.walk(tree) if isinstance(node, Function))


def _read_names(tree: ast.AST) -> set[str]:
    """The names that are read, also those of functions that are called."""
    found = set()
    for node in ast.walk(tree):
        if isinstance(node, ast.AugAssign) and isinstance(node.target, ast.Name):
            found.add(node.target.id)
        elif isinstance(node, ast.Name) and not isinstance(node.ctx, ast.Store):
            found.add(node.id)
    return found


def _changes(tree: ast.AST) -> set[str]:
    """The names that are given values."""
    return {
        node.id for node in ast.walk(tree) if isinstance(node, ast.Name) and isinstance(node.ctx, ast.Store)
    }


def _attributes(tree: ast.AST) -> set[str]:
    return {node.attr for node in ast.walk(tree) if isinstance(node, ast.Attribute)}


def _strings(tree: ast.AST) -> set[str]:
    """Texts, by which functions may be named too."""
    return {
        node.value
        for node in ast.walk(tree)
        if isinstance(node, ast.Constant) and isinstance(node.value, str)
    }


def _is_empty(function: Function) -> bool:
    """Whether nothing is in it yet, but perhaps words about it."""
    return all(
        isinstance(one, ast.Pass | ast.Raise)
        or (isinstance(one, ast.Expr) and isinstance(one.value, ast.Constant))
        for one in function.body
    )


ALL_RULES = CORE_RULES | RULES
"""With those that look at the picture."""

LOOKS: dict[str, Callable[[ast.Module], Iterator[Read]]] = {
    "not-called": _not_called,
    "same-call": _same_call,
    "unread-parameter": _unread_parameter,
    "never-called": _never_called,
    "overwritten-value": _overwritten_value,
}
