"""The page for everyone: keyboards, readers, small and large screens, light and dark, little motion."""

from __future__ import annotations

import json
import os
import sys
from pathlib import Path

import pytest

pytest.importorskip("selenium")

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

KITE = '''\
from ovlo import drawing


@drawing(width=200, height=160)
def kite(nib, sides: int = 4, sail: str = "tomato"):
    """A kite over Marrow Bay."""
    nib.polygon(sides, radius=40, fill=sail)
    nib.travel_to(-60, -60)
    nib.turn_to(20)
    nib.text("Kite day", size=16)
    nib.travel_to(300, 0)
    nib.forward(9)
'''

OVLO = Path(sys.executable).with_name("ovlo")

AXE = os.environ.get("AXE_CORE", "")
"""Where axe-core's script is; it comes from npm."""


@pytest.fixture
def page(ovlo_command, program, tmp_path, opened):
    ovlo_command("draw", program(KITE), "-o", "kite.html")
    return opened(tmp_path / "kite.html")


def complaints(browser, name: str) -> list[str]:
    browser.execute_script(Path(AXE).read_text(encoding="utf-8"))
    found = browser.execute_async_script(
        "axe.run().then((found) => arguments[0](JSON.stringify(found.violations)))"
    )
    places = {one["id"]: [node["html"][:90] for node in one["nodes"][:3]] for one in json.loads(found)}
    return [f"{name}: {rule}: {where}" for rule, where in places.items()]


@pytest.mark.skipif(not AXE, reason="axe-core is not here: AXE_CORE does not name it")
def test_axe_finds_nothing(page, ovlo_command, opened, tmp_path, served, program):
    found = complaints(page, "page")
    page.execute_cdp_cmd(
        "Emulation.setEmulatedMedia", {"features": [{"name": "prefers-color-scheme", "value": "dark"}]}
    )
    found += complaints(page, "dark")
    page.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": []})
    page.execute_script("document.getElementById('open-shortcuts').click()")
    found += complaints(page, "keys")
    ovlo_command("vary", program(KITE), "--values", "sides=3..5", "-o", "kites.html")
    opened(tmp_path / "kites.html")
    found += complaints(page, "gallery")
    live = served(OVLO, "live", program(KITE))
    live.until(lambda live: live.part("live").is_displayed())
    program(KITE.replace("nib.forward", "nib.foward"))
    live.until(lambda live: live.part("trouble").is_displayed())
    found += complaints(page, "live")
    assert found == []


def test_words_can_be_selected_where_they_are_painted(page):
    (words,) = page.find_elements(By.CSS_SELECTOR, "#words span")
    assert words.text == "Kite day"
    box = page.execute_script("return arguments[0].getBoundingClientRect().toJSON()", words)
    canvas = page.find_element(By.ID, "canvas").rect
    scale = min((canvas["width"] - 24) / 200, (canvas["height"] - 24) / 160)
    left = canvas["x"] + canvas["width"] / 2 - 60 * scale
    foot = canvas["y"] + canvas["height"] / 2 + 60 * scale
    # The box of the turned words begins above where the nib was, and reaches to the right of it.
    assert abs(box["x"] - left) < 16 * scale * 0.6
    assert abs(box["y"] + box["height"] - foot) < 16 * scale * 0.6
    # To the left of their middle, along the line they stand on.
    ActionChains(page).move_to_element_with_offset(words, -56, 20).double_click().perform()
    assert page.execute_script("return String(getSelection())").strip() == "Kite"


def test_all_of_it_can_be_reached_with_the_keyboard(page):
    controls = page.execute_script(
        "return [...document.querySelectorAll('main button, main input, main select, aside button,"
        " aside input')].filter((one) => one.checkVisibility()).length"
    )
    reached = set()
    page.find_element(By.ID, "canvas").click()
    for _ in range(controls + 12):
        ActionChains(page).send_keys(Keys.TAB).perform()
        reached.add(
            page.execute_script("return document.activeElement.id || document.activeElement.innerText")
        )
    assert {
        *("scrub", "step-back", "play", "step-forward", "speed", "seconds", "loop", "open-shortcuts"),
        *("overlay-grid", "overlay-findings", "zoom-in", "divider", "tab-findings", "program"),
    } <= reached


def test_keys_leave_controls_their_own(page):
    ActionChains(page).send_keys(Keys.HOME).perform()
    box = page.find_element(By.ID, "overlay-grid")
    box.send_keys(" ")
    assert box.get_attribute("aria-pressed") == "true"
    assert not page.execute_script("return ovlo.isPlaying")
    speed = page.find_element(By.ID, "seconds")
    speed.clear()
    speed.send_keys("90")
    assert speed.get_attribute("value") == "90"
    page.find_element(By.ID, "step-forward").send_keys(" ")
    assert page.execute_script("return ovlo.currentStep") == 0


def test_it_fits_from_phones_to_large_screens(page):
    for width, height in ((320, 640), (640, 480), (1280, 800), (2560, 1440), (3840, 2160)):
        page.execute_cdp_cmd(
            "Emulation.setDeviceMetricsOverride",
            {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": False},
        )
        sizes = page.execute_script(
            "const wide = document.documentElement.scrollWidth;"
            "const picture = document.getElementById('picture').getBoundingClientRect();"
            "return [wide, picture.width, picture.height]"
        )
        assert sizes[0] <= width, (width, sizes)
        assert sizes[1] > width * 0.5
        assert sizes[2] > height * 0.3
    page.execute_cdp_cmd("Emulation.clearDeviceMetricsOverride", {})


def test_with_reduced_motion_nothing_plays_by_itself(ovlo_command, program, opened, tmp_path, chromium):
    chromium.execute_cdp_cmd(
        "Emulation.setEmulatedMedia", {"features": [{"name": "prefers-reduced-motion", "value": "reduce"}]}
    )
    try:
        ovlo_command("animate", program(KITE), "-o", "kite.html", "--seconds", "5")
        page = opened(tmp_path / "kite.html")
        count = page.execute_script("return ovlo.stepCount")
        assert page.execute_script("return [ovlo.isPlaying, ovlo.currentStep]") == [False, count - 1]
    finally:
        chromium.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": []})
