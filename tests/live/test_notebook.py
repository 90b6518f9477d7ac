"""In a notebook `show` displays the picture; here a stand-in plays the notebook."""

from __future__ import annotations

import sys
import types

import pytest

from ovlo import Sheet


@pytest.fixture
def notebook(monkeypatch):
    shown, callbacks = [], []

    class Handle:
        def update(self, sheet):
            shown.append(len(sheet.trail))

    class Events:
        def register(self, event, call):
            assert event == "post_run_cell"
            callbacks.append(call)

    def display(sheet, display_id):
        shown.append(sheet._repr_svg_()[:4])
        return Handle()

    shell = types.SimpleNamespace(kernel=object(), events=Events())
    module = types.ModuleType("IPython")
    module.get_ipython = lambda: shell
    module.display = types.SimpleNamespace(display=display)
    monkeypatch.setitem(sys.modules, "IPython", module)
    return shown, callbacks


def test_show_displays_the_picture(notebook):
    shown, callbacks = notebook
    sheet = Sheet(90, 60)
    sheet.new_nib().forward(9)
    sheet.show()
    assert shown == ["<svg"]
    assert callbacks == []


def test_a_picture_follows_the_next_cells(notebook):
    shown, callbacks = notebook
    sheet = Sheet(90, 60)
    nib = sheet.new_nib()
    sheet.show(wait=False)
    (cell_was_run,) = callbacks
    cell_was_run(None)
    nib.forward(9)
    cell_was_run(None)
    assert shown == ["<svg", 2]
