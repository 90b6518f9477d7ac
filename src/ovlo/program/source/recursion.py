"""Functions that call themselves: whether they come to an end, and whether the nib finds its way back.

for one in infinite_recursion(tree): ...
"""

from __future__ import annotations

import ast
from collections.abc import Iterator

from ovlo.core.values.finding import HINT_OR_PROBLEM, PROBLEM, rule
from ovlo.program.source.tree import (
    Function,
    SourceMatch,
    blocks,
    called,
    changed_names,
    functions,
    last_name,
    nodes,
    parameters,
    plainly_asked,
    read_names,
    replacing,
    steered,
)

WAYS_BACK = {
    "back", "returning", "travel", "travel_to", "travel_by", "line_to", "line_by", "line_to_start", "copy",
}  # fmt: skip
"""Methods by which a nib comes back to where a branch began."""

FEWEST_BRANCHES = 2


@rule(
    "infinite-recursion",
    PROBLEM,
    "Reported when a function calls itself with the very values it was given, or with the same value of "
    "all that its conditions ask for. Not reported if random numbers decide whether it goes on.",
)
def infinite_recursion(tree: ast.Module) -> Iterator[SourceMatch]:
    """Functions that call themselves without end."""
    for function in functions(tree):
        taken = [one.arg for one in function.args.args]
        is_by_chance = any(last_name(node) == "dice" for node in nodes(function))
        if not taken or is_by_chance:
            continue
        # What is gone through in a loop may be used up by it, as a file or an iterator is.
        changed, asked = changed_names(function) | _gone_through(function), _asked(function)
        for call in _own_calls(function):
            passed_on = _passed_on(call, taken) - changed
            again = f"{function.name}({', '.join(taken)})"
            if passed_on == set(taken):
                yield SourceMatch(
                    call.lineno,
                    f"{function.name} calls itself with the very values it was given, so it never ends.",
                    f"Pass {again} a smaller value, such as a shorter side or a depth that counts down.",
                )
            elif asked and asked <= passed_on:
                names = " and ".join(sorted(asked))
                yield SourceMatch(
                    call.lineno,
                    f"{function.name} asks for {names} to know when to stop, but passes {names} on "
                    "unchanged, so it never ends.",
                    f"Pass a smaller value, such as {sorted(asked)[0]} - 1.",
                )


def _own_calls(function: Function) -> list[ast.Call]:
    """The calls of a function to itself, in its order."""
    found = [
        node
        for node in nodes(function)
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id == function.name
    ]
    return sorted(found, key=lambda call: call.lineno)


def _gone_through(function: Function) -> set[str]:
    """The names that loops of a function go through."""
    loops = (node.iter for node in nodes(function) if isinstance(node, ast.For))
    return {one.id for one in loops if isinstance(one, ast.Name)}


def _asked(function: Function) -> set[str]:
    """The parameters that decide how a function goes on; none if anything else has a part in that."""
    asked: set[str] = set()
    for node in nodes(function):
        if isinstance(node, ast.If | ast.While | ast.IfExp):
            names = plainly_asked(node.test)
            if not names or not names <= {one.arg for one in parameters(function)}:
                return set()
            asked |= names
        elif isinstance(node, ast.For | ast.Match | ast.Try):
            return set()
    return asked


def _passed_on(call: ast.Call, taken: list[str]) -> set[str]:
    """The parameters that a call is given by their own names, as they are."""
    given = [*zip(taken, call.args, strict=False), *((one.arg, one.value) for one in call.keywords)]
    return {name for name, value in given if name and isinstance(value, ast.Name) and value.id == name}


@rule(
    "no-way-back",
    HINT_OR_PROBLEM,
    "Reported when a function goes forward by a length, calls itself twice or more with a changed length, "
    "and never brings the nib back, so that a branch begins where the last twig ended.",
)
def no_way_back(tree: ast.Module) -> Iterator[SourceMatch]:
    """Trees that grow on from their last twig."""
    for function in functions(tree):
        calls = _own_calls(function)
        if len(calls) < FEWEST_BRANCHES or any(called(node) in WAYS_BACK for node in nodes(function)):
            continue
        for body in blocks(function):
            grown = [move for one in body if (move := steered(one, ("forward",)))]
            inside = [call for call in calls if any(call in nodes(one) for one in body)]
            if grown and len(inside) >= FEWEST_BRANCHES and _branches(function, grown[0], inside):
                length = ast.unparse(grown[0].args[0])
                nib = ast.unparse(grown[0].func).rpartition(".")[0]
                if len(grown) == 2 and ast.unparse(grown[1]) == ast.unparse(grown[0]):
                    yield SourceMatch(
                        grown[1].lineno,
                        f"{function.name} goes forward by {length} twice and never comes back, so the next "
                        "branch begins beyond this one.",
                        f"Write {nib}.back({length}) here.",
                        edit=replacing(grown[1], f"{nib}.back({length})"),
                    )
                    continue
                yield SourceMatch(
                    inside[1].lineno,
                    f"{function.name} goes forward by {length} and never comes back, so this branch begins "
                    "where the one before ended.",
                    f"Write {nib}.back({length}) at the end of {function.name}, or put its moves into "
                    f"`with {nib}.returning():`.",
                )


def _branches(function: Function, move: ast.Call, calls: list[ast.Call]) -> bool:
    """Whether a function goes forward by a parameter, and then calls itself with another value of it."""
    length, taken = move.args[0], [one.arg for one in function.args.args]
    if not isinstance(length, ast.Name) or length.id not in taken or move.lineno >= calls[0].lineno:
        return False
    at = taken.index(length.id)
    return all(len(call.args) > at and _changes(call.args[at], length.id) for call in calls)


def _changes(value: ast.expr, name: str) -> bool:
    """Whether a value is worked out from a name, and is not the name itself."""
    return not isinstance(value, ast.Name) and name in read_names(value)
