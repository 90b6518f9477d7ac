"""`ovlo live`: controls, saved files, errors and endless loops in the real window."""

from __future__ import annotations

import os
import subprocess
import sys
from typing import Any

import pytest

from ovlo.core.values.errors import BadUse
from ovlo.live.session import Session
from ovlo.live.worker import Request

KITES = """\
from typing import Annotated, Literal
from ovlo import Span, drawing

@drawing(width=400, height=300, paper="aliceblue", shortcut="k")
def kite(
    nib,
    sides: Annotated[int, Span(3, 12)] = 4,
    sail: Literal["gold", "tomato"] = "gold",
    tail: bool = False,
    name: str = "Kite",
):
    '''A kite over the bay.'''
    with nib.area(sail):
        for _ in nib.full_turn(sides):
            nib.forward(40)
    if tail:
        nib.back(60)
    nib.text(name)
    while sides == 11:
        nib.left(1)
"""

SECOND = """
@drawing(width=200, height=500, shortcut="b")
def bunting(nib):
    nib.line_to(50, nib.dice.number(1, 90))
"""


@pytest.fixture
def live(window, program, until):
    sessions = []

    def start(source: str, values: dict[str, str] | None = None, name: str = ""):
        path = program(source)
        session = Session(Request(f"{path}{name}", values or {}))
        sessions.append(session)
        session.screen.every(5, session.tick)
        session.screen.show(wait=False)
        return session

    yield start
    for session in sessions:
        session.screen.close()
        session._closed.set()
        session._worker.close()


def parameters(session):
    return session.player.sheet.parameters


def test_each_parameter_has_its_control(live, until):
    session = live(KITES, {"sides": "5"})
    until(session.screen, lambda: parameters(session).get("sides") == 5, "the first picture")
    widgets = session.controls.widgets
    assert {name: type(widget).__name__ for name, widget in widgets.items()} == {
        "sides": "Slider",
        "sail": "RadioButtons",
        "tail": "CheckButtons",
        "name": "TextBox",
    }
    widgets["sides"].set_val(7)
    until(session.screen, lambda: parameters(session)["sides"] == 7, "seven sides")
    widgets["sail"].set_active(1)
    until(session.screen, lambda: parameters(session)["sail"] == "tomato", "another sail")
    widgets["tail"].set_active(0)
    until(session.screen, lambda: parameters(session)["tail"], "a tail")
    widgets["name"].set_val("Marrow Bay")
    until(session.screen, lambda: parameters(session)["name"] == "Marrow Bay", "another name")
    assert session.command.endswith("--set sides=7 --set sail=tomato --set tail=yes --set 'name=Marrow Bay'")
    session.player.seek(3)
    assert "line 15: nib.forward(40)   ·   kite" in session.player.status


def test_saving_the_file_draws_it_anew_and_errors_are_shown_over_the_picture(live, until, program):
    session = live(KITES)
    until(session.screen, lambda: parameters(session).get("sides") == 4, "the first picture")
    good = session.player.sheet
    program(KITES.replace("nib.forward(40)", "nib.forward('far')"))
    until(session.screen, lambda: "forward: distance" in session.screen.words_above, "the error")
    assert "line 15" in session.screen.words_above
    assert session.player.sheet is good
    program(KITES.replace("nib.forward(40)", "nib.forward(50)"))
    until(session.screen, lambda: session.player.sheet is not good, "the mended picture")
    assert session.screen.words_above == ""


def test_an_endless_loop_is_stopped_by_the_button_and_by_the_next_change(live, until):
    session = live(KITES)
    until(session.screen, lambda: parameters(session).get("sides") == 4, "the first picture")
    sides = session.controls.widgets["sides"]
    sides.set_val(11)
    until(session.screen, lambda: session._worker.is_busy, "the loop")
    session.stop()
    until(session.screen, lambda: "Stopped: it was told to" in session.screen.words_above, "the stop")
    sides.set_val(10)
    until(session.screen, lambda: parameters(session)["sides"] == 10, "ten sides")
    sides.set_val(11)
    until(session.screen, lambda: session._worker.is_busy, "the loop")
    sides.set_val(9)
    until(session.screen, lambda: parameters(session)["sides"] == 9, "nine sides")


def test_several_drawings_are_offered_and_drawn_by_their_keys(live, until, press):
    session = live(KITES + SECOND)
    until(session.screen, lambda: "Choose a drawing" in session.screen.words_above, "the choice")
    assert "k   kite   A kite over the bay." in session.screen.words_above
    press(session.screen, "b")
    until(session.screen, lambda: session.player.sheet.title == "bunting", "bunting")
    assert (session.player.sheet.width, session.player.sheet.height) == (200, 500)
    seed = session.player.sheet.seed
    press(session.screen, "r")
    until(session.screen, lambda: session.player.sheet.seed != seed, "another chance")
    assert f"--seed {session.player.sheet.seed}" in session.command
    press(session.screen, "k")
    until(session.screen, lambda: session.player.sheet.title == "kite", "the kite")


@pytest.mark.parametrize(
    ("source", "words"),
    [
        (KITES + SECOND.replace('"b"', '"k"'), "kite and bunting have the same shortcut 'k'"),
        (KITES.replace('"k"', '"s"'), "the window itself uses the key 's' (save what is seen)"),
        (KITES.replace('"k"', '"kk"'), "must be a single character"),
    ],
)
def test_shortcuts_that_cannot_be_are_an_error_at_load(ovlo_command, program, source, words):
    done = ovlo_command("draw", f"{program(source)}:kite")
    assert done.returncode in (1, 2)
    assert words in done.stderr


def test_live_without_a_screen_says_so(ovlo_command, program, monkeypatch):
    monkeypatch.delenv("DISPLAY", raising=False)
    monkeypatch.delenv("WAYLAND_DISPLAY", raising=False)
    done: subprocess.CompletedProcess[str] = ovlo_command("live", program(KITES))
    assert done.returncode == 1
    assert "there is no screen to open a window on" in done.stderr
    assert "ovlo animate" in done.stderr
    assert "Traceback" not in done.stderr


def test_a_drawing_that_is_in_no_file_cannot_be_live():
    names: dict[str, Any] = {}
    exec(KITES, names)
    with pytest.raises(BadUse, match="save it as kite"):
        names["kite"].live()


def test_a_program_opens_its_live_window_once(display, program):
    """Without a guard around the call, since the worker does not run the program as its own main one."""
    watched = (
        "from ovlo.live.session import Session\n"
        "tick = Session.tick\n"
        "def soon(self):\n"
        "    tick(self)\n"
        "    if self.player.replay.is_over and self.controls: self.screen.close()\n"
        "Session.tick = soon\n"
    )
    path = program(f"{KITES}\n{watched}\nkite.live(sides=6)\nprint('went on')\n")
    done = subprocess.run(
        [sys.executable, path],
        env=os.environ | {"DISPLAY": display, "MPLBACKEND": "TkAgg"},
        capture_output=True,
        text=True,
        timeout=60,
    )
    assert (done.returncode, done.stdout[-8:]) == (0, "went on\n"), done.stderr
