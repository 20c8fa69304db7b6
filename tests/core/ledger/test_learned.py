"""What builds learn from one another, against one ledger that holds both of them."""

from dataclasses import replace

import numpy as np
import pytest

from oaken_scale.core.assess import Mark, assess
from oaken_scale.core.ledger.learned import combined, elsewhere, learned
from oaken_scale.core.ledger.mixture import solve
from oaken_scale.core.ledger.prior import together
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Known, Lot, LotUnit, Use
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.weighing import Pan, Sample, Scale, Weighing
from tests.benches import MORNING, accepted, case_l, reading, with_readings

GLUE = Lot("glue", "Glue", LotUnit.M, 2.0, 0.6, rack="glue")
EXACT = Scale("kitchen", "Kitchen", 0.1, 0.05, 0.0)


def glued(name: str, metres: float, whole_g: float | None) -> Build:
    """A build of a weighed part and its glue: weighed together, the rest is the glue."""
    build = Build(
        name,
        name,
        lots=(GLUE,),
        scales=(EXACT,),
        parts=(
            Part("part", "Part", Pedigree.GUESS, stated_g=50.0),
            Part("seam", "Seam", Pedigree.JOINT, uses=(Use("glue", metres),)),
        ),
    )
    if whole_g is None:
        return build
    together = reading(2, whole_g, {"part": 1, "seam": 1})
    return with_readings(build, reading(1, 50.0, "part"), together)


def test_a_forecast_learns_what_glue_weighed_elsewhere():
    before = glued("b", 2.0, None)
    told = learned(glued("a", 3.0, 59.6))
    after = elsewhere(before, [("a", told)])
    assert assess(before).parts[1].mass_g == pytest.approx(4.0)
    assert assess(after).parts[1].mass_g > 4.4
    assert assess(after).lots[0].sd < assess(before).lots[0].sd
    assert after.lots[0].elsewhere.source == "a"


def test_it_is_as_if_both_builds_stood_in_one_ledger():
    one, other = glued("a", 3.0, 59.6), glued("b", 2.0, 57.0)
    both = replace(
        one,
        parts=(*one.parts, *(replace(part, id=f"b-{part.id}") for part in other.parts)),
        weighings=(
            *one.weighings,
            reading(3, 50.0, "b-part"),
            reading(4, 57.0, {"b-part": 1, "b-seam": 1}),
        ),
    )

    # The glue's own doubt is a share of its estimate, which what was learned moves, and how far the
    # parts lie from theirs widens it: state them, so that both ways have the same prior.
    def stated(build):
        parts = tuple(replace(i, doubt_g=1.5) for i in build.parts)
        return accepted(replace(build, parts=parts))

    together = solve(stated(both))
    apart = solve(elsewhere(stated(other), [("a", learned(stated(one)))]))
    assert apart.mean[0] == pytest.approx(together.mean[0], rel=1e-9)
    assert apart.sd[0] == pytest.approx(together.sd[0], rel=1e-9)
    assert apart.mass == pytest.approx(together.mass[2:], rel=1e-9)


def test_nothing_learned_elsewhere_is_told_on():
    """What a build heard from another is no finding of its own."""
    alone = glued("a", 3.0, 59.6)
    heard = replace(alone, lots=(replace(GLUE, elsewhere=Known(9.0, 0.1)),))
    assert learned(heard) == learned(alone)


def test_a_build_that_weighed_nothing_tells_nothing():
    assert learned(glued("a", 3.0, None)).lots == {}
    own = replace(glued("a", 3.0, 59.6), lots=(replace(GLUE, rack=None),))
    assert learned(own).lots == {}


def test_findings_combine_by_precision():
    together = combined([Known(3.0, 1.0), Known(6.0, 2.0)], "a, b")
    assert together.value == pytest.approx((3 * 1 + 6 * 0.25) / 1.25)
    assert together.doubt == pytest.approx(1.25**-0.5)
    assert combined([]) is None


def test_a_thing_weighed_in_one_build_is_weighed_in_the_next():
    motor = Part("motor", "Motor", Pedigree.LISTING, stated_g=44.0, thing="motor")
    first = with_readings(
        Build("a", "A", parts=(motor,), scales=(EXACT,)), reading(1, 46.1, "motor")
    )
    second = elsewhere(Build("b", "B", parts=(motor,), scales=(EXACT,)), [("A", learned(first))])
    told = assess(second).parts[0]
    assert told.mass_g == pytest.approx(46.1, abs=0.02)
    assert told.sd_g < 0.1
    assert told.mark is Mark.WEIGHED
    assert assess(second).loadouts[0].fully_weighed


def test_exact_figures_learn_nothing_and_stay():
    lot = Lot("a", "A", LotUnit.DM2, 4.6, 0.0, rack="a", elsewhere=Known(9.0, 0.1))
    assert solve(Build("b", "B", lots=(lot,))).mean[0] == 4.6
    square = Weighing("1", MORNING, "kitchen", 5.0, Pan(samples=(Sample("a", 1.0),)))
    assert learned(Build("b", "B", lots=(lot,), scales=(EXACT,), weighings=(square,))).lots == {}


def test_case_l_told_on_is_case_l():
    """A second build of the sheet of case L starts where case L ended: 4.992 g/dm2."""
    build = with_readings(case_l(), reading(1, 90.2, "wing"))
    build = replace(build, lots=tuple(replace(lot, rack="sheet") for lot in build.lots))
    known = learned(build).lots["sheet"]
    fresh = Lot("s", "S", LotUnit.DM2, 4.6, 0.4, elsewhere=known)
    after = solve(Build("b", "B", lots=(fresh,)))
    assert np.round(after.mean[0], 3) == 4.992
    assert after.sd[0] == pytest.approx(solve(build).sd[0], rel=1e-9)


@pytest.mark.parametrize("order", [("a", "b", "c"), ("c", "a", "b"), ("b", "c", "a")])
def test_it_is_nothing_in_which_order_builds_are_heard(order):
    told = {
        "a": learned(glued("a", 3.0, 59.6)),
        "b": learned(glued("b", 2.0, 57.0)),
        "c": learned(glued("c", 4.0, 58.2)),
    }
    heard = elsewhere(glued("d", 1.0, None), [(name, told[name]) for name in order])
    known = heard.lots[0].elsewhere
    by_hand = combined([told[name].lots["glue"] for name in "abc"])
    assert known.value == pytest.approx(by_hand.value)
    assert known.doubt == pytest.approx(by_hand.doubt)
    assert known.source == ", ".join(order)


def test_three_builds_sharpen_more_than_one():
    told = [(name, learned(glued(name, 3.0, 57.0))) for name in "abc"]
    one = elsewhere(glued("d", 1.0, None), told[:1]).lots[0].elsewhere
    three = elsewhere(glued("d", 1.0, None), told).lots[0].elsewhere
    assert three.value == pytest.approx(one.value)
    assert three.doubt == pytest.approx(one.doubt / 3**0.5)


def test_hearing_again_changes_nothing_and_hearing_nothing_forgets():
    told = [("a", learned(glued("a", 3.0, 59.6)))]
    once = elsewhere(glued("d", 1.0, None), told)
    assert elsewhere(once, told) == once
    assert elsewhere(once, []) == glued("d", 1.0, None)


def test_a_scale_that_reads_high_is_doubted_along_with_the_glue():
    """The scale's own calibration doubt stays in what is told on."""
    sure = glued("a", 3.0, 59.6)
    loose = replace(sure, scales=(replace(EXACT, calibration_doubt=0.01),))
    known, vague = learned(sure).lots["glue"], learned(loose).lots["glue"]
    assert vague.doubt >= known.doubt


def test_a_lot_of_which_nothing_was_weighed_teaches_nothing():
    """Two sheets of the rack, and only what was cut of the first was ever on a pan."""
    sheets = tuple(
        Lot(id, id, LotUnit.DM2, 4.6, 0.4, rack=f"rack-{id}") for id in ("first", "second")
    )
    parts = tuple(
        Part(id, id, Pedigree.CALCULATED, uses=(Use(id, 10.0),)) for id in ("first", "second")
    )
    build = Build("b", "B", lots=sheets, parts=parts, scales=(EXACT,))
    told = learned(with_readings(build, reading(1, 50.0, "first")))
    assert list(told.lots) == ["rack-first"]
    assert not told.things
    assert not learned(build).lots


def test_what_is_known_for_sure_elsewhere_is_known_here():
    assert together(2.0, 0.5, Known(3.0, 0.0)) == (3.0, 0.0)
    assert together(2.0, 0.0, Known(3.0, 0.0)) == (2.0, 0.0)
    assert together(2.0, 0.5, None) == (2.0, 0.5)
    mean, sd = together(2.0, 0.3, Known(3.0, 0.4))
    assert mean == pytest.approx((2 / 0.09 + 3 / 0.16) / (1 / 0.09 + 1 / 0.16))
    assert sd == pytest.approx((1 / 0.09 + 1 / 0.16) ** -0.5)
