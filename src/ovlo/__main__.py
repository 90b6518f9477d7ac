"""The command `ovlo`, also as `python -m ovlo`."""

from __future__ import annotations

import signal


def run() -> None:
    """Run the command line; Ctrl-C while it is being loaded ends it without a traceback."""
    signal.signal(signal.SIGINT, signal.SIG_DFL)
    from ovlo.cli.main import run as run_command
    from ovlo.program.console import forgive

    forgive()
    signal.signal(signal.SIGINT, signal.default_int_handler)
    run_command()


if __name__ == "__main__":
    run()
