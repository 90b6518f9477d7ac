"""The server behind the page: for this machine alone, with a key, and for nothing but the page.

    server = Server()
    number = server.add(room)
    server.link(number)    # 'http://127.0.0.1:40123/enter?key=…&page=1'

It listens on 127.0.0.1. Every request must name this server as its host and bring the key, in the link once
and from then on in a cookie; a page's line must come from a page of this server too (RFC 6455, 10.2). There
are no files to be had.
"""

from __future__ import annotations

import asyncio
import hmac
import json
import secrets
import socket
import threading
import traceback
from collections.abc import Callable
from contextlib import suppress
from typing import Any, Protocol
from urllib.parse import urlsplit

import tornado.httpserver
import tornado.web
import tornado.websocket
from tornado.log import access_log

from ovlo.core.values.errors import BadUse, OvloError
from ovlo.page.document import empty_page, policy, served_kit
from ovlo.studio.kit import studio_kit

LARGEST_WISH = 100_000
"""Bytes of what a page may send at a time."""


class PageConnection(Protocol):
    """The server's end of the line to one page."""

    def send(self, told: bytes | dict[str, Any]) -> None:
        """Send a message, or a few words."""


class Room(Protocol):
    """What a page is about. All is called in the server's thread."""

    def open(self, line: PageConnection) -> None:
        """A page is there."""

    def hear(self, line: PageConnection, wish: dict[str, Any]) -> None:
        """A page wants something."""

    def close(self, line: PageConnection) -> None:
        """A page is gone."""


class Server:
    """A server in a thread of its own; it ends with the process."""

    def __init__(self, port: int = 0) -> None:
        self._key = secrets.token_urlsafe(32)
        self._rooms: dict[int, Room] = {}
        try:
            self._socket = socket.create_server(("127.0.0.1", port))
        except OSError as error:
            raise BadUse(f"--port: {port} cannot be used ({error.strerror}); choose another.") from error
        self._socket.setblocking(False)
        self.port: int = self._socket.getsockname()[1]
        self._loop = asyncio.new_event_loop()
        is_up = threading.Event()
        threading.Thread(target=self._serve, args=(is_up,), name="ovlo-server", daemon=True).start()
        is_up.wait()

    @property
    def hosts(self) -> tuple[str, str]:
        """The names under which this server is asked for."""
        return f"127.0.0.1:{self.port}", f"localhost:{self.port}"

    def add(self, room: Room) -> int:
        """Give a room a page; returns its number."""
        number = len(self._rooms) + 1
        self._rooms[number] = room
        return number

    def link(self, number: int) -> str:
        """Where a page is entered; who knows it may see the page."""
        return f"http://{self.hosts[0]}/enter?key={self._key}&page={number}"

    def soon(self, work: Callable[[], object]) -> None:
        """Have something done in the server's thread."""
        with suppress(RuntimeError):  # it ends as the process does
            self._loop.call_soon_threadsafe(work)

    def later(self, seconds: float, work: Callable[[], object]) -> None:
        """Have something done after some time; called in the server's thread."""
        self._loop.call_later(seconds, work)

    def is_key(self, words: str | None) -> bool:
        """Whether that is the key; it takes as long whichever letters are wrong."""
        return words is not None and hmac.compare_digest(words.encode(), self._key.encode())

    def room(self, number: str) -> Room:
        """The room of a page."""
        try:
            return self._rooms[int(number)]
        except (KeyError, ValueError):
            raise tornado.web.HTTPError(404) from None

    def _serve(self, is_up: threading.Event) -> None:
        asyncio.set_event_loop(self._loop)
        access_log.disabled = True  # its lines would stand in the terminal of the program
        about = {"server": self}
        application = tornado.web.Application(
            [
                ("/enter", _Enter, about),
                (r"/(\d{1,6})", _PageHandler, about),
                (r"/(\d{1,6})/link", _Link, about),
            ],
            default_handler_class=_Nothing,
            default_handler_args=about,
            websocket_max_message_size=LARGEST_WISH,
        )
        server = tornado.httpserver.HTTPServer(application, max_header_size=16_384, max_body_size=1_000)
        server.add_socket(self._socket)
        self._loop.call_soon(is_up.set)
        self._loop.run_forever()


class _Guarded(tornado.web.RequestHandler):
    """Answers only those who know where they are, and have the key."""

    needs_key = True

    def initialize(self, server: Server) -> None:
        self.ovlo = server

    @property
    def cookie(self) -> str:
        """Cookies are shared by all ports, so each server has a name of its own."""
        return f"ovlo-{self.ovlo.port}"

    def prepare(self) -> None:
        if self.request.host not in self.ovlo.hosts:
            raise tornado.web.HTTPError(403, reason="Another host")
        if self.needs_key and not self.ovlo.is_key(self.get_cookie(self.cookie)):
            raise tornado.web.HTTPError(403, reason="No key")

    def set_default_headers(self) -> None:
        self.clear_header("Server")
        for name, value in (
            ("Cache-Control", "no-store"),
            ("Content-Security-Policy", "default-src 'none'; frame-ancestors 'none'"),
            ("Cross-Origin-Resource-Policy", "same-origin"),
            ("Referrer-Policy", "no-referrer"),
            ("X-Content-Type-Options", "nosniff"),
        ):
            self.set_header(name, value)

    def finish_page(self, number: str) -> None:
        """Answer with the page of a room."""
        kit = studio_kit() if getattr(self.ovlo.room(number), "has_editor", False) else served_kit()
        line = f"ws://{self.request.host}/{int(number)}/link"
        self.set_header("Content-Security-Policy", f"{policy(line, kit)}; frame-ancestors 'none'")
        self.finish(empty_page(line, kit))

    def write_error(self, status_code: int, **_: Any) -> None:
        self.set_header("Content-Type", "text/plain; charset=utf-8")
        self.finish(
            "Open this page by the link that its program opened or printed."
            if status_code == 403
            else "There is nothing here."
        )


class _Nothing(_Guarded):
    def prepare(self) -> None:
        super().prepare()
        raise tornado.web.HTTPError(404)


class _Enter(_Guarded):
    """Takes the key out of the link and gives it as a cookie, which no address shows."""

    needs_key = False

    def get(self) -> None:
        if not self.ovlo.is_key(self.get_query_argument("key", None)):
            raise tornado.web.HTTPError(403)
        number = self.get_query_argument("page", "1")
        self.ovlo.room(number)  # for a page that is not there, no key is given
        self.set_cookie(self.cookie, self.ovlo._key, httponly=True, samesite="Strict", path="/")
        # The page itself, which takes the key out of its address: a redirection would count as coming from
        # elsewhere, and a strict cookie not be sent.
        self.finish_page(number)


class _PageHandler(_Guarded):
    def get(self, number: str) -> None:
        self.finish_page(number)


class _Link(_Guarded, tornado.websocket.WebSocketHandler):
    """The line to a page."""

    def check_origin(self, origin: str) -> bool:
        return urlsplit(origin).netloc == self.request.host

    async def get(self, *arguments: Any, **names: Any) -> None:
        if self.request.headers.get("Origin") is None:
            raise tornado.web.HTTPError(403)
        await super().get(*arguments, **names)

    def open(self, *arguments: str, **_: str) -> None:
        self.set_nodelay(True)
        self._room = self.ovlo.room(arguments[0])
        self._room.open(self)

    def on_message(self, message: str | bytes) -> None:
        try:
            wish = json.loads(message)
        except ValueError:
            wish = None
        if not isinstance(wish, dict) or not isinstance(wish.get("do"), str):
            self.close(1008, "No wish")
            return
        try:
            self._room.hear(self, wish)
        except OvloError as error:
            self.send({"kind": "told", "words": str(error)})
        except Exception as error:  # no wish ends the line
            traceback.print_exc()
            self.send({"kind": "told", "words": f"That failed here, which is a mistake of Ovlo's: {error}"})

    def on_close(self) -> None:
        if hasattr(self, "_room"):
            self._room.close(self)

    def send(self, told: bytes | dict[str, Any]) -> None:
        with suppress(tornado.websocket.WebSocketClosedError):
            if isinstance(told, bytes):
                sent = self.write_message(told, binary=True)
            else:
                sent = self.write_message(json.dumps(told, ensure_ascii=False))
            # The page may close its line before all is written.
            asyncio.ensure_future(sent).add_done_callback(asyncio.Future.exception)
