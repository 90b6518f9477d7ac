"""Findings that a comment at the end of a source line silences.

    nib.forward(90)  # ovlo: skip not-closed, off-sheet

A comment speaks for the line it ends, and for what that line calls.
"""

from __future__ import annotations

import io
import re
import tokenize
from functools import lru_cache
from pathlib import Path

from ovlo.core.values.finding import Finding
from ovlo.program.texts import text_of

COMMENT = re.compile(r"#\s*ovlo:\s*skip\s+(?P<rules>[\w\s,-]+)")


def is_silenced(finding: Finding) -> bool:
    """Whether a comment at one of its lines silences a finding."""
    if not finding.file:
        return False
    silenced = silenced_rules(finding.file)
    return any(finding.rule in silenced.get(line, ()) for line in (*finding.lines, *finding.callers))


def silenced_rules(file: str) -> dict[int, frozenset[str]]:
    """The rules silenced at each line of a file."""
    try:
        return _rules_in(text_of(Path(file)))
    except OSError:
        return {}


@lru_cache(maxsize=64)
def _rules_in(text: str) -> dict[int, frozenset[str]]:
    found: dict[int, frozenset[str]] = {}
    try:
        for token in tokenize.generate_tokens(io.StringIO(text).readline):
            if token.type == tokenize.COMMENT and (match := COMMENT.match(token.string)):
                found[token.start[0]] = frozenset(re.split(r"[\s,]+", match["rules"].strip()))
    except (SyntaxError, tokenize.TokenError):
        return found
    return found
