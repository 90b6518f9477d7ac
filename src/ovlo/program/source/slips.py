"""Slips of Python itself that a parse tree shows: names, loops and conditions that cannot do what they say.

found = list(_no_effect(tree))

Names are followed by pyflakes. Only what is wrong is reported, never style.
"""

from __future__ import annotations

import ast
import builtins
from collections.abc import Callable, Iterator
from functools import lru_cache
from itertools import pairwise
from operator import eq, ge, gt, le, lt, ne
from typing import Any

import ovlo
from ovlo.core.sheet.nib import Nib
from ovlo.core.values.arguments import nearest
from ovlo.core.values.finding import HINT, HINT_OR_PROBLEM, PROBLEM, Edit, rule
from ovlo.program.explaining import name_answer
from ovlo.program.source.tree import (
    Function,
    Loop,
    SourceMatch,
    called,
    calls_of,
    changed_names,
    defaults,
    defined_names,
    every_block,
    functions,
    last_name,
    lone_expressions,
    nodes,
    number_at,
    own_nodes,
    read_names,
    replacing,
)

NEW_OF_MOTIF = {"centred", "mirrored", "moved", "scaled", "turned"}
NEW_OF_TEXT = {"upper", "strip", "title", "capitalize", "center", "zfill"}
MAKES_MOTIF = {"centred", "column", "cropped", "end_to_end", "from_svg", "layered", "record", "row"}
NEW_BY_METHOD = NEW_OF_MOTIF | NEW_OF_TEXT | {"record", "from_svg", "cropped", "distance_to", "heading_to"}
NEW_OF_OVLO = {"blend", "column", "end_to_end", "from_polar", "layered", "ramp", "row", "shift_hue"}
NEW = {"sorted", "reversed", "abs", "round", "min", "max", "sum", "len"} | NEW_OF_OVLO
"""What only gives back something new, by a method or a function."""

LEAVING = ast.Return | ast.Raise | ast.Break | ast.Continue

FEWEST_ITEMS = 3
"""Of a list, of which one alone is used."""

COMPARED: dict[type[ast.cmpop], Callable[[float, float], bool]] = {
    ast.Lt: lt,
    ast.LtE: le,
    ast.Gt: gt,
    ast.GtE: ge,
    ast.Eq: eq,
    ast.NotEq: ne,
}


# ── names ─────────────────────────────────────────────────────────────────────────────────────────────────


@lru_cache(maxsize=8)
def _messages(tree: ast.Module) -> list[Any]:
    """What pyflakes says of the names of a program, once for the rules that ask."""
    from pyflakes.checker import Checker

    try:
        return sorted(Checker(tree).messages, key=lambda one: (one.lineno, one.col))
    except RecursionError:  # an expression of a thousand terms
        return []


def _about(tree: ast.Module, *kinds: str) -> Iterator[tuple[int, str, Any]]:
    """The line, the name and what else is said, of some kinds of message."""
    for one in _messages(tree):
        if type(one).__name__ in kinds:
            name, *more = one.message_args
            yield one.lineno, str(name), more


@rule(
    "unknown-name",
    PROBLEM,
    "Reported when a line uses a name that nothing in the program defines, even if the line did not run.",
)
def _unknown_name(tree: ast.Module) -> Iterator[SourceMatch]:
    imports_all = {
        node.module for node in nodes(tree) if isinstance(node, ast.ImportFrom) and node.names[0].name == "*"
    }
    if imports_all - {"ovlo"}:
        return  # who knows what that defines
    own = defined_names(tree)
    for line, name, _ in _about(tree, "UndefinedName", "ImportStarUsage"):
        if name not in ovlo.__all__ or not imports_all:
            words = name_answer(name, own, ovlo.__all__ if imports_all else own)
            fix = words.removeprefix(f"{name!r} is not defined").lstrip(";: ")
            yield SourceMatch(line, f"Nothing defines {name}.", fix if fix == words else _sentence(fix))


def _sentence(words: str) -> str:
    return words[:1].upper() + words[1:] + "." * (words[-1:] not in ".?")


@rule(
    "unused-value",
    HINT,
    "Reported when a name is given a value that nothing uses, or that is only used to change it. Outside "
    "functions not reported for constants in capitals, a nib, and what run, check or compare gives.",
)
def _unused_value(tree: ast.Module) -> Iterator[SourceMatch]:
    for owner in (tree, *functions(tree)):
        for loop in own_nodes(owner):
            if isinstance(loop, Loop):
                yield from _only_changed(loop, owner)
    unread = ((line, name) for line, name, _ in _about(tree, "UnusedVariable"))
    for line, name in (*_unread_in_module(tree), *unread):
        if not name.startswith("_"):
            yield SourceMatch(
                line,
                f"{name} is given a value here that nothing uses.",
                f"Use {name}, or remove the line.",
            )


KEPT = {"new_nib", "Sheet", "run", "check", "compare"}
"""Calls that do something, so that what they give may be left alone."""


def _unread_in_module(tree: ast.Module) -> Iterator[tuple[int, str]]:
    """The lines outside functions that name something which the whole file never reads, with the names."""
    read = read_names(tree)
    for statement in tree.body:
        if isinstance(statement, ast.Assign) and called(statement.value) not in KEPT:
            for target in statement.targets:
                if isinstance(target, ast.Name) and target.id not in read and not target.id.isupper():
                    yield statement.lineno, target.id


def _only_changed(loop: Loop, owner: ast.AST) -> Iterator[SourceMatch]:
    """Names that a loop changes and that nothing reads but to change them."""
    for change in loop.body:
        if not isinstance(change, ast.Assign | ast.AugAssign):
            continue
        target = change.targets[0] if isinstance(change, ast.Assign) else change.target
        if not isinstance(target, ast.Name) or target.id[0] == "_":
            continue
        name = target.id
        reads = [node for node in nodes(owner) if isinstance(node, ast.Name) and node.id == name]
        others = [node for node in reads if isinstance(node.ctx, ast.Load) and node not in nodes(change)]
        if others or name not in read_names(change):
            continue
        begun = _begun_at(owner, name)
        written = [node for one in loop.body for node in nodes(one) if isinstance(node, ast.expr)]
        same = [node for node in written if begun is not None and number_at(node) == begun]
        whole = [node for node in same if not any(node in nodes(one)[1:] for one in same)]
        if len(whole) == 1:
            yield SourceMatch(
                whole[0].lineno,
                f"{name} begins as {begun:g} and changes each time, but this line says {begun:g} every time, "
                f"and nothing uses {name}.",
                f"Write {name} instead of {begun:g}.",
                edit=replacing(whole[0], name),
            )
        else:
            yield SourceMatch(
                change.lineno,
                f"{name} changes here each time, but nothing uses it.",
                f"Use {name} in the loop, or remove the line.",
            )


def _begun_at(owner: ast.AST, name: str) -> Any:
    """The number that a name is given first; None if it is none."""
    for node in nodes(owner):
        if not isinstance(node, ast.Assign):
            continue
        pairs = [(node.targets[0], node.value)]
        if isinstance(node.targets[0], ast.Tuple) and isinstance(node.value, ast.Tuple):
            pairs = list(zip(node.targets[0].elts, node.value.elts, strict=False))
        for target, value in pairs:
            if last_name(target) == name:
                return number_at(value)
    return None


@rule(
    "half-used",
    HINT_OR_PROBLEM,
    "Reported when a line in a loop gives two or more names values at once, and nothing uses one of them.",
)
def _half_used(tree: ast.Module) -> Iterator[SourceMatch]:
    for owner in (tree, *functions(tree)):
        for loop in own_nodes(owner):
            if isinstance(loop, ast.For):
                yield from _half_used_in(loop, owner)


def _half_used_in(loop: ast.For, owner: ast.AST) -> Iterator[SourceMatch]:
    """Of the values that a loop works out, those that nothing uses before they are worked out anew."""
    read = [node for one in loop.body for node in nodes(one) if isinstance(node, ast.Name)]
    inside = {node.id for node in read if not isinstance(node.ctx, ast.Store)}
    end = loop.end_lineno or 0
    for statement in loop.body:
        if not isinstance(statement, ast.Assign) or not isinstance(statement.value, ast.Tuple):
            continue
        target = statement.targets[0]
        if not isinstance(target, ast.Tuple):
            continue
        names = [one.id for one in target.elts if isinstance(one, ast.Name)]
        unused = [name for name in names if name not in inside and not name.startswith("_")]
        if not isinstance(owner, ast.Module):  # what nothing reads in all of a function is an unused value
            unused = [name for name in unused if name in read_names(owner)]
        for name in unused if len(unused) < len(names) else ():
            after = [one for one in own_nodes(owner) if isinstance(one, ast.Name) and one.id == name]
            later = min((one for one in after if one.lineno > end), key=lambda one: one.lineno, default=None)
            if later is None or isinstance(later.ctx, ast.Store):
                yield SourceMatch(
                    statement.lineno,
                    f"{name} is given a value here that nothing in the loop uses.",
                    f"Use {name}, or leave it out.",
                )


@rule("unused-import", HINT, "Reported when a name is imported that nothing uses.")
def _unused_import(tree: ast.Module) -> Iterator[SourceMatch]:
    for line, name, _ in _about(tree, "UnusedImport"):
        short = name.rpartition(" as ")[2].rpartition(".")[2]
        yield SourceMatch(
            line, f"{short} is imported, but nothing uses it.", f"Use {short}, or remove it from the import."
        )


@rule(
    "defined-twice",
    PROBLEM,
    "Reported when two functions have the same name and nothing calls the first before the second takes its "
    "place.",
)
def _defined_twice(tree: ast.Module) -> Iterator[SourceMatch]:
    names = {(at.lineno, one.name) for one in functions(tree) for at in (one, *one.decorator_list)}
    for line, name, (first,) in _about(tree, "RedefinedWhileUnused"):
        if (line, name) in names:
            yield SourceMatch(
                line,
                f"This {name} takes the place of the {name} in line {first}, which nothing has used.",
                "Give one of the two another name, or remove the first.",
            )


# ── lines that do nothing ─────────────────────────────────────────────────────────────────────────────────


@rule(
    "no-effect",
    PROBLEM,
    "Reported when a line compares or computes something and keeps nothing of it.",
)
def _no_effect(tree: ast.Module) -> Iterator[SourceMatch]:
    for value in lone_expressions(tree):
        if not isinstance(value, ast.Compare | ast.BinOp | ast.UnaryOp | ast.Tuple) or _has_calls(value):
            continue
        words = ast.unparse(value)
        edit, fix = None, "Give the result a name, or remove the line."
        if isinstance(value, ast.Compare) and isinstance(value.ops[0], ast.Eq) and len(value.ops) == 1:
            right = value.comparators[0]
            if isinstance(value.left, ast.Name | ast.Attribute):
                fix = f"Write one = to give a value: {ast.unparse(value.left)} = {ast.unparse(right)}."
                if right.lineno == value.left.end_lineno:
                    edit = Edit(value.lineno, value.left.end_col_offset or 0, right.col_offset, " = ")
        elif isinstance(value, ast.Tuple) and _is_method(value.elts[0]):
            given = ", ".join(ast.unparse(one) for one in value.elts[1:])
            fix = f"Write {ast.unparse(value.elts[0])}({given})."
        elif isinstance(value, ast.BinOp) and isinstance(value.left, ast.Name):
            fix = f"Keep the result: {value.left.id} = {words}."
        yield SourceMatch(value.lineno, f"{words} changes nothing here.", fix, edit=edit)


def _is_method(node: ast.expr) -> bool:
    return isinstance(node, ast.Attribute) and callable(getattr(Nib, node.attr, None))


def _has_calls(node: ast.AST) -> bool:
    kinds = ast.Call | ast.Await | ast.Yield | ast.NamedExpr
    return any(isinstance(one, kinds) for one in nodes(node))


@rule(
    "unused-result",
    PROBLEM,
    "Reported when a call that only gives back something new, such as `motif.turned(45)`, stands alone on "
    "its line.",
)
def _unused_result(tree: ast.Module) -> Iterator[SourceMatch]:
    own = defined_names(tree)
    for call in lone_expressions(tree):
        if not isinstance(call, ast.Call) or (name := called(call)) in own:
            continue
        changed = call.func.value if isinstance(call.func, ast.Attribute) else None
        if name not in (NEW if changed is None else NEW_BY_METHOD):
            continue
        is_named = isinstance(changed, ast.Name) and name in NEW_OF_MOTIF | NEW_OF_TEXT
        kept = changed.id if is_named and isinstance(changed, ast.Name) else "result"
        fix = f"give it a name: {kept} = {ast.unparse(call)}"
        if name in MAKES_MOTIF:
            fix = f"draw it with nib.stamp({ast.unparse(call)}), or {fix}"
        yield SourceMatch(
            call.lineno,
            f"{ast.unparse(call)} gives back something new, and this line does not keep it.",
            _sentence(fix),
        )


@rule("unreachable", PROBLEM, "Reported when a line can never run, because the one before it leaves.")
def _unreachable(tree: ast.Module) -> Iterator[SourceMatch]:
    for body in every_block(tree):
        for leaving, after in pairwise(body):
            is_generator = isinstance(after, ast.Expr) and isinstance(after.value, ast.Yield)
            if isinstance(leaving, LEAVING) and not is_generator:
                word = type(leaving).__name__.lower()
                yield SourceMatch(
                    after.lineno,
                    f"This line never runs: {word} in line {leaving.lineno} leaves before it.",
                    f"Move it before {word}, or indent {word} less or more.",
                )
                break


# ── conditions ──────────────────────────────────────────────────────────────────────────────────


@rule(
    "fixed-condition",
    PROBLEM,
    "Reported when a condition is always true or never, or a branch is hidden by one before it.",
)
def _fixed_condition(tree: ast.Module) -> Iterator[SourceMatch]:
    for node in nodes(tree):
        if isinstance(node, ast.If | ast.While | ast.IfExp):
            yield from _always_true(node.test)
        if isinstance(node, ast.If):
            yield from _hidden_branches(node)
        if isinstance(node, ast.Compare):
            yield from _never_the_remainder(node)
    for body in every_block(tree):
        for before, loop in pairwise(body):
            if isinstance(loop, ast.While):
                yield from _false_at_once(before, loop)
    for function in functions(tree):
        yield from _never_that_text(function, tree)


def _never_that_text(function: Function, tree: ast.Module) -> Iterator[SourceMatch]:
    """`side == "Left"` in a function that all calls give "left" or "right"."""
    calls = calls_of(tree, function.name)
    named = [node for node in nodes(tree) if isinstance(node, ast.Name) and node.id == function.name]
    changed = set().union(*map(changed_names, function.body))
    if len(named) != len(calls) or not calls:
        return
    for at, one in enumerate(function.args.args):
        given = [call.args[at] if len(call.args) > at else _keyword(call, one.arg) for call in calls]
        texts = [part.value for part in given if isinstance(part, ast.Constant) and type(part.value) is str]
        if len(texts) != len(calls) or one.arg in changed:
            continue
        every = " or ".join(f'"{word}"' for word in sorted(set(texts)))
        for test in nodes(function):
            if not isinstance(test, ast.Compare) or not isinstance(test.ops[0], ast.Eq):
                continue
            asked = test.comparators[0]
            text = asked.value if isinstance(asked, ast.Constant) else None
            if last_name(test.left) != one.arg or not isinstance(text, str) or text in texts:
                continue
            near = nearest(text, texts, 1)
            yield SourceMatch(
                test.lineno,
                f"{ast.unparse(test)} is never true: every call gives {one.arg} as {every}.",
                f'Write "{near[0]}" instead.' if near else "Ask for one of the texts that are given.",
                edit=replacing(asked, f'"{near[0]}"') if near else None,
            )


def _keyword(call: ast.Call, name: str) -> ast.expr | None:
    return next((one.value for one in call.keywords if one.arg == name), None)


def _always_true(test: ast.expr) -> Iterator[SourceMatch]:
    """`word == "a" or "b"`."""
    if not isinstance(test, ast.BoolOp) or not isinstance(test.op, ast.Or):
        return
    first, *others = test.values
    for other in others:
        if isinstance(first, ast.Compare) and isinstance(other, ast.Constant) and other.value:
            both = f"{ast.unparse(first)} or {ast.unparse(first.left)} == {ast.unparse(other)}"
            yield SourceMatch(
                test.lineno,
                f"{ast.unparse(test)} is always true, because {ast.unparse(other)} alone counts as true.",
                f"Compare both: {both}.",
            )
            return


def _never_the_remainder(test: ast.Compare) -> Iterator[SourceMatch]:
    """`row % 2 == 2`, `day % 7 >= 7`."""
    whole, number = test.left, number_at(test.comparators[0])
    if len(test.ops) != 1 or not isinstance(test.ops[0], ast.Eq | ast.GtE | ast.Gt) or number is None:
        return
    if not isinstance(whole, ast.BinOp) or not isinstance(whole.op, ast.Mod):
        return
    divisor = number_at(whole.right)
    sign = {ast.Eq: "==", ast.GtE: ">=", ast.Gt: ">"}[type(test.ops[0])]
    if divisor and divisor > 0 and (number >= divisor or (sign == "==" and number < 0)):
        yield SourceMatch(
            test.lineno,
            f"{ast.unparse(test)} is never true: the remainder of a division by {divisor:g} is from 0 up to, "
            f"but not including, {divisor:g}.",
            f"Compare with a smaller number: {ast.unparse(whole)} {sign} {divisor - 1:g}.",
        )


@rule(
    "quotient-for-remainder",
    HINT_OR_PROBLEM,
    "Reported when a quotient is compared with 0, which it is for 0 alone: i / 2 == 0.",
)
def _quotient_for_remainder(tree: ast.Module) -> Iterator[SourceMatch]:
    for test in nodes(tree):
        if not isinstance(test, ast.Compare) or not isinstance(test.ops[0], ast.Eq | ast.NotEq):
            continue
        whole = test.left
        if not isinstance(whole, ast.BinOp) or not isinstance(whole.op, ast.Div):
            continue
        if number_at(test.comparators[0]) == 0 and number_at(whole.right):
            left, right = ast.unparse(whole.left), ast.unparse(whole.right)
            yield SourceMatch(
                test.lineno,
                f"{left} / {right} is 0 only if {left} is.",
                f"Write {left} % {right}: the remainder is 0 for each multiple of {right}.",
                edit=replacing(whole, f"{left} % {right}"),
            )


@rule(
    "missing-brackets",
    HINT_OR_PROBLEM,
    "Reported when a sum is compared with a number, of which only the last term is divided for its "
    "remainder: row + column % 2 == 0.",
)
def _missing_brackets(tree: ast.Module) -> Iterator[SourceMatch]:
    for test in nodes(tree):
        if not isinstance(test, ast.Compare) or not isinstance(test.ops[0], ast.Eq | ast.NotEq):
            continue
        whole, number = test.left, number_at(test.comparators[0])
        if not isinstance(whole, ast.BinOp) or not isinstance(whole.op, ast.Add | ast.Sub):
            continue
        last = whole.right
        if not isinstance(last, ast.BinOp) or not isinstance(last.op, ast.Mod) or number is None:
            continue
        divisor = number_at(last.right)
        if divisor is None or not 0 <= number < divisor or number_at(whole.left) is not None:
            continue
        sign = "+" if isinstance(whole.op, ast.Add) else "-"
        wanted = f"({ast.unparse(whole.left)} {sign} {ast.unparse(last.left)}) % {divisor}"
        yield SourceMatch(
            test.lineno,
            f"In {ast.unparse(whole)} only {ast.unparse(last.left)} is divided, not the sum.",
            f"Put brackets round the sum: {wanted}.",
            edit=replacing(whole, wanted),
        )


@rule(
    "unused-items",
    HINT,
    "Reported when a list or text of three items or more is used for one of them alone, always the same.",
)
def _unused_items(tree: ast.Module) -> Iterator[SourceMatch]:
    for owner in (tree, *functions(tree)):
        for node in owner.body:
            yield from _unused_items_of(node, owner)
    for item in nodes(tree):
        if isinstance(item, ast.Subscript) and type(number_at(item.slice)) is int:
            count = _length(item.value)
            if count >= FEWEST_ITEMS:
                yield SourceMatch(
                    item.lineno,
                    f"{ast.unparse(item)} is one of {count} items, and always the same one.",
                    "Choose by a number that changes, such as that of a loop.",
                )


def _length(value: ast.expr) -> int:
    """How many items a list, or letters a text, has as it is written; 0 of anything else."""
    if isinstance(value, ast.List | ast.Tuple):
        return len(value.elts)
    return len(value.value) if isinstance(value, ast.Constant) and isinstance(value.value, str) else 0


def _unused_items_of(node: ast.stmt, owner: ast.AST) -> Iterator[SourceMatch]:
    """Of a list that a module or function makes."""
    target = node.targets[0] if isinstance(node, ast.Assign) else None
    if not isinstance(node, ast.Assign) or not isinstance(target, ast.Name):
        return
    if not isinstance(node.value, ast.List | ast.Tuple) or len(node.value.elts) < FEWEST_ITEMS:
        return
    name = target.id
    every = nodes(owner)
    taken = [one for one in every if isinstance(one, ast.Subscript) and last_name(one.value) == name]
    named = [one for one in every if isinstance(one, ast.Name) and one.id == name]
    indices = {number_at(one.slice) for one in taken}
    if len(named) == len(taken) + 1 and len(indices) == 1 and None not in indices:
        first = taken[0]
        yield SourceMatch(
            first.lineno,
            f"{name} has {len(node.value.elts)} items, but only {ast.unparse(first)} is ever used.",
            f"Choose by a number that changes, such as {name}[i % {len(node.value.elts)}].",
        )


def _false_at_once(before: ast.stmt, loop: ast.While) -> Iterator[SourceMatch]:
    if not isinstance(before, ast.Assign) or not isinstance(before.targets[0], ast.Name):
        return
    value, asked = number_at(before.value), _comparison(loop.test)
    if value is None or asked is None or asked[0] != before.targets[0].id:
        return
    name, kind, limit = asked
    if not COMPARED[kind](value, limit):
        yield SourceMatch(
            loop.lineno,
            f"{ast.unparse(loop.test)} is false at once, because {name} begins with {value:g}, so the loop "
            f"never runs.",
            f"Turn the comparison round, or begin with another {name}.",
        )


def _hidden_branches(node: ast.If) -> Iterator[SourceMatch]:
    """`if size > 5: … elif size > 10: …`: what the second asks, the first has taken."""
    first, rest = _comparison(node.test), node.orelse
    while first is not None and len(rest) == 1 and isinstance(rest[0], ast.If):
        other = _comparison(rest[0].test)
        if other is not None and other[:2] == first[:2] and _is_within(first[1], first[2], other[2]):
            yield SourceMatch(
                rest[0].lineno,
                f"This branch never runs: whatever has {ast.unparse(rest[0].test)} also has "
                f"{ast.unparse(node.test)}, in line {node.lineno}.",
                f"Ask for {ast.unparse(rest[0].test)} first.",
            )
        rest = rest[0].orelse


def _comparison(test: ast.expr) -> tuple[str, type[ast.cmpop], float] | None:
    """The name, the kind and the number of a plain comparison."""
    if not isinstance(test, ast.Compare) or len(test.ops) != 1 or not isinstance(test.left, ast.Name):
        return None
    number, kind = number_at(test.comparators[0]), type(test.ops[0])
    return (test.left.id, kind, number) if number is not None and kind in COMPARED else None


def _is_within(kind: type[ast.cmpop], first: float, second: float) -> bool:
    """Whether what the second number lets through the first has let through."""
    if kind in (ast.Gt, ast.GtE):
        return second >= first
    if kind in (ast.Lt, ast.LtE):
        return second <= first
    return kind is ast.Eq and second == first


@rule(
    "shared-default",
    PROBLEM,
    "Reported when a function changes the list that is the default of its parameter, which all its calls "
    "share.",
)
def _shared_default(tree: ast.Module) -> Iterator[SourceMatch]:
    for function in functions(tree):
        for one, default in defaults(function).items():
            if isinstance(default, ast.List | ast.Dict | ast.Set) and _is_changed(function, one.arg):
                yield SourceMatch(
                    one.lineno,
                    f"All calls of {function.name} share this one {one.arg}, which grows from call to call.",
                    f"Write {one.arg}=None, and inside: if {one.arg} is None: {one.arg} = "
                    f"{ast.unparse(default)}.",
                )


CHANGING = {"append", "extend", "insert", "pop", "remove", "clear", "sort", "reverse", "add", "update"}


def _is_changed(function: Function, name: str) -> bool:
    """Whether a function changes what a name stands for, before it gives it another value."""
    if name in changed_names(function):
        return False
    for node in nodes(function):
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Attribute):
            changed = node.func.value if node.func.attr in CHANGING else None
        elif isinstance(node, ast.Subscript) and isinstance(node.ctx, ast.Store):
            changed = node.value
        else:
            continue
        if isinstance(changed, ast.Name) and changed.id == name:
            return True
    return False


@rule(
    "hidden-builtin",
    PROBLEM,
    "Reported when a value gets the name of one of Python's own functions, such as max, and that function is "
    "called later.",
)
def _hidden_builtin(tree: ast.Module) -> Iterator[SourceMatch]:
    for owner in (tree, *functions(tree)):
        hidden = _values_called_as_builtins(owner)
        if not hidden:
            continue
        for node in nodes(owner):
            name = called(node) if isinstance(node, ast.Call) and isinstance(node.func, ast.Name) else ""
            line = hidden.get(name)
            # In a function the name is its own from the first line on.
            if line is None or (owner is tree and node.lineno <= line):  # type: ignore[attr-defined]
                continue
            del hidden[name]
            at: int = node.lineno  # type: ignore[attr-defined]
            yield SourceMatch(
                line,
                f"{name} is a value of this program here, so {name}(…) in line {at} cannot be called.",
                f"Give the value another name, such as {name}_value.",
            )


BUILTINS = {name for name, value in vars(builtins).items() if callable(value) and name.islower()}


def _values_called_as_builtins(owner: ast.AST) -> dict[str, int]:
    """The lines on which an owner gives a value that cannot be called the name of a function of Python's."""
    found: dict[str, int] = {}
    others: set[str] = set()
    for node in own_nodes(owner):
        if isinstance(node, ast.Assign):
            pairs = [(target, node.value) for target in node.targets]
        elif isinstance(node, ast.AnnAssign | ast.NamedExpr) and node.value is not None:
            pairs = [(node.target, node.value)]
        else:
            continue
        for target, value in pairs:
            if isinstance(target, ast.Name) and target.id in BUILTINS:
                if _is_plain(value):
                    found.setdefault(target.id, node.lineno)
                else:
                    others.add(target.id)
    others |= {node.name for node in nodes(owner) if isinstance(node, Function | ast.ClassDef)}
    return {name: line for name, line in found.items() if name not in others}


def _is_plain(value: ast.expr) -> bool:
    """Whether a value is none that could be called: a number, a text, a list, or worked out from some."""
    plain = ast.Constant | ast.List | ast.Tuple | ast.Dict | ast.Set | ast.BinOp | ast.JoinedStr | ast.Compare
    if isinstance(value, ast.UnaryOp):
        return _is_plain(value.operand)
    return isinstance(value, plain) and not (isinstance(value, ast.Constant) and value.value is None)
