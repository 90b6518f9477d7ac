from __future__ import annotations

import os
import shutil
import subprocess
import sys
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest
from hypothesis import settings

from ovlo import Nib, Sheet

settings.register_profile("quick", max_examples=40, deadline=None)
settings.load_profile("quick")

Command = Callable[..., subprocess.CompletedProcess[str]]

OPTIONS = ("--headless=new", "--no-sandbox", "--disable-gpu", "--disable-background-networking")


@pytest.fixture
def sheet() -> Sheet:
    return Sheet(640, 480, paper="aliceblue")


@pytest.fixture
def nib(sheet: Sheet) -> Nib:
    return sheet.new_nib()


@pytest.fixture
def ovlo_command(tmp_path: Path) -> Command:
    """The real command line, in a folder of the test's own."""

    def command(*arguments: object, keys: str = "") -> subprocess.CompletedProcess[str]:
        return subprocess.run(
            [Path(sys.executable).with_name("ovlo"), *map(str, arguments)],
            cwd=tmp_path,
            input=keys,
            capture_output=True,
            text=True,
            timeout=60,
        )

    return command


@pytest.fixture
def program(tmp_path: Path) -> Callable[..., Path]:
    """Write a user's program into the test's folder."""

    def write(source: str, name: str = "kite.py") -> Path:
        path = tmp_path / name
        path.write_text(source)
        return path

    return write


@pytest.fixture(scope="session")
def browser(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Any]:
    """One browser for all tests, with a profile of its own."""
    programs = shutil.which("chromium"), shutil.which("chromedriver")
    if None in programs:
        pytest.skip("chromium and chromedriver are not installed")
    from selenium import webdriver
    from selenium.webdriver.chrome.service import Service

    options = webdriver.ChromeOptions()
    options.binary_location = programs[0]
    for option in (*OPTIONS, f"--user-data-dir={tmp_path_factory.mktemp('profile')}"):
        options.add_argument(option)
    options.set_capability("goog:loggingPrefs", {"browser": "ALL"})
    driver = webdriver.Chrome(options=options, service=Service(programs[1]))
    driver.set_window_size(1280, 800)
    driver.set_script_timeout(60)
    yield driver
    driver.quit()


@pytest.fixture
def chromium(browser: Any) -> Any:
    """The browser on an empty page, with nothing said that an earlier test has caused."""
    browser.get("about:blank")
    browser.get_log("browser")
    return browser


@pytest.fixture
def opened(chromium: Any) -> Iterator[Callable[[Path], Any]]:
    """Open a page and wait for its picture; whatever the browser complains of fails the test."""
    from selenium.webdriver.support.ui import WebDriverWait

    def open_page(path: Path, link: str = "") -> Any:
        chromium.get("about:blank")
        chromium.get(f"{path.as_uri()}{link}")
        WebDriverWait(chromium, 30).until(lambda page: page.execute_script("return Boolean(window.ovlo)"))
        chromium.execute_async_script("ovlo.ready.then(() => arguments[0](), arguments[0])")
        return chromium

    yield open_page
    assert [entry["message"] for entry in chromium.get_log("browser")] == []


class Served:
    """A program whose page is served, and the browser that looks at it."""

    def __init__(self, process: subprocess.Popen[str], browser: Any) -> None:
        self.process, self.browser = process, browser

    def until(self, holds: Callable[[Any], Any], seconds: float = 40) -> Any:
        """Wait until something holds of the page."""
        from selenium.webdriver.support.ui import WebDriverWait

        return WebDriverWait(self.browser, seconds, 0.02).until(lambda page: holds(self))

    def part(self, name: str) -> Any:
        return self.browser.find_element("id", name)

    def now(self, words: str) -> Any:
        return self.browser.execute_script(f"return ovlo.{words}")

    def leave(self) -> int:
        """Close the page; the program ends."""
        self.browser.get("about:blank")
        return self.process.wait(15)


@pytest.fixture
def served(chromium: Any, tmp_path: Path) -> Iterator[Callable[..., Served]]:
    """Start a program that opens a page, and look at the page."""
    running: list[subprocess.Popen[str]] = []
    asked = tmp_path / "asked-for"
    opener = tmp_path / "browser"
    opener.write_text(f'#!/bin/sh\necho "$1" > {asked}.part && mv {asked}.part {asked}\n')
    opener.chmod(0o755)

    def start(*command: object, waits: bool = True) -> Served:
        asked.unlink(missing_ok=True)
        process = subprocess.Popen(
            [*map(str, command)],
            cwd=tmp_path,
            env=os.environ | {"BROWSER": f"{opener} %s"},
            stdin=subprocess.PIPE,
            stdout=subprocess.PIPE,
            stderr=subprocess.PIPE,
            text=True,
        )
        running.append(process)
        page = Served(process, chromium)
        page.until(lambda _: asked.exists() or process.poll() is not None)
        assert process.poll() is None, process.communicate()
        chromium.get("about:blank")
        chromium.get(asked.read_text().strip())
        page.until(lambda page: page.browser.execute_script("return Boolean(window.ovlo)"))
        if waits:
            chromium.execute_async_script("ovlo.ready.then(() => arguments[0](), arguments[0])")
        return page

    yield start
    chromium.get("about:blank")
    for process in running:
        process.terminate()
        try:
            process.communicate(timeout=5)
        except subprocess.TimeoutExpired:
            process.kill()
            process.communicate()
    assert [entry["message"] for entry in chromium.get_log("browser")] == []
