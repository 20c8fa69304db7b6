"""What an earlier build weighed: the donor's or the last version's grams, to measure by."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class PastPart:
    """What one assembly of the earlier build came to [g]."""

    assembly: str
    grams: float


@dataclass(frozen=True, slots=True)
class Past:
    """An earlier build as it weighed when it was taken for a measure: it stands in this build's
    own file, whatever becomes of the other."""

    name: str
    parts: tuple[PastPart, ...]

    @property
    def auw_g(self) -> float:
        """All that it weighed [g]."""
        return sum(part.grams for part in self.parts)
