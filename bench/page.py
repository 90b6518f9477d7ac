"""The page, in a headless Chromium: what a frame takes, a first picture, a step back, a value, a saved file.

    for measured in page.measured(): print(measured.row())

A canvas may put its work off until its pixels are needed, so every timing reads one back.
"""

from __future__ import annotations

import os
import shutil
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

from bench.harness import Measured, Ratio, seconds
from ovlo import Sheet

OVLO = Path(sys.executable).with_name("ovlo")
FRAME = 1 / 60
SWITCHES = "--headless=new --no-sandbox --disable-gpu --disable-background-networking"

STEPS = 100_000

TIMED = """
const canvas = document.getElementById("canvas");
const context = canvas.getContext("2d");
function timed(work) {
  const begin = performance.now();
  work();
  context.getImageData(0, 0, 1, 1);
  return (performance.now() - begin) / 1000;
}
"""

FRAMES = """
const taken = [];
const frames = 240;
ovlo.showStep(-1);
for (let i = 1; i <= frames; i++) {
  taken.push(timed(() => ovlo.showStep(Math.round((ovlo.stepCount * i) / frames) - 1)));
}
return taken;
"""

BARE = """
const [count, isColoured] = arguments;
const bare = document.createElement("canvas");
[bare.width, bare.height] = [canvas.width, canvas.height];
const target = bare.getContext("2d");
const [x, y] = [new Float64Array(count + 1), new Float64Array(count + 1)];
let heading = 0;
[x[0], y[0]] = [bare.width / 2, bare.height / 2];
for (let i = 0; i < count; i++) {
  x[i + 1] = x[i] + 1.5 * Math.cos(heading);
  y[i + 1] = y[i] + 1.5 * Math.sin(heading);
  heading += (i % 7) - 3 + i * 1e-6;
}
const begin = performance.now();
target.lineWidth = 2;
const chunk = isColoured ? 1 : 800;
for (let i = 0; i < count; i += chunk) {
  if (isColoured) target.strokeStyle = `rgb(${i % 256} ${(i >> 8) % 256} 90)`;
  target.beginPath();
  target.moveTo(x[i], y[i]);
  for (let n = i + 1; n <= Math.min(i + chunk, count); n++) target.lineTo(x[n], y[n]);
  target.stroke();
}
target.getImageData(0, 0, 1, 1);
return (performance.now() - begin) / 1000;
"""


def measured() -> Iterator[Measured]:
    """All rows; without a browser none."""
    programs = shutil.which("chromium"), shutil.which("chromedriver")
    if None in programs:
        print("chromium and chromedriver are not installed: the page is not measured")
        return
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        browser = _browser(programs, folder)
        try:
            for rows in (_frames, _first_pictures, _step_back, _live, _writing, _edits, _idle, _reloads):
                yield from rows(browser, folder)
        finally:
            browser.quit()


def _browser(programs: tuple[str | None, ...], folder: Path) -> Any:
    from selenium import webdriver
    from selenium.webdriver.chrome.service import Service

    options = webdriver.ChromeOptions()
    options.binary_location = programs[0] or ""
    for option in (*SWITCHES.split(), f"--user-data-dir={folder}/profile", "--enable-precise-memory-info"):
        options.add_argument(option)
    browser = webdriver.Chrome(options=options, service=Service(programs[1]))
    browser.set_window_size(1280, 800)
    browser.set_script_timeout(60)
    return browser


def _row(what: str, floor_name: str, at_most: float, floor: float, ours: float) -> Measured:
    def nothing() -> None:
        """Both sides are measured elsewhere."""

    return Measured(Ratio(what, floor_name, at_most, nothing, nothing), floor, ours)


def _open(browser: Any, folder: Path, sheet: Sheet) -> None:
    sheet.save(folder / "page.html")
    browser.get("about:blank")
    browser.get((folder / "page.html").as_uri())
    browser.execute_async_script("ovlo.ready.then(() => arguments[0]())")


# ── drawing ───────────────────────────────────────────────────────────────────────────────────────────────


def _walked(count: int, change: Callable[[Any, int], object] = lambda nib, i: None) -> Sheet:
    """A long way that stays on its sheet."""
    sheet = Sheet(1000, 700)
    nib = sheet.new_nib()
    for i in range(count):
        change(nib, i)
        nib.forward(1.5)
        nib.left((i % 7 - 3) * 57 + i * 6e-5)
    return sheet


def _coloured(nib: Any, i: int) -> None:
    nib.ink = f"rgb({i % 256} {i // 256 % 256} 90)"


def _styled(**style: Any) -> Sheet:
    def change(nib: Any, i: int) -> None:
        if not i:
            for name, value in style.items():
                setattr(nib, name, value)

    return _walked(STEPS, change)


def _areas() -> Sheet:
    sheet = Sheet(1000, 700, seed=3)
    nib = sheet.new_nib()
    for _ in range(5_000):
        nib.travel_to(sheet.dice.point(20))
        nib.polygon(20, radius=12, fill="tomato")
    return sheet


def _two_nibs() -> Sheet:
    sheet = Sheet(1000, 700)
    nibs = [sheet.new_nib(-200), sheet.new_nib(200)]
    for i in range(STEPS):
        nib = nibs[i % 2]
        nib.forward(1.5)
        nib.left((i % 7 - 3) * 57 + i * 6e-5)
    return sheet


def _frames(browser: Any, folder: Path) -> Iterator[Measured]:
    scenes = {
        "one ink": lambda: _walked(STEPS),
        "translucent": lambda: _styled(ink="#0a70a060"),
        "dashed": lambda: _styled(line_dash=(6, 4)),
        "a colour a step": lambda: _walked(STEPS, _coloured),
        "5,000 areas": _areas,
        "two nibs in turns": _two_nibs,
    }
    for name, scene in scenes.items():
        _open(browser, folder, scene())
        taken = sorted(browser.execute_script(TIMED + FRAMES))
        late = taken[len(taken) * 95 // 100]
        yield _row(f"page: work in a frame, 95th of 240, {name}", "a frame", 8 / 16.7, FRAME, late)


def _first_pictures(browser: Any, folder: Path) -> Iterator[Measured]:
    for name, is_coloured in (("one ink", False), ("an ink a step", True)):
        count = 1_000_000
        _open(browser, folder, _walked(count, _coloured) if is_coloured else _walked(count))
        browser.execute_script("ovlo.showStep(-1)")
        floors, ours = [], []
        for _ in range(3):
            floors.append(browser.execute_script(TIMED + BARE, count, is_coloured))
            work = "ovlo.showStep(-1); return timed(() => ovlo.showStep(ovlo.stepCount - 1))"
            ours.append(browser.execute_script(TIMED + work))
        yield _row(
            f"page: first picture of {count:,} steps, {name}",
            "a bare canvas, chunked",
            1.5,
            statistics.median(floors),
            statistics.median(ours),
        )


def _step_back(browser: Any, folder: Path) -> Iterator[Measured]:
    _open(browser, folder, _walked(STEPS))
    work = "return [1, 2, 3, 4, 5].map((n) => timed(() => ovlo.showStep(ovlo.stepCount - 1 - n)))"
    taken = browser.execute_script(TIMED + work)
    yield _row("page: one step back at 100,000 steps", "a frame", 6, FRAME, statistics.median(taken))


# ── a program explored ────────────────────────────────────────────────────────────────────────────────────

PROGRAM = """\
from typing import Annotated
from ovlo import Span, drawing

@drawing(width=1000, height=700)
def walk(nib, turn: Annotated[float, Span(80, 100)] = 89):
    for i in range(1000):
        nib.forward(i / 4)
        nib.left(turn)
"""

UNTIL_SHOWN = """
const done = arguments[1];
const shown = document.getElementById("values");
const begin = performance.now();
new MutationObserver((_, observer) => {
  if (!shown.textContent.includes(`turn=${arguments[0]}`)) return;
  observer.disconnect();
  requestAnimationFrame(() => setTimeout(() => done((performance.now() - begin) / 1000)));
}).observe(shown, { childList: true, characterData: true, subtree: true });
"""
"""Calls back with the seconds until the page shows a value."""

MOVE = (
    UNTIL_SHOWN
    + """
const control = document.getElementById("value-turn");
control.value = arguments[0];
control.dispatchEvent(new Event("input", { bubbles: true }));
"""
)

PAUSE = 0.15
"""Seconds after the last key before anything is drawn."""

TYPE = (
    UNTIL_SHOWN
    + """
const text = ovlo.editor.state.doc.toString();
const from = text.indexOf("] = ") + 4;
ovlo.editor.dispatch({ changes: { from, to: text.indexOf("):", from), insert: arguments[0] } });
"""
)

TURN = """
const [wait, done] = arguments;
const { editor } = ovlo;
editor.focus();
editor.dispatch({ selection: { anchor: editor.state.doc.toString().indexOf("i / 4") + 5 } });
let pictures = 0;
const seen = new MutationObserver((found) => (pictures += found.length > 0 ? 1 : 0));
setTimeout(() => {
  seen.observe(document.getElementById("title"), { childList: true });
  const end = performance.now() + wait;
  const turn = () => {
    const key = { key: ".", code: "Period", keyCode: 190, altKey: true, bubbles: true, cancelable: true };
    editor.contentDOM.dispatchEvent(new KeyboardEvent("keydown", key));
    if (performance.now() < end) setTimeout(turn, 30);
    else done(pictures);
  };
  turn();
}, 500);
"""

WATCHED = """
window.shownAt = 0;
const shown = document.getElementById("values");
new MutationObserver((_, observer) => {
  if (!shown.textContent.includes(`turn=${arguments[0]}`)) return;
  observer.disconnect();
  requestAnimationFrame(() => setTimeout(() => (window.shownAt = Date.now() / 1000)));
}).observe(shown, { childList: true, characterData: true, subtree: true });
"""


class _Live:
    """`ovlo live` on a program, and the browser on its page."""

    def __init__(self, browser: Any, folder: Path) -> None:
        self.browser = browser
        self.file = folder / "walk.py"
        self.file.write_text(PROGRAM)
        command = [str(OVLO), "live", str(self.file), "--no-open"]
        self.process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True)
        assert self.process.stdout is not None
        browser.get(self.process.stdout.readline().split()[1])
        while "ovlo" not in browser.execute_script("return Object.keys(window).join(' ')"):
            time.sleep(0.005)
        browser.execute_async_script("ovlo.ready.then(() => arguments[0]())")

    def end(self) -> None:
        """Close the page."""
        self.browser.get("about:blank")
        self.process.terminate()
        self.process.wait()


def _own_run() -> float:
    """What the program takes by itself, with its lines recorded."""
    from ovlo.program.lines import recorded_lines

    values: dict[str, Any] = {}
    exec(PROGRAM, values)
    return statistics.median(
        seconds(lambda: recorded_lines(lambda: values["walk"].run(turn=91))) for _ in range(7)
    )


def _live(browser: Any, folder: Path) -> Iterator[Measured]:
    floors, ours = [], []
    for _ in range(5):
        browser.get("about:blank")
        bare = [sys.executable, "-c", "import numpy, click"]
        floors.append(seconds(lambda bare=bare: subprocess.run(bare, check=True)))  # type: ignore[misc]
        begin = time.perf_counter()
        live = _Live(browser, folder)
        ours.append(time.perf_counter() - begin)
        live.end()
    yield _row(
        "page: ovlo live to picture",
        "python -c 'import numpy, click'",
        4,
        statistics.median(floors),
        statistics.median(ours),
    )
    own = _own_run()
    live = _Live(browser, folder)
    moved = [browser.execute_async_script(MOVE, f"{85 + n}") - own for n in range(9)]
    yield _row("page: slider to picture, beyond the run", "50 ms", 1, 0.05, statistics.median(moved))
    browser.execute_script("document.getElementById('reset-values').click()")
    saved = []
    for n in range(7):
        browser.execute_script(WATCHED, f"{81 + n}.5")
        live.file.write_text(PROGRAM.replace("= 89", f"= {81 + n}.5"))
        begin = time.time()
        while not (shown := browser.execute_script("return window.shownAt")):
            time.sleep(0.01)
        saved.append(shown - begin - own)
    yield _row("page: save to picture, beyond the run", "150 ms", 1, 0.15, statistics.median(saved))
    live.end()


def _writing(browser: Any, folder: Path) -> Iterator[Measured]:
    own = _own_run()
    live = _Live(browser, folder)
    time.sleep(2)  # the second process is ready by then
    typed = [browser.execute_async_script(TYPE, f"{81 + n}.5") - own - PAUSE for n in range(9)]
    yield _row("page: last key to picture, beyond pause and run", "60 ms", 1, 0.06, statistics.median(typed))
    pictures = browser.execute_async_script(TURN, 3000)
    yield _row("page: a number turned, 1,000 steps, a picture", "1/20 s", 1, 0.05, 3 / max(pictures, 1))
    live.end()


def _edits(browser: Any, folder: Path) -> Iterator[Measured]:
    live = _Live(browser, folder)
    used = []
    for n in range(100):
        browser.execute_async_script(TYPE, f"{80 + n % 19}.25")
        browser.execute_script(
            "document.dispatchEvent(new KeyboardEvent('keydown', { key: 's', ctrlKey: true, bubbles: true }))"
        )
        if n in (9, 99):
            time.sleep(1)
            used.append(_memory(browser, live.process.pid))
    written = live.file.read_text()
    live.end()
    assert f"= {80 + 99 % 19}.25" in written, written
    yield _row("page: memory after 100 edits and saves (MB)", "after 10", 1.2, used[0] / 1e9, used[1] / 1e9)


def _memory(browser: Any, process: int) -> int:
    """Bytes of the page's heap and of a process of ours."""
    browser.execute_cdp_cmd("HeapProfiler.collectGarbage", {})
    heap: int = browser.execute_script("return performance.memory.usedJSHeapSize")
    status = Path(f"/proc/{process}/statm").read_text().split()
    return heap + int(status[1]) * os.sysconf("SC_PAGE_SIZE")


def _idle(browser: Any, folder: Path) -> Iterator[Measured]:
    browser.get("about:blank")
    blank = _used(browser, None, 30)
    live = _Live(browser, folder)
    ours = _used(browser, live.process.pid, 30)
    live.end()
    yield _row("page: processor in 30 s idle, beyond a blank page", "0.2 s", 1, 0.2, ours - blank)


def _used(browser: Any, process: int | None, wait: float) -> float:
    """Seconds of processor that the browser and a process of ours, with their children, take in some time."""
    time.sleep(1)
    roots = [browser.service.process.pid, *([process] if process else [])]
    before = _processor(roots)
    time.sleep(wait)
    return _processor(roots) - before


def _processor(roots: list[int]) -> float:
    parents, taken = {}, {}
    for status in Path("/proc").glob("[0-9]*/stat"):
        try:
            fields = status.read_text().rpartition(")")[2].split()
        except OSError:
            continue
        number = int(status.parent.name)
        parents[number], taken[number] = int(fields[1]), int(fields[11]) + int(fields[12])
    family = set(roots)
    while more := {number for number, parent in parents.items() if parent in family} - family:
        family |= more
    return sum(taken.get(number, 0) for number in family) / os.sysconf("SC_CLK_TCK")


def _reloads(browser: Any, folder: Path) -> Iterator[Measured]:
    live = _Live(browser, folder)
    used = []
    for n in range(100):
        browser.refresh()
        browser.execute_async_script("ovlo.ready.then(() => arguments[0]())")
        browser.execute_async_script(MOVE, f"{80 + n % 20}.25")
        if n in (9, 99):
            used.append(_memory(browser, live.process.pid))
    live.end()
    # In seconds' place stand gigabytes.
    yield _row("page: memory after 100 reloads (MB)", "after 10", 1.2, used[0] / 1e9, used[1] / 1e9)
