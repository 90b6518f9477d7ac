"""What the page's script says for itself is what Python says."""

from __future__ import annotations

import inspect
import re
import tomllib
from pathlib import Path

import ovlo
from ovlo.core.paint.mitres import MITER_LIMIT
from ovlo.page.document import asset
from ovlo.page.message import VERSION
from ovlo.program.shortcuts import PAGE_KEYS
from ovlo.render.additions import overlays


def constant(module: str, name: str) -> int:
    return int(re.search(rf"^const {name} = (\d+);", asset(module), flags=re.M)[1])


def test_the_mitre_limit_and_the_version_of_messages_are_the_same():
    assert constant("paint.js", "MITRE") == MITER_LIMIT
    assert constant("data.js", "VERSION") == VERSION


def test_the_page_has_the_keys_that_no_drawing_may_have():
    actions = asset("player.js").split("const actions = {")[1].split("};")[0]
    keys = re.findall(r'^    "?([^\s":]| )"?:', actions, flags=re.M)
    overlays = asset("player.js").split("const OVERLAYS = {")[1].split("};")[0]
    assert {*keys, *re.findall(r'"(.)"', overlays)} == set(PAGE_KEYS)
    listed = " ".join(re.findall(r"<dt>(.+?)</dt>", asset("page.html"))).split()
    assert {key for key in listed if len(key) == 1 and key.isascii()} | {" "} == set(PAGE_KEYS)


def test_overlays_of_the_page_have_the_colours_of_those_in_files():
    script, source = asset("overlays.js"), inspect.getsource(overlays)
    texts = [script.split(f"const {name} = {{")[1].split("};")[0] for name in ("LIGHT", "DARK")]
    light, dark = (dict(re.findall(r'(\w+): "(#\w+)"', text)) for text in texts)
    assert (dark["outer"], dark["inner"]) == overlays.OUTER
    assert (light["outer"], light["inner"]) == overlays.INNER
    for name in ("plain", "line", "number", "finding"):
        assert f'"{dark[name]}" if over.is_dark else "{light[name]}"' in source.replace("self.", "over.")


def test_the_package_and_its_metadata_have_one_version():
    metadata = tomllib.loads((Path(__file__).parents[2] / "pyproject.toml").read_text())
    assert metadata["project"]["version"] == ovlo.__version__
