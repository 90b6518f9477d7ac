"""What other programs, threads and people make of Ovlo: nothing of theirs is touched, nothing is silent."""

from __future__ import annotations

import gc
import locale
import os
import re
import signal
import subprocess
import sys
import warnings
import weakref
import zlib
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import matplotlib
import numpy as np
import pytest
from PIL import Image
from torture.programs import Program

from ovlo import Motif, Sheet, drawing
from ovlo.core.check.polygons import typed
from ovlo.core.values.errors import ProgramFailed
from ovlo.outlets import as_bytes
from ovlo.program.loading import load
from ovlo.program.running import Limits, run_program
from ovlo.testing import assert_clean, assert_same

# ── threads and other people's processes ──────────────────────────────────────────────────────────────────


def bay(number: int) -> Sheet:
    sheet = Sheet(120, 80, paper="aliceblue")
    nib = sheet.new_nib()
    for _ in range(3 + number % 5):
        nib.forward(20)
        nib.left(70 + number % 7)
    nib.circle(10, fill="gold")
    nib.text(f"Kite {number % 9}", size=10)
    return sheet


def made(number: int, format: str, folder: Path) -> bytes:
    if format in ("gif", "webp", "gcode"):
        path = folder / f"{os.getpid()}-{number}.{format}"
        if format == "gcode":
            bay(number).save_plot(path)
        else:
            bay(number).animate(path, seconds=0.2, fps=5)
        return path.read_bytes()
    return bay(number).to_bytes(format)


def state_of_the_process() -> dict[str, object]:
    mask = os.umask(0)
    os.umask(mask)
    return {
        "rcParams": dict(matplotlib.rcParams),
        "filters": list(warnings.filters),
        "showwarning": warnings.showwarning,
        "locale": locale.setlocale(locale.LC_ALL),
        "umask": mask,
        "excepthook": sys.excepthook,
        "signals": [signal.getsignal(number) for number in (signal.SIGINT, signal.SIGTERM)],
    }


@pytest.mark.parametrize("format", ["svg", "png", "pdf", "html", "gif", "webp", "gcode"])
@pytest.mark.parametrize("count", [24, pytest.param(400, marks=pytest.mark.long)])
def test_eight_threads_make_the_same_files_as_one_and_touch_nothing_else(format, count, tmp_path):
    alone = [made(number, format, tmp_path) for number in range(count)]
    before = state_of_the_process()
    with ThreadPoolExecutor(8) as pool:
        together = list(pool.map(lambda number: made(number, format, tmp_path), range(count)))
    assert together == alone
    assert state_of_the_process() == before


def test_a_pdf_keeps_its_letters_as_text_whatever_the_host_sets():
    plain = bay(1).to_bytes("pdf")
    with matplotlib.rc_context({"pdf.fonttype": 3, "pdf.compression": 0}):
        assert bay(1).to_bytes("pdf") == plain


def test_a_save_never_changes_the_umask_and_follows_it(tmp_path, monkeypatch):
    monkeypatch.setattr(os, "umask", lambda mask: pytest.fail("the umask is everybody's"))
    bay(1).save(tmp_path / "kite.svg")
    monkeypatch.undo()
    code = "import os, ovlo; os.umask(0o077); ovlo.Sheet().save('private.svg')"
    subprocess.run([sys.executable, "-c", code], cwd=tmp_path, check=True)
    assert (tmp_path / "private.svg").stat().st_mode & 0o777 == 0o600


def test_a_module_that_uses_ovlo_changes_no_hook_of_the_program_that_imports_it(tmp_path):
    (tmp_path / "kites.py").write_text(
        "from ovlo import Sheet, drawing\nsheet = Sheet()\n@drawing\ndef kite(nib): ...\n"
    )
    code = "import sys, kites; print(sys.excepthook is sys.__excepthook__)"
    done = subprocess.run([sys.executable, "-c", code], cwd=tmp_path, capture_output=True, text=True)
    assert (done.stdout, done.stderr) == ("True\n", "")


FOREIGN = ("'kite'.fly()", "[].push(3)", "undefined_word", "1 / 0", "int('x')", "None + 1")


def test_errors_that_are_not_about_ovlo_keep_their_words_in_pytest(tmp_path):
    tests = [f"def test_{i}():\n    {line}\n" for i, line in enumerate(FOREIGN)]
    (tmp_path / "test_bay.py").write_text("from ovlo import Sheet\nsheet = Sheet()\n" + "\n".join(tests))
    command = [sys.executable, "-m", "pytest", "-q", "-p", "no:cacheprovider", "test_bay.py"]
    with_plugin, without = (
        subprocess.run([*command, *more], cwd=tmp_path, capture_output=True, text=True).stdout
        for more in ([], ["-p", "no:ovlo"])
    )
    errors = [re.findall(r"^E  .*", said, re.MULTILINE) for said in (with_plugin, without)]
    assert errors[0] == errors[1]
    assert len(errors[0]) == len(FOREIGN)


def test_a_sheet_that_nobody_holds_is_freed_and_still_said_to_be_unsaved(tmp_path):
    (tmp_path / "kite.py").write_text(
        "import gc, weakref\nfrom ovlo import Sheet\n"
        "def draw():\n    sheet = Sheet()\n    sheet.new_nib().forward(9)\n    return weakref.ref(sheet)\n"
        "sheet = Sheet()\nkept = weakref.ref(sheet)\ndel sheet\ngone = draw()\ngc.collect()\n"
        "print(kept(), gone())\n"
    )
    done = subprocess.run([sys.executable, "kite.py"], cwd=tmp_path, capture_output=True, text=True)
    assert done.stdout == "None None\n"
    assert "a sheet was never saved or shown" in done.stderr


def test_sheets_of_a_library_are_freed():
    sheet = Sheet()
    sheet.new_nib().circle(20)
    sheet.to_bytes("svg")
    kept = weakref.ref(sheet)
    del sheet
    gc.collect()
    assert kept() is None


# ── testing ───────────────────────────────────────────────────────────────────────────────────────────────


@drawing
def dotted(nib):
    nib.forward(0)
    nib.forward(30)


@drawing
def kite_at_noon(nib):
    nib.polygon(4, radius=30)


@drawing
def ball(nib):
    nib.polygon(3, radius=30)
    nib.ink = "white"
    nib.circle(9)


def test_pictures_that_differ_are_told_where_numpy_warns_of_nothing():
    with np.errstate(all="raise"), pytest.raises(AssertionError):
        assert_same(dotted, kite_at_noon)


def test_a_clean_drawing_is_clean_whatever_else_is_in_its_file():
    assert_clean(kite_at_noon)
    with pytest.raises(AssertionError, match="no-contrast"):
        assert_clean(ball)


# ── pictures ──────────────────────────────────────────────────────────────────────────────────────────────


@pytest.mark.parametrize("seed", range(16))
def test_a_picture_is_the_same_as_its_own_svg_read_back(seed):
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        sheet = Program(seed, words=False).run()
        read = Sheet(sheet.width, sheet.height, paper=sheet.paper, unit=sheet.unit)
        read.new_nib().stamp(Motif.from_svg(as_bytes(sheet, ".svg").decode()))
    apart = np.abs(sheet.to_array().astype(int) - read.to_array()).max()
    assert sheet.compare(read).is_in_place or apart > 64


@pytest.mark.parametrize("cap", ["round", "square", "butt"])
def test_dots_are_dashes_of_a_length_in_a_pdf(cap):
    sheet = Sheet(100, 100)
    nib = sheet.new_nib()
    nib.line_cap, nib.line_dash = cap, (0, 9)
    nib.forward(40)
    pdf = sheet.to_bytes("pdf")
    streams = [zlib.decompress(part) for part in re.findall(rb"stream\n(x.*?)\nendstream", pdf, re.DOTALL)]
    assert any((b"[0 6.75]" if cap == "butt" else b"[0.001 6.75]") in stream for stream in streams)


@pytest.mark.parametrize("suffix", ["gcode", "hpgl", "svg"])
def test_a_plot_that_is_read_has_its_inks_and_a_legend(suffix, ovlo_command, program):
    program(
        "from ovlo import drawing\n@drawing\ndef flag(nib):\n    nib.line_width = 6\n    nib.ink = 'red'\n"
        "    nib.travel(-100)\n    nib.forward(90)\n    nib.ink = 'blue'\n    nib.left(90)\n"
        "    nib.forward(50)\n"
    )
    ovlo_command("plot", "kite.py", "-o", f"flag.{suffix}", "--pen-width", "2mm")
    assert ovlo_command("plot", "--read", f"flag.{suffix}", "-o", "seen.png").returncode == 0
    cwd = Path(ovlo_command.__closure__[0].cell_contents)
    with Image.open(cwd / "seen.png") as image:
        pixels = np.asarray(image.convert("RGB")).astype(int)
    is_red = (pixels == [255, 0, 0]).all(axis=2)
    is_blue = (pixels == [0, 0, 255]).all(axis=2)
    # The red line lies level, the blue one upright; in the legend both are level, red above blue.
    legend = slice(int(0.9 * len(pixels)), None)
    assert is_red[: legend.start].any(axis=0).sum() > 2 * is_red[: legend.start].any(axis=1).sum()
    assert is_blue[: legend.start].any(axis=1).sum() > 2 * is_blue[: legend.start].any(axis=0).sum()
    rows = [np.flatnonzero(is_ink[legend].any(axis=1)) for is_ink in (is_red, is_blue)]
    assert rows[0].max() < rows[1].min()


# ── running ───────────────────────────────────────────────────────────────────────────────────────────────

HEAD = "from ovlo import Motif, drawing\nimport random\n"
STAR = f"{HEAD}@drawing\ndef star(nib):\n    for i in range(5):\n        nib.forward(90)\n"


def test_an_error_that_cannot_say_what_it_is_keeps_the_picture(ovlo_command, program, tmp_path):
    program(
        f"{HEAD}class Gust(Exception):\n    def __str__(self): raise ValueError\n"
        "@drawing\ndef kite(nib):\n    nib.forward(50)\n    raise Gust\n"
    )
    done = ovlo_command("draw", "kite.py", "-o", "kite.svg")
    assert done.returncode == 1
    assert (tmp_path / "kite.svg").exists()
    assert "raise Gust" in done.stderr
    assert "ovlo/" not in done.stderr


def test_random_numbers_of_python_with_a_seed_are_said_once(ovlo_command, program):
    program(f"{HEAD}@drawing\ndef kite(nib):\n    nib.forward(random.random() * 50)\n")
    said = ovlo_command("draw", "kite.py", "--seed", "4", "-o", "kite.svg").stderr
    assert "random module decided part of this picture" in said
    assert "uses no random numbers" not in said


def test_a_program_that_is_deep_in_blocks_gets_out_when_its_time_is_up(program):
    path = program(
        f"{HEAD}def gust(nib, n):\n    with nib.lifted(), nib.returning(), nib.area('red'):\n"
        "        nib.forward(3)\n"
        "        if n < 2500:\n            gust(nib, n + 1)\n            gust(nib, n + 1)\n"
        "@drawing\ndef kite(nib): gust(nib, 0)\n"
    )
    outcome = run_program(load(str(path)), limits=Limits(seconds=0.5))
    assert outcome.trouble.startswith("Stopped: it ran longer than 0.5 s")
    assert "did not react" not in outcome.trouble


@pytest.mark.parametrize(
    ("body", "words"),
    [
        ("nib.line_width = 3", "no steps, 0.0 px drawn, no nib moved"),
        ("nib.travel(0.1 + 0.2)\n    nib.travel(-0.3)", "the nib came back to its start"),
    ],
)
def test_what_came_of_a_run_is_said_without_noise(body, words, ovlo_command, program):
    program(f"{HEAD}@drawing\ndef kite(nib):\n    {body}\n")
    assert words in ovlo_command("draw", "kite.py", "-o", "kite.svg").stdout


def test_a_point_is_said_without_noise(ovlo_command, program):
    program(f"{STAR}        nib.right(135)\n")
    said = ovlo_command("check", "kite.py").stdout
    assert re.search(r"at \(0, -37\.28\)", said)
    assert "e-1" not in said


def test_a_plot_counts_what_a_person_counts(ovlo_command, program):
    program(f"{HEAD}@drawing\ndef kite(nib):\n    for i in range(10):\n        nib.circle(10 + 5 * i)\n")
    assert "10 marks of the picture became" in ovlo_command("plot", "kite.py", "-o", "kite.svg").stdout


# ── answers ───────────────────────────────────────────────────────────────────────────────────────────────


@pytest.mark.parametrize("angle", [162, 160, 170, 150, 140, 130, 80, 70, 60])
def test_a_fix_turns_to_the_nearest_figure(angle, ovlo_command, program, tmp_path):
    program(f"{STAR}        nib.right({angle})\n")
    ovlo_command("check", "kite.py", "--fix")
    assert f"nib.right({72 if angle < 100 else 144})" in (tmp_path / "kite.py").read_text() or angle == 60


def test_two_figures_that_are_as_near_are_both_offered_and_none_is_applied(ovlo_command, program):
    source = f"{STAR}        nib.right(110)\n"
    path = program(source)
    said = " ".join(ovlo_command("check", "kite.py", "--fix").stdout.split())
    assert f"turn by {typed(5)} or {typed(5, 2)}" in said
    assert path.read_text() == source


SAID = {
    "nib.towards(3, 4)": "nib.heading_to(x, y)",
    "nib.clear()": "nib.sheet.clear()",
    "nib.save('kite.svg')": "nib.sheet.save",
    "nib.stop()": "return leaves a function",
    "nib.font('serif')": "font=",
    "nib.hide()": "nib.pointer = None",
    "nib.width": "nib.sheet.width",
    "nib.sheet.zoom(2)": "fit=True",
    "nib.sheet.fit()": "fit=True",
    "nib.sheet.redo()": "drawn again by its call",
    "nib.sheet.left": "-sheet.width / 2",
    "nib.beside(3)": "row([a, b])",
    "nib.above(3)": "column([a, b])",
    "Motif.record(size) + Motif.record(size)": "row([a, b])",
    "nib.circle(50, 20, 30)": "nib.travel_to(50, 20), then nib.circle(30)",
    "nib.polyline((0, 0), (3, 4))": "polyline([(0, 0), (3, 4)])",
    "nib.position.x": "nib.pose.x",
    "for x in range(0, 1, 0.1): nib.forward(x)": "x = i * 0.1",
    "nib.forward(size(nib))": "size(…) gives None",
    "nib.forward(size(nib) + 3)": "size(…) gives None",
    "bump()": "global count",
    "helper(3)": "def helper(nib, n)",
    "else if True: pass": "elif",
    "nib.lift": "nib.lift is named here, but not called; write nib.lift().",
    "import time; time.sleep(0.01)": "nib.pause",
}


@pytest.mark.parametrize("line", SAID)
def test_what_people_type_is_answered(line, program):
    path = program(
        f"{HEAD}count = 0\ndef size(nib):\n    nib.forward(1)\ndef bump():\n    count += 1\n"
        f"def helper(n):\n    nib.forward(n)\n@drawing\ndef kite(nib):\n    nib.forward(9)\n    {line}\n"
    )
    try:
        outcome = run_program(load(str(path)))
        said = " ".join([outcome.trouble, *outcome.notices])
    except ProgramFailed as error:
        said = str(error)
    assert SAID[line] in said
    # Answers never begin with a kind of error: all say what to do.
    assert not re.search(r"^(Attribute|Type|Name|Value|UnboundLocal)Error: ", said, re.MULTILINE)


def test_a_drawing_with_self_and_values_without_their_option_are_answered(ovlo_command, program):
    program(f"{HEAD}@drawing\ndef picture(self, nib): ...\n")
    assert "leave out self: def picture(nib)" in ovlo_command("draw", "kite.py").stderr
    program(f"{HEAD}@drawing\ndef kite(nib, a=1, b=2): ...\n")
    assert "--set b=2" in ovlo_command("draw", "kite.py", "--set", "a=1", "b=2").stderr


def test_a_wrong_indent_names_its_line(ovlo_command, program):
    program(f"{HEAD}@drawing\ndef kite(nib):\n    nib.forward(9)\n      nib.left(9)\n")
    assert "kite.py, line 6, cannot be read as Python." in ovlo_command("draw", "kite.py").stderr


def test_a_run_gives_no_severity_that_the_rules_do_not_name():
    from recall.labels import PROGRAMS, findings

    from ovlo.program.source.rules import ALL_RULES

    varied = {}
    for path in sorted(PROGRAMS.glob("wrong/*.py"))[::2]:
        for finding in findings(path, may_fail=True):
            varied.setdefault(finding.rule, set()).add(finding.severity)
    unsaid = {
        rule: told for rule, told in varied.items() if not told <= {*ALL_RULES[rule].severity.split(" or ")}
    }
    assert unsaid == {}
    assert len(varied) > 40
