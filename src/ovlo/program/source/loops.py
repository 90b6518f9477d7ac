"""Loops that do not repeat what they should: what stands outside, what is counted in vain, what never ends.

for one in turn_outside_loop(tree): ...
"""

from __future__ import annotations

import ast
import inspect
from collections.abc import Iterator
from functools import lru_cache
from itertools import pairwise
from typing import Any

from ovlo.core.sheet.nib import Nib
from ovlo.core.values.finding import HINT_OR_PROBLEM, PROBLEM, Edit, rule
from ovlo.program.source.tree import (
    Function,
    SourceMatch,
    all_names,
    called,
    changed_names,
    default_numbers,
    every_block,
    functions,
    indenting,
    last_name,
    nodes,
    number_at,
    own_nodes,
    plainly_asked,
    read_names,
    replacing,
    steered,
)

TURNS = ("left", "right")

TRAVELS = ("travel", "travel_by", "travel_to")

STEERING = {*TURNS, *TRAVELS, "forward", "back"}

MARKS = {"text", "stamp", "circle", "ellipse", "polygon", "star", "rectangle", "spiral", "area"}
"""Methods that draw something in one place."""

FIGURE_COUNTS = range(3, 37)
"""Figures of a rosette, as its turn is written."""

WAYS_OUT = ast.Return | ast.Raise | ast.Break | ast.Yield | ast.YieldFrom


# ── what stands outside ───────────────────────────────────────────────────────────────────────────────────


@rule(
    "turn-outside-loop",
    HINT_OR_PROBLEM,
    "Reported when a loop does nothing but go ahead by one length, so that it draws one long line, and a "
    "turn stands right behind it; and when a loop only calls one function, and a turn or travel behind it is "
    "the last line of the program.",
)
def turn_outside_loop(tree: ast.Module) -> Iterator[SourceMatch]:
    """Turns that stand behind the loop they belong into."""
    own = {one.name for one in functions(tree)}
    # What is drawn by itself: nothing goes on behind its last line.
    whole = {id(tree.body), *(id(one.body) for one in functions(tree) if one.decorator_list)}
    for body in every_block(tree):
        for number, (loop, after) in enumerate(pairwise(body)):
            if not isinstance(loop, ast.For) or len(loop.body) != 1 or called(loop.iter) == "full_turn":
                continue
            is_fixed = not read_names(loop.body[0]) & all_names(loop.target)
            turned = steered(after, TURNS)
            if is_fixed and turned is not None and steered(loop.body[0], ("forward", "back")):
                words = f"The loop above draws one long line, since {ast.unparse(turned)} is not in it."
                yield _to_be_indented(after, words, "so that the nib turns each time")
            elif _is_shape_call(loop.body[0], own) and id(body) in whole:
                if steered(after, TURNS + TRAVELS) is None or not _is_last(body[number + 2 :]):
                    continue
                call = ast.unparse(loop.body[0])
                words = (
                    f"The loop above calls {call} from where the last call ended, and this line comes last."
                )
                yield _to_be_indented(after, words, "if it should happen each time")


def _to_be_indented(after: ast.stmt, message: str, why: str) -> SourceMatch:
    words = ast.unparse(after).partition("\n")[0].rstrip(":")
    return SourceMatch(after.lineno, message, f"Indent {words}, {why}.", edit=indenting(after))


def _is_shape_call(statement: ast.stmt, own: set[str]) -> bool:
    """Whether a statement calls a function of the program, or draws a shape."""
    name = called(statement.value) if isinstance(statement, ast.Expr) else ""
    return name in own or name in MARKS


def _is_last(rest: list[ast.stmt]) -> bool:
    """Whether nothing is drawn after a statement: the picture is saved or shown, at most."""
    return all(isinstance(one, ast.Expr) and called(one.value) in {"save", "show", "print"} for one in rest)


@rule(
    "drawn-after-loop",
    HINT_OR_PROBLEM,
    "Reported when a loop travels from point to point without drawing, and the line behind it draws at the "
    "last of them; and when the line behind a loop draws with what the loop counts.",
)
def drawn_after_loop(tree: ast.Module) -> Iterator[SourceMatch]:
    """Loops of travels, with what should be drawn at each point behind them."""
    own = {one.name for one in functions(tree)}
    for body in every_block(tree):
        for loop, after in pairwise(body):
            if not isinstance(loop, ast.For) or loop.orelse:
                continue
            calls = [after.value] if isinstance(after, ast.Expr) else []
            if isinstance(after, ast.With):
                calls = [item.context_expr for item in after.items]
            if not calls or (called(calls[0]) not in MARKS and called(calls[0]) not in own):
                continue
            if not _only_travels(loop):
                yield from _drawn_once(loop, after, calls[0])
            else:
                words = (
                    f"The loop in line {loop.lineno} only travels, and this line draws once, at the last "
                    "point."
                )
                yield _to_be_indented(after, words, "so that it is drawn at each point")


def _drawn_once(loop: ast.For, after: ast.stmt, call: ast.expr) -> Iterator[SourceMatch]:
    """A mark behind a loop that shows what the loop counts, which is the last of it."""
    counted = all_names(loop.target) & read_names(call)
    if counted and not any(isinstance(one, ast.Break) for one in nodes(loop)):
        name = min(counted)
        words = f"This line draws once, with the last {name} that the loop in line {loop.lineno} counts."
        yield _to_be_indented(after, words, f"so that it is drawn for each {name}")


def _only_travels(loop: ast.For) -> bool:
    """Whether a loop goes to other points each time, and does nothing there."""
    made = all_names(loop.target)
    goes = False
    for one in loop.body:
        if isinstance(one, ast.Assign):
            made |= changed_names(one)
        elif isinstance(one, ast.Expr) and called(one.value) == "travel_to":
            goes |= bool(read_names(one) & made)
        elif not (isinstance(one, ast.Expr) and called(one.value) in {"turn_to", "aim_at", *TURNS}):
            return False
    return goes


@rule(
    "changed-after-loop",
    HINT_OR_PROBLEM,
    "Reported when the line behind a loop changes a value that the loop uses and nothing uses after that.",
)
def changed_after_loop(tree: ast.Module) -> Iterator[SourceMatch]:
    """Values that should change each time, and change once, when nobody asks for them any more."""
    for owner in (tree, *functions(tree)):
        body: list[ast.stmt] = getattr(owner, "body", [])
        for number, (loop, after) in enumerate(pairwise(body)):
            name = _changed_by_itself(after)
            if not isinstance(loop, ast.For) or not name or name in changed_names(loop):
                continue
            inner = (read_names(one) for one in functions(owner) if one is not owner)
            later = set().union(*map(read_names, body[number + 2 :]), *inner)
            if name in read_names(loop) and name not in later:
                words = (
                    f"{name} changes here once, behind the loop in line {loop.lineno}, and is not used again."
                )
                yield _to_be_indented(after, words, "so that it changes each time")


def _changed_by_itself(statement: ast.stmt) -> str:
    """The name that `size = size - 5` or `size -= 5` changes."""
    if isinstance(statement, ast.AugAssign):
        return last_name(statement.target)
    if isinstance(statement, ast.Assign) and isinstance(statement.targets[0], ast.Name):
        name = statement.targets[0].id
        return name if name in read_names(statement.value) else ""
    return ""


# ── what is counted ───────────────────────────────────────────────────────────────────────────────────────


@rule(
    "turned-twice",
    HINT_OR_PROBLEM,
    "Reported when a loop of `full_turn`, which turns the nib by itself, begins or ends with the same turn "
    "once more.",
)
def turned_twice(tree: ast.Module) -> Iterator[SourceMatch]:
    """Turns of one's own where `full_turn` turns already."""
    for loop in nodes(tree):
        if not isinstance(loop, ast.For) or called(loop.iter) != "full_turn":
            continue
        assert isinstance(loop.iter, ast.Call)
        count = next(iter(loop.iter.args), None)
        turns = [call for one in loop.body if (call := steered(one, TURNS))]
        if count is None or len(turns) != 1 or not _is_part_of_turn(turns[0].args[0], count):
            continue
        if turns[0] not in (getattr(loop.body[0], "value", None), getattr(loop.body[-1], "value", None)):
            continue
        words, line = ast.unparse(turns[0]), turns[0].lineno
        is_whole = len(loop.body) > 1 and line == turns[0].end_lineno
        yield SourceMatch(
            line,
            f"full_turn turns the nib by 360 / {ast.unparse(count)} by itself; {words} turns it once more.",
            f"Remove {words}.",
            edit=Edit(line, 0, turns[0].end_col_offset or 0, "") if is_whole else None,
        )


def _is_part_of_turn(angle: ast.expr, count: ast.expr) -> bool:
    """Whether an angle is 360 divided by a count."""
    if isinstance(angle, ast.BinOp) and isinstance(angle.op, ast.Div) and number_at(angle.left) == 360:
        return ast.unparse(angle.right) == ast.unparse(count)
    size, times = number_at(angle), number_at(count)
    return bool(size and times and abs(size * times - 360) < 1e-6)


@rule(
    "other-count",
    HINT_OR_PROBLEM,
    "Reported when a loop draws a figure as often as a name says and turns each time by 360 divided by a "
    "number, or reckons with 360 divided by a number. Not reported for loops that only go forward, which may "
    "walk a part of a curve.",
)
def other_count(tree: ast.Module) -> Iterator[SourceMatch]:
    """Rosettes whose count may change, and whose turn may not."""
    for loop in nodes(tree):
        if isinstance(loop, ast.For) and called(loop.iter) in ("range", "full_turn"):
            yield from _other_share(loop)
        if not isinstance(loop, ast.For) or called(loop.iter) != "range":
            continue
        assert isinstance(loop.iter, ast.Call)
        count = loop.iter.args[0] if len(loop.iter.args) == 1 else None
        angles = [call.args[0] for one in loop.body if (call := steered(one, TURNS))]
        parted = [one for one in angles if isinstance(one, ast.BinOp) and number_at(one.left) == 360]
        if not isinstance(count, ast.Name) or len(parted) != 1 or not _draws_alike(loop):
            continue
        (angle,) = parted
        parts, at = number_at(angle.right), angle.right
        if not isinstance(angle.op, ast.Div) or parts not in FIGURE_COUNTS:
            continue
        yield SourceMatch(
            angle.lineno,
            f"The loop repeats {count.id} times, but turns by 360 / {parts}, so it goes round once only if "
            f"{count.id} is {parts}.",
            f"Write 360 / {count.id}.",
            edit=replacing(at, count.id),
        )


def _other_share(loop: ast.For) -> Iterator[SourceMatch]:
    """`360 * i / 10` in a loop that counts i up to a name, or `360 / 10` beside `360 / count`."""
    assert isinstance(loop.iter, ast.Call)
    count = loop.iter.args[0] if len(loop.iter.args) == 1 else None
    inside = [node for one in loop.body for node in nodes(one) if isinstance(node, ast.BinOp)]
    shares = [one for one in inside if isinstance(one.op, ast.Div) and _is_of_turn(one.left, loop.target)]
    if not isinstance(count, ast.Name):
        yield from _turns_for_another(loop, count)
        return
    is_known = any(isinstance(one.right, ast.Name) and one.right.id == count.id for one in shares)
    for one in shares:
        counts = all_names(loop.target) & all_names(one.left)
        if number_at(one.right) in FIGURE_COUNTS and (counts or is_known):
            parts = ast.unparse(one.right)
            yield SourceMatch(
                one.lineno,
                f"The loop repeats {count.id} times, but {ast.unparse(one)} is a part of a turn for {parts}.",
                f"Write {count.id} instead of {parts}.",
                edit=replacing(one.right, count.id),
            )


def _turns_for_another(loop: ast.For, count: ast.expr | None) -> Iterator[SourceMatch]:
    """`full_turn(10)` around `left(180 / parts)`."""
    if called(loop.iter) != "full_turn" or count is None or not number_at(count):
        return
    calls = [steered(node, TURNS) for node in nodes(loop) if isinstance(node, ast.Expr)]
    for turn in (call.args[0] for call in calls if call is not None):
        if not isinstance(turn, ast.BinOp) or not isinstance(turn.op, ast.Div):
            continue
        if number_at(turn.left) in (180, 360) and isinstance(turn.right, ast.Name):
            yield SourceMatch(
                count.lineno,
                f"The loop repeats {ast.unparse(count)} times, but turns by {ast.unparse(turn)}, which is "
                f"for {turn.right.id} of them.",
                f"Write full_turn({turn.right.id}).",
                edit=replacing(count, turn.right.id),
            )


def _is_of_turn(node: ast.expr, target: ast.expr) -> bool:
    """Whether it is 360, or 360 times what a loop counts."""
    if isinstance(node, ast.BinOp) and isinstance(node.op, ast.Mult):
        sides = (node.left, node.right)
        return any(number_at(one) == 360 for one in sides) and any(
            isinstance(one, ast.Name) and one.id in all_names(target) for one in sides
        )
    return bool(number_at(node) == 360)


def _draws_alike(loop: ast.For) -> bool:
    """Whether a loop draws the same figure each time, and does not only walk on."""
    if set().union(*(read_names(one) for one in loop.body)) & all_names(loop.target):
        return False
    if any(changed_names(one) & set().union(*map(read_names, loop.body)) for one in loop.body):
        return False
    return any(not steered(one, ("forward", "back", *TURNS)) for one in loop.body)


@rule(
    "unused-loop-value",
    HINT_OR_PROBLEM,
    "Reported when a loop goes through values that nothing in it uses, while a call inside is given a number "
    "in the place of that value, or one item of the list the loop goes through; and when these values are "
    "written out in the loop, or it takes several at once.",
)
def unused_loop_value(tree: ast.Module) -> Iterator[SourceMatch]:
    """Loops over values, in which one of these stands as a constant."""
    taken = {one.name: [arg.arg for arg in one.args.args] for one in functions(tree)}
    lists = {
        target.id: one.value
        for one in tree.body
        if isinstance(one, ast.Assign) and isinstance(one.value, ast.List | ast.Tuple)
        for target in one.targets
        if isinstance(target, ast.Name)
    }
    for loop in nodes(tree):
        if not isinstance(loop, ast.For):
            continue
        inside = [node for one in loop.body for node in nodes(one)]
        used = {node.id for node in inside if isinstance(node, ast.Name)}
        told: set[str] = set()
        for name, values in _gone_through(loop.target, loop.iter):
            if name.startswith("_") or name in used:
                continue
            known = lists.get(last_name(values), values)
            constant = (
                _of_that_name(inside, name, taken, values)
                or _of_words(inside, known)
                or _item_of(inside, values)
            )
            if constant is not None and constant.lineno == constant.end_lineno:
                told.add(name)
                yield _instead_of(constant, name, loop)
        yield from _never_used(loop, used | told)
        counted = _counted_list(loop)
        if counted is not None and (item := _item_of(inside, counted)) is not None:
            number = last_name(loop.target)
            yield _instead_of(item, f"{ast.unparse(counted)}[{number}]", loop)


def _never_used(loop: ast.For, used: set[str]) -> Iterator[SourceMatch]:
    """Names of a loop that nobody would write only to count: of values written out, or several at once."""
    if not isinstance(loop.target, ast.Tuple) and not isinstance(loop.iter, ast.Tuple | ast.List):
        return
    if len(loop.body) == 1 and isinstance(loop.body[0], ast.With):
        return  # repeated-value reports what comes back and draws the same again
    for node in nodes(loop.target):
        if isinstance(node, ast.Name) and not node.id.startswith("_") and node.id not in used:
            yield SourceMatch(
                loop.lineno,
                f"This loop goes through values of {node.id}, but nothing in it uses {node.id}.",
                f"Use {node.id} in the loop, or write _ for it if only the number of rounds counts.",
            )


def _instead_of(constant: ast.expr, name: str, loop: ast.For) -> SourceMatch:
    return SourceMatch(
        constant.lineno,
        f"The loop in line {loop.lineno} goes through values of {name}, but this line always uses "
        f"{ast.unparse(constant)}.",
        f"Write {name} instead of {ast.unparse(constant)}.",
        edit=replacing(constant, name),
    )


def _gone_through(target: ast.expr, values: ast.expr) -> Iterator[tuple[str, ast.expr]]:
    """The names that a loop counts with, each with what it goes through, inside `zip` and `enumerate` too."""
    if isinstance(target, ast.Name):
        yield target.id, values
    elif isinstance(target, ast.Tuple) and isinstance(values, ast.Call):
        if called(values) == "enumerate" and values.args and len(target.elts) == 2:
            yield from _gone_through(target.elts[1], values.args[0])
        elif called(values) == "zip" and len(target.elts) == len(values.args):
            for one, its_values in zip(target.elts, values.args, strict=True):
                yield from _gone_through(one, its_values)


def _counted_list(loop: ast.For) -> ast.Name | None:
    """The list whose items a loop over `range(len(…))` counts."""
    if called(loop.iter) != "range" or not isinstance(loop.iter, ast.Call) or len(loop.iter.args) != 1:
        return None
    (length,) = loop.iter.args
    if called(length) != "len" or not isinstance(length, ast.Call) or len(length.args) != 1:
        return None
    return length.args[0] if isinstance(length.args[0], ast.Name) else None


def _of_that_name(
    inside: list[ast.AST], name: str, taken: dict[str, list[str]], values: ast.expr
) -> ast.Constant | None:
    """The constant that a call is given for a parameter of that name: the first value of the loop."""
    if not isinstance(values, ast.List | ast.Tuple | ast.Call) or called(values) not in ("", "range"):
        return None
    listed = values.args if isinstance(values, ast.Call) else values.elts
    if len(listed) < 2:
        return None
    first, step = number_at(listed[0]), number_at(listed[-1])
    for call in inside:
        if not isinstance(call, ast.Call) or (first == step and called(call) in STEERING):
            continue
        names = taken.get(called(call)) or parameters_of_nib(called(call))
        given = [*zip(names, call.args, strict=False), *((one.arg, one.value) for one in call.keywords)]
        for parameter, value in given:
            if parameter == name and isinstance(value, ast.Constant) and number_at(value) == first:
                return value
    return None


@lru_cache(maxsize=64)
def parameters_of_nib(name: str) -> tuple[str, ...]:
    """What a method of a nib takes, by name."""
    method = getattr(Nib, name, None) if name and not name.startswith("_") else None
    return tuple(inspect.signature(method).parameters)[1:] if inspect.isfunction(method) else ()


def _of_words(inside: list[ast.AST], values: ast.expr) -> ast.Constant | None:
    """The text inside that is an item of the list a loop goes through, if there is just one."""
    if not isinstance(values, ast.List | ast.Tuple) or len(values.elts) < 2:
        return None
    items = [one.value for one in values.elts if isinstance(one, ast.Constant) and isinstance(one.value, str)]
    found = [node for node in inside if isinstance(node, ast.Constant) and node.value in items]
    return found[0] if len(found) == 1 and len(items) == len(values.elts) else None


def _item_of(inside: list[ast.AST], values: ast.expr) -> ast.Subscript | None:
    """The item of the list a loop goes through that is always the same one, if there is just one."""
    if not isinstance(values, ast.Name):
        return None
    items = [
        node for node in inside if isinstance(node, ast.Subscript) and last_name(node.value) == values.id
    ]
    return items[0] if len(items) == 1 and isinstance(number_at(items[0].slice), int) else None


@rule(
    "same-loop-name",
    PROBLEM,
    "Reported when an inner loop uses the name of the loop around it, which goes on to read that name.",
)
def same_loop_name(tree: ast.Module) -> Iterator[SourceMatch]:
    """Inner loops that count with the name of the loop around them."""
    for outer in nodes(tree):
        if not isinstance(outer, ast.For) or not isinstance(outer.target, ast.Name):
            continue
        name = outer.target.id
        for at, inner in enumerate(outer.body):
            if not isinstance(inner, ast.For) or not isinstance(inner.target, ast.Name):
                continue
            if inner.target.id == name and any(name in read_names(one) for one in outer.body[at + 1 :]):
                yield SourceMatch(
                    inner.lineno,
                    f"This loop changes {name}, which the loop in line {outer.lineno} counts with.",
                    "Give the inner loop a name of its own.",
                )


@rule(
    "empty-range",
    PROBLEM,
    "Reported when a loop runs over a `range` that holds no numbers, as it is written or with the defaults "
    "of the parameters in it.",
)
def empty_range(tree: ast.Module) -> Iterator[SourceMatch]:
    """Ranges that hold no numbers."""
    for owner in (tree, *functions(tree)):
        yield from _empty_ranges(owner, default_numbers(owner) if isinstance(owner, Function) else {})


def _empty_ranges(owner: ast.AST, known: dict[str, Any]) -> Iterator[SourceMatch]:
    """Those of a module or function, by the numbers that its parameters have."""
    for node in own_nodes(owner):
        if not isinstance(node, ast.Call) or called(node) != "range" or not 2 <= len(node.args) <= 3:
            continue
        used = {name: known[name] for one in node.args if (name := last_name(one)) in known}
        given = [used.get(last_name(one), number_at(one)) for one in node.args]
        if any(not isinstance(one, int) for one in given) or node.keywords:
            continue
        first, stop, step = (*given, 1)[:3]
        if not step or first == stop or len(range(first, stop, step)):
            continue
        wanted = f"range({ast.unparse(node.args[0])}, {ast.unparse(node.args[1])}, {-step})"
        by = " with " + " and ".join(f"{name}={value}" for name, value in used.items()) if used else ""
        yield SourceMatch(
            node.lineno,
            f"{ast.unparse(node)} holds no numbers{by}, so the loop never runs.",
            f"Count the other way: {wanted}.",
            edit=replacing(node, wanted),
        )


@rule(
    "endless-loop",
    PROBLEM,
    "Reported when nothing inside a `while` loop changes what its condition asks, and nothing leaves it.",
)
def endless_loop(tree: ast.Module) -> Iterator[SourceMatch]:
    """Loops that nothing ends."""
    shared = any(isinstance(node, ast.Global | ast.Nonlocal) for node in nodes(tree))
    for node in nodes(tree):
        if not isinstance(node, ast.While) or any(isinstance(one, WAYS_OUT) for one in nodes(node)):
            continue
        asked = plainly_asked(node.test)
        if asked is None or (shared and asked):
            continue
        if not asked and not (isinstance(node.test, ast.Constant) and node.test.value):
            continue
        if not asked & set().union(*(changed_names(one) for one in node.body)):
            names = " or ".join(sorted(asked))
            yield SourceMatch(
                node.lineno,
                f"Nothing in this loop changes {names}, so it never ends."
                if names
                else "Nothing leaves this loop, so it never ends.",
                f"Change {names} inside the loop, or use `for … in range(…)`."
                if names
                else "Add a condition with break, or use `for … in range(…)`.",
            )
