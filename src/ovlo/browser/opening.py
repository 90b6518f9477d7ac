"""A page opened in the standard browser, its key seen by nobody else.

open_link("http://127.0.0.1:40123/enter?key=…", folder)

What a browser is started with stands in the list of processes, so it is given a private file that leads on.
"""

from __future__ import annotations

import html
import os
import threading
import webbrowser
from pathlib import Path

IN_TERMINALS = ("www-browser", "links", "elinks", "lynx", "w3m")
"""Browsers that show no drawing."""


def standard_browser() -> webbrowser.BaseBrowser | None:
    """The browser that shows pages here; None where there is none but in the terminal."""
    try:
        browser = webbrowser.get()
    except webbrowser.Error:
        return None
    name = Path(getattr(browser, "name", "") or "").name.split(" ")[0]
    return None if name in IN_TERMINALS else browser


def open_link(browser: webbrowser.BaseBrowser, link: str, folder: Path) -> None:
    """Open a link; some browsers let one wait until they are closed, so it is done in a thread."""
    file = folder / "open.html"
    content = f'<!DOCTYPE html><meta http-equiv="refresh" content="0; url={html.escape(link)}">'
    with os.fdopen(os.open(file, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "w") as opened:
        opened.write(content)
    threading.Thread(target=browser.open, args=(file.as_uri(),), daemon=True).start()
