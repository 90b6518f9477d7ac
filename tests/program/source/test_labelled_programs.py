"""What the source of every labelled program tells, without running it."""

from __future__ import annotations

import ast

import pytest
from recall import told as set_aside
from recall.aside import variants
from recall.labels import PROGRAMS, corrected, marks, without_marks

from ovlo.core.values.finding import declared
from ovlo.program.source.rules import OWN, findings_in
from ovlo.program.texts import Source

OF_SOURCE = set(declared(*OWN))

ELSEWHERE = {
    "never_gulls",
    "param_sides",
    "radians_named",
    "never_roof",
    "slip_again",
    "slip_import",
    "slip_list",
    "slip_max",
}
"""What is told of another line than the one that was corrected, where both would do."""

REMOVED = "twice_turned"
"""Of which the edit removes the line."""

UNUSED = {"washes"}
"""Right programs that import what they do not need."""


def named(kind: str):
    return {path.stem: path.read_text() for path in sorted((PROGRAMS / kind).glob("*.py"))}


def told(text: str):
    return findings_in(ast.parse(text), "kite.py")


WRONG = {
    name: text
    for name, text in named("wrong").items()
    if any(rules <= OF_SOURCE for rules in marks(text).values())
}


@pytest.mark.parametrize("name", WRONG)
def test_a_rule_of_the_source_finds_its_line(name):
    found = told(without_marks(WRONG[name]))
    for line, rules in marks(WRONG[name]).items():
        lines = [one.lines[0] for one in found if one.rule in rules]
        assert lines, found
        assert name in ELSEWHERE or min(abs(line - one) for one in lines) <= 2


@pytest.mark.parametrize("name", [name for name in WRONG if "#+" not in WRONG[name] and name != REMOVED])
def test_an_edit_writes_the_corrected_line(name):
    plain, right = without_marks(WRONG[name]), corrected(WRONG[name]).splitlines()
    for one in told(plain):
        if one.edit is not None and one.edit.line in marks(WRONG[name]):
            edited = Source(plain, "utf-8").edited(one.edit).text.splitlines()
            assert edited[one.edit.line - 1] == right[one.edit.line - 1]


@pytest.mark.parametrize("name", [name for name in named("right") if name not in UNUSED])
def test_the_source_of_a_right_program_tells_nothing(name):
    assert [str(one) for one in told(named("right")[name])] == []


LISTED = set_aside.listed()
SCENES = {one.name: one.text for one in variants(()) if not one.lines or one.name in LISTED}


@pytest.mark.parametrize("name", SCENES)
def test_of_programs_set_aside_the_source_tells_what_is_listed(name):
    assert set_aside.told(SCENES[name]) == LISTED.get(name, "")
