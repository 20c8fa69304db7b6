"""What the workshop refuses, and why: nothing was changed."""


class RefusedError(Exception):
    """Something that cannot be done: what it is, and in words why, and which field says so."""

    def __init__(self, title: str, detail: str, field: str | None = None) -> None:
        """Keep what is said of it."""
        super().__init__(detail)
        self.title, self.detail, self.field = title, detail, field


class NoSuchError(RefusedError):
    """What was named is not there."""

    def __init__(self, what: str, id: str) -> None:
        """There is no ``what`` of that id."""
        super().__init__(f"No such {what}", f'there is no {what} "{id}"')


class OutOfDateError(RefusedError):
    """A change that was made to an older revision."""

    def __init__(self, made_to: int, now_at: int) -> None:
        """It was ``made_to`` a revision, the build is ``now_at`` another."""
        words = (
            f"the change was made to revision {made_to}, the build is at {now_at} now; nothing was "
            "changed, look again and repeat it"
        )
        super().__init__("This page is out of date", words, "If-Match")


class TakenError(RefusedError):
    """An id that belongs to another one of its kind."""

    def __init__(self, id: str, what: str = "reading") -> None:
        """Another of ``what`` has that id."""
        words = f'a different {what} already has the id "{id}"; give a new one'
        super().__init__("That id is taken", words, "id")


class HungError(RefusedError):
    """A build's lot that hangs on the rack already."""

    def __init__(self, name: str) -> None:
        """It is called ``name``."""
        super().__init__("It is on the rack", f"{name} is on the rack already", "lot_id")


class InUseError(RefusedError):
    """Something that builds still use."""

    def __init__(self, name: str, builds_using: list[str], field: str) -> None:
        """``name`` is in these builds, by their names."""
        where = ", ".join(builds_using[:4])
        super().__init__("It is in use", f"{name} is in {where}; take it out of there first", field)


class FullError(RefusedError):
    """A list that holds no more."""

    def __init__(self, what: str, most: int, field: str) -> None:
        """``what`` holds at most so many."""
        super().__init__("It is full", f"{what} holds at most {most}; take some off first", field)


class NothingLeftError(RefusedError):
    """Nothing to take back, or to make again."""

    def __init__(self, is_undoing: bool, made: int | None = None) -> None:
        """Say which of the two, or that the change which ``made`` a revision is not known."""
        words = (
            "that change is not remembered any more; put back by hand what it took"
            if made is not None
            else "nothing was changed in this build since the workshop was opened"
            if is_undoing
            else "nothing was taken back that is not there again"
        )
        super().__init__("Nothing to take back" if is_undoing else "Nothing to make again", words)


class TooManyError(RefusedError):
    """Something that was tried too often in a short time."""

    def __init__(self, what: str, wait_s: float) -> None:
        """There were too many of ``what``; it may be tried again after a while [s]."""
        minutes = max(1, round(wait_s / 60))
        self.wait_s = wait_s
        super().__init__(
            "Too many tries",
            f"there were too many {what}; wait {minutes} min and try again",
        )
