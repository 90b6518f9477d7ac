"""The guide, built and opened: nothing on it is dead or missing, and its search works without a server."""

from __future__ import annotations

import subprocess
import sys
from html.parser import HTMLParser
from pathlib import Path
from urllib.parse import unquote, urlsplit

import pytest
from selenium.webdriver.support.ui import WebDriverWait

pytest.importorskip("furo", reason="the guide needs pip install '.[guide]'")

DOCS = Path(__file__).parents[1] / "docs"


def built(folder):
    """The guide as a site, without what takes longest; a warning is an error."""
    options = ["-W", "--keep-going", "-q", "-j", "2", "-D", "is_fast=1"]
    command = [sys.executable, "-m", "sphinx", *options, DOCS, folder]
    done = subprocess.run(command, capture_output=True, text=True)
    assert (done.returncode, done.stderr) == (0, "")
    return folder


class Page(HTMLParser):
    """What a page points at, and what may be pointed at in it."""

    def __init__(self, path):
        super().__init__()
        self.targets, self.names = [], set()
        self.feed(path.read_text())

    def handle_starttag(self, tag, attrs):
        found = dict(attrs)
        self.names.update(found[key] for key in ("id", "name") if found.get(key))
        self.targets += [found[key] for key in ("href", "src") if found.get(key)]


@pytest.mark.long
def test_the_guide_is_whole_and_its_search_works_without_a_server(tmp_path, chromium):
    site = built(tmp_path / "site")
    assert dead_links(site) == []
    search(site, chromium)


def dead_links(site):
    pages = {path: Page(path) for path in site.rglob("*.html")}
    assert len(pages) > 60
    dead = []
    for path, page in pages.items():
        for target in page.targets:
            parts = urlsplit(target)
            if parts.scheme or parts.netloc or target.startswith(("#", "data:")):
                continue
            there = (path.parent / unquote(parts.path)).resolve() if parts.path else path
            is_named = not parts.fragment or there not in pages or parts.fragment in pages[there].names
            if not there.exists() or not is_named:
                dead.append((path.relative_to(site).as_posix(), target))
    return dead


def search(site, chromium):
    chromium.get(f"{(site / 'search.html').as_uri()}?q=full_turn")
    links = WebDriverWait(chromium, 30).until(
        lambda page: page.find_elements("css selector", "ul.search li a")
    )
    assert any("Nib" in link.text or "turn" in link.text for link in links)
    # While the search tries to fetch the texts around what it found, which no file page may, the driver
    # may take the next page for loaded before there is anything on it.
    lesson = (site / "lessons" / "1-one-shape.html").as_uri()
    chromium.get("about:blank")
    chromium.get(lesson)
    state = "return [location.href, document.readyState]"
    WebDriverWait(chromium, 30).until(lambda page: page.execute_script(state) == [lesson, "complete"])
    sizes = chromium.execute_script(
        "const pictures = [...document.querySelectorAll('.drawn img')];"
        "return Promise.all(pictures.map(i => (i.loading = 'eager', i.decode().then(() => i.naturalWidth))))"
    )
    assert len(sizes) >= 5
    assert all(sizes)


def test_every_rule_and_example_has_its_place():
    from ovlo.program.examples import example_files
    from ovlo.program.source.rules import ALL_RULES

    rules = (DOCS / "reference" / "rules.md").read_text()
    assert [rule for rule in ALL_RULES if f"```{{rule}} {rule}\n" not in rules] == []
    works = (DOCS / "gallery" / "index.md").read_text().split()
    tools = {"polygon", "star_twice", "read_back"}
    assert {path.stem for path in example_files()} - tools == {
        work for work in works if (DOCS / "gallery" / f"{work}.md").exists()
    }
