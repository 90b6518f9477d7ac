"""Texts that a program draws, and what was left out of them.

for one in missing_f(tree): ...
"""

from __future__ import annotations

import ast
import re
from collections.abc import Iterator

from ovlo.core.values.finding import HINT_OR_PROBLEM, Edit, rule
from ovlo.program.source.tree import SourceMatch, all_names, functions, lone_expressions, nodes, parameters


@rule(
    "missing-f",
    HINT_OR_PROBLEM,
    "Reported when a text has a name of the program in curly brackets, but no f before it, so that the name "
    "is shown and not its value. Not reported for texts that call format.",
)
def missing_f(tree: ast.Module) -> Iterator[SourceMatch]:
    """`"{price} €"` where `f"{price} €"` is meant."""
    known = all_names(tree) | {one.arg for function in functions(tree) for one in parameters(function)}
    left_out = {id(part) for node in nodes(tree) if isinstance(node, ast.JoinedStr) for part in nodes(node)}
    left_out |= {id(node.value) for node in nodes(tree) if isinstance(node, ast.Attribute)}
    left_out |= {id(one) for one in lone_expressions(tree)}
    for node in nodes(tree):
        if not isinstance(node, ast.Constant) or not isinstance(node.value, str) or id(node) in left_out:
            continue
        names = [name for name in re.findall(r"\{(\w+)\}", node.value) if name in known]
        if names:
            yield SourceMatch(
                node.lineno,
                f"This text has no f before it, so it shows {{{names[0]}}} and not the value of {names[0]}.",
                "Write f before the quotation mark.",
                edit=Edit(node.lineno, node.col_offset, node.col_offset, "f"),
            )
