from __future__ import annotations

import os

import pytest

from ovlo.render.formats import agg


@pytest.fixture(scope="session", autouse=True)
def rasteriser() -> None:
    """OVLO_RASTERISER=package draws by Matplotlib's package instead of its compiled part alone."""
    if os.environ.get("OVLO_RASTERISER") == "package":
        agg._draws = lambda module: False
        agg._compiled.cache_clear()
        assert isinstance(agg.new_agg(4, 4), agg._Whole)
