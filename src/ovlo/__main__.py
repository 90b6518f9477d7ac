"""`python -m ovlo`: the same as the command `ovlo`."""

from __future__ import annotations

from ovlo.cli.main import run

if __name__ == "__main__":
    run()
