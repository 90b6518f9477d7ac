"""The process that runs the user's program: what it answers, tells, asks and keeps."""

from __future__ import annotations

import json
import os
import queue
import shlex
import signal
import time
from dataclasses import replace

import pytest

from ovlo.program.running import Limits
from ovlo.studio.exploring.desk import CALM, MOST_PRINTED, OFTEN
from ovlo.studio.exploring.requests import Answer, Draw, File, Findings, Question, Running, Save, Words
from ovlo.studio.exploring.worker import ProgramWorker, _begun

KITE = '''\
from ovlo import drawing

print("executed")

@drawing(width=200, height=160, shortcut="k")
def kite(nib, sides: int = 4, name="Möwe"):
    """A kite for a windy day.

    It flies.
    """
    for _ in range(sides):
        nib.forward(30)
        nib.left(89)

@drawing()
def tail(nib):
    nib.forward(nib.dice.number(5, 9))
'''


class Process:
    """The process, asked and heard by hand."""

    def __init__(self) -> None:
        self.child = _begun()
        self.said: list = []

    def ask(self, request) -> None:
        self.child.connection.send(request)

    def until(self, kind: type):
        """What it says next of a kind; the rest is kept in `said`."""
        while self.child.connection.poll(20):
            told = self.child.connection.recv()
            if isinstance(told, kind):
                return told
            self.said.append(told)
        raise TimeoutError(f"It said no {kind.__name__}.")

    def answer(self, request) -> Answer:
        self.ask(request)
        return self.until(Answer)

    def interrupt(self) -> None:
        os.kill(self.child.process.pid, signal.SIGINT)


@pytest.fixture(scope="module")
def shared():
    process = Process()
    yield process
    process.child.end(patience=10)


@pytest.fixture
def own():
    """A process of the test's own."""
    process = Process()
    yield process
    process.child.end(patience=10)


@pytest.fixture
def process(shared):
    """The one process of all tests, that has said nothing yet."""
    while shared.child.connection.poll(0):
        shared.child.connection.recv()
    shared.said.clear()
    return shared


def head_of(answer: Answer) -> dict:
    size = int.from_bytes(answer.message[:4], "little")
    return json.loads(answer.message[4 : 4 + size])


def test_nothing_is_saved_before_anything_is_drawn(own):
    own.ask(Save(".svg", (), ""))
    assert own.until(File) == File("", b"", "Nothing is drawn yet.")
    own.child.connection.close()
    own.child.process.join(10)
    assert own.child.process.exitcode == 0


def test_a_picture_comes_with_all_that_is_known_of_its_program(process, program):
    path = program(KITE)
    answer = process.answer(Draw(f"{path}:kite", {"sides": "5", "odd": "1"}, version=7))
    assert (answer.trouble, answer.notices, answer.line, answer.seed) == ("", "", 0, None)
    assert [(one.name, one.shortcut, one.summary) for one in answer.drawings] == [
        ("kite", "k", "A kite for a windy day."),
        ("tail", "", ""),
    ]
    assert [one["name"] for one in answer.drawings[0].parameters] == ["sides", "name"]
    assert (answer.chosen, answer.printed) == ("kite", "executed\n")
    assert 0 < answer.seconds < 30
    assert answer.files == {str(path): (path.stat().st_mtime_ns, path.stat().st_size)}
    head = head_of(answer)
    assert head["drawing"]["steps"] == 6
    command = f"ovlo draw {path}:kite --set sides=5 --set odd=1"
    assert head["live"] == {"command": command, "version": 7, "turned": ""}
    # Then it is checked, and what is found belongs to that text.
    found = process.until(Findings)
    assert found.version == 7
    assert any(one["isHere"] for one in found.found)
    # Whatever is wanted before that, comes before it.
    for version in (1, 2):
        process.ask(Draw(f"{path}:kite", {}, version=version))
    assert process.until(Findings).version == 2
    # The same file is not executed again; one that was written since is.
    assert process.answer(Draw(f"{path}:kite", {})).printed == ""
    program(KITE + "# new\n")
    assert process.answer(Draw(f"{path}:kite", {})).printed == "executed\n"


def test_a_drawing_by_chance_has_its_seed_and_another_drawing_its_name(process, program):
    path = program(KITE)
    answer = process.answer(Draw(f"{path}:tail", {}, seed=17))
    assert (answer.chosen, answer.seed) == ("tail", 17)
    assert shlex.split(head_of(answer)["live"]["command"])[2:] == [f"{path}:tail", "--seed", "17"]
    # A drawing that is gone gives way to the first; one that was never there is told.
    gone = process.answer(Draw(f"{path}:gone", {}))
    assert (gone.trouble, gone.chosen) == ("", "kite")


def test_a_name_that_is_not_there_is_told_at_first(own, program):
    answer = own.answer(Draw(f"{program(KITE)}:kyte", {}))
    assert "did you mean 'kite'" in answer.trouble
    assert answer.message == b""


def test_a_small_picture_is_only_that(process, program):
    path = program(KITE)
    process.answer(Draw(f"{path}:kite", {}))
    process.until(Findings)
    answer = process.answer(Draw(f"{path}:kite", {"sides": "3"}, number=2, turned="3"))
    head = head_of(answer)
    assert (head["kind"], head["values"], head["turned"]) == ("small", {"sides": "3"}, "3")
    assert "live" not in head
    process.ask(Save(".svg", (), ""))
    saved = process.until(File)
    assert (saved.name, saved.trouble) == ("kite.svg", "")
    assert not any(isinstance(one, Findings) for one in process.said)
    process.answer(Draw(f"{path}:kite", {"sides": "3"}))
    process.ask(Save(".svg", (), ""))
    assert len(process.until(File).content) < len(saved.content)  # four sides were the last picture


def test_pictures_are_saved_in_their_sizes_and_refusals_told(process, program):
    process.answer(Draw(str(program(KITE)), {}))
    sizes = []
    for scale in (1, 2):
        process.ask(Save(".png", ("grid",), "", scale))
        sizes.append(int.from_bytes(process.until(File).content[16:20], "big"))
    assert sizes == [200, 400]
    process.ask(Save(".png", (), "odd words"))
    told = process.until(File)
    assert (told.name, told.content, bool(told.trouble)) == ("", b"", True)


def test_a_text_that_is_typed_stands_for_the_file(process, program):
    path = program(KITE)
    typed = KITE.replace("def kite", "def kestrel")
    answer = process.answer(Draw(str(path), {}, text=typed, version=3))
    assert (answer.chosen, answer.printed) == ("kestrel", "executed\n")
    assert process.answer(Draw(str(path), {}, text=typed)).printed == ""
    assert process.answer(Draw(str(path), {})).chosen == "kite"


def test_modules_beside_it_are_its_files_and_read_anew(process, program):
    wind = program("LENGTH = 2\n", "wind.py")
    path = program(
        "from ovlo import drawing\nimport wind\n\n@drawing()\ndef kite(nib):\n"
        "    for _ in range(wind.LENGTH):\n        nib.forward(9)\n"
    )
    answer = process.answer(Draw(str(path), {}))
    assert (head_of(answer)["drawing"]["steps"], set(answer.files)) == (3, {str(path), str(wind)})
    program("LENGTH = 17\n", "wind.py")
    assert head_of(process.answer(Draw(str(path), {})))["drawing"]["steps"] == 18


def test_a_script_is_a_drawing_without_parameters(process, program):
    path = program("from ovlo import Sheet\nnib = Sheet(90, 60).new_nib()\nnib.forward(5)\n", "script.py")
    answer = process.answer(Draw(str(path), {}))
    (about,) = answer.drawings
    assert (about.name, about.summary, about.parameters) == (
        "script",
        "A script, which has no parameters.",
        [],
    )
    assert (answer.chosen, set(answer.files)) == ("script", {str(path)})
    assert head_of(answer)["live"]["command"] == f"ovlo draw {path}"


@pytest.mark.parametrize(
    ("line", "brief"),
    [
        ("nib.foward(30)", "nib has no 'foward'; did you mean forward?"),
        ("sides = int('x')", "'x' is not a number; leave only its digits"),
        ("nib.forward(30", "This bracket is never closed; add the closing one."),
    ],
)
def test_trouble_names_its_line(process, program, line, brief):
    path = program(f"from ovlo import drawing\n\n@drawing()\ndef kite(nib):\n    {line}\n")
    answer = process.answer(Draw(str(path), {}))
    assert answer.trouble
    assert (answer.line, answer.brief) == (5, f"line 5: {brief}")


def test_trouble_in_a_module_names_the_line_that_leads_there(process, program):
    program("def blow(nib):\n    nib.forward(1 / 0)\n", "wind.py")
    path = program(
        "from ovlo import drawing\nimport wind\n\n@drawing()\ndef kite(nib):\n    wind.blow(nib)\n"
    )
    assert process.answer(Draw(str(path), {})).line == 6
    program("LENGTH = 1 / 0\n", "wind.py")
    assert process.answer(Draw(str(path), {})).line == 2


def test_a_bad_value_is_told_with_what_there_is_to_set(process, program):
    answer = process.answer(Draw(f"{program(KITE)}:kite", {"sides": "many"}))
    assert "sides" in answer.trouble
    assert (answer.message, answer.chosen, len(answer.drawings)) == (b"", "kite", 2)


def test_a_failing_picture_is_not_the_one_that_is_saved(process, program):
    path = program(KITE)
    process.answer(Draw(f"{path}:kite", {}))
    process.ask(Save(".svg", (), ""))
    good = process.until(File).content
    path = program(KITE.replace("nib.left(89)", "nib.left('x')"))
    answer = process.answer(Draw(f"{path}:kite", {}))
    assert answer.trouble
    assert answer.message
    process.ask(Save(".svg", (), ""))
    assert process.until(File).content == good


def test_prints_are_kept_up_to_a_number_the_last_of_them(process, program):
    path = program(
        "from ovlo import drawing\n\n@drawing()\ndef kite(nib):\n"
        f"    print('up')\n    print('x' * {MOST_PRINTED - 1}, flush=True)\n    nib.forward(5)\n"
    )
    assert process.answer(Draw(str(path), {})).printed == "x" * (MOST_PRINTED - 1) + "\n"


def test_questions_are_asked_and_answered_and_input_is_what_it_was(process, program):
    path = program(
        "from ovlo import drawing\n\n@drawing()\ndef kite(nib):\n    nib.forward(float(input('How far? ')))\n"
    )
    for length in ("7", "9"):
        process.ask(Draw(str(path), {}))
        assert process.until(Question).words == "How far? "
        process.ask(Draw(str(path), {}))  # is no answer
        process.ask(Words(length))
        assert process.until(Answer).trouble == ""


def test_progress_is_told_with_its_line_until_it_is_stopped(process, program):
    path = program(
        "from ovlo import drawing\n\n@drawing()\ndef kite(nib):\n    nib.forward(5)\n"
        "    while True:\n        nib.left(1)\n"
    )
    process.ask(Draw(str(path), {}))
    first, second = process.until(Running), process.until(Running)
    assert second.seconds - first.seconds == pytest.approx(OFTEN, abs=OFTEN)
    assert second.line in (6, 7)
    process.interrupt()
    answer = process.until(Answer)
    assert answer.trouble.startswith("Stopped: it was asked to")
    assert answer.line in (6, 7)
    # Nothing is told of it any more.
    assert not process.child.connection.poll(2 * OFTEN)
    limited = Draw(str(path), {}, limits=replace(Limits(), seconds=0.3))
    assert process.answer(limited).trouble.startswith("Stopped")


def test_a_check_gives_way_to_what_is_wanted(own, program):
    path = program(KITE.replace("nib.left(89)", "nib.left(89 + _ % 3)"))
    own.answer(Draw(f"{path}:kite", {"sides": "20000"}))
    time.sleep(CALM + 0.1)
    own.interrupt()
    answer = own.answer(Draw(f"{path}:kite", {"sides": "3"}, version=9))
    assert head_of(answer)["drawing"]["steps"] == 4
    assert own.until(Findings).version == 9
    assert not any(isinstance(one, Findings) for one in own.said)


class Told:
    """Hears what a worker says, and waits for it."""

    def __init__(self) -> None:
        self.said: queue.Queue = queue.Queue()

    def until(self, kind):
        while not isinstance(told := self.said.get(timeout=30), kind):
            pass
        return told


@pytest.fixture
def worker():
    worker = ProgramWorker()
    yield worker
    if worker._connection is not None:
        worker.close()


def test_a_worker_says_what_its_process_says_and_begins_another(program, worker):
    path, told = program(KITE), Told()
    worker.listen(told.said.put)
    worker.ask(Draw(f"{path}:kite", {}))
    assert told.until(Answer).trouble == ""
    assert not worker.is_warm
    worker.warm_up()
    worker.warm_up()
    end = time.monotonic() + 20
    while not worker.is_warm and time.monotonic() < end:
        time.sleep(0.01)
    spare, first = worker._spare, worker._child.process.pid
    os.kill(first, signal.SIGKILL)
    assert told.until(type(None)) is None
    worker.restart()
    assert worker._child is spare
    worker.ask(Draw(f"{path}:kite", {"sides": "3"}))
    assert head_of(told.until(Answer))["drawing"]["steps"] == 4
    path = program(KITE.replace("range(sides)", "iter(int, 1)"))
    worker.ask(Draw(f"{path}:kite", {}))
    told.until(Running)
    worker.interrupt()
    assert told.until(Answer).trouble.startswith("Stopped")
    ended = worker._child.process.pid
    worker.restart()
    with pytest.raises(ProcessLookupError):
        os.kill(ended, 0)
    pids = [one.process.pid for one in (worker._child, worker._spare) if one is not None]
    worker.close()
    for pid in pids:
        with pytest.raises(ProcessLookupError):
            os.kill(pid, 0)
    assert told.said.empty()  # its end is no word
