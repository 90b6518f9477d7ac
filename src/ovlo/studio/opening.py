"""A page opened in the standard browser, its key seen by nobody else.

open_link(needed_browser("show"), "http://127.0.0.1:40123/enter?key=…")

What a browser is started with stands in the list of processes, so it is given a private file that leads on.
"""

from __future__ import annotations

import html
import os
import threading
import webbrowser
from pathlib import Path

from ovlo.core.values.errors import NoBrowser
from ovlo.program.processes.spool import lasting_folder

IN_TERMINALS = ("www-browser", "links", "elinks", "lynx", "w3m")
"""Browsers that show no drawing."""


NO_BROWSER = (
    "no browser can be opened on this machine. Save the drawing as kite.html, which any browser can "
    "replay, or run "
    "`ovlo live kite.py --no-open` and open the address it prints."
)


def needed_browser(call: str) -> webbrowser.BaseBrowser:
    """The browser that shows pages here; one in the terminal does not count."""
    try:
        browser = webbrowser.get()
    except webbrowser.Error:
        browser = None
    name = Path(getattr(browser, "name", "") or "").name.split(" ")[0]
    if browser is None or name in IN_TERMINALS:
        raise NoBrowser(f"{call}: {NO_BROWSER}")
    return browser


def open_link(browser: webbrowser.BaseBrowser, link: str) -> None:
    """Open a link; some browsers let one wait until they are closed, so it is done in a thread."""
    file = lasting_folder() / "open.html"
    content = f'<!DOCTYPE html><meta http-equiv="refresh" content="0; url={html.escape(link)}">'
    with os.fdopen(os.open(file, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "w") as opened:
        opened.write(content)
    threading.Thread(target=browser.open, args=(file.as_uri(),), daemon=True).start()
