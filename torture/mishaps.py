"""What goes wrong around programs: crashes side by side, full disks, one file saved twice, two tabs.

crashed(7)     # "" or what is wrong
"""

from __future__ import annotations

import asyncio
import json
import random
import re
import shlex
import subprocess
import tempfile
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path

from tornado.httpclient import HTTPRequest
from tornado.websocket import WebSocketClientConnection, websocket_connect

from torture.kills import OVLO, is_whole

CRASHING = """\
import ctypes, time
from ovlo import drawing

@drawing(width=400, height=300)
def kites(nib):
    for i in range({steps}):
        nib.forward(3 + i % 90)
        nib.left(91)
    time.sleep(2.5)  # what lasts longer is kept on the way
    ctypes.string_at(0)
"""

KITES = """\
from ovlo import drawing

@drawing(width=400, height=300)
def kites(nib, sides=4, count={count}):
    for i in range(count):
        nib.polygon(sides, radius=9 + i % 90)
        nib.forward(7)
        nib.left(91)
"""

COMMANDS = (
    "draw kites.py -o target.svg", "draw kites.py -o target.png", "draw kites.py -o target.pdf",
    "draw kites.py -o target.html", "vary kites.py --values sides=3..6 -o target.svg",
    "vary kites.py --values sides=3..6 -o target.html", "vary kites.py --values sides=3..6 -o target.pdf",
    "animate kites.py -o target.gif", "animate kites.py -o target.svg",
    "plot kites.py -o target.gcode", "plot kites.py -o target.svg", "check kites.py -o target.html",
    "steps kites.py --csv > target.csv", "steps kites.py > target.txt",
    "draw kites.py --list > target.txt", "check kites.py --json > target.json", "--help > target.txt",
)  # fmt: skip
"""Every way a command writes, into a file of its own or into what is printed."""

BLOCK = 1024
"""The bytes that `ulimit -f` counts in."""


@contextmanager
def _folder(source: str) -> Iterator[Path]:
    with tempfile.TemporaryDirectory(prefix="kite-") as name:
        (Path(name) / "kites.py").write_text(source)
        yield Path(name)


def crashed(seed: int) -> str:
    """Crash three programs and draw a fourth at once: each keeps its picture, and nothing is left over."""
    steps = random.Random(seed).randint(1, 3000)
    with _folder(CRASHING.format(steps=steps)) as folder:
        (folder / "other.py").write_text(KITES.format(count=50))
        names = ["kites.py -o 0.svg", "kites.py -o 1.svg", "kites.py -o 2.svg", "other.py -o 3.svg"]
        running = [_started(folder, f"draw {name}") for name in names]
        done = [(one.communicate(timeout=60)[1], one.returncode) for one in running]
        for number, (errors, status) in enumerate(done):
            if number < 3 and (status == 0 or "Traceback" in errors or "ended abruptly" not in errors):
                return f"the crash of {steps} steps says {errors!r} with status {status}"
            path = folder / f"{number}.svg"
            if not path.is_file() or not is_whole(path.read_bytes(), ".svg"):
                return f"no picture of {names[number]} after {steps} steps"
        return _left_over(folder, {"other.py", *(f"{number}.svg" for number in range(4))})


def full(number: int) -> str:
    """Fill the disk under a command: it says so in a sentence, and keeps an older file whole."""
    command, halvings = COMMANDS[number % len(COMMANDS)], number // len(COMMANDS)
    with _folder(KITES.format(count=300)) as folder:
        arguments, _, printed = command.partition(" > ")
        target = folder / (printed or arguments.rpartition(" ")[2])
        written = _after(folder, command, "")
        if written.returncode not in (0, 1) or not target.is_file():
            return f"{command}: {written.stderr}"
        # The largest limit that is still too small, and smaller ones.
        room = (target.stat().st_size - 1) // BLOCK >> halvings
        target.write_bytes(b"old")
        done = _after(folder, command, f"ulimit -f {room}; ")
        if done.returncode != 1 or "Traceback" in done.stderr or not done.stderr.strip():
            return f"{command} with room for {room} kB: status {done.returncode}, {done.stderr!r}"
        if not printed and target.read_bytes() != b"old":
            return f"{command} with room for {room} kB: {target.name} is torn"
        return _left_over(folder, {target.name})


def saved_twice(seed: int) -> str:
    """Save four pictures in one file at once: it is one of them, whole."""
    dice = random.Random(seed)
    ending = dice.choice(("svg", "png", "pdf", "html"))
    with _folder(KITES.format(count=dice.randint(10, 2000))) as folder:
        running = [_started(folder, f"draw kites.py --set sides={n} -o kites.{ending}") for n in (3, 4, 5, 6)]
        for one in running:
            errors = one.communicate(timeout=60)[1]
            if one.returncode != 0:
                return f"saving kites.{ending} four times: {errors}"
        content = (folder / f"kites.{ending}").read_bytes()
        alone = []
        for n in (3, 4, 5, 6):
            _after(folder, f"draw kites.py --set sides={n} -o kites.{ending}", "")
            alone.append((folder / f"kites.{ending}").read_bytes())
        if content not in alone:
            return f"kites.{ending} is none of the four pictures"
        return _left_over(folder, {f"kites.{ending}"})


def two_tabs(seed: int) -> str:
    """Turn values in two tabs by turns: both show the last one."""
    with _folder(KITES.format(count=20)) as folder:
        live = subprocess.Popen(
            [OVLO, "live", "kites.py", "--no-open"], cwd=folder, stdout=subprocess.PIPE, text=True
        )
        try:
            assert live.stdout is not None
            link = next(found for line in live.stdout if (found := re.search(r"http://\S+", line)))[0]
            return asyncio.run(asyncio.wait_for(_two_tabs(link, random.Random(seed)), 60))
        except TimeoutError:
            return "two tabs do not show one state"
        finally:
            live.terminate()
            live.communicate()


async def _two_tabs(link: str, dice: random.Random) -> str:
    found = re.search(r":(\d+)/enter\?key=([^&]+)&page=(\d+)", link)
    assert found is not None
    port, key, page = found.groups()
    headers = {"Cookie": f"ovlo-{port}={key}", "Origin": f"http://127.0.0.1:{port}"}
    address = HTTPRequest(f"ws://127.0.0.1:{port}/{page}/link", headers=headers)
    tabs = [await websocket_connect(address, max_message_size=2**28) for _ in range(2)]
    shown: list[int | None] = [None, None]
    for _ in range(6):
        # The first are overtaken by the last.
        for _ in range(3):
            await asyncio.sleep(dice.uniform(0, 0.1))
            wish = {"do": "values", "values": {"sides": str(dice.randint(3, 99))}, "seed": None}
            await dice.choice(tabs).write_message(json.dumps(wish))
        shown = [await _last_shown(tab, before) for tab, before in zip(tabs, shown, strict=True)]
        if shown[0] is None or shown[0] != shown[1]:
            return f"two tabs show {shown[0]} and {shown[1]} sides"
    for tab in tabs:
        tab.close()
    return ""


QUIET = 2.0
"""Seconds without a word after which a tab shows what it will show."""


async def _last_shown(tab: WebSocketClientConnection, found: int | None) -> int | None:
    """The value in the last picture that a tab gets, or the one found before."""
    while True:
        try:
            message = await asyncio.wait_for(tab.read_message(), QUIET)
        except TimeoutError:
            return found
        if isinstance(message, bytes):
            size = int.from_bytes(message[:4], "little")
            head = json.loads(message[4 : 4 + size])
            if head["kind"] == "drawing":
                found = head["parameters"]["sides"]


MISHAPS: dict[str, tuple[Callable[[int], str], int]] = {
    "crashes side by side": (crashed, 1),
    "full disks": (full, len(COMMANDS)),
    "files saved twice": (saved_twice, 1),
    "two tabs": (two_tabs, 1),
}
"""What is tried, and how many of it there are to one round."""


def _started(folder: Path, command: str) -> subprocess.Popen[str]:
    pipe = subprocess.PIPE
    return subprocess.Popen([OVLO, *shlex.split(command)], cwd=folder, stdout=pipe, stderr=pipe, text=True)


def _after(folder: Path, command: str, before: str) -> subprocess.CompletedProcess[str]:
    script = f"{before}{OVLO} {command}"
    return subprocess.run(["bash", "-c", script], cwd=folder, capture_output=True, text=True, timeout=120)


def _left_over(folder: Path, expected: set[str]) -> str:
    names = {path.name for path in folder.iterdir()} - {"__pycache__", "kites.py"}
    return "" if names == expected else f"the folder holds {sorted(names)}, not {sorted(expected)}"
