"""A damaged workshop, opened as far as it can be read.

The damaged file is kept as it was; what can still be read of it becomes the workshop, table by
table and row by row, and what cannot is said.
"""

import os
import shutil
import sqlite3
from collections.abc import Iterator
from contextlib import closing, suppress
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path
from typing import Any, Final

from oaken_scale.store.copies import CopyError, folder_of
from oaken_scale.store.database import Database, migrate, refuse_unfit
from oaken_scale.store.rows import stamp

BESIDES: Final = ("", "-wal", "-shm")
"""What a database is in files, by the ends of their names."""

DEPTH: Final = 16
"""So often a stretch that cannot be read through is halved, to find what lies behind the damage."""


@dataclass(frozen=True, slots=True)
class Rescued:
    """What was saved: builds by their names, how many readings, which tables could not be read to
    their end, where the damaged file lies now, and the newest copy made before."""

    builds: tuple[str, ...]
    readings: int
    broken: tuple[str, ...]
    damaged: Path
    newest_copy: Path | None

    @property
    def words(self) -> str:
        """It, said."""
        names = ", ".join(self.builds)
        saved = f"{len(self.builds)} builds ({names})" if self.builds else "no build"
        lost = (
            f"could not be read to the end: {', '.join(self.broken)}"
            if self.broken
            else "every row could be read"
        )
        copy = (
            f"; the newest copy made before is {self.newest_copy} (oaken-scale restore)"
            if self.newest_copy
            else ""
        )
        return (
            f"the workshop was damaged; saved are {saved} with {self.readings} readings; {lost}; "
            f"the damaged file is kept as {self.damaged}{copy}"
        )


def rescue_if_damaged(database: Path, now: datetime) -> Rescued | None:
    """Put what can be read of a damaged workshop, which nobody serves, in its place; None where
    nothing is wrong with it. Raises CopyError where there is no room for that, and
    DatabaseRefusedError for a file that is no workshop at all."""
    if not database.exists() or database.stat().st_size == 0:
        return None
    refuse_unfit(database)
    if is_sound(database):
        return None
    folder = folder_of(database)
    fresh = folder / f".rescued-{os.getpid()}.sqlite"
    damaged = folder / f"damaged-{now:%Y-%m-%d-%H%M%S}.sqlite"
    try:
        folder.mkdir(parents=True, exist_ok=True)
        fresh.unlink(missing_ok=True)
        with closing(sqlite3.connect(fresh, isolation_level=None)) as target:
            broken = _salvaged(database, target)
            builds = [name for (name,) in target.execute("SELECT name FROM build ORDER BY rowid")]
            (readings,) = target.execute("SELECT count(*) FROM weighing").fetchone()
        for ending in BESIDES:
            with suppress(FileNotFoundError):
                shutil.copy2(
                    database.with_name(database.name + ending),
                    damaged.with_name(damaged.name + ending),
                )
        for ending in BESIDES[1:]:
            database.with_name(database.name + ending).unlink(missing_ok=True)
        os.replace(fresh, database)
    except (OSError, sqlite3.Error) as error:
        raise CopyError(
            f"{database} is damaged, and what can be read of it cannot be put beside it ({error}); "
            "it was left as it is"
        ) from error
    finally:
        fresh.unlink(missing_ok=True)
    copies = sorted(
        (each for each in folder.glob("[0-9b]*.sqlite")), key=lambda each: each.stat().st_mtime
    )
    newest = copies[-1] if copies else None
    return Rescued(tuple(builds), readings, tuple(sorted(broken)), damaged, newest)


def is_sound(database: Path) -> bool:
    """Whether every page of a database can be read; one that cannot be opened just now (its disk is
    read-only, another program has it) is not called damaged."""
    try:
        with closing(_reading(database)) as connection:
            (told,) = connection.execute("PRAGMA quick_check(1)").fetchone()
            return bool(told == "ok")
    except sqlite3.OperationalError:
        return True
    except sqlite3.DatabaseError:
        return False


def _reading(database: Path) -> sqlite3.Connection:
    connection = sqlite3.connect(f"{database.resolve().as_uri()}?mode=ro", uri=True)
    connection.text_factory = lambda data: data.decode("utf-8", "replace")
    return connection


def _salvaged(database: Path, target: sqlite3.Connection) -> set[str]:
    """Copy what can be read into a fresh database; the tables that could not be read through."""
    broken = set()
    with closing(_reading(database)) as source:
        (version,) = source.execute("PRAGMA user_version").fetchone()
        migrate(target, version)
        target.execute("PRAGMA foreign_keys = OFF")
        target.execute("BEGIN")
        triggers = _without_triggers(target)
        for table, keys in _tables(target):
            target.execute(f"DELETE FROM {table}")
            columns = _columns(target, table)
            marks = ", ".join("?" * len(columns))
            put = f"INSERT OR IGNORE INTO {table} ({', '.join(columns)}) VALUES ({marks})"
            for row in _rows(source, table, ", ".join(columns), keys):
                try:
                    if row is None:
                        broken.add(table)
                    else:
                        target.execute(put, row)
                except sqlite3.IntegrityError:  # what was read is no such row
                    broken.add(table)
        _put_in_order(target)
        for trigger in triggers:
            target.execute(trigger)
        target.execute("COMMIT")
    return broken


def _tables(target: sqlite3.Connection) -> list[tuple[str, tuple[str, ...]]]:
    """The tables and their keys; a table with row numbers is gone through by those."""
    found = []
    for (name,) in target.execute(
        "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'"
    ).fetchall():
        try:
            target.execute(f"SELECT rowid FROM {name} LIMIT 1")
            keys: tuple[str, ...] = ("rowid",)
        except sqlite3.OperationalError:
            told = target.execute(f"PRAGMA table_info({name})").fetchall()
            keys = tuple(each[1] for each in sorted(told, key=lambda one: one[5]) if each[5])
        found.append((name, keys))
    return found


def _columns(connection: sqlite3.Connection, table: str) -> list[str]:
    return [each[1] for each in connection.execute(f"PRAGMA table_info({table})")]


Row = tuple[Any, ...]


def _rows(
    source: sqlite3.Connection, table: str, columns: str, keys: tuple[str, ...]
) -> Iterator[Row | None]:
    """The rows of a table that can be read: from its front, from its end, and from between where
    both broke off. None for every place that cannot be read."""
    order, back = ", ".join(keys), ", ".join(f"{key} DESC" for key in keys)
    reached = []
    for way in (order, back):
        key, is_whole = None, True
        sql = f"SELECT {order}, {columns} FROM {table} ORDER BY {way}"
        for row in _until_broken(source, sql):
            if row is None:
                is_whole = False
                yield None
            else:
                key = row[0]
                yield row[len(keys) :]
        if is_whole:
            return
        reached.append(key)
    first, last = reached
    if keys == ("rowid",) and first is not None and last is not None:
        yield from _between(source, table, columns, first, last, DEPTH)


def _between(
    source: sqlite3.Connection, table: str, columns: str, first: int, last: int, depth: int
) -> Iterator[Row]:
    """The rows that can be read between two that were, from the middle onwards and back."""
    if last - first < 2 or depth == 0:
        return
    middle = (first + last) // 2
    up, down = last, first
    for way, sign in (("ASC", ">="), ("DESC", "<")):
        sql = (
            f"SELECT rowid, {columns} FROM {table} WHERE rowid {sign} {middle}"
            f" AND rowid > {first} AND rowid < {last} ORDER BY rowid {way}"
        )
        reached, is_whole = middle, True
        for row in _until_broken(source, sql):
            if row is None:
                is_whole = False
            else:
                reached = row[0]
                yield row[1:]
        if not is_whole:
            up, down = (reached, down) if way == "ASC" else (up, reached)
    if up < last:
        yield from _between(source, table, columns, up, last, depth - 1)
    if down > first:
        yield from _between(source, table, columns, first, down, depth - 1)


def _until_broken(source: sqlite3.Connection, sql: str) -> Iterator[Row | None]:
    try:
        yield from source.execute(sql)
    except sqlite3.DatabaseError:
        yield None


def _put_in_order(target: sqlite3.Connection) -> None:
    """Give builds whose own row was lost one, and let go of rows that point at nothing."""
    tables = [name for name, _ in _tables(target)]
    for table in tables:
        if "build_id" in _columns(target, table):
            target.execute(
                "INSERT OR IGNORE INTO build (id, name, purpose, layout, notes, created_at)"
                f" SELECT DISTINCT build_id, 'Saved build', '', '', '', '2000-01-01T00:00:00+00:00'"
                f" FROM {table} WHERE build_id NOT IN (SELECT id FROM build)"
            )
    gone = True
    while gone:
        gone = sum(_without_orphans(target, table) for table in tables) > 0


def _without_triggers(target: sqlite3.Connection) -> list[str]:
    """Drop what keeps rows as they are; returns what brings it back."""
    asked = "SELECT name, sql FROM sqlite_master WHERE type = 'trigger'"
    triggers = target.execute(asked).fetchall()
    for name, _ in triggers:
        target.execute(f"DROP TRIGGER {name}")
    return [sql for _, sql in triggers]


def _without_orphans(target: sqlite3.Connection, table: str) -> int:
    """Let go of a table's rows that point at what is not there; how many there were."""
    links: dict[int, list[tuple[str, str, str | None]]] = {}
    for number, _, parent, own, theirs, *_ in target.execute(f"PRAGMA foreign_key_list({table})"):
        links.setdefault(number, []).append((parent, own, theirs))
    count = 0
    for columns in links.values():
        parent = columns[0][0]
        told = target.execute(f"PRAGMA table_info({parent})").fetchall()
        keys = [each[1] for each in sorted(told, key=lambda one: one[5]) if each[5]]
        pairs = [(own, theirs or keys[k]) for k, (_, own, theirs) in enumerate(columns)]
        given = " AND ".join(f"{table}.{own} IS NOT NULL" for own, _ in pairs)
        match = " AND ".join(f"p.{theirs} = {table}.{own}" for own, theirs in pairs)
        count += target.execute(
            f"DELETE FROM {table} WHERE {given}"
            f" AND NOT EXISTS (SELECT 1 FROM {parent} AS p WHERE {match})"
        ).rowcount
    return count


def keep_note(database: Path, rescued: Rescued, at: datetime) -> None:
    """Keep in the workshop itself what was saved of it, for the Shed to say."""
    opened = Database(database)
    try:
        with opened.transaction() as connection:
            connection.execute(
                "INSERT OR REPLACE INTO about (word, value) VALUES ('rescued', ?)",
                (f"{stamp(at)} {rescued.words}",),
            )
    finally:
        opened.close()


def read_note(connection: sqlite3.Connection) -> str | None:
    """What was said when the workshop was saved; None where it never had to be."""
    row = connection.execute("SELECT value FROM about WHERE word = 'rescued'").fetchone()
    return None if row is None else str(row[0]).split(" ", 1)[1]
