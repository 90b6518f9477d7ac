"""Programs written in the studio: typed, completed, turned, corrected, saved, and never lost."""

from __future__ import annotations

import signal
import sys
import time
from pathlib import Path

import pytest

pytest.importorskip("selenium")

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

OVLO = Path(sys.executable).with_name("ovlo")

KITE = """\
from ovlo import drawing


@drawing(width=200, height=160)
def kite(nib, sides: int = 4):
    for _ in range(sides):
        nib.forward(30)
        nib.left(90)
"""


@pytest.fixture
def live(served, program, tmp_path):
    def start(source: str | None, *options: object):
        path = tmp_path / "kite.py" if source is None else program(source)
        page = served(OVLO, "live", path, *options, waits=source is not None)
        page.until(lambda page: page.now("editor.state.doc.lines"))
        return page

    return start


def text_of(page) -> str:
    return page.now("editor.state.doc.toString()")


def press(page, *keys: str, held: str = "") -> None:
    chain = ActionChains(page.browser)
    if held:
        chain.key_down(held).send_keys(*keys).key_up(held)
    else:
        chain.send_keys(*keys)
    chain.perform()


def put_caret(page, words: str) -> None:
    """Put the caret behind some words."""
    page.browser.execute_script(
        "const at = ovlo.editor.state.doc.toString().indexOf(arguments[0]) + arguments[0].length;"
        "ovlo.editor.focus(); ovlo.editor.dispatch({ selection: { anchor: at }, scrollIntoView: true })",
        words,
    )


def accept(page, label: str) -> None:
    """Take what is proposed first, once it has been there long enough to be meant."""
    page.until(lambda page: in_editor(page, ".cm-completionLabel")[:1] == [label])
    begin = time.monotonic()
    page.until(lambda _: time.monotonic() > begin + 0.2)
    press(page, Keys.ENTER)


def in_editor(page, selector: str) -> list[str]:
    return page.browser.execute_script(
        "return [...ovlo.editor.dom.querySelectorAll(arguments[0])].map((one) => one.textContent)", selector
    )


def replace(page, old: str, new: str) -> None:
    """Type over some words."""
    page.browser.execute_script(
        "const at = ovlo.editor.state.doc.toString().indexOf(arguments[0]);"
        "ovlo.editor.focus();"
        "ovlo.editor.dispatch({ changes: { from: at, to: at + arguments[0].length, insert: arguments[1] } })",
        old,
        new,
    )


def test_a_first_program_is_written_from_an_empty_file_by_keyboard_alone(live, tmp_path):
    page = live(None)
    page.until(
        lambda page: "it is made when you save" in page.browser.find_element(By.CSS_SELECTOR, ".note").text
    )
    page.browser.execute_script("ovlo.editor.focus()")
    press(page, "from ovlo import drawing", Keys.ENTER, Keys.ENTER, "@drawing()", Keys.ENTER)
    press(
        page,
        "def rosette(nib, petals=12):",
        Keys.ENTER,
        "for _ in nib.full_turn(petals):",
        Keys.ENTER,
        "nib.cir",
    )
    page.until(
        lambda page: any("Draw a circle around the nib" in one for one in in_editor(page, ".explanation"))
    )
    accept(page, "circle")
    press(page, "70, fi")
    accept(page, "fill=")
    press(page, "'tom")
    accept(page, "tomato")
    page.until(lambda page: page.now("stepCount") == 25 and not page.part("trouble").is_displayed())
    assert page.part("value-petals").get_attribute("value") == "12"
    assert not (tmp_path / "kite.py").exists()
    press(page, "s", held=Keys.CONTROL)
    page.until(lambda page: page.part("told").text == "Saved: kite.py.")
    written = (tmp_path / "kite.py").read_text()
    assert written == text_of(page)
    assert "    for _ in nib.full_turn(petals):\n        nib.circle(70, fill='tomato')" in written


def test_what_reaches_outside_waits_for_a_word(live, tmp_path):
    page = live(KITE)
    replace(page, "    for _", "    open('made.txt', 'w').close()\n    for _")
    note = page.browser.find_element(By.CSS_SELECTOR, ".note")
    page.until(lambda page: "Line 6: `open` reaches beyond the picture" in note.text)
    replace(page, "forward(30)", "forward(40)")
    page.until(lambda page: "(40)" in text_of(page))
    assert not (tmp_path / "made.txt").exists()
    press(page, Keys.ENTER, held=Keys.CONTROL)
    page.until(lambda page: (tmp_path / "made.txt").exists() and not note.is_displayed())


def test_a_mistake_stands_at_its_line_over_the_last_good_picture(live):
    page = live(KITE)
    count = page.now("stepCount")
    replace(page, "nib.forward", "nib.foward")
    page.until(lambda page: "Line 7" in page.part("trouble").text and "forward" in page.part("trouble").text)
    assert page.now("stepCount") == count
    assert len(in_editor(page, ".cm-lintRange-error")) == 1
    replace(page, "nib.foward", "nib.forward(")
    # What is not finished is marked, and is no trouble yet.
    page.until(
        lambda page: (
            page.browser.execute_script(
                "return ovlo.editor.dom.querySelectorAll('.cm-lintRange-error').length"
            )
            == 1
        )
    )
    replace(page, "nib.forward(", "nib.forward")
    page.until(
        lambda page: not page.part("trouble").is_displayed() and not in_editor(page, ".cm-lintRange-error")
    )


def test_a_fix_is_applied_as_one_step_of_the_history(live):
    page = live(KITE.replace("nib.left(90)", "nib.left(80)"))
    page.until(lambda page: in_editor(page, ".cm-lint-marker-warning") or in_editor(page, ".cm-lint-marker"))
    page.browser.execute_script("ovlo.editor.focus()")
    put_caret(page, "nib.left")
    press(page, Keys.F8)
    page.until(lambda page: in_editor(page, ".cm-diagnosticAction"))
    page.browser.execute_script(
        "ovlo.editor.dom.querySelector('.cm-diagnosticAction').dispatchEvent("
        "new MouseEvent('mousedown', { bubbles: true, cancelable: true }))"
    )
    page.until(lambda page: "nib.left(90)" in text_of(page))
    press(page, "z", held=Keys.CONTROL)
    page.until(lambda page: "nib.left(80)" in text_of(page))


def test_a_number_is_turned_tried_taken_back_and_written_once(live, tmp_path):
    page = live(KITE)
    put_caret(page, "forward(3")
    dial = page.browser.find_element(By.CSS_SELECTOR, ".dial")
    page.until(
        lambda page: dial.is_displayed() and len(dial.find_elements(By.CSS_SELECTOR, "button:enabled")) == 2
    )
    assert [one.text for one in dial.find_elements(By.CSS_SELECTOR, "button span")] == ["27", "33"]
    before = page.now("pictureOf()")
    press(page, ".", ".", held=Keys.ALT)
    page.until(lambda page: page.now("pictureOf()") != before)
    assert (in_editor(page, ".turned"), "forward(30)" in text_of(page)) == (["32"], True)
    press(page, Keys.ESCAPE)
    page.until(lambda page: page.now("pictureOf()") == before)
    assert in_editor(page, ".turned") == []
    press(page, ",", held=Keys.ALT)
    page.until(lambda page: "forward(29)" in text_of(page))
    press(page, "z", held=Keys.CONTROL)
    page.until(lambda page: "forward(30)" in text_of(page))
    put_caret(page, "forward(3")
    page.until(lambda page: dial.is_displayed())
    knob = dial.find_element(By.CSS_SELECTOR, ".knob")
    ActionChains(page.browser).click_and_hold(knob).move_by_offset(26, 0).move_by_offset(
        25, 0
    ).release().perform()
    page.until(lambda page: "forward(40)" in text_of(page))
    assert (tmp_path / "kite.py").read_text() == KITE


def test_all_tabs_show_one_state(live):
    page = live(KITE)
    first = page.browser.current_window_handle
    link = page.browser.current_url
    page.browser.switch_to.new_window("tab")
    second = page.browser.current_window_handle
    try:
        page.browser.get(link)
        page.until(lambda page: page.now("stepCount") and "sides" in text_of(page))
        replace(page, "forward(30)", "forward(50)")
        page.browser.switch_to.window(first)
        page.until(lambda page: "forward(50)" in text_of(page))
        replace(page, "left(90)", "left(72)")
        page.part("value-sides").send_keys(Keys.ARROW_RIGHT)
        page.until(lambda page: "sides=5" in page.part("values").text)
        page.browser.switch_to.window(second)
        page.until(lambda page: "forward(50)" in text_of(page) and "left(72)" in text_of(page))
        page.until(lambda page: page.part("value-sides").get_attribute("value") == "5")
        page.part("keep-values").click()
        page.until(lambda page: page.part("kept").text == "sides=5")
        replace(page, "    for _", "    input('How many? ')\n    for _")
        page.part("value-sides").send_keys(Keys.ARROW_LEFT)
        press(page, Keys.ENTER, held=Keys.CONTROL)
        page.until(lambda page: page.part("question").is_displayed())
        page.browser.switch_to.window(first)
        assert page.part("kept").text == "sides=5"
        page.until(lambda page: page.part("question").is_displayed() and page.part("answer")).send_keys(
            "3", Keys.ENTER
        )
        page.browser.switch_to.window(second)
        page.until(lambda page: not page.part("question").is_displayed())
    finally:
        page.browser.switch_to.window(second)
        page.browser.close()
        page.browser.switch_to.window(first)


def test_text_that_is_not_saved_survives_a_reload_and_an_end(live, tmp_path):
    page = live(KITE)
    replace(page, "forward(30)", "forward(31)")
    page.until(lambda page: page.browser.title.startswith("●"))
    page.browser.refresh()
    page.until(lambda page: page.now("editor.state.doc.lines") and "forward(31)" in text_of(page))
    page.browser.get("about:blank")
    page.process.send_signal(signal.SIGTERM)
    said = page.process.communicate()[1]
    assert "kite.py had text that was not saved; it is in kite.unsaved.py." in said
    assert "forward(31)" in (tmp_path / "kite.unsaved.py").read_text()
    assert (tmp_path / "kite.py").read_text() == KITE


def test_a_file_changed_elsewhere_is_taken_or_both_are_kept(live, program, tmp_path):
    page = live(KITE)
    program(KITE.replace("30", "44"))
    page.until(lambda page: "forward(44)" in text_of(page))
    replace(page, "left(90)", "left(91)")
    page.until(lambda page: page.browser.title.startswith("●"))
    program(KITE.replace("30", "55"))
    conflict = page.browser.find_element(By.CSS_SELECTOR, ".conflict")
    page.until(lambda page: conflict.is_displayed() and "-        nib.forward(55)" in conflict.text)
    press(page, "s", held=Keys.CONTROL)
    page.until(lambda page: "choose which text to keep" in page.part("told").text)
    assert "55" in (tmp_path / "kite.py").read_text()
    conflict.find_elements(By.TAG_NAME, "button")[0].click()
    page.until(lambda page: not conflict.is_displayed())
    press(page, "s", held=Keys.CONTROL)
    page.until(lambda page: "left(91)" in (tmp_path / "kite.py").read_text())


def test_a_value_the_encoding_lacks_is_told_and_the_page_goes_on(live, program, tmp_path):
    path = tmp_path / "kite.py"
    source = "# coding: latin-1\n" + KITE.replace("sides: int = 4", "sides=4, name='Möwe'")
    path.write_bytes(source.encode("latin-1"))
    page = live(None)
    page.until(lambda page: "Möwe" in text_of(page))
    field = page.until(lambda page: page.part("value-name"))
    field.clear()
    field.send_keys("Möwe → Süd")
    page.until(lambda page: "→" in page.part("values").text)
    page.part("write-values").click()
    page.until(lambda page: "→" in text_of(page))
    press(page, "s", held=Keys.CONTROL)
    page.until(lambda page: "'→' in line 6 does not exist in iso-8859-1" in page.part("told").text)
    assert path.read_bytes() == source.encode("latin-1")
    page.part("value-sides").send_keys(Keys.ARROW_RIGHT)
    page.until(lambda page: "sides=5" in page.part("values").text)


def test_a_file_saved_twice_within_a_run_is_drawn_as_it_stands_last(live, program, tmp_path):
    hold, begun = tmp_path / "hold", tmp_path / "begun"
    waits = f"    open({str(begun)!r}, 'w').close()\n"
    waits += f"    while os.path.exists({str(hold)!r}):\n        time.sleep(0.01)\n"
    slow = "import os, time\n" + KITE.replace("    for _", f"{waits}    for _")
    page = live(slow)
    hold.touch()
    begun.unlink()
    program(slow.replace("forward(30)", "forward(31)"))
    page.until(lambda _: begun.exists())
    program(slow.replace("range(sides)", "range(2)"))
    hold.unlink()
    page.until(lambda page: page.now("stepCount") == 3 and "range(2)" in text_of(page))


def test_what_never_stops_gives_way_to_the_second_process(live):
    stubborn = KITE.replace(
        "    for _",
        "    while sides == 5:\n        try:\n            nib.left(1)\n        except BaseException:\n"
        "            pass\n    for _",
    )
    page = live(stubborn)
    page.part("value-sides").send_keys(Keys.ARROW_RIGHT)
    page.until(lambda page: page.part("running").text.startswith("drawing"))
    page.part("value-sides").send_keys(Keys.ARROW_RIGHT)
    page.until(lambda page: page.now("stepCount") == 7)
    assert page.process.poll() is None


def test_read_only_it_can_be_seen_and_not_written(live, tmp_path):
    page = live(KITE, "--read-only")
    page.browser.execute_script("ovlo.editor.focus()")
    press(page, "x")
    assert text_of(page) == KITE
    page.part("value-sides").send_keys(Keys.ARROW_RIGHT)
    page.until(lambda page: "sides=5" in page.part("values").text)
    page.part("write-values").click()
    page.until(lambda page: "read only" in page.part("told").text)
    assert (tmp_path / "kite.py").read_text() == KITE


def test_lines_and_marks_show_each_other(live):
    page = live(KITE)
    page.browser.execute_script(
        "const doc = ovlo.editor.state.doc; ovlo.editor.focus();"
        "ovlo.editor.dispatch({ selection: { anchor: doc.line(6).from, head: doc.line(8).to } })"
    )
    page.until(lambda page: page.part("all").is_displayed() and in_editor(page, ".chosen"))
    assert in_editor(page, ".chosen") == [
        "    for _ in range(sides):",
        "        nib.forward(30)",
        "        nib.left(90)",
    ]
    put_caret(page, "from")
    page.until(lambda page: not page.part("all").is_displayed())
    canvas = page.part("canvas")
    scale = min((canvas.size["width"] - 24) / 200, (canvas.size["height"] - 24) / 160)
    ActionChains(page.browser).move_to_element_with_offset(canvas, round(15 * scale), 0).perform()
    page.until(lambda page: in_editor(page, ".lit") == ["        nib.forward(30)"])


def test_words_of_a_program_stay_words(live):
    evil = "</script><img src=x onerror='window.evil=1'>"
    page = live(
        KITE.replace("    for _", f"    name = {evil!r}\n    for _").replace("nib.left(90)", "nib.left(name)")
    )
    page.until(lambda page: page.part("trouble").is_displayed())
    assert evil in text_of(page)
    assert page.browser.execute_script("return window.evil") is None
    assert page.browser.execute_script("return performance.getEntriesByType('resource').length") == 0


def test_a_killed_program_leaves_its_text_on_the_page(live):
    page = live(KITE)
    replace(page, "forward(30)", "forward(31)")
    page.until(lambda page: page.browser.title.startswith("●"))
    page.process.kill()
    page.until(lambda page: "has text that is not saved" in page.part("gone").text)
    assert [one.text for one in page.part("gone").find_elements(By.TAG_NAME, "button")] == [
        "Copy the text",
        "Download the text",
    ]
    # A page that tries to reach its server again says so in the browser's log.
    page.browser.get_log("browser")
