"""A file that one server has to itself, for as long as it runs."""

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from oaken_scale.store.database import unwritable


class InUseError(RuntimeError):
    """Another server has the file to itself."""


@contextmanager
def in_use(path: Path) -> Iterator[None]:
    """Have a file to oneself until the block ends, or the process does.

    Raises InUseError while another has it, DatabaseRefusedError where nothing can be written. Where
    the system has no such locks nothing is held.
    """
    try:
        import fcntl  # noqa: PLC0415 (not on every system)
    except ImportError:
        yield
        return
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        lock = path.with_name(path.name + ".lock").open("w")
    except OSError as error:
        raise unwritable(path, error) from error
    with lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError as error:
            words = f"{path} is being served already; name another file, or stop that one first"
            raise InUseError(words) from error
        yield
