"""Who has no place yet, how far that leaves the balance open, and where they would mend it."""

from dataclasses import replace

import numpy as np
import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.lot import Lot, LotKind, LotUnit, Use
from oaken_scale.core.model.part import Part, Pedigree, Station
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.model.target import BalanceUnit, Target, TargetKind

WING = Surface("wing", "Wing", Role.WING, (Section(120, 0, 0, 110), Section(120, 240, 0, 110)))
TAIL = Surface("tail", "Tail", Role.TAIL, (Section(430, 0, 0, 65), Section(430, 100, 0, 65)))
RANGE = Target(TargetKind.BALANCE, 150.0, 160.0, balance_unit=BalanceUnit.MM_FROM_NOSE)


def part(id: str, grams: float, x: float | None = None, **more) -> Part:
    station = None if x is None else Station(x, doubt_mm=0.0)
    known = more.pop("pedigree", Pedigree.GUESS)
    return Part(id, id.title(), known, stated_g=grams, doubt_g=0.0, station=station, **more)


GLIDER = Build(
    "b",
    "B",
    surfaces=(WING, TAIL),
    parts=(part("wing", 18, 170), part("boom", 21, 200), part("clay", 8)),
    targets=(RANGE,),
)


def beam_of(build: Build, k: int = 0):
    return assess(build).beam.loadouts[k]


def cg_of(build: Build, k: int = 0):
    return assess(build).loadouts[k].cg


def with_clay_at(x: float, build: Build = GLIDER) -> Build:
    placed = [
        replace(p, station=Station(x, doubt_mm=0.0)) if not p.station else p for p in build.parts
    ]
    return replace(build, parts=tuple(placed))


def test_where_it_would_bring_the_plane_into_its_range_is_where_it_does():
    told = beam_of(GLIDER).unplaced
    assert (told.parts, told.mass_g) == (("clay",), pytest.approx(8))
    # By hand: (150 * 47 - 18 * 170 - 21 * 200) / 8 and the same with 160.
    assert (told.from_mm, told.to_mm) == (0.0, pytest.approx((160 * 47 - 7260) / 8))
    assert cg_of(with_clay_at(told.to_mm)).x_mm == pytest.approx(160)
    assert cg_of(with_clay_at(told.from_mm)).x_mm < 160


@pytest.mark.parametrize(
    ("low", "high", "first", "last"),
    [
        (157.0, 163.0, (157 * 47 - 7260) / 8, (163 * 47 - 7260) / 8),
        (None, 158.0, 0.0, (158 * 47 - 7260) / 8),
        (200.0, None, (200 * 47 - 7260) / 8, 495.0),  # the tail's end
        (235.0, 300.0, (235 * 47 - 7260) / 8, 495.0),
        (100.0, 120.0, None, None),
        (300.0, 320.0, None, None),
    ],
)
def test_both_ends_of_the_range_and_both_of_the_plane_bound_it(low, high, first, last):
    target = replace(RANGE, low=low, high=high)
    told = beam_of(replace(GLIDER, targets=(target,))).unplaced
    assert told.from_mm == (None if first is None else pytest.approx(first))
    assert told.to_mm == (None if last is None else pytest.approx(last))


def test_several_count_together_and_what_lies_all_over_is_not_asked_about():
    film = Lot("film", "Film", LotUnit.M, 1.0, 0.0, kind=LotKind.TAPE)
    more = (
        part("ball", 3),
        part("bead", 2, pedigree=Pedigree.JOINT),
        part("hot glue", 4),
        Part("stripe", "Stripe", Pedigree.COVERING, uses=(Use("film", 1.0),)),
        part("patch", 1, host="wing"),
        part("gone", 5, retired=True),
        part("hole", -2, pedigree=Pedigree.CALCULATED, host="wing"),
    )
    build = replace(GLIDER, parts=(*GLIDER.parts, *more), lots=(film,))
    told = beam_of(build).unplaced
    assert (told.parts, told.mass_g) == (("clay", "ball"), pytest.approx(11))
    assert told.to_mm == pytest.approx((160 * 50 - 7260) / 11)


def test_it_belongs_to_a_loadout():
    parts = (*GLIDER.parts[:2], part("pod", 8, option=True))
    build = replace(GLIDER, parts=parts, loadouts=(Loadout("a", "A"), Loadout("b", "B", ("pod",))))
    assert beam_of(build, 0).unplaced is None
    assert beam_of(build, 1).unplaced.parts == ("pod",)


def test_nobody_is_named_where_all_have_their_places_or_none_has():
    assert beam_of(with_clay_at(4.0)).unplaced is None
    nowhere = replace(GLIDER, parts=tuple(replace(p, station=None) for p in GLIDER.parts))
    assert beam_of(nowhere).unplaced is None
    told = beam_of(replace(GLIDER, targets=())).unplaced
    assert (told.parts, told.from_mm, told.to_mm) == (("clay",), None, None)


def test_what_lies_in_one_place_may_be_anywhere_from_nose_to_tail():
    """The doubt is that of drawing its place alike along the whole plane."""
    told = cg_of(GLIDER)
    x = np.random.default_rng(1).uniform(0.0, 495.0, 200_000)
    drawn = (7260 + 8 * x) / 47
    assert told.x_sd_mm == pytest.approx(((drawn - told.x_mm) ** 2).mean() ** 0.5, rel=0.01)
    ahead = replace(GLIDER, parts=(*GLIDER.parts[:2], part("spinner", 0.0, -80.0), part("clay", 8)))
    x = np.random.default_rng(2).uniform(-80.0, 495.0, 200_000)
    drawn = (7260 + 8 * x) / 47
    assert cg_of(ahead).x_sd_mm == pytest.approx(((drawn - told.x_mm) ** 2).mean() ** 0.5, rel=0.01)


@pytest.mark.parametrize("pedigree", [Pedigree.JOINT, Pedigree.COVERING])
def test_what_lies_all_over_has_the_spread_of_the_rest(pedigree):
    parts = (*GLIDER.parts[:2], part("glue", 8, pedigree=pedigree))
    told = cg_of(replace(GLIDER, parts=parts))
    centre = 7260 / 39
    spread = (18 * (170 - centre) ** 2 + 21 * (200 - centre) ** 2) / 39
    assert told.x_sd_mm == pytest.approx(8 / 47 * spread**0.5)


def test_a_verdict_is_no_surer_than_the_place_of_what_is_not_placed():
    """A nose weight of a sixth of the plane, nobody said where: it may well bring it in."""
    answer = next(a for a in assess(GLIDER).loadouts[0].answers if a.kind is TargetKind.BALANCE)
    assert answer.probability > 0.05
    placed = assess(with_clay_at(2.0)).loadouts[0].answers
    assert next(a for a in placed if a.kind is TargetKind.BALANCE).probability > 0.95
