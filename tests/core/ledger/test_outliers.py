"""Doubt: leaving readings out against solving without them, and slips made by hand."""

from dataclasses import replace

import numpy as np
import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.ledger.mixture import doubts, suspect
from oaken_scale.core.ledger.outliers import leave_one_out
from oaken_scale.core.ledger.posterior import solve
from oaken_scale.core.ledger.readings import pan_row
from oaken_scale.core.ledger.scale import reading_doubt
from oaken_scale.core.ledger.slip import SlipKind
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Lot, LotUnit, Use
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.weighing import Container, Load, Pan, Scale
from oaken_scale.demo.sandpiper import sandpiper
from tests.benches import random_build, reading, with_readings

TRAY = Container("tray", "Tray", 31.4)


def without(build: Build, id: str) -> Build:
    return replace(build, weighings=tuple(w for w in build.weighings if w.id != id))


def predicted(build: Build, weighing) -> float:
    """``t`` of a reading, by solving the whole ledger without it."""
    after = solve(without(build, weighing.id))
    scale = next(s for s in build.scales if s.id == weighing.scale)
    row = np.zeros(len(after.mean))
    row[: after.parts.stop] = pan_row(build, weighing.pan)
    load = row @ after.mean + weighing.pan.known_g
    k = build.scales.index(scale)
    error = after.mean[after.scales][k]
    row *= 1 + error
    row[after.scales.start + k] = load
    variance = row @ after.cov @ row + reading_doubt(scale) ** 2
    return float((weighing.reading_g - (1 + error) * load) / variance**0.5)


@pytest.mark.parametrize("seed", range(5))
def test_one_factorisation_tells_what_leaving_each_out_would(seed):
    """Exact for scales without a calibration doubt; that one bends the product a little."""
    build = random_build(seed)
    build = replace(
        build, scales=tuple(replace(scale, calibration_doubt=0.0) for scale in build.scales)
    )
    out = leave_one_out(build)
    for weighing, t in zip(out.weighings, out.t, strict=True):
        assert t == pytest.approx(predicted(build, weighing), rel=1e-5, abs=1e-6)


def test_several_readings_of_one_set_are_left_out_one_at_a_time():
    build = bench(reading(1, 50.0, "motor"), reading(2, 50.2, "motor"), reading(3, 80.0, "motor"))
    out = leave_one_out(build)
    for weighing, t in zip(out.weighings, out.t, strict=True):
        assert t == pytest.approx(predicted(build, weighing), rel=1e-6)


def test_a_bent_scale_is_left_out_nearly_as_well():
    build = sandpiper()
    out = leave_one_out(build)
    for weighing, t in zip(out.weighings, out.t, strict=True):
        assert t == pytest.approx(predicted(build, weighing), rel=0.02, abs=0.02)


def bench(*readings) -> Build:
    """A motor, a pack, a servo, a wing and its glue, on a scale without calibration doubt."""
    build = Build(
        "b",
        "B",
        lots=(Lot("a", "A", LotUnit.DM2, 4.6, 0.4),),
        parts=(
            Part("motor", "Motor", Pedigree.LISTING, stated_g=46.0),
            Part("pack", "Pack", Pedigree.LISTING, stated_g=101.0),
            Part("servo", "Servo", Pedigree.LISTING, stated_g=9.0),
            Part("wing", "Wing", Pedigree.CALCULATED, uses=(Use("a", 18.0),)),
            Part("glue", "Glue", Pedigree.GUESS, stated_g=8.0),
        ),
        scales=(Scale("kitchen", "Kitchen", 0.1, 0.05, 0.0),),
        containers=(TRAY,),
    )
    return with_readings(build, *readings)


def only(build: Build):
    (doubt,) = doubts(build)
    return doubt


def test_the_demos_tray_is_found_and_named():
    told = assess(sandpiper()).doubts
    assert [each.weighing for each in told] == ["reading-03"]
    slip = told[0].slips[0]
    assert (slip.kind, slip.subject) == (SlipKind.NOT_TARED, "tray")
    assert slip.reading_g == pytest.approx(6.1)
    assert slip.share > 0.9


SLIPS = {
    "not tared": (reading(1, 46.2 + 31.4, "motor"), "not tared", "tray", 46.2),
    "tared twice": (reading(1, 101.4 - 31.4, "pack"), "tared twice", "tray", 101.4),
    "ounces": (reading(1, 101.4 / 28.349523125, "pack"), "ounces", None, 101.4),
    "grams": (reading(1, 46.2 * 28.349523125, "motor"), "grams", None, 46.2),
    "decimal": (reading(1, 462.0, "motor"), "decimal", None, 46.2),
    "digits": (reading(1, 64.2, "motor"), "digits", None, 46.2),
}


@pytest.mark.parametrize("name", SLIPS)
def test_a_slip_of_reading_is_named_and_put_right(name):
    wrong, kind, subject, right = SLIPS[name]
    doubt = only(bench(wrong))
    best = doubt.slips[0]
    assert (best.kind, best.subject) == (kind, subject)
    assert best.reading_g == pytest.approx(right, abs=0.06)
    assert best.pan == wrong.pan


def test_a_thing_left_on_the_pan_is_named():
    # The pack was weighed before, so 46.2 + 101.4 fits it and nothing else.
    build = bench(reading(1, 101.4, "pack"), reading(2, 46.2 + 101.4, "motor"))
    build = replace(build, containers=())
    best = only(build).slips[0]
    assert (best.kind, best.subject) == (SlipKind.LEFT_ON, "pack")
    assert best.pan == Pan((Load("motor"), Load("pack")))


def test_a_thing_left_off_the_pan_is_named():
    both = {"motor": 1.0, "pack": 1.0, "servo": 1.0}
    build = bench(reading(1, 101.4, "pack"), reading(2, 9.1, "servo"), reading(3, 55.2, both))
    best = only(build).slips[0]
    assert (best.kind, best.subject) == (SlipKind.LEFT_OFF, "pack")
    assert best.pan == Pan((Load("motor"), Load("servo")))


def test_another_thing_than_was_recorded_is_named():
    build = bench(reading(1, 101.4, "pack"), reading(2, 101.5, "servo"))
    best = only(build).slips[0]
    assert (best.kind, best.subject) == (SlipKind.WRONG_PART, "pack")
    assert best.pan == Pan((Load("pack"),))


def test_two_that_contradict_each_other_are_shown_together():
    """A thing guessed at, weighed twice: 50 and 57. Nothing says which is wrong."""
    build = replace(
        bench(), containers=(), parts=(Part("box", "Box", Pedigree.GUESS, stated_g=57.0),)
    )
    build = with_readings(build, reading(1, 50.0, "box"), reading(2, 57.0, "box"))
    told = doubts(build)
    assert len(told) == 1
    assert {told[0].weighing, *told[0].contradicts} == {"r1", "r2"}


def test_what_a_wrong_reading_dragged_along_is_not_blamed():
    """The whole weighs 156 g: the tray under the motor makes the whole look wrong as well."""
    whole = {"motor": 1.0, "pack": 1.0, "servo": 1.0}
    build = bench(
        reading(1, 101.4, "pack"),
        reading(2, 9.1, "servo"),
        reading(3, 46.2 + 31.4, "motor"),
        reading(4, 156.7, whole),
        reading(5, 156.6, whole),
    )
    out = leave_one_out(build)
    assert (np.abs(out.t) > 3).sum() > 1
    assert [each.weighing for each in doubts(build)] == ["r3"]


def test_an_accepted_reading_is_doubted_no_more():
    wrong = replace(reading(1, 77.6, "motor"), accepted=True)
    assert doubts(bench(wrong)) == ()


def test_one_set_aside_is_not_looked_at():
    aside = replace(reading(1, 77.6, "motor"), set_aside="tray on")
    assert doubts(bench(aside)) == ()


def test_a_reading_a_little_far_off_is_doubted_but_no_slip_is_named():
    """Off its listing by a little over three sigma of the doubt that the builder gave it."""
    build = bench(reading(1, 46.0 + 3.1 * 2.3, "motor"))
    motor = replace(build.parts[0], doubt_g=2.3)
    doubt = only(replace(build, parts=(motor, *build.parts[1:])))
    assert 3 < doubt.t < 3.2
    assert doubt.disbelieved < 0.1
    assert doubt.slips == ()


def test_a_reading_is_suspected_while_it_is_on_the_pan():
    pan = Pan((Load("motor"),))
    assert suspect(bench(), pan, "kitchen", 47.0) is None
    doubt = suspect(bench(), pan, "kitchen", 46.2 + 31.4)
    assert doubt.slips[0].kind is SlipKind.NOT_TARED
    assert doubt.expected_g == pytest.approx(46.0)


def test_no_reading_is_changed_by_being_doubted():
    build = sandpiper()
    before = build.weighings
    assess(build)
    assert build.weighings == before


def test_an_impossible_muddle_is_answered():
    """Forty readings of nonsense: an end, and at most eight doubts."""
    rng = np.random.default_rng(3)
    names = [part.id for part in bench().parts]
    build = bench(
        *(reading(n, float(rng.uniform(1, 900)), str(rng.choice(names))) for n in range(40))
    )
    told = doubts(build)
    assert 0 < len(told) <= 8
    assert all(np.isfinite([each.t, each.sd_g, each.expected_g]).all() for each in told)
