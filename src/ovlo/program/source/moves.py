"""Moves and turns that are nearly others: a line for a travel, turns that all but cancel out, y before x.

for one in line_to_figure(tree): ...
"""

from __future__ import annotations

import ast
from collections.abc import Iterator
from itertools import combinations

from ovlo.core.values.finding import HINT, HINT_OR_PROBLEM, Edit, rule
from ovlo.program.source.loops import MARKS, TRAVELS, TURNS, parameters_of_nib
from ovlo.program.source.tree import (
    Function,
    Loop,
    SourceMatch,
    all_names,
    called,
    called_by,
    calls_of,
    every_block,
    functions,
    nodes,
    number_at,
    parameters,
    read_names,
    replacing,
    steered,
)

FIGURES = MARKS - {"circle", "spiral"}
"""Methods that begin a figure of their own; a circle where a line ends is its bead."""

SHAPES = FIGURES - {"area"} | {"circle"}

CIRCULAR = {"turn_to", "aim_at", "arc_left", "arc_right", "area"}
"""Where a loop calls one of these, its turns alone do not say how it bends."""

SLIGHT = 20
"""Degrees by which turns that nearly cancel out may differ."""


@rule(
    "line-to-figure",
    HINT_OR_PROBLEM,
    "Reported when line_to, which draws, leads to a point where a new figure begins: where the nib turns to "
    "a heading, where an area, a text or a shape is drawn, or where a function begins to draw each of "
    "several figures. Not reported inside an area, behind a travel, and where the pen is lifted.",
)
def line_to_figure(tree: ast.Module) -> Iterator[SourceMatch]:
    """Lines to a figure that has nothing to do with the one before."""
    if any(called(node) in ("lift", "lifted") for node in nodes(tree)):
        return
    areas = [node for node in nodes(tree) if isinstance(node, ast.With) and called_by(node) == "area"]
    inside = {id(one) for area in areas for one in nodes(area)}
    firsts = {id(function.body[0]) for function in functions(tree) if _sends_first(function, tree)}
    for body in every_block(tree):
        for i, line in enumerate(body):
            call = getattr(line, "value", None)
            if called_by(line) != "line_to" or not isinstance(call, ast.Call) or id(line) in inside:
                continue
            what = "a figure begins that is drawn in several places" if id(line) in firsts else ""
            if i + 1 < len(body) and not (i and called_by(body[i - 1]) in TRAVELS):
                what = _begun(called_by(body[i + 1])) or what
            if what and isinstance(call.func, ast.Attribute):
                travel = f"{ast.unparse(call.func.value)}.travel_to"
                yield SourceMatch(
                    line.lineno,
                    f"{ast.unparse(call.func)} draws a line to where {what}.",
                    f"Write {travel} instead, if no line should lead there.",
                    edit=replacing(call.func, travel),
                )


def _begun(name: str) -> str:
    """What begins where a method is called, in words; "" if nothing does."""
    if name == "turn_to":
        return "the nib turns to another heading"
    return f"{'an' if name[0] in 'ae' else 'a'} {name} begins" if name in FIGURES else ""


def _sends_first(function: Function, tree: ast.Module) -> bool:
    """Whether a function that draws figures in several places begins with a line to a place it is given."""
    first, *rest = function.body
    given = {one.arg for one in parameters(function)}
    if called_by(first) != "line_to" or not read_names(first) & given:
        return False
    calls = calls_of(tree, function.name)
    is_looped = any(call in nodes(loop) for call in calls for loop in nodes(tree) if isinstance(loop, Loop))
    return (len(calls) > 1 or is_looped) and any(called_by(one) not in ("line_to", "") for one in rest)


@rule(
    "left-over-turn",
    HINT_OR_PROBLEM,
    "Reported when a loop turns the nib to a heading that changes each time, and the lines behind it write a "
    "text before they turn the nib again.",
)
def left_over_turn(tree: ast.Module) -> Iterator[SourceMatch]:
    """Words that are tilted as the last of many figures is."""
    for body in every_block(tree):
        for i, loop in enumerate(body):
            if not isinstance(loop, Loop) or not any(map(_turns_each_time, loop.body)):
                continue
            for one in body[i + 1 :]:
                calls = {called(node) for node in nodes(one)} - {""}
                if called_by(one) == "text":
                    first = body[i + 1]
                    yield SourceMatch(
                        first.lineno,
                        f"The loop in line {loop.lineno} leaves the nib turned like its last figure, so the "
                        f"words in line {one.lineno} are tilted.",
                        "Write nib.turn_to(0) behind the loop.",
                    )
                if called_by(one) not in {*MARKS, *TRAVELS} and calls:
                    break


def _turns_each_time(statement: ast.stmt) -> bool:
    """Whether a statement turns the nib to a heading that is reckoned anew."""
    call = steered(statement, ("turn_to",))
    return call is not None and number_at(call.args[0]) is None


@rule(
    "drawn-before-travel",
    HINT_OR_PROBLEM,
    "Reported when a function or loop travels to places that it is given, but draws its first shape before "
    "it travels at all.",
)
def drawn_before_travel(tree: ast.Module) -> Iterator[SourceMatch]:
    """A first shape that is drawn wherever the last figure ended."""
    for owner in nodes(tree):
        if isinstance(owner, Function):
            given = {one.arg for one in parameters(owner)} - {"nib"}
        elif isinstance(owner, ast.For):
            given = all_names(owner.target)
        else:
            continue
        drawn = [i for i, one in enumerate(owner.body) if not _is_quiet(one)]
        first = owner.body[drawn[0]] if drawn else None
        if not isinstance(first, ast.Expr) or called_by(first) not in SHAPES:
            continue
        travels = [one for one in owner.body[drawn[0] :] if called_by(one) == "travel_to"]
        if any(read_names(one) & given for one in travels):
            yield SourceMatch(
                first.lineno,
                f"This {called_by(first)} is drawn before the nib travels anywhere, so it stands where the "
                "last figure ended.",
                "Travel to its place first, as for the others: nib.travel_to(…).",
            )


def _is_quiet(statement: ast.stmt) -> bool:
    """Whether a statement neither draws nor moves: words, a value, a turn."""
    is_words = isinstance(statement, ast.Expr) and isinstance(statement.value, ast.Constant)
    return is_words or isinstance(statement, ast.Assign) or called_by(statement) in {*TURNS, "turn_to"}


@rule(
    "uneven-turns",
    HINT_OR_PROBLEM,
    f"Reported when a loop turns once to the left and once to the right, by angles that differ by {SLIGHT}° "
    "or less, so that stairs bend.",
)
def uneven_turns(tree: ast.Module) -> Iterator[SourceMatch]:
    """`left(85)` and `right(90)` in one loop."""
    for loop in nodes(tree):
        if not isinstance(loop, Loop) or {called_by(one) for one in loop.body} & CIRCULAR:
            continue
        turns = [one for one in loop.body if called_by(one) in TURNS]
        calls = [call for one in turns if (call := steered(one, ("left", "right"))) is not None]
        if len(turns) != 2 or {called(one) for one in calls} != {"left", "right"}:
            continue
        first, second = (number_at(call.args[0]) for call in calls)
        if first and second and 0 < abs(first - second) <= SLIGHT:
            yield SourceMatch(
                calls[1].lineno,
                f"Each time the loop turns by {first:g}° to one side and by {second:g}° to the other, so "
                "what it draws bends.",
                f"Turn by {first:g}° both times, if it should go on straight.",
                edit=replacing(calls[1].args[0], f"{first:g}"),
            )


@rule(
    "swapped-values",
    HINT,
    "Reported when a call is given two names that are those of its own parameters, but each in the place of "
    "the other: travel_to(y, x). Not reported for a function that is called both ways.",
)
def swapped_values(tree: ast.Module) -> Iterator[SourceMatch]:
    """Names that are given in the place of each other."""
    taken = {one.name: tuple(arg.arg for arg in parameters(one)) for one in functions(tree)}
    found: list[tuple[tuple[str, str, str], SourceMatch]] = []
    straight: set[tuple[str, str, str]] = set()
    for call in nodes(tree):
        if not isinstance(call, ast.Call):
            continue
        name = called(call)
        is_own = isinstance(call.func, ast.Name)
        known = taken.get(name, ()) if is_own else parameters_of_nib(name)
        for (a, first), (b, second) in combinations(zip(known, call.args, strict=False), 2):
            given = getattr(first, "id", ""), getattr(second, "id", "")
            if given == (a, b) and is_own:
                straight.add((name, a, b))
            if given == (b, a):
                is_next = known.index(b) == known.index(a) + 1 and first.lineno == second.end_lineno
                edit = Edit(first.lineno, first.col_offset, second.end_col_offset or 0, f"{a}, {b}")
                match = SourceMatch(
                    call.lineno,
                    f"{name} takes {a} before {b}, but is given {b} before {a}.",
                    f"Write {a} where {b} stands, and {b} where {a} stands.",
                    edit=edit if is_next else None,
                )
                found.append(((name, a, b), match))
    yield from (match for pair, match in found if pair not in straight)


FEWEST_LIKE = 3
"""Calls that all name where their figure stands or their words begin."""


@rule(
    "left-out-word",
    HINT,
    f"Reported when {FEWEST_LIKE} or more calls of a method are all given the same anchor or align, and one "
    "more is given none.",
)
def left_out_word(tree: ast.Module) -> Iterator[SourceMatch]:
    """The one rectangle without the anchor of all others, the one text without their align."""
    for method, word in (("rectangle", "anchor"), ("text", "align")):
        calls = [call for call in calls_of(tree, method) if isinstance(call.func, ast.Attribute)]
        given = [[ast.unparse(one.value) for one in call.keywords if one.arg == word] for call in calls]
        values = {value for some in given for value in some}
        if given.count([]) == 1 and len(given) > FEWEST_LIKE and len(values) == 1:
            call, value = calls[given.index([])], values.pop()
            yield SourceMatch(
                call.lineno,
                f"All other calls of {method} are given {word}={value}; this one is not.",
                f"Add {word}={value}, unless this one is to differ.",
            )
