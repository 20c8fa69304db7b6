"""Slips, each by itself: what is tried, how it is weighed, what is offered."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oaken_scale.core.ledger.mixture import suspect
from oaken_scale.core.ledger.slip import USUAL, SlipKind
from oaken_scale.core.ledger.slips import EXPLAINED, MOST_SLIPS
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Lot, LotUnit
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.weighing import Container, Load, Pan, Sample, Scale

SCALE = Scale("s", "S", 0.1, 0.05, 0.0)
MOTOR = Pan((Load("motor"),))


def bench(*containers: Container, things: int = 3) -> Build:
    parts = (
        Part("motor", "Motor", Pedigree.LISTING, stated_g=46.0, doubt_g=0.4),
        *(
            Part(f"t{k}", f"Thing {k}", Pedigree.LISTING, stated_g=12.0 + 7 * k, doubt_g=0.2)
            for k in range(things)
        ),
    )
    return Build("b", "B", parts=parts, scales=(SCALE,), containers=containers)


def offered(build: Build, reading_g: float, pan: Pan = MOTOR):
    doubt = suspect(build, pan, "s", reading_g)
    return doubt.slips if doubt else ()


def test_the_usual_shares_are_all_of_it():
    assert set(USUAL) == set(SlipKind)
    assert sum(USUAL.values()) == pytest.approx(1.0)


@pytest.mark.parametrize("mass", [12.8, 31.4, 55.0])
def test_the_container_that_fits_is_named_among_several(mass):
    trays = tuple(Container(f"c{k}", f"C{k}", m) for k, m in enumerate((12.8, 31.4, 55.0)))
    best = offered(bench(*trays, things=0), 46.0 + mass)[0]
    assert best.kind is SlipKind.NOT_TARED
    assert next(t for t in trays if t.id == best.subject).mass_g == mass
    assert best.reading_g == pytest.approx(46.0)


def test_the_tray_is_likelier_than_a_thing_that_weighs_as_much():
    """A thing of 31.4 g left on would read the same; trays are forgotten more often."""
    build = bench(Container("tray", "Tray", 31.4), things=3)
    build = Build(
        build.id,
        build.name,
        scales=build.scales,
        containers=build.containers,
        parts=(*build.parts, Part("x", "X", Pedigree.LISTING, stated_g=31.4, doubt_g=0.2)),
    )
    first, *others = offered(build, 46.0 + 31.4)
    assert first.kind is SlipKind.NOT_TARED
    assert any((each.kind, each.subject) == (SlipKind.LEFT_ON, "x") for each in others)


def test_without_containers_the_thing_is_named():
    best = offered(bench(things=3), 46.0 + 19.0)[0]
    assert (best.kind, best.subject) == (SlipKind.LEFT_ON, "t1")
    assert best.pan == Pan((Load("motor"), Load("t1")))
    assert best.reading_g == pytest.approx(65.0)


def test_a_retired_thing_is_not_left_on():
    build = bench(things=2)
    parts = tuple(
        Part(i.id, i.name, i.pedigree, stated_g=i.stated_g, doubt_g=i.doubt_g, retired=i.id == "t1")
        for i in build.parts
    )
    build = Build("b", "B", parts=parts, scales=build.scales)
    assert all(each.subject != "t1" for each in offered(build, 46.0 + 19.0))


def test_two_of_a_thing_with_one_left_off():
    pan = Pan((Load("motor"), Load("t0", 2.0)))
    best = offered(bench(), 46.0, pan)[0]
    assert (best.kind, best.subject) == (SlipKind.LEFT_OFF, "t0")
    assert best.pan == MOTOR


def test_nothing_can_be_left_off_a_pan_of_one():
    assert all(each.kind is not SlipKind.LEFT_OFF for each in offered(bench(), 12.0))


@pytest.mark.parametrize(
    ("reading", "kind", "right"),
    [
        (460.0, SlipKind.DECIMAL, 46.0),
        (4.6, SlipKind.DECIMAL, 46.0),
        (64.0, SlipKind.DIGITS, 46.0),
        (46.0 / 28.349523125, SlipKind.OUNCES, 46.0),
        (46.0 * 28.349523125, SlipKind.GRAMS, 46.0),
    ],
)
def test_a_misread_number_is_put_right(reading, kind, right):
    best = offered(bench(things=0), reading)[0]
    assert (best.kind, best.reading_g) == (kind, pytest.approx(right, rel=1e-6))


def test_a_number_that_nothing_explains_has_no_slip():
    doubt = suspect(bench(Container("tray", "Tray", 31.4)), MOTOR, "s", 321.7)
    assert abs(doubt.t) > 100
    assert doubt.slips == ()


@given(st.floats(0.5, 900.0))
def test_whatever_is_read_the_slips_offered_explain_it(reading):
    doubt = suspect(bench(Container("tray", "Tray", 31.4)), MOTOR, "s", round(reading, 1))
    if doubt is None:
        assert abs(reading - 46.0) < 3.1 * 0.42
        return
    assert len(doubt.slips) <= MOST_SLIPS
    assert all(abs(each.t) <= EXPLAINED for each in doubt.slips)
    assert all(each.reading_g > 0 for each in doubt.slips)
    shares = [each.share for each in doubt.slips]
    assert shares == sorted(shares, reverse=True)
    assert sum(shares) <= 1 + 1e-9


def test_a_check_weight_on_the_pan_is_no_thing():
    pan = Pan((), (), 100.0)
    assert suspect(bench(), pan, "s", 100.1) is None
    doubt = suspect(bench(Container("tray", "Tray", 31.4)), pan, "s", 131.4)
    assert doubt.slips[0].kind is SlipKind.NOT_TARED


def test_a_thing_beside_a_piece_of_sheet_may_have_been_left_off():
    sheet = Lot("sheet", "Sheet", LotUnit.DM2, 5.0, 0.02)
    build = replace(bench(), lots=(sheet,))
    both = Pan((Load("motor"),), (Sample("sheet", 8.0),))
    best = offered(build, 40.0, both)[0]
    assert (best.kind, best.subject) == (SlipKind.LEFT_OFF, "motor")
