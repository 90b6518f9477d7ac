"""Ovlo in other people's programs: a test suite, a server, a pool of processes, a package, type checkers."""

from __future__ import annotations

import os
import re
import subprocess
import sys
import threading
import urllib.request
from concurrent.futures import ThreadPoolExecutor
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from pathlib import Path

import pytest

from ovlo import BadType, BadUse, Motif, Sheet, drawing
from ovlo.testing import assert_clean, assert_same

TESTS = """\
from ovlo import drawing
from ovlo.testing import assert_clean, assert_same

@drawing
def kite(nib, sides: int = 4):
    nib.polygon(sides, side_length=60)

@drawing
def walked(nib, angle=90):
    for _ in range(4):
        nib.forward(60)
        nib.left(angle)

def test_the_walk_is_the_kite():
    assert_same(kite, walked)

def test_it_is_not_when_the_angle_is_wrong():
    assert_same(kite, walked.run(angle=89, traced=True))

def test_it_is_clean():
    assert_clean(walked.run(angle=80, traced=True))
"""


def run(*command: object, folder: Path, **env: str) -> subprocess.CompletedProcess[str]:
    return subprocess.run(
        [*map(str, command)], cwd=folder, capture_output=True, text=True, env=os.environ | env, timeout=120
    )


def test_a_failing_test_says_what_differs_where_and_shows_it(tmp_path):
    (tmp_path / "test_kite.py").write_text(TESTS)
    done = run(sys.executable, "-m", "pytest", "-p", "no:cacheprovider", "-q", folder=tmp_path)
    assert "2 failed, 1 passed" in done.stdout
    assert "Different: the largest distance is" in done.stdout
    assert re.search(r"It is drawn by line (6|11), in (kite|walked)", done.stdout)
    picture = Path(re.search(r"laid over each other: (\S+\.png)", done.stdout)[1])
    assert picture.read_bytes()[1:4] == b"PNG"
    assert picture.is_relative_to(Path(picture.anchor, *picture.parts[1:3]))
    assert re.search(r"line 11(, 12)?: turns-miss-360 \(problem\)|line 12: turns-miss-360", done.stdout)


def test_assertions_take_a_kind_each():
    ring = Motif.record(lambda nib: nib.circle(30))
    assert_same(ring, ring.moved(3, 4))
    with pytest.raises(AssertionError, match="Different: only A has"):
        assert_same(Motif.record(lambda nib: nib.circle(30)), Motif.record(lambda nib: nib.travel(3)))
    with pytest.raises(BadType, match="compare: give a motif to compare with"):
        assert_same(ring, Sheet())
    with pytest.raises(BadUse, match="A is drawn in px, but B in mm"):
        assert_same(Sheet(), Sheet(unit="mm"))
    with pytest.raises(BadType, match="assert_clean: give a sheet or a drawing"):
        assert_clean(ring)


@drawing(width=200, height=160)
def kite(nib, sides: int = 4, places=((0, 0),)):
    for place in places:
        nib.travel_to(place)
        nib.polygon(sides, radius=40, fill=nib.dice.colour())


class Pictures(BaseHTTPRequestHandler):
    def do_GET(self) -> None:
        sheet = kite.run(sides=int(self.path[1:]), seed=7)
        self.send_response(200)
        self.end_headers()
        sheet.save(self.wfile, format="png")

    def log_message(self, *_: object) -> None:
        pass


def test_a_server_answers_eight_threads_with_the_right_pictures():
    server = ThreadingHTTPServer(("127.0.0.1", 0), Pictures)
    threading.Thread(target=server.serve_forever, daemon=True).start()

    def fetch(sides: int) -> bytes:
        with urllib.request.urlopen(f"http://127.0.0.1:{server.server_port}/{sides}") as answer:
            return answer.read()

    wanted = [3 + i % 8 for i in range(64)]
    with ThreadPoolExecutor(8) as pool:
        found = list(pool.map(fetch, wanted))
    server.shutdown()
    server.server_close()
    right = {sides: kite.run(sides=sides, seed=7).to_bytes("png") for sides in set(wanted)}
    assert found == [right[sides] for sides in wanted]


POOL = """\
from concurrent.futures import ProcessPoolExecutor
from multiprocessing import get_context
from kites import kite

if __name__ == "__main__":
    with ProcessPoolExecutor(2, mp_context=get_context("spawn")) as pool:
        jobs = [pool.submit(kite.run, sides=sides) for sides in (3, 5)]
        print([len(job.result().trail) for job in jobs])
"""


@pytest.fixture
def package(tmp_path):
    """A package with a drawing, a helper beside it, and a module of its own to run."""
    folder = tmp_path / "bay"
    (folder / "works").mkdir(parents=True)
    for path in (folder, folder / "works"):
        (path / "__init__.py").write_text("")
    (folder / "shapes.py").write_text("def sail(nib, sides):\n    nib.polygon(sides, radius=40)\n")
    (folder / "works" / "kites.py").write_text(
        "from ovlo import drawing\nfrom ..shapes import sail\nimport bay.shapes\n\n\n"
        "@drawing\ndef kite(nib, sides: int = 4):\n    sail(nib, sides)\n"
    )
    return tmp_path


@pytest.mark.parametrize("target", ["bay.works.kites", "bay.works.kites:kite", "bay/works/kites.py:kite"])
def test_a_module_of_a_package_is_a_program(package, ovlo_command, target):
    done = ovlo_command("draw", target, "--set", "sides=5", "-o", "kite.svg")
    assert "6 steps" in done.stdout, done.stderr
    assert ovlo_command("check", target).stdout.endswith("No findings.\n")
    assert "3 pictures" in ovlo_command("vary", target, "--values", "sides=3..5", "-o", "a.png").stdout


def test_a_drawing_is_sent_to_other_processes_by_its_name(package):
    (package / "kites.py").write_text("from bay.works.kites import kite\n")
    (package / "pool.py").write_text(POOL)
    done = run(sys.executable, "pool.py", folder=package)
    assert done.stdout.strip() == "[5, 7]", done.stderr


def test_a_subclass_of_a_sheet_keeps_what_it_adds():
    import copy

    class Harbour(Sheet):
        def __init__(self, boats: int) -> None:
            super().__init__(200, 160)
            self.boats = boats

    harbour = Harbour(3)
    harbour.new_nib().forward(30)
    other = copy.deepcopy(harbour)
    assert (type(other), other.boats, len(other.trail)) == (Harbour, 3, 2)


def test_a_run_that_fails_keeps_what_was_drawn():
    @drawing
    def boat(nib, sails: int = 0):
        nib.forward(60)
        nib.left(1 / sails)

    with pytest.raises(ZeroDivisionError) as failed:
        boat.run()
    assert len(failed.value.sheet.trail) == 2
