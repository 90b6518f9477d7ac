"""Calls that went wrong: Python's message, in the words of the program that made the call.

fix("nib.polygon() takes 2 positional arguments but 3 were given", place)
"""

from __future__ import annotations

import ast
import inspect
import linecache
import re
from collections.abc import Callable
from functools import lru_cache
from types import FunctionType, TracebackType

import ovlo
from ovlo.core.pen.unused import HOW
from ovlo.core.sheet.nib import Nib
from ovlo.core.values.arguments import nearest
from ovlo.core.values.colour_names import NAMED
from ovlo.core.values.everyday import COLOUR
from ovlo.program.source.tree import last_name

SET = ("ink", "line_width", "line_dash", "line_cap", "line_join", "pointer")
READ = ("position", "heading", "pose", "is_lifted", "sheet", "dice")
SIZES = {"polygon": "name the size: radius={size} or side_length={size}"}

KEYWORDS = (
    (("background", "bg", "color", "colour", "back"), "paper"),
    (("size", "r", "length", "radius"), "radius"),
    (("size", "length", "side", "distance"), "side_length"),
    (("side", "length", "size"), "width"),
    (("corners", "edges", "n"), "sides"),
    (("tips", "corners", "n"), "points"),
    (("angle", "rotation", "rotate", "tilt", "heading"), "turn"),
    (("filename", "file", "name"), "path"),
    (("text", "string", "message", "label"), "words"),
    (("font_size", "fontsize", "height"), "size"),
    (("thickness", "width", "stroke", "line"), "line_width"),
    (("bold",), "weight"),
    (("italic",), "slant"),
    (("times", "n", "number", "repeat"), "count"),
)
"""Words tried for a parameter, and which it may be."""

NUMBERS = ("no values", "one value", "two values", "three values", "four values")


def fix(message: str, place: TracebackType) -> str:
    """What to write instead of a call that Python refuses; "" if that is not known."""
    node = node_at(place)
    match = re.match(r"([\w.]+(?:\.<locals>\.\w+)*)\(\) (takes|got|missing)", message)
    if match:
        return _wrong_arguments(match[1], message, node, place)
    if "object is not callable" in message and isinstance(node, ast.Call):
        return _not_called(node)
    if "does not support the context manager" in message:
        return _not_opened(place)
    if "'method' object is not iterable" in message:
        return _not_looped(place)
    if "'method' object is not subscriptable" in message and isinstance(node, ast.Subscript):
        return f"a call needs round brackets: {ast.unparse(node.value)}({ast.unparse(node.slice)})"
    return ""


def _wrong_arguments(qualname: str, message: str, node: ast.AST | None, place: TracebackType) -> str:
    function, is_ours = _function(qualname, place)
    if function is None:
        return ""
    name = qualname.rpartition(".")[2]
    values = [ast.unparse(value) for value in node.args] if isinstance(node, ast.Call) else []
    parameters = list(inspect.signature(function).parameters.values())
    if not is_ours:
        if isinstance(node, ast.Call) and last_name(node.func) in qualname.split(".")[-2:]:
            return _forgotten_nib(name, parameters, values, place) or _of_theirs(
                qualname, message, parameters, node
            )
        return ""  # called by something else, such as sorted
    if name in ("__init__", "__new__"):
        name = last_name(node.func) if isinstance(node, ast.Call) else qualname.split(".")[0]
        if name in MADE_BY_OVLO:
            return f"{name} is not called: {MADE_BY_OVLO[name]}"
    if parameters and parameters[0].name in ("self", "cls"):
        parameters = parameters[1:]
    return _of_ours(name, message, parameters, values, node)


def _of_ours(
    name: str,
    message: str,
    parameters: list[inspect.Parameter],
    values: list[str],
    node: ast.AST | None,
) -> str:
    by_place = [one.name for one in parameters if one.kind is one.POSITIONAL_OR_KEYWORD]
    by_name = [one.name for one in parameters if one.kind is one.KEYWORD_ONLY]
    if "unexpected keyword" in message:
        return _unknown_keyword(name, message.split("'")[1], by_place + by_name, node)
    if "multiple values" in message:
        return _twice(name, message)
    if "missing" in message and isinstance(node, ast.Call):
        # A method called on its class: Sheet.new_nib()
        owner = ast.unparse(node.func.value) if isinstance(node.func, ast.Attribute) else ""
        if owner in MADE:
            return f"{name} belongs to one {owner.lower()}, not to all: {MADE[owner]}.{name}(…)"
    if "missing" in message:
        missing = re.findall(r"'(\w+)'", message)
        example = ", ".join(one.name for one in parameters if one.default is one.empty)
        return f"{name} needs {_and(missing)}; write {name}({example})"
    count = len(by_place)
    if isinstance(node, ast.Call) and len(values) == count + 1 > 1 and _is_decimal_comma(node):
        meant = ", ".join([".".join(values[:2]), *values[2:]])
        return f"decimals take a point: {name}({meant}) instead of {name}({', '.join(values)})"
    takes = NUMBERS[count] if count < len(NUMBERS) else f"{count} values"
    names = f", {', '.join(by_place)}" if by_place else ""
    if name in ("circle", "ellipse", "polygon", "star", "rectangle") and len(values) == count + 2:
        x, y, *rest = values
        return (
            f"{name} takes {takes}{names}, and is drawn around the nib: nib.travel_to({x}, {y}), then "
            f"nib.{name}({', '.join(rest)})"
        )
    if name == "polyline" and len(values) > 1:
        return f"polyline takes one list of points: polyline([{', '.join(values)}])"
    if name in SIZES and len(values) > count:
        return f"{name} takes {takes}{names}; {SIZES[name].format(size=values[count])}"
    if "fill" in by_name and (colour := next((value for value in values[count:] if _is_colour(value)), "")):
        return f"{name} takes {takes}{names}; name the colour: fill={colour}"
    others = f"; the others need their names: {', '.join(f'{one}=…' for one in by_name)}" if by_name else ""
    return f"{name} takes {takes}{names}{others}"


MADE = {"Sheet": "sheet = Sheet(), then sheet", "Nib": "nib = sheet.new_nib(), then nib"}
"""How one of a class is made and used."""


MADE_BY_OVLO = {
    "CallTotal": "sheet.calls() gives those of a drawing",
    "Comparison": "sheet.compare(other) makes one",
    "Drawing": "write @drawing above a function",
    "Finding": "sheet.check() gives what it finds",
    "FlatPath": "sheet.paths() gives those of a drawing",
    "Motif": "Motif.record(function) makes one of what a function draws",
    "PenReport": "sheet.save_plot(…) gives one for each pen",
    "PlotReport": "sheet.save_plot(…) gives one",
    "Step": "sheet.steps() gives those of a drawing",
    "Variations": "kite.vary(…) makes one of a drawing",
}
"""Classes that a program does not make, and where it gets what is of them."""


def _is_decimal_comma(node: ast.Call) -> bool:
    """Whether two whole numbers stand together as in `forward(2,5)`."""
    first, second = node.args[:2]
    return (
        isinstance(first, ast.Constant)
        and isinstance(second, ast.Constant)
        and type(first.value) is type(second.value) is int
        and second.col_offset == (first.end_col_offset or 0) + 1
    )


def _is_colour(source: str) -> bool:
    """Whether a value of a call is a colour in quotes."""
    word = source.strip("'\"").lower()
    return source[:1] in ("'", '"') and (word in NAMED or word.startswith("#"))


def _unknown_keyword(name: str, given: str, known: list[str], node: ast.AST | None) -> str:
    value = "…"
    for keyword in node.keywords if isinstance(node, ast.Call) else ():
        if keyword.arg == given:
            value = ast.unparse(keyword.value)
    if given in COLOUR.split() and ("fill" in known or "ink" in known):
        meant = f"write {'fill' if 'fill' in known else 'ink'}={value}"
        if "fill" in known:
            meant += f", or set nib.ink = {value} for the line"
    elif given.startswith("fill") and "fill" in known:
        meant = f"write fill={value}"
    elif given in COLOUR.split():
        meant = f"set nib.ink = {value} before it"
    elif meant := next(
        (f"write {word}={value}" for words, word in KEYWORDS if given in words and word in known), ""
    ):
        pass
    elif near := nearest(given, known):
        meant = f"did you mean {near[0]}={value}?"
    else:
        meant = "" if known else "it takes no options"
    listed = f" It takes {', '.join(known)}." if known else ""
    return f"{name} has no {given}=; {meant or 'check the name'}.{listed}".replace("?.", "?")


def _forgotten_nib(
    name: str, parameters: list[inspect.Parameter], values: list[str], place: TracebackType
) -> str:
    """A user's own function that was called without its nib."""
    names = [one.name for one in parameters]
    if not names or not values or len(values) >= len(names):
        return ""
    if names[0] not in ("nib", "pen") or isinstance(_value(values[0], place), Nib):
        return ""
    return (
        f"{name} takes {', '.join(names)}; {values[0]} went to {names[0]}: "
        f"write {name}({names[0]}, {', '.join(values)})"
    )


def _of_theirs(qualname: str, message: str, parameters: list[inspect.Parameter], node: ast.Call) -> str:
    """A user's own function that was given too few values, too many, or one by a name that it lacks."""
    *owners, _ = qualname.split(".")
    if owners and owners[-1] != "<locals>":
        if not parameters or parameters[0].name not in ("self", "cls"):
            return ""
        parameters = parameters[1:]
    name, call = last_name(node.func), ast.unparse(node.func)
    known = [one.name for one in parameters]
    given = [ast.unparse(value) for value in node.args]
    if "multiple values" in message:
        return _twice(name, message)
    if "unexpected keyword" in message:
        word = message.split("'")[1]
        value = next((ast.unparse(one.value) for one in node.keywords if one.arg == word), "…")
        near = nearest(word, known)
        meant = f"did you mean {near[0]}={value}? It" if near else "it"
        return f"{name} has no {word}=; {meant} takes {_and(known) or 'no values'}"
    if "missing" in message:
        missing = re.findall(r"'(\w+)'", message)
        named = [ast.unparse(one) for one in node.keywords]
        added = [
            f"{one.name}=…" if named or one.kind is one.KEYWORD_ONLY else one.name
            for one in parameters
            if one.name in missing
        ]
        return f"{name} needs {_and(missing)} as well: {call}({', '.join([*given, *named, *added])})"
    surplus = given[len(known) :]
    takes = f"only {_and(known)}" if known else "no values"
    return f"{name} takes {takes}; {_and(surplus)} {'is one' if len(surplus) == 1 else 'are'} too many"


def _twice(name: str, message: str) -> str:
    return f"{name}: {message.split(chr(39))[1]} is given twice, by its place and by its name"


def _and(names: list[str]) -> str:
    """Some names as a sentence has them: x, y and colour."""
    return " and ".join(", ".join(names).rsplit(", ", 1))


def _not_called(node: ast.Call) -> str:
    called = node.func
    if not isinstance(called, ast.Attribute):
        return ""
    thing, name = ast.unparse(called), called.attr
    if name in SET:
        value = ast.unparse(node.args[0]) if node.args else "…"
        return f"{name} is set with =, as in {thing} = {value}"
    if name in READ or name in ("x", "y", "width", "height", "trail", "nibs", "seed", "box", "end"):
        return f"{name} is read without brackets, as in {thing}"
    return ""


def _not_opened(place: TracebackType) -> str:
    for node in _nodes_on_line(place):
        for item in node.items if isinstance(node, ast.With) else ():
            opened = item.context_expr
            if isinstance(opened, ast.Attribute) and opened.attr in HOW:
                return f"a block needs brackets: with {ast.unparse(opened.value)}.{HOW[opened.attr]}:"
    return ""


def _not_looped(place: TracebackType) -> str:
    for node in _nodes_on_line(place):
        if isinstance(node, ast.For) and isinstance(node.iter, ast.Attribute):
            return f"the loop needs brackets: for {ast.unparse(node.target)} in {ast.unparse(node.iter)}(4):"
    return ""


# ── the source of a call ──────────────────────────────────────────────────────────────────────────────────


def node_at(place: TracebackType) -> ast.AST | None:
    """The part of the source that was being executed."""
    positions = list(place.tb_frame.f_code.co_positions())
    number = place.tb_lasti // 2
    if number >= len(positions):
        return None
    span = positions[number]
    for node in _nodes_on_line(place):
        where = tuple(
            getattr(node, name, None) for name in ("lineno", "end_lineno", "col_offset", "end_col_offset")
        )
        if where == span and isinstance(node, ast.expr):
            return node
    return None


def _nodes_on_line(place: TracebackType) -> list[ast.AST]:
    tree = tree_of(place)
    if tree is None:
        return []
    return [node for node in ast.walk(tree) if _covers(node, place.tb_lineno)]


def _covers(node: ast.AST, line: int) -> bool:
    first, last = getattr(node, "lineno", None), getattr(node, "end_lineno", None)
    return first is not None and last is not None and first <= line <= last


def tree_of(place: TracebackType) -> ast.Module | None:
    """The program that was being executed; None if it cannot be read."""
    file = place.tb_frame.f_code.co_filename
    linecache.checkcache(file)
    return _parsed("".join(linecache.getlines(file)))


@lru_cache(maxsize=8)
def _parsed(source: str) -> ast.Module | None:
    try:
        return ast.parse(source)
    except (SyntaxError, ValueError, RecursionError):
        return None


def _function(qualname: str, place: TracebackType) -> tuple[Callable[..., object] | None, bool]:
    """The function that Python's message names, and whether it is one of ours."""
    parts = [part for part in qualname.split(".") if part != "<locals>"]
    first = Nib if parts[0] == "nib" else getattr(ovlo, parts[0], None) if parts[0] in ovlo.__all__ else None
    if first is not None:
        found = inspect.getattr_static(first, parts[1], None) if len(parts) > 1 else first
        found = getattr(found, "__func__", found)
        return (found if isinstance(found, FunctionType) else None), True
    is_method = len(parts) > 1 and not qualname.endswith(f"<locals>.{parts[-1]}")
    found = _value(parts[-2] if is_method else parts[-1], place)
    if is_method:
        found = inspect.getattr_static(found, parts[-1], None)
    found = getattr(found, "_function", found)  # a drawing is called like its function
    return (found if isinstance(found, FunctionType) else None), False


def _value(source: str, place: TracebackType) -> object:
    """What a plain name stands for where the program is."""
    frame = place.tb_frame
    return frame.f_locals.get(source, frame.f_globals.get(source))
