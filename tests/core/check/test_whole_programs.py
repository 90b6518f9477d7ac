"""Whole programs, wrong and right, as `python -m recall` tries them: what is found, and where."""

from __future__ import annotations

import pytest
from recall.labels import PROGRAMS, answer, corrected, findings, marks

from ovlo.core.check.check import RULES
from ovlo.core.values.finding import PROBLEM

NOT_FOUND = {"drift_out_back", "petal_ellipses"}
"""Spines of unequal lengths, and ellipses that are the same half a turn on."""

TAKEN_FOR_WRONG = {"half_hexagon"}
"""Three sides of 60° are a triangle with its inner angle more often than half a hexagon."""


def names(kind: str) -> list[str]:
    return sorted(path.stem for path in (PROGRAMS / kind).glob("*.py"))


@pytest.fixture(autouse=True)
def _elsewhere(tmp_path, monkeypatch):
    monkeypatch.chdir(tmp_path)  # some of them save their picture


def seen() -> list[str]:
    """The wrong programs that a rule of the picture tells of; what the source tells needs no run."""
    texts = {name: (PROGRAMS / "wrong" / f"{name}.py").read_text() for name in names("wrong")}
    return [
        name for name, text in texts.items() if any(rules & RULES.keys() for rules in marks(text).values())
    ]


@pytest.mark.parametrize("name", seen())
def test_a_mistake_is_found_and_its_mend_is_clean(name, tmp_path):
    path = PROGRAMS / "wrong" / f"{name}.py"
    assert answer(path).is_found != (name in NOT_FOUND)
    twin = tmp_path / path.name
    twin.write_text(corrected(path.read_text()))
    assert [str(one) for one in findings(twin) if one.severity == PROBLEM] == []


@pytest.mark.parametrize("name", names("right"))
def test_a_right_program_has_no_problem(name):
    found = findings(PROGRAMS / "right" / f"{name}.py")
    assert any(one.severity == PROBLEM for one in found) == (name in TAKEN_FOR_WRONG), found
