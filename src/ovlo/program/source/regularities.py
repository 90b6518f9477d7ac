"""What a program keeps everywhere but in one place: the two sides of a picture, the sides of a figure.

for one in unmirrored(tree): ...
"""

from __future__ import annotations

import ast
from collections.abc import Iterator
from itertools import pairwise
from typing import NamedTuple

from ovlo.core.values.finding import HINT, HINT_OR_PROBLEM, rule
from ovlo.program.source.tree import (
    Function,
    SourceMatch,
    called,
    called_by,
    every_block,
    functions,
    nodes,
    number_at,
    read_names,
    replacing,
    steered,
)

TO, BY = ("travel_to", "line_to"), ("travel_by", "line_by")
"""Moves to a place, and by a distance."""

FEWEST_POINTS = 4
"""Of an outline that has two halves."""

SIDES = {"triangle": 3, "square": 4, "pentagon": 5, "hexagon": 6, "heptagon": 7, "octagon": 8}


# ── mirror images ─────────────────────────────────────────────────────────────────────────────────────────


class Coordinate(NamedTuple):
    """One coordinate of a move: what is written, whether it changes sides, and the middle between them."""

    node: ast.expr
    is_mirrored: bool
    middle: str


@rule(
    "unmirrored",
    HINT_OR_PROBLEM,
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


@rule(
    "unmirrored-point",
    HINT,
    "Reported when the points of a list, with the place to which the nib was sent right before, are mirror "
    "images of each other on both sides of x = 0 or lie on it, but for one.",
)
def unmirrored_point(tree: ast.Module) -> Iterator[SourceMatch]:
    """Outlines of two equal halves, of which one corner is out of place."""
    for body in every_block(tree):
        for before, one in pairwise([*body[:1], *body]):
            listed = one.value.args[0] if called_by(one) == "polyline" else None  # type: ignore[attr-defined]
            if isinstance(listed, ast.List | ast.Tuple):
                pairs = [pair.elts for pair in listed.elts if isinstance(pair, ast.Tuple)]
                if called_by(before) == "travel_to":
                    pairs.append(before.value.args)  # type: ignore[attr-defined]
                yield from _out_of_place([pair for pair in pairs if len(pair) == 2])


def _out_of_place(pairs: list[list[ast.expr]]) -> Iterator[SourceMatch]:
    """The one of some points that has no mirror image, and should have that of another one."""
    points = {(number_at(x), number_at(y)): (x, y) for x, y in reversed(pairs)}
    if any(None in point for point in points) or len(points) < FEWEST_POINTS:
        return
    alone = [(x, y) for x, y in points if (-x, y) not in points]
    if len(alone) != 2:
        return
    one, other = alone
    first = max(alone, key=list(points).index)  # as they are written: the list is turned round
    for (x, y), (mirror_x, mirror_y) in ((one, other), (other, one)):
        is_x, is_y = x != -mirror_x and y == mirror_y, x == -mirror_x and y != mirror_y
        if x * mirror_x >= 0 or is_x == is_y or (x, y) == first:
            continue
        at = points[x, y][is_y]
        wanted = mirror_y if is_y else -mirror_x
        yield SourceMatch(
            at.lineno,
            f"Both sides are mirror images, but for ({x:g}, {y:g}) and ({mirror_x:g}, {mirror_y:g}).",
            f"Write {wanted:g} instead of {number_at(at):g}, if both halves are to be equal.",
            edit=replacing(at, f"{wanted:g}"),
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
