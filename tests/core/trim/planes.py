"""Planes of a few parts to be balanced, for the tests."""

from oaken_scale.core.model.balancing import Ballast, BallastSpot
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Part, Pedigree, Slide, Station
from oaken_scale.core.model.target import BalanceUnit, Target, TargetKind
from oaken_scale.core.trim.flown import fly
from oaken_scale.core.trim.remedies import balanceable
from oaken_scale.core.trim.remedies import remedies as remedies_of
from oaken_scale.core.trim.remedy import Balanceable

NONE = Ballast()


def thing(id: str, grams: float, x: float, slide=None, **more) -> Part:
    y = more.pop("y", 0.0)
    return Part(
        id,
        id.title(),
        Pedigree.LISTING,
        stated_g=grams,
        doubt_g=0.0,
        station=Station(x, y, doubt_mm=0.0),
        slide=None if slide is None else Slide(*slide),
        **more,
    )


def plane(*parts: Part, low=245.0, high=255.0, most=None, ballast=NONE, **more) -> Build:
    targets = (Target(TargetKind.BALANCE, low, high, "", BalanceUnit.MM_FROM_NOSE),)
    if most is not None:
        targets += (Target(TargetKind.AUW, high=most),)
    return Build("b", "B", parts=parts, targets=targets, ballast=ballast, **more)


def ready(build: Build) -> Balanceable:
    flown = fly(build)
    return balanceable(build, flown.planes, [id for id, _ in flown.names])


def remedies(bench_: Balanceable):
    return remedies_of(bench_, fly(bench_.build).planes)


def best(build: Build):
    return remedies(ready(build)).best


NOSE = Ballast((BallastSpot("nose", "Nose", 0.0, most_g=150.0),))


BODY = (thing("body", 300, 280), thing("tail", 40, 700))


def spot(x: float = 0.0, most: float = 150.0) -> Ballast:
    return Ballast((BallastSpot("nose", "Nose", x, most_g=most),))
