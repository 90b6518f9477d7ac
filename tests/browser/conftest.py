from __future__ import annotations

import os
import subprocess
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest


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

    def until(self, holds: Callable[[Any], Any], seconds: float = 20) -> Any:
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
        process.kill()
        process.communicate()
    assert [entry["message"] for entry in chromium.get_log("browser")] == []
