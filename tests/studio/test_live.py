"""`ovlo live` as a person uses it: values move, files are saved, programs fail, hang, print and ask."""

from __future__ import annotations

import contextlib
import os
import signal
import subprocess
import sys
from pathlib import Path

import pytest

pytest.importorskip("selenium")

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

OVLO = Path(sys.executable).with_name("ovlo")

KITE = '''\
from typing import Annotated, Literal
from ovlo import Colour, Span, drawing


@drawing(width=200, height=160, shortcut="k")
def kite(
    nib,
    sides: Annotated[int, Span(3, 12)] = 4,
    side: float = 30,
    sail: Colour = "tomato",
    wind: Literal["calm", "storm"] = "calm",
    has_tail: bool = True,
    name: str = "Möwe",
):
    """A kite for a windy day."""
    nib.polygon(sides, side_length=side, fill=sail)
    if has_tail:
        nib.forward(60)
    if wind == "storm":
        nib.left(nib.dice.number(-40, 40))
        nib.forward(20)
'''


def set_value(page, name: str, text: str) -> None:
    """Move a control as the mouse would."""
    page.browser.execute_script(
        "const one = document.getElementById(arguments[0]); one.value = arguments[1];"
        "one.dispatchEvent(new Event('input', { bubbles: true }));",
        f"value-{name}",
        text,
    )


def values(page) -> str:
    return page.part("values").text


def press(page, name: str) -> None:
    page.part(name).click()


@pytest.fixture
def live(served, program):
    def start(source: str, *options: object, waits: bool = True):
        page = served(OVLO, "live", program(source), *options, waits=waits)
        if waits:
            page.until(lambda page: page.part("chooser"))
        return page

    return start


def test_the_form_has_a_control_for_each_parameter_and_the_picture_follows_it(live):
    page = live(KITE, "--set", "sides=5")
    page.until(lambda page: "sides=5" in values(page))
    kinds = {
        row.find_element(By.TAG_NAME, "label").text: [
            one.get_attribute("type") for one in row.find_elements(By.CSS_SELECTOR, "input, select")
        ]
        for row in page.browser.find_elements(By.CLASS_NAME, "field")
    }
    assert kinds == {
        "sides": ["range", "number"],
        "side": ["range", "number"],
        "sail": ["color", "text"],
        "wind": ["select-one"],
        "has_tail": ["checkbox"],
        "name": ["text"],
    }
    ends = page.browser.execute_script(
        "return ['min', 'max', 'step'].map((name) => document.getElementById('value-sides')[name])"
    )
    assert ends == ["3", "12", "1"]
    before = page.now("stepCount")
    set_value(page, "sides", "9")
    page.until(lambda page: page.now("stepCount") == before + 4)
    press(page, "value-has_tail")
    page.until(lambda page: "has_tail=no" in values(page))
    field = page.part("value-sail")
    field.clear()
    field.send_keys("gold")
    page.until(lambda page: "sail=#ffd700" in values(page))
    press(page, "reset-values")
    page.until(lambda page: "sides=4" in values(page) and "sail=#ff6347" in values(page))


def test_a_bad_value_is_told_over_the_last_good_picture(live):
    page = live(KITE)
    page.until(lambda page: page.now("stepCount"))
    count = page.now("stepCount")
    field = page.part("value-sail")
    field.clear()
    field.send_keys("tomatto")
    trouble = page.until(
        lambda page: "did you mean 'tomato'" in page.part("trouble").text and page.part("trouble")
    )
    assert trouble.is_displayed()
    assert page.now("stepCount") == count
    field.clear()
    field.send_keys("navy")
    page.until(lambda page: "sail=#000080" in values(page) and not page.part("trouble").is_displayed())


def test_a_saved_file_brings_its_new_defaults_parameters_and_errors(live, program):
    page = live(KITE)
    page.until(lambda page: "sides=4" in values(page))
    set_value(page, "side", "20")
    page.until(lambda page: "side=20" in values(page))
    program(KITE.replace("= 4,", "= 6,").replace("30,", "45,"))
    # What was not touched has its new default; what was, keeps its value.
    page.until(lambda page: "sides=6" in values(page) and "side=20" in values(page))
    assert page.part("value-sides").get_attribute("value") == "6"
    program(KITE.replace("nib.forward(60)", "nib.foward(60)"))
    page.until(lambda page: "Line 18" in page.part("trouble").text and "forward" in page.part("trouble").text)
    program(KITE.replace("has_tail: bool = True", "gap: float = 7").replace("if has_tail", "if gap"))
    page.until(lambda page: page.browser.find_elements(By.ID, "value-gap"))
    program("def kite(nib:")
    page.until(lambda page: "Line 1: This bracket is never closed" in page.part("trouble").text)
    program(KITE)
    page.until(lambda page: not page.part("trouble").is_displayed() and "has_tail" in values(page))
    assert "side=20" in values(page)


def test_it_follows_modules_the_program_imports(live, program):
    program("LENGTH = 10\n", "wind.py")
    page = live(
        "from ovlo import drawing\nimport wind\n\n@drawing()\ndef kite(nib):\n"
        "    for _ in range(wind.LENGTH):\n        nib.forward(9)\n"
    )
    page.until(lambda page: page.now("stepCount") == 11)
    program("LENGTH = 17\n", "wind.py")
    page.until(lambda page: page.now("stepCount") == 18)


def test_all_drawings_are_offered_and_have_keys(live):
    page = live(KITE + "\n\n@drawing(shortcut='t')\ndef tail(nib):\n    '''A tail.'''\n    nib.forward(5)\n")
    chooser = page.part("chooser").find_elements(By.TAG_NAME, "button")
    assert [one.text for one in chooser] == ["kite (k)", "tail (t)"]
    page.until(lambda page: page.browser.title == "kite")
    page.part("canvas").send_keys("t")
    page.until(lambda page: page.browser.title == "tail")
    assert page.part("no-values").is_displayed()
    page.part("chooser").find_element(By.TAG_NAME, "button").click()
    page.until(lambda page: page.browser.title == "kite")


def test_a_drawing_that_is_renamed_stays_in_sight(live, program):
    page = live(KITE + "\n\n@drawing()\ndef tail(nib):\n    nib.forward(5)\n")
    page.part("chooser").find_elements(By.TAG_NAME, "button")[1].click()
    page.until(lambda page: page.browser.title == "tail")
    program("from ovlo import drawing\n\n@drawing()\ndef string(nib):\n    nib.forward(5)\n")
    page.until(lambda page: page.browser.title == "string")


def test_a_script_follows_its_file_too(live, program):
    script = "from ovlo import Sheet\nsheet = Sheet(200, 160)\nnib = sheet.new_nib()\nnib.forward(20)\n"
    page = live(script)
    page.until(lambda page: page.now("stepCount") == 2)
    program(script + "nib.left(90)\nnib.forward(9)\n")
    page.until(lambda page: page.now("stepCount") == 3)


SLOW = """\
from typing import Annotated
from ovlo import Span, drawing

@drawing()
def kite(nib, way: Annotated[int, Span(0, 3)] = 0):
    nib.forward(10)
    while way == 1:
        nib.forward(0.001)
        nib.left(1)
    while way == 2:
        try:
            nib.sheet.nibs
        except BaseException:
            pass
    nib.forward(way)
"""


PLAIN = """\
from ovlo import drawing

@drawing
def kite(nib, sides=4, side=30):
    for _ in range(sides):
        nib.forward(side)
        nib.left(360 / sides)
"""


def test_a_whole_default_is_moved_neighboured_and_written_in_whole_numbers(live, tmp_path):
    page = live(PLAIN)
    page.part("value-sides").send_keys(Keys.ARROW_RIGHT)
    page.until(lambda page: "sides=5" in values(page))
    press(page, "neighbours")
    page.until(lambda page: len(page.part("gallery-list").find_elements(By.TAG_NAME, "li")) == 4)
    assert "sides=6" in page.part("gallery-list").text
    page.browser.find_element(By.CSS_SELECTOR, "#gallery button").click()
    press(page, "write-values")
    page.until(lambda page: page.part("told").text.startswith("Now in the program: sides."))
    assert "def kite(nib, sides=5, side=30):" in page.now("editor.state.doc.toString()")
    page.browser.switch_to.active_element.send_keys(Keys.CONTROL, "s")
    page.until(lambda page: page.part("told").text == "Saved: kite.py.")
    assert "def kite(nib, sides=5, side=30):" in (tmp_path / "kite.py").read_text()


def test_endless_loops_end_with_the_next_change_or_stop(live):
    page = live(SLOW)
    page.until(lambda page: page.now("stepCount") == 3)
    set_value(page, "way", "1")
    page.until(lambda page: "line 8" in page.part("running").text or "line 9" in page.part("running").text)
    press(page, "stop")
    page.until(lambda page: "Stopped" in page.part("trouble").text)
    assert not page.part("stop").is_displayed()
    set_value(page, "way", "2")
    page.until(lambda page: page.part("running").text.startswith("drawing …"))
    set_value(page, "way", "3")
    page.until(lambda page: "way=3" in values(page))
    assert not page.part("trouble").is_displayed()


def test_what_it_prints_is_shown_and_what_it_asks_is_asked_on_the_page(live):
    page = live(
        "from ovlo import drawing\n@drawing()\ndef kite(nib):\n    print('<b>up</b>')\n"
        "    for _ in range(int(input('How many bows? '))):\n        nib.forward(9)\n",
        waits=False,
    )
    field = page.until(lambda page: page.part("question").is_displayed() and page.part("answer"))
    assert page.part("question-words").text == "How many bows?"
    field.send_keys("7", Keys.ENTER)
    page.until(lambda page: page.now("stepCount") == 8)
    page.part("tab-printed").click()
    assert page.part("printed").text == "<b>up</b>"


def test_chance_stays_until_it_is_rolled_again(live):
    page = live(KITE, "--set", "wind=storm")
    page.until(lambda page: "seed=" in values(page))
    seed = values(page).rpartition("seed=")[2]
    set_value(page, "sides", "7")
    page.until(lambda page: "sides=7" in values(page))
    assert values(page).rpartition("seed=")[2] == seed
    press(page, "new-seed")
    page.until(lambda page: values(page).rpartition("seed=")[2] != seed)
    field = page.part("seed")
    field.clear()
    field.send_keys("17", Keys.ENTER)
    page.until(lambda page: values(page).endswith("seed=17"))
    set_value(page, "wind", "calm")
    page.browser.execute_script(
        "document.getElementById('value-wind').dispatchEvent(new Event('change', { bubbles: true }))"
    )
    page.until(lambda page: "seed" not in values(page) and not page.part("seed").is_displayed())


def test_values_are_kept_and_neighbours_are_shown(live):
    page = live(KITE)
    set_value(page, "sides", "8")
    page.until(lambda page: "sides=8" in values(page))
    press(page, "keep-values")
    set_value(page, "sides", "3")
    page.until(lambda page: "sides=3" in values(page))
    small = page.part("kept").find_element(By.TAG_NAME, "button")
    assert small.text == "sides=8"
    small.click()
    page.until(lambda page: "sides=8" in values(page))
    press(page, "neighbours")
    buttons = page.until(
        lambda page: (
            len(found := page.part("gallery-list").find_elements(By.TAG_NAME, "button")) == 6 and found
        )
    )
    # With a storm there is chance, and so a seed.
    assert [one.text.partition(", seed")[0] for one in buttons] == [
        *("sides=7", "sides=9"),
        *(f"sides=8, {words}" for words in ("side=22.5", "side=37.5", "wind=storm", "has_tail=no")),
    ]
    buttons[1].click()
    page.until(lambda page: "sides=9" in values(page))
    assert not page.part("gallery").is_displayed()


def test_the_picture_is_saved_as_it_is_seen(live, tmp_path, chromium):
    chromium.execute_cdp_cmd(
        "Browser.setDownloadBehavior", {"behavior": "allow", "downloadPath": str(tmp_path / "saved")}
    )
    page = live(KITE)
    page.until(lambda page: page.now("stepCount"))
    press(page, "overlay-grid")
    press(page, "open-share")
    for ending, beginning in (
        ("svg", b"<svg"),
        ("png", b"\x89PNG"),
        ("pdf", b"%PDF"),
        ("html", b"<!DOCTYPE"),
    ):
        Select(page.part("save-as")).select_by_value(f".{ending}")
        press(page, "save")
        file = tmp_path / "saved" / f"kite.{ending}"
        page.until(lambda _, file=file: file.exists() and file.stat().st_size)
        assert file.read_bytes().lstrip().startswith((beginning, b"<?xml"))
    assert b"100" in (tmp_path / "saved" / "kite.svg").read_bytes()  # a number of the grid


def test_the_command_line_is_copied_and_draws_what_is_seen(live, ovlo_command, tmp_path):
    page = live(KITE)
    set_value(page, "sides", "5")
    page.until(lambda page: "sides=5" in values(page))
    press(page, "copy-command")
    words = page.until(lambda page: page.part("told").text)
    command = words.removeprefix("Copied: ").split()
    assert command == ["ovlo", "draw", str(tmp_path / "kite.py"), "--set", "sides=5"]
    assert ovlo_command(*command[1:], "-o", "kite.svg").returncode == 0


def test_values_are_written_into_the_file(live, tmp_path):
    page = live(KITE)
    set_value(page, "sides", "5")
    set_value(page, "name", "Kite “day”")
    page.until(lambda page: "day" in values(page))
    press(page, "write-values")
    page.until(lambda page: page.part("told").text.startswith("Now in the program: sides, name."))
    expected = KITE.replace("= 4,", "= 5,").replace('"Möwe"', '"Kite “day”"')
    assert page.now("editor.state.doc.toString()") == expected
    assert (tmp_path / "kite.py").read_text() == KITE
    page.until(lambda page: not page.browser.find_elements(By.CSS_SELECTOR, ".field.touched"))
    assert page.part("value-sides").get_attribute("value") == "5"


def test_a_process_that_dies_while_nothing_is_asked_of_it_is_begun_anew(live):
    page = live(KITE)
    page.until(lambda page: page.now("stepCount"))
    children = Path(f"/proc/{page.process.pid}/task/{page.process.pid}/children")
    for child in children.read_text().split():
        with contextlib.suppress(ProcessLookupError):
            os.kill(int(child), signal.SIGKILL)
    set_value(page, "sides", "9")
    page.until(lambda page: "sides=9" in values(page) or page.part("trouble").is_displayed())
    set_value(page, "sides", "8")
    page.until(lambda page: "sides=8" in values(page) and not page.part("trouble").is_displayed())


def test_it_ends_with_its_page_and_no_process_is_left(live, tmp_path):
    from tests.cli.test_processes import none_left

    page = live(SLOW)
    set_value(page, "way", "1")
    page.until(lambda page: page.part("running").text)
    assert page.leave() == 0
    assert none_left(tmp_path)


def test_no_open_prints_where_the_page_is(program, tmp_path):
    process = subprocess.Popen(
        [OVLO, "live", program(KITE), "--no-open"],
        cwd=tmp_path,
        env={name: text for name, text in os.environ.items() if name != "PYTHONUNBUFFERED"},
        stdout=subprocess.PIPE,
        text=True,
    )
    try:
        assert process.stdout.readline().startswith("Open http://127.0.0.1:")
    finally:
        process.terminate()
        process.communicate()


def test_a_program_without_a_browser_or_a_file_is_refused(ovlo_command, program, monkeypatch):
    monkeypatch.setenv("BROWSER", "lynx %s")
    done = ovlo_command("live", program(KITE))
    assert (done.returncode, "no browser can be opened on this machine" in done.stderr) == (1, True)
    done = ovlo_command("live", "kit.py")
    assert "kit.py does not exist yet (did you mean 'kite.py'?); it is made when you save." in done.stdout
    assert ovlo_command("live", "nowhere/kite.py").returncode == 2
