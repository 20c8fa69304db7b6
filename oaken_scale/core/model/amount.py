"""So much of something in a base unit, for whoever says it in the unit that a builder chose."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Amount:
    """An amount in its base ``unit``: g, mm, dm2, gf, g/dm2; a bare number without one.

    >>> str(Amount(129.696, "mm")), str(Amount(20000, "g")), str(Amount(12.5, ""))
    ('129.7 mm', '20000 g', '12.5')
    """

    value: float
    unit: str

    def __str__(self) -> str:
        """The amount in its base unit, for programs and files; pages say it in the chosen one."""
        figure = f"{self.value:.4g}" if abs(self.value) < 1000 else f"{round(self.value, 1):g}"
        return f"{figure} {self.unit}".rstrip()


def grams(value: float) -> Amount:
    """A mass [g].

    >>> grams(28.0)
    Amount(value=28.0, unit='g')
    """
    return Amount(value, "g")


def mm(value: float) -> Amount:
    """A length or a station [mm].

    >>> mm(190.0)
    Amount(value=190.0, unit='mm')
    """
    return Amount(value, "mm")


def dm2(value: float) -> Amount:
    """An area [dm2].

    >>> dm2(20.52)
    Amount(value=20.52, unit='dm2')
    """
    return Amount(value, "dm2")
