"""What is wrong with a program can at times be read in its source: these rules look at the parse tree alone.

findings_in(parsed("kite.py"), "kite.py")

They speak of lines; a place on the sheet they have none.
"""

from __future__ import annotations

import ast
import sys
from collections.abc import Iterator
from pathlib import Path

from ovlo.core.check.check import RULES as CORE_RULES
from ovlo.core.pen.unused import HOW
from ovlo.core.sheet.nib import Nib
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.colour_names import NAMED
from ovlo.core.values.everyday import COLOUR
from ovlo.core.values.finding import HINT, HINT_OR_PROBLEM, PROBLEM, Edit, Finding, declared, rule, rules_in
from ovlo.program.source import angles, loops, moves, numbers, recursion, regularities, slips, styles, words
from ovlo.program.source.loops import MARKS
from ovlo.program.source.tree import (
    Function,
    SourceMatch,
    blocks,
    called,
    calls_of,
    defaults,
    functions,
    lone_expressions,
    nodes,
    number_at,
    own_nodes,
    parameters,
    read_names,
)
from ovlo.program.texts import to_parse

METHODS = {
    name
    for kind in (Nib, Sheet)
    for name in dir(kind)
    if not name.startswith("_") and callable(getattr(kind, name))
}


BARE = ("lift", "lower", "line_to_start", "clear")
"""Methods that take nothing."""


def parsed(file: str) -> ast.Module | None:
    """The parse tree of a program; None where it cannot be read."""
    try:
        return ast.parse(to_parse(Path(file)))
    except (OSError, SyntaxError, ValueError, RecursionError):
        return None


def findings_in(tree: ast.Module, file: str) -> list[Finding]:
    """What the source of a program tells; nothing where it draws nothing by itself."""
    if not {"drawing", "Sheet"} & read_names(tree):
        return []
    return [
        Finding(
            one.rule,
            ALL_RULES[one.rule].usual_severity,
            one.message,
            one.fix,
            None,
            lines=(one.line,),
            file=file,
            edit=one.edit,
        )
        for look in LOOKS
        for one in look(tree)
    ]


@rule(
    "not-entered",
    PROBLEM,
    "Reported when a line makes a block or a loop of a nib, but does not open it by `with` or `for`, so "
    "that it does nothing.",
)
def _not_entered(tree: ast.Module) -> Iterator[SourceMatch]:
    for call in lone_expressions(tree):
        if not isinstance(call, ast.Call) or not isinstance(call.func, ast.Attribute):
            continue
        if call.func.attr in HOW and isinstance(call.func.value, ast.Name):
            word = "for _ in" if call.func.attr == "full_turn" else "with"
            words = ast.unparse(call)
            yield SourceMatch(
                call.lineno,
                f"{words} does nothing by itself.",
                f"Write `{word} {words}:` and indent the lines that belong to it.",
            )


@rule(
    "not-called",
    PROBLEM,
    "Reported when a line only names a method of a nib or sheet, or a function of the file, without "
    "calling it.",
)
def _not_called(tree: ast.Module) -> Iterator[SourceMatch]:
    names = {node.name for node in tree.body if isinstance(node, ast.FunctionDef)}
    for named in lone_expressions(tree):
        if isinstance(named, ast.Attribute) and isinstance(named.value, ast.Name) and named.attr in METHODS:
            words = f"{named.value.id}.{named.attr}"
        elif isinstance(named, ast.Name) and named.id in names:
            words = named.id
        else:
            continue
        end = named.end_col_offset or 0
        takes_nothing = isinstance(named, ast.Attribute) and named.attr in BARE
        yield SourceMatch(
            named.lineno,
            f"{words} is named here, but not called, so it does nothing.",
            f"Write {words}({'' if takes_nothing else '…'}).",
            edit=Edit(named.lineno, end, end, "()") if takes_nothing else None,
        )


@rule(
    "unused-parameter",
    HINT_OR_PROBLEM,
    "Reported when a function never uses one of its parameters. Not reported for names that begin with _.",
)
def _unused_parameter(tree: ast.Module) -> Iterator[SourceMatch]:
    for function in functions(tree):
        read = set().union(*(read_names(statement) for statement in function.body))
        if _is_empty(function) or "locals" in read:
            continue
        for one in parameters(function):
            if one.arg not in read and not one.arg.startswith("_") and one.arg not in ("self", "cls"):
                message = f"{function.name} never uses its parameter {one.arg}, so its value changes nothing."
                instead = _written_instead(function, one, tree)
                again = _called_again(function) if instead is None else None
                if again is not None:
                    words = f"this line says the same as line {again[0].lineno}"
                    fix = f"Use {one.arg} in one of the two, or remove it from the parameters."
                    yield SourceMatch(again[1].lineno, f"{message[:-1]}; {words}.", fix)
                    continue
                if instead is None:
                    fix = f"Use {one.arg} in {function.name}, or remove it from the parameters."
                    yield SourceMatch(one.lineno, message, fix)
                    continue
                line, first, stop = instead.lineno, instead.col_offset, instead.end_col_offset or 0
                fix = f"Write {one.arg} instead of {instead.value!r} on line {line}."
                yield SourceMatch(line, message, fix, edit=Edit(line, first, stop, one.arg))


def _called_again(function: Function) -> tuple[ast.Call, ast.Call] | None:
    """Two calls with the same values in a function, of which one may have been copied and not changed."""
    values = {one.arg for one in parameters(function)[1:]}
    seen: dict[str, list[ast.Call]] = {}
    for node in own_nodes(function):
        if not isinstance(node, ast.Call) or not values & read_names(node):
            continue
        # Of moves many are alike; what is drawn twice is mostly drawn in two ways.
        if isinstance(node.func, ast.Name) or called(node) in MARKS:
            seen.setdefault(ast.unparse(node), []).append(node)
    twice = [calls for calls in seen.values() if len(calls) == 2]
    return (twice[0][0], twice[0][1]) if len(twice) == 1 else None


def _written_instead(function: Function, parameter: ast.arg, tree: ast.Module) -> ast.Constant | None:
    """What a parameter is by default or is given, written out in a function; or its name in quotation marks.

    For a colour that is the one colour there, whatever it is.
    """
    at = parameters(function).index(parameter)
    calls = calls_of(tree, function.name)
    given = [defaults(function).get(parameter), *(call.args[at] for call in calls if len(call.args) > at)]
    values = [
        one.value if isinstance(one, ast.Constant) else number_at(one) for one in given if one is not None
    ]
    written = [node for one in function.body[_docstring(function) :] for node in nodes(one)]
    texts = [part for call in written if isinstance(call, ast.Call) for part in call.args]
    colours = list(NAMED) if parameter.arg in ("ink", "fill", *COLOUR.split()) else []
    for wanted, among in ((values, written), ([parameter.arg], texts), (colours, written)):
        found = [
            node
            for node in among
            if isinstance(node, ast.Constant)
            and type(node.value) in (int, float, str)
            and node.value in wanted
        ]
        if len(found) == 1:
            return found[0]
    return None


def _docstring(function: Function) -> int:
    """How many statements of a function are words about it."""
    return int(ast.get_docstring(function) is not None)


@rule(
    "unused-function",
    HINT_OR_PROBLEM,
    "Reported when a function that takes a nib, or draws with that of its file, is not a drawing and is "
    "never named in its file.",
)
def _unused_function(tree: ast.Module) -> Iterator[SourceMatch]:
    made = (one for one in tree.body if isinstance(one, ast.Assign) and called(one.value) == "new_nib")
    nibs = {target.id for one in made for target in one.targets if isinstance(target, ast.Name)}
    for function in tree.body:
        if not isinstance(function, ast.FunctionDef) or function.decorator_list:
            continue
        given = [one.arg for one in parameters(function)]
        takes_nib = given[:1] == ["nib"]
        others = [node for node in tree.body if node is not function]
        named = set().union(*(read_names(node) | _strings(node) for node in others)) if others else set()
        draws = takes_nib or (bool(nibs & read_names(function)) and nibs.isdisjoint(given))
        if draws and function.name not in named:
            what = "takes a nib" if takes_nib else "draws"
            call = f"nib{', …' * (len(given) > 1)}" if takes_nib else "…" * bool(given)
            yield SourceMatch(
                function.lineno,
                f"{function.name} {what}, but nothing calls it, so it draws nothing.",
                f"Call it where it should draw: {function.name}({call}).",
            )


@rule(
    "overwritten-value",
    HINT,
    "Reported when a name is given a value, and another before anything uses the first.",
)
def _overwritten_value(tree: ast.Module) -> Iterator[SourceMatch]:
    for owner in (tree, *functions(tree)):
        # What functions inside read, they may read at any call.
        shared = set().union(*(read_names(one) for one in functions(owner) if one is not owner))
        for body in blocks(owner):
            yield from _overwritten_in(body, shared)


def _overwritten_in(body: list[ast.stmt], shared: set[str]) -> Iterator[SourceMatch]:
    """Values of one run of statements that are replaced before they are read."""
    unread: dict[str, int] = {}
    for statement in body:
        name = _given_a_value(statement)
        for one in read_names(statement):
            unread.pop(one, None)
        if not isinstance(statement, ast.Expr | ast.Assign | ast.AugAssign | ast.AnnAssign):
            unread.clear()  # who knows which way it goes
        if name is None or name in shared:
            continue
        if name in unread:
            yield SourceMatch(
                unread[name],
                f"{name} is given a value here, and another in line {statement.lineno} before the first "
                f"is used.",
                f"Remove one of the two lines, or use {name} between them.",
            )
        unread[name] = statement.lineno


def _given_a_value(statement: ast.stmt) -> str | None:
    """The name that a plain assignment gives a value."""
    if isinstance(statement, ast.Assign) and len(statement.targets) == 1:
        target = statement.targets[0]
        return target.id if isinstance(target, ast.Name) else None
    return None


def _strings(tree: ast.AST) -> set[str]:
    """Texts, by which functions may be named too."""
    return {
        node.value for node in nodes(tree) if isinstance(node, ast.Constant) and isinstance(node.value, str)
    }


def _is_empty(function: Function) -> bool:
    """Whether nothing is in it yet, but perhaps words about it."""
    return all(
        isinstance(one, ast.Pass | ast.Raise)
        or (isinstance(one, ast.Expr) and isinstance(one.value, ast.Constant))
        for one in function.body
    )


OWN = sys.modules[__name__], recursion, loops, moves, regularities, numbers, styles, angles, slips, words

LOOKS = rules_in(*OWN)
"""The functions that look at a program, one a rule."""

ALL_RULES = CORE_RULES | declared(*OWN)
"""Their rules, with those that look at the picture."""
