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
from ovlo.core.sheet.nib import Nib
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values import arguments
from ovlo.core.values.errors import BadUse, FileError, ProgramFailed
from ovlo.program import texts
from ovlo.program.drawing import Drawing
from ovlo.program.python_errors import syntax_in_words
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
    package : str
        The package that the file is in, or "".
    """

    path: Path
    name: str
    code: CodeType = field(repr=False)
    declares: bool
    takers: tuple[str, ...] = ()
    package: str = ""
    uncalled: tuple[str, ...] = ()
    """What is said of lines that name a method of a nib or sheet without calling it."""

    @property
    def module(self) -> str:
        """What Python would import it as."""
        return f"{self.package}.{self.path.stem}" if self.package else self.path.stem

    def drawings(self) -> dict[str, AnyDrawing]:
        """Execute the file and find the drawings it declares, by name."""
        # Under a host, `show` and `live` calls of the file do nothing.
        with hosted():
            module = self.execute(self.module)
        found = [value for value in vars(module).values() if isinstance(value, Drawing)]
        own = {item._name: item for item in found if item.__module__ == module.__name__}
        for item in own.values():
            item._module = module
        check_shortcuts((item._name, item._shortcut) for item in own.values())
        return own

    def drawing(self) -> AnyDrawing:
        """The drawing asked for: by its name, or the only one there is."""
        found = self.drawings()
        names = ", ".join(found)
        if not found:
            raise BadUse(f"{self.path} defines no drawing at its top level.")
        if self.name in found:
            return found[self.name]
        if self.name:
            near = arguments.near(self.name, found)
            raise BadUse(f"{self.path} has no drawing {self.name!r}{near}; it has {names}.")
        if len(found) == 1:
            return next(iter(found.values()))
        example = f"{self.path}:{next(iter(found))}"
        raise BadUse(f"{self.path} has {len(found)} drawings: {names}. Choose one, as in {example}.")

    def execute(self, name: str) -> ModuleType:
        """Execute the file as the module `name`."""
        module = ModuleType(name)
        module.__file__ = str(self.path)
        module.__package__ = self.package
        with as_under_python(module):
            exec(self.code, vars(module))
        return module


def load(target: str) -> Program:
    """Read and compile the file of `FILE[:NAME]`."""
    path, name, package = split_target(target)
    text = texts.held(path)
    source = _read(path) if text is None else text
    try:
        tree = ast.parse(source, str(path))
        code = compile(tree, str(path), "exec", dont_inherit=True)
    except (SyntaxError, ValueError) as error:  # a null byte is a ValueError
        lines = "".join(traceback.format_exception_only(error)).rstrip().splitlines()
        words = "\n".join(line if len(line) <= WIDEST else f"{line[:WIDEST]}…" for line in lines)
        meant = syntax_in_words(error)
        line = getattr(error, "lineno", None)
        where = f"{path}, line {line}," if line else f"{path}"
        raise ProgramFailed(f"{where} cannot be read as Python.\n{words}\n{meant}".rstrip()) from error
    except (RecursionError, MemoryError):
        raise ProgramFailed(f"{path} is nested too deeply for Python; split it up.") from None
    declares = _uses_drawing(tree)
    if name and not declares:
        raise BadUse(f"{path} is a script without drawings; leave out {':' + name!r}.")
    takers = tuple(
        node.name
        for node in tree.body
        if isinstance(node, ast.FunctionDef) and node.args.args[:1] and node.args.args[0].arg == "nib"
    )
    uncalled = tuple(
        f"{path}, line {node.lineno}: {ast.unparse(node.value)} is named here, but not called; write "
        f"{ast.unparse(node.value)}()."
        for node in ast.walk(tree)
        if isinstance(node, ast.Expr)
        and isinstance(node.value, ast.Attribute)
        and isinstance(node.value.value, ast.Name)
        and any(callable(getattr(kind, node.value.attr, None)) for kind in (Nib, Sheet))
    )
    return Program(path, name, code, declares, takers, package or package_of(path), uncalled)


def _read(path: Path) -> bytes:
    """What stands in a program's file."""
    if path.is_dir():
        raise FileError(f"{path} is a folder; name a Python file in it.")
    if path.exists() and not path.is_file():
        raise FileError(f"{path} is not a readable file; save the program as kite.py.")
    try:
        with path.open("rb") as file:
            source = file.read(LARGEST + 1)
    except OSError as error:
        if path.exists():
            raise FileError(f"{path} cannot be read ({error.strerror}).") from error
        raise FileError(f"The file {path} does not exist{near_files(path)}.") from error
    if len(source) > LARGEST:
        most = LARGEST // 1_000_000
        raise FileError(f"{path} is larger than {most} MB, too large for a program.")
    return source


def near_files(path: Path) -> str:
    """A question whether a program beside a path that does not exist is meant, or ""."""
    folder = path.parent
    known = [file.name for file in folder.glob("*.py")] if folder.is_dir() else []
    return arguments.near(path.name, known)


def split_target(target: str) -> tuple[Path, str, str]:
    """The file and the name of `FILE[:NAME]`, and the package of `package.module[:NAME]`."""
    file, colon, name = target.rpartition(":")
    # A colon may also belong to the file, as a drive does.
    if not colon or not name.isidentifier() or Path(target).exists():
        file, name = target, ""
    package, _, stem = file.rpartition(".")
    if not Path(file).exists() and all(part.isidentifier() for part in file.split(".")):
        for folder in (Path(), *map(Path, sys.path)):
            inside = folder.joinpath(*file.split("."))
            for path, where in ((inside.with_name(f"{stem}.py"), package), (inside / "__init__.py", file)):
                if path.is_file():
                    return path, name, where
    return Path(file), name, ""


def package_of(path: Path) -> str:
    """The package whose folder a file is in, or ""."""
    folder, names = path.resolve().parent, []
    while (folder / "__init__.py").is_file() and folder.name.isidentifier():
        names.append(folder.name)
        folder = folder.parent
    return ".".join(reversed(names))


def _uses_drawing(tree: ast.Module) -> bool:
    """Whether a file uses Ovlo's `drawing`, under whatever name it imports it."""
    modules, names = set(), set()
    for node in ast.walk(tree):
        if isinstance(node, ast.Import):
            modules |= {item.asname or item.name for item in node.names if item.name == "ovlo"}
        elif isinstance(node, ast.ImportFrom) and node.module == "ovlo":
            names |= {item.asname or item.name for item in node.names if item.name == "drawing"}
            if any(item.name == "*" for item in node.names):
                names.add("drawing")
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
def as_under_python(module: ModuleType | None) -> Iterator[None]:
    """A block in which a user's file finds what it would find under Python.

    Its neighbours can be imported, and it stands in `sys.modules` under its name, where `multiprocessing`
    looks for its functions; but never in place of a loaded module, except as the script `__main__`.
    """
    if module is None:
        yield
        return
    name, file = module.__name__, Path(module.__file__ or "")
    # A module of a package finds what stands beside the outermost package, as Python has it.
    depth = len(module.__package__.split(".")) if module.__package__ else 0
    folder = file.resolve().parents[depth]
    before = sys.modules.get(name)
    arguments_before, path_before = sys.argv, list(sys.path)
    if before is None or name == "__main__":
        sys.modules[name] = module
    sys.argv = [str(file)]
    sys.path.insert(0, str(folder))
    try:
        yield
    finally:
        sys.argv, sys.path[:] = arguments_before, path_before
        if before is None:
            sys.modules.pop(name, None)
        else:
            sys.modules[name] = before
