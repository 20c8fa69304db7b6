"""Figures as they are printed: in the chosen units, with the decimal mark of the reader."""

from dataclasses import dataclass
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
        text = f"{value:.{digits}f}"
        if float(text) == 0:
            text = text.removeprefix("-")
        return text.replace("-", "−").replace(".", self.mark.value)

    def mass(self, grams: float, digits: int | None = None) -> str:
        """A mass, without its unit."""
        usual = 0 if self.mass_unit is MassUnit.G else 1
        value = grams / FACTORS["mass"][self.mass_unit.value]
        return self.fixed(value, usual if digits is None else digits)

    def length(self, mm: float, digits: int | None = None) -> str:
        """A length, without its unit."""
        usual = 0 if self.length_unit is LengthUnit.MM else 2
        value = mm / FACTORS["length"][self.length_unit.value]
        return self.fixed(value, usual if digits is None else digits)

    def loading(self, g_per_dm2: float) -> str:
        """A wing loading, without its unit.

        >>> Shown(area_unit=AreaUnit.FT2).loading(30.0)
        '9.8'
        """
        _, unit, digits = _LOADING[self.area_unit]
        return self.fixed(g_per_dm2 / FACTORS["loading"][unit], digits)

    @property
    def loading_unit(self) -> str:
        """What wing loading is shown in."""
        return _LOADING[self.area_unit][0]
