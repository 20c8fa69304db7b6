"""The readings of builds by their ids, without going through a log that only grew."""

from oaken_scale.core.model.build import Build
from oaken_scale.core.model.weighing import Weighing


class Logs:
    """The logs of a workshop's builds, as they were seen last."""

    def __init__(self) -> None:
        """None was seen yet."""
        self._seen: dict[str, tuple[tuple[Weighing, ...], dict[str, Weighing]]] = {}

    def of(self, build: Build) -> dict[str, Weighing]:
        """A build's readings by their ids."""
        log, by_id = self._seen.get(build.id, ((), {}))
        if log is not build.weighings:
            by_id = {each.id: each for each in build.weighings}
            self._seen[build.id] = (build.weighings, by_id)
        return by_id

    def grew(self, before: Build, after: Build) -> None:
        """A build's log has a reading more. One that was not kept after all is found out, as the
        build's log is another one then."""
        by_id, last = self.of(before), after.weighings[-1]
        by_id[last.id] = last
        self._seen[after.id] = (after.weighings, by_id)
