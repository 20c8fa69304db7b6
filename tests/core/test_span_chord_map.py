"""The map of spans and chords: every point against the build that it is, and worked by hand."""

from dataclasses import replace
from itertools import pairwise, product
from statistics import NormalDist

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.changes.sketch import Start, begun_from
from oaken_scale.core.geometry.wing import wing_figures
from oaken_scale.core.material.drawer import Thing, ThingKind
from oaken_scale.core.material.rack import STARTER
from oaken_scale.core.model import presets
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.faults.whole import faults
from oaken_scale.core.model.part import Pedigree
from oaken_scale.core.model.target import BalanceUnit, Target, TargetKind
from oaken_scale.core.span_chord_map import (
    LIKELY,
    SURE,
    Likely,
    Want,
    map_point,
    span_chord_map,
)
from oaken_scale.demo.sandpiper_parts import DRAWER

RACK = {lot.id: lot for lot in STARTER}
ABOARD = ("motor", "propeller", "controller", "pack-1300", "elevator-servo", "receiver", "camera")
TARGETS = (
    Target(TargetKind.AUW, high=590.0),
    Target(TargetKind.WING_LOADING, high=45.0),
    Target(TargetKind.THRUST_TO_WEIGHT, low=0.7),
    Target(TargetKind.BALANCE, 25.0, 33.0),
)
START = Start(
    "camera",
    "tractor",
    TARGETS,
    RACK["board-one"],
    RACK["board-both"],
    2.0,
    tuple(each for each in DRAWER if each.id in ABOARD),
    480.0,
)


@pytest.mark.parametrize("layout", [each.id for each in presets.LAYOUTS])
def test_every_layout_makes_a_build_that_stands_and_is_told(layout):
    build = begun_from(replace(START, layout=layout), 1000.0, 180.0)
    assert faults(build) == ()
    told = assess(build)
    assert all(each.value is not None for each in told.loadouts[0].answers[:3])
    assert wing_figures(build.surfaces).span_mm == pytest.approx(1000.0)


def test_the_weight_of_one_point_by_hand():
    """1000 by 180: wing 18 dm2 twice over of 3.2; tail and fin by the drawing, fuselage
    0.75 x 180 mm by the length and 0.45 of it again, of 4.5; glue and tape 8/38 of that; things as
    listed; and for what nobody lists 4 % of all but the options."""
    build = begun_from(START, 1000.0, 180.0)
    wing = 2 * 18.0 * 3.2
    tail = 2 * 210 * 110 / 1e4
    fin = 120 * (130 + 80) / 2 / 1e4
    body = 820 * 0.75 * 180 * 1.45 / 1e4
    foam = wing + (tail + fin + body) * 4.5
    listed = sum(each.listing_g for each in DRAWER if each.id in ABOARD)
    options = 108.0 + 38.5
    always = foam * (1 + 8 / 38) + listed - options
    by_hand = always * 1.04 + options
    told = next(a.value for a in assess(build).loadouts[0].answers if a.kind is TargetKind.AUW)
    assert told == pytest.approx(by_hand, rel=0.003)
    assert map_point(START, 1000.0, 180.0).auw_g == pytest.approx(told)


def test_every_point_is_told_as_the_build_that_it_is():
    """Brute force: each point's figures and chances are those of the plane begun there."""
    spans, chords = (700.0, 1000.0, 1300.0), (140.0, 190.0, 240.0)
    told = span_chord_map(START, spans, chords)
    assert [(p.span_mm, p.chord_mm) for p in told.points] == list(product(spans, chords))
    for point in told.points:
        answers = assess(begun_from(START, point.span_mm, point.chord_mm)).loadouts[0].answers
        by_kind = {each.kind: each for each in answers}
        for each in point.chances:
            assert each.value == pytest.approx(by_kind[each.kind].value, rel=1e-9)
            if each.kind is not Want.BALANCE:
                assert each.chance == pytest.approx(by_kind[each.kind].probability, abs=1e-9)
        assert point.chance == min(each.chance for each in point.chances)


def test_the_pack_is_put_where_it_balances_and_the_chance_is_that_it_can_be():
    build = begun_from(START, 1000.0, 180.0)
    pack = next(part for part in build.parts if part.thing == "pack-1300")
    assert pack.slide.low_mm <= pack.station.x_mm <= pack.slide.high_mm
    balance = next(a for a in assess(build).loadouts[0].answers if a.kind is TargetKind.BALANCE)
    assert balance.value == pytest.approx(29.0, abs=0.2)
    # A range that no place of the pack reaches has no chance, one that many do has all of it.
    for low, high, least, most in ((0.0, 1.0, 0.0, 0.2), (20.0, 40.0, 0.97, 1.0)):
        band = Target(TargetKind.BALANCE, low, high, "", BalanceUnit.PERCENT_MAC)
        point = map_point(replace(START, targets=(band,)), 1000.0, 180.0)
        assert least <= point.chances[0].chance <= most


@pytest.mark.parametrize("aboard", [(), ("motor", "receiver")], ids=["bare", "without a pack"])
def test_without_a_pack_nobody_knows_what_will_balance_it(aboard):
    things = tuple(each for each in DRAWER if each.id in aboard)
    start = replace(START, targets=(TARGETS[1], TARGETS[3]), things=things)
    point = map_point(start, 1000.0, 180.0)
    assert [each.kind for each in point.chances] == [Want.WING_LOADING, Want.BALANCE]
    loading, balance = point.chances
    assert balance.chance is None
    assert point.chance == loading.chance > SURE
    assert point.likely is Likely.SURE
    told = span_chord_map(start, (900.0, 1100.0), (170.0, 190.0))
    assert told.quarrels == ()


def test_a_plane_of_which_nothing_is_wanted_is_as_wanted():
    assert map_point(replace(START, targets=()), 1000.0, 180.0).chance == 1.0


@pytest.mark.parametrize(("low", "high"), [(33.0, 36.0), (22.0, 25.5), (38.0, 40.0)])
def test_the_chance_that_the_pack_can_be_put_where_it_balances_by_hand(low, high):
    """Its slide, in its share of what has a place: the allowance has none, and goes along."""
    band = Target(TargetKind.BALANCE, low, high, "", BalanceUnit.PERCENT_MAC)
    start = replace(START, targets=(band,))
    build = begun_from(start, 1000.0, 180.0)
    told = assess(build)
    pack = next(part for part in build.parts if part.thing == "pack-1300")
    at = {part.id: part for part in told.parts}
    placed = sum(each.mass_g for each in told.parts if each.x_from_nose_mm is not None)
    assert placed < sum(each.mass_g for each in told.parts)
    share = at[pack.id].mass_g / placed
    forward = share * (pack.station.x_mm - pack.slide.low_mm)
    aft = share * (pack.slide.high_mm - pack.station.x_mm)
    cg, edge = told.loadouts[0].cg, told.wing.mac_le_x_mm
    ends = (
        edge + low / 100 * told.wing.mac_mm - aft,
        edge + high / 100 * told.wing.mac_mm + forward,
    )
    cdf = NormalDist(cg.x_mm, cg.x_sd_mm).cdf
    point = map_point(start, 1000.0, 180.0)
    assert point.chances[0].chance == pytest.approx(cdf(ends[1]) - cdf(ends[0]), abs=1e-9)


def test_a_larger_wing_is_heavier_and_flies_slower():
    told = [map_point(START, span, 180.0) for span in (700.0, 900.0, 1100.0, 1300.0)]
    for smaller, larger in pairwise(told):
        assert larger.auw_g > smaller.auw_g
        assert larger.stall_m_s < smaller.stall_m_s
        assert larger.minutes < smaller.minutes * 1.2


def test_minutes_by_hand():
    """0.8 x 1.3 Ah x 11.1 V over M g/6 x 1.4 stall/0.42."""
    point = map_point(START, 1000.0, 180.0)
    watts = point.auw_g / 1000 * 9.80665 / 6 * 1.4 * point.stall_m_s / 0.42
    assert point.minutes == pytest.approx(60 * 0.8 * 1.3 * 11.1 / watts, rel=1e-6)
    bare = replace(START, things=())
    assert map_point(bare, 1000.0, 180.0).minutes is None


@pytest.mark.parametrize(("times", "chance"), [(1.0, 0.5), (0.8, 0.845), (1.25, 0.155)])
def test_minutes_that_are_wanted_have_a_chance(times, chance):
    """One sigma of a flight nobody has flown: 0.2 of the glide ratio and 0.04/0.42 of what drives
    the plane, 0.2215 together; ln 1.25 = 0.2231 is 1.007 sigma."""
    minutes = map_point(START, 1000.0, 180.0).minutes
    point = map_point(replace(START, least_minutes=minutes * times), 1000.0, 180.0)
    told = next(each for each in point.chances if each.kind is Want.MINUTES)
    assert told.chance == pytest.approx(chance, abs=0.003)
    assert point.chance <= told.chance


def test_minutes_no_plane_lasts_quarrel():
    long = replace(START, least_minutes=300.0)
    (alone,) = span_chord_map(long, (900.0, 1200.0), (160.0, 200.0)).quarrels
    assert (alone.kind, alone.other) == (Want.MINUTES, None)


def test_the_best_is_among_the_likely_and_the_lines_are_the_sheets():
    told = span_chord_map(START, (600.0, 900.0, 1200.0), (120.0, 160.0, 200.0, 240.0), 22.0)
    most = max(point.chance for point in told.points)
    assert told.points[told.best].chance >= 0.95 * most >= LIKELY
    assert told.quarrels == ()
    lines = [(line.is_span, line.why, round(line.at_mm)) for line in told.lines]
    assert lines == [
        (True, "one sheet", 700),
        (True, "two halves", 1400),
        (False, "folded from one", 244),
        (False, "thickest", 183),
        (False, "thinnest", 275),
    ]
    flat = span_chord_map(replace(START, wing_layers=1.0), (900.0,), (160.0,))
    assert [line.why for line in flat.lines] == ["one sheet", "two halves", "one sheet deep"]


def test_targets_that_no_plane_meets_say_which():
    spans, chords = (600.0, 900.0, 1200.0), (120.0, 180.0, 240.0)
    low = (Target(TargetKind.AUW, high=200.0), TARGETS[1])
    alone = span_chord_map(replace(START, targets=low), spans, chords).quarrels
    assert [(each.kind, each.other) for each in alone] == [(Want.AUW, None)]
    both = (Target(TargetKind.AUW, high=450.0), Target(TargetKind.WING_LOADING, high=26.0))
    told = span_chord_map(replace(START, targets=both), (*spans, 1500.0), chords)
    (quarrel,) = told.quarrels
    assert (quarrel.kind, quarrel.other) == (Want.AUW, Want.WING_LOADING)
    best = max(min(each.chance for each in point.chances) for point in told.points)
    assert quarrel.best == pytest.approx(best)
    for kind in (Want.AUW, Want.WING_LOADING):
        met = [c.chance for p in told.points for c in p.chances if c.kind is kind]
        assert max(met) > LIKELY


def test_what_the_workshop_learned_moves_the_map():
    from oaken_scale.core.model.lot import Known  # noqa: PLC0415

    heavier = replace(RACK["board-both"], elsewhere=Known(5.5, 0.05, "weighed"))
    plain, told = (
        map_point(each, 1000.0, 180.0) for each in (START, replace(START, body_lot=heavier))
    )
    assert told.auw_g > plain.auw_g + 10
    pack = replace(START, weighed=(("pack-1300", Known(120.0, 0.5, "weighed")),))
    assert map_point(pack, 1000.0, 180.0).auw_g > plain.auw_g + 8


@pytest.mark.parametrize(
    ("wrong", "field"),
    [
        ({"layout": "saucer"}, "layout"),
        ({"purpose": "racing"}, "purpose"),
        ({"wing_lot": RACK["tube-4"]}, "wing_lot"),
        ({"body_lot": RACK["hot-melt"]}, "body_lot"),
    ],
)
def test_what_nothing_can_be_made_of_is_refused_by_its_field(wrong, field):
    with pytest.raises(BuildFaultError) as refused:
        begun_from(replace(START, **wrong), 1000.0, 180.0)
    assert refused.value.faults[0].field == field


def test_a_second_pack_is_aboard_as_an_option_only():
    things = (*START.things, Thing("small", "Small pack", ThingKind.PACK, 60.0, True, cells=2))
    build = begun_from(replace(START, things=things), 1000.0, 180.0)
    assert all(part.option for part in build.parts if part.name.lower().endswith("pack"))
    assert [part.pedigree for part in build.parts][-1] is Pedigree.ALLOWANCE
