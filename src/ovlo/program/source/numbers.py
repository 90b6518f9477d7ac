"""Numbers of a program that keep a law but for one of them: equal steps, remainders, chains.

for one in uneven_numbers(tree): ...
"""

from __future__ import annotations

import ast
from collections.abc import Iterator, Sequence
from itertools import groupby, pairwise

from ovlo.core.values.finding import HINT, HINT_OR_PROBLEM, rule
from ovlo.program.source.regularities import TO
from ovlo.program.source.tree import (
    Function,
    SourceMatch,
    called,
    called_by,
    changed_names,
    children,
    default_numbers,
    every_block,
    functions,
    last_name,
    nodes,
    number_at,
    own_nodes,
    read_names,
    replacing,
    steered,
)

OF_LENGTHS = {"rectangle", "ellipse", "travel_to", "line_to", "travel_by", "line_by"}
"""Methods that are given two lengths."""

LEAST_NAMED = 10
"""Smaller numbers are equal by chance too often."""

CHANCE = {"random", "randint", "uniform", "choice", "next"}
"""What gives another value each time."""

MANY, FEW, EQUAL = 6, 4, 5
"""Numbers in equal steps, so that one within them is out of step by itself; the same of calls that are else
alike; and equal numbers."""

SLIGHT, OF_THREE = 0.45, 0.3
"""By how much of a step one number may be beside the place that would make the steps equal; one of three."""


@rule(
    "uneven-numbers",
    HINT_OR_PROBLEM,
    "Reported when the numbers that a loop goes through, or that calls of one function in a row are given, "
    "would be evenly apart and as far to the left as to the right, but for one of them; and when all numbers "
    "of a list, or the places in calls that are else alike, are equal or in equal steps but for one.",
)
def uneven_numbers(tree: ast.Module) -> Iterator[SourceMatch]:
    """Rows of numbers of which one is out of step."""
    for row, some in _rows(tree):
        numbers = [number_at(node) for node in row]
        if len(row) < 3 or None in numbers:
            continue
        for k, wanted in [*_evened(numbers), *_stepped(numbers, some)][:1]:
            others = [number for i, number in enumerate(numbers) if i != k]
            be = "equal" if min(others) == max(others) else "evenly apart"
            yield SourceMatch(
                row[k].lineno,
                f"These {len(row)} numbers would be {be}, but for {numbers[k]:g}.",
                f"Write {wanted:g} instead of {numbers[k]:g}, if they are to be.",
                edit=replacing(row[k], f"{wanted:g}"),
            )


def _rows(tree: ast.Module) -> Iterator[tuple[list[ast.expr], int]]:
    """Numbers that may belong together, and how many have to be in step for one to be out of it."""
    for row in (*_looped(tree), *_called(tree)):
        yield row, MANY
    for row in _alike_but_for_places(tree):
        yield row, FEW
    for node in nodes(tree):
        listed = node.value if isinstance(node, ast.Assign) else None
        if isinstance(listed, ast.List | ast.Tuple):
            tuples = [one.elts for one in listed.elts if isinstance(one, ast.Tuple)]
            columns = list(zip(*tuples, strict=False)) if len(tuples) == len(listed.elts) else [listed.elts]
            for column in columns:
                yield list(column), MANY


def _has_sizes(items: Sequence[ast.expr]) -> bool:
    """Whether tuples hold numbers beside the first that are not all equal."""
    others = [one.elts[1:] for one in items if isinstance(one, ast.Tuple)]
    return any(len({number_at(one) for one in column} - {None}) > 1 for column in zip(*others, strict=False))


def _alike_but_for_places(tree: ast.Module) -> Iterator[list[ast.expr]]:
    """The numbers that differ in calls of one function below each other, which are given only one such."""
    for calls in _calls_in_a_row(tree):
        rows = [[one for one in call.args if number_at(one) is not None] for call in calls]
        if len({len(row) for row in rows}) == 1 and len(calls) >= FEW:
            columns = [list(column) for column in zip(*rows, strict=True)]
            changing = [one for one in columns if len({number_at(node) for node in one}) > 1]
            yield from changing if len(changing) == 1 else ()


def _looped(tree: ast.Module) -> Iterator[list[ast.expr]]:
    """The numbers that loops go through as they are written, or the first of each row of them."""
    own = {one.name for one in functions(tree)}
    for loop in nodes(tree):
        if isinstance(loop, ast.For) and isinstance(loop.iter, ast.Tuple | ast.List):
            items = loop.iter.elts
            calls = {called(node) for statement in loop.body for node in nodes(statement)}
            places = not calls.isdisjoint({*TO, *own})
            if places and all(isinstance(item, ast.Tuple) and item.elts for item in items):
                # Three of different sizes need not stand evenly.
                if len(items) > 3 or not _has_sizes(items):
                    yield [item.elts[0] for item in items if isinstance(item, ast.Tuple)]
            elif places:
                yield items


def _called(tree: ast.Module) -> Iterator[list[ast.expr]]:
    """The first numbers of calls of one function that stand below each other."""
    for calls in _calls_in_a_row(tree):
        firsts = [_first_number(call) for call in calls]
        yield [one for one in firsts if one is not None] if all(firsts) else []


def _calls_in_a_row(tree: ast.Module) -> Iterator[list[ast.Call]]:
    """The calls of one function of the program that stand below each other."""
    own = {one.name for one in functions(tree)}
    for body in every_block(tree):
        for name, group in groupby(body, called_by):
            calls = [one.value for one in group if isinstance(one, ast.Expr)]
            if name in own:
                yield [one for one in calls if isinstance(one, ast.Call)]


def _first_number(call: ast.Call) -> ast.expr | None:
    return next((one for one in call.args if number_at(one) is not None), None)


def _stepped(numbers: list[float], some: int) -> Iterator[tuple[int, float]]:
    """The one number within some that is out of step, or not as all others, and what it should be."""
    count = len(numbers)
    step = (numbers[-1] - numbers[0]) / (count - 1)
    odd = [k for k in range(count) if numbers[k] != numbers[0] + step * k]
    if count >= (some if step else EQUAL) and len(odd) == 1:
        wanted = numbers[0] + step * odd[0]
        is_slight = abs(numbers[odd[0]] - wanted) <= SLIGHT * abs(step or wanted)
        if is_slight or (step and count >= MANY):
            yield odd[0], wanted


def _evened(numbers: list[float]) -> Iterator[tuple[int, float]]:
    """The one number that has to change for all to be evenly apart around 0, and into what."""
    count, found = len(numbers), []
    for k in range(count):
        others = [(i, number) for i, number in enumerate(numbers) if i != k]
        (i, a), (j, b) = others[0], others[-1]
        step = (b - a) / (j - i)
        evened = [a + step * (n - i) for n in range(count)]
        if step and all(evened[n] == number for n, number in others) and evened[0] == -evened[-1]:
            found.append((k, evened[k], abs(numbers[k] - evened[k]) / abs(step)))
    # Of three around 0 either end may be the wrong one.
    if found and (off := found[-1][2]):
        k, wanted, _ = found[-1]
        if count > 3 or off <= OF_THREE or _is_mistyped(f"{numbers[k]:g}", f"{wanted:g}"):
            yield k, wanted


def _is_mistyped(written: str, wanted: str) -> bool:
    """Whether one digit is the next or the one before, or two have changed places."""
    others = [(a, b) for a, b in zip(written, wanted, strict=False) if a != b]
    is_next = len(others) == 1 and abs(ord(others[0][0]) - ord(others[0][1])) == 1
    is_exchanged = len(others) == 2 and others[0] == others[1][::-1]
    return len(written) == len(wanted) and (is_next or is_exchanged)


@rule(
    "repeated-value",
    HINT_OR_PROBLEM,
    "Reported when a loop that comes back after each figure goes through numbers of which two are the same, "
    "turns by more than a whole turn, or changes nothing, so that figures lie on each other.",
)
def repeated_value(tree: ast.Module) -> Iterator[SourceMatch]:
    """Loops that draw the same figure twice in one place."""
    for loop in nodes(tree):
        if not isinstance(loop, ast.For) or len(loop.body) != 1:
            continue
        block = loop.body[0]
        if not isinstance(block, ast.With) or called(block.items[0].context_expr) != "returning":
            continue
        yield from _beyond_a_turn(loop, block)
        yield from _all_alike(loop, block)
        listed = loop.iter.elts if isinstance(loop.iter, ast.Tuple | ast.List) else []
        numbers = [number_at(one) for one in listed]
        twice = [number for number in dict.fromkeys(numbers) if numbers.count(number) == 2]
        if len(numbers) > 2 and None not in numbers and len(twice) == 1:
            (number,) = twice
            wanted = f"{-number:g}" if number and -number not in numbers else "another number"
            yield SourceMatch(
                loop.lineno,
                f"The loop goes through {number:g} twice, so it draws the same figure twice in the same "
                "place.",
                f"Write {wanted} instead of one of the two.",
            )


def _all_alike(loop: ast.For, block: ast.With) -> Iterator[SourceMatch]:
    """A loop that comes back each time, and in which nothing changes."""
    names = {node.id for node in nodes(block) if isinstance(node, ast.Name)}
    changes = changed_names(block) or any(
        last_name(node) == "dice" or called(node) in CHANCE for node in nodes(block)
    )
    counted = last_name(loop.target)
    if (
        counted
        and counted[0] != "_"
        and counted not in names
        and not changes
        and called(loop.iter) in ("", "range")
    ):
        yield SourceMatch(
            loop.lineno,
            f"Nothing in this loop uses {counted}, and the nib comes back each time, so it draws the same "
            "figure again and again in the same place.",
            f"Use {counted} in the loop, or turn or travel behind the block.",
        )


def _beyond_a_turn(loop: ast.For, block: ast.With) -> Iterator[SourceMatch]:
    """`turn_to(36 * i)` for twelve i: the last of them lie on the first."""
    call, count = steered(block.body[0], ("turn_to", "left", "right")), _count(loop)
    product = call.args[0] if call is not None else None
    if not isinstance(product, ast.BinOp) or not isinstance(product.op, ast.Mult) or count is None:
        return
    sides = (product.left, product.right)
    written = [one for one in sides if number_at(one)]
    if len(written) != 1 or last_name(loop.target) not in map(last_name, sides):
        return
    (at,) = written
    angle = number_at(at)
    repeats = [n for n in range(1, count) if angle * n % 360 == 0]
    if repeats:
        yield SourceMatch(
            product.lineno,
            f"{count} times {angle:g}° is more than a whole turn: after {repeats[0]} figures each lies "
            "on an earlier one.",
            f"Turn by 360 / {count} = {360 / count:g}, or repeat {repeats[0]} times.",
            edit=replacing(at, f"{360 / count:g}"),
        )


def _count(loop: ast.For) -> int | None:
    """How often a loop over `range(12)` runs."""
    arguments = loop.iter.args if isinstance(loop.iter, ast.Call) and called(loop.iter) == "range" else []
    number = number_at(arguments[0]) if len(arguments) == 1 else None
    return number if isinstance(number, int) else None


@rule(
    "short-remainder",
    HINT,
    "Reported when the items of a list are chosen by a remainder, or by what a range counts, that never "
    "reaches the last of them.",
)
def short_remainder(tree: ast.Module) -> Iterator[SourceMatch]:
    """`COLOURS[i % 3]` of four colours."""
    lists = {
        last_name(one.targets[0]): len(one.value.elts)
        for one in nodes(tree)
        if isinstance(one, ast.Assign) and isinstance(one.value, ast.List | ast.Tuple)
    }
    for item in nodes(tree):
        if not isinstance(item, ast.Subscript) or not isinstance(item.slice, ast.BinOp):
            continue
        name, divisor = last_name(item.value), number_at(item.slice.right)
        size = lists.get(name, 0) if name else len(getattr(item.value, "elts", ()))
        if isinstance(item.slice.op, ast.Mod) and isinstance(divisor, int) and 1 < divisor < size:
            unused = size - divisor
            last, are = ("last", "is") if unused == 1 else (f"last {unused}", "are")
            yield SourceMatch(
                item.lineno,
                f"{ast.unparse(item.slice)} is at most {divisor - 1}, so the {last} of the {size} items of "
                f"{name or 'the list'} {are} never used.",
                f"Write {size} instead of {divisor}.",
                edit=replacing(item.slice.right, f"{size}"),
            )
    for loop in nodes(tree):
        count = _count(loop) if isinstance(loop, ast.For) else None
        if not isinstance(loop, ast.For) or not isinstance(loop.iter, ast.Call) or count is None:
            continue
        counted = last_name(loop.target)
        items = [
            one for one in nodes(loop) if isinstance(one, ast.Subscript) and last_name(one.slice) == counted
        ]
        for name in dict.fromkeys(last_name(item.value) for item in items):
            if name and count < lists.get(name, 0):
                yield SourceMatch(
                    loop.lineno,
                    f"The loop runs {count} times, but {name} has {lists[name]} items.",
                    f"Write range(len({name})).",
                    edit=replacing(loop.iter.args[0], f"len({name})"),
                )
                break


@rule(
    "constant-sum",
    HINT_OR_PROBLEM,
    "Reported when a loop adds or subtracts two plain numbers where it could count: 220 - 15.",
)
def constant_sum(tree: ast.Module) -> Iterator[SourceMatch]:
    """Sums in a loop that are always the same."""
    for loop in nodes(tree):
        if not isinstance(loop, ast.For) or not isinstance(loop.iter, ast.Call):
            continue
        for node in (part for statement in loop.body for part in nodes(statement)):
            if not isinstance(node, ast.BinOp) or not isinstance(node.op, ast.Add | ast.Sub):
                continue
            if type(number_at(node.left)) is int and type(number_at(node.right)) is int:
                counted = next((one.id for one in nodes(loop.target) if isinstance(one, ast.Name)), "i")
                sign = "+" if isinstance(node.op, ast.Add) else "-"
                words = f"{ast.unparse(node.left)} {sign} {ast.unparse(node.right)} * {counted}"
                yield SourceMatch(
                    node.lineno,
                    f"{ast.unparse(node)} is the same each time the loop runs.",
                    f"Write {words}, if it should change, or the number it is.",
                )


@rule(
    "broken-chain",
    HINT,
    "Reported when each of several calls of one function begins with the number that the one before ends "
    "with, as from 20 to 110 and from 110 to 125, but for one of them.",
)
def broken_chain(tree: ast.Module) -> Iterator[SourceMatch]:
    """Spans that follow on each other, with a gap."""
    for calls in _calls_in_a_row(tree):
        spans = [[one for one in call.args if number_at(one) is not None][:2] for call in calls]
        if len(spans) < FEW or any(len(span) < 2 for span in spans):
            continue
        joints = list(pairwise(spans))
        odd = [(one, two) for one, two in joints if number_at(one[1]) != number_at(two[0])]
        follow_on = {number_at(one[1]) for one, _ in joints}
        if len(odd) == 1 and len(follow_on) == len(joints):
            ((_, end), (begin, _)) = odd[0]
            wanted, found = number_at(end), number_at(begin)
            yield SourceMatch(
                begin.lineno,
                "Each of these calls begins with the number that the one before ends with, but this one with "
                f"{found:g} instead of {wanted:g}.",
                f"Write {wanted:g}, if there is to be no gap.",
                edit=replacing(begin, f"{wanted:g}"),
            )


@rule(
    "unlike-remainders",
    HINT_OR_PROBLEM,
    "Reported when a number is divided into rows and columns by two numbers that differ: i // 7 and i % 6.",
)
def unlike_remainders(tree: ast.Module) -> Iterator[SourceMatch]:
    """Quotients and remainders of one value that do not belong together."""
    divided = [
        node
        for node in nodes(tree)
        if isinstance(node, ast.BinOp) and isinstance(node.op, ast.FloorDiv) and number_at(node.right)
    ]
    quotients = {ast.unparse(node.left): number_at(node.right) for node in divided}
    # Only what a remainder is multiplied by says that it counts columns, and no colours.
    for product in nodes(tree):
        if not isinstance(product, ast.BinOp) or not isinstance(product.op, ast.Mult):
            continue
        for node in (product.left, product.right):
            if not isinstance(node, ast.BinOp) or not isinstance(node.op, ast.Mod):
                continue
            whole, divisor = ast.unparse(node.left), number_at(node.right)
            rows = quotients.get(whole)
            if divisor and rows and divisor != rows and 2 not in (divisor, rows):
                yield SourceMatch(
                    node.lineno,
                    f"Here the columns are {whole} % {divisor:g}, but the rows are {whole} // {rows:g}.",
                    f"Write {whole} % {rows:g}, if a row is to have {rows:g} of them.",
                    edit=replacing(node.right, f"{rows:g}"),
                )


@rule(
    "number-for-name",
    HINT_OR_PROBLEM,
    "Reported when a call is given a number where its other value uses a name that stands for this number: "
    "rectangle(50 * rows, size * rows) with a size of 50.",
)
def number_for_name(tree: ast.Module) -> Iterator[SourceMatch]:
    """Numbers that stay when the name that has their value gets another one."""
    for function in functions(tree):
        named = default_numbers(function) | _constants(function)
        values = {name: value for name, value in named.items() if abs(value) >= LEAST_NAMED}
        used = set().union(*map(read_names, function.body))
        for call in nodes(function):
            if not isinstance(call, ast.Call) or len(call.args) != 2 or called(call) not in OF_LENGTHS:
                continue
            for name, value in values.items():
                numbers = [at for one in call.args if (at := _factor(one, value)) is not None]
                is_beside = any(name in read_names(one) for one in call.args)
                is_length = len(numbers) == 2 and _is_length(name, function)
                if name in used and (is_length or (numbers and is_beside)):
                    yield SourceMatch(
                        call.lineno,
                        f"{called(call)} is given {value:g}, which is what {name} is here; with another "
                        f"{name} it stays {value:g}.",
                        f"Write {name} instead of {value:g}, if it should follow.",
                        edit=replacing(numbers[0], name) if len(numbers) == 1 else None,
                    )


def _is_length(name: str, function: Function) -> bool:
    """Whether a name is a length somewhere, and not only how many parts something has."""
    calls = [node for node in nodes(function) if isinstance(node, ast.Call)]
    given = [one for call in calls if called(call) not in ("range", "full_turn") for one in call.args]
    return any(name in _undivided(one) for one in given)


def _undivided(node: ast.AST) -> set[str]:
    """The names in a part of a program, but for what something is divided by."""
    if isinstance(node, ast.BinOp) and isinstance(node.op, ast.Div):
        return _undivided(node.left)
    return {last_name(node)} if isinstance(node, ast.Name) else set().union(*map(_undivided, children(node)))


def _constants(function: Function) -> dict[str, float]:
    """The names that a function gives one number, and keeps."""
    given = [
        node for node in own_nodes(function) if isinstance(node, ast.Name) and isinstance(node.ctx, ast.Store)
    ]
    once = {node.id for node in given if sum(node.id == other.id for other in given) == 1}
    plain = [one for one in function.body if isinstance(one, ast.Assign)]
    found = {last_name(one.targets[0]): number_at(one.value) for one in plain}
    return {name: value for name, value in found.items() if name in once and value is not None}


def _factor(node: ast.expr, value: float) -> ast.expr | None:
    """Where a value is all that is written, or what a name is multiplied by."""
    if isinstance(node, ast.BinOp) and isinstance(node.op, ast.Add | ast.Sub):
        return _factor(node.right, value) if isinstance(node.right, ast.BinOp) else None
    sides = [node]
    if isinstance(node, ast.BinOp) and isinstance(node.op, ast.Mult):
        sides = [node.left, node.right]
        if not any(isinstance(one, ast.Name) for one in sides):
            return None
    return next((one for one in sides if number_at(one) == value), None)
