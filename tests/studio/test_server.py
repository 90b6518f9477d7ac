"""The server lets in who has the key, and nobody else; what pages send it cannot harm it."""

from __future__ import annotations

import gc
import http.client
import json
import re
import socket
import threading
import time
from contextlib import closing, suppress
from typing import NamedTuple

import pytest
from tornado.websocket import websocket_connect

from ovlo import Sheet
from ovlo.core.values.errors import BadUse
from ovlo.studio.server import LARGEST_WISH, Server
from ovlo.studio.showing import Finished

# Tornado's client leaves its socket to the collector.
pytestmark = pytest.mark.filterwarnings("ignore::pytest.PytestUnraisableExceptionWarning")


@pytest.fixture(autouse=True)
def _collected():
    """The collector comes while that is no warning, and not in a test of another file."""
    yield
    gc.collect()


class Room:
    def __init__(self):
        self.wishes, self.lines = [], []

    def open(self, line):
        self.lines.append(line)
        line.send({"kind": "told", "words": "come in"})

    def hear(self, line, wish):
        self.wishes.append(wish)
        line.send({"kind": "told", "words": "heard"})

    def close(self, line):
        self.lines.remove(line)


@pytest.fixture(scope="module")
def server():
    server = Server()
    server.add(Room())
    return server


def key_of(server) -> str:
    return re.search(r"key=([^&]+)", server.link(1))[1]


class Told(NamedTuple):
    status: int
    headers: http.client.HTTPMessage
    body: bytes


def asked(server, path: str, method: str = "GET", **headers: str) -> Told:
    with closing(http.client.HTTPConnection("127.0.0.1", server.port, timeout=5)) as connection:
        connection.request(method, path, headers=headers)
        with connection.getresponse() as answer:
            return Told(answer.status, answer.headers, answer.read())


def with_key(server, **headers: str) -> dict[str, str]:
    return {"Cookie": f"ovlo-{server.port}={key_of(server)}"} | headers


def test_the_key_becomes_a_cookie_and_the_page_is_served(server):
    entered = asked(server, server.link(1).partition(f":{server.port}")[2])
    cookie = entered.headers["Set-Cookie"]
    assert entered.status == 200
    assert all(words in cookie for words in ("HttpOnly", "SameSite=Strict"))
    assert b"<canvas" in entered.body
    assert key_of(server).encode() not in entered.body
    page = asked(server, "/1", Cookie=cookie.partition(";")[0])
    policy = page.headers["Content-Security-Policy"]
    assert page.status == 200
    assert f"connect-src ws://127.0.0.1:{server.port}/1/link" in policy
    assert "frame-ancestors 'none'" in policy
    assert page.headers["X-Content-Type-Options"] == "nosniff"
    assert "Server" not in page.headers


@pytest.mark.parametrize("path", ["/1", "/1/link", "/enter", "/enter?key=x", "/", "/etc/passwd", "/2"])
def test_without_the_key_nothing_is_served(server, path):
    answer = asked(server, path)
    assert answer.status == 403
    assert b"ovlo.ready" not in answer.body


def test_a_wrong_key_a_cookie_of_another_server_and_a_foreign_host_are_refused(server):
    assert asked(server, "/1", Cookie=f"ovlo-{server.port}=wrong").status == 403
    assert asked(server, "/1", Cookie=f"ovlo-1={key_of(server)}").status == 403
    # What a name that is made to mean this machine would send.
    assert asked(server, "/1", **with_key(server, Host=f"kites.example:{server.port}")).status == 403
    assert asked(server, server.link(1).partition(f":{server.port}")[2], Host="kites.example").status == 403


@pytest.mark.parametrize(
    "path",
    [
        "/../pyproject.toml",
        "/assets/main.js",
        "/1/../../etc/passwd",
        "/%2e%2e/etc/passwd",
        "/99",
        "/1/",
        "/static/x",
    ],
)
def test_no_file_is_served_even_with_the_key(server, path):
    assert asked(server, path, **with_key(server)).status == 404


def test_only_what_the_page_needs_may_be_asked(server):
    for method in ("POST", "PUT", "DELETE", "OPTIONS"):
        assert asked(server, "/1", method, **with_key(server)).status in (403, 404, 405)
    for page in ("7", "x", "-1"):
        refused = asked(server, f"/enter?key={key_of(server)}&page={page}")
        assert (refused.status, refused.headers["Set-Cookie"]) == (404, None)
    assert asked(server, f"/enter?key={key_of(server)}").status == 200
    with socket.create_connection(("127.0.0.1", server.port), 5) as line:
        line.sendall(b"GET /1 HTTP/1.1\r\nX: " + b"a" * 100_000)
        with suppress(ConnectionResetError):
            assert not line.recv(100).startswith(b"HTTP/1.1 200")


def test_it_listens_on_this_machine_alone(server):
    assert server._socket.getsockname()[0] == "127.0.0.1"
    with pytest.raises(BadUse, match=rf"--port: {server.port} cannot be used"):
        Server(server.port)


def lined(server, work, **headers: str):
    """Do something with a line to the server, in a loop of its own."""
    import asyncio

    from tornado.httpclient import HTTPRequest

    async def do():
        address = f"ws://127.0.0.1:{server.port}/1/link"
        line = await websocket_connect(HTTPRequest(address, headers=headers))
        try:
            return await work(line)
        finally:
            line.close()

    return asyncio.run(do())


async def hello(line):
    return json.loads(await line.read_message())["words"]


@pytest.mark.parametrize("origin", [None, "null", "http://kites.example", "https://127.0.0.1", "file://"])
def test_a_line_from_another_page_is_refused(server, origin):
    headers = with_key(server) | ({"Origin": origin} if origin else {})
    with pytest.raises(Exception, match="403"):
        lined(server, hello, **headers)


def test_a_line_from_its_page_with_the_key_is_taken(server):
    own = {"Origin": f"http://127.0.0.1:{server.port}"}
    with pytest.raises(Exception, match="403"):
        lined(server, hello, **own)
    assert lined(server, hello, **with_key(server), **own) == "come in"


@pytest.mark.parametrize("wish", ["no JSON", "[]", "{}", '{"do": 5}', "x" * (LARGEST_WISH + 1), b"\xff\x00"])
def test_what_is_no_wish_closes_the_line_and_nothing_else(server, wish):
    async def say(line):
        await line.read_message()
        await line.write_message(wish, binary=isinstance(wish, bytes))
        return await line.read_message()

    headers = with_key(server, Origin=f"http://127.0.0.1:{server.port}")
    assert lined(server, say, **headers) is None
    assert server.room("1").wishes == []
    assert lined(server, hello, **headers) == "come in"


def test_work_is_done_in_the_thread_of_the_server_soon_and_later(server):
    done, when = threading.Event(), []

    def work() -> None:
        when.append((time.monotonic(), threading.current_thread().name))
        server.later(0.05, later)

    def later() -> None:
        when.append((time.monotonic(), threading.current_thread().name))
        done.set()

    server.soon(work)
    assert done.wait(5)
    assert [name for _, name in when] == ["ovlo-server"] * 2
    assert when[1][0] - when[0][0] >= 0.05


def test_several_sheets_have_several_pages():
    server = Server()
    rooms = [Finished(Sheet(90, 60), (), {}) for _ in range(2)]
    assert [server.link(server.add(room))[-7:] for room in rooms] == ["&page=1", "&page=2"]
    assert all(asked(server, f"/{n}", **with_key(server)).status == 200 for n in (1, 2))
