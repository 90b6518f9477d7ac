"""A part of what `python -m torture` does: random programs, and values that do not belong."""

from __future__ import annotations

import random

import pytest
from torture.pictures import faults_of, share_equal
from torture.values import BAD, Case, cases, fault_of

CASES = {f"{case.call} {case.parameter}": case for case in cases()}
FEW = 5
"""Values tried on each parameter; `python -m torture` tries all."""


@pytest.mark.parametrize("name", CASES)
def test_a_bad_value_is_refused_in_our_words_and_changes_nothing(name, tmp_path, monkeypatch):
    monkeypatch.chdir(tmp_path)
    case: Case = CASES[name]
    for value in random.Random(name).sample(BAD, FEW):
        assert list(fault_of(case, value)) == []


@pytest.mark.long
@pytest.mark.parametrize("first", range(0, 16, 8))
def test_random_programs_are_the_same_from_all_sides(first):
    for seed in range(first, first + 8):
        assert list(faults_of(seed, length=12, frames=4, check=seed % 5 == 0)) == [], seed


@pytest.mark.long
def test_random_programs_look_the_same_elsewhere():
    shares = [share_equal(seed) for seed in range(10)]
    if shares[0] is None:
        pytest.skip("rsvg-convert is not installed")
    assert min(shares) > 0.99
