"""Whether a half-typed program may be run by itself: it computes and draws, and reaches nothing else.

reach_of(ast.parse("open('kite.txt')"))    # Reach(1, "`open` reaches beyond the picture")
"""

from __future__ import annotations

import ast
from typing import NamedTuple

COMPUTING = frozenset(
    {
        *("__future__", "abc", "array", "bisect", "cmath", "collections", "colorsys", "copy", "dataclasses"),
        *("datetime", "decimal", "enum", "fractions", "functools", "heapq", "itertools", "math", "numbers"),
        *("numpy", "operator", "ovlo", "random", "re", "statistics", "string", "textwrap", "typing"),
        "unicodedata",
    }
)
"""Modules that only compute, NumPy and Ovlo."""

OUTSIDE = frozenset(
    {
        *(
            "input",
            "open",
            "system",
            "run",
            "Popen",
            "save",
            "save_plot",
            "animate",
            "show",
            "live",
            "remove",
        ),
        *("unlink", "mkdir", "write_text", "write_bytes", "urlopen"),
    }
)
"""Calls that ask somebody, or write or send something."""

PYTHON = {
    *("exec", "eval", "compile", "breakpoint", "globals", "locals", "vars", "getattr", "setattr", "delattr"),
    *("exit", "quit", "help", "memoryview"),
}
NUMPY = {
    *("savez", "savez_compressed", "savetxt", "load", "loadtxt", "genfromtxt", "fromfile", "fromregex"),
    *("tofile", "dump", "memmap", "open_memmap", "DataSource", "ctypeslib", "f2py", "distutils", "testing"),
    "lib",
}
MODULES = {
    *("os", "sys", "io", "builtins", "subprocess", "shutil", "pathlib", "importlib", "ctypes", "socket"),
    *("modules", "loader"),
}
"""What other modules hold under these names, and what leads there."""

REACHING = (OUTSIDE - {"run", "remove", "show", "live"}) | PYTHON | NUMPY | MODULES
"""Names that reach files, other programs or Python itself, wherever they stand.

`show` and `live` do nothing in the studio; `run` and `remove` are names of much that is harmless.
"""


class Reach(NamedTuple):
    """The first line of a program that reaches farther than its picture, and what does."""

    line: int
    words: str


def reach_of(tree: ast.AST) -> Reach | None:
    """What a program reaches beyond computing and drawing; None where there is nothing."""
    found = [reach for node in ast.walk(tree) if (reach := _reach(node)) is not None]
    return min(found, default=None)


def _reach(node: ast.AST) -> Reach | None:
    if isinstance(node, ast.Import):
        names = [alias.name for alias in node.names]
    elif isinstance(node, ast.ImportFrom):
        module = node.module or "."
        names = [f"{'.' * node.level}{module}", *(f"{module}.{alias.name}" for alias in node.names)]
    else:
        name = node.id if isinstance(node, ast.Name) else node.attr if isinstance(node, ast.Attribute) else ""
        return Reach(node.lineno, f"`{name}` reaches beyond the picture") if _reaches(name) else None  # type: ignore[attr-defined]
    for name in names:
        first, *parts = name.split(".")
        if first not in COMPUTING:
            return Reach(node.lineno, f"`{name}` is imported")
        for part in parts:
            if _reaches(part):
                return Reach(node.lineno, f"`{part}` reaches beyond the picture")
    return None


def _reaches(name: str) -> bool:
    # `__name__` alone is in many programs; other such names lead to all of Python.
    return name in REACHING or (name.startswith("__") and name.endswith("__") and name != "__name__")
