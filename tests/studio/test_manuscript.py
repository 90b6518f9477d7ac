"""The text that is written in the studio: its file keeps what is its own, and no text is lost."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ovlo.core.values.errors import BadUse, BadValue, FileError
from ovlo.studio.exploring.manuscript import LARGEST, Manuscript

KITE = "# Möwenflug\nnib.forward(60)\nnib.left(90)\n"


@pytest.fixture
def path(tmp_path):
    return tmp_path / "kite.py"


def written(path, data: bytes) -> Manuscript:
    path.write_bytes(data)
    return Manuscript(path)


@pytest.mark.parametrize("end", ["\n", "\r\n", "\r"])
@pytest.mark.parametrize(
    ("head", "encoding"), [("", "utf-8"), ("", "utf-8-sig"), ("# -*- coding: latin-1 -*-\n", "latin-1")]
)
def test_line_ends_encoding_and_mark_stay(path, end, head, encoding):
    data = (head + KITE).replace("\n", end).encode(encoding)
    manuscript = written(path, data)
    assert manuscript.text == head + KITE
    manuscript.save()
    assert path.read_bytes() == data
    place = manuscript.text.index("60")
    assert manuscript.edit(manuscript.version, place, place + 2, "75\nnib.right(5")
    manuscript.save()
    assert path.read_bytes() == data.replace(b"60", f"75{end}nib.right(5".encode())


def test_mixed_line_ends_stay_where_lines_stay(path):
    manuscript = written(path, b"a = 1\r\nb = 2\nc = 3\r\nd = 4\r\n")
    manuscript.edit(manuscript.version, 12, 12, "x = 9\n")
    manuscript.save()
    assert path.read_bytes() == b"a = 1\r\nb = 2\nx = 9\r\nc = 3\r\nd = 4\r\n"


@given(st.text(max_size=30), st.data())
def test_places_are_counted_as_the_page_does(tmp_path_factory, text, data):
    text = text.replace("\r", "\n")
    manuscript = Manuscript(tmp_path_factory.getbasetemp() / "none.py")
    assert manuscript.edit(0, 0, 0, text)
    units = list(text.encode("utf-16-le", "surrogatepass"))
    begin = data.draw(st.integers(0, len(units) // 2))
    end = data.draw(st.integers(begin, len(units) // 2))
    assert manuscript.edit(1, begin, end, "🪁")
    expected = units[: 2 * begin] + list("🪁".encode("utf-16-le")) + units[2 * end :]
    assert list(manuscript.text.encode("utf-16-le", "surrogatepass")) == expected


@pytest.mark.parametrize("change", [(0, 0, 1, "x"), (1, -1, 2, "x"), (1, 3, 2, "x"), (1, 0, 999, "x")])
def test_a_change_of_another_text_is_not_taken(path, change):
    manuscript = written(path, KITE.encode())
    assert not manuscript.edit(*change)
    assert (manuscript.text, manuscript.version) == (KITE, 1)


def test_a_text_may_not_grow_without_end(path):
    manuscript = written(path, b"")
    assert not manuscript.edit(manuscript.version, 0, 0, "x" * (LARGEST + 1))
    assert manuscript.edit(manuscript.version, 0, 0, "x" * LARGEST)
    path.write_text("x" * (LARGEST + 1))
    assert "too long" in Manuscript(path).trouble


def test_two_texts_are_both_kept_until_one_is_chosen(path):
    for mine, expected in ((True, "# mine\n"), (False, "# theirs\n")):
        manuscript = written(path, b"# first\n")
        manuscript.edit(manuscript.version, 2, 7, "mine")
        path.write_text("# theirs\n")
        assert not manuscript.look()
        with pytest.raises(BadUse, match="changed by another program"):
            manuscript.save()
        assert "-# theirs\n+# mine" in manuscript.difference()
        manuscript.keep(mine)
        assert manuscript.text == expected
        manuscript.save()
        assert path.read_text() == expected


def test_a_file_changed_since_it_was_looked_at_is_not_written_over(path):
    manuscript = written(path, b"# first\n")
    manuscript.edit(manuscript.version, 2, 7, "mine")
    path.write_text("# theirs\n")
    with pytest.raises(BadUse, match="changed by another program"):
        manuscript.save()
    assert path.read_text() == "# theirs\n"


def test_the_same_text_from_two_hands_is_one(path):
    manuscript = written(path, b"# first\n")
    manuscript.edit(manuscript.version, 2, 7, "second")
    path.write_text("# second\n")
    assert not manuscript.look()
    assert (manuscript.theirs, manuscript.is_unsaved, manuscript.version) == (None, False, 2)
    manuscript.keep(mine=False)
    manuscript.replace("# second\n")
    assert (manuscript.text, manuscript.version) == ("# second\n", 2)
    manuscript.replace("# third\n")
    assert (manuscript.text, manuscript.version) == ("# third\n", 3)


def test_a_file_that_changes_while_nothing_is_typed_is_taken(path):
    manuscript = written(path, b"# first\n")
    path.write_text("# second\n")
    assert manuscript.look()
    assert (manuscript.text, manuscript.is_unsaved) == ("# second\n", False)


def test_what_cannot_be_written_is_told_and_the_file_stays(path, tmp_path):
    data = "# coding: latin-1\nname = 'Möwe'\n".encode("latin-1")
    manuscript = written(path, data)
    manuscript.edit(manuscript.version, 26, 30, "→")
    with pytest.raises(BadValue, match=r"'→' in line 2 does not exist in (latin-1|iso-8859-1)"):
        manuscript.save()
    assert path.read_bytes() == data
    read_only = Manuscript(path, read_only=True)
    assert not read_only.edit(read_only.version, 0, 0, "x")
    with pytest.raises(BadUse, match="read only"):
        read_only.save()
    unknown = written(tmp_path / "odd.py", b"# coding: martian\n")
    assert "cannot be written in here" in unknown.trouble
    assert written(tmp_path / "odd.py", b"# coding: martian\n# M\xf6we\n").text.endswith("# M\ufffdwe\n")
    with pytest.raises(BadUse, match="cannot be written in here"):
        unknown.save()


def test_a_link_that_is_led_elsewhere_is_not_written_through(path, tmp_path):
    other = tmp_path / "other.txt"
    other.write_text("precious")
    real = tmp_path / "real.py"
    real.write_text("# kite\n")
    path.symlink_to(real)
    manuscript = Manuscript(path)
    manuscript.edit(manuscript.version, 0, 0, "# a\n")
    manuscript.save()
    assert real.read_text() == "# a\n# kite\n"
    path.unlink()
    path.symlink_to(other)
    manuscript.edit(manuscript.version, 0, 0, "# b\n")
    with pytest.raises((FileError, BadUse)):
        manuscript.save()
    assert other.read_text() == "precious"


def test_text_that_is_left_unsaved_has_a_file_of_its_own(path, tmp_path):
    manuscript = written(path, KITE.encode())
    assert manuscript.leave() is None
    manuscript.edit(manuscript.version, 0, 0, "# new\n")
    (tmp_path / "kite.unsaved.py").symlink_to(tmp_path / "elsewhere")
    left = manuscript.leave()
    assert left == tmp_path / "kite.unsaved-2.py"
    assert left.read_text() == f"# new\n{KITE}"
    assert not (tmp_path / "elsewhere").exists()
    assert path.read_text() == KITE


def test_a_file_that_is_not_there_is_made(path):
    manuscript = Manuscript(path)
    assert (manuscript.is_there, manuscript.is_unsaved) == (False, False)
    manuscript.edit(0, 0, 0, "# coding: latin-1\n# Möwe\n")
    manuscript.save()
    assert path.read_bytes() == "# coding: latin-1\n# Möwe\n".encode("latin-1")
    assert manuscript.is_there
