"""The graph of imports: no module needs one that needs it, and two doors alone lead up."""

from __future__ import annotations

import ast
from graphlib import CycleError, TopologicalSorter
from pathlib import Path

SOURCES = Path(__file__).parents[1] / "src" / "ovlo"


def module_name(path: Path) -> str:
    parts = path.relative_to(SOURCES.parent).with_suffix("").parts
    return ".".join(part for part in parts if part != "__init__")


def imported(tree: ast.AST, known: set[str]) -> set[str]:
    """The modules of Ovlo that a module imports anywhere, except for type checkers only."""
    found: set[str] = set()
    for node in ast.iter_child_nodes(tree):
        if isinstance(node, ast.If) and ast.unparse(node.test) == "TYPE_CHECKING":
            for part in node.orelse:
                found |= imported(ast.Module([part], []), known)
        elif isinstance(node, ast.Import):
            found |= {item.name for item in node.names if item.name in known}
        elif isinstance(node, ast.ImportFrom) and node.module:
            within = {f"{node.module}.{item.name}" for item in node.names} & known
            found |= within or ({node.module} & known)
        else:
            found |= imported(node, known)
    return found


def graph() -> dict[str, set[str]]:
    trees = {module_name(path): ast.parse(path.read_text()) for path in SOURCES.rglob("*.py")}
    return {name: imported(tree, set(trees)) - {name} for name, tree in trees.items()}


def test_the_graph_of_imports_has_no_circle():
    found = graph()
    assert len(found) > 150
    try:
        TopologicalSorter(found).prepare()
    except CycleError as error:
        raise AssertionError(" -> ".join(error.args[1])) from None


TABLES = {"ovlo.render.formats.table", "ovlo.render.plotter.table"}
"""Each loads the formats of its own room."""


def test_nothing_is_loaded_by_name_but_what_the_doors_load():
    loaders = {
        module_name(path)
        for path in SOURCES.rglob("*.py")
        if "import_module(" in path.read_text() and "cli" not in path.parts
    }
    assert loaders - TABLES == {"ovlo", "ovlo.core.sheet.door", "ovlo.program.processes.guard"}
