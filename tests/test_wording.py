"""Every sentence a person meets is plain English: words and turns that are out stay out."""

from __future__ import annotations

import ast
import inspect
import re
from collections.abc import Iterator
from functools import cache
from pathlib import Path

import pytest
from click.testing import CliRunner

import ovlo
from ovlo.cli.main import COMMANDS, main

ROOT = Path(__file__).parents[1]

OUT = {
    r"\bmend(s|ed|ing)?\b": "fix",
    r"\btells? (the|how|what|whether|which|where|you|about|of|each|them)\b": "say, show, explain, report",
    r"\b(is|are|be|was|were) told\b": "is reported",
    r"\bat first\b": "by default, initially",
    r"\bfor ever\b": "forever",
    r"\bagainst the clock\b": "anticlockwise",
    r"\b(that|which) (is|are) none\b|\b(is|has|have) none\b": "name the noun",
    r"\b(told|tell) from\b": "distinguished from",
    r"\b(has|have) not\b(?! (been|yet|got))": "does not have",
    r"\b(is|are) no (number|text|file|program|plain|SVG|motif|picture|drawing|range)\b": "is not a",
    r"\b(is|are|was|were|be) looked (at|for)\b": "active voice",
    r"\bhow often\b": "how many times",
    r"\b(is|are) (not )?meant\b|\b(may|might) be meant\b": "reported, intended",
    r"\bby the tabulator\b": "Tab key",
    r"\bboth possible\b": "both included",
    r"\bnot negative, not\b|\bmust not be negative\b": "0 or more",
    r"\bis not set by =": "read-only",
    r"\bwhat (stands|is there)\b": "name the noun",
    r"\bis there already\b": "already exists",
    r"\bTurn the page\b": "use landscape orientation",
    r"\bby dice\b": "random",
}
"""Each pattern with what to write instead."""


def pages() -> list[Path]:
    return [*ROOT.glob("*.md"), *(ROOT / "docs").rglob("*.md")]


@cache
def prose(page: Path) -> str:
    """A page without its programs and outputs."""
    text = re.sub(r"```.*?```|^    .*?$|`[^`\n]*`", " ", page.read_text(), flags=re.S | re.M)
    return " ".join(text.split())


@cache
def said() -> list[tuple[str, str]]:
    """All that Ovlo says, on one line each."""
    return [(place, " ".join(text.split())) for place, text in (*messages(), *public_docstrings())]


def messages() -> Iterator[tuple[str, str]]:
    """Every text in the source of three words or more that is not a docstring."""
    for path in (ROOT / "src" / "ovlo").rglob("*.py"):
        tree = ast.parse(path.read_text())
        silent = {id(node.value) for node in ast.walk(tree) if isinstance(node, ast.Expr)}
        for node in ast.walk(tree):
            is_text = isinstance(node, ast.Constant) and isinstance(node.value, str)
            if is_text and id(node) not in silent and node.value.count(" ") >= 2:
                yield f"{path.relative_to(ROOT)}:{node.lineno}", node.value


def public_docstrings() -> Iterator[tuple[str, str]]:
    """What `help()` says of every public name."""
    for name in ovlo.__all__:
        thing = getattr(ovlo, name)
        yield name, inspect.getdoc(thing) or ""
        for part, value in vars(thing).items() if isinstance(thing, type) else []:
            if not part.startswith("_"):
                yield f"{name}.{part}", inspect.getdoc(value) or ""


def shown_by(pattern: str, text: str) -> list[str]:
    return [text[max(0, at.start() - 30) : at.end() + 20] for at in re.finditer(pattern, text)]


@pytest.mark.parametrize("pattern", OUT)
def test_words_that_are_out_are_not_on_any_page(pattern):
    found = {str(page.relative_to(ROOT)): shown_by(pattern, prose(page)) for page in pages()}
    assert {page: places for page, places in found.items() if places} == {}, OUT[pattern]


@pytest.mark.parametrize("pattern", OUT)
def test_words_that_are_out_are_in_no_message_and_no_docstring(pattern):
    found = {place: shown_by(pattern, text) for place, text in said()}
    assert {place: places for place, places in found.items() if places} == {}, OUT[pattern]


@pytest.mark.parametrize("pattern", OUT)
def test_words_that_are_out_are_not_on_the_page_in_the_browser(pattern):
    files = [
        path for room in ("page", "studio") for path in (ROOT / "src/ovlo" / room / "assets").glob("*.[hj]*")
    ]
    texts = [" ".join(re.sub(r"(?m)^\s*(//|/?\*).*$", "", path.read_text()).split()) for path in files]
    assert [place for text in texts for place in shown_by(pattern, text)] == [], OUT[pattern]


@pytest.mark.parametrize("command", ["", *COMMANDS])
def test_help_has_whole_sentences(command):
    done = CliRunner().invoke(main, [*command.split(), "--help"], terminal_width=2000, max_content_width=2000)
    assert done.exit_code == 0
    options = re.findall(r"^  (-\S.*?)  +(\S.*)$", done.output, flags=re.M)
    assert options
    for option, words in options:
        assert re.match(r"[A-Z]", words), option
        assert re.search(r"[.\]]$", words), option
