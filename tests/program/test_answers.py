"""The same answer to a wrong name or keyword in `ovlo`, plain Python, a prompt, pytest and a notebook."""

from __future__ import annotations

import inspect
import subprocess
import sys
from collections.abc import Iterator

import pytest

import ovlo
from ovlo.program.calls import MADE_BY_OVLO
from ovlo.program.explaining import told


def calls() -> Iterator[str]:
    """Every public call, as a program would write it."""
    things = {"Sheet": "sheet", "Nib": "nib", "Motif": "motif", "Dice": "sheet.dice", "Drawing": "kite"}
    for name in ovlo.__all__:
        thing = getattr(ovlo, name)
        if isinstance(thing, type) and issubclass(thing, Exception):
            continue
        if name not in ("Nib", "Motif", "Drawing"):
            yield name
        for part in dir(thing) if isinstance(thing, type) else []:
            if (
                not part.startswith("_")
                and part not in dir(tuple)
                and inspect.isroutine(getattr(thing, part))
            ):
                yield f"{things.get(name, name)}.{part}"


HEAD = """\
import ovlo
from ovlo import *
sheet = Sheet(90, 60)
nib = sheet.new_nib()
motif = Motif.record(lambda nib: nib.forward(9))

@drawing
def kite(nib, sides=4):
    nib.forward(sides)

"""
TAKES_ANY = {"kite.vary", "kite.run", "kite.save", "kite.show", "kite.live", "kite.check"}
"""Their keywords are a drawing's parameters, and are answered as such."""


@pytest.mark.parametrize("call", list(calls()))
def test_a_wrong_keyword_is_answered_by_every_public_call(call, program, tmp_path, monkeypatch):
    monkeypatch.chdir(tmp_path)
    first = "'a.svg', " if call == "kite.save" else ""
    path = program(f"{HEAD}{call}({first}sizzze=3)\n")
    scope: dict[str, object] = {"__name__": "bay"}
    with pytest.raises((TypeError, ValueError)) as caught:
        exec(compile(path.read_text(), str(path), "exec"), scope)
    words = "there is no parameter 'sizzze'" if call in TAKES_ANY else "has no sizzze="
    if call == "motif.record":
        words = "needs function"
    if call in MADE_BY_OVLO:
        words = f"{call} is not called"
    assert words in told(caught.value)
    assert "got an unexpected" not in told(caught.value)


WRONG = {
    "nib.forwrd(30)": "nib has no 'forwrd'; did you mean forward?",
    "nib.circle(20, color='red')": "circle has no color=; write fill='red'",
    "sheet.save('a.png', scal=3)": "save has no scal=; did you mean scale=3?",
    "sheet.show(loop=True)": "show has no loop=",
    "sheet.widht": "sheet has no 'widht'; did you mean width?",
    "kite.run(sidez=3)": "there is no parameter 'sidez' (did you mean 'sides'?)",
}


@pytest.mark.parametrize("line", WRONG)
def test_plain_python_and_ovlo_answer_alike(line, program, ovlo_command, tmp_path):
    path = program(f"{HEAD}{line}\n", "bay.py")
    plain = subprocess.run([sys.executable, path], cwd=tmp_path, capture_output=True, text=True)
    assert WRONG[line] in plain.stderr.splitlines()[-1]
    assert "Did you mean:" not in plain.stderr
    draws = program(f"{HEAD}@drawing\ndef bay(nib):\n    sheet = Sheet(9, 9)\n    {line}\n")
    assert WRONG[line] in ovlo_command("draw", f"{draws}:bay").stderr


def test_a_prompt_answers(tmp_path):
    lines = "from ovlo import Sheet\nnib = Sheet().new_nib()\nnib.forwrd(9)\nnib.circle(9, color=1)\n"
    done = subprocess.run(
        [sys.executable, "-i"], input=lines, cwd=tmp_path, capture_output=True, text=True, check=True
    )
    assert "nib has no 'forwrd'; did you mean forward?" in done.stderr
    assert "circle has no color=; write fill=" in done.stderr


def test_pytest_answers(tmp_path):
    tests = [f"def test_{i}():\n    {line}\n" for i, line in enumerate(WRONG)]
    (tmp_path / "test_bay.py").write_text(HEAD + "\n".join(tests))
    done = subprocess.run(
        [sys.executable, "-m", "pytest", "-q", "-p", "no:cacheprovider", "test_bay.py"],
        cwd=tmp_path,
        capture_output=True,
        text=True,
    )
    assert [words for words in WRONG.values() if words not in done.stdout] == []


def test_a_notebook_answers(tmp_path):
    nbformat, nbclient = pytest.importorskip("nbformat"), pytest.importorskip("nbclient")
    cells = [nbformat.v4.new_code_cell(code) for code in (HEAD, *WRONG)]
    notebook = nbformat.v4.new_notebook(cells=cells)
    nbclient.NotebookClient(
        notebook, timeout=60, allow_errors=True, resources={"metadata": {"path": str(tmp_path)}}
    ).execute()
    for cell, words in zip(notebook.cells[1:], WRONG.values(), strict=True):
        shown = "\n".join(cell.outputs[-1].traceback)
        assert words in f"{shown}\n{cell.outputs[-1].evalue}"


def test_another_hook_for_uncaught_errors_still_runs(program, tmp_path):
    hook = "import sys\nsys.excepthook = lambda *about: print('mine:', about[1])\n"
    path = program(f"{hook}{HEAD}nib.forwrd(9)\n")
    done = subprocess.run([sys.executable, path], cwd=tmp_path, capture_output=True, text=True)
    assert done.stdout == "mine: nib has no 'forwrd'; did you mean forward?\n"


def test_an_error_of_another_kind_is_left_alone(program, tmp_path):
    (tmp_path / "sums.py").write_text("def halve(n):\n    return n / 0\n")
    for line, words in {
        "raise OSError('no disk')": "OSError: no disk",
        "decimal.Decimal(1) / 0": "decimal.DivisionByZero: [<class 'decimal.DivisionByZero'>]",
        "sums.halve(3)": "ZeroDivisionError: division by zero",
    }.items():
        path = program(f"import decimal\nimport sums\nfrom ovlo import Sheet\n{line}\n")
        done = subprocess.run([sys.executable, path], cwd=tmp_path, capture_output=True, text=True)
        assert done.stderr.splitlines()[-1] == words
