"""Redraw the pictures in docs from the examples."""

from __future__ import annotations

import html
import shlex
import shutil
import subprocess
import sys
import tempfile
import textwrap
from pathlib import Path
from typing import Any

from selenium.webdriver.support.ui import WebDriverWait

ROOT = Path(__file__).parents[1]
SCREENSHOTS = ROOT / "docs" / "screenshots"
OVLO = Path(sys.executable).with_name("ovlo")

COMMANDS = {
    "first_kite": ["draw", "examples/first_kite.py"],
    "row_of_kites": ["draw", "examples/row_of_kites.py"],
    "harbour": ["draw", "examples/harbour.py", "--seed", "4"],
    "six_polygons": ["vary", "examples/polygon.py", "--values", "sides=3..8"],
    "twelve_seeds": ["vary", "examples/field_of_kites.py", "--values", "seed=1..12"],
    "overlays": [
        "draw",
        "docs/triangle.py",
        "--overlay",
        "grid,angles,steps,pointer,findings",
        "--scale",
        "1.6",
    ],
    "difference": ["compare", "examples/star_twice.py:walked", "examples/star_twice.py:by_corners"],
    "plot": [
        *("plot", "examples/harbour.py", "--seed", "4", "--page-size", "A4", "--landscape", "--fit"),
        *("--hatch", "concentric", "--hatch-spacing", "1.3mm"),
    ],
    "motif_spirals": ["vary", "examples/motif_spiral.py", "--values", "depth=0,1,2,3,4,100"],
}


TERMINALS = {
    "terminal_draw": [
        "ovlo draw kite.py --list",
        "ovlo draw kite.py --set sides=5 -o kite.svg -o kite.png",
        "ovlo vary kite.py --values sides=3..8 -o six.png",
        "ovlo animate kite.py --seconds 2 -o kite.gif",
        "ovlo draw slip.py",
    ],
    "terminal_check": ["ovlo check inner_angle.py", "ovlo compare kite.py slow_kite.py"],
    "terminal_steps": ["ovlo steps kite.py --set sides=3", "ovlo steps kite.py --calls"],
    "terminal_plot": ["ovlo plot kite.py --page-size A5 --hatch-spacing 1mm -o kite.gcode", "ovlo demo demo"],
}
"""What is typed in the pictures of terminals; the programs are those of `_programs`."""

TERMINAL = """<!doctype html><meta charset="utf-8"><style>
body { margin: 0; background: #14262e; color: #eef4f2; font: 15px/1.45 "DejaVu Sans Mono", monospace; }
pre { margin: 0; padding: 20px 24px; white-space: pre-wrap; }
b { color: #7fd1c1; font-weight: normal; }
</style><pre>"""


def main() -> None:
    """Run each command, and the page in a browser."""
    for name, command in COMMANDS.items():
        picture = SCREENSHOTS / f"{name}.png"
        subprocess.run([OVLO, *command, "-o", picture], check=True, cwd=ROOT)
    film = [
        "animate",
        "examples/endless_knot.py",
        *("--seconds", "6", "--fps", "16", "--hold", "2", "--scale", "0.3"),
    ]
    subprocess.run([OVLO, *film, "-o", SCREENSHOTS / "endless_knot.gif"], check=True, cwd=ROOT)
    social = ["draw", "docs/social.py", "-o", ROOT / "docs" / "static" / "social.png"]
    subprocess.run([OVLO, *social], check=True, cwd=ROOT)
    take_page_shots()


def take_page_shots() -> None:
    """The page in a browser: as a file, light and dark, as variations, and exploring a program."""
    programs = shutil.which("chromium"), shutil.which("chromedriver")
    if None in programs:
        print("chromium is not installed: the pictures of the page stay as they are")
        return
    from selenium import webdriver
    from selenium.webdriver.chrome.service import Service

    with tempfile.TemporaryDirectory() as folder:
        options = webdriver.ChromeOptions()
        options.binary_location = programs[0]
        switches = "--headless=new --no-sandbox --disable-gpu --disable-background-networking"
        for option in (*switches.split(), f"--user-data-dir={folder}/profile"):
            options.add_argument(option)
        browser = webdriver.Chrome(options=options, service=Service(programs[1]))
        size = {"width": 1280, "height": 800, "deviceScaleFactor": 1, "mobile": False}
        browser.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", size)
        browser.set_script_timeout(60)
        try:
            _take_terminals(browser, Path(folder))
            _take_files(browser, Path(folder))
            _take_live(browser)
            _take_studio(browser, Path(folder))
        finally:
            browser.quit()


def _take_terminals(browser: Any, folder: Path) -> None:
    """What commands print, typed one after the other."""
    for name, code in _programs().items():
        (folder / name).write_text(code)
    for picture, commands in TERMINALS.items():
        shown = [TERMINAL]
        for command in commands:
            words = [OVLO, *shlex.split(command)[1:]]
            done = subprocess.run(
                words, cwd=folder, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True, check=False
            )
            shown.append(f"<b>$ {html.escape(command)}</b>\n{html.escape(_short(done.stdout))}\n")
        page = folder / f"{picture}.html"
        page.write_text("".join(shown))
        browser.get(page.as_uri())
        _shoot(browser, picture)


def _short(said: str) -> str:
    """What a command printed, the middle of long lists left out."""
    lines = said.splitlines(keepends=True)
    return said if len(lines) <= MOST_LINES else "".join([*lines[:7], "…\n", *lines[-4:]])


MOST_LINES = 24


def _programs() -> dict[str, str]:
    """The programs that the terminals run."""
    kite = textwrap.dedent('''
        from typing import Annotated
        from ovlo import Colour, Span, drawing

        def tail(nib, bows):
            for i in range(bows):
                nib.forward(12)
                nib.right(8)

        @drawing(width=400, height=400, paper="aliceblue")
        def kite(nib, sides: Annotated[int, Span(3, 12)] = 4, fill: Colour = "tomato"):
            """A kite with a tail."""
            nib.polygon(sides, radius=80, turn=90, fill=fill)
            nib.travel_to(0, -80)
            nib.turn_to(270)
            tail(nib, 6)
    ''').lstrip()
    return {
        "kite.py": kite,
        "slow_kite.py": kite.replace("turn=90", "turn=60"),
        "slip.py": kite.replace("nib.polygon(sides, radius=80", "nib.polygon(sides, 80"),
        "inner_angle.py": textwrap.dedent("""
            from ovlo import drawing

            @drawing
            def pentagon(nib):
                for _ in range(5):
                    nib.forward(80)
                    nib.left(108)
                nib.ink = "white"
                nib.line_to(0, 200)
        """).lstrip(),
    }


def _take_files(browser: Any, folder: Path) -> None:
    page, pages = folder / "harbour.html", folder / "knots.html"
    subprocess.run([OVLO, "draw", "examples/harbour.py", "--seed", "4", "-o", page], check=True, cwd=ROOT)
    values = ["--values", "loops=5,7,8,11", "--values", "rope=6,9.5,13"]
    subprocess.run([OVLO, "vary", "examples/endless_knot.py", *values, "-o", pages], check=True, cwd=ROOT)
    _take(browser, f"{page.as_uri()}#step=1120", "page")
    dark = {"features": [{"name": "prefers-color-scheme", "value": "dark"}]}
    browser.execute_cdp_cmd("Emulation.setEmulatedMedia", dark)
    _take(browser, f"{page.as_uri()}#step=700", "page_dark")
    browser.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": []})
    _take(browser, pages.as_uri(), "vary_page")


def _take_live(browser: Any) -> None:
    """A knot explored: some values kept, others set."""
    command = [OVLO, "live", "examples/endless_knot.py", "--no-open"]
    with subprocess.Popen(command, cwd=ROOT, stdout=subprocess.PIPE, text=True) as process:
        try:
            assert process.stdout is not None
            browser.get(process.stdout.readline().split()[1])
            for loops, is_kept in ((5, True), (8, True), (11, True), (7, False)):
                _until(browser, "value-loops", "")
                browser.execute_script(
                    "const one = document.getElementById('value-loops'); one.value = arguments[0];"
                    "one.dispatchEvent(new Event('input', { bubbles: true }));",
                    loops,
                )
                _until(browser, "values", f"loops={loops},")
                if is_kept:
                    browser.find_element("id", "keep-values").click()
            _shoot(browser, "live")
        finally:
            process.terminate()


ROSETTE = """\
from ovlo import drawing


@drawing(paper="midnightblue")
def rosette(nib, petals=14):
    \"\"\"Petals around the bay's compass.\"\"\"
    nib.ink = "gold"
    for _ in nib.full_turn(petals):
        with nib.returning():
            nib.travel(105)
            nib.circle(80, fill="tomato")
"""


def _take_studio(browser: Any, folder: Path) -> None:
    """A rosette that is written, with the dial at one of its numbers."""
    program = folder / "rosette.py"
    program.write_text(ROSETTE)
    command = [OVLO, "live", program, "--no-open"]
    with subprocess.Popen(command, cwd=folder, stdout=subprocess.PIPE, text=True) as process:
        try:
            assert process.stdout is not None
            browser.get(process.stdout.readline().split()[1])
            _until(browser, "values", "petals=14")
            browser.execute_script(
                "const at = ovlo.editor.state.doc.toString().indexOf('circle(8') + 8;"
                "ovlo.editor.focus(); ovlo.editor.dispatch({ selection: { anchor: at } });"
            )
            WebDriverWait(browser, 20).until(
                lambda page: len(page.find_elements("css selector", ".dial button:enabled")) == 2
            )
            _shoot(browser, "studio")
        finally:
            process.terminate()


def _until(browser: Any, part: str, words: str) -> None:
    """Wait until a part of the page is there and holds these words."""
    WebDriverWait(browser, 20).until(
        lambda page: any(words in one.text for one in page.find_elements("id", part))
    )


def _take(browser: Any, address: str, name: str) -> None:
    browser.get("about:blank")
    browser.get(address)
    browser.execute_async_script("ovlo.ready.then(() => arguments[0]())")
    _shoot(browser, name)


def _shoot(browser: Any, name: str) -> None:
    # What stands still is painted finer after a moment.
    browser.execute_async_script("setTimeout(arguments[0], 900)")
    browser.save_screenshot(str(SCREENSHOTS / f"{name}.png"))


if __name__ == "__main__":
    main()
