"""The page as a person uses it: keys, buttons, the mouse, the program; and what it must never do."""

from __future__ import annotations

import csv
import re
import subprocess
import sys
from pathlib import Path
from xml.etree import ElementTree

import pytest
from PIL import Image

from ovlo import Sheet, outlets
from ovlo.cli.speech import wording
from ovlo.core.values.errors import BadValue
from ovlo.page.document import MODULES, asset, empty_page, file_kit, served_kit
from ovlo.studio.kit import studio_kit

selenium = pytest.importorskip("selenium")

from selenium.webdriver.common.action_chains import ActionChains  # noqa: E402
from selenium.webdriver.common.by import By  # noqa: E402
from selenium.webdriver.common.keys import Keys  # noqa: E402
from selenium.webdriver.support.ui import Select, WebDriverWait  # noqa: E402

EXAMPLES = Path(__file__).parents[2] / "examples"

KITE = '''\
from ovlo import drawing


def tail(nib):
    for _ in range(6):
        nib.forward(10)
        nib.right(15)


@drawing(width=200, height=160)
def kite(nib, side: float = 50):
    """A kite <b>with</b> a tail."""
    for _ in nib.full_turn(4):
        nib.forward(side)
    tail(nib)
    nib.text("</script><script>document.title = 'broken'</script>", size=8)
'''


@pytest.fixture(scope="module")
def drawn_page(tmp_path_factory):
    """The kite's page, drawn once."""
    folder = tmp_path_factory.mktemp("kite")
    (folder / "kite.py").write_text(KITE)
    command = [Path(sys.executable).with_name("ovlo"), "draw", "kite.py", "-o", "kite.html"]
    subprocess.run(command, cwd=folder, check=True, capture_output=True)
    return folder / "kite.html"


@pytest.fixture
def page(drawn_page, opened):
    return opened(drawn_page)


def now(page, words: str):
    return page.execute_script(f"return ovlo.{words}")


def press(page, *keys: str) -> None:
    ActionChains(page).send_keys(*keys).perform()


def test_steps_are_those_of_the_table_and_keys_go_through_them(page, drawn_page, ovlo_command):
    kite = drawn_page.with_suffix(".py")
    table = csv.DictReader(ovlo_command("steps", kite, "--csv").stdout.splitlines())
    rows = [row for row in table if row["kind"] != "text"]
    assert (now(page, "stepCount"), now(page, "currentStep")) == (len(rows), len(rows) - 1)
    for key, step in ((Keys.HOME, -1), (Keys.RIGHT, 0), (Keys.RIGHT, 1), (Keys.RIGHT, 2), (Keys.LEFT, 1)):
        press(page, key)
        assert now(page, "currentStep") == step
    assert now(page, "sourceLine") == int(rows[1]["line"]) == 14
    status = page.find_element(By.ID, "status").text
    assert status == "Step 1 of 10, line 14: (0, 0) to (50, 0), heading 0°, length 50 px"
    assert page.find_element(By.CSS_SELECTOR, "#program .lit").text.strip() == "nib.forward(side)"
    press(page, Keys.END)
    assert now(page, "currentStep") == len(rows) - 1


def test_what_is_printed_is_the_finished_picture(page):
    press(page, Keys.HOME)
    assert now(page, "currentStep") == -1
    page.execute_cdp_cmd("Page.printToPDF", {})
    assert now(page, "currentStep") == now(page, "stepCount") - 1


def test_the_picture_stands_there_without_scripts(page):
    page.execute_cdp_cmd("Emulation.setScriptExecutionDisabled", {"value": True})
    try:
        page.refresh()
        still = page.find_element(By.ID, "still")
        assert still.is_displayed()
        assert still.get_property("naturalWidth") == 200
        assert page.title == page.find_element(By.ID, "title").text == "kite"
    finally:
        page.execute_cdp_cmd("Emulation.setScriptExecutionDisabled", {"value": False})


def test_it_plays_pauses_and_comes_to_its_end(page):
    speed = page.find_element(By.ID, "seconds")
    speed.clear()
    speed.send_keys("0.4")
    page.find_element(By.ID, "play").click()
    assert now(page, "isPlaying")
    WebDriverWait(page, 10).until(lambda page: not now(page, "isPlaying"))
    assert now(page, "currentStep") == 10
    page.execute_script("ovlo.play()")
    page.execute_script("ovlo.pause()")
    assert not now(page, "isPlaying")


def test_an_animation_as_a_page_plays_at_once(ovlo_command, program, opened, tmp_path):
    done = ovlo_command(
        "animate", program(KITE), "-o", "kite.html", "--seconds", "0.5", "--loops", "1", "--pointer"
    )
    assert (done.returncode, "kite.html: a page that plays 0.5 s" in done.stdout) == (0, True)
    page = opened(tmp_path / "kite.html")
    WebDriverWait(page, 10).until(lambda page: now(page, "currentStep") == 10 and not now(page, "isPlaying"))
    assert page.find_element(By.ID, "overlay-pointer").get_attribute("aria-pressed") == "true"


def test_the_harbour_replays_from_sky_to_title_with_the_network_off(ovlo_command, opened, tmp_path, chromium):
    done = ovlo_command(
        "animate", EXAMPLES / "harbour.py", "-o", "harbour.html", "--seconds", "2", "--loops", "1"
    )
    assert done.returncode == 0, done.stderr
    conditions = {"offline": True, "latency": 0, "downloadThroughput": 0, "uploadThroughput": 0}
    chromium.execute_cdp_cmd("Network.enable", {})
    chromium.execute_cdp_cmd("Network.emulateNetworkConditions", conditions)
    try:
        page = opened(tmp_path / "harbour.html")
        assert now(page, "isPlaying")
        first = now(page, "pictureOf(-1)")
        WebDriverWait(page, 20).until(lambda page: not now(page, "isPlaying"))
        assert now(page, "currentStep") == now(page, "stepCount") - 1
        assert now(page, "pictureOf()") != first
        assert page.find_element(By.CSS_SELECTOR, "#words span").text == "Kite day at Marrow Bay"
    finally:
        chromium.execute_cdp_cmd("Network.disable", {})


def test_any_page_gives_its_picture_as_a_file(page, tmp_path):
    page.execute_cdp_cmd(
        "Browser.setDownloadBehavior", {"behavior": "allow", "downloadPath": str(tmp_path / "saved")}
    )
    page.find_element(By.ID, "open-share").click()
    chosen = Select(page.find_element(By.ID, "save-as"))
    assert "PDF" not in [one.text for one in chosen.options if one.is_enabled()]
    for words, name in (("SVG", "kite.svg"), ("PNG, 3 times as large", "kite.png")):
        chosen.select_by_visible_text(words)
        page.find_element(By.ID, "save").click()
        file = tmp_path / "saved" / name
        WebDriverWait(page, 10).until(lambda _, file=file: file.exists() and file.stat().st_size)
    root = ElementTree.fromstring((tmp_path / "saved" / "kite.svg").read_text())
    line, text = root.findall("{http://www.w3.org/2000/svg}path")
    assert (root.get("width"), root.get("viewBox")) == ("200px", "0 0 200 160")
    assert line.get("d").startswith("M100 80L150 80")
    assert text.get("aria-label") == "</script><script>document.title = 'broken'</script>"
    with Image.open(tmp_path / "saved" / "kite.png") as image:
        assert image.size == (600, 480)


def test_a_link_leads_to_its_step(drawn_page, opened):
    page = opened(drawn_page, "#step=3")
    assert now(page, "currentStep") == 3
    page.execute_script("location.hash = '#step=5'")
    WebDriverWait(page, 5).until(lambda page: now(page, "currentStep") == 5)


def test_lines_and_functions_are_shown_alone(page):
    whole = now(page, "pictureOf()")
    page.find_element(By.ID, "tab-tree").click()
    (box,) = [
        box for box in page.find_elements(By.CSS_SELECTOR, "#tree label") if box.text.startswith("tail")
    ]
    assert "1 call, 6 steps, 60 px" in box.text
    box.click()
    assert page.find_element(By.ID, "all").is_displayed()
    page.find_element(By.ID, "all").click()
    line = page.find_element(By.CSS_SELECTOR, "#program li:nth-child(6) button")
    line.click()
    assert page.find_element(By.CSS_SELECTOR, "#program .chosen").text.strip() == "nib.forward(10)"
    assert now(page, "pictureOf()") == whole


def test_a_click_in_the_picture_lights_the_line_that_drew_there(page):
    canvas = page.find_element(By.ID, "canvas")
    size = canvas.size
    scale = min((size["width"] - 24) / 200, (size["height"] - 24) / 160)
    # The first side of the kite, from (0, 0) to (50, 0).
    ActionChains(page).move_to_element_with_offset(canvas, round(25 * scale), 0).click().perform()
    assert (now(page, "currentStep"), now(page, "sourceLine")) == (1, 14)
    assert re.fullmatch(r"x 2[45](\.\d+)?, y -?0(\.\d+)?", page.find_element(By.ID, "place").text)


def test_findings_lead_to_their_place(program, ovlo_command, opened, tmp_path):
    path = program(
        KITE.replace("full_turn(4)", "full_turn(4)") + "    nib.travel_to(0, 0)\n    nib.forward(300)\n"
    )
    ovlo_command("draw", path, "-o", "far.html")
    page = opened(tmp_path / "far.html")
    row = page.find_element(By.CSS_SELECTOR, "#findings li")
    assert row.text.startswith("off-sheet")
    assert "Fix:" in row.text
    row.find_element(By.TAG_NAME, "button").click()
    assert page.find_element(By.ID, "overlay-findings").get_attribute("aria-pressed") == "true"


def test_keys_are_listed_and_the_list_closes(page):
    press(page, "?")
    dialog = page.find_element(By.ID, "shortcuts")
    assert dialog.is_displayed()
    press(page, Keys.ESCAPE)
    assert not dialog.is_displayed()


def test_no_program_becomes_script_and_nothing_is_fetched(page, drawn_page):
    written = drawn_page.read_text()
    assert not re.search(r"(https?:)?//[a-z0-9.-]+\.[a-z]{2,}", written)
    assert page.title == "kite"
    assert page.find_element(By.ID, "description").text == "A kite <b>with</b> a tail."
    assert page.execute_script("return performance.getEntriesByType('resource').length") == 0
    page.execute_script(
        "const one = document.createElement('script'); one.textContent = 'window.evil = 1';"
        "document.body.append(one)"
    )
    assert page.execute_script("return window.evil") is None
    (complaint,) = page.get_log("browser")
    assert "Content Security Policy" in complaint["message"]


def test_every_control_has_a_name_and_the_page_fits_small_screens(page):
    unnamed = page.execute_script(
        "return [...document.querySelectorAll('button, input, select')].filter("
        "one => !one.textContent.trim() && !one.labels?.length && !one.ariaLabel).map(one => one.id)"
    )
    assert unnamed == []
    page.set_window_size(500, 700)
    try:
        assert page.execute_script("return document.documentElement.scrollWidth <= innerWidth")
    finally:
        page.set_window_size(1280, 800)


def test_a_small_drawing_makes_a_small_page(ovlo_command, program, tmp_path):
    path = program(
        "from ovlo import drawing\n@drawing()\ndef walk(nib):\n    for i in range(1000):\n"
        "        nib.forward(i / 9)\n        nib.left(89.7)\n"
    )
    assert ovlo_command("draw", path, "-o", "walk.html").returncode == 0
    assert (tmp_path / "walk.html").stat().st_size < 150_000


@pytest.mark.parametrize("kit", [file_kit, served_kit, studio_kit])
def test_the_joined_script_has_every_module_and_no_name_twice(kit):
    script = empty_page(kit=kit()).split('<script type="module">')[1]
    assert "import {" not in script
    assert "export " not in script
    modules = "\n".join([*map(asset, MODULES), *kit().modules])
    names = re.findall(r"^(?:export )?(?:async )?function (\w+)|^(?:export )?const (\w+)", modules, re.M)
    flat = [a or b for a, b in names]
    assert sorted(set(flat)) == sorted(flat)
    assert all(asset(name).startswith("// @ts-check") for name in MODULES)


def test_a_large_page_is_told_and_a_huge_one_is_to_be_allowed(program, ovlo_command, monkeypatch, tmp_path):
    sheet = Sheet(100, 100)
    sheet.new_nib().forward(20)
    monkeypatch.setattr(outlets, "LARGEST_PAGE", 1000)
    with pytest.raises(BadValue, match=r"save: the page would be 0 MB.*allow_large=True, --allow-large"):
        sheet.save(tmp_path / "kite.html")
    assert not (tmp_path / "kite.html").exists()
    sheet.save(tmp_path / "kite.html", allow_large=True)
    assert wording.large_page("kite.html", tmp_path / "kite.html") == ""
    monkeypatch.setattr(wording, "LARGE_PAGE", 1000)
    assert "kite.html is 0 MB" in wording.large_page("kite.html", tmp_path / "kite.html")
    assert ovlo_command("draw", program(KITE), "-o", "kite.html", "--allow-large").returncode == 0
