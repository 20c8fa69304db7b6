from dataclasses import replace

import numpy as np
import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.flight.centre_of_gravity import stations
from oaken_scale.core.flight.forecast import POINTS, behind, lessons, narrowing
from oaken_scale.core.flight.weigh_next import Together
from oaken_scale.core.geometry.wing import wing_figures
from oaken_scale.core.ledger.posterior import solve
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Lot, LotKind, LotUnit, Use
from oaken_scale.core.model.part import Part, Pedigree, Station
from oaken_scale.demo.sandpiper import sandpiper
from tests.benches import case_l, random_build, reading, with_readings


def test_the_makeup_adds_up_to_the_plane():
    for each in assess(sandpiper()).loadouts:
        auw = each.answers[0].value
        assert sum(part.mass_g for part in each.behind.makeup) == pytest.approx(auw)
        assert sum(part.doubt_share for part in each.behind.makeup) == pytest.approx(1.0)


def test_shares_of_doubt_by_hand():
    """Two parts of one sheet, 18 and 5 dm2, and a motor: the shared sheet counts for both."""
    build = case_l()
    aboard = np.ones(len(build.parts))
    marks = [part.mark for part in assess(build).parts]
    told = behind(build, solve(build), stations(build, None), aboard, marks)
    # var = (37 * 0.4)^2 + 1.6^2 + 0.5^2 + 1.3^2 + 1.4^2 + 3^2
    total = (37 * 0.4) ** 2 + 1.6**2 + 0.5**2 + 1.3**2 + 1.4**2 + 3.0**2
    wing = 18 * 37 * 0.4**2 + 1.6**2
    shares = {source.part: source.share for source in told.auw_sources}
    assert shares["wing"] == pytest.approx(wing / total)
    assert shares["fuselage"] == pytest.approx((14 * 37 * 0.16 + 1.3**2) / total)


def test_the_four_largest_sources_are_named_largest_first():
    grams = (10.0, 60.0, 20.0, 50.0, 30.0, 40.0)
    parts = tuple(
        Part(f"g{each:g}", "G", Pedigree.LISTING, stated_g=each, doubt_g=each / 10)
        for each in grams
    )
    told = assess(Build("b", "B", parts=parts)).loadouts[0].behind.auw_sources
    assert [source.part for source in told] == ["g60", "g50", "g40", "g30"]
    assert told[0].share == pytest.approx(60**2 / sum(each**2 for each in grams))


def test_the_balances_doubt_counts_stations_too():
    build = Build(
        "b",
        "B",
        parts=(
            Part(
                "a",
                "A",
                Pedigree.LISTING,
                stated_g=50.0,
                doubt_g=0.0,
                station=Station(100.0, doubt_mm=5.0),
            ),
            Part(
                "b",
                "B",
                Pedigree.LISTING,
                stated_g=50.0,
                doubt_g=0.0,
                station=Station(300.0, doubt_mm=0.0),
            ),
        ),
    )
    told = assess(build).loadouts[0].behind
    assert [(source.part, source.share) for source in told.balance_sources] == [("a", 1.0)]
    assert told.auw_sources == ()


def test_the_curve_ends_where_the_assessment_is_and_narrows():
    build = sandpiper()
    where = stations(build, wing_figures(build.surfaces))
    points = narrowing(build, build.loadouts[0], where)
    assert len(points) == len(build.weighings) + 1
    assert [point.readings for point in points] == list(range(len(points)))
    answer = assess(build).loadouts[0].answers[0]
    assert (points[-1].auw_g, points[-1].auw_sd_g) == pytest.approx((answer.value, answer.sd))
    balance = assess(build).loadouts[0].answers[-1]
    assert balance.unit == "percent_mac"
    told = (points[-1].balance, points[-1].balance_sd)
    assert told == pytest.approx((balance.value, balance.sd), rel=1e-3)
    before = replace(build, weighings=())
    assert points[0].auw_g == pytest.approx(assess(before).loadouts[0].answers[0].value)
    sds = [point.auw_sd_g for point in points]
    assert sds[-1] < sds[0]


def test_a_long_log_makes_a_short_curve():
    build = random_build(2, parts=4, readings=300)
    points = narrowing(build, None, stations(build, None))
    assert len(points) == POINTS
    assert (points[0].readings, points[-1].readings) == (0, 300)


def test_readings_set_aside_are_not_on_the_curve():
    build = with_readings(case_l(), replace(reading(1, 90.2, "wing"), set_aside="x"))
    assert len(narrowing(build, None, stations(build, None))) == 1


def test_your_glue_runs_so_many_times_its_figure():
    glue = Lot("g", "Glue", LotUnit.M, 2.0, 0.6, kind=LotKind.ADHESIVE)
    seams = [Part(f"s{k}", "Seam", Pedigree.JOINT, uses=(Use("g", 3.0),)) for k in range(6)]
    part = Part("p", "Part", Pedigree.LISTING, stated_g=40.0)
    build = Build("b", "B", lots=(glue,), parts=(part, *seams), scales=case_l().scales)
    assert lessons(build, solve(build)) == ()
    told = [reading(0, 40.0, "p")]
    told += [reading(k + 1, 40.0 + 9.6, {"p": 1.0, f"s{k}": 1.0}) for k in range(6)]
    (lesson,) = lessons(build, solve(with_readings(build, *told)))
    assert lesson.lot == "g"
    assert lesson.factor == pytest.approx(1.5, abs=0.1)


@pytest.mark.parametrize(
    ("assembly", "together"), [("Wing", Together.ASSEMBLY), ("", Together.WHOLE_PLANE)]
)
def test_what_was_felt_piece_by_piece_is_worth_weighing_whole(assembly, together):
    """Two halves, each weighed with the glue on it: the whole is unsure by the glue alone."""
    parts = (
        Part("left", "Left", Pedigree.GUESS, assembly, stated_g=40.0),
        Part("right", "Right", Pedigree.GUESS, assembly, stated_g=40.0),
        Part("glue", "Glue", Pedigree.JOINT, assembly, stated_g=8.0),
    )
    build = Build("b", "B", parts=parts, scales=case_l().scales)
    assert not any(each.parts for each in assess(build).weigh_next)
    build = with_readings(
        build,
        reading(1, 47.0, {"left": 1.0, "glue": 1.0}),
        reading(2, 48.0, {"right": 1.0, "glue": 1.0}),
    )
    best = assess(build).weigh_next[0]
    assert (best.together, best.called) == (together, assembly)
    assert best.parts == ("left", "right", "glue")
    assert best.share > 0.99
    whole = with_readings(build, reading(3, 87.0, dict.fromkeys(best.parts, 1.0)))
    assert not any(each.parts for each in assess(whole).weigh_next)


def test_each_things_share_in_where_it_balances_by_hand():
    """Arms of (x - cg) / M by its grams, and m / M by its millimetres, of things of their own."""
    things = (("nose", 60.0, 3.0, 40.0, 2.0), ("wing", 200.0, 9.0, 260.0, 4.0))
    things = (*things, ("tail", 30.0, 2.0, 700.0, 3.0))
    parts = tuple(
        Part(id, id, Pedigree.LISTING, stated_g=g, doubt_g=sd, station=Station(x, doubt_mm=off))
        for id, g, sd, x, off in things
    )
    told = assess(Build("b", "B", parts=parts)).loadouts[0].behind
    mass = sum(g for _, g, *_ in things)
    cg = sum(g * x for _, g, _, x, _ in things) / mass
    own = {id: ((x - cg) / mass * sd) ** 2 + (g / mass * off) ** 2 for id, g, sd, x, off in things}
    for source in told.balance_sources:
        assert source.share == pytest.approx(own[source.part] / sum(own.values()), rel=1e-6)
    assert len(told.balance_sources) == 3
