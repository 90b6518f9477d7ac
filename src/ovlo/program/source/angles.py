"""Angles in a program's source: radians given to a nib, degrees given to a sine, divisions that drop a rest.

for one in radians_for_degrees(tree): ...

An angle is followed through names to where they got their value, in the same function or the module.
"""

from __future__ import annotations

import ast
from collections.abc import Callable, Iterator

from ovlo.core.values.finding import HINT_OR_PROBLEM, PROBLEM, rule
from ovlo.program.source.tree import (
    Function,
    SourceMatch,
    called,
    children,
    functions,
    last_name,
    nodes,
    number_at,
    own_nodes,
    parameters,
)

ANGLE_AT = {
    "left": 0,
    "right": 0,
    "turn_to": 0,
    "arc_left": 1,
    "arc_right": 1,
    "turned": 0,
    "from_polar": 1,
    "shift_hue": 1,
}
"""Which argument of a call is an angle in degrees."""

ANGLE_NAMES = {"turn", "sweep", "heading", "angle"}
"""What such arguments are called."""

MAKES_RADIANS = {
    "radians",
    "atan",
    "atan2",
    "asin",
    "acos",
    "arctan",
    "arctan2",
    "arcsin",
    "arccos",
    "deg2rad",
}

TAKES_RADIANS = {"sin", "cos", "tan"}

MAKES_DEGREES = {"heading_to"}

ROUNDS = (90, 180, 360, 720)
"""Degrees by which whole turns and their parts are written."""

LEAST_DEGREES = 7
"""A plain number above 2π is no angle in radians that anybody writes."""

COARSE = 2
"""A range with such steps, or greater ones, counts no radians."""

LEAST_WHOLE = 7
"""Smaller numbers are halved and so on to find a middle."""

COUNT_CALLS = {"range", "full_turn", "ramp", "scattered", "integer", "islice"}

DEEPEST = 4
"""How many names are followed to their values, one from another."""


class Scope:
    """The values that names get in a function, or else in the module around it."""

    def __init__(self, tree: ast.Module, function: Function | None) -> None:
        self._values: dict[str, list[ast.expr]] = {}
        self._owner = tree if function is None else function
        self._statements = [one for one in own_nodes(self._owner) if isinstance(one, ast.stmt)]
        self._plain = [one for one in self._statements if isinstance(one, ast.Assign)]
        for owner in (tree, function) if function is not None else (tree,):
            found: dict[str, list[ast.expr]] = {}
            for node in own_nodes(owner):
                for name, value in _given(node):
                    found.setdefault(name, []).append(value)
            if isinstance(owner, Function):
                for one in parameters(owner):
                    found.setdefault(one.arg, [])
            self._values.update(found)

    def is_counted(self, name: str) -> bool:
        """Whether a name gets its values from a range."""
        return any(called(value) == "range" for value in self._values.get(name, ()))

    def made_for(self, node: ast.expr, names: set[str]) -> ast.expr | None:
        """The one value that a name is given, if only calls of some functions are given that name."""
        values = self._reaching(node) if isinstance(node, ast.Name) else []
        if len(values) != 1 or called(values[0]) == "range":
            return None
        calls = [one for one in own_nodes(self._owner) if called(one) in names]
        inside = sum(ast.unparse(one.args[0]) == ast.unparse(node) for one in calls)  # type: ignore[attr-defined]
        name = node.id  # type: ignore[attr-defined]
        reads = [one for one in own_nodes(self._owner) if isinstance(one, ast.Name) and one.id == name]
        return values[0] if sum(isinstance(one.ctx, ast.Load) for one in reads) == inside else None

    def _reaching(self, node: ast.Name) -> list[ast.expr]:
        """The values that a name may have at a place: those since it was surely set, if it was."""
        values = self._values.get(node.id, [])
        before = [
            one for one in self._plain if one.lineno < node.lineno and last_name(one.targets[0]) == node.id
        ]
        sure = [one.lineno for one in before if self._is_around(one, node.lineno)]
        if not sure:
            return values
        return [one for one in values if max(sure) <= one.lineno < node.lineno]

    def _is_around(self, statement: ast.stmt, line: int) -> bool:
        """Whether all up to a line stands in the block of a statement, or deeper."""
        between = [one for one in self._statements if statement.lineno < one.lineno <= line]
        return all(one.col_offset >= statement.col_offset for one in between)

    def any(self, node: ast.expr, says: Callable[[ast.expr], bool | None], depth: int = 0) -> bool:
        """Whether a part of an expression says yes; what says no is not looked into."""
        said = says(node)
        if said is not None:
            return said
        if isinstance(node, ast.Name) and depth < DEEPEST:
            return any(self.any(value, says, depth + 1) for value in self._reaching(node))
        return any(self.any(part, says, depth) for part in children(node) if isinstance(part, ast.expr))


def _given(node: ast.AST) -> Iterator[tuple[str, ast.expr]]:
    """The names a node gives values, with the values."""
    if isinstance(node, ast.Assign):
        for target in node.targets:
            if isinstance(target, ast.Name):
                yield target.id, node.value
    elif isinstance(node, ast.AnnAssign | ast.AugAssign) and isinstance(node.target, ast.Name) and node.value:
        yield node.target.id, node.value
    elif isinstance(node, ast.For) and isinstance(node.target, ast.Name):
        yield node.target.id, node.iter


def scoped_calls(tree: ast.Module) -> Iterator[tuple[ast.Call, Scope]]:
    """All calls, each with what names mean there."""
    for owner in (None, *functions(tree)):
        scope = Scope(tree, owner)
        for node in own_nodes(owner if owner is not None else tree):
            if isinstance(node, ast.Call):
                yield node, scope


@rule(
    "radians-for-degrees",
    PROBLEM,
    "Reported when a nib is given an angle that is computed with π, math.radians or an inverse "
    "trigonometric function: a nib takes degrees.",
)
def radians_for_degrees(tree: ast.Module) -> Iterator[SourceMatch]:
    """Angles in radians that are given where degrees are meant."""
    for call, scope in scoped_calls(tree):
        name = called(call)
        at = ANGLE_AT.get(name)
        given = [call.args[at]] if at is not None and at < len(call.args) else []
        given += [one.value for one in call.keywords if one.arg in ANGLE_NAMES]
        for angle in given:
            if scope.any(angle, _is_radians):
                yield SourceMatch(
                    angle.lineno,
                    f"{name} takes degrees, but is given radians here ({ast.unparse(angle)}).",
                    f"Write degrees, or math.degrees({ast.unparse(angle)}).",
                )


def _is_radians(node: ast.expr) -> bool | None:
    """Whether a part of an angle is in radians; None where that depends on its own parts."""
    name = called(node)
    if name in MAKES_RADIANS:
        return True
    if isinstance(node, ast.Call):
        # Whoever makes degrees, or a length, of an angle makes no radians.
        return None if name in {"abs", "min", "max", "round", "float", "range", "linspace"} else False
    if isinstance(node, ast.Attribute):
        return node.attr in {"pi", "tau"}
    if isinstance(node, ast.Name) and node.id in {"pi", "tau"}:
        return True
    if isinstance(node, ast.BinOp) and any(
        isinstance(part, ast.Constant) and part.value in ROUNDS[1:] for part in nodes(node)
    ):
        return False  # 180 / pi makes degrees
    if isinstance(node, ast.BinOp) and isinstance(node.op, ast.Div):
        return _divided(node)
    return None


def _divided(node: ast.BinOp) -> bool | None:
    """A division by π is a part of a circle's length; other divisions leave the kind of what is divided."""
    under = any(last_name(part) in {"pi", "tau"} for part in nodes(node.right))
    return False if under else None


@rule(
    "degrees-for-radians",
    PROBLEM,
    "Reported when a sine, cosine or tangent is given a heading, a number above 2π, parts of 360, or a "
    f"number that counts up to 360, by {COARSE} or more, or from far below 0: these functions take radians.",
)
def degrees_for_radians(tree: ast.Module) -> Iterator[SourceMatch]:
    """Angles in degrees that are given to a sine, cosine or tangent."""
    told: set[int] = set()
    for call, scope in scoped_calls(tree):

        def shows_degrees(node: ast.expr, scope: Scope = scope) -> bool | None:
            return True if _is_stepped(node, scope) else _is_degrees(node)

        name = called(call)
        if name not in TAKES_RADIANS or len(call.args) != 1:
            continue
        angle = call.args[0]
        if not scope.any(angle, _is_converted) and scope.any(angle, shows_degrees):
            words = ast.unparse(angle)
            made = scope.made_for(angle, TAKES_RADIANS)
            if made is None:
                yield SourceMatch(
                    angle.lineno,
                    f"{name} takes radians, but is given degrees here ({words}).",
                    f"Write {ast.unparse(call.func)}(math.radians({words})); ovlo.from_polar takes degrees.",
                )
            elif id(made) not in told:
                told.add(id(made))
                yield SourceMatch(
                    made.lineno,
                    f"{name} in line {call.lineno} takes radians, but {words} is in degrees.",
                    f"Write {words} = math.radians({ast.unparse(made)}); ovlo.from_polar takes degrees.",
                )


@rule(
    "sine-for-cosine",
    HINT_OR_PROBLEM,
    "Reported when of several points with a cosine and a sine of one angle, one has them the other way "
    "round, and when a point has the cosine, or the sine, of one angle twice. "
    "Not reported where one of them is taken away, as for a tangent.",
)
def sine_for_cosine(tree: ast.Module) -> Iterator[SourceMatch]:
    """`(r * cos(a), r * sin(a))` in one line and `(r * sin(a), r * cos(a))` in another."""
    for owner in (tree, *functions(tree)):
        pairs = [node for node in own_nodes(owner) if isinstance(node, ast.Tuple | ast.Call)]
        found = [(node, order) for node in pairs if (order := _order(node)) is not None]
        for node, (word, angle, is_twice) in found:
            if is_twice and called(node) in MOVES:
                yield SourceMatch(
                    node.lineno,
                    f"This point has the {WORDS[word]} of {angle} twice.",
                    f"Write {'cos' if word == 'sin' else 'sin'} in one of the two: x goes with the cosine, y "
                    "with the sine.",
                )
        found = [one for one in found if not one[1][2]]
        for angle in {order[1] for _, order in found}:
            orders = [(node, first) for node, (first, one, _) in found if one == angle]
            if len({first for _, first in orders}) < 2:
                continue
            usual = "sin" if sum(first == "sin" for _, first in orders) * 2 > len(orders) else "cos"
            for node, first in orders:
                if first != usual and "-" not in ast.unparse(node):
                    yield SourceMatch(
                        node.lineno,
                        f"This point has the {WORDS[first]} of {angle} first; others have the "
                        f"{WORDS[usual]} first.",
                        "Exchange the two, unless they are the other way round on purpose.",
                    )


WORDS = {"sin": "sine", "cos": "cosine"}
MOVES = {"travel_to", "travel_by", "line_to", "line_by"}


def _order(node: ast.Tuple | ast.Call) -> tuple[str, str, bool] | None:
    """Which of sine and cosine comes first in a point, of what angle, and whether it stands there twice."""
    pair = node.elts if isinstance(node, ast.Tuple) else node.args
    if len(pair) != 2:
        return None
    inside = [[one for one in nodes(part) if called(one) in WORDS] for part in pair]
    if [len(one) for one in inside] != [1, 1]:
        return None
    (first,), (second,) = inside
    angles = {ast.unparse(one.args[0]) for one in (first, second) if isinstance(one, ast.Call) and one.args}
    if len(angles) != 1:
        return None
    return called(first), angles.pop(), called(first) == called(second)


def _is_stepped(node: ast.expr, scope: Scope) -> bool:
    """Whether a whole number of degrees is multiplied by what a range counts: hour * 30."""
    if not isinstance(node, ast.BinOp) or not isinstance(node.op, ast.Mult):
        return False
    for number, name in ((node.left, node.right), (node.right, node.left)):
        if isinstance(number, ast.Constant) and isinstance(number.value, int) and isinstance(name, ast.Name):
            return number.value >= LEAST_DEGREES and scope.is_counted(name.id)
    return False


def _is_converted(node: ast.expr) -> bool | None:
    """Whether a part of an angle makes radians of it."""
    if called(node) in MAKES_RADIANS or last_name(node) in {"pi", "tau"}:
        return True
    is_180_over_pi = isinstance(node, ast.Constant) and isinstance(node.value, float) and 57 < node.value < 58
    return True if is_180_over_pi else None


def _is_degrees(node: ast.expr) -> bool | None:
    """Whether a part of an angle shows degrees: a heading, 45, range(0, 360, 10), i * 360 / count."""
    name = called(node)
    if name in MAKES_DEGREES or (isinstance(node, ast.Attribute) and node.attr == "heading"):
        return True
    if name == "range":
        ends = [number_at(part) for part in node.args]  # type: ignore[attr-defined]
        steps = ends[2] if len(ends) == 3 else 1
        # Nobody goes on by 2 radians, or begins far below 0; those are places along a wave.
        is_coarse = steps is not None and abs(steps) >= COARSE
        is_below = len(ends) > 1 and ends[0] is not None and ends[0] <= -LEAST_DEGREES
        return is_coarse or is_below or any(end in (*ROUNDS, *(n + 1 for n in ROUNDS)) for end in ends)
    if isinstance(node, ast.Call):
        return False
    if isinstance(node, ast.BinOp) and isinstance(node.op, ast.Div):
        return None if any(_is_round(part) for part in nodes(node.left)) else False
    if isinstance(node, ast.BinOp):
        return True if _is_round(node.left) or _is_round(node.right) else _within(node)
    if isinstance(node, ast.Constant) and isinstance(node.value, int | float):
        return node.value >= LEAST_DEGREES
    return None


def _within(node: ast.BinOp) -> bool | None:
    """A number that something is scaled by is no angle; what is added may be."""
    if isinstance(node.op, ast.Add | ast.Sub):
        return None
    return any(
        isinstance(part, ast.BinOp | ast.Attribute | ast.Call) and (_is_degrees(part) or _is_share(part))
        for part in (node.left, node.right)
    )


def _is_share(node: ast.expr) -> bool:
    """Whether it is a part of a whole turn: 360 / count."""
    return isinstance(node, ast.BinOp) and isinstance(node.op, ast.Div) and _is_round(node.left)


def _is_round(node: ast.AST) -> bool:
    return isinstance(node, ast.Constant) and node.value in ROUNDS


@rule(
    "floor-division",
    HINT_OR_PROBLEM,
    "Reported when a length or an angle is divided by //, which drops the remainder. Not reported where "
    "the result only counts something.",
)
def floor_division(tree: ast.Module) -> Iterator[SourceMatch]:
    """Divisions by // that drop a part of a turn or length; those that count are meant."""
    counting = _counted(tree)
    for node in nodes(tree):
        if not isinstance(node, ast.BinOp) or not isinstance(node.op, ast.FloorDiv) or id(node) in counting:
            continue
        whole, parts = node.left, node.right
        if not isinstance(whole, ast.Constant) or not isinstance(whole.value, int | float):
            continue
        if whole.value < LEAST_WHOLE:
            continue
        if isinstance(parts, ast.Constant) and (not parts.value or whole.value % parts.value == 0):  # type: ignore[operator]
            continue
        words = f"{ast.unparse(whole)} // {ast.unparse(parts)}"
        yield SourceMatch(
            node.lineno,
            f"{words} drops the remainder, so the parts do not add up to {ast.unparse(whole)}.",
            f"Write {ast.unparse(whole)} / {ast.unparse(parts)}.",
        )


def _counted(tree: ast.Module) -> set[int]:
    """The parts of a program that say how often, or which of several."""
    found: set[int] = set()
    names: set[str] = set()
    for node in nodes(tree):
        counts = node.args if called(node) in COUNT_CALLS else []  # type: ignore[attr-defined]
        counts = [node.slice] if isinstance(node, ast.Subscript) else counts
        counts = [node] if isinstance(node, ast.Compare) else counts
        if isinstance(node, ast.BinOp) and isinstance(node.op, ast.Mod | ast.FloorDiv):
            counts = [node.right]
        for part in (inner for one in counts for inner in nodes(one)):
            found.add(id(part))
            if isinstance(part, ast.Name):
                names.add(part.id)
    for node in nodes(tree):
        if isinstance(node, ast.Assign) and any(last_name(target) in names for target in node.targets):
            found.update(id(part) for part in nodes(node.value))
    return found
