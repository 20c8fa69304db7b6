"""Which pack, which motor: each against the plane that really has it, and worked by hand."""

from dataclasses import replace

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.model.balancing import Ballast, BallastSpot
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.part import Part, Pedigree, Slide, Station
from oaken_scale.core.model.power import Controller, Flight, Motor, Pack, Power, Propeller
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.model.target import Target, TargetKind
from oaken_scale.core.power.drive_estimate import HowKnown
from oaken_scale.core.power.margins import Rung
from oaken_scale.core.trim.remedies import what_would_fix
from oaken_scale.core.trim.tried import TriedMotor, TriedPack
from oaken_scale.core.trim.which_pack import Balances, which_pack
from study.drive_trains import DAY, Truth

WING = Surface("w", "W", Role.WING, (Section(200, 0, 0, 200), Section(200, 500, 0, 200)))
BIG = Pack("big", "3-cell 1300", 3, 1300.0, 25.0, "pack")
DRIVE = Power(
    Motor(2300.0, 28.0, most_a=30.0),
    controller=Controller(25.0, least_cells=2, most_cells=3),
    propellers=(Propeller("six", "6 x 3", 152.4, 76.2),),
    packs=(BIG,),
)


def part(id: str, grams: float, x: float, **more) -> Part:
    return Part(
        id, id.title(), Pedigree.LISTING, stated_g=grams, doubt_g=2.0, station=Station(x), **more
    )


PLANE = Build(
    "b",
    "B",
    layout="tractor",
    purpose="trainer",
    parts=(
        part("airframe", 250.0, 320.0),
        part("motor", 28.0, 20.0),
        part("pack", 105.0, 160.0, option=True, slide=Slide(100.0, 200.0)),
        part("servo", 18.0, 300.0, slide=Slide(250.0, 350.0)),
    ),
    surfaces=(WING,),
    loadouts=(Loadout("l", "With it", ("pack",)),),
    targets=(
        Target(TargetKind.AUW, high=420.0),
        Target(TargetKind.THRUST_TO_WEIGHT, low=1.2),
        Target(TargetKind.BALANCE, 25.0, 33.0),
    ),
    power=DRIVE,
)
LIGHT = TriedPack(Pack("x", "2-cell 850", 2, 850.0, 30.0), 55.0, 2.5)
HEAVY = TriedPack(Pack("y", "3-cell 2200", 3, 2200.0, 30.0), 170.0, 5.0, "in-the-drawer")


def choices(build: Build = PLANE, packs=(LIGHT, HEAVY), motors=()):
    return which_pack(build, build.loadouts[0], packs, motors)


def fitted(build: Build, tried: TriedPack) -> Build:
    """The plane that really has another pack."""
    parts = tuple(
        replace(each, stated_g=tried.mass_g, doubt_g=tried.doubt_g) if each.id == "pack" else each
        for each in build.parts
    )
    pack = replace(tried.pack, id="big", part="pack")
    return replace(build, parts=parts, power=replace(build.power, packs=(pack,)))


def test_the_pack_that_flies_is_told_as_the_rods_tell_it():
    own = choices()[0]
    told = assess(PLANE)
    four = {each.kind: each for each in told.loadouts[0].answers}
    power = told.power.loadouts[0]
    assert own.loadouts == ("l",)
    assert (own.auw_g, own.auw_sd_g) == pytest.approx((four["auw"].value, four["auw"].sd))
    assert own.wing_loading == pytest.approx(four["wing_loading"].value)
    assert own.thrust_to_weight == pytest.approx(four["thrust_to_weight"].value)
    assert own.thrust_to_weight_sd == pytest.approx(four["thrust_to_weight"].sd, rel=1e-6)
    assert (own.pack_a, own.minutes) == pytest.approx((power.fresh.pack_a, power.minutes))
    assert own.minutes_sd == pytest.approx(power.minutes_sd)


@pytest.mark.parametrize("tried", [LIGHT, HEAVY], ids=["lighter", "heavier"])
def test_a_pack_that_is_tried_comes_out_as_on_the_plane_that_has_it(tried):
    (found,) = [each for each in choices() if each.pack == tried.pack.name]
    told = assess(fitted(PLANE, tried))
    four = {each.kind: each for each in told.loadouts[0].answers}
    power = told.power.loadouts[0]
    assert found.auw_g == pytest.approx(four["auw"].value)
    assert found.auw_sd_g == pytest.approx(four["auw"].sd, rel=0.02)
    assert found.thrust_to_weight == pytest.approx(four["thrust_to_weight"].value, rel=1e-6)
    assert found.pack_a == pytest.approx(power.fresh.pack_a, rel=1e-6)
    assert found.minutes == pytest.approx(power.minutes, rel=1e-6)
    assert found.thing == tried.thing
    assert found.loadouts == ()


def test_balance_is_that_of_the_remedies_for_the_pack_alone():
    still = replace(
        PLANE, parts=tuple(replace(e, slide=None) if e.id == "servo" else e for e in PLANE.parts)
    )
    for tried in (LIGHT, HEAVY):
        (found,) = [each for each in choices(still) if each.pack == tried.pack.name]
        fixed = what_would_fix(fitted(still, tried))
        if found.balance.how is Balances.BY_MOVING:
            # The remedy keeps the doubt that the move itself adds.
            (slid,) = fixed.best.slides
            assert slid.to_mm - slid.from_mm == pytest.approx(found.balance.pack_mm, abs=3.0)
        else:
            assert found.balance.how is Balances.AS_IT_IS
            assert fixed.best.slides == ()


def placed(x: float, **more) -> Build:
    """A plane whose airframe sits elsewhere, and nothing slides but what is said."""
    slides = more.pop("slides", {})
    parts = tuple(
        replace(
            each,
            station=Station(x if each.id == "airframe" else each.station.x_mm),
            slide=slides.get(each.id),
        )
        for each in PLANE.parts
    )
    return replace(PLANE, parts=parts, **more)


def test_how_far_short_all_moves_fall_by_hand():
    build = placed(400.0)
    own = choices(build)[0]
    x = (250 * 400 + 28 * 20 + 105 * 160 + 18 * 300) / 401
    u = assess(build).loadouts[0].cg.x_sd_mm
    edge = 200 + 0.33 * 200 - min(u, 0.8 / 2 * 16)
    assert own.balance.how is Balances.NOT
    assert own.balance.short_mm == pytest.approx(x - edge, abs=0.05)
    nose = Ballast((BallastSpot("nose", "Nose", 10.0, most_g=200.0),))
    cured = choices(replace(build, ballast=nose))[0]
    assert cured.balance.how is Balances.WITH_BALLAST
    assert cured.balance.ballast_g == pytest.approx(401 * (x - edge) / (edge - 10), rel=1e-3)
    little = Ballast((BallastSpot("nose", "Nose", 10.0, most_g=5.0),))
    assert choices(replace(build, ballast=little))[0].balance.how is Balances.NOT
    behind = Ballast((BallastSpot("tail", "Tail", 700.0, most_g=200.0),))
    assert choices(replace(build, ballast=behind))[0].balance.how is Balances.NOT


def test_the_pack_and_more_than_the_pack():
    far = {"pack": Slide(20.0, 200.0)}
    alone = choices(placed(352.0, slides=far))[0].balance
    assert alone.how is Balances.BY_MOVING
    assert alone.pack_mm < 0
    short = {"pack": Slide(150.0, 170.0), "servo": Slide(20.0, 320.0)}
    both = choices(placed(352.0, slides=short))[0].balance
    assert (both.how, both.pack_mm) == (Balances.BY_MOVING, None)
    lone = {"pack": Slide(150.0, 170.0)}
    assert choices(placed(352.0, slides=lone))[0].balance.how is Balances.NOT


def test_another_motor_is_a_guess_and_weighs_what_it_lists():
    told = choices(motors=[TriedMotor(Motor(1800.0, 45.0, most_a=9.0), "Larger", 2.0, "spare")])
    own, other = told[0], told[3]
    assert (own.motor, other.motor, other.motor_thing) == (None, "Larger", "spare")
    assert other.known is HowKnown.GUESS
    assert other.auw_g == pytest.approx(own.auw_g - 28 + 45)
    assert other.thrust_to_weight != own.thrust_to_weight
    assert other.rung is Rung.OVER  # of 9 A
    moved = 17 * 20 / other.auw_g  # the nose grows heavier
    assert moved > 0
    assert len(told) == 6


@pytest.mark.parametrize("motors", [1, 2])
def test_the_doubt_of_what_a_motor_lists_is_that_of_all_motors_together(motors):
    """The rest of the plane is unsure of 2 g each in airframe, servo and pack; motors of one
    listing err alike."""
    plane = replace(PLANE, power=replace(DRIVE, motors=motors))
    listed = TriedMotor(Motor(1800.0, 45.0), "Larger", 6.0, "spare")
    other = choices(plane, packs=(), motors=[listed])[1]
    assert other.auw_sd_g == pytest.approx((3 * 2.0**2 + (motors * 6.0) ** 2) ** 0.5, rel=1e-6)


def test_runs_speak_of_the_motor_that_flies_alone():
    truth = Truth(4)
    run = replace(truth.run(), pack="big", propeller="six")
    build = replace(PLANE, power=replace(DRIVE, runs=(run,)))
    told = choices(build, (LIGHT,), [TriedMotor(DRIVE.motor, "the same once more", 1.0)])
    assert [each.known for each in told] == [
        HowKnown.RUN,
        HowKnown.CALCULATED,
        HowKnown.GUESS,
        HowKnown.GUESS,
    ]
    assert told[2].thrust_to_weight_sd > 2 * told[0].thrust_to_weight_sd


def test_flights_sharpen_the_minutes_of_every_pack():
    flights = tuple(Flight(f"f{k}", DAY, "big", 6.0, 1000.0) for k in range(5))
    build = replace(PLANE, power=replace(DRIVE, flights=flights))
    for before, after in zip(choices(), choices(build), strict=True):
        assert after.minutes < before.minutes
        assert after.minutes_sd < before.minutes_sd / 2
    own = choices(build)[0]
    assert own.minutes == pytest.approx(assess(build).power.loadouts[0].minutes)


def test_what_each_breaks_and_what_nothing_beats():
    told = {each.pack: each for each in choices()}
    assert told["3-cell 2200"].breaks == (TargetKind.AUW,)
    assert TargetKind.THRUST_TO_WEIGHT in told["2-cell 850"].breaks
    assert told["3-cell 2200"].unbeaten  # it lasts longest
    assert told["2-cell 850"].unbeaten  # it is lightest
    worse = TriedPack(Pack("z", "3-cell 1000, old", 3, 1000.0), 140.0, 5.0)
    beaten = {each.pack: each for each in choices(packs=(worse,))}["3-cell 1000, old"]
    assert not beaten.unbeaten


def test_cells_that_the_controller_is_not_made_for_are_over():
    four = TriedPack(Pack("f", "4-cell 850", 4, 850.0), 100.0, 3.0)
    assert choices(packs=(four,))[-1].rung is Rung.OVER
    assert choices(packs=(LIGHT,))[-1].rung is not Rung.OVER


def test_without_a_drive_a_propeller_or_a_pack_nothing_is_told():
    assert choices(replace(PLANE, power=None)) == ()
    assert choices(replace(PLANE, power=replace(DRIVE, propellers=()))) == ()
    assert choices(replace(PLANE, power=replace(DRIVE, packs=()))) == ()
    adrift = replace(PLANE, targets=PLANE.targets[:2])
    assert {each.balance.how for each in choices(adrift)} == {Balances.UNKNOWN}


@pytest.mark.parametrize("room", [20.0, 60.0])
@pytest.mark.parametrize("aft", [True, False])
def test_a_pack_slides_as_far_as_its_bay_goes_either_way(room, aft):
    """Short by what 40 mm of the pack would bring: a bay of 60 mm has them, one of 20 half."""
    build = placed(400.0 if aft else 100.0)
    far = choices(build)[0].balance.short_mm
    lever = 105 / 401
    nearer = build.parts[0].station.x_mm + (-far if aft else far) * 401 / 250
    nearer += (1 if aft else -1) * 40 * 105 / 250
    bay = Slide(160 - room, 160.0) if aft else Slide(160.0, 160 + room)
    told = choices(placed(nearer, slides={"pack": bay}))[0].balance
    if room > 40:
        assert told.how is Balances.BY_MOVING
        assert told.pack_mm == pytest.approx(-40 if aft else 40, abs=1.5)
    else:
        assert told.how is Balances.NOT
        assert told.short_mm == pytest.approx(20 * lever, abs=0.5)


@pytest.mark.parametrize("x", [180.0, 200.0, 215.0, 230.0, 260.0, 300.0])
def test_the_pack_that_flies_balances_as_it_is_where_nothing_is_to_fix(x):
    """Whatever else has no place yet, and a little beyond the narrowed range too."""
    sand = Part("sand", "Still to come", Pedigree.ALLOWANCE, stated_g=80.0, doubt_g=60.0)
    parts = tuple(
        replace(each, station=Station(x), slide=None) if each.id == "pack" else each
        for each in PLANE.parts
        if each.id != "servo"
    )
    build = replace(PLANE, parts=(*parts, sand))
    fine = what_would_fix(build).outcome.value == "fine"
    (own,) = choices(build, packs=())
    assert (own.balance.how is Balances.AS_IT_IS) == fine


def test_what_has_no_place_sits_where_the_whole_plane_balances():
    """The placed masses alone make the CG, the pack among them."""
    sand = Part("sand", "Sand", Pedigree.LISTING, stated_g=100.0, doubt_g=0.1)
    fixed = tuple(replace(each, slide=None) for each in PLANE.parts)
    build = replace(PLANE, parts=(*fixed, sand), ballast=Ballast())
    own = choices(build, packs=())[0]
    cg = (250 * 320 + 28 * 20 + 105 * 160 + 18 * 300) / (250 + 28 + 105 + 18)
    flown = assess(build).loadouts[0].cg
    assert flown.x_mm == pytest.approx(cg)
    assert 250.0 < cg < 266.0  # 25 to 33 % of a chord of 200 mm that begins at 200
    assert own.balance.how is Balances.AS_IT_IS
