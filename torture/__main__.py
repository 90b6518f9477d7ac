"""Try everything hard, and print one table.

python -m torture --programs 10000 --kills 200 --mishaps 10 --icons 150 --svg 1000
"""

from __future__ import annotations

import contextlib
import os
import tempfile
import traceback
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from functools import partial
from typing import NamedTuple

import click

from ovlo.program.processes.workers import Going, Lost, done
from torture import extremes, icons, pictures, svg_files, values
from torture.kills import killed
from torture.mishaps import MISHAPS

SLOWEST = 10.0
"""Seconds a program, or the pictures of a parameter's extremes, may take."""

SAMPLE = 20
"""Of so many programs one is compared with an independent renderer."""


class Result(NamedTuple):
    """What one job found: faults, and the share of pixels that are equal elsewhere, if that was looked at."""

    faults: list[str]
    share: float | None = None


def of_program(seed: int) -> Result:
    """One random program."""
    return _told(
        lambda: pictures.faults_of(seed, length=24, frames=4, check=seed % 2 == 0),
        lambda: pictures.share_equal(seed) if seed % SAMPLE == 0 else None,
    )


def of_case(number: int, is_extreme: bool) -> Result:
    """One parameter of the table of values."""
    case = list(values.cases())[number]
    if is_extreme:
        return _told(lambda: extremes.faults_of_case(case))
    return _told(lambda: (fault for value in values.BAD for fault in values.fault_of(case, value)))


def _told(faults: Callable[[], Iterator[str]], share: Callable[[], float | None] = lambda: None) -> Result:
    """The faults, a crash among them."""
    try:
        return Result(list(faults()), share())
    except Exception as error:
        return Result([f"crashed: {''.join(traceback.format_exception(error, limit=-3))}"])


def _whole(work: Callable[[int], Result], number: int) -> Iterator[Result | Going]:
    """A job of one part."""
    yield work(number)


def every(
    title: str, work: Callable[[int], Result], numbers: list[int], seconds: float = SLOWEST
) -> list[Result]:
    """Do all jobs, and print the row of the table; hangs and deaths are faults."""
    found, hangs = [], 0
    for number, result in done(partial(_whole, work), numbers, os.cpu_count() or 1, seconds):
        if isinstance(result, Lost):
            hangs += "ran longer" in result.reason
            result = Result([f"lost: {result.reason}"])
        found.append(result)
        for fault in result.faults:
            click.echo(f"  {title} {numbers[number]}: {fault}")
    bad = sum(bool(result.faults) for result in found)
    click.echo(f"{title}: {len(numbers):,} tried, {bad} with faults, {hangs} longer than {seconds:g} s")
    return found


@click.command()
@click.option("--programs", default=1000, help="How many random programs.")
@click.option("--first", default=0, help="The seed of the first.")
@click.option("--kills", default=20, help="How many processes are killed.")
@click.option("--mishaps", default=1, help="How many rounds of crashes, full disks, doubled files and tabs.")
@click.option("--icons", "icon_count", default=0, help="How many pictures of each set from npm.")
@click.option("--svg", "svg_count", default=100, help="How many odd SVG files.")
@click.option("--table/--no-table", default=True, help="The table of values, and their extremes.")
def main(
    programs: int, first: int, kills: int, mishaps: int, icon_count: int, svg_count: int, table: bool
) -> None:
    """Try everything hard, and print one table."""
    with tempfile.TemporaryDirectory() as folder, contextlib.chdir(folder):
        _try_all(programs, first, kills, mishaps, icon_count, table)
        _attempts("odd SVG files", svg_files.fault_of, svg_count)


def _try_all(programs: int, first: int, kills: int, mishaps: int, icon_count: int, table: bool) -> None:
    # What the workers begin with is loaded once, before they are there.
    of_program(0)
    results = every("random programs", of_program, list(range(first, first + programs)))
    shares = [result.share for result in results if result.share is not None]
    if shares:
        equal = sum(share >= 0.99 for share in shares)
        mean = sum(shares) / len(shares)
        click.echo(
            f"pixels elsewhere: {len(shares)} compared, {mean:.2%} of the pixels equal, {equal} above 99 %"
        )
    if table:
        numbers = list(range(len(list(values.cases()))))
        every("bad values of a parameter", partial(of_case, is_extreme=False), numbers, 60)
        drawn = [number for number, case in enumerate(values.cases()) if extremes.is_drawn(case)]
        every("extremes of a parameter", partial(of_case, is_extreme=True), drawn, 100)
    _attempts("kills", killed, kills)
    for title, (attempt, count) in MISHAPS.items():
        _attempts(title, attempt, mishaps * count)
    if icon_count:
        _icons(icon_count)


def _attempts(title: str, attempt: Callable[[int], str], count: int) -> None:
    """Do something so many times, in threads, since what may break is in other processes."""
    with ThreadPoolExecutor(os.cpu_count()) as pool:
        faults = [fault for fault in pool.map(attempt, range(count)) if fault]
    for fault in faults:
        click.echo(f"  {title}: {fault}")
    click.echo(f"{title}: {count} tried, {len(faults)} with faults")


def _icons(count: int) -> None:
    found = [(name, icons.share_equal(content)) for name, content in icons.files(count)]
    read = [(name, share) for name, share in found if share is not None]
    for name, share in read:
        if share < 0.97:
            click.echo(f"  {name}: {share:.1%}")
    good = sum(share >= 0.97 for _, share in read)
    click.echo(f"icons: {len(found)} found, {len(read)} read without leaving anything out, {good} alike")


if __name__ == "__main__":
    main()
