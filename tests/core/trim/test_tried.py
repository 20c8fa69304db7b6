"""What is tried: a listing is as sure here as everywhere, and the drawer says what it knows."""

import pytest

from oaken_scale.core.ledger.posterior import solve
from oaken_scale.core.material.drawer import Thing, ThingKind
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.lot import Known
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.power import Motor, Pack
from oaken_scale.core.trim.remedies import Outcome, Remedies, way_out
from oaken_scale.core.trim.remedy import Remedy
from oaken_scale.core.trim.tried import in_drawer, listed_motor, listed_pack


@pytest.mark.parametrize("grams", [0.8, 3.0, 4.0, 4.1, 60.0])
def test_a_listed_mass_is_as_unsure_as_the_ledger_has_it(grams):
    part = Part("p", "P", Pedigree.LISTING, stated_g=grams)
    after = solve(Build("b", "B", parts=(part,)))
    doubt = float(after.sd[after.parts][0])
    assert doubt == pytest.approx(max(0.05 * grams, 0.2))
    assert listed_pack(Pack("x", "X", 2, 850.0), grams).doubt_g == pytest.approx(doubt)
    assert listed_motor(Motor(2300.0, grams), "M").doubt_g == pytest.approx(doubt)


def test_of_the_drawer_that_is_tried_which_says_what_it_is():
    known = Known(50.0, 0.3)
    things = [
        Thing("full", "Full", ThingKind.PACK, 55.0, cells=2, capacity_mah=850.0, c_rating=30.0),
        Thing("no-cells", "No cells", ThingKind.PACK, 55.0, capacity_mah=850.0),
        Thing("empty", "Holds nothing", ThingKind.PACK, 55.0, cells=2),
        Thing("motor", "Motor", ThingKind.MOTOR, 28.0, kv=2300.0, most_a=14.0),
        Thing("no-kv", "No Kv", ThingKind.MOTOR, 28.0),
        Thing("servo", "Servo", ThingKind.SERVO, 9.0),
    ]
    packs, motors = in_drawer([(each, known) for each in things])
    (pack,), (motor,) = packs, motors
    assert (pack.thing, pack.mass_g, pack.doubt_g, pack.pack.c_rating) == ("full", 50.0, 0.3, 30.0)
    assert (motor.thing, motor.motor.mass_g, motor.motor.most_a) == ("motor", 50.0, 14.0)
    assert in_drawer([(things[3], Known(0.0, 0.1))]) == ((), ())


def test_a_way_out_is_named_by_its_place():
    best, other, offer = (Remedy((), (), grams, ()) for grams in (1.0, 2.0, 3.0))
    found = Remedies(Outcome.FOUND, best=best, others=(other,), offers=(offer,))
    assert [way_out(found, k) for k in (0, 1)] == [best, other]
    assert way_out(Remedies(Outcome.FOUND, offers=(offer,)), 0) is offer
    with pytest.raises(BuildFaultError, match="is 2; there are 2 ways, from 0 on"):
        way_out(found, 2)
    with pytest.raises(BuildFaultError, match="nothing to be done"):
        way_out(Remedies(Outcome.FOUND), 0)
