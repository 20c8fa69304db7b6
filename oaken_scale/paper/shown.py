"""Figures as they are printed: in the chosen units, with the decimal mark of the reader."""

from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal
from enum import StrEnum
from typing import Final

from oaken_scale.core.model.quantity import FACTORS


class MassUnit(StrEnum):
    """What masses are shown in."""

    G = "g"
    OZ = "oz"


class LengthUnit(StrEnum):
    """What lengths are shown in."""

    MM = "mm"
    IN = "in"


class AreaUnit(StrEnum):
    """What areas are shown in, and what loading is per."""

    DM2 = "dm2"
    M2 = "m2"
    FT2 = "ft2"
    IN2 = "in2"


class DecimalMark(StrEnum):
    """What stands before the tenths."""

    POINT = "."
    COMMA = ","


_LOADING: Final = {
    AreaUnit.DM2: ("g/dm²", "g/dm2", 1),
    AreaUnit.M2: ("kg/m²", "kg/m2", 2),
    AreaUnit.FT2: ("oz/ft²", "oz/ft2", 1),
    AreaUnit.IN2: ("oz/ft²", "oz/ft2", 1),
}


@dataclass(frozen=True, slots=True)
class Measure:
    """What a kind of figure is printed in: its unit, how many base units make one of it, and with
    how many digits."""

    unit: str
    base: float
    digits: int

    def exact_to(self, sd: float | None) -> int:
        """With how many digits a figure is printed that has so much doubt (one sigma, in the base
        unit): one more than usual where its doubt would be written as nothing.

        >>> Measure("g", 1.0, 0).exact_to(3.0), Measure("g", 1.0, 0).exact_to(0.1)
        (0, 1)
        """
        nothing = bool(sd) and not rounded(2 * (sd or 0) / self.base, self.digits).strip("0.")
        return self.digits + nothing


def rounded(value: float, digits: int) -> str:
    """A number with so many digits, a half away from zero as the pages round it: one figure is the
    same on paper and on the screen.

    >>> rounded(86.5, 0), rounded(-0.125, 2), rounded(1.005, 2)  # the last lies below its half
    ('87', '-0.13', '1.00')
    """
    return str(Decimal(value).quantize(Decimal(1).scaleb(-digits), ROUND_HALF_UP))


@dataclass(frozen=True, slots=True)
class Shown:
    """The units of one reader."""

    mass_unit: MassUnit = MassUnit.G
    length_unit: LengthUnit = LengthUnit.MM
    area_unit: AreaUnit = AreaUnit.DM2
    mark: DecimalMark = DecimalMark.POINT

    def fixed(self, value: float, digits: int) -> str:
        """A number with so many digits behind the mark.

        >>> Shown(mark=DecimalMark.COMMA).fixed(-0.04, 1), Shown().fixed(-2.5, 1)
        ('0,0', '−2.5')
        """
        text = rounded(value, digits)
        if float(text) == 0:
            text = text.removeprefix("-")
        return text.replace("-", "−").replace(".", self.mark.value)

    @property
    def masses(self) -> Measure:
        """What masses of whole planes are printed in."""
        unit = self.mass_unit.value
        return Measure(unit, FACTORS["mass"][unit], 0 if self.mass_unit is MassUnit.G else 1)

    @property
    def lengths(self) -> Measure:
        """What lengths are printed in."""
        unit = self.length_unit.value
        return Measure(unit, FACTORS["length"][unit], 0 if self.length_unit is LengthUnit.MM else 2)

    @property
    def loadings(self) -> Measure:
        """What wing loadings are printed in.

        >>> Shown(area_unit=AreaUnit.FT2).loadings.unit
        'oz/ft²'
        """
        name, unit, digits = _LOADING[self.area_unit]
        return Measure(name, FACTORS["loading"][unit], digits)

    def figure(self, value: float, measure: Measure, digits: int | None = None) -> str:
        """A figure in its base unit, as it is printed, without its unit.

        >>> shown = Shown(area_unit=AreaUnit.FT2)
        >>> shown.figure(30.0, shown.loadings)
        '9.8'
        """
        return self.fixed(value / measure.base, measure.digits if digits is None else digits)

    def mass(self, grams: float, digits: int | None = None) -> str:
        """A mass, without its unit."""
        return self.figure(grams, self.masses, digits)

    def length(self, mm: float, digits: int | None = None) -> str:
        """A length, without its unit."""
        return self.figure(mm, self.lengths, digits)

    def stated(self, grams: float) -> str:
        """A mass that somebody stated, a limit, with as many digits as it needs.

        >>> Shown().stated(250.0), Shown().stated(249.5), Shown(MassUnit.OZ).stated(249.5)
        ('250', '249.5', '8.8')
        """
        exact = self.mass(grams, self.masses.digits + 1)
        return exact.rstrip("0").rstrip(self.mark.value)
