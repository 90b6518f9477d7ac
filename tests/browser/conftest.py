from __future__ import annotations

import shutil
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest

OPTIONS = ("--headless=new", "--no-sandbox", "--disable-gpu", "--disable-background-networking")


@pytest.fixture(scope="session")
def chromium(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Any]:
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
