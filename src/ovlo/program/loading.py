"""From `FILE[:NAME]` to something that can be run.

    program = load("kites.py:row_of_kites")
    program.drawings

A file that uses `drawing` is executed as a module and its drawings are found; any other is a script, which
is only compiled here and executed when it is run.
"""

from __future__ import annotations

import ast
import sys
import traceback
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from pathlib import Path
from types import CodeType, ModuleType
from typing import Any

from ovlo.core.sheet.host import hosted
from ovlo.core.values import arguments
from ovlo.core.values.errors import BadUse, FileTrouble, ProgramFailed
from ovlo.program.drawing import Drawing
from ovlo.program.shortcuts import check_shortcuts

AnyDrawing = Drawing[Any, Any]

LARGEST = 10_000_000
"""Bytes of a program."""

WIDEST = 200
"""Characters of a program's line in a message."""


@dataclass(frozen=True)
class Program:
    """A user's file, read and compiled.

    Attributes
    ----------
    path : Path
        The file.
    name : str
        The drawing asked for, or "".
    code : code object
    declares : bool
        Whether the file declares drawings; if not, it is a script.
    takers : tuple of str
        Its functions that take a nib first.
    """

    path: Path
    name: str
    code: CodeType = field(repr=False)
    declares: bool
    takers: tuple[str, ...] = ()

    def drawings(self) -> dict[str, AnyDrawing]:
        """Execute the file and find the drawings it declares, by name."""
        # Under a host, `show` and `live` calls of the file do nothing.
        with hosted():
            module = self.execute(self.path.stem)
        found = [value for value in vars(module).values() if isinstance(value, Drawing)]
        own = {item._name: item for item in found if item.__module__ == module.__name__}
        check_shortcuts((item._name, item._shortcut) for item in own.values())
        return own

    def drawing(self) -> AnyDrawing:
        """The drawing asked for: by its name, or the only one there is."""
        found = self.drawings()
        names = ", ".join(found)
        if not found:
            raise BadUse(f"{self.path} declares no drawing at its top level.")
        if self.name in found:
            return found[self.name]
        if self.name:
            near = arguments.near(self.name, found)
            raise BadUse(f"{self.path} has no drawing {self.name!r}{near}; it has {names}.")
        if len(found) == 1:
            return next(iter(found.values()))
        example = f"{self.path}:{next(iter(found))}"
        raise BadUse(f"{self.path} has {len(found)} drawings: {names}. Name one, as in {example}.")

    def execute(self, name: str) -> ModuleType:
        """Execute the file as the module `name`."""
        module = ModuleType(name)
        module.__file__ = str(self.path)
        with _imported_as(module, self.path):
            exec(self.code, vars(module))
        return module


def load(target: str) -> Program:
    """Read and compile the file of `FILE[:NAME]`."""
    path, name = split_target(target)
    if path.is_dir():
        raise FileTrouble(f"{path} is a folder; name a Python file in it.")
    if path.exists() and not path.is_file():
        raise FileTrouble(f"{path} is no file that can be read; save the program as kite.py.")
    try:
        with path.open("rb") as file:
            source = file.read(LARGEST + 1)
    except OSError as error:
        if path.exists():
            raise FileTrouble(f"{path} cannot be read ({error.strerror}).") from error
        folder = path.parent
        known = [file.name for file in folder.glob("*.py")] if folder.is_dir() else []
        raise FileTrouble(f"There is no file {path}{arguments.near(path.name, known)}.") from error
    if len(source) > LARGEST:
        most = LARGEST // 1_000_000
        raise FileTrouble(f"{path} is larger than {most} MB; that is no program to draw with.")
    try:
        tree = ast.parse(source, str(path))
        code = compile(tree, str(path), "exec", dont_inherit=True)
    except (SyntaxError, ValueError) as error:  # a null byte is a ValueError
        lines = "".join(traceback.format_exception_only(error)).rstrip().splitlines()
        words = "\n".join(line if len(line) <= WIDEST else f"{line[:WIDEST]}…" for line in lines)
        raise ProgramFailed(f"{path} is not a Python program.\n{words}") from error
    except (RecursionError, MemoryError):
        raise ProgramFailed(f"{path} is nested too deeply for Python; take it apart.") from None
    declares = _uses_drawing(tree)
    if name and not declares:
        raise BadUse(f"{path} is a script without drawings; leave out {':' + name!r}.")
    takers = tuple(
        node.name
        for node in tree.body
        if isinstance(node, ast.FunctionDef) and node.args.args[:1] and node.args.args[0].arg == "nib"
    )
    return Program(path, name, code, declares, takers)


def split_target(target: str) -> tuple[Path, str]:
    """The file and the name of `FILE[:NAME]`."""
    file, colon, name = target.rpartition(":")
    # A colon may also belong to the file, as a drive does.
    if colon and name.isidentifier() and not Path(target).exists():
        return Path(file), name
    return Path(target), ""


def _uses_drawing(tree: ast.Module) -> bool:
    """Whether a file uses Ovlo's `drawing`, under whatever name it imports it."""
    modules, names = set(), set()
    for node in ast.walk(tree):
        if isinstance(node, ast.Import):
            modules |= {item.asname or item.name for item in node.names if item.name == "ovlo"}
        elif isinstance(node, ast.ImportFrom) and node.module == "ovlo":
            names |= {item.asname or item.name for item in node.names if item.name == "drawing"}
    return any(
        (isinstance(node, ast.Name) and node.id in names)
        or (
            isinstance(node, ast.Attribute)
            and node.attr == "drawing"
            and isinstance(node.value, ast.Name)
            and node.value.id in modules
        )
        for node in ast.walk(tree)
    )


@contextmanager
def _imported_as(module: ModuleType, path: Path) -> Iterator[None]:
    """A block in which the file is the module of that name, and its neighbours can be imported."""
    before = sys.modules.get(module.__name__)
    arguments_before, path_before = sys.argv, list(sys.path)
    sys.modules[module.__name__] = module
    sys.argv = [str(path)]
    sys.path.insert(0, str(path.parent.resolve()))
    try:
        yield
    finally:
        sys.argv, sys.path[:] = arguments_before, path_before
        if before is None:
            del sys.modules[module.__name__]
        else:
            sys.modules[module.__name__] = before
