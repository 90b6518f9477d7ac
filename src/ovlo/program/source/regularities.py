"""What a program keeps everywhere but in one place: mirror images, steps of numbers, the sides of a figure.

for one in unmirrored(tree): ...
"""

from __future__ import annotations

import ast
from collections.abc import Iterator
from itertools import groupby
from typing import NamedTuple

from ovlo.core.values.finding import HINT, rule
from ovlo.program.source.tree import (
    Function,
    SourceMatch,
    called,
    changed_names,
    every_block,
    functions,
    last_name,
    nodes,
    number_at,
    read_names,
    replacing,
    steered,
)

TO, BY = ("travel_to", "line_to"), ("travel_by", "line_by")
"""Moves to a place, and by a distance."""

SIDES = {"triangle": 3, "square": 4, "pentagon": 5, "hexagon": 6, "heptagon": 7, "octagon": 8}

CHANCE = {"random", "randint", "uniform", "choice", "next"}
"""What gives another value each time."""

SLIGHT = 0.3
"""By how much of a step one of three numbers may be beside the place that would make the steps equal."""


# ── mirror images ─────────────────────────────────────────────────────────────────────────────────────────


class Coordinate(NamedTuple):
    """One coordinate of a move: what is written, whether it changes sides, and the middle between them."""

    node: ast.expr
    is_mirrored: bool
    middle: str


@rule(
    "unmirrored",
    HINT,
    "Reported when a loop over two opposite numbers, such as -1 and 1, or with a value that is one or the "
    "other, places some of its moves on both sides of a line and one of them on a single side.",
)
def unmirrored(tree: ast.Module) -> Iterator[SourceMatch]:
    """Loops over both sides, in which one coordinate has only one."""
    for loop in nodes(tree):
        if not isinstance(loop, ast.For):
            continue
        for sides in _sides(loop):
            for moves, axes in ((TO, ("x", "y")), (BY, ("dx", "dy"))):
                calls = [
                    node
                    for statement in loop.body
                    for node in nodes(statement)
                    if called(node) in moves and isinstance(node, ast.Call) and len(node.args) == 2
                ]
                for number, axis in enumerate(axes):
                    found = [_coordinate(call.args[number], sides.name) for call in calls]
                    yield from _on_one_side(found, sides, axis)


class Sides(NamedTuple):
    """What a loop calls its sides, whether they are -1 and 1, and its line."""

    name: str
    is_ones: bool
    line: int


def _sides(loop: ast.For) -> Iterator[Sides]:
    """The names that stand for a number and its opposite in a loop."""
    given = [(loop.target, getattr(loop.iter, "elts", []))]
    for one in loop.body:
        if isinstance(one, ast.Assign) and isinstance(one.value, ast.IfExp):
            given.append((one.targets[0], [one.value.body, one.value.orelse]))
    for target, values in given:
        numbers = [number_at(one) for one in values]
        if isinstance(target, ast.Name) and len(numbers) == 2 and None not in numbers:
            first, second = numbers
            if first and first == -second:
                yield Sides(target.id, abs(first) == 1, loop.lineno)


def _coordinate(node: ast.expr, side: str) -> Coordinate:
    terms = list(_terms(node))
    rest = [term for term in terms if side not in read_names(term[1])]
    middle = " ".join(f"{sign}{ast.unparse(term)}" for sign, term in rest if number_at(term) != 0)
    return Coordinate(node, len(rest) < len(terms), middle or "0")


def _terms(node: ast.expr, sign: str = "+") -> Iterator[tuple[str, ast.expr]]:
    """The terms of a sum, each with its sign."""
    if isinstance(node, ast.BinOp) and isinstance(node.op, ast.Add | ast.Sub):
        yield from _terms(node.left, sign)
        yield from _terms(node.right, sign if isinstance(node.op, ast.Add) else "-+"[sign == "-"])
    else:
        yield sign, node


def _on_one_side(found: list[Coordinate], sides: Sides, axis: str) -> Iterator[SourceMatch]:
    """The one coordinate that is not mirrored where the others are."""
    middles = {one.middle for one in found if one.is_mirrored}
    odd = [one for one in found if not one.is_mirrored and one.middle not in middles]
    if len(middles) != 1 or len(odd) != 1:
        return
    (one,), (middle,) = odd, middles
    words = ast.unparse(one.node)
    factor = f"({words})" if len(list(_terms(one.node))) > 1 else words
    wanted = f"{sides.name} * {factor}"
    is_plain = middle == "0" and sides.is_ones
    yield SourceMatch(
        one.node.lineno,
        f"The loop in line {sides.line} draws on two sides, but {axis} is {words} here on both of them.",
        f"Write {wanted}, so that the second is the mirror image of the first."
        if is_plain
        else f"Use {sides.name} for this {axis} too, if the second is to be the mirror image of the first.",
        edit=replacing(one.node, wanted) if is_plain else None,
    )


# ── numbers ───────────────────────────────────────────────────────────────────────────────────────────────


@rule(
    "uneven-numbers",
    HINT,
    "Reported when the numbers that a loop goes through, or that calls of one function in a row are given, "
    "would be evenly apart and as far to the left as to the right, but for one of them.",
)
def uneven_numbers(tree: ast.Module) -> Iterator[SourceMatch]:
    """Rows of numbers of which one is out of step."""
    for row in (*_looped(tree), *_called(tree)):
        numbers = [number_at(node) for node in row]
        if len(row) < 3 or None in numbers:
            continue
        for k, wanted in _evened(numbers):
            yield SourceMatch(
                row[k].lineno,
                f"These {len(row)} numbers would be evenly apart, but for {numbers[k]:g}.",
                f"Write {wanted:g} instead of {numbers[k]:g}, if they are to be.",
                edit=replacing(row[k], f"{wanted:g}"),
            )


def _looped(tree: ast.Module) -> Iterator[list[ast.expr]]:
    """The numbers that loops go through as they are written, or the first of each row of them."""
    for loop in nodes(tree):
        if isinstance(loop, ast.For) and isinstance(loop.iter, ast.Tuple | ast.List):
            items = loop.iter.elts
            places = any(called(node) in TO for statement in loop.body for node in nodes(statement))
            if places and all(isinstance(item, ast.Tuple) and item.elts for item in items):
                yield [item.elts[0] for item in items if isinstance(item, ast.Tuple)]
            elif places:
                yield items


def _called(tree: ast.Module) -> Iterator[list[ast.expr]]:
    """The first numbers of calls of one function that stand below each other."""
    own = {one.name for one in functions(tree)}
    for body in every_block(tree):
        for name, group in groupby(body, lambda one: called(one.value) if isinstance(one, ast.Expr) else ""):
            if name in own:
                calls = [one.value for one in group if isinstance(one, ast.Expr)]
                firsts = [_first_number(call) for call in calls if isinstance(call, ast.Call)]
                yield [one for one in firsts if one is not None] if all(firsts) else []


def _first_number(call: ast.Call) -> ast.expr | None:
    return next((one for one in call.args if number_at(one) is not None), None)


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
    if found and found[-1][2] and (count > 3 or found[-1][2] <= SLIGHT):
        yield found[-1][:2]


@rule(
    "repeated-value",
    HINT,
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
    "Reported when the items of a list are chosen by a remainder that never reaches the last of them.",
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


@rule(
    "constant-sum",
    HINT,
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


# ── figures ───────────────────────────────────────────────────────────────────────────────────────────────


@rule(
    "named-figure",
    HINT,
    "Reported when a function is named after a figure, such as square, and walks another number of sides or "
    "turns by another angle.",
)
def named_figure(tree: ast.Module) -> Iterator[SourceMatch]:
    """Functions that do not walk what they are named after."""
    for function in functions(tree):
        sides = SIDES.get(function.name.rpartition("_")[2])
        loops = [one for one in function.body if isinstance(one, ast.For)]
        if sides is None or len(loops) != 1 or called(loops[0].iter) not in ("range", "full_turn"):
            continue
        yield from _of_other_sides(function, loops[0], sides)


def _of_other_sides(function: Function, loop: ast.For, sides: int) -> Iterator[SourceMatch]:
    assert isinstance(loop.iter, ast.Call)
    goes = [call for one in loop.body if (call := steered(one, ("forward", "back")))]
    turns = [call for one in loop.body if (call := steered(one, ("left", "right")))]
    count = number_at(loop.iter.args[0]) if len(loop.iter.args) == 1 else None
    needed = 0 if called(loop.iter) == "full_turn" else 1
    if len(goes) != 1 or len(turns) != needed or count is None:
        return
    name = function.name.rpartition("_")[2]
    if count != sides:
        at = loop.iter.args[0]
        yield SourceMatch(
            at.lineno,
            f"{function.name} walks {count:g} sides, but a {name} has {sides}.",
            f"Repeat {sides} times.",
            edit=replacing(at, f"{sides}"),
        )
    angle = number_at(turns[0].args[0]) if turns else None
    if angle is not None and count == sides and abs(abs(angle) * sides - 360) > 1e-6:
        yield SourceMatch(
            turns[0].lineno,
            f"{function.name} turns by {angle:g}° at each corner, but a {name} of equal sides turns by "
            f"{360 / sides:g}°.",
            f"Turn by 360 / {sides} = {360 / sides:g}.",
            edit=replacing(turns[0].args[0], f"{360 / sides:g}"),
        )
