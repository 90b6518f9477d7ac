"""The tests of a room: which of them run which lines, and whether one of some fails.

suite = Suite(["tests/core/values", "src/ovlo/core/values"])
suite.of_lines(path, 12, 14)      # the tests that run these lines, the fastest first
suite.fails(suite.tests, copy_of_sources)
"""

from __future__ import annotations

import contextlib
import faulthandler
import importlib
import multiprocessing
import os
import re
import signal
import sys
import tempfile
from collections import defaultdict
from itertools import accumulate
from pathlib import Path

import coverage
import pytest

ROOT = Path(__file__).parents[1]
SOURCES = ROOT / "src"

SECONDS_FOR_ALL = 3600
"""For the first run, which measures."""

LONGEST = 30
"""Seconds of tests that are tried for a change, the fastest first."""

PATIENCE, SLACK = 5, 10
"""A test of a change ends after so many times what it took without it, and so many seconds."""

LINES, SECONDS = Path("lines/coverage"), Path("seconds")
"""Where a run writes which lines each test ran, and how long it took."""

OUTPUT = "output"
"""Where a run in a copy says what it has to say, beside the copy."""

LIBRARIES = ("numpy", "hypothesis", "PIL.Image", "shapely", "coloraide", "click", "rich.console")
"""What most runs need, loaded once: each run is a fork of this process, and a second of loading less."""

SOME_FAILED = 1
"""Pytest's status. A test that cannot bear to be measured, such as one of a full disk, is left out."""

OPTIONS = [
    "-q",
    "-p",
    "no:cacheprovider",
    "--hypothesis-seed=0",
    "-W",
    "ignore::pytest.PytestAssertRewriteWarning",
    "-o",
    "addopts=--import-mode=importlib --doctest-modules",
]


class Suite:
    """The tests of a room, run once, with the lines that each of them runs, in other processes too."""

    def __init__(self, parts: list[str]) -> None:
        self.seconds: dict[str, float] = {}
        self._tests_of: dict[tuple[str, int], set[str]] = defaultdict(set)
        self._loading: set[tuple[str, int]] = set()
        for name in LIBRARIES:
            importlib.import_module(name)
        with tempfile.TemporaryDirectory() as folder:
            if _in_child(_measured, parts, Path(folder), seconds=SECONDS_FOR_ALL) not in (0, SOME_FAILED):
                sys.exit(f"{', '.join(parts)}: the tests cannot be run.")
            self._read(Path(folder))

    def _read(self, folder: Path) -> None:
        for line in (folder / SECONDS).read_text().splitlines():
            test, seconds = line.rsplit(" ", 1)
            self.seconds[test] = float(seconds)
        measured = coverage.CoverageData(str(folder / LINES))
        measured.read()
        for path in measured.measured_files():
            for number, contexts in measured.contexts_by_lineno(path).items():
                for context in contexts:
                    # A process that a test starts says what pytest says of itself: the test and its phase.
                    test = re.sub(r" \((setup|call|teardown)\)$", "", context)
                    if test in self.seconds:
                        self._tests_of[path, number].add(test)
                    elif "::" not in test:
                        self._loading.add((path, number))

    @property
    def tests(self) -> list[str]:
        """All tests, the fastest first."""
        return sorted(self.seconds, key=self.seconds.__getitem__)

    def of_lines(self, path: Path, first: int, last: int) -> list[str]:
        """The fastest tests that run any of some lines.

        What runs when a module is loaded, and what a process does that ends without a word, is not measured:
        there, all tests that run the file count, or all of the room.
        """
        places = [(str(path), number) for number in range(first, last + 1)]
        run_by = set().union(*(self._tests_of[place] for place in places))
        if not run_by or any(place in self._loading for place in places):
            run_by |= set().union(
                *(tests for (file, _), tests in self._tests_of.items() if file == str(path))
            )
        chosen = [test for test in self.tests if test in run_by or not run_by]
        spent = accumulate(self.seconds[test] for test in chosen)
        return [test for test, seconds in zip(chosen, spent, strict=True) if seconds <= LONGEST]

    def fails(self, tests: list[str], sources: Path) -> bool:
        """Whether one of some tests fails, or does not end, with these sources."""
        limits = {_in_copy(test, sources): SLACK + PATIENCE * self.seconds[test] for test in tests}
        return bool(tests) and _in_child(_tried, limits, sources, seconds=sum(limits.values())) != 0


def _in_copy(test: str, sources: Path) -> str:
    """A test as a run with other sources names it: the examples of docstrings are those of the copy."""
    return re.sub("^src/", f"{sources}/", test)


def _in_child(work: object, *arguments: object, seconds: float) -> int | None:
    """The status of some work in a process of its own, with its libraries; None if it took too long."""
    child = multiprocessing.get_context("fork").Process(target=_alone, args=(work, *arguments))
    child.start()
    child.join(seconds)
    status = child.exitcode
    with contextlib.suppress(ProcessLookupError, PermissionError):
        os.killpg(child.pid or 0, signal.SIGKILL)
    child.join()
    return status


def _alone(work: object, *arguments: object) -> None:
    os.setsid()
    os.chdir(ROOT)
    # What a shell starts in the background may hear no Ctrl-C, and neither would what it starts.
    signal.signal(signal.SIGINT, signal.default_int_handler)
    quiet = os.open(os.devnull, os.O_WRONLY)
    os.dup2(quiet, 1)
    os.dup2(quiet, 2)
    os._exit(work(*arguments))  # type: ignore[operator]


def _tried(limits: dict[str, float], sources: Path) -> int:
    os.environ |= {"PYTHONPATH": str(sources), "PYTHONDONTWRITEBYTECODE": "1"}
    os.environ["HYPOTHESIS_STORAGE_DIRECTORY"] = str(sources.parent / "hypothesis")
    sys.dont_write_bytecode = True
    sys.path.insert(0, str(sources))
    said = os.open(sources.parent / OUTPUT, os.O_WRONLY | os.O_CREAT | os.O_TRUNC)
    os.dup2(said, 1)
    os.dup2(said, 2)
    return int(pytest.main([*OPTIONS, "-x", *limits], plugins=[_Patience(limits)]))


def _measured(parts: list[str], folder: Path) -> int:
    """Run tests, and write down which lines each of them ran, and how long it took."""
    (folder / LINES).parent.mkdir()
    config = folder / "coverage.toml"
    config.write_text(
        "[tool.coverage.run]\nparallel = true\npatch = ['subprocess', '_exit']\nsource_pkgs = ['ovlo']\n"
        "concurrency = ['multiprocessing', 'thread']\ncontext = '${PYTEST_CURRENT_TEST-}'\n"
        f"data_file = '{folder / LINES}'\n"
    )
    measuring = coverage.Coverage(config_file=str(config))
    measuring.start()
    # What is handed over to other processes has the test of this moment in it, which is none: they read anew.
    os.environ.pop("COVERAGE_PROCESS_CONFIG", None)
    os.environ["COVERAGE_PROCESS_START"] = str(config)
    timing = _Timing(measuring)
    status = int(pytest.main([*OPTIONS, *parts], plugins=[timing]))
    measuring.stop()
    measuring.save()
    whole = coverage.Coverage(data_file=folder / LINES, config_file=False)
    whole.combine()
    whole.save()
    lines = (
        f"{test} {seconds:.4f}\n" for test, seconds in timing.seconds.items() if test not in timing.failed
    )
    (folder / SECONDS).write_text("".join(lines))
    return status


class _Patience:
    """Ends the process when a test takes too long: a change may have made a loop endless."""

    def __init__(self, limits: dict[str, float]) -> None:
        self.limits = {_name(test): seconds for test, seconds in limits.items()}

    @pytest.hookimpl
    def pytest_runtest_logstart(self, nodeid: str) -> None:
        faulthandler.dump_traceback_later(self.limits[_name(nodeid)], exit=True)


def _name(test: str) -> str:
    """A test without its file, which is another in a copy."""
    return test.partition("::")[2]


class _Timing:
    """Says which test runs now, and keeps how long each took."""

    def __init__(self, measuring: coverage.Coverage) -> None:
        self.measuring = measuring
        self.seconds: dict[str, float] = {}
        self.failed: set[str] = set()

    @pytest.hookimpl
    def pytest_runtest_logstart(self, nodeid: str) -> None:
        self.measuring.switch_context(nodeid)
        self.seconds[nodeid] = 0.0

    @pytest.hookimpl
    def pytest_runtest_logreport(self, report: pytest.TestReport) -> None:
        if report.failed:
            self.failed.add(report.nodeid)
        self.seconds[report.nodeid] += report.duration
