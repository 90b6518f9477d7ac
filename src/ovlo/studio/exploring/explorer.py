"""A program explored in the browser: drawn anew when a value moves or the file is saved.

explore("kite.py", {"sides": "5"}, seed=None)
"""

from __future__ import annotations

import ast
import contextlib
import re
import signal
import sys
from collections.abc import Callable, Iterator
from dataclasses import asdict, replace
from functools import lru_cache
from pathlib import Path
from typing import TYPE_CHECKING, Any, NamedTuple

import numpy as np

from ovlo.core.values.dice import fresh_seed
from ovlo.page.message import VERSION, packed
from ovlo.program.defaults import with_defaults
from ovlo.program.loading import split_target
from ovlo.program.python_errors import syntax_in_words
from ovlo.program.running import Limits
from ovlo.program.source.harmless import reach_of
from ovlo.render.additions.overlays import OVERLAYS
from ovlo.studio.exploring.controls import neighbours
from ovlo.studio.exploring.file_watch import FileWatch
from ovlo.studio.exploring.manuscript import Manuscript
from ovlo.studio.exploring.requests import Answer, Draw, File, Findings, Question, Reply, Running, Save, Words
from ovlo.studio.exploring.schedule import Schedule, State
from ovlo.studio.exploring.worker import ProgramWorker
from ovlo.studio.opening import needed_browser, open_link
from ovlo.studio.presence import Presence

if TYPE_CHECKING:
    from ovlo.studio.server import PageConnection, Server

PAUSE = 0.15
"""Seconds after the last key until what is typed is drawn."""

SPARE_AFTER = 1.0
"""Seconds after the first picture until a second process is made ready."""

SCALES = (1, 2, 3, 4)
ENDINGS = (".svg", ".png", ".pdf", ".html")

MOST_VALUES = 1000

MOST_KEPT = 200

MOST_AROUND = 8

NUMBER = re.compile(r"[-+]?[0-9][0-9_]*\.?[0-9]*(e[-+]?[0-9]+)?|[-+]?\.[0-9]+", re.IGNORECASE)
"""What may be tried in place of a number of the text."""


class Kept(NamedTuple):
    """Values that somebody keeps, with the seed and what they are called."""

    values: dict[str, str]
    seed: int | None
    caption: str


def explore(
    target: str,
    values: dict[str, str],
    seed: int | None,
    limits: Limits | None = None,
    port: int = 0,
    opens: bool = True,
    read_only: bool = False,
) -> None:
    """Open a page on a program, until it is closed; without `opens`, print where it can be opened."""
    browser = needed_browser("live") if opens else None
    # The process begins while the server is loaded, and before there are threads.
    worker = ProgramWorker()
    from ovlo.studio.server import Server

    server = Server(port)
    path, *_ = split_target(target)
    manuscript = Manuscript(path, read_only)
    explorer = Explorer(Draw(target, values, seed, limits or Limits()), server, worker, manuscript)
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
        if (unsaved := manuscript.leave()) is not None:
            print(f"{path.name} had text that was not saved; it is in {unsaved.name}.", file=sys.stderr)


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


@lru_cache(maxsize=4)
def _reason_to_wait(text: str) -> dict[str, Any]:
    """Why a text that is typed is not drawn by itself: a line and words; nothing where it is."""
    try:
        reach = reach_of(ast.parse(text))
    except SyntaxError as error:
        words = syntax_in_words(error) or str(error.msg)
        return {"line": error.lineno or 0, "words": words, "isUnfinished": True}
    except (ValueError, RecursionError, MemoryError) as error:
        return {"line": 0, "words": str(error), "isUnfinished": True}
    if reach is None:
        return {}
    why = f"Line {reach.line}: {reach.words}, so the program is drawn only when you press Ctrl+Enter or save."
    return {"line": reach.line, "words": why, "isUnfinished": False}


class Explorer:
    """What pages see of a program: the one state of its values, its seed and its text.

    All but `end` is called in the server's thread.
    """

    has_editor = True

    def __init__(self, request: Draw, server: Server, worker: ProgramWorker, manuscript: Manuscript) -> None:
        self.presence = Presence()
        self._server = server
        self._manuscript = manuscript
        self._path = manuscript.path
        self._request = request
        self._lines: set[PageConnection] = set()
        self._last = Answer(request)
        self._message = b""
        self._findings: dict[str, Any] | None = None
        self._question: dict[str, Any] | None = None
        self._form: dict[str, Any] = {}
        self._kept: list[Kept] = []
        self._waiting: dict[str, Any] = {}
        """Why what is typed is not drawn."""
        self._words: dict[str, Any] | None = None
        self._use_text()
        self._watch = FileWatch(lambda: server.soon(self._follow_file))
        self._watch.look_at({self._path.resolve()})
        self._worker = worker
        self._schedule = Schedule(worker, server.later, self._restart)
        worker.listen(lambda told: server.soon(lambda: self._take(told)))
        server.soon(self._begin)

    def _begin(self) -> None:
        self._redraw()
        if self._schedule.state is State.RESTING:  # there is nothing to draw yet
            self._prepare()

    def end(self) -> None:
        """End the process, and look at no file any more."""
        self._watch.end()
        self._server.soon(lambda: self._tell({"kind": "ended"}))
        self._worker.close()

    # ── pages ─────────────────────────────────────────────────────────────────────────────────────────────

    def open(self, line: PageConnection) -> None:
        """A page is there; it is told how things stand."""
        self.presence.come(line)
        self._lines.add(line)
        line.send(self._text_told())
        if self._form:
            line.send(self._form)
        if self._message:
            line.send(self._message)
        for told in (self._findings, self._question, self._words):
            if told is not None:
                line.send(told)
        line.send(self._trouble_told())
        line.send({"kind": "printed", "words": self._last.printed})
        line.send(self._kept_told())

    def close(self, line: PageConnection) -> None:
        """A page is gone."""
        self.presence.go(line)
        self._lines.discard(line)

    def _tell(self, told: bytes | dict[str, Any], but: PageConnection | None = None) -> None:
        for line in self._lines - {but}:
            line.send(told)

    def _say(self, words: str) -> None:
        self._tell({"kind": "told", "words": words})

    def hear(self, line: PageConnection, wish: dict[str, Any]) -> None:
        """Do what a page wants; what is no wish does nothing."""
        doing: dict[str, Callable[[], object]] = {
            "values": lambda: self._set_values(line, wish),
            "roll": lambda: self._set_values(None, wish | {"seed": fresh_seed()}),
            "choose": lambda: self._choose(wish),
            "stop": self._schedule.stop,
            "answer": lambda: self._answer(wish),
            "neighbours": lambda: self._draw_neighbours(wish),
            "save": lambda: self._save(wish),
            "write": lambda: self._write(wish),
            "keep": lambda: self._keep(wish),
            "edit": lambda: self._edit(line, wish),
            "draw": self._draw_typed_at_once,
            "store": self._store,
            "settle": lambda: self._settle(wish),
            "turn": lambda: self._turn(wish),
            "around": lambda: self._draw_around(wish),
            "bye": lambda: self.close(line),
        }
        if wish["do"] in doing:
            doing[wish["do"]]()

    # ── values ────────────────────────────────────────────────────────────────────────────────────────────

    def _with(self, wish: dict[str, Any]) -> Draw:
        """The request with the values and the seed of a wish."""
        given, seed = wish.get("values"), wish.get("seed")
        values = {}
        if isinstance(given, dict) and len(given) <= MOST_VALUES:
            values = {str(name): text for name, text in given.items() if isinstance(text, str) and text}
        if not isinstance(seed, int) or isinstance(seed, bool):
            seed = self._last.seed if self._last.seed is not None else self._request.seed
        return replace(self._request, values=values, seed=seed)

    def _set_values(self, line: PageConnection | None, wish: dict[str, Any]) -> None:
        self._request = self._with(wish)
        self._form["values"] = self._request.values
        self._tell({"kind": "values", "values": self._request.values}, but=line)
        self._redraw()

    def _choose(self, wish: dict[str, Any]) -> None:
        name = wish.get("name")
        if name in [about.name for about in self._last.drawings]:
            self._request = replace(self._request, target=f"{self._path}:{name}", values={}, seed=None)
            self._kept = []
            self._tell(self._kept_told())
            self._redraw()

    def _redraw(self) -> None:
        if self._manuscript.is_there or self._manuscript.text or self._path.exists():
            self._schedule.want(self._request)

    def _answer(self, wish: dict[str, Any]) -> None:
        if self._question is not None:
            self._question = None
            self._worker.ask(Words(str(wish.get("words", ""))))
            self._tell({"kind": "answered"})

    def _draw_neighbours(self, wish: dict[str, Any]) -> None:
        request = self._with(wish)
        controls = next((one.parameters for one in self._last.drawings if one.name == self._last.chosen), [])
        around = [replace(request, values=values) for values in neighbours(controls, request.values)]
        if self._last.seed is not None:
            around += [replace(request, seed=fresh_seed()) for _ in range(3)]
        self._schedule.add(replace(one, number=i) for i, one in enumerate(around, 1))

    def _save(self, wish: dict[str, Any]) -> None:
        ending, overlays, only = wish.get("ending"), wish.get("overlays"), wish.get("only")
        scale = wish.get("scale", 1)
        if ending in ENDINGS and isinstance(overlays, list) and isinstance(only, str) and scale in SCALES:
            names = tuple(name for name in OVERLAYS if name in overlays)
            self._schedule.add([Save(ending, names, only, int(scale))])

    def _keep(self, wish: dict[str, Any]) -> None:
        request, caption = self._with(wish), wish.get("caption")
        if isinstance(caption, str) and len(self._kept) < MOST_KEPT:
            self._kept.append(Kept(request.values, request.seed, caption))
            self._tell(self._kept_told())

    def _kept_told(self) -> dict[str, Any]:
        return {"kind": "kept", "sets": [one._asdict() for one in self._kept]}

    def _write(self, wish: dict[str, Any]) -> None:
        """Write values into the text, as its defaults."""
        request, path = self._with(wish), self._path
        if not request.values:
            self._say(f"{path.name} already has these values.")
            return
        if self._manuscript.is_locked:
            self._say(self._manuscript.trouble or f"{path.name} was opened to be read only.")
            return
        written = with_defaults(self._manuscript.text, self._last.chosen, request.values)
        if written.done:
            self._manuscript.replace(written.text)
            left = {name: text for name, text in request.values.items() if name not in written.done}
            self._request = replace(request, values=left)
            self._form = {}
            self._tell(self._text_told())
            self._draw_typed_at_once()
        done = f"Now in the program: {', '.join(written.done)}. Save it to keep them." if written.done else ""
        self._say(" ".join(filter(None, [done, *written.left])))

    # ── text ──────────────────────────────────────────────────────────────────────────────────────────────

    def _text_told(self) -> dict[str, Any]:
        text = self._manuscript
        about = {
            "file": text.path.name,
            "text": text.text,
            "version": text.version,
            "readOnly": text.is_locked,
        }
        return self._state_told() | {"kind": "text"} | about

    def _state_told(self) -> dict[str, Any]:
        text = self._manuscript
        return {
            "kind": "typing",
            "isThere": text.is_there,
            "isUnsaved": text.is_unsaved,
            "trouble": text.trouble,
            "difference": text.difference() if text.theirs is not None else "",
            "waiting": self._waiting,
        }

    def _use_text(self) -> None:
        """Draw the text as it is now from here on."""
        text = self._manuscript
        is_ours = text.is_there or text.text
        self._request = replace(
            self._request, text=text.text if is_ours else None, version=text.version, turned=""
        )
        self._waiting = {}

    def _edit(self, line: PageConnection, wish: dict[str, Any]) -> None:
        """Take what is typed; who types on an older text is told the newest instead."""
        version, begin, end = (wish.get(name) for name in ("version", "begin", "end"))
        words = wish.get("words")
        if not (isinstance(version, int) and isinstance(begin, int) and isinstance(end, int)):
            return
        if not isinstance(words, str) or not self._manuscript.edit(version, begin, end, words):
            line.send(self._text_told())
            return
        now = self._manuscript.version
        self._tell(wish | {"kind": "edit", "do": "", "version": now}, but=line)
        self._server.later(PAUSE, lambda: self._draw_if_new(now))

    def _draw_if_new(self, version: int) -> None:
        """Draw what is typed, unless more was typed since or it is drawn already."""
        if self._request.version != version == self._manuscript.version:
            self._draw_typed()

    def _draw_typed(self) -> None:
        """Draw what is typed if that does no harm; else say why it waits."""
        self._waiting = _reason_to_wait(self._manuscript.text)
        if not self._waiting:
            self._use_text()
            self._redraw()
        self._tell(self._state_told())

    def _draw_typed_at_once(self) -> None:
        self._use_text()
        self._tell(self._state_told())
        self._redraw()

    def _store(self) -> None:
        """Write the text into the file."""
        self._manuscript.save()
        self._draw_typed_at_once()
        self._say(f"Saved: {self._path.name}.")

    def _follow_file(self) -> None:
        """A file was saved somewhere: take its text, or show how it differs."""
        if self._manuscript.look():
            self._tell(self._text_told())
            self._use_text()
        elif self._manuscript.theirs is None and not self._manuscript.is_unsaved:
            self._use_text()
        self._tell(self._state_told())
        self._redraw()

    def _settle(self, wish: dict[str, Any]) -> None:
        """Keep one of two texts."""
        self._manuscript.keep(mine=wish.get("mine") is True)
        self._tell(self._text_told())
        self._draw_typed()

    def _turn(self, wish: dict[str, Any]) -> None:
        """Draw the text with a part of it replaced, which is not written yet; or as it is."""
        if (turned := self._turned(wish, wish.get("words"))) is not None:
            self._schedule.want(turned)
        elif wish.get("words") is None:
            self._redraw()

    def _draw_around(self, wish: dict[str, Any]) -> None:
        """Draw small pictures of the text with other words in a place."""
        others = wish.get("words")
        if isinstance(others, list) and len(others) <= MOST_AROUND:
            around = [self._turned(wish, words) for words in others]
            self._schedule.add(replace(one, number=i) for i, one in enumerate(around, 1) if one is not None)

    def _turned(self, wish: dict[str, Any], words: object) -> Draw | None:
        """The request with the words of a wish in its place of the text; None where that is no number."""
        begin, end, text = wish.get("begin"), wish.get("end"), self._manuscript
        if not (isinstance(begin, int) and isinstance(end, int) and isinstance(words, str)):
            return None
        if wish.get("version") != text.version or not NUMBER.fullmatch(words) or _reason_to_wait(text.text):
            return None
        changed = text.with_part(begin, end, words)
        return replace(self._request, text=changed, version=text.version, turned=words)

    # ── the process ───────────────────────────────────────────────────────────────────────────────────────

    def _restart(self) -> None:
        """The program did not stop: another process takes over."""
        self._worker.restart()
        words = "Stopped: the program did not react, so its process was ended."
        self._take(Answer(self._request, trouble=words))

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
            self._findings = {"kind": "findings", "findings": told.found, "textVersion": told.version}
            self._schedule.may_check = False
            self._tell(self._findings)
            return
        if told is None:
            self._worker.restart()
            if self._schedule.state is State.RESTING:
                return
            told = Answer(self._request, trouble="The program ended its process.")
        if self._question is not None:
            self._tell({"kind": "answered"})
        self._question = None
        self._schedule.rest()
        if isinstance(told, File):
            self._hand_over(told)
        elif told.request.number:
            if told.message:
                self._tell(told.message)
        else:
            self._show(told)
        self._schedule.go_on()

    def _hand_over(self, file: File) -> None:
        if file.trouble:
            self._say(file.trouble)
            return
        head = {"version": VERSION, "kind": "file", "name": file.name}
        self._tell(packed(head, {"content": np.frombuffer(file.content, np.uint8)}))

    def _show(self, answer: Answer) -> None:
        """Show a picture, or what went wrong over the last one."""
        if self._schedule.is_overtaken and answer.trouble:  # it was stopped for the next
            return
        if not answer.drawings:  # the file cannot be read now; what is known of it stays
            answer = replace(answer, drawings=self._last.drawings, chosen=self._last.chosen)
        if not answer.files:
            answer = replace(answer, files=self._last.files)
        if answer.seed is None:
            answer = replace(answer, seed=self._last.seed if answer.trouble else None)
        self._prepare()
        self._last = answer
        self._watch.is_anxious = bool(answer.trouble)
        self._watch.look_at({self._path.resolve(), *map(Path, answer.files)})
        form = {
            "kind": "form",
            "drawings": [asdict(about) for about in answer.drawings],
            "chosen": answer.chosen,
        }
        if form != {name: self._form.get(name) for name in form} and not answer.request.turned:
            self._form = form | {"values": self._request.values}
            self._tell(self._form)
        self._form["values"] = self._request.values
        if answer.message and (not answer.trouble or not self._message):
            self._message, self._findings = answer.message, None
            self._schedule.may_check = True
            self._schedule.show(answer.seconds)
            self._tell(self._message)
        self._tell(self._trouble_told())
        self._tell({"kind": "printed", "words": answer.printed})

    def _trouble_told(self) -> dict[str, Any]:
        last = self._last
        about = {"line": last.line, "brief": last.brief, "textVersion": last.request.version}
        return {"kind": "trouble", "words": last.trouble, "notices": last.notices} | about

    def _prepare(self) -> None:
        """See to what is wanted after the first answer."""
        if self._words is None:
            self._server.later(SPARE_AFTER, self._worker.warm_up)
            self._server.soon(self._tell_vocabulary)

    def _tell_vocabulary(self) -> None:
        if self._words is not None:
            return
        from ovlo.studio.exploring.vocabulary import vocabulary  # after the first picture

        self._words = {"kind": "vocabulary"} | vocabulary()
        self._tell(self._words)
