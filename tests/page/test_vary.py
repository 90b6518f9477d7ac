"""`vary` as a page: every combination is in it, sliders choose among them, and no Python is needed."""

from __future__ import annotations

import pytest

from ovlo import drawing
from ovlo.page import file

pytest.importorskip("selenium")

from selenium.webdriver.common.by import By
from selenium.webdriver.support.ui import WebDriverWait

KITE = """\
from ovlo import drawing

@drawing(width=200, height=160)
def kite(nib, sides: int = 4, side: float = 30):
    nib.polygon(sides, radius=side)
    assert side < 60, "</script>the string breaks"
"""


def until(page, holds):
    return WebDriverWait(page, 20, 0.02).until(holds)


def test_sliders_choose_among_all_that_was_drawn(ovlo_command, program, opened, tmp_path):
    options = ("--values", "sides=3..6", "--values", "side=20,40,60", "-o", "kites.html")
    done = ovlo_command("vary", program(KITE), *options)
    assert (done.returncode, "12 pictures, 4 of them failed" in done.stdout) == (1, True)
    page = opened(tmp_path / "kites.html")
    small = page.find_elements(By.CSS_SELECTOR, "#gallery-list button")
    assert [one.text.split(":")[0] for one in small] == [
        f"sides={sides}, side={side}" for side in (20, 40, 60) for sides in (3, 4, 5, 6)
    ]
    small[6].click()
    until(page, lambda page: page.find_element(By.ID, "values").text == "sides=5, side=40")
    count = page.execute_script("return ovlo.stepCount")
    page.execute_script(
        "const one = document.getElementById('value-sides'); one.value = 3;"
        "one.dispatchEvent(new Event('input', { bubbles: true }));"
    )
    until(page, lambda page: page.execute_script("return ovlo.stepCount") == count + 1)
    assert "polygon" in page.find_element(By.CSS_SELECTOR, "#program .lit").text
    page.find_element(By.ID, "show-all").click()
    page.find_elements(By.CSS_SELECTOR, "#gallery-list button")[-1].click()
    trouble = until(page, lambda page: page.find_element(By.ID, "trouble"))
    until(page, lambda page: "the string breaks" in trouble.text)
    assert page.find_element(By.ID, "values").text == "sides=6, side=60"


def test_from_python_too_and_no_larger_than_a_page_may_be(tmp_path, opened, monkeypatch):
    @drawing(width=200, height=160)
    def kite(nib, sides: int = 4):
        nib.polygon(sides, radius=40)

    sheet = kite.vary(sides=[3, 8])
    sheet.save(tmp_path / "kites.html")
    page = opened(tmp_path / "kites.html")
    assert len(page.find_elements(By.CSS_SELECTOR, "#gallery-list button")) == 2
    monkeypatch.setattr(file, "LARGEST", 10_000)
    with pytest.raises(
        ValueError, match=r"save: the page would be 0 MB; the limit is 0 MB\. Give fewer values"
    ):
        sheet.save(tmp_path / "kites.html")
