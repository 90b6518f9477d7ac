"""What a sheet, a nib and a motif say of themselves, hand on, and refuse."""

from __future__ import annotations

import warnings
from types import SimpleNamespace

import pytest

from ovlo import Motif, Nib, Sheet, drawing, row
from ovlo.core.sheet import answers
from ovlo.core.sheet.host import hosted
from ovlo.core.sheet.only import only
from ovlo.core.sheet.step_table import gaps
from ovlo.core.trail.origins import Recorder
from ovlo.core.values.errors import BadValue, UnknownName
from ovlo.studio import entry


def titled(paper):
    @drawing(width=200, height=200, paper=paper)
    def boat(nib):
        def sail(nib):
            nib.text("7", size=20)
            nib.forward(30)

        sail(nib)
        nib.text("Gull", size=20)

    return boat.run(traced=True)


@pytest.mark.parametrize(
    ("paper", "pale"),
    [("red", (0.85 * 255, 0, 0)), ("white", (0.85 * 255,) * 3), ("rgb(255 0 0 / 50%)", (0.85 * 255,) * 3)],
)
def test_only_one_functions_words_keep_their_ink(paper, pale):
    sail, boat = only(titled(paper), "sail", "--only").texts
    assert sail.ink.css == "#000000"
    assert boat.ink._rgb == pytest.approx(pale)


def test_what_is_cut_ends_exactly_where_it_ended():
    sheet = Sheet()
    nib = sheet.new_nib(-1e6, 0)
    nib.line_to(0.1, 0)
    cut = sheet.cropped(-50, -50, 100, 100, whole=False)
    assert cut._columns.points[-1].tolist() == [0.1, 0]


def test_a_circle_that_lies_inside_is_kept_step_by_step():
    sheet = Sheet()
    sheet.new_nib().circle(30)
    cut = sheet.cropped(-50, -50, 100, 100)
    assert len(cut._columns) == len(sheet._columns)


def test_a_motif_cannot_be_moved_or_joined_beyond_all_numbers():
    far = Motif.record(lambda nib: nib.travel_to(0, 9e6) or nib.line_by(5, 0) or nib.travel_to(0, 0))
    for dx, dy in ((0, 9e6), (9e6, 0)):
        with pytest.raises(BadValue, match="moved"):
            far.moved(dx, dy)
    with pytest.raises(BadValue, match="row"):
        row([far, far], gap=9e6)
    joined = row([far, far], gap=3)._columns
    assert set(joined.runs["nib"].tolist()) == {0}


def test_an_everyday_word_says_of_which_nib_it_was_asked():
    nib = Sheet().new_nib()
    for owner in (nib, Nib):
        with pytest.raises(UnknownName) as told:
            owner.rotate  # noqa: B018
        assert told.value.obj is owner


def test_a_sheet_has_no_words_of_its_own_making():
    with pytest.raises(AttributeError):
        Sheet().nonsense  # noqa: B018


def test_letters_that_are_not_there_are_counted():
    nib = Sheet().new_nib()
    for words, are in (("Ж", "a box is shown"), ("ЖЩ", "boxes are shown")):
        with warnings.catch_warnings(record=True) as told:
            warnings.simplefilter("always")
            nib.text(words, font="stroke")
        assert are in str(told[0].message)


def test_words_with_the_pen_lifted_are_noted():
    @drawing(width=200, height=200)
    def tag(nib):
        nib.travel_to(5, 7)
        nib.lift()
        nib.text("Mira")

    ((call, x, y, times),) = [
        (one.call, one.x, one.y, one.times) for one in tag.run(traced=True)._origins.left_out
    ]
    assert (call, x, y, times) == ("text", 5, 7, 1)


def test_the_name_of_a_page_is_no_width():
    with pytest.raises(BadValue, match="A4 is 210 × 297 mm"):
        Sheet("A4")


def test_a_sheet_takes_the_seed_of_its_host_unless_it_has_one():
    with hosted(seed=5):
        host, own = Sheet(), Sheet(seed=3)
    assert [sheet.dice.seed for sheet in (host, own, Sheet(seed=4))] == [5, 3, 4]


def test_a_recorder_lets_go_of_a_program_that_has_ended():
    recorder = Recorder(lambda file: True)
    with hosted(recorder=recorder):
        Sheet().new_nib().forward(9)
        assert recorder._frames
    assert recorder._frames == []


def test_what_is_compared_is_told_from_the_first_to_the_second():
    sheets = Sheet(), Sheet()
    for sheet, x in zip(sheets, (0, 30), strict=True):
        sheet.new_nib(x, 0).star(5, 40)
    assert sheets[0].compare(sheets[1]).offset == pytest.approx((30, 0))
    assert sheets[1].compare(sheets[0]).offset == pytest.approx((-30, 0))


def test_a_page_is_shown_as_asked(monkeypatch):
    shown = []
    monkeypatch.setattr(entry, "show", lambda *told: shown.append(told))
    sheet = Sheet()
    nib = sheet.new_nib()
    for _ in range(12):
        nib.forward(2)
    sheet.show(steps_per_second=6.5, at_once=True, wait=False, pointer=True)
    assert shown == [(sheet, 2.0, True, False, True)]
    with pytest.raises(BadValue, match="not both"):
        sheet.show(steps_per_second=3, seconds=9)
    assert len(shown) == 1


def test_a_row_of_the_table_holds_words_where_they_stand():
    sheet = Sheet()
    sheet.new_nib(3, 4, 90).text("Mira", size=9)
    words = sheet.steps()[-1]
    assert (words.kind, words.from_x, words.from_y, words.to_x, words.to_y) == ("text", 3, 4, 3, 4)
    assert (words.heading, words.length, words.line_width, words.words) == (90, 0, 0, "Mira")


def test_a_nib_that_came_back_has_no_gap():
    sheet = Sheet()
    nib = sheet.new_nib(10, -20)
    nib.polygon(4, radius=9)
    for _ in range(4):
        nib.forward(30)
        nib.left(90)
    assert gaps(sheet) == [0.0]
    nib.forward(5)
    assert gaps(sheet) == [5.0]


def test_a_trail_says_how_long_it_is():
    sheet = Sheet()
    sheet.new_nib().forward(9)
    assert repr(sheet.trail) == "<trail of 2 steps>"


def test_a_notebook_is_given_what_answers_its_errors():
    given = []
    shell = SimpleNamespace(custom_exceptions=(), set_custom_exc=lambda *told: given.append(told))
    answers._answer_in_notebooks(shell)
    ((kinds, show),) = given
    assert kinds == answers.ANSWERED
    assert callable(show)
    shell.custom_exceptions = (ValueError,)
    answers._answer_in_notebooks(shell)
    assert len(given) == 1
