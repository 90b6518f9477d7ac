"""The small pieces of the studio, each by itself: controls, words, pictures, browsers, watches, ways in."""

from __future__ import annotations

import stat
import sys
import threading
import types
from pathlib import Path
from typing import Annotated, Literal
from urllib.parse import unquote, urlsplit

import pytest

from ovlo import Colour, Motif, Sheet, Span, drawing
from ovlo.core.values.errors import BadUse, NoBrowser
from ovlo.studio import entry, notebook, opening, presence, showing, small_pictures
from ovlo.studio.exploring.controls import controls_of, neighbours
from ovlo.studio.exploring.file_watch import FileWatch
from ovlo.studio.exploring.vocabulary import vocabulary
from ovlo.studio.presence import Presence


@drawing(width=200, height=160)
def kite(
    nib,
    sides: Annotated[int, Span(3, 12)] = 4,
    gap: Annotated[float, Span(0, 1, 0.25)] = 0.5,
    side: float = 30,
    sail: Colour = "tomato",
    wind: Literal["calm", "breeze", "gust", "storm", "squall", "gale"] = "calm",
    has_tail: bool = True,
    name="Möwe",
):
    nib.polygon(sides, radius=40, fill=sail)


# ── controls ────────────────────────────────────────────────────────────────────────────────────────────


def test_each_parameter_has_its_control():
    controls = {one["name"]: one for one in controls_of(kite)}
    assert {name: one["kind"] for name, one in controls.items()} == {
        "sides": "span",
        "gap": "span",
        "side": "span",
        "sail": "colour",
        "wind": "choice",
        "has_tail": "switch",
        "name": "text",
    }
    assert controls["sides"] == {
        "name": "sides",
        "kind": "span",
        "default": "4",
        "low": 3,
        "high": 12,
        "step": 1,
        "allowed": controls["sides"]["allowed"],
    }
    assert controls["wind"]["choices"] == ["calm", "breeze", "gust", "storm", "squall", "gale"]
    assert "low" not in controls["sail"]
    assert "choices" not in controls["sail"]


def test_neighbours_differ_in_one_parameter_each():
    controls = controls_of(kite)
    assert neighbours(controls, {"sides": "12", "name": "Eule"}) == [
        {"name": "Eule", **one}
        for one in (
            {"sides": "11"},
            {"sides": "12", "gap": "0.25"},
            {"sides": "12", "gap": "0.75"},
            *({"sides": "12", "side": text} for text in _around(controls[2])),
            *({"sides": "12", "wind": words} for words in ("breeze", "gust", "storm", "squall")),
            {"sides": "12", "has_tail": "no"},
        )
    ]
    assert neighbours(controls[5:6], {"has_tail": "no"}) == [{"has_tail": "yes"}]
    # What is no number yet has those around the middle.
    assert neighbours(controls[:1], {"sides": "many"}) == [{"sides": "6.5"}, {"sides": "8.5"}]


def _around(control) -> tuple[str, str]:
    step = (control["high"] - control["low"]) / 8
    return f"{30 - step:.6g}", f"{30 + step:.6g}"


# ── words ───────────────────────────────────────────────────────────────────────────────────────────────


def test_the_words_of_the_studio_are_all_names_with_their_signatures():
    words = vocabulary.__wrapped__()  # as it is made, and not as it is kept
    assert set(words) == {"kinds", "makers", "colours"}
    assert set(words["kinds"]) == {"nib", "sheet", "dice", "motif", "ovlo", "drawing"}
    by_name = {kind: {entry["name"]: entry for entry in entries} for kind, entries in words["kinds"].items()}
    assert not any(name.startswith("_") for entries in by_name.values() for name in entries)
    assert {"Sheet", "drawing", "Span"} <= set(by_name["ovlo"])
    forward = by_name["nib"]["forward"]
    assert forward["signature"].startswith("forward(distance")
    assert (forward["takes"][0], forward["isCall"]) == ("distance", True)
    assert forward["about"].endswith(".")
    assert "\n" not in "".join(entry["about"] for entry in words["kinds"]["nib"])
    ink = by_name["nib"]["ink"]
    assert (ink["signature"], ink["takes"], ink["isCall"], bool(ink["about"])) == ("ink", [], False, True)
    assert by_name["motif"]["from_svg"]["takes"][0] != "cls"
    run = by_name["drawing"]["run"]
    assert "**" in run["signature"]
    assert not any(name in run["takes"] for name in ("self", "values"))
    assert "at_once=False" in by_name["sheet"]["show"]["signature"]
    assert words["makers"]["new_nib"] == "nib"
    assert ["tomato", "#ff6347"] in words["colours"]


# ── cells of a notebook ─────────────────────────────────────────────────────────────────────────────────


class Shown:
    """What a cell displays, and what each of that becomes."""

    def __init__(self) -> None:
        self.displayed: list = []

    def __call__(self, shown, display_id=False):
        self.displayed.append([shown])
        return types.SimpleNamespace(update=self.displayed[-1].append) if display_id else None


@pytest.fixture
def shown(monkeypatch):
    pytest.importorskip("ipywidgets")
    shown = Shown()
    monkeypatch.setattr("IPython.display.display", shown)
    return shown


def test_a_cell_has_a_control_for_each_parameter_and_follows_them(shown):
    values = {"sides": 5, "gap": 0.5, "side": 30.0, "sail": "gold", "wind": "calm", "has_tail": True}
    notebook.live(kite, values | {"name": "Eule"}, None)
    (box,), pictures = shown.displayed
    kinds = {one.description: type(one).__name__ for one in box.children}
    assert kinds == {
        "sides": "IntSlider",
        "gap": "FloatSlider",
        "side": "FloatSlider",
        "sail": "Text",
        "wind": "Dropdown",
        "has_tail": "Checkbox",
        "name": "Text",
    }
    sides, gap, side, sail, wind, has_tail, name = box.children
    assert (sides.value, sides.min, sides.max, sides.step) == (5, 3, 12, 1)
    assert (gap.step, gap.min, gap.max) == (0.25, 0, 1)
    assert side.step == pytest.approx((side.max - side.min) / 200)
    assert (sail.value, sail.continuous_update, name.value) == ("gold", False, "Eule")
    assert (wind.options[1], has_tail.value) == ("breeze", True)
    assert len(pictures[0].trail) == 7
    sides.value = 7
    sail.value = "tomatto"
    assert len(pictures[1].trail) == 9
    assert "did you mean &#x27;tomato&#x27;" in pictures[2].data
    assert len(shown.displayed) == 2


def test_a_value_beyond_a_slider_widens_it_and_a_fraction_of_a_whole_one_is_kept(shown):
    notebook.live(kite, {"sides": 20, "side": -500.0, "gap": "half"}, None)
    sides, side, gap = shown.displayed[0][0].children
    assert (sides.min, sides.max) == (3, 20)
    assert (side.min, side.value) == (-500, -500)
    assert (type(gap).__name__, gap.value) == ("Text", "half")
    notebook.live(kite, {"sides": 4.5}, None)
    (sides,) = shown.displayed[2][0].children
    assert (type(sides).__name__, sides.value) == ("FloatSlider", 4.5)


def test_chance_stays_while_values_move_and_what_has_no_control_is_kept(shown):
    @drawing()
    def gusts(nib, way: float = 5, marks=()):
        nib.forward(nib.dice.number(0, 9) + way + len(marks))

    notebook.live(gusts, {"way": 5.0, "marks": (1, 2)}, None)
    (box,), pictures = shown.displayed
    (way,) = box.children
    way.value = 6.0
    first, second = (picture.trail.length[-1] for picture in pictures)
    assert second == pytest.approx(first + 1)
    assert first >= 7
    notebook.live(gusts, {"way": 5.0}, 17)
    assert shown.displayed[3][0].seed == 17


def test_a_cell_that_does_not_wait_follows_each_cell_after_it(shown, monkeypatch):
    looks: list = []
    events = types.SimpleNamespace(register=lambda name, look: looks.append((name, look)))
    monkeypatch.setattr(notebook, "_shell", lambda: types.SimpleNamespace(events=events))
    sheet = Sheet(200, 160)
    notebook.display(sheet, (), {}, wait=True)
    assert looks == []
    notebook.display(sheet, None, {}, wait=False)
    ((name, look),) = looks
    assert name == "post_run_cell"
    look()
    sheet.new_nib().forward(5)
    look()
    look()
    assert [len(one) for one in shown.displayed] == [1, 2]
    monkeypatch.setattr("IPython.display.display", lambda *_, **__: None)
    notebook.display(sheet, None, {}, wait=False)  # where nothing can be shown, nothing follows
    assert len(looks) == 1


def test_small_pictures_are_as_wide_as_one_another_and_named():
    sheet, line = Sheet(400, 200), Motif.record(lambda nib: nib.forward(5))
    words = small_pictures._list([sheet, line])
    assert words.count('<img width="160"') == 2
    assert "&lt;Sheet 400 × 200 px" in words
    assert small_pictures._list([]) is None
    assert small_pictures._list([sheet, 1]) is None
    assert "more" not in small_pictures._list([sheet] * 200)
    assert small_pictures._list([sheet] * 202).endswith("<p>… and 2 more</p>")


def test_frames_with_pictures_show_them_and_others_stay():
    pandas = pytest.importorskip("pandas")
    sheet = Sheet(400, 200)
    plain = pandas.DataFrame({"name": ["<b>"]})
    assert small_pictures._frame(plain) == plain._repr_html_()
    pictured = pandas.DataFrame(
        {"<i>": ["<b>", "c"], "n": [1, 2], "picture": [sheet, None]}, index=["<u>", 2]
    )
    table = small_pictures._frame(pictured)
    assert table.count("<img") == 1
    assert all(words in table for words in ("&lt;i&gt;", "&lt;b&gt;", "&lt;u&gt;", "<td>1</td>"))
    # Names that stand twice are left to the library.
    twice = pandas.DataFrame([[sheet, sheet]], columns=["a", "a"])
    assert "<img" not in small_pictures._frame(twice)


def test_lists_that_somebody_else_shows_stay_so():
    formatters = pytest.importorskip("IPython.core.formatters")
    shell = types.SimpleNamespace(
        display_formatter=types.SimpleNamespace(formatters={"text/html": formatters.HTMLFormatter()})
    )
    as_html = shell.display_formatter.formatters["text/html"]
    entry.show_small_pictures(shell)
    assert as_html([Sheet(90, 60)]).startswith("<img")
    as_html.for_type(list, lambda _: "mine")
    entry.show_small_pictures(shell)
    assert as_html([Sheet(90, 60)]) == "mine"


# ── ways in ─────────────────────────────────────────────────────────────────────────────────────────────


def test_a_sheet_is_shown_in_the_cell_or_in_the_browser(monkeypatch):
    told: list = []
    monkeypatch.setattr(notebook, "display", lambda *about: told.append(("cell", *about)))
    monkeypatch.setattr(showing, "show_sheet", lambda *about: told.append(("page", *about)))
    sheet = Sheet(90, 60)
    for is_notebook in (True, False):
        monkeypatch.setattr(notebook, "is_running", lambda is_notebook=is_notebook: is_notebook)
        entry.show(sheet, 2.5, at_once=False, wait=False, pointer=True)
    entry.show(sheet, 2.5, at_once=True, wait=True, pointer=False)
    cell, page, waiting = told
    start = {"overlays": ("pointer",), "play": {"seconds": 2.5, "loops": 1}}
    assert (cell[0], cell[3:]) == ("cell", (start, False))
    assert page == ("page", sheet, None, start, False)
    assert [one.rule for one in waiting[2]] == ["nothing-drawn"]
    assert waiting[3:] == ({"overlays": ()}, True)


def test_a_drawing_is_explored_in_the_cell_or_in_the_browser(monkeypatch):
    told: list = []
    monkeypatch.setattr(notebook, "live", lambda *about: told.append(about))
    monkeypatch.setattr("ovlo.studio.exploring.explorer.explore", lambda *about: told.append(about))
    monkeypatch.setattr(notebook, "is_running", lambda: True)
    entry.live(kite, {"sides": 5}, 17)
    monkeypatch.setattr(notebook, "is_running", lambda: False)
    entry.live(kite, {"sides": 5, "has_tail": False}, 17)
    cell, page = told
    assert (cell[0], cell[1]["sides"], cell[1]["side"], cell[2]) == (kite, 5, 30, 17)
    assert page == (f"{__file__}:kite", {"sides": "5", "has_tail": "no"}, 17)


# ── pages that are shown ────────────────────────────────────────────────────────────────────────────────


class Line:
    def __init__(self) -> None:
        self.heard: list = []

    def send(self, told) -> None:
        self.heard.append(told)


def test_a_page_of_a_finished_sheet_is_sent_it_and_says_its_last_word():
    room, line = showing.Finished(Sheet(90, 60), (), {}), Line()
    room.open(line)
    assert len(line.heard) == 1
    assert room.presence._lines == {line}
    room.hear(line, {"do": "shown"})
    assert room.presence._lines == {line}
    room.hear(line, {"do": "bye"})
    assert room.presence._lines == set()
    room.open(line)
    room.close(line)
    assert room.presence._lines == set()


def test_a_page_of_a_growing_sheet_is_sent_what_is_new_once_it_has_painted(monkeypatch):
    soon: list = []
    looked = threading.Event()

    def later(work):
        soon.append(work)
        looked.set()

    monkeypatch.setattr(showing, "server", lambda: types.SimpleNamespace(soon=later))
    monkeypatch.setattr(showing, "OFTEN", 0.01)
    sheet = Sheet(200, 160)
    nib = sheet.new_nib()
    room, line, other = showing.Growing(sheet, {}), Line(), Line()
    assert not looked.wait(0.1)  # nobody waits
    room.open(line)
    assert len(line.heard) == 1
    assert not looked.wait(0.1)
    nib.forward(5)
    room._look_and_send()
    assert len(line.heard) == 1  # it has not painted yet
    room.hear(line, {"do": "shown"})
    assert len(line.heard) == 2
    room.hear(line, {"do": "shown"})
    assert len(line.heard) == 2  # there is nothing new
    assert looked.wait(5)
    nib.left(90)
    soon[-1]()
    assert len(line.heard) == 3
    room.open(other)
    assert len(other.heard) == 1
    assert len(other.heard[0]) > len(line.heard[-1])  # all, not what is new
    room.hear(other, {"do": "bye"})
    room.close(line)
    assert (room._waiting, room._sent, room.presence._lines) == (set(), {}, set())


# ── browsers ────────────────────────────────────────────────────────────────────────────────────────────


@pytest.mark.parametrize(
    ("name", "is_one"), [("/usr/bin/chromium %s", True), ("w3m", False), ("/usr/bin/lynx -x", False)]
)
def test_a_browser_in_the_terminal_is_none(monkeypatch, name, is_one):
    browser = types.SimpleNamespace(name=name)
    monkeypatch.setattr(opening.webbrowser, "get", lambda: browser)
    if is_one:
        assert opening.needed_browser("show") is browser
    else:
        with pytest.raises(NoBrowser, match="show: no browser can be opened"):
            opening.needed_browser("show")


def test_a_link_stands_in_a_private_file_that_leads_on():
    opened, seen = threading.Event(), []

    def open_file(address: str) -> None:
        seen.append(Path(unquote(urlsplit(address).path)))
        opened.set()

    opening.open_link(types.SimpleNamespace(open=open_file), "http://127.0.0.1:1/enter?key=a&page=1")
    assert opened.wait(5)
    assert seen[0].read_text().endswith('content="0; url=http://127.0.0.1:1/enter?key=a&amp;page=1">')
    assert stat.S_IMODE(seen[0].stat().st_mode) == 0o600
    seen[0].unlink()


# ── watches ─────────────────────────────────────────────────────────────────────────────────────────────


def test_a_saved_file_is_told_and_one_beside_it_only_after_an_error(tmp_path):
    told = threading.Event()
    watch = FileWatch(told.set)
    watch.look_at({tmp_path / "kite.py"})
    assert watch._is_meant(tmp_path / "kite.py")
    assert not watch._is_meant(tmp_path / "wind.py")
    watch.is_anxious = True
    assert watch._is_meant(tmp_path / "wind.py")
    assert not watch._is_meant(tmp_path / "kite.svg")
    for number in range(500):  # the thread may not look yet
        (tmp_path / "kite.py").write_text(f"# {number}\n")
        if told.wait(0.05):
            break
    assert told.is_set()
    told.clear()
    (tmp_path / "below").mkdir()
    (tmp_path / "below" / "wind.py").write_text("# no module of it\n")
    assert not told.wait(0.4)
    before = watch._ended
    watch.look_at({tmp_path / "wind.py"})
    assert (watch._ended is before, before.is_set()) == (True, False)
    watch.look_at({tmp_path / "below" / "wind.py", tmp_path / "nowhere" / "wind.py"})
    assert before.is_set()
    assert watch._folders == {tmp_path / "below"}
    watch.end()
    assert watch._ended.is_set()


class Event:
    """A page that comes after some waits, or never."""

    def __init__(self, waits: int) -> None:
        self.waits, self.asked = waits, []

    def wait(self, seconds: float) -> bool:
        self.asked.append(seconds)
        return len(self.asked) > self.waits


@pytest.mark.parametrize(
    ("waits", "is_told", "has_terminal", "asked", "said"),
    [
        (0, False, False, [presence.FIRST], ""),
        (3, False, True, [presence.FIRST, 1, 1, 1], "No page has connected yet. Open http://kite\n"),
        (2, True, False, [1, 1, 1], ""),
    ],
)
def test_the_first_page_is_waited_for(capsys, monkeypatch, waits, is_told, has_terminal, asked, said):
    monkeypatch.setattr("sys.stdin", types.SimpleNamespace(isatty=lambda: has_terminal))
    room = Presence()
    room._has_come = Event(waits)  # type: ignore[assignment]
    room._wait_for_first("show", "http://kite", is_told)
    assert room._has_come.asked == asked
    assert capsys.readouterr().err == said


def test_where_nobody_is_there_to_open_a_page_that_is_an_error(monkeypatch):
    monkeypatch.setattr("sys.stdin", None)
    room = Presence()
    room._has_come = Event(9)  # type: ignore[assignment]
    with pytest.raises(NoBrowser, match="show: no browser"):
        room.wait("show", "http://kite")


def test_ctrl_c_ends_the_wait_on_a_line_of_its_own(capsys, monkeypatch):
    room = Presence()

    def pressed(*_: object) -> None:
        raise KeyboardInterrupt

    monkeypatch.setattr(room, "_wait_for_first", pressed)
    room.wait("show", "http://kite")
    assert capsys.readouterr() == ("", "\n")


def test_a_notebook_without_its_controls_says_what_to_install(monkeypatch):
    monkeypatch.setitem(sys.modules, "ipywidgets", None)
    with pytest.raises(BadUse, match="pip install ovlo"):
        notebook.live(kite, {}, None)
