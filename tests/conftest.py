from __future__ import annotations

import shutil
import subprocess
import sys
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest
from hypothesis import settings

from ovlo import Nib, Sheet

settings.register_profile("quick", max_examples=60, deadline=None)
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
