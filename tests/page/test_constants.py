"""What the page's script says for itself is what Python says."""

from __future__ import annotations

import re
import tomllib
from pathlib import Path

import ovlo
from ovlo.core.paint.mitres import MITER_LIMIT
from ovlo.page.document import asset
from ovlo.page.message import VERSION
from ovlo.program.shortcuts import PAGE_KEYS


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


def test_the_package_and_its_metadata_have_one_version():
    metadata = tomllib.loads((Path(__file__).parents[2] / "pyproject.toml").read_text())
    assert metadata["project"]["version"] == ovlo.__version__
