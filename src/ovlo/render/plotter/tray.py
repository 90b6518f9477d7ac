"""The pens that are at hand, read from a small file: TOML with one table a pen.

    [fine black]          # a name with a space is written in quotes: ["fine black"]
    ink = "black"
    line_width = 0.3      # millimetres

pens = read_tray("pens.toml", "plot")
"""

from __future__ import annotations

import re
import tomllib
from os import PathLike

from ovlo.core.plot.pens import Pen
from ovlo.core.values import arguments, colour
from ovlo.core.values.errors import BadValue, FileTrouble, OvloError
from ovlo.render.files import checked_path

EXAMPLE = """a table of its own: [black], then ink = "black" and line_width = 0.3 on lines below"""
KEYS = ("ink", "line_width")

MOST = 1000
"""Pens in a tray."""


def read_tray(path: str | PathLike[str], call: str) -> tuple[Pen, ...]:
    """The pens in a file, in their order.

    Raises
    ------
    FileTrouble
        When the file cannot be read.
    BadValue
        When it is not TOML, or a pen has no ink, no width above 0, or something else; with the line.
    """
    file = checked_path(path, call)
    try:
        text = file.read_text(encoding="utf-8")
        tables = tomllib.loads(text)
    except tomllib.TOMLDecodeError as error:
        raise BadValue(
            f"{call}: {file} is not TOML: {error}. A colour stands in quotes; each pen is {EXAMPLE}."
        ) from error
    except UnicodeDecodeError as error:
        raise BadValue(f"{call}: {file} is no text in UTF-8; save it as such.") from error
    except OSError as error:
        raise FileTrouble(f"{call}: {str(file)!r} cannot be read ({error.strerror}).") from error
    if not tables:
        raise BadValue(f"{call}: {file} holds no pen; each is {EXAMPLE}.")
    arguments.at_most(len(tables), call, "pens", MOST)
    return tuple(_pen(name, table, text, f"{call}: {file}") for name, table in tables.items())


def _pen(name: str, table: object, text: str, call: str) -> Pen:
    where = f"{call}, line {_line_of(name, text)}"
    if not isinstance(table, dict):
        raise BadValue(f"{where}: {name} stands in no table; each pen is {EXAMPLE}.")
    for key in table:
        if key not in KEYS:
            near = arguments.near(key, KEYS)
            raise BadValue(
                f"{call}, line {_line_of(key, text, name)}: a pen has no {key!r}{near}; take it out."
            )
    for key, example in zip(KEYS, ('"black"', "0.3"), strict=True):
        if key not in table:
            raise BadValue(f"{where}: the pen {name!r} has no {key}; add {key} = {example}.")
    try:
        ink = colour.parse(table["ink"], name)
        width = arguments.positive(table["line_width"], name, "line_width")
        arguments.text(name, name, "the name of a pen")
    except OvloError as error:
        key = "line_width" if "line_width" in str(error) else "ink"
        raise BadValue(f"{call}, line {_line_of(key, text, name)}: {error}") from error
    return Pen(name, colour.Colour(*ink._rgb), width)


def _line_of(key: str, text: str, table: str = "") -> int:
    """The line on which a key, or a table, stands in a file."""
    lines = text.splitlines()
    begin = _line_of(table, text) if table else 0
    pattern = rf"""\s*\[?\s*["']?{re.escape(key)}["']?\s*[\]=.]"""
    return next((i for i, line in enumerate(lines[begin:], begin + 1) if re.match(pattern, line)), begin or 1)
