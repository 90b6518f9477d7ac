"""What pages are told of a program, and what is asked of its process, without any of the three."""

from __future__ import annotations

import json
from dataclasses import replace
from pathlib import Path

import pytest

from ovlo.core.values.errors import BadUse
from ovlo.studio.exploring import explorer as module
from ovlo.studio.exploring.explorer import MOST_AROUND, MOST_KEPT, MOST_VALUES, PAUSE, SPARE_AFTER, Explorer
from ovlo.studio.exploring.manuscript import Manuscript
from ovlo.studio.exploring.requests import (
    Answer,
    Draw,
    DrawingInfo,
    File,
    Findings,
    Question,
    Running,
    Save,
    Words,
)

KITE = """\
from ovlo import drawing


@drawing()
def kite(nib, sides: int = 4, wind=True):
    nib.forward(30)
"""

SIDES = {"name": "sides", "kind": "span", "default": "4", "low": 3, "high": 12, "step": 1}
WIND = {"name": "wind", "kind": "switch", "default": "yes"}
KITES = (DrawingInfo("kite", "k", "A kite.", [SIDES, WIND]), DrawingInfo("tail", "", "A tail.", []))


class Server:
    """Does what is to be done soon when it is told to, and what is to be done later when its time comes."""

    def __init__(self) -> None:
        self.soon_done: list = []
        self.later_done: list[tuple[float, object]] = []

    def soon(self, work) -> None:
        self.soon_done.append(work)

    def later(self, seconds: float, work) -> None:
        self.later_done.append((seconds, work))

    def go(self, seconds: float | None = None) -> None:
        """Do all that is to be done soon, and what was to be done in so many seconds."""
        while self.soon_done:
            self.soon_done.pop(0)()
        for due in [one for one in self.later_done if one[0] == seconds]:
            self.later_done.remove(due)
            due[1]()


class Worker:
    is_warm = False

    def __init__(self) -> None:
        self.asked: list = []
        self.did: list[str] = []

    def listen(self, told) -> None:
        self.told = told

    def ask(self, request) -> None:
        self.asked.append(request)

    def interrupt(self) -> None:
        self.did.append("interrupt")

    def restart(self) -> None:
        self.did.append("restart")

    def warm_up(self) -> None:
        self.did.append("warm up")

    def close(self) -> None:
        self.did.append("close")


class Watch:
    def __init__(self, changed) -> None:
        self.changed, self.files, self.is_anxious, self.has_ended = changed, set(), False, False

    def look_at(self, files) -> None:
        self.files = files

    def end(self) -> None:
        self.has_ended = True


class Line:
    """A page, that notes what it is told."""

    def __init__(self) -> None:
        self.heard: list = []

    def send(self, told) -> None:
        # As it goes over the line: what is changed afterwards is not seen.
        self.heard.append(told if isinstance(told, bytes) else json.loads(json.dumps(told)))

    def kinds(self) -> list[str]:
        """Of all it was told since this was asked last."""
        heard, self.heard = self.heard, []
        return ["picture" if isinstance(told, bytes) else told["kind"] for told in heard]

    def last(self, kind: str) -> dict:
        return [told for told in self.heard if isinstance(told, dict) and told["kind"] == kind][-1]


class Studio:
    """An explorer, and all that is around it."""

    def __init__(self, path: Path, read_only: bool = False, **about) -> None:
        self.path, self.server, self.worker = path, Server(), Worker()
        self.manuscript = Manuscript(path, read_only)
        request = replace(Draw(str(path), {}), **about)
        self.explorer = Explorer(request, self.server, self.worker, self.manuscript)  # type: ignore[arg-type]
        self.watch = self.explorer._watch
        self.server.go()
        self.server.go()
        self.line, self.other = self.page(), self.page()

    def page(self) -> Line:
        line = Line()
        self.explorer.open(line)
        line.opening = line.kinds()
        return line

    def wish(self, do: str, **about) -> None:
        self.explorer.hear(self.line, {"do": do} | about)

    def take(self, told) -> None:
        """The process says something."""
        self.worker.told(told)
        self.server.go()

    def answer(self, **about) -> Answer:
        """The process answers what it was asked last."""
        given = {"message": b"picture", "drawings": KITES, "chosen": "kite", "seconds": 0.01} | about
        answer = Answer(self.worker.asked[-1], **given)
        self.take(answer)
        return answer


@pytest.fixture(autouse=True)
def _no_threads(monkeypatch):
    monkeypatch.setattr(module, "FileWatch", Watch)


@pytest.fixture
def studio(tmp_path):
    path = tmp_path / "kite.py"
    path.write_text(KITE)
    return Studio(path)


# ── pages ───────────────────────────────────────────────────────────────────────────────────────────────────


def test_a_page_is_told_how_things_stand(studio):
    assert studio.line.opening == ["text", "trouble", "printed", "kept"]
    studio.answer(printed="up\n", trouble="", notices="Line 6 does nothing.")
    studio.take(Findings([{"words": "It does not close."}], 1))
    page = studio.page()
    assert page.opening == [
        *("text", "form", "picture", "findings", "vocabulary"),
        *("trouble", "printed", "kept"),
    ]
    studio.explorer.open(page)
    text = page.last("text")
    assert (text["file"], text["text"], text["version"], text["readOnly"]) == ("kite.py", KITE, 1, False)
    assert (text["isThere"], text["isUnsaved"], text["trouble"], text["waiting"]) == (True, False, "", {})
    assert page.last("printed")["words"] == "up\n"
    assert page.last("findings")["textVersion"] == 1
    assert page.last("trouble")["notices"] == "Line 6 does nothing."
    assert page.last("form")["chosen"] == "kite"
    assert [one["name"] for one in page.last("form")["drawings"]] == ["kite", "tail"]


def test_a_page_that_is_gone_is_told_nothing_and_two_are_counted(studio):
    studio.explorer.hear(studio.other, {"do": "bye"})
    studio.answer()
    assert studio.other.heard == []
    assert "picture" in studio.line.kinds()
    studio.explorer.close(studio.line)
    assert studio.explorer.presence._lines == set()


def test_a_wish_that_is_none_does_nothing(studio):
    studio.answer()
    studio.line.kinds()
    asked = len(studio.worker.asked)
    studio.wish("nothing of ours")
    studio.wish("choose", name="os.system")
    studio.wish("save", ending=".exe", overlays=[], only="")
    studio.wish("save", ending=".svg", overlays={"grid": 1}, only="")
    studio.wish("save", ending=".svg", overlays=[], only=7)
    studio.wish("save", ending=".svg", overlays=[], only="", scale=99)
    studio.wish("keep", caption=5)
    studio.wish("answer", words="7")
    studio.wish("around", words="8", begin=0, end=1, version=1)
    for place in ({"version": "1"}, {"begin": None}, {"end": 0.5}):
        studio.wish("edit", **({"version": 1, "begin": 0, "end": 0, "words": "x"} | place))
    assert (len(studio.worker.asked), studio.line.heard) == (asked, [])


def test_of_odd_values_and_names_nothing_is_used(studio):
    studio.answer()
    studio.wish("values", values=["sides"], seed="many")
    assert (studio.worker.asked[-1].values, studio.worker.asked[-1].seed) == ({}, None)
    studio.answer()
    asked = len(studio.worker.asked)
    studio.wish("write", values={"__class__": "5"})
    assert (studio.manuscript.text, len(studio.worker.asked)) == (KITE, asked)
    studio.wish("values", values={"sides": "5", "side": 5})
    assert studio.worker.asked[-1].values == {"sides": "5"}


def test_its_end_is_told(studio):
    studio.explorer.end()
    studio.server.go()
    assert studio.line.kinds() == ["ended"]
    assert studio.worker.did[-1] == "close"
    assert studio.watch.has_ended


# ── values ──────────────────────────────────────────────────────────────────────────────────────────────────


def test_values_are_drawn_and_told_to_the_other_pages(studio):
    studio.answer(seed=17)
    studio.line.kinds(), studio.other.kinds()
    studio.wish("values", values={"sides": "5", "wind": "", "n": 3})
    assert (studio.worker.asked[-1].values, studio.worker.asked[-1].seed) == ({"sides": "5"}, 17)
    assert (studio.line.kinds(), studio.other.kinds()) == ([], ["values"])
    # A page that comes later has them in its form.
    studio.explorer.open(studio.line)
    assert studio.line.last("form")["values"] == {"sides": "5"}
    studio.line.kinds()
    studio.answer(seed=17)
    assert studio.line.kinds() == ["picture", "trouble", "printed"]  # no form: it is the same
    studio.wish("values", values={"sides": "6"}, seed=4)
    assert studio.worker.asked[-1].seed == 4
    studio.answer(seed=4)
    studio.wish("values", values={"sides": "6"}, seed=True)
    assert studio.worker.asked[-1].seed == 4


def test_too_many_values_are_none(studio):
    studio.answer()
    studio.wish("values", values={f"v{i}": "1" for i in range(MOST_VALUES)})
    assert len(studio.worker.asked[-1].values) == MOST_VALUES
    studio.answer()
    studio.wish("values", values={f"v{i}": "1" for i in range(MOST_VALUES + 1)})
    assert studio.worker.asked[-1].values == {}


def test_chance_is_rolled_for_all_pages(studio):
    studio.answer(seed=17)
    studio.line.kinds()
    studio.wish("roll", values={"sides": "5"})
    assert studio.worker.asked[-1].seed not in (17, None)
    assert studio.worker.asked[-1].values == {"sides": "5"}
    assert studio.line.kinds() == ["values"]


def test_another_drawing_begins_with_its_own_values(studio):
    studio.answer(seed=17)
    studio.wish("values", values={"sides": "5"})
    studio.answer(seed=17)
    studio.wish("keep", values={"sides": "5"}, caption="five")
    studio.line.kinds()
    studio.wish("choose", name="tail")
    asked = studio.worker.asked[-1]
    assert (asked.target, asked.values, asked.seed) == (f"{studio.path}:tail", {}, None)
    assert studio.line.last("kept")["sets"] == []


def test_values_are_kept_up_to_a_number(studio):
    studio.answer(seed=17)
    for i in range(MOST_KEPT + 1):
        studio.wish("keep", values={"sides": str(i)}, seed=i, caption=f"sides={i}")
    sets = studio.line.last("kept")["sets"]
    assert len(sets) == MOST_KEPT == 200
    assert sets[3] == {"values": {"sides": "3"}, "seed": 3, "caption": "sides=3"}


def test_neighbours_are_counted_from_one_and_chance_has_three(studio):
    studio.answer()
    studio.wish("neighbours", values={"sides": "5"})
    asked = [studio.worker.asked[-1], *studio.explorer._schedule._aside]
    assert [one.number for one in asked] == [1, 2, 3]
    assert [one.values for one in asked] == [
        {"sides": "4"},
        {"sides": "6"},
        {"sides": "5", "wind": "no"},
    ]
    studio.answer(message=b"small")
    assert studio.line.heard[-1] == b"small"  # and nothing else of it
    studio.answer()
    studio.answer()
    studio.wish("values", values={"sides": "5"})
    studio.answer(seed=17)
    studio.wish("neighbours", values={"sides": "5"})
    asked = [studio.worker.asked[-1], *studio.explorer._schedule._aside]
    assert [one.number for one in asked] == [1, 2, 3, 4, 5, 6]
    assert [one.seed for one in asked[:3]] == [17, 17, 17]
    assert len({one.seed for one in asked} - {17}) == 3


def test_a_file_is_handed_over_or_told_why_not(studio):
    studio.answer()
    studio.line.kinds()
    studio.wish("save", ending=".png", overlays=["steps", "grid", "odd"], only="2", scale=3)
    assert studio.worker.asked[-1] == Save(".png", ("grid", "steps"), "2", 3)
    studio.take(File("kite.png", b"\x89PNG", ""))
    (told,) = studio.line.heard
    assert b"kite.png" in told
    assert b"\x89PNG" in told
    studio.line.kinds()
    studio.wish("save", ending=".svg", overlays=[], only="")
    assert studio.worker.asked[-1] == Save(".svg", (), "", 1)
    studio.take(File("", b"", "Nothing is drawn yet."))
    assert studio.line.heard == [{"kind": "told", "words": "Nothing is drawn yet."}]


# ── text ────────────────────────────────────────────────────────────────────────────────────────────────────


def typed(studio, words: str, at: int = 0, end: int | None = None) -> None:
    version = studio.manuscript.version
    studio.wish("edit", version=version, begin=at, end=at if end is None else end, words=words)


def test_what_is_typed_is_drawn_once_nothing_more_is_typed(studio):
    studio.answer()
    studio.line.kinds(), studio.other.kinds()
    typed(studio, "# a\n")
    assert studio.other.heard == [
        {"do": "", "kind": "edit", "version": 2, "begin": 0, "end": 0, "words": "# a\n"}
    ]
    typed(studio, "# b\n")
    assert studio.line.heard == []
    assert len(studio.worker.asked) == 1
    studio.server.go(PAUSE)
    assert len(studio.worker.asked) == 2  # both at once
    assert (studio.worker.asked[-1].text, studio.worker.asked[-1].version) == (f"# b\n# a\n{KITE}", 3)
    assert studio.line.last("typing")["isUnsaved"]
    studio.server.go(PAUSE)
    assert len(studio.worker.asked) == 2


def test_who_types_on_an_older_text_is_told_the_newest(studio):
    studio.wish("edit", version=0, begin=0, end=0, words="x")
    studio.wish("edit", version=1, begin=0, end=0, words=7)
    assert studio.line.kinds() == ["text", "text"]
    assert studio.manuscript.text == KITE
    assert studio.other.heard == []


def test_what_reaches_outside_waits_until_it_is_asked_for(studio):
    studio.answer()
    typed(studio, "import os\nos.remove('kite.txt')\n")
    studio.server.go(PAUSE)
    waiting = studio.line.last("typing")["waiting"]
    assert waiting["line"] == 1
    assert waiting["words"].endswith("so the program is drawn only when you press Ctrl+Enter or save.")
    assert not waiting["isUnfinished"]
    assert len(studio.worker.asked) == 1
    place = studio.manuscript.text.index("30")
    studio.wish("turn", version=2, begin=place, end=place + 2, words="31")
    assert len(studio.worker.asked) == 1  # nothing is tried either
    studio.line.kinds()
    studio.wish("draw")
    assert studio.worker.asked[-1].text.startswith("import os")
    assert studio.line.last("typing")["waiting"] == {}


@pytest.mark.parametrize(("words", "line"), [("def kite(:\n", 1), ("\0", 0)])
def test_what_is_not_finished_waits_too(studio, words, line):
    studio.answer()
    typed(studio, words)
    studio.server.go(PAUSE)
    waiting = studio.line.last("typing")["waiting"]
    assert (waiting["line"], waiting["isUnfinished"], bool(waiting["words"])) == (line, True, True)
    assert len(studio.worker.asked) == 1


def test_a_program_that_is_not_there_is_drawn_as_soon_as_it_is_typed(tmp_path):
    studio = Studio(tmp_path / "new.py")
    assert studio.worker.asked == []
    # The words and a second process are made ready nevertheless.
    assert studio.line.opening == ["text", "vocabulary", "trouble", "printed", "kept"]
    studio.server.go(SPARE_AFTER)
    assert studio.worker.did == ["warm up"]
    typed(studio, "a = 1\n")
    studio.server.go(PAUSE)
    assert (studio.worker.asked[-1].text, studio.line.last("typing")["isThere"]) == ("a = 1\n", False)
    studio.answer()
    studio.wish("store")
    assert (tmp_path / "new.py").read_text() == "a = 1\n"
    assert studio.line.last("typing")["isThere"]
    assert studio.line.last("told")["words"] == "Saved: new.py."
    assert len(studio.worker.asked) == 2


def test_a_file_that_cannot_be_read_yet_is_drawn_from_disk(tmp_path):
    (tmp_path / "kite.py").mkdir()
    studio = Studio(tmp_path / "kite.py")
    assert [one.text for one in studio.worker.asked] == [None]


def test_values_are_written_into_the_text(studio):
    studio.answer()
    studio.wish("values", values={"sides": "6", "odd": "7"})
    studio.answer()
    studio.line.kinds()
    studio.wish("write", values={"sides": "6", "odd": "7"})
    assert "sides: int = 6" in studio.manuscript.text
    assert studio.worker.asked[-1].text == studio.manuscript.text
    assert studio.worker.asked[-1].values == {"odd": "7"}
    assert studio.line.last("text")["text"] == studio.manuscript.text
    words = studio.line.last("told")["words"]
    assert words.startswith("Now in the program: sides. Save it to keep them. ")
    assert "odd" in words
    assert studio.path.read_text() == KITE
    studio.wish("write", values={})
    assert studio.line.last("told")["words"] == "kite.py already has these values."


def test_read_only_nothing_is_written(tmp_path):
    (tmp_path / "kite.py").write_text(KITE)
    studio = Studio(tmp_path / "kite.py", read_only=True)
    studio.answer()
    studio.wish("write", values={"sides": "6"})
    assert studio.line.last("told")["words"] == "kite.py was opened to be read only."
    with pytest.raises(BadUse, match="read only"):
        studio.wish("store")
    (tmp_path / "odd.py").write_bytes(b"# coding: martian\n")
    odd = Studio(tmp_path / "odd.py")
    odd.wish("write", values={"sides": "6"})
    assert "cannot be written in here" in odd.line.last("told")["words"]


def test_a_file_saved_elsewhere_is_taken_and_drawn(studio):
    studio.answer()
    studio.line.kinds()
    studio.path.write_text(f"# new\n{KITE}")
    studio.watch.changed()
    studio.server.go()
    assert studio.worker.asked[-1].text == f"# new\n{KITE}"
    assert studio.line.kinds() == ["text", "typing"]
    studio.answer()
    # A module of it was saved: it is drawn again, whatever waits.
    studio.watch.changed()
    studio.server.go()
    assert len(studio.worker.asked) == 3


def test_what_waits_is_drawn_once_its_text_is_saved_by_another_program(studio):
    studio.answer()
    typed(studio, "import os\nos.remove('kite.txt')\n")
    studio.server.go(PAUSE)
    assert len(studio.worker.asked) == 1
    studio.path.write_text(studio.manuscript.text)
    studio.watch.changed()
    studio.server.go()
    assert studio.worker.asked[-1].text == studio.manuscript.text
    told = studio.line.last("typing")
    assert (told["waiting"], told["isUnsaved"]) == ({}, False)


def test_two_texts_are_told_and_one_is_kept(studio):
    studio.answer()
    for is_mine in (True, False):
        typed(studio, "# mine\n")
        studio.server.go(PAUSE)
        studio.answer()
        mine = studio.manuscript.text
        studio.path.write_text(f"# theirs {is_mine}\n{KITE}")
        studio.watch.changed()
        studio.server.go()
        assert studio.worker.asked[-1].text == mine
        assert "-# theirs" in studio.line.last("typing")["difference"]
        studio.answer()
        studio.line.kinds()
        studio.wish("settle", mine=is_mine)
        assert studio.manuscript.text == (mine if is_mine else f"# theirs {is_mine}\n{KITE}")
        assert studio.line.last("text")["difference"] == ""
        assert studio.worker.asked[-1].text == studio.manuscript.text
        studio.answer()
    assert studio.worker.asked[-1].text.startswith("# theirs False")


def test_a_number_is_tried_and_tried_around(studio):
    studio.answer()
    place = studio.manuscript.text.index("30")
    where = {"version": 1, "begin": place, "end": place + 2}
    studio.wish("turn", words="31", **where)
    assert (studio.worker.asked[-1].turned, "forward(31)" in studio.worker.asked[-1].text) == ("31", True)
    assert studio.manuscript.text == KITE
    studio.line.kinds()
    studio.answer(drawings=KITES[:1])
    assert studio.line.kinds() == ["picture", "trouble", "printed"]  # the form is that of the text
    for odd in ("len", "1, 2", ""):
        studio.wish("turn", words=odd, **where)
    studio.wish("turn", words="31", **(where | {"version": 7}))
    studio.wish("turn", words="31", **(where | {"begin": "0"}))
    assert len(studio.worker.asked) == 2
    studio.wish("turn", words=None, **where)
    assert (studio.worker.asked[-1].turned, studio.worker.asked[-1].text) == ("", KITE)
    studio.answer()
    studio.wish("around", words=["28", "x", *map(str, range(MOST_AROUND - 2))], **where)
    asked = [studio.worker.asked[-1], *studio.explorer._schedule._aside]
    assert [one.number for one in asked] == [1, 3, 4, 5, 6, 7, 8]
    assert [one.turned for one in asked[:3]] == ["28", "0", "1"]
    studio.wish("stop")
    studio.answer()
    before = len(studio.worker.asked)
    studio.explorer._schedule._aside.clear()
    studio.answer()
    studio.wish("around", words=list(map(str, range(MOST_AROUND + 1))), **where)
    assert (MOST_AROUND, len(studio.explorer._schedule._aside)) == (8, 0)
    assert len(studio.worker.asked) == before


# ── the process ─────────────────────────────────────────────────────────────────────────────────────────────


def test_progress_and_questions_are_told_and_answered_once(studio):
    studio.take(Running(1.5, 6))
    studio.take(Question("How many?"))
    assert studio.line.heard == [
        {"kind": "running", "seconds": 1.5, "line": 6},
        {"kind": "ask", "words": "How many?"},
    ]
    assert studio.page().opening.count("ask") == 1
    studio.line.kinds()
    studio.wish("answer", words="7")
    studio.wish("answer", words="8")
    assert studio.worker.asked[1:] == [Words("7")]
    assert studio.line.kinds() == ["answered"]
    assert studio.page().opening.count("ask") == 0
    studio.take(Question("How long?"))
    studio.line.kinds()
    studio.take(Answer(studio.worker.asked[0], message=b"picture", drawings=KITES, chosen="kite"))
    assert studio.line.kinds() == ["answered", "form", "picture", "trouble", "printed", "vocabulary"]


def test_trouble_is_told_over_the_last_good_picture(studio):
    studio.answer(seed=17, files={str(studio.path): (1, 2)})
    assert not studio.watch.is_anxious
    studio.line.kinds()
    studio.wish("values", values={"sides": "0"})
    studio.answer(
        message=b"so far", trouble="Line 6: no.", line=6, brief="forward: no", drawings=(), chosen=""
    )
    told = studio.line.last("trouble")
    assert (told["words"], told["line"], told["brief"]) == ("Line 6: no.", 6, "forward: no")
    assert studio.line.kinds() == ["trouble", "printed"]
    assert studio.watch.is_anxious
    assert studio.watch.files == {studio.path.resolve()}
    assert studio.explorer._last.drawings == KITES
    # What chance was, it stays: nothing is known of it from a program that fails.
    studio.wish("values", values={"sides": "5"})
    assert studio.worker.asked[-1].seed == 17
    studio.answer(seed=None)
    studio.wish("values", values={"sides": "5"})
    assert studio.worker.asked[-1].seed == 17  # the one that was asked for
    assert not studio.watch.is_anxious


def test_the_first_picture_is_shown_even_if_it_fails(studio):
    studio.answer(message=b"so far", trouble="Line 6: no.")
    assert studio.line.kinds() == ["form", "picture", "trouble", "printed", "vocabulary"]


def test_what_is_stopped_for_the_next_is_no_trouble(studio):
    studio.answer()
    studio.wish("values", values={"sides": "5"})
    studio.wish("values", values={"sides": "6"})
    studio.line.kinds()
    studio.answer(trouble="Stopped.")
    assert studio.line.kinds() == []
    assert studio.worker.asked[-1].values == {"sides": "6"}


def test_the_modules_of_a_program_are_looked_at(studio):
    studio.answer(files={str(studio.path): (1, 2), str(studio.path.with_name("wind.py")): (1, 2)})
    assert studio.watch.files == {studio.path.resolve(), studio.path.with_name("wind.py")}


def test_a_check_belongs_to_its_picture(studio):
    studio.answer()
    assert studio.explorer._schedule.may_check
    studio.take(Findings([], 1))
    assert not studio.explorer._schedule.may_check
    assert studio.page().opening.count("findings") == 1
    studio.wish("values", values={"sides": "5"})
    studio.answer()
    assert studio.page().opening.count("findings") == 0


def test_a_process_that_ends_is_begun_anew(studio):
    studio.take(None)
    assert studio.worker.did == ["restart"]
    assert studio.line.last("trouble")["words"] == "The program ended its process."
    studio.line.kinds()
    studio.take(None)  # while it rests
    assert (studio.worker.did, studio.line.heard) == (["restart", "restart"], [])


def test_a_program_that_does_not_stop_is_ended(studio):
    studio.explorer._restart()
    assert studio.worker.did[0] == "restart"
    words = "Stopped: the program did not react, so its process was ended."
    assert studio.line.last("trouble")["words"] == words
    studio.wish("draw")
    assert len(studio.worker.asked) == 2


def test_a_file_is_one_message(studio):
    studio.wish("save", ending=".svg", overlays=[], only="")
    studio.take(File("kite.svg", bytes(range(256)), ""))
    (told,) = (told for told in studio.line.heard if isinstance(told, bytes))
    assert bytes(range(256)) in told
