"""`python -m ovlo`: the same as the command `ovlo`."""

from __future__ import annotations

from ovlo.cli.main import main

if __name__ == "__main__":
    main(prog_name="python -m ovlo")
