"""Writes values into a program as the defaults of a drawing's parameters.

write_defaults(Path("kite.py"), "kite", {"sides": "5"}, state)

Only the expressions of the defaults change. A parse tree gives their places: lines as Python counts them, and
columns in bytes of UTF-8 (https://docs.python.org/3/library/ast.html#ast.AST.col_offset).
"""

from __future__ import annotations

import ast
import codecs
import io
import re
import tokenize
from pathlib import Path

from ovlo.core.values.errors import BadUse, BadValue, FileError
from ovlo.program.parameters import YES
from ovlo.render.files import write

LINE = re.compile(rb"[^\r\n]*(?:\r\n|\r|\n|$)")
"""A line with its end, as Python's parser counts lines."""

Places = dict[str, ast.expr]
"""The default of each parameter."""


def write_defaults(
    path: Path, function: str, values: dict[str, str], state: tuple[int, int] | None
) -> list[str]:
    """Write values, given as text, as the defaults of a function's parameters; returns the names changed.

    Raises
    ------
    BadUse
        If the file is not the one that was drawn: `state` is when that was written, and its length.
    BadValue
        If a default is no plain value.
    FileError
        If the file cannot be read or written.
    """
    if not values:
        raise BadUse(f"{path.name} already has these values.")
    try:
        about, source = path.stat(), path.read_bytes()
    except OSError as error:
        raise FileError(f"{path} cannot be read ({error.strerror}).") from error
    if state is not None and state != (about.st_mtime_ns, about.st_size):
        raise BadUse(f"{path.name} has been saved since this picture was drawn; nothing was written.")
    changed = with_defaults(source, function, values)
    if changed != source:
        write(path, changed)
    return list(values)


def with_defaults(source: bytes, function: str, values: dict[str, str]) -> bytes:
    """A program with other defaults; its line ends, its encoding and all else stay."""
    encoding, _ = tokenize.detect_encoding(io.BytesIO(source).readline)
    mark = codecs.BOM_UTF8 if source.startswith(codecs.BOM_UTF8) else b""
    text = source.removeprefix(mark).decode("utf-8" if mark else encoding).encode()
    tree = ast.parse(text.decode())
    places = _places(tree, function)
    changes = []
    for name, value in values.items():
        if name not in places:
            raise BadValue(f"{name} has no default in the file.")
        default = places[name]
        changes.append((default, _expression(name, default, value)))
    new = _replaced(text, changes)
    if not _differ_only_there(tree, new, function, dict(values)):
        raise BadValue("More than the defaults of the program would change; nothing was written.")
    return mark + new.decode().encode("utf-8" if mark else encoding)


def _places(tree: ast.Module, function: str) -> Places:
    found = [node for node in tree.body if isinstance(node, ast.FunctionDef) and node.name == function]
    if not found:
        raise BadValue(
            f"{function} is not defined at the top level of the file, so its defaults cannot be changed."
        )
    arguments = found[-1].args
    taken = [*arguments.posonlyargs, *arguments.args]
    with_default = taken[len(taken) - len(arguments.defaults) :]
    places = {one.arg: default for one, default in zip(with_default, arguments.defaults, strict=True)}
    for one, default in zip(arguments.kwonlyargs, arguments.kw_defaults, strict=True):
        if default is not None:
            places[one.arg] = default
    return places


def _expression(name: str, default: ast.expr, value: str) -> str:
    """A value as Python writes it, of the kind that the default is of."""
    try:
        before = ast.literal_eval(default)
    except (ValueError, SyntaxError):
        before = None
    if isinstance(before, bool):
        return str(value.lower() in YES)
    if isinstance(before, str):
        return _quoted(value)
    if isinstance(before, int | float):
        try:
            return str(int(value))
        except ValueError:
            return repr(float(value))
    raise BadValue(
        f"The default of {name}, {ast.unparse(default)}, is not a plain value, so it is left unchanged."
    )


def _quoted(value: str) -> str:
    """A string with the quotes most programs have."""
    words = repr(value)
    return words if '"' in value or not words.startswith("'") else f'"{words[1:-1]}"'


def _replaced(text: bytes, changes: list[tuple[ast.expr, str]]) -> bytes:
    starts = [0]
    for line in LINE.finditer(text):
        starts.append(line.end())
    spans = []
    for place, words in changes:
        assert place.end_lineno is not None
        assert place.end_col_offset is not None
        begin = starts[place.lineno - 1] + place.col_offset
        spans.append((begin, starts[place.end_lineno - 1] + place.end_col_offset, words.encode()))
    for begin, end, expression in sorted(spans, reverse=True):
        text = text[:begin] + expression + text[end:]
    return text


def _differ_only_there(tree: ast.Module, new: bytes, function: str, values: dict[str, str]) -> bool:
    """Whether two programs are the same but for the defaults of some parameters."""
    try:
        other = ast.parse(new.decode())
    except SyntaxError:
        return False
    for one in (tree, other):
        for name, default in _places(one, function).items():
            if name in values:
                default.__class__, default.__dict__ = ast.Pass, {}  # type: ignore[assignment]
    return ast.dump(tree) == ast.dump(other)
