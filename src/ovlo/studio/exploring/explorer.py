"""A program explored in the browser: drawn anew when a value moves or the file is saved.

explore("kite.py", {"sides": "5"}, seed=None)
"""

from __future__ import annotations

import contextlib
import signal
import threading
import time
from collections import deque
from collections.abc import Callable, Iterator
from dataclasses import asdict, replace
from pathlib import Path
from typing import TYPE_CHECKING, Any

import numpy as np

from ovlo.core.values.dice import fresh_seed
from ovlo.core.values.errors import OvloError
from ovlo.page.message import VERSION, packed
from ovlo.program.defaults import write_defaults
from ovlo.program.loading import split_target
from ovlo.program.running import Limits
from ovlo.render.additions.overlays import OVERLAYS
from ovlo.studio.exploring.controls import neighbours
from ovlo.studio.exploring.requests import Answer, Draw, File, Findings, Question, Reply, Running, Save, Words
from ovlo.studio.exploring.worker import ProgramWorker
from ovlo.studio.opening import needed_browser, open_link
from ovlo.studio.presence import Presence

if TYPE_CHECKING:
    from ovlo.studio.server import PageConnection, Server

FRESH = 0.5
"""Seconds a picture may be old while its successor is drawn: a run is finished when the last one is older."""

AGAIN = 0.1
"""Seconds between two times a program is told to stop."""

PATIENCE = 2.0
"""Seconds a program has to stop when it is told to, before its process is ended."""

ENDINGS = (".svg", ".png", ".pdf", ".html")

MOST_VALUES = 1000


def explore(
    target: str,
    values: dict[str, str],
    seed: int | None,
    limits: Limits | None = None,
    port: int = 0,
    opens: bool = True,
) -> None:
    """Open a page on a program, until it is closed; without `opens`, print where it can be opened."""
    browser = needed_browser("live") if opens else None
    # The process begins while the server is loaded, and before there are threads.
    worker = ProgramWorker()
    from ovlo.studio.server import Server

    server = Server(port)
    explorer = Explorer(Draw(target, values, seed, limits or Limits()), server, worker)
    link = server.link(server.add(explorer))
    try:
        if browser is None:
            print(f"Open {link}", flush=True)
        else:
            open_link(browser, link)
            print(f"{target} is open in the browser. Close the page or press Ctrl-C to end.", flush=True)
        with _ending_in_order():
            explorer.presence.wait("live", link, is_told=not opens)
    finally:
        explorer.end()


@contextlib.contextmanager
def _ending_in_order() -> Iterator[None]:
    """A block that a closed terminal and a request to end leave as Ctrl-C does."""
    names = [name for name in ("SIGHUP", "SIGTERM") if hasattr(signal, name)]
    before = {name: signal.signal(getattr(signal, name), signal.default_int_handler) for name in names}
    try:
        yield
    finally:
        for name, handler in before.items():
            signal.signal(getattr(signal, name), handler)


class Explorer:
    """What pages see of a program. All but `end` is called in the server's thread."""

    def __init__(self, request: Draw, server: Server, worker: ProgramWorker) -> None:
        self.presence = Presence()
        self._server = server
        self._request = request
        self._path, *_ = split_target(request.target)
        self._lines: set[PageConnection] = set()
        self._busy: Draw | Save | None = None
        self._wanted: Draw | None = request
        self._later: deque[Draw | Save] = deque()
        self._asked_at = self._shown_at = self._told_to_stop = 0.0
        self._usual = 0.0
        self._last = Answer(request)
        self._message = b""
        self._findings: dict[str, Any] | None = None
        self._may_check = False
        """Whether the process may be checking its picture; before the first it bears no signal."""
        self._question: dict[str, Any] | None = None
        self._form: dict[str, Any] = {}
        self._watch = _FileWatch(lambda: server.soon(self._redraw))
        self._watch.look_at({self._path.resolve()})
        self._worker = worker
        worker.listen(lambda told: server.soon(lambda: self._take(told)))
        server.soon(self._push)

    def end(self) -> None:
        """End the process, and look at no file any more."""
        self._watch.end()
        self._worker.close()

    # ── pages ─────────────────────────────────────────────────────────────────────────────────────────────

    def open(self, line: PageConnection) -> None:
        """A page is there; it is told how things stand."""
        self.presence.come(line)
        self._lines.add(line)
        if self._form:
            line.send(self._form)
        if self._message:
            line.send(self._message)
        for told in (self._findings, self._question):
            if told is not None:
                line.send(told)
        line.send({"kind": "trouble", "words": self._last.trouble})
        line.send({"kind": "printed", "words": self._last.printed})

    def close(self, line: PageConnection) -> None:
        """A page is gone."""
        self.presence.go(line)
        self._lines.discard(line)

    def _tell(self, told: bytes | dict[str, Any]) -> None:
        for line in self._lines:
            line.send(told)

    def _say(self, words: str) -> None:
        self._tell({"kind": "told", "words": words})

    def hear(self, line: PageConnection, wish: dict[str, Any]) -> None:
        """Do what a page wants; what is no wish does nothing."""
        doing: dict[str, Callable[[dict[str, Any]], object]] = {
            "values": self._set_values,
            "roll": lambda wish: self._set_values(wish | {"seed": fresh_seed()}),
            "choose": self._choose,
            "stop": lambda wish: self._stop(),
            "answer": self._answer,
            "neighbours": self._draw_neighbours,
            "save": self._save,
            "write": self._write,
            "bye": lambda wish: self.close(line),
        }
        if wish["do"] in doing:
            doing[wish["do"]](wish)

    # ── wishes ────────────────────────────────────────────────────────────────────────────────────────────

    def _with(self, wish: dict[str, Any]) -> Draw:
        """The request with the values and the seed of a wish."""
        given, seed = wish.get("values"), wish.get("seed")
        values = {}
        if isinstance(given, dict) and len(given) <= MOST_VALUES:
            values = {str(name): text for name, text in given.items() if isinstance(text, str) and text}
        if not isinstance(seed, int) or isinstance(seed, bool):
            seed = self._last.seed if self._last.seed is not None else self._request.seed
        return replace(self._request, values=values, seed=seed)

    def _set_values(self, wish: dict[str, Any]) -> None:
        self._request = self._with(wish)
        self._redraw()

    def _choose(self, wish: dict[str, Any]) -> None:
        name = wish.get("name")
        if name in [about.name for about in self._last.drawings]:
            self._request = replace(self._request, target=f"{self._path}:{name}", values={}, seed=None)
            self._redraw()

    def _redraw(self) -> None:
        self._wanted = self._request
        self._later.clear()
        self._push()

    def _answer(self, wish: dict[str, Any]) -> None:
        if self._question is not None:
            self._question = None
            self._worker.ask(Words(str(wish.get("words", ""))))

    def _draw_neighbours(self, wish: dict[str, Any]) -> None:
        request = self._with(wish)
        controls = next((one.parameters for one in self._last.drawings if one.name == self._last.chosen), [])
        around = [replace(request, values=values) for values in neighbours(controls, request.values)]
        if self._last.seed is not None:
            around += [replace(request, seed=fresh_seed()) for _ in range(3)]
        self._later.extend(replace(one, number=i) for i, one in enumerate(around, 1))
        self._push()

    def _save(self, wish: dict[str, Any]) -> None:
        ending, overlays, only = wish.get("ending"), wish.get("overlays"), wish.get("only")
        if ending in ENDINGS and isinstance(overlays, list) and isinstance(only, str):
            names = tuple(name for name in OVERLAYS if name in overlays)
            self._later.append(Save(ending, names, only))
            self._push()

    def _write(self, wish: dict[str, Any]) -> None:
        """Write values into the file, as its defaults."""
        request = self._with(wish)
        state = self._last.files.get(str(self._path.resolve()))
        try:
            names = write_defaults(self._path, self._last.chosen, request.values, state)
        except OvloError as error:
            self._say(str(error))
            return
        self._say(f"Written into {self._path.name}: {', '.join(names)}.")
        left = {name: text for name, text in request.values.items() if name not in names}
        self._request = replace(request, values=left)
        self._form = {}
        self._redraw()

    # ── the process ───────────────────────────────────────────────────────────────────────────────────────

    def _push(self) -> None:
        """Hand over what is to be done next, or see that what is being done comes to its end."""
        if self._busy is None:
            if self._wanted is not None:
                self._busy, self._wanted = self._wanted, None
            elif self._later:
                self._busy = self._later.popleft()
            if self._busy is not None:
                if self._may_check:
                    self._worker.interrupt()  # a check gives way
                self._may_check = False
                self._asked_at, self._told_to_stop = time.monotonic(), 0.0
                self._worker.ask(self._busy)
        elif self._wanted is not None and not self._told_to_stop:
            now = time.monotonic()
            is_picture = isinstance(self._busy, Draw) and not self._busy.number
            left = self._asked_at + max(FRESH, 2 * self._usual) - now
            if is_picture and now - self._shown_at > FRESH and left > 0:
                self._server.later(left, self._push)
            elif isinstance(self._busy, Draw):
                self._stop()

    def _stop(self) -> None:
        """Stop the program, and see to it that it listens."""
        if isinstance(self._busy, Draw) and not self._told_to_stop:
            self._told_to_stop = time.monotonic()
            self._stop_again()

    def _stop_again(self) -> None:
        if not self._told_to_stop:
            return
        if time.monotonic() - self._told_to_stop > PATIENCE:
            self._told_to_stop = 0.0
            self._worker.restart()
            words = "Stopped: the program did not react, so its process was ended."
            self._take(Answer(self._request, trouble=words))
            return
        self._worker.interrupt()
        self._server.later(AGAIN, self._stop_again)

    def _take(self, told: Reply | None) -> None:
        """Hear what the process says."""
        if isinstance(told, Running):
            self._tell({"kind": "running", "seconds": told.seconds, "line": told.line})
            return
        if isinstance(told, Question):
            self._question = {"kind": "ask", "words": told.words}
            self._tell(self._question)
            return
        if isinstance(told, Findings):
            self._findings, self._may_check = {"kind": "findings", "findings": told.found}, False
            self._tell(self._findings)
            return
        if told is None:
            if self._busy is None:
                return
            self._worker.restart()
            told = Answer(self._request, trouble="The program ended its process.")
        self._busy, self._question, self._told_to_stop = None, None, 0.0
        if isinstance(told, File):
            self._hand_over(told)
        elif told.request.number:
            if told.message:
                self._tell(told.message)
        else:
            self._show(told)
        self._push()

    def _hand_over(self, file: File) -> None:
        if file.trouble:
            self._say(file.trouble)
            return
        head = {"version": VERSION, "kind": "file", "name": file.name}
        self._tell(packed(head, {"content": np.frombuffer(file.content, np.uint8)}))

    def _show(self, answer: Answer) -> None:
        """Show a picture, or what went wrong over the last one."""
        if self._wanted is not None and answer.trouble:  # it was stopped for the next
            return
        if not answer.drawings:  # the file cannot be read now; what is known of it stays
            answer = replace(answer, drawings=self._last.drawings, chosen=self._last.chosen)
        if not answer.files:
            answer = replace(answer, files=self._last.files)
        if answer.seed is None:
            answer = replace(answer, seed=self._last.seed if answer.trouble else None)
        self._last = answer
        self._watch.is_anxious = bool(answer.trouble)
        self._watch.look_at({self._path.resolve(), *map(Path, answer.files)})
        form = {
            "kind": "form",
            "drawings": [asdict(about) for about in answer.drawings],
            "chosen": answer.chosen,
        }
        if form != {name: self._form.get(name) for name in form}:
            self._form = form | {"values": self._request.values}
            self._tell(self._form)
        self._form["values"] = self._request.values
        if answer.message and (not answer.trouble or not self._message):
            self._message, self._findings, self._may_check = answer.message, None, True
            self._tell(self._message)
            self._shown_at, self._usual = time.monotonic(), answer.seconds
        self._tell({"kind": "trouble", "words": answer.trouble})
        self._tell({"kind": "printed", "words": answer.printed})


class _FileWatch:
    """Looks at files in a thread, and tells when one is saved, whichever way the editor does it."""

    def __init__(self, changed: Callable[[], object]) -> None:
        self._changed = changed
        self.is_anxious = False
        """Whether any program beside the files may be what matters: after an error in what they import."""
        self._files: set[Path] = set()
        self._folders: set[Path] = set()
        self._ended = threading.Event()

    def look_at(self, files: set[Path]) -> None:
        """Look at these files, and no others."""
        self._files = files
        folders = {file.parent for file in files if file.parent.is_dir()}
        if folders == self._folders:
            return
        self._ended.set()
        self._folders, self._ended = folders, threading.Event()
        threading.Thread(target=self._look, args=(folders, self._ended), daemon=True).start()

    def end(self) -> None:
        """Look no more."""
        self._ended.set()

    def _look(self, folders: set[Path], ended: threading.Event) -> None:
        from watchfiles import watch

        # Most of what an editor does to a file is done within 20 ms.
        for changes in watch(*folders, stop_event=ended, debounce=100, step=20, recursive=False):
            if any(self._is_meant(Path(changed)) for _, changed in changes):
                self._changed()

    def _is_meant(self, file: Path) -> bool:
        return file.resolve() in self._files or (self.is_anxious and file.suffix == ".py")
