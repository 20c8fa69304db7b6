"""The two forms of settling are one: over the sets, and over the unknowns."""

from dataclasses import replace

import numpy as np
import pytest

from benchmarks.builds import made_up_build
from oaken_scale.core.ledger import settling
from oaken_scale.core.ledger.first_look import first_look
from oaken_scale.core.ledger.information import Information
from oaken_scale.core.ledger.outliers import gap_of, left_out
from oaken_scale.core.ledger.posterior import posterior
from oaken_scale.core.ledger.prior import prior
from oaken_scale.core.ledger.readings import Readings, gathered, weighed_sets
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.weighing import Load, Pan, Scale, Weighing
from tests.benches import MORNING


def readings_of(build: Build) -> Readings:
    return Readings(prior(build), gathered(build))


def on_two_scales(parts: int = 12, weighings: int = 80) -> Build:
    """More sets than unknowns, every third reading on a coarser scale that reads otherwise."""
    build = made_up_build(parts, weighings)
    coarse = Scale("pocket", "Pocket", 0.5, None, 0.01)
    log = tuple(
        replace(each, scale="pocket", reading_g=round(each.reading_g * 1.008 * 2) / 2)
        if n % 3 == 0
        else each
        for n, each in enumerate(build.weighings)
    )
    return replace(build, scales=(*build.scales, coarse), weighings=log)


def both(build: Build, gone=()):
    readings = readings_of(build)
    kept = readings.of.without(gone)
    by_unknowns = settling._by_unknowns(readings, *kept, None)
    assert by_unknowns is not None
    return readings, by_unknowns, settling._by_sets(readings, *kept, None)


@pytest.mark.parametrize("gone", [(), (3,), (3, 10, 41)])
def test_both_forms_settle_at_one_point(gone):
    readings, one, other = both(on_two_scales(), gone)
    assert len(readings.of.count) > readings.unknowns
    assert one.error == pytest.approx(other.error, abs=5e-8)
    assert one.load == pytest.approx(other.load, abs=1e-5)
    assert one.pull == pytest.approx(other.pull, rel=1e-3, abs=2e-5)
    assert one.log_evidence == pytest.approx(other.log_evidence, abs=0.05)
    a, b = posterior(readings, one), posterior(readings, other)
    assert a.mean == pytest.approx(b.mean, rel=1e-6, abs=5e-8)
    np.testing.assert_allclose(a.cov, b.cov, rtol=1e-3, atol=1e-6 * np.abs(b.cov).max())
    assert a.own == pytest.approx(b.own, rel=1e-3, abs=1e-4)
    assert a.told == pytest.approx(b.told, rel=1e-3, abs=1e-5)


def test_each_reading_left_out_is_the_same_by_both():
    readings, one, other = both(on_two_scales())
    by_unknowns, by_sets = left_out(readings, one), left_out(readings, other)
    assert by_unknowns.t == pytest.approx(by_sets.t, rel=1e-3, abs=1e-4)
    assert by_unknowns.sd == pytest.approx(by_sets.sd, rel=1e-3)
    assert by_unknowns.gap == pytest.approx(by_sets.gap, rel=1e-3, abs=1e-5)


def test_a_reading_that_is_gone_is_predicted_the_same_by_both():
    build = on_two_scales()
    whole = left_out(readings_of(build), both(build)[1])
    for j in (0, 7, 40):
        readings, one, other = both(build, (j,))
        gap, sd = gap_of(readings, one, j)
        assert (gap, sd) == pytest.approx(gap_of(readings, other, j), rel=1e-3, abs=1e-5)
        # Left out by itself it is what leaving it out by arithmetic says.
        assert (gap, sd) == pytest.approx((whole.gap[j], whole.sd[j]), rel=0.01, abs=1e-3)


def test_the_first_look_by_the_dual_form_written_out():
    readings = readings_of(on_two_scales())
    of, believed = readings.of, readings.prior
    load = of.mean_g
    calibration = np.zeros((len(load), len(load)))
    for k, sd in enumerate(believed.scale_sd):
        mine = np.where(of.scale == k, load, 0.0)
        calibration += sd**2 * np.outer(mine, mine)
    whole = readings.between + calibration + np.diag(of.variance)
    inverse = np.linalg.inv(whole)
    own = readings.spread[:, len(believed.common_mean) :]
    told = np.einsum("ji,jk,ki->i", own, inverse, own)
    unit = own.T @ inverse @ (load - readings.load)
    seen = first_look(readings)
    t, found = seen.own, seen.told
    assert found == pytest.approx(told, rel=1e-6, abs=1e-9)
    assert t == pytest.approx(unit / np.sqrt(told), rel=1e-6, abs=1e-8)


def test_a_fine_scale_under_vague_loads_takes_the_form_that_keeps_its_digits():
    """Two hundred guesses of 200 g, each weighed once alone to 0.01 g: what is left of the
    variance of a set is one in a hundred million."""
    parts = tuple(Part(f"i{k}", "I", Pedigree.GUESS, stated_g=200.0) for k in range(20))
    pans = [Pan((Load(part.id),)) for part in parts]
    pans += [Pan(tuple(sorted((Load("i0", n), Load("i1"))))) for n in range(2, 12)]
    log = tuple(
        Weighing(str(k), MORNING, "s", round(200.0 * sum(on.count for on in pan.loads), 2), pan)
        for k, pan in enumerate(pans)
    )
    fine = Build("b", "B", parts=parts, scales=(Scale("s", "S", 0.01, 0.0001),), weighings=log)
    readings = readings_of(fine)
    assert len(readings.of.count) > readings.unknowns
    assert settling._by_unknowns(readings, *readings.of.without(()), None) is None
    settled = settling.settle(readings, *readings.of.without(()))
    assert settled.factor is not None
    assert np.abs(left_out(readings, settled).t).max() < 1.0


def test_a_start_that_strays_is_brought_back(monkeypatch):
    """Eight hundred readings of 150 parts tell the scale's error so sharply that steps with one
    factorisation alone run away."""
    readings, one, other = both(made_up_build(150, 800))
    assert one.error == pytest.approx(other.error, abs=5e-8)
    assert one.load == pytest.approx(other.load, abs=1e-5)
    monkeypatch.setattr(settling, "ASTRAY", np.inf)
    monkeypatch.setattr(settling, "FAR_OFF", np.inf)
    monkeypatch.setattr(settling, "LINEAR", 0.0)
    assert settling._by_unknowns(readings, *readings.of.without(()), None) is None


def test_what_the_readings_tell_is_a_sum_over_scales():
    """``I + J'J`` by the derivatives of every reading, one at a time."""
    readings = readings_of(on_two_scales(8, 40))
    of, believed = readings.of, readings.prior
    error, load = np.array([0.01, -0.02]), of.mean_g
    states = of.rows.shape[1]
    total = np.eye(states + 2)
    for j in range(len(load)):
        row = np.zeros(states + 2)
        row[:states] = (1 + error[of.scale[j]]) * readings.spread[j]
        row[states + of.scale[j]] = believed.scale_sd[of.scale[j]] * load[j]
        total += np.outer(row, row) / of.variance[j]
    factor = Information(believed, of, of.variance).factor(error, load)
    np.testing.assert_allclose(np.tril(factor) @ np.tril(factor).T, total, rtol=1e-9, atol=1e-9)


def test_a_log_that_grows_is_gathered_as_one_that_was_there():
    build = on_two_scales(8, 40)
    grown = None
    for count in range(1, 41):
        grown = gathered(replace(build, weighings=build.weighings[:count]))
    whole = gathered(replace(build, weighings=tuple(replace(w) for w in build.weighings)))
    assert list(grown.sets) == list(whole.sets)
    for name in ("at", "grams", "rows", "scale", "known_g", "mean_g", "count", "noise"):
        np.testing.assert_array_equal(getattr(grown, name), getattr(whole, name))
    assert [each.id for each in grown.spoken] == [each.id for each in build.weighings]
    aside = tuple(
        replace(w, set_aside="wrong") if n == 5 else w for n, w in enumerate(build.weighings)
    )
    left = gathered(replace(build, weighings=aside))
    assert len(left.grams) == 39
    assert left.readings_of(build.weighings[5].pan) == whole.readings_of(build.weighings[5].pan) - 1
    assert sum(each.readings for each in weighed_sets(replace(build, weighings=aside))) == 39
