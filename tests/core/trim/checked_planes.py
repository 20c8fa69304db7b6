"""Planes that are balanced by hand."""

from dataclasses import replace

from oaken_scale.core.model.balancing import BalanceCheck, CheckKind
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Part, Pedigree, Station
from oaken_scale.core.model.weighing import Scale
from oaken_scale.core.trim.flown import fly
from tests.benches import MORNING


def thing(id: str, grams: float, x: float, sd: float = 2.0, y=0.0, z=0.0, **more) -> Part:
    more = {"doubt_g": 0.05 * grams, **more}
    return Part(
        id,
        id.title(),
        Pedigree.LISTING,
        stated_g=grams,
        station=Station(x, y, z, doubt_mm=sd),
        **more,
    )


def plane(*checks: BalanceCheck, parts=None) -> Build:
    parts = parts or (
        thing("motor", 50, 10),
        thing("pack", 100, 180),
        thing("wing", 150, 280, 4.0, z=60),
        thing("tail", 40, 760, 4.0),
        thing("body", 120, 350, 4.0),
    )
    return Build("b", "B", parts=parts, scales=(Scale("k", "K", 0.1, 0.05, 0.0),), checks=checks)


def sure(*checks: BalanceCheck) -> Build:
    """The plane with its masses known: a reaction then tells of the balance alone."""
    parts = tuple(replace(part, doubt_g=0.01) for part in plane().parts)
    return plane(*checks, parts=parts)


def support(x: float, **more) -> BalanceCheck:
    return BalanceCheck("c", MORNING, CheckKind.SUPPORT, None, x, **more)


def cg_of(build: Build):
    return fly(build).planes[0].cg
