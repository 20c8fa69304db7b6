"""Copies of a workshop: made while it is served, checked after they are written, put back whole."""

import os
import sqlite3
import tempfile
from collections.abc import Sequence
from contextlib import closing
from datetime import date, datetime
from pathlib import Path
from typing import Final

from oaken_scale.store.database import DatabaseRefusedError, migrations, refuse_unfit

DAYS_KEPT: Final = 7
"""So many daily copies are kept, the newest ones."""

WEEKS_KEPT: Final = 4
"""Of what is older, one copy a week is kept for so many weeks."""


class CopyError(RuntimeError):
    """A copy that could not be made or put back; nothing was changed."""


def back_up(database: Path, target: Path) -> Path:
    """Write the whole workshop (builds, rack, drawer, diary, hidden truths) to a file.

    It may be served and written to meanwhile: the copy is of one moment. It stands under its name
    only when it is whole, and its every page was read again. Raises CopyError.
    """
    if not database.exists() or database.stat().st_size == 0:
        raise CopyError(f"there is no workshop at {database} to copy")
    refuse_unfit(database)
    if target.resolve() == database.resolve():
        raise CopyError(f"{target} is the workshop itself; name another file")
    fresh = None
    try:
        target.parent.mkdir(parents=True, exist_ok=True)
        handle, name = tempfile.mkstemp(dir=target.parent, prefix=f".{target.name}-")
        os.close(handle)
        fresh = Path(name)
        with (
            closing(sqlite3.connect(f"{database.resolve().as_uri()}?mode=ro", uri=True)) as source,
            closing(sqlite3.connect(fresh)) as copy,
        ):
            source.backup(copy)
            copy.execute("PRAGMA journal_mode = DELETE")
        _check(fresh)
        with fresh.open("rb") as written:
            os.fsync(written.fileno())
        os.replace(fresh, target)
    except (OSError, sqlite3.Error) as error:
        raise CopyError(
            f"{target} cannot be written ({_why(error)}); nothing was copied"
        ) from error
    finally:
        if fresh is not None:
            fresh.unlink(missing_ok=True)
    return target


def restore(copy: Path, database: Path, now: datetime) -> Path | None:
    """Put a copy in the place of a workshop that nobody serves; returns where the workshop that
    stood there was copied to before, None where there was none. Raises CopyError."""
    if not copy.exists():
        raise CopyError(f"there is no file {copy}")
    if copy.resolve() == database.resolve():
        raise CopyError(f"{copy} is the workshop itself; name a copy of it")
    try:
        refuse_unfit(copy)
        _check(copy)
    except (sqlite3.Error, OSError) as error:
        raise CopyError(
            f"{copy} cannot be put back ({_why(error)}); nothing was changed"
        ) from error
    kept = None
    if database.exists() and database.stat().st_size:
        kept = folder_of(database) / f"before-restore-{now:%Y-%m-%d-%H%M%S}.sqlite"
        try:
            back_up(database, kept)
        except DatabaseRefusedError as error:
            raise CopyError(f"{error}; nothing was changed") from error
    database.parent.mkdir(parents=True, exist_ok=True)
    for ending in ("-wal", "-shm"):
        database.with_name(database.name + ending).unlink(missing_ok=True)
    back_up(copy, database)
    return kept


def folder_of(database: Path) -> Path:
    """Where the copies of a workshop lie, beside it."""
    return database.with_name(f"{database.stem}-copies")


def copy_before_migration(database: Path) -> Path | None:
    """Copy a workshop that an older version wrote, before this one brings it up to date; returns
    the copy, None where none was due. Raises CopyError."""
    if not database.exists() or database.stat().st_size == 0:
        return None
    refuse_unfit(database)
    with closing(sqlite3.connect(f"{database.resolve().as_uri()}?mode=ro", uri=True)) as connection:
        (version,) = connection.execute("PRAGMA user_version").fetchone()
    if version >= migrations()[-1][0]:
        return None
    return back_up(database, folder_of(database) / f"before-version-{version + 1}.sqlite")


def roll(database: Path, today: date) -> Path | None:
    """Make the copy of a day, if the workshop was changed since the last one, and let go of what is
    too old; returns the copy, None where none was due. Raises CopyError."""
    folder = folder_of(database)
    target = folder / f"{today:%Y-%m-%d}.sqlite"
    if target.exists() or not _is_changed(database, _daily(folder)):
        return None
    back_up(database, target)
    found = _daily(folder)
    begun = folder.glob(".*.sqlite-*")  # by a server that was killed before the copy was whole
    for each in (set(found) - set(kept_of(found, today))) | set(begun):
        each.unlink(missing_ok=True)
    return target


def kept_of(copies: Sequence[Path], today: date) -> list[Path]:
    """Those of the daily copies, named by their day, that are kept: the newest seven, and of the
    rest the newest of each week for four weeks.

    >>> days = [Path(f"2026-03-{day:02}.sqlite") for day in range(1, 29)]
    >>> [each.stem[-2:] for each in kept_of(days, date(2026, 3, 28))]
    ['01', '08', '15', '21', '22', '23', '24', '25', '26', '27', '28']
    """
    days = sorted(copies)
    newest, older = days[-DAYS_KEPT:], days[:-DAYS_KEPT]
    weekly: dict[tuple[int, int], Path] = {}
    for each in older:
        day = date.fromisoformat(each.stem)
        if (today - day).days <= 7 * WEEKS_KEPT:
            year, week, _ = day.isocalendar()
            weekly[year, week] = each
    return sorted([*weekly.values(), *newest])


def _daily(folder: Path) -> list[Path]:
    if not folder.is_dir():
        return []
    return sorted(folder.glob("[0-9][0-9][0-9][0-9]-[0-9][0-9]-[0-9][0-9].sqlite"))


def _is_changed(database: Path, copies: Sequence[Path]) -> bool:
    if not database.exists() or database.stat().st_size == 0:
        return False
    if not copies:
        return True
    beside = (database, database.with_name(database.name + "-wal"))
    last = max(each.stat().st_mtime_ns for each in beside if each.exists())
    return last > copies[-1].stat().st_mtime_ns


def _check(path: Path) -> None:
    """Read every page of a copy. Raises sqlite3.DatabaseError where one is not as it should be."""
    with closing(sqlite3.connect(f"{path.resolve().as_uri()}?mode=ro", uri=True)) as connection:
        (told,) = connection.execute("PRAGMA integrity_check").fetchone()
        if told != "ok":
            raise sqlite3.DatabaseError(str(told))
        if connection.execute("PRAGMA foreign_key_check").fetchone() is not None:
            raise sqlite3.DatabaseError("a row points at one that is not there")


def _why(error: Exception) -> str:
    return getattr(error, "strerror", None) or str(error)
