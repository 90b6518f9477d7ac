"""The report of a folder of programs, as one page to read or print: pictures, findings, lines.

write(Path("report.html"), report([Work("kite.py", sheet, findings, "")], "Kite class"))

Nothing on it is taken as markup, whatever a program prints or is called, and no script runs.
"""

from __future__ import annotations

import base64
import html
from collections.abc import Sequence
from pathlib import Path
from typing import NamedTuple

from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.errors import OvloError
from ovlo.core.values.finding import PROBLEM, Finding
from ovlo.page.document import asset, style_of
from ovlo.page.source import coloured
from ovlo.program.texts import text_of
from ovlo.render.formats.png import render
from ovlo.render.page import Page

WIDTH, HEIGHT = 420, 320
"""The most pixels of a picture."""

MOST_LINES = 400
"""Lines of a program that are shown."""


class Work(NamedTuple):
    """A drawing of the report."""

    name: str
    path: str
    sheet: Sheet | None
    found: Sequence[Finding]
    trouble: str
    verdict: str = ""
    is_same: bool = True


def report(entries: Sequence[Work], title: str) -> bytes:
    """The page."""
    rows = "\n".join(_row(number, entry) for number, entry in enumerate(entries))
    works = "\n".join(_work(number, entry) for number, entry in enumerate(entries))
    page = asset("report.html").replace("<!-- style -->", style_of("report.css"))
    page = page.replace("<!-- title -->", html.escape(title))
    return page.replace("<!-- rows -->", rows).replace("<!-- works -->", works).encode()


def _row(number: int, entry: Work) -> str:
    """A row of the table of all drawings."""
    problems = sum(one.severity == PROBLEM for one in entry.found)
    hints = len(entry.found) - problems
    state = "stopped" if entry.trouble else "problem" if problems or not entry.is_same else "clean"
    same = entry.verdict.splitlines()[0] if entry.verdict else ""
    cells = (problems or "", hints or "", "did not finish" if entry.trouble else "", same)
    told = "".join(f"<td>{html.escape(str(cell))}</td>" for cell in cells)
    return f'<tr class="{state}"><th><a href="#work-{number}">{html.escape(entry.name)}</a></th>{told}</tr>'


def _work(number: int, entry: Work) -> str:
    """A drawing: its picture, what was found, and its program."""
    marked = {
        line for one in entry.found for line in one.lines if Path(one.file or entry.path) == Path(entry.path)
    }
    parts = [f'<section id="work-{number}">', f"<h2>{html.escape(entry.name)}</h2>", _picture(entry)]
    if entry.verdict:
        state = "same" if entry.is_same else "problem"
        parts.append(f'<p class="{state}">Compared with the reference, A: {html.escape(entry.verdict)}</p>')
    if entry.trouble:
        parts.append(f'<pre class="trouble">{html.escape(entry.trouble)}</pre>')
    if entry.found:
        parts.append(f"<ol>{''.join(map(_finding, entry.found))}</ol>")
    elif not entry.trouble:
        parts.append("<p>No findings.</p>")
    return "\n".join([*parts, _program(entry.path, marked), "</section>"])


def _picture(entry: Work) -> str:
    if entry.sheet is None:
        return '<p class="picture">No picture.</p>'
    page = Page.of(entry.sheet)
    scale = min(1.0, WIDTH / page.pixel_width, HEIGHT / page.pixel_height)
    try:
        data = b"".join(render(entry.sheet._columns, Page.of(entry.sheet, scale)))
    except OvloError as error:
        return f'<p class="picture">{html.escape(str(error))}</p>'
    words = html.escape(f"Picture of {entry.name}")
    return (
        f'<img class="picture" alt="{words}" src="data:image/png;base64,{base64.b64encode(data).decode()}">'
    )


def _finding(one: Finding) -> str:
    lines = ", ".join(map(str, one.lines))
    where = f"line {lines}: " if lines else ""
    return (
        f'<li class="{one.severity}"><b>{html.escape(where + one.rule)}</b> {html.escape(one.message)} '
        f"<i>{html.escape(one.fix)}</i></li>"
    )


def _program(path: str, marked: set[int]) -> str:
    """The lines of a program, those with findings marked."""
    try:
        text = text_of(Path(path))
    except OSError:
        return ""
    lines = coloured(text.rstrip())
    items = []
    for number, line in enumerate(lines[:MOST_LINES], 1):
        words = "".join(
            f'<span class="{kind}">{html.escape(part)}</span>' if kind else html.escape(part)
            for kind, part in line
        )
        items.append(f"<li{' class=marked' if number in marked else ''}>{words}</li>")
    more = f"<p>… and {len(lines) - MOST_LINES} more lines.</p>" if len(lines) > MOST_LINES else ""
    return f'<ol class="program">{"".join(items)}</ol>{more}'
