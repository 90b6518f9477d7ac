"""A real notebook, executed: pictures, the page in a cell, and sliders."""

from __future__ import annotations

import html
import re

import pytest

nbformat = pytest.importorskip("nbformat")
nbclient = pytest.importorskip("nbclient")

CELLS = [
    "from ovlo import Sheet, drawing\nsheet = Sheet(200, 160)\nnib = sheet.new_nib()\nnib.forward(30)\nsheet",
    "@drawing(width=200, height=160)\n"
    "def kite(nib, sides: int = 4, sail: str = 'tomato', has_tail: bool = True):\n"
    "    nib.polygon(sides, radius=40, fill=sail)\nkite",
    "kite.show(sides=5)",
    "sheet.show(wait=False)",
    "nib.left(90)\nnib.forward(20)",
    "kite.live(sides=6)",
    "@drawing()\ndef bare(nib, side: float):\n    nib.forward(side)\nbare",
    "[kite.run(sides=sides) for sides in (3, 4)]",
    "import pandas\npandas.DataFrame({'name': ['<b>'], 'picture': [sheet]})",
    "[1, 2]",
    "@drawing\ndef late(nib):\n    nib.forward(30)\n    nib.forward(1 / 0)\nlate.run()",
]


@pytest.fixture(scope="module")
def outputs(tmp_path_factory):
    notebook = nbformat.v4.new_notebook(cells=[nbformat.v4.new_code_cell(cell) for cell in CELLS])
    folder = str(tmp_path_factory.mktemp("notebook"))
    client = nbclient.NotebookClient(
        notebook, timeout=60, allow_errors=True, resources={"metadata": {"path": folder}}
    )
    client.execute()
    return [cell.outputs for cell in notebook.cells], client.widget_state


def test_a_sheet_and_a_drawing_are_their_pictures(outputs):
    cells, _ = outputs
    for number in (0, 1):
        assert cells[number][0].data["image/svg+xml"].startswith(("<svg", "<?xml"))
    assert "<path" in cells[1][0].data["image/svg+xml"]
    # One without defaults has none, and says what it is.
    assert list(cells[6][0].data) == ["text/plain"]


def test_show_is_the_page_in_a_frame_with_the_picture_beside_it(outputs, opened, tmp_path):
    data = outputs[0][2][0].data
    assert data["image/svg+xml"].startswith(("<svg", "<?xml"))
    frame = data["text/html"]
    assert 'sandbox="allow-scripts"' in frame
    # Ten of them make a notebook of half a megabyte, and each stands alone when it is copied.
    assert len(frame) < 50_000
    page = html.unescape(re.search(r'srcdoc="([^"]*)"', frame)[1])
    (tmp_path / "frame.html").write_text(page, encoding="utf-8")
    assert opened(tmp_path / "frame.html").execute_script("return ovlo.stepCount") == 7


def test_the_frame_itself_replays(outputs, chromium, tmp_path):
    from selenium.webdriver.support.ui import WebDriverWait

    (tmp_path / "cell.html").write_text(
        f"<!DOCTYPE html>{outputs[0][2][0].data['text/html']}", encoding="utf-8"
    )
    chromium.get((tmp_path / "cell.html").as_uri())
    chromium.switch_to.frame(0)
    WebDriverWait(chromium, 20).until(
        lambda page: page.execute_script("return window.ovlo?.currentStep") == 6
    )
    chromium.switch_to.default_content()


def test_a_picture_follows_the_next_cells(outputs):
    (shown,) = outputs[0][3]
    assert "2 steps" not in shown.data["text/plain"]
    assert "3 steps" in shown.data["text/plain"]


def test_live_has_a_control_for_each_parameter(outputs):
    states = outputs[1].values()
    names = {one.get("description"): one["_model_name"] for one in states}
    assert names["sides"] == "IntSliderModel"
    assert (names["sail"], names["has_tail"]) == ("TextModel", "CheckboxModel")
    # The picture is an output of the cell, so that the saved notebook has it.
    (picture,) = [one.data["image/svg+xml"] for one in outputs[0][5] if "image/svg+xml" in one.data]
    assert "<title>kite</title>" in picture


def test_lists_and_frames_of_sheets_are_small_pictures(outputs):
    cells, _ = outputs
    assert cells[7][0].data["text/html"].count("<img") == 2
    table = cells[8][0].data["text/html"]
    assert table.count("<img") == 1
    assert "&lt;b&gt;" in table
    assert list(cells[9][0].data) == ["text/plain"]


def test_a_drawing_that_fails_shows_what_it_drew(outputs):
    shown, error = outputs[0][10]
    assert "<path" in shown.data["image/svg+xml"]
    assert error.ename == "ZeroDivisionError"
