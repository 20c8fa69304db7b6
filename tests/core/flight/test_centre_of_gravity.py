"""The centre of gravity and its doubt against sums written out, and against drawn samples."""

import numpy as np
import pytest

from oaken_scale.core.flight.centre_of_gravity import (
    Stations,
    centre_of_gravity,
    lever_arms,
    station_doubt,
    stations,
)
from oaken_scale.core.geometry.wing import wing_figures
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Lot, LotUnit, Use
from oaken_scale.core.model.part import Part, Pedigree, Reference, Station
from oaken_scale.core.model.surface import Role, Section, Surface

WING = Surface("w", "W", Role.WING, (Section(180, 0, 0, 200), Section(180, 500, 0, 200)))


def plane(seed: int, parts: int = 6):
    rng = np.random.default_rng(seed)
    mass = rng.uniform(5, 120, parts)
    spread = rng.normal(0, 1.5, (parts, parts))
    xyz = np.column_stack(
        [rng.uniform(0, 800, parts), rng.normal(0, 60, parts), rng.normal(0, 25, parts)]
    )
    where = Stations(xyz, rng.uniform(1, 4, parts), np.ones(parts, bool))
    return rng, mass, spread @ spread.T, where


@pytest.mark.parametrize("seed", range(4))
def test_its_doubt_is_that_of_drawn_masses_and_stations(seed):
    rng, mass, cov, where = plane(seed)
    aboard = np.ones(len(mass))
    told = centre_of_gravity(mass, cov, where, aboard)
    drawn = rng.multivariate_normal(mass, cov, 60_000)
    moved = where.xyz[None] + rng.normal(size=(60_000, len(mass), 3)) * where.doubt[None, :, None]
    cg = np.einsum("ni,nik->nk", drawn, moved) / drawn.sum(axis=1)[:, None]
    assert (told.x_mm, told.y_mm, told.z_mm) == pytest.approx(tuple(mass @ where.xyz / mass.sum()))
    spread = cg.std(axis=0)
    assert (told.x_sd_mm, told.y_sd_mm, told.z_sd_mm) == pytest.approx(tuple(spread), rel=0.03)


def test_what_is_not_aboard_counts_nothing():
    _, mass, cov, where = plane(5)
    aboard = np.array([1.0, 1, 0, 1, 0, 1])
    on = aboard > 0
    told = centre_of_gravity(mass, cov, where, aboard)
    there = Stations(where.xyz[on], where.doubt[on], where.placed[on])
    alone = centre_of_gravity(mass[on], cov[np.ix_(on, on)], there, np.ones(4))
    assert (told.x_mm, told.x_sd_mm, told.y_sd_mm) == pytest.approx(
        (alone.x_mm, alone.x_sd_mm, alone.y_sd_mm)
    )
    assert centre_of_gravity(mass, cov, where, np.zeros(6)) is None


def test_lever_arms_by_finite_differences():
    _, mass, cov, where = plane(6)
    aboard = np.array([1.0, 1, 1, 0, 1, 1])
    x = centre_of_gravity(mass, cov, where, aboard).x_mm
    arms = lever_arms(mass, where, aboard, x)
    for i in range(6):
        more = mass.copy()
        more[i] += 1e-4
        moved = centre_of_gravity(more, cov, where, aboard).x_mm
        assert arms[i] == pytest.approx((moved - x) / 1e-4, abs=1e-5)


@pytest.mark.parametrize(
    ("part", "big", "doubt"),
    [
        (Part("a", "A", Pedigree.GUESS, station=Station(1.0)), False, 2.0),
        (Part("a", "A", Pedigree.GUESS, station=Station(1.0)), True, 4.0),
        (Part("a", "A", Pedigree.GUESS, station=Station(1.0, doubt_mm=0.5)), True, 0.5),
    ],
)
def test_the_usual_doubt_of_a_station(part, big, doubt):
    assert station_doubt(part, big) == doubt


def test_stations_are_resolved_and_big_foam_is_told_by_its_area():
    sheet, rod = Lot("s", "S", LotUnit.DM2, 4.0, 0.4), Lot("r", "R", LotUnit.M, 5.0, 0.4)
    foam = {"uses": (Use("s", 2.0),), "station": Station(50.0, 3.0, 7.0, Reference.LEADING_EDGE)}
    parts = (
        Part("big", "B", Pedigree.CALCULATED, **foam),
        Part("small", "S", Pedigree.CALCULATED, uses=(Use("s", 1.99),), station=Station(60.0)),
        Part("long", "L", Pedigree.CALCULATED, uses=(Use("r", 9.0),), station=Station(70.0)),
        Part("adrift", "A", Pedigree.GUESS, stated_g=4.0),
    )
    build = Build("b", "B", lots=(sheet, rod), parts=parts, surfaces=(WING,))
    where = stations(build, wing_figures(build.surfaces))
    assert where.xyz.tolist()[0] == [230.0, 3.0, 7.0]
    assert where.doubt.tolist() == [4.0, 2.0, 2.0, 2.0]
    assert where.placed.tolist() == [True, True, True, False]


def test_what_has_no_place_adds_the_spread_of_the_rest_as_its_share_has_it():
    """100 g at 0 and at 200 spread 100 mm; 50 g adrift are a fifth of it all, and so are 20 mm."""
    where = Stations(
        np.array([[0.0, 0, 0], [200.0, 0, 0], [0.0, 0, 0]]),
        np.zeros(3),
        np.array([True, True, False]),
    )
    cg = centre_of_gravity(np.array([100.0, 100.0, 50.0]), np.zeros((3, 3)), where, np.ones(3))
    assert cg.x_mm == pytest.approx(100.0)
    assert cg.x_sd_mm == pytest.approx(20.0)
    two = Stations(
        np.vstack([where.xyz, np.zeros(3)]), np.zeros(4), np.array([True, True, False, False])
    )
    masses = np.array([100.0, 100.0, 25.0, 25.0])
    apart = centre_of_gravity(masses, np.zeros((4, 4)), two, np.ones(4))
    assert apart.x_sd_mm == pytest.approx(10.0 * 2**0.5)
