"""Redraw the pictures in docs from the examples and the guide pages."""

from __future__ import annotations

import os
import re
import shutil
import subprocess
import sys
import tempfile
from pathlib import Path

from ovlo import Sheet

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
    "motif_spirals": ["vary", "examples/motif_spiral.py", "--values", "depth=0,1,2,3,4,100"],
}


def main() -> None:
    """Run each command, and each example of the guide pages."""
    for name, command in COMMANDS.items():
        picture = SCREENSHOTS / f"{name}.png"
        subprocess.run([OVLO, *command, "-o", picture], check=True, cwd=ROOT)
    film = [
        "animate",
        "examples/first_kite.py",
        "--seconds",
        "3",
        "--fps",
        "20",
        "--pointer",
        "--scale",
        "0.75",
    ]
    subprocess.run([OVLO, *film, "-o", SCREENSHOTS / "first_kite.gif"], check=True, cwd=ROOT)
    if shutil.which("xvfb-run"):
        display = ["xvfb-run", "-a", "-s", "-screen 0 1280x800x24 -dpi 96"]
        shots = [sys.executable, "docs/take_window_shots.py", SCREENSHOTS]
        subprocess.run([*display, *shots], check=True, cwd=ROOT)
    else:
        print("xvfb-run is not installed: the pictures of the window stay as they are")
    take_page_shot()
    os.chdir(ROOT)
    draw_page(ROOT / "docs" / "motifs.md", ROOT / "docs")


def take_page_shot() -> None:
    """The page of the harbour, half drawn, in a browser."""
    programs = shutil.which("chromium"), shutil.which("chromedriver")
    if None in programs:
        print("chromium is not installed: the picture of the page stays as it is")
        return
    from selenium import webdriver
    from selenium.webdriver.chrome.service import Service

    with tempfile.TemporaryDirectory() as folder:
        page = Path(folder) / "harbour.html"
        subprocess.run([OVLO, "draw", "examples/harbour.py", "--seed", "4", "-o", page], check=True, cwd=ROOT)
        options = webdriver.ChromeOptions()
        options.binary_location = programs[0]
        switches = "--headless=new --no-sandbox --disable-gpu --disable-background-networking"
        for option in (*switches.split(), f"--user-data-dir={folder}/profile", "--window-size=1280,900"):
            options.add_argument(option)
        browser = webdriver.Chrome(options=options, service=Service(programs[1]))
        browser.get(f"{page.as_uri()}#step=1120")
        browser.set_script_timeout(60)
        browser.execute_async_script("ovlo.ready.then(() => requestAnimationFrame(arguments[0]))")
        browser.save_screenshot(str(SCREENSHOTS / "page.png"))
        browser.quit()


def draw_page(page: Path, folder: Path) -> list[Path]:
    """Run the examples of a page; each `picture` is saved where the line after it says."""
    values: dict[str, object] = {}
    drawn = []
    for code, target in re.findall(r"```python\n(.*?)```\n(?:!\[.*?\]\((.*?)\))?", page.read_text(), re.S):
        exec(code, values)
        if target:
            drawn.append(folder / target)
            picture = values["picture"]
            if isinstance(picture, Sheet):
                picture.title = drawn[-1].stem
            picture.save(drawn[-1])  # type: ignore[attr-defined]
    return drawn


if __name__ == "__main__":
    main()
