"""Two pictures laid over each other, words included."""

from __future__ import annotations

SCRIPT = "from ovlo import Sheet\nsheet = Sheet(200, 160)\nnib = sheet.new_nib()\n"


def test_words_of_both_pictures_are_laid_over_each_other(ovlo_command, program, tmp_path):
    a = program(SCRIPT + "nib.forward(50)\nnib.text('Kite day', 16)\n", "a.py")
    b = program(SCRIPT + "nib.forward(60)\nnib.text('Marrow Bay', 16)\n", "b.py")
    done = ovlo_command("compare", a, b, "-o", "both.svg")
    assert (done.returncode, "The text 'Kite day' is only in A." in done.stdout) == (1, True)
    picture = (tmp_path / "both.svg").read_text()
    assert "Kite day" in picture
    assert "Marrow Bay" in picture
