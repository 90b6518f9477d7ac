"""The pens at hand and the machine that holds them, read from a small file: TOML with one table a pen.

    [fine black]          # a name with a space is written in quotes: ["fine black"]
    ink = "black"
    line_width = 0.3      # millimetres
    passes = 2            # optional: times each stroke is drawn
    hatch_angle = 30      # optional: degrees

    [machine]             # optional: what differs from the defaults
    lift = "M5"
    lower = ["M3 S90", "G4 P0.2"]
    feed = 1500           # millimetres a minute; also lower_feed
    corner = "upper left" # where the origin is on the page
    y = "down"
    width = 300           # how far the machine reaches, with height

pens, machine = read_tray("pens.toml", "plot")
"""

from __future__ import annotations

import re
import tomllib
from collections.abc import Collection
from os import PathLike
from typing import Any

from ovlo.core.plot.pens import Pen
from ovlo.core.values import arguments, colour
from ovlo.core.values.errors import BadType, BadValue, FileError, OvloError
from ovlo.render.files import checked_path
from ovlo.render.plotter.machine import CODES, CORNERS, PLACES, Machine, code_lines
from ovlo.render.plotter.machine import KEYS as MACHINE_KEYS

EXAMPLE = """a table of its own: [black], then ink = "black" and line_width = 0.3 on lines below"""
NEEDED = ("ink", "line_width")
KEYS = (*NEEDED, "passes", "hatch_angle")
MACHINE = "machine"
"""The name of the table that describes the machine."""

MOST = 1000
"""Pens in a tray."""

MOST_PASSES = 100
"""Times a pen may go over each stroke."""


def read_tray(path: str | PathLike[str], call: str) -> tuple[tuple[Pen, ...], Machine]:
    """The pens in a file, in their order, and the machine; no pens where the file only describes a machine.

    Raises
    ------
    FileError
        If the file cannot be read.
    BadValue
        If it is not TOML, or a table has a key missing, a key too many or a bad value; names the line.
    """
    file = checked_path(path, call)
    try:
        text = file.read_text(encoding="utf-8")
        tables = tomllib.loads(text)
    except tomllib.TOMLDecodeError as error:
        raise BadValue(
            f"{call}: {file} is not TOML: {error}. Write colours in quotes; each pen is {EXAMPLE}."
        ) from error
    except UnicodeDecodeError as error:
        raise BadValue(f"{call}: {file} is not text in UTF-8; save it as UTF-8.") from error
    except OSError as error:
        raise FileError(f"{call}: {str(file)!r} cannot be read ({error.strerror}).") from error
    if not tables:
        raise BadValue(f"{call}: {file} lists no pen; each is {EXAMPLE}.")
    arguments.at_most(len(tables), call, "pens", MOST)
    where = f"{call}: {file}"
    machine = _machine(tables.pop(MACHINE, {}), text, where)
    return tuple(_pen(name, table, text, where) for name, table in tables.items()), machine


def _machine(table: object, text: str, call: str) -> Machine:
    _check_table(
        MACHINE, table, MACHINE_KEYS, text, call, "the machine", "each key stands below the line [machine]"
    )
    assert isinstance(table, dict)
    found: dict[str, Any] = {}
    for key, value in table.items():
        where = f"{call}, line {_line_of(key, text, MACHINE)}"
        try:
            if key in CODES:
                found[key] = code_lines(value, where, key)
            elif key in PLACES:
                found[key] = arguments.choice(
                    value, where, key, CORNERS if key == "corner" else ("up", "down")
                )
            else:
                found[key] = arguments.positive(value, where, key)
        except BadType as error:
            raise BadValue(str(error)) from error
    return Machine(**found)


CLOSEST = 0.02
"""Millimetres: a finer pen, or hatch lines nearer to each other, would fill a page for days."""


def not_too_fine(width: float, call: str, name: str) -> float:
    """A width in millimetres, if there is such a pen."""
    if width < CLOSEST:
        raise BadValue(f"{call}: {name} must be {CLOSEST:g} mm or more, but is {width:g} mm.")
    return width


def _pen(name: str, table: object, text: str, call: str) -> Pen:
    _check_table(name, table, KEYS, text, call, "a pen", f"each pen is {EXAMPLE}")
    assert isinstance(table, dict)
    for key, example in zip(NEEDED, ('"black"', "0.3"), strict=True):
        if key not in table:
            where = f"{call}, line {_line_of(name, text)}"
            raise BadValue(f"{where}: the pen {name!r} has no {key}; add {key} = {example}.")
    try:
        ink = colour.parse(table["ink"], name)
        width = not_too_fine(arguments.positive(table["line_width"], name, "line_width"), name, "line_width")
        arguments.text(name, name, "the name of a pen")
        passes = arguments.whole(table.get("passes", 1), name, "passes", 1)
        arguments.at_most(passes, name, "passes", MOST_PASSES)
        angle = table.get("hatch_angle")
        angle = None if angle is None else arguments.angle(angle, name, "hatch_angle")
    except OvloError as error:
        key = next((key for key in KEYS if key in str(error)), "ink")
        raise BadValue(f"{call}, line {_line_of(key, text, name)}: {error}") from error
    return Pen(name, colour.Colour(*ink._rgb), width, passes, angle)


def _check_table(
    name: str, table: object, keys: Collection[str], text: str, call: str, owner: str, fix: str
) -> None:
    """Refuse what is not a table, and a key that it may not have."""
    if not isinstance(table, dict):
        raise BadValue(f"{call}, line {_line_of(name, text)}: {name} is not in a table; {fix}.")
    for key in table:
        if key not in keys:
            where = f"{call}, line {_line_of(key, text, name)}"
            raise BadValue(f"{where}: {owner} has no {key!r}{arguments.near(key, keys)}; delete the line.")


def _line_of(key: str, text: str, table: str = "") -> int:
    """The line on which a key, or a table, stands in a file."""
    lines = text.splitlines()
    begin = _line_of(table, text) if table else 0
    pattern = rf"""\s*\[?\s*["']?{re.escape(key)}["']?\s*[\]=.]"""
    return next((i for i, line in enumerate(lines[begin:], begin + 1) if re.match(pattern, line)), begin or 1)
