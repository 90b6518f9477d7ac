"""The public names: those of the documented list, no more and no less."""

from __future__ import annotations

import copy
import inspect
import re
import subprocess
import sys
from pathlib import Path

import pytest

import ovlo
from ovlo import Colour, Dice, Motif, Pose, Sheet, drawing

PAGE = Path(__file__).parents[1] / "docs" / "reference" / "names.md"


def documented() -> dict[str, set[str]]:
    parts = re.split(r"^## (\w+)\n", PAGE.read_text(), flags=re.M)[1:]
    return {
        name: set(re.findall(r"`(\w+)`", re.sub(r"`sheet.trail`|`@\w+`", "", text)))
        for name, text in zip(parts[::2], parts[1::2], strict=True)
    }


def shown(thing: object) -> set[str]:
    return {name for name in dir(thing) if not name.startswith("_")}


def test_the_module_shows_the_documented_names_and_nothing_else():
    assert set(dir(ovlo)) == documented()["ovlo"] == set(ovlo.__all__)


@pytest.mark.parametrize("name", [name for name in sorted(documented()) if name != "ovlo"])
def test_a_class_shows_the_documented_names_and_nothing_else(name):
    owner = type(Sheet().trail) if name == "trail" else getattr(ovlo, name)
    own = shown(owner) - set(dir(tuple)) if issubclass(owner, tuple) else shown(owner)
    assert own == documented()[name]
    thing = {"Sheet": Sheet(), "Dice": Dice(1), "Pose": Pose(), "Nib": Sheet().new_nib()}.get(name)
    if thing is not None:
        assert shown(thing) == documented()[name]


def test_help_on_a_nib_begins_with_the_groups_of_the_page():
    groups = re.findall(r"^([A-Z][a-z ]+): ((?:`\w+`\s)+)$", PAGE.read_text().split("## Nib")[1], flags=re.M)
    lines = [f"- {words}: {', '.join(names.split('`')[1::2])}" for words, names in groups]
    assert lines == re.findall("^- .*", inspect.getdoc(ovlo.Nib), flags=re.M)


ERRORS = [name for name in sorted(documented()["ovlo"]) if "Bad" in name or "Error" in name]


@pytest.mark.parametrize("name", ERRORS)
def test_errors_add_nothing_to_those_they_refine(name):
    error = getattr(ovlo, name)
    assert issubclass(error, ovlo.OvloError)
    assert shown(error) == set().union(*(shown(base) for base in error.__mro__[1:])) - {"mro"}


@drawing()
def kite(nib, side=40):
    nib.forward(side)


def test_public_things_take_no_unknown_attribute():
    things = [Sheet(), Sheet().new_nib(), Dice(1), kite, Colour(1, 2, 3), Pose(), Sheet().trail]
    things.append(Motif.record(lambda nib: nib.forward(9)))
    for thing in things:
        with pytest.raises(AttributeError):
            thing.background = "black"
        with pytest.raises(AttributeError):
            _ = thing.background
    sheet = Sheet()
    sheet.title = "kites"
    assert copy.deepcopy(sheet).title == "kites"


def test_the_module_runs_as_the_command():
    done = subprocess.run(
        [sys.executable, "-m", "ovlo", "--version"], capture_output=True, text=True, check=True
    )
    assert done.stdout == f"ovlo {ovlo.__version__}\n"


# fmt: off
EVERYDAY = [
    "colour", "color", "tint", "thick", "thickness", "width", "weight", "size", "background", "move",
    "go", "hop", "jump", "up", "down", "raise", "rotate", "spin", "steer", "hide", "cursor", "arrow",
    "write", "print", "label", "say", "wait", "sleep", "delay", "fast", "slow", "repeat", "times",
    "square", "triangle", "oval", "ring", "dot", "erase", "wipe", "reset", "undo", "random", "shuffle",
    "center",
]
# fmt: on


@pytest.mark.parametrize("word", EVERYDAY)
def test_everyday_words_lead_to_what_does_that_here(word):
    nib = Sheet().new_nib()
    for ask in (lambda: getattr(nib, word), lambda: setattr(nib, word, 1)):
        with pytest.raises(ovlo.UnknownName, match=rf"nib has no '{word}'; .+\."):
            ask()
    assert word not in dir(nib)
    with pytest.raises(AttributeError, match=rf"ovlo has no '{word}'; "):
        getattr(ovlo, word)
