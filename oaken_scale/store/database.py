"""Opening the database: forward migrations, durable commits, one transaction at a time."""

import sqlite3
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from importlib.resources import files
from pathlib import Path
from typing import Final

APPLICATION_ID: Final = 0x0A4B5CA1
"""What SQLite keeps in the file's header to say whose it is."""


OLD_DEMO: Final = {"sandpiper", "night-heron", "avocet", "mayfly", "dunlin"}


class DatabaseRefusedError(RuntimeError):
    """A file that this version cannot open; it was left untouched."""


class Database:
    """One SQLite file. Writers take turns; every commit is on disk before it returns."""

    def __init__(self, path: Path) -> None:
        """Open ``path``, making it where there is none, and bring it up to date.

        Raises DatabaseRefusedError for a newer or a foreign file, and for one that cannot be
        written.
        """
        self.path = path
        self._turn = threading.RLock()
        refuse_unfit(path)
        try:
            path.parent.mkdir(parents=True, exist_ok=True)
            self._connection = self._opened(path)
        except (OSError, sqlite3.Error) as error:
            raise unwritable(path, error) from error

    def _opened(self, path: Path) -> sqlite3.Connection:
        connection = sqlite3.connect(
            path, check_same_thread=False, isolation_level=None, timeout=10.0
        )
        try:
            connection.execute("PRAGMA journal_mode = WAL")
            connection.execute("PRAGMA synchronous = FULL")
            connection.execute("PRAGMA foreign_keys = ON")
            migrate(connection)
        except BaseException:
            connection.close()
            raise
        return connection

    @contextmanager
    def transaction(self) -> Iterator[sqlite3.Connection]:
        """One write transaction: all of it, on disk, or nothing."""
        with self._turn:
            self._connection.execute("BEGIN IMMEDIATE")
            try:
                yield self._connection
                self._connection.execute("COMMIT")
            except BaseException:
                if self._connection.in_transaction:
                    self._connection.execute("ROLLBACK")
                raise

    @contextmanager
    def reading(self) -> Iterator[sqlite3.Connection]:
        """One consistent read; within a transaction of this thread, a part of it."""
        with self._turn:
            if self._connection.in_transaction:
                yield self._connection
                return
            self._connection.execute("BEGIN")
            try:
                yield self._connection
            finally:
                self._connection.execute("COMMIT")

    def close(self) -> None:
        """Close the file."""
        with self._turn:
            self._connection.close()


def unwritable(path: Path, error: Exception) -> DatabaseRefusedError:
    """The refusal of a file that cannot be written."""
    why = getattr(error, "strerror", None) or str(error)
    return DatabaseRefusedError(
        f"{path} cannot be opened to write ({why}); look whether the disk is full or read-only, "
        "and whether the folder is yours"
    )


def migrations() -> list[tuple[int, str]]:
    """The numbered migrations, in order: (version, SQL)."""
    folder = files("oaken_scale.store") / "migrations"
    scripts = sorted(
        (script for script in folder.iterdir() if script.name.endswith(".sql")),
        key=lambda script: script.name,
    )
    return [(int(script.name[:4]), script.read_text("utf-8")) for script in scripts]


def refuse_unfit(path: Path) -> None:
    """Raise DatabaseRefusedError for a file of a newer version or of another program.

    The file is opened read-only, so that a refused one is left as it was.
    """
    if path.is_dir():
        raise DatabaseRefusedError(f"{path} is a folder; name a file in it")
    if not path.exists() or path.stat().st_size == 0:
        return
    try:
        connection = sqlite3.connect(f"{path.resolve().as_uri()}?mode=ro", uri=True)
        try:
            (owner,) = connection.execute("PRAGMA application_id").fetchone()
            (version,) = connection.execute("PRAGMA user_version").fetchone()
        finally:
            connection.close()
    except sqlite3.OperationalError as error:
        raise DatabaseRefusedError(
            f"{path} cannot be read ({error}); look whether it is yours"
        ) from error
    except sqlite3.DatabaseError as error:
        raise DatabaseRefusedError(
            f"{path} is not an Oaken Scale database ({error}); name another file"
        ) from error
    if owner != APPLICATION_ID:
        raise DatabaseRefusedError(
            f"{path} belongs to another program; name another file, it was left untouched"
        )
    newest = migrations()[-1][0]
    if version > newest:
        raise DatabaseRefusedError(
            f"{path} was written by a newer Oaken Scale (version {version}, this one reads up to "
            f"{newest}); update Oaken Scale, the file was left untouched"
        )


def is_demo(path: Path) -> bool:
    """Whether a database of ours is the demo's own; it is only read. One from before demos were
    marked is known by its planes, all of them and no other."""
    connection = sqlite3.connect(f"{path.resolve().as_uri()}?mode=ro", uri=True)
    try:
        try:
            row = connection.execute("SELECT value FROM about WHERE word = 'demo'").fetchone()
            return row is not None
        except sqlite3.OperationalError:
            names = {name for (name,) in connection.execute("SELECT id FROM build")}
            return names == OLD_DEMO
    finally:
        connection.close()


def migrate(connection: sqlite3.Connection, up_to: int | None = None) -> None:
    """Bring a database up to date, or to a version, one migration a transaction; they only go
    forward."""
    (version,) = connection.execute("PRAGMA user_version").fetchone()
    for number, script in migrations():
        if number > version and (up_to is None or number <= up_to):
            try:
                connection.executescript(
                    f"BEGIN;\n{script}\nPRAGMA user_version = {number};\n"
                    f"PRAGMA application_id = {APPLICATION_ID};\nCOMMIT;"
                )
            except sqlite3.Error:
                if connection.in_transaction:
                    connection.execute("ROLLBACK")
                raise
