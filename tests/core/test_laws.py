"""Laws that hold whatever the build: units, places, order, and honesty of the stated doubt."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oaken_scale.core.assess import assess
from oaken_scale.core.ledger.posterior import solve
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.lot import Lot, LotUnit, Use
from oaken_scale.core.model.part import Part, Pedigree, Station
from oaken_scale.core.model.weighing import Load, Pan, Scale, Weighing
from tests.benches import MORNING, accepted, random_build

SEEDS = st.integers(0, 200)
few = settings(max_examples=20, deadline=None)


def moved(build: Build, dx: float = 0.0, dy: float = 0.0, dz: float = 0.0) -> Build:
    def there(at: Station) -> Station:
        return replace(at, x_mm=at.x_mm + dx, y_mm=at.y_mm + dy, z_mm=at.z_mm + dz)

    parts = tuple(replace(part, station=there(part.station)) for part in build.parts)
    return replace(build, parts=parts)


def heavier(build: Build, k: float) -> Build:
    """The same build with every gram become k grams."""
    return replace(
        build,
        lots=tuple(
            replace(lot, constant=lot.constant * k, doubt=lot.doubt * k) for lot in build.lots
        ),
        parts=tuple(
            replace(part, stated_g=None if part.stated_g is None else part.stated_g * k)
            for part in build.parts
        ),
        scales=tuple(
            replace(s, step_g=s.step_g * k, capacity_g=s.capacity_g * k) for s in build.scales
        ),
        weighings=tuple(replace(w, reading_g=w.reading_g * k) for w in build.weighings),
    )


@given(SEEDS, st.floats(-300, 300), st.floats(-50, 50), st.floats(-50, 50))
@few
def test_a_moved_datum_moves_the_cg_and_nothing_else(seed, dx, dy, dz):
    build = random_build(seed)
    before, after = assess(build).loadouts[0], assess(moved(build, dx, dy, dz)).loadouts[0]
    assert after.cg.x_mm == pytest.approx(before.cg.x_mm + dx, abs=1e-6)
    assert after.cg.y_mm == pytest.approx(before.cg.y_mm + dy, abs=1e-6)
    assert after.cg.z_mm == pytest.approx(before.cg.z_mm + dz, abs=1e-6)
    assert after.cg.x_sd_mm == pytest.approx(before.cg.x_sd_mm, rel=1e-6)
    assert after.answers[0] == before.answers[0]


@given(SEEDS, st.floats(2, 30))
@few
def test_another_unit_of_mass_changes_no_place_and_no_share(seed, k):
    build = random_build(seed)
    floor = tuple(replace(part, doubt_g=None) for part in build.parts if (part.stated_g or 9) > 4)
    kept = {part.id for part in floor}
    log = tuple(w for w in build.weighings if all(load.part in kept for load in w.pan.loads))
    build = accepted(replace(build, parts=floor, weighings=log))
    one, other = assess(build), assess(heavier(build, k))
    assert other.loadouts[0].answers[0].value == pytest.approx(
        k * one.loadouts[0].answers[0].value, rel=1e-6
    )
    assert other.loadouts[0].answers[0].sd == pytest.approx(
        k * one.loadouts[0].answers[0].sd, rel=1e-3
    )
    assert other.loadouts[0].cg.x_mm == pytest.approx(one.loadouts[0].cg.x_mm, rel=1e-6)
    assert [part.mark for part in other.parts] == [part.mark for part in one.parts]


@given(SEEDS)
@few
def test_a_thing_of_no_mass_changes_nothing(seed):
    build = accepted(random_build(seed))
    nothing = Part("air", "Air", Pedigree.GUESS, stated_g=0.0, station=Station(5000.0))
    before, after = assess(build), assess(replace(build, parts=(*build.parts, nothing)))
    one, other = before.loadouts[0].answers[0], after.loadouts[0].answers[0]
    assert (other.value, other.sd) == (pytest.approx(one.value), pytest.approx(one.sd))
    assert after.loadouts[0].cg.x_mm == pytest.approx(before.loadouts[0].cg.x_mm)


@given(SEEDS)
@few
def test_a_loadout_that_carries_all_options_is_the_whole_plane(seed):
    build = random_build(seed)
    parts = tuple(replace(part, option=n % 3 == 0) for n, part in enumerate(build.parts))
    options = tuple(part.id for part in parts if part.option)
    loaded = replace(build, parts=parts, loadouts=(Loadout("all", "All", options),))
    whole, all_aboard = assess(build).loadouts[0], assess(loaded).loadouts[0]
    assert all_aboard.answers[0] == whole.answers[0]
    assert all_aboard.cg == whole.cg


@given(SEEDS)
@few
def test_assemblies_add_up_to_the_plane(seed):
    build = random_build(seed)
    parts = tuple(replace(part, assembly=f"g{n % 3}") for n, part in enumerate(build.parts))
    told = assess(replace(build, parts=parts))
    total = sum(assembly.mass_g for assembly in told.assemblies)
    assert total == pytest.approx(told.loadouts[0].answers[0].value)


@given(SEEDS)
@few
def test_the_covariance_is_one(seed):
    after = solve(random_build(seed))
    np.testing.assert_allclose(after.cov, after.cov.T, atol=1e-9)
    assert np.linalg.eigvalsh(after.cov).min() > -1e-8


def simulated(rng: np.random.Generator) -> tuple[Build, np.ndarray]:
    """A made-up build half weighed, and the true masses that its readings came from."""
    lots = tuple(Lot(f"l{k}", "L", LotUnit.DM2, 4.0, 0.4) for k in range(2))
    theta = rng.normal(4.0, 0.4, size=2)
    parts, truth = [], []
    for i in range(14):
        if i % 2:
            area = float(rng.uniform(2, 15))
            parts.append(
                Part(f"i{i}", "I", Pedigree.CALCULATED, uses=(Use(f"l{i % 4 // 2}", area),))
            )
            truth.append(area * theta[i % 4 // 2] + rng.normal(0, 0.03 * area * 4.0))
        else:
            grams = float(rng.uniform(5, 60))
            parts.append(Part(f"i{i}", "I", Pedigree.LISTING, stated_g=grams))
            truth.append(grams + rng.normal(0, max(0.05 * grams, 0.2)))
    gamma = rng.normal(0, 0.003)
    log = []
    for n in range(9):
        chosen = sorted(rng.choice(14, size=int(rng.integers(1, 4)), replace=False))
        shown = (1 + gamma) * sum(truth[i] for i in chosen) + rng.normal(0, 0.05)
        pan = Pan.of({f"i{i}": 1.0 for i in chosen}, {})
        log.append(Weighing(f"w{n}", MORNING, "s", round(shown / 0.1) * 0.1, pan))
    build = Build(
        "b",
        "B",
        lots=lots,
        parts=tuple(parts),
        scales=(Scale("s", "S", 0.1),),
        weighings=tuple(log),
    )
    return build, np.array(truth)


def test_the_stated_doubt_is_honest():
    rng = np.random.default_rng(20260307)
    weight, parts = [], []
    for _ in range(400):
        build, truth = simulated(rng)
        after = solve(build)
        auw, u = after.total(np.ones(14))
        weight.append(abs(auw - truth.sum()) <= 2 * u)
        parts.append(np.abs(after.mass - truth) <= 2 * after.sd[after.parts])
    assert 0.93 <= np.mean(weight) <= 0.975
    assert 0.93 <= np.mean(parts) <= 0.975


def test_a_pan_of_many_pieces_is_a_pan_of_one_part():
    pieces = Pan.of({"a": 2.5}, {})
    assert pieces.loads == (Load("a", 2.5),)
