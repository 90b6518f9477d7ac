"""A virtual display for the real window."""

from __future__ import annotations

import os
import shutil
import subprocess
import time
from collections.abc import Callable, Iterator

import pytest

PATIENCE = 20.0


@pytest.fixture(scope="session")
def display() -> Iterator[str]:
    if shutil.which("Xvfb") is None:
        pytest.skip("Xvfb is not installed: there is no screen to open a window on")
    pytest.importorskip("tkinter", reason="this Python has no Tk")
    reading, writing = os.pipe()
    server = subprocess.Popen(
        ["Xvfb", "-displayfd", str(writing), "-screen", "0", "1280x800x24", "-dpi", "96", "-noreset"],
        pass_fds=[writing],
        stderr=subprocess.DEVNULL,
    )
    os.close(writing)
    with os.fdopen(reading) as lines:
        number = lines.readline().strip()
    yield f":{number}"
    server.terminate()
    server.wait(10)


@pytest.fixture
def window(display: str, monkeypatch: pytest.MonkeyPatch) -> Iterator[None]:
    import matplotlib
    from matplotlib import pyplot

    monkeypatch.setenv("DISPLAY", display)
    before = matplotlib.get_backend()
    matplotlib.use("TkAgg", force=True)
    yield
    pyplot.close("all")
    matplotlib.use(before, force=True)


@pytest.fixture
def until() -> Callable[..., None]:
    """Let the window live until something is so."""

    def wait(screen, is_so: Callable[[], object], what: str = "what was waited for") -> None:
        end = time.monotonic() + PATIENCE
        while not is_so():
            assert time.monotonic() < end, f"{what} did not come"
            if screen.is_open:
                screen.canvas.get_tk_widget().update()

    return wait


@pytest.fixture
def press() -> Callable[..., None]:
    """Press a key in a window, as the keyboard does."""

    def key(screen, keysym: str) -> None:
        widget = screen.canvas.get_tk_widget()
        widget.focus_force()
        widget.event_generate("<KeyPress>", keysym=keysym)
        widget.event_generate("<KeyRelease>", keysym=keysym)
        widget.update()

    return key
