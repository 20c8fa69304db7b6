"""What an earlier build weighed: the donor's or the last version's grams, to measure by."""

from dataclasses import dataclass
from typing import Annotated

from oaken_scale.core.model import limits
from oaken_scale.core.model.declared import Label, Length, MassOrLess, Name


@dataclass(frozen=True, slots=True)
class ReferencePart:
    """What one assembly of the earlier build came to [g]."""

    assembly: Label
    grams: MassOrLess


@dataclass(frozen=True, slots=True)
class ReferenceBuild:
    """An earlier build as it weighed when it was taken for a measure: it stands in this build's
    own file, whatever becomes of the other."""

    name: Name
    parts: Annotated[tuple[ReferencePart, ...], Length(limits.PARTS)]

    @property
    def auw_g(self) -> float:
        """All that it weighed [g].

        >>> parts = (ReferencePart("Wing", 140.0), ReferencePart("Power", 62.0))
        >>> ReferenceBuild("Curlew", parts).auw_g
        202.0
        """
        return sum(part.grams for part in self.parts)
