"""The guide pages: every example runs and makes its picture."""

from __future__ import annotations

import re
from pathlib import Path

DOCS = Path(__file__).parents[1] / "docs"


def test_the_check_in_the_readme_is_a_real_one(ovlo_command, program):
    page = (DOCS.parent / "README.md").read_text()
    (code,) = [block for block in re.findall(r"```python\n(.*?)```", page, re.S) if "def triangle" in block]
    assert code == (DOCS / "triangle.py").read_text()
    done = ovlo_command("check", program(code, "triangle.py"))
    shown = page.split("    $ ovlo check triangle.py\n")[1].split("\nIn Python")[0]
    assert [line.strip() for line in shown.splitlines()] == [
        line.strip() for line in done.stdout.splitlines()
    ]


def test_the_page_on_chance_runs():
    (code,) = re.findall(r"```python\n(.*?)```", (DOCS / "why" / "chance.md").read_text(), re.S)
    scope: dict[str, object] = {"__name__": "gulls"}
    exec(code, scope)
    assert len(scope["gulls"].run(seed=7, count=5)._columns.arcs) == 5


def test_the_readme_as_a_newcomer_types_it(ovlo_command, program):
    page = (DOCS.parent / "README.md").read_text()
    first = page.split("## A first program")[1].split("## What makes")[0]
    (code,) = re.findall(r"Type this, and watch it being drawn:\n\n```python\n(.*?)```", first, re.S)
    program(code, "kite.py")
    lines = re.findall(r"^    ovlo (\w+) (.*?)(?:    #.*)?$", first, re.M)
    assert [command for command, _ in lines] == ["live", "draw", "vary", "check", "plot"]
    for command, rest in lines:
        if command != "live":  # which opens a page, and stays
            done = ovlo_command(command, *rest.split())
            assert (done.returncode, done.stderr) == (0, ""), command


def test_every_link_of_the_readme_leads_somewhere():
    page = (DOCS.parent / "README.md").read_text()
    targets = re.findall(r"\]\(([^)#]+)\)", page)
    assert len(targets) > 20
    assert [target for target in targets if not (DOCS.parent / target).exists()] == []


def test_every_module_the_table_of_ratios_names_is_there():
    named = re.findall(r"`(\w+/[\w/]*(?:\.\w+)?)`", (DOCS.parent / "bench" / "README.md").read_text())
    source = DOCS.parent / "src/ovlo"
    roots = [DOCS.parent, DOCS.parent / "bench", source, source / "page", source / "studio"]
    assert len(named) > 15
    assert [name for name in named if not any((root / name).exists() for root in roots)] == []
