"""The version of Ovlo, as it is written into files."""

from __future__ import annotations

VERSION = "0.1.0"
