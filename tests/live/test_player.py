"""The window that replays a drawing: the real one, on a virtual display."""

from __future__ import annotations

import os
import subprocess
import sys

import numpy as np
import pytest
from PIL import Image

from ovlo import BadValue, Motif, Sheet
from ovlo.live.player import TICK
from ovlo.live.replay import Replay
from ovlo.live.window import open_player
from ovlo.render.formats.png import rasterise


def harbour_kite(steps: int = 40) -> Sheet:
    sheet = Sheet(400, 300, paper="aliceblue")
    nib = sheet.new_nib()
    with nib.area("tomato"):
        for _ in nib.full_turn(4):
            nib.forward(90)
    for i in range(steps):
        nib.forward(i / 2)
        nib.left(25)
    return sheet


@pytest.fixture
def player(window):
    player = open_player(harbour_kite(), 4, False, False)
    player.screen.every(TICK, player.tick)
    player.screen.show(wait=False)
    player.screen.canvas.get_tk_widget().update()
    yield player
    player.screen.close()


def seen(player):
    """The picture's pixels as the window has them."""
    column, row = player.screen.corner
    height, width = player._shown.shape[:2]
    return np.asarray(player.screen.canvas.buffer_rgba())[row : row + height, column : column + width]


def test_a_replay_grows_and_ends_as_the_saved_picture(player, until):
    player.replay.set_seconds(0.6, 0)
    player.play()
    until(player.screen, lambda: 0 < player.replay.steps < player.replay.length)
    part = (seen(player) != seen(player)[0, 0]).any(axis=2).sum()
    until(player.screen, lambda: player.replay.is_over)
    whole = rasterise(player.sheet._columns, player._page())
    assert (seen(player) == whole).all()
    assert 0 < part < (whole != whole[0, 0]).any(axis=2).sum()


def test_keys_step_play_jump_and_switch_overlays(player, press):
    press(player.screen, "Right")
    press(player.screen, "Right")
    assert player.replay.steps == 2
    press(player.screen, "Left")
    assert player.replay.steps == 1
    press(player.screen, "space")
    assert player.replay.is_playing
    press(player.screen, "space")
    assert not player.replay.is_playing
    press(player.screen, "End")
    assert player.replay.is_over
    before = seen(player).copy()
    press(player.screen, "1")
    assert (seen(player) != before).any()
    press(player.screen, "1")
    assert (seen(player) == before).all()
    seconds = player.replay.timeline.seconds
    press(player.screen, "plus")
    assert player.replay.timeline.seconds == seconds / 2


def test_the_keys_are_shown_and_go_away(player, press):
    press(player.screen, "question")
    assert "play or pause" in player.screen.words_above
    press(player.screen, "question")
    assert player.screen.words_above == ""


def test_the_mark_is_there_while_it_moves_and_gone_at_the_end(player):
    player.seek(20)
    with_mark = seen(player).copy()
    player._moments.pointers.at = lambda steps, share: None
    player.seek(20)
    changed = (seen(player) != with_mark).any(axis=2).sum()
    assert 100 < changed < 800
    player.at_once()
    assert (seen(player) == rasterise(player.sheet._columns, player._page())).all()


def test_another_mark_or_none(window):
    sheet = harbour_kite()
    sheet.nibs[0].pointer = Motif.record(lambda nib: nib.circle(12, fill="navy"))
    player = open_player(sheet, 4, False, True)
    player.screen.canvas.draw()
    player.at_once()
    assert (np.asarray(player._shown)[..., :3] == (0, 0, 128)).all(axis=2).sum() > 100
    sheet.nibs[0].pointer = None
    player.repaint()
    assert (player._shown == rasterise(sheet._columns, player._page())).all()
    player.screen.close()


def test_the_scrubber_and_the_status_line(player):
    axes = player._slider.ax.get_window_extent()
    x, y = axes.x0 + axes.width / 2, axes.y0 + axes.height / 2
    widget = player.screen.canvas.get_tk_widget()
    down = player.screen.size[1] - y
    widget.event_generate("<ButtonPress-1>", x=int(x), y=int(down))
    widget.event_generate("<ButtonRelease-1>", x=int(x), y=int(down))
    widget.update()
    assert player.replay.steps == pytest.approx(player.replay.length / 2, abs=1)
    assert f"step {player.replay.steps} of {player.replay.length}" in player.status
    assert "heading" in player.status


def test_the_wheel_zooms_where_the_mouse_is(player):
    widget = player.screen.canvas.get_tk_widget()
    column, row = player.screen.corner
    before = player._page()
    widget.event_generate("<Button-4>", x=column + 20, y=row + 20)
    widget.update()
    after = player._page()
    assert after.width < before.width
    assert abs(after.left - before.left) < 0.1 * before.width
    player.fit()
    assert player._page() == before


def test_a_pace_may_be_typed(player):
    player._set_pace("9 steps/s")
    assert player.replay.timeline.seconds == pytest.approx(player.replay.length / 9)
    player._set_pace("3 s")
    assert player.replay.timeline.seconds == 3
    player._set_pace("fast")
    assert player.replay.timeline.seconds == 3
    assert "100 steps/s" in player._status.get_text()


def test_s_saves_what_is_seen(player, press, tmp_path, monkeypatch):
    monkeypatch.chdir(tmp_path)
    player.seek(10)
    press(player.screen, "s")
    press(player.screen, "s")
    assert sorted(path.name for path in tmp_path.iterdir()) == ["drawing-2.png", "drawing.png"]
    assert (np.asarray(Image.open(tmp_path / "drawing.png")) == player._shown).all()


def test_an_open_window_follows_what_is_drawn_next(window, until):
    sheet = harbour_kite(5)
    sheet.show(wait=False, at_once=True)
    from matplotlib import pyplot

    figure = pyplot.figure(pyplot.get_fignums()[-1])
    sheet.nibs[0].circle(80, fill="navy")

    class Screen:
        is_open, canvas = True, figure.canvas

    until(
        Screen,
        lambda: (np.asarray(figure.canvas.buffer_rgba())[..., :3] == (0, 0, 128)).all(axis=2).sum() > 500,
    )


def test_closing_the_window_ends_the_program(display, tmp_path):
    program = tmp_path / "kite.py"
    program.write_text(
        "from ovlo import Sheet\nfrom ovlo.live.player import Player\n"
        "tick = Player.tick\n"
        "def soon(self):\n    tick(self)\n    if self.replay.is_over: self.screen.close()\n"
        "Player.tick = soon\n"
        "sheet = Sheet(300, 200)\nsheet.new_nib().forward(90)\nsheet.show(seconds=0.2)\nprint('went on')\n"
    )
    done = subprocess.run(
        [sys.executable, program],
        env=os.environ | {"DISPLAY": display, "MPLBACKEND": "TkAgg"},
        capture_output=True,
        text=True,
        timeout=60,
    )
    assert (done.returncode, done.stdout) == (0, "went on\n"), done.stderr


def test_without_a_screen_it_says_what_to_do_instead(tmp_path):
    program = tmp_path / "kite.py"
    program.write_text(
        "from ovlo import Sheet\nsheet = Sheet(300, 200)\nsheet.new_nib().forward(9)\nsheet.show()\n"
    )
    bare = {name: value for name, value in os.environ.items() if name not in ("DISPLAY", "WAYLAND_DISPLAY")}
    done = subprocess.run([sys.executable, program], env=bare, capture_output=True, text=True, timeout=60)
    assert done.returncode == 1
    last = done.stderr.splitlines()[-1]
    assert "NoDisplay: show: there is no screen" in last
    assert "sheet.save" in last
    assert "ovlo animate" in last


def test_a_replay_of_no_time_is_an_error():
    with pytest.raises(BadValue, match="at_once=True"):
        harbour_kite().show(seconds=0)
    with pytest.raises(BadValue, match="not both"):
        harbour_kite().show(seconds=1, steps_per_second=3)


def test_the_clock_of_a_replay_holds_at_pauses():
    sheet = Sheet(100, 100)
    nib = sheet.new_nib()
    nib.forward(10)
    nib.pause(5)
    nib.forward(10)
    nib.forward(10)
    replay = Replay(sheet._columns, seconds=4)
    replay.play(now=100)
    steps = []
    for moment in (100.5, 101, 102.1, 106.9, 108, 109.1):
        replay.tick(moment)
        steps.append(replay.steps)
    assert steps == [0, 1, 2, 2, 3, 4]
    assert not replay.is_playing
