"""`show` in a real browser: it waits for the page to be closed, and follows what is drawn at a prompt."""

from __future__ import annotations

import os
import signal
import stat
import subprocess
import sys
import threading
from pathlib import Path

import pytest

from ovlo import Sheet
from ovlo.studio.showing import Growing

SHOWN = """\
from ovlo import drawing

@drawing(width=200, height=160)
def kite(nib, side: float = 50):
    '''A kite.'''
    for _ in nib.full_turn(4):
        nib.forward(side)

kite.show(side=30, seconds=0.3)
print("closed")
"""

SEEN = "return document.getElementById('canvas').toDataURL()"

PROMPT = """\
from ovlo import Sheet
sheet = Sheet(200, 160)
nib = sheet.new_nib()
sheet.show(wait=False)
for line in iter(input, "end"):
    exec(line)
"""


def test_it_replays_waits_until_the_page_is_closed_and_goes_on(served, program):
    page = served(sys.executable, program(SHOWN))
    page.until(lambda page: page.now("currentStep") == 4 and not page.now("isPlaying"))
    assert (page.browser.title, page.now("sourceLine")) == ("kite", 7)
    assert page.part("values").text == "side=30"
    page.browser.refresh()
    page.until(lambda page: page.browser.execute_script("return window.ovlo?.stepCount") == 5)
    assert page.process.poll() is None
    assert page.leave() == 0
    assert page.process.stdout.read() == "closed\n"


def test_neither_the_process_list_nor_the_address_shows_the_key(served, program):
    page = served(sys.executable, program(SHOWN))
    file = Path(page.process.args[1]).with_name("asked-for").read_text().strip().removeprefix("file://")
    assert "key" not in file
    assert stat.S_IMODE(os.stat(file).st_mode) == 0o600
    assert stat.S_IMODE(os.stat(Path(file).parent).st_mode) == 0o700
    assert "key" not in page.browser.current_url
    assert "ovlo" not in page.browser.execute_script("return document.cookie")
    assert page.leave() == 0
    assert not Path(file).exists()


def test_ctrl_c_ends_it_without_a_traceback(served, program):
    page = served(sys.executable, program(SHOWN))
    page.process.send_signal(signal.SIGINT)
    out, complaint = page.process.communicate(timeout=10)
    assert (page.process.returncode, out, complaint.strip()) == (0, "closed\n", "")
    page.until(lambda page: page.part("gone").is_displayed())
    page.browser.execute_script("ovlo.showStep(2)")
    assert page.now("currentStep") == 2


@pytest.mark.parametrize("browser", ["", "lynx %s"])
def test_without_a_browser_it_says_what_can_be_done(program, tmp_path, browser):
    done = subprocess.run(
        [sys.executable, program(SHOWN)],
        cwd=tmp_path,
        env={"PATH": str(tmp_path), "HOME": str(tmp_path)} | ({"BROWSER": browser} if browser else {}),
        capture_output=True,
        text=True,
        timeout=60,
    )
    assert done.returncode == 1
    last = done.stderr.strip().splitlines()[-1]
    assert "show: no browser can be opened on this machine" in last
    assert "kite.html" in last
    assert "--no-open" in last


def test_where_no_page_comes_and_nobody_is_there_it_ends(program, tmp_path, monkeypatch):
    code = "import ovlo.studio.presence as presence; presence.FIRST = 0.5; exec(open('kite.py').read())"
    program(SHOWN)
    done = subprocess.run(
        [sys.executable, "-c", code],
        cwd=tmp_path,
        env=os.environ | {"BROWSER": "true %s"},
        stdin=subprocess.DEVNULL,
        capture_output=True,
        text=True,
        timeout=60,
    )
    assert done.returncode == 1
    assert "no browser can be opened on this machine" in done.stderr


def test_at_a_prompt_the_page_follows_each_command_turns_too(served, program):
    page = served(sys.executable, "-u", program(PROMPT))

    def say(line: str) -> None:
        page.process.stdin.write(f"{line}\n")
        page.process.stdin.flush()

    blank = page.now("pictureOf()")
    say("nib.forward(50)")
    page.until(lambda page: page.now("stepCount") == 2)
    drawn = page.now("pictureOf()")
    assert drawn != blank
    seen = page.browser.execute_script("return document.getElementById('canvas').toDataURL()")
    say("nib.left(90)")
    page.until(
        lambda page: (
            page.browser.execute_script("return document.getElementById('canvas').toDataURL()") != seen
        )
    )
    assert page.now("pictureOf()") == drawn
    say("for _ in range(300): nib.forward(9); nib.left(91)")
    page.until(lambda page: page.now("stepCount") == 302)
    say("sheet.undo(300); nib.right(91)")
    page.until(lambda page: page.now("stepCount") == 2)
    page.until(lambda page: page.now("pictureOf()") == drawn)
    say("sheet.clear(); nib.back(20)")
    page.until(lambda page: page.now("stepCount") == 1)
    page.until(lambda page: page.part("status").text.startswith("Step 1 of 1"))
    say("nib.back(20); nib.back(20)")
    page.until(lambda page: page.part("status").text.startswith("Step 3 of 3"))
    say("end")
    assert page.process.wait(15) == 0
    page.until(lambda page: page.part("gone").is_displayed())


def test_reading_beside_a_writer_is_always_whole(monkeypatch):
    from ovlo.studio import showing

    monkeypatch.setattr(showing, "server", lambda: None)
    monkeypatch.setattr(showing, "OFTEN", 3600)
    sheet = Sheet(640, 480)
    nib = sheet.new_nib()
    is_over, is_read = threading.Event(), threading.Event()

    def write() -> None:
        i = 0
        while i < 20 or not is_read.is_set():  # the reader may not have had its turn yet
            i += 1
            with nib.area("#ff634780"):
                for _ in range(500):
                    nib.forward(1)
                    nib.left(3)
            nib.ink = f"rgb({i % 250} 0 0)"
            nib.text("kite")
            nib.arc_left(5, 90)
            if i == 10:
                sheet.clear()
        is_over.set()

    room = Growing(sheet, {})
    thread = threading.Thread(target=write)
    thread.start()
    readings = 0
    while not is_over.is_set():
        room._look()
        is_read.set()
        head, arrays = room._parts
        count = head["drawing"]["steps"]
        assert len(arrays["headings"]) == count
        assert len(arrays["points"]) == 2 * count
        assert arrays["lines.steps"].max(initial=0) < max(count, 1)
        assert arrays["areaSpans"].max(initial=0) <= count
        readings += 1
    thread.join()
    room._look()
    assert readings > 0
    assert room._parts[0]["drawing"]["steps"] == len(sheet.trail)
    assert room._parts[0]["poses"] == [list(nib.pose)]
