"""What fits: bays, leads and clearances, by hand."""

from dataclasses import replace

import pytest

from oaken_scale.core.field.fit import NEAR_HINGE_MM, Misfit, fit_told
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.field import Control, ControlKind, FieldLog
from oaken_scale.core.model.fitting import Bay, Fit, FitRole
from oaken_scale.core.model.part import Part, Pedigree, Slide, Station
from oaken_scale.core.model.surface import Role, Section, Surface

BAY = Bay("bay", "Bay", 80.0, 200.0, 46.0, 56.0)
PACK = Fit(75.0, 35.0, 24.0, bay="bay")


def thing(id, x, fit, z=0.0, y=0.0, slide=None, option=False):
    station = None if x is None else Station(x, y, z)
    return Part(
        id,
        id,
        Pedigree.LISTING,
        stated_g=50.0,
        station=station,
        fit=fit,
        slide=slide,
        option=option,
    )


def told(*parts, **more):
    return fit_told(Build("b", "B", parts=parts, bays=(BAY,), **more))


def notes(*parts, **more):
    return [(n.kind, n.part, n.other, n.by_mm) for n in told(*parts, **more).notes]


@pytest.mark.parametrize(
    ("x", "slide", "expected"),
    [
        (117.5, None, []),  # 80 to 155: from the front wall on
        (100.0, None, [(Misfit.OUTSIDE, "pack", "bay", 17.5)]),
        (260.0, None, [(Misfit.OUTSIDE, "pack", "bay", 17.5)]),
        (180.0, Slide(110.0, 200.0), [(Misfit.SLIDES_OUT, "pack", "bay", 7.5)]),
        (180.0, Slide(120.0, 250.0), [(Misfit.SLIDES_OUT, "pack", "bay", 7.5)]),
        (None, None, []),
    ],
)
def test_a_pack_in_its_bay(x, slide, expected):
    assert notes(thing("pack", x, PACK, slide=slide)) == expected


def test_how_much_room_and_how_many():
    (inside,) = told(thing("pack", 180.0, PACK)).in_bays
    # 24 high and 35 wide in 46 by 56: 11 across is the tightest; turned up it is 21 of 56, 22 of
    # 46. Two along, one across, two up: or four with 24 across and 35 up.
    assert (inside.clearance_mm, inside.how_many) == (21.0, 4)
    (large,) = notes(thing("pack", 180.0, replace(PACK, width_mm=60.0, length_mm=210.0)))
    assert large == (Misfit.TOO_LARGE, "pack", "bay", 10.0)


def test_two_that_fly_together_and_two_that_do_not():
    one = thing("one", 150.0, Fit(150.0, 46.0, 30.0, bay="bay"), option=True)
    other = thing("other", 150.0, Fit(120.0, 46.0, 30.0, bay="bay"), option=True)
    apart = (Loadout("a", "A", ("one",)), Loadout("b", "B", ("other",)))
    kinds = [kind for kind, *_ in notes(one, other, loadouts=apart)]
    assert Misfit.NOT_TOGETHER not in kinds
    both = (Loadout("c", "C", ("one", "other")),)
    assert (Misfit.NOT_TOGETHER, "other", "bay", None) in notes(one, other, loadouts=both)
    small = replace(other, fit=Fit(50.0, 46.0, 56.0, bay="bay"))
    kinds = [kind for kind, *_ in notes(one, small, loadouts=both)]
    assert Misfit.NOT_TOGETHER not in kinds


def test_a_lead_is_wanted_along_across_and_up_a_tenth_loose():
    """From 212, 10 down to 75, 5 down: (137 + 5) 1.1 = 156.2; slid to 240: 187.0."""
    pack = thing(
        "pack", 212.0, Fit(lead_mm=150.0, plugs_into="esc"), z=-10.0, slide=Slide(130.0, 240.0)
    )
    esc = thing("esc", 75.0, None, z=-5.0)
    (reach,) = told(pack, esc).reaches
    assert (reach.wanted_mm, reach.most_mm) == pytest.approx((156.2, 187.0))
    (note,) = told(pack, esc).notes
    assert (note.kind, note.by_mm) == (Misfit.LEAD_SHORT, pytest.approx(37.0))
    long = replace(pack, fit=Fit(lead_mm=187.1, plugs_into="esc"))
    assert told(long, esc).notes == ()


def test_a_receiver_keeps_away_from_a_transmitter():
    receiver = thing("rx", 300.0, Fit(role=FitRole.RECEIVER))
    near = thing("tx", 360.0, Fit(role=FitRole.TRANSMITTER), z=45.0)
    (note,) = notes(receiver, near)
    assert note == (Misfit.TOO_NEAR, "rx", "tx", pytest.approx(25.0))
    assert notes(receiver, thing("tx", 400.0, Fit(role=FitRole.TRANSMITTER))) == []


@pytest.mark.parametrize(
    ("x", "y", "z", "by"),
    [
        (30.0, 0.0, 0.0, 7.0),  # 30 - 20 - 4 - (-2) = 8 from the disc: 7 nearer than 15
        (45.0, 0.0, 0.0, None),  # 21 away
        (30.0, 0.0, 120.0, None),  # over it: 100 from the shaft, the disc ends at 75
        (30.0, 0.0, 100.0, 7.0),  # 80: within 15 of its tip
        (30.0, 104.0, 0.0, 7.0),  # beside it: 15 wide to either side, 89 away
        (30.0, 106.0, 0.0, None),
        (30.0, -80.0, 80.0, 7.0),  # 65 across and 60 up: 88.5 from the shaft
        (30.0, -80.0, 84.0, None),  # 65 and 64: 91.2
    ],
)
def test_what_stands_in_the_way_of_a_propeller(x, y, z, by):
    propeller = thing(
        "prop", -2.0, Fit(8.0, 150.0, 150.0, plugs_into="motor", role=FitRole.PROPELLER)
    )
    motor = thing("motor", 12.0, Fit(30.0, 28.0, 28.0))
    block = thing("block", x, Fit(40.0, 30.0, 40.0), y=y, z=z)
    assert notes(propeller, motor, block) == (
        [] if by is None else [(Misfit.IN_DISC, "block", "prop", pytest.approx(by))]
    )


def test_what_lies_where_a_control_moves():
    wing = Surface("wing", "Wing", Role.WING, (Section(100, 0, 0, 200), Section(100, 500, 0, 200)))
    aileron = Control("aileron", "Aileron", ControlKind.AILERON, "wing", 0.3, 0.9, 0.25)
    more = {"surfaces": (wing,), "field": FieldLog(controls=(aileron,))}
    # Hinged at 250, from 150 to 450 out: a servo 23 by 12 just ahead of it, and one over it.
    size = Fit(23.0, 12.0, 24.0)
    assert notes(thing("servo", 235.0, size, y=200.0), **more) == []
    over = notes(thing("servo", 245.0, size, y=200.0), **more)
    assert over == [(Misfit.AT_CONTROL, "servo", "aileron", None)]
    assert notes(thing("servo", 245.0, size, y=-200.0), **more) == over
    assert notes(thing("servo", 245.0, size, y=200.0, z=60.0), **more) == []
    assert notes(thing("servo", 245.0, size, y=120.0), **more) == []


def test_without_a_bay_what_is_said_of_a_part_is_told():
    parts = (
        thing("rx", 300.0, Fit(role=FitRole.RECEIVER)),
        thing("tx", 330.0, Fit(role=FitRole.TRANSMITTER)),
    )
    (note,) = fit_told(Build("b", "B", parts=parts)).notes
    assert (note.kind, note.by_mm) == (Misfit.TOO_NEAR, pytest.approx(70.0))


def test_a_build_that_says_nothing_of_it_is_told_nothing():
    assert fit_told(Build("b", "B", parts=(thing("pack", 100.0, None),))).notes == ()


def test_what_has_no_place_stands_in_nobodys_way():
    receiver = thing("rx", None, Fit(role=FitRole.RECEIVER))
    near = thing("tx", 360.0, Fit(role=FitRole.TRANSMITTER))
    assert notes(receiver, near) == []
    assert notes(thing("rx", 360.0, receiver.fit), thing("tx", None, near.fit)) == []
    propeller = Fit(8.0, 150.0, 150.0, role=FitRole.PROPELLER)
    block = thing("block", 30.0, Fit(40.0, 30.0, 40.0))
    assert notes(thing("prop", None, propeller), block) == []
    # One whose diameter nobody said sweeps nothing.
    assert notes(thing("prop", -2.0, Fit(8.0, role=FitRole.PROPELLER)), block) == []
    assert notes(thing("prop", -2.0, propeller), thing("block", None, block.fit)) == []


@pytest.mark.parametrize(("off", "is_near"), [(-0.5, True), (0.5, False)])
@pytest.mark.parametrize("side", [1, -1])
def test_a_thing_over_or_under_a_control_is_near_by_its_own_edge(off, is_near, side):
    """24 high, its nearer edge half a millimetre within reach of the hinge, and beyond it."""
    wing = Surface("w", "Wing", Role.WING, (Section(100, 0, 0, 200), Section(100, 500, 6, 200)))
    aileron = Control("aileron", "A", ControlKind.AILERON, "w", 0.3, 0.9, 0.25)
    over = 6 if side > 0 else 0
    z = over + side * (12 + NEAR_HINGE_MM + off)
    found = notes(
        thing("servo", 265.0, Fit(23.0, 12.0, 24.0), y=200.0, z=z),
        surfaces=(wing,),
        field=FieldLog((aileron,)),
    )
    assert found == ([(Misfit.AT_CONTROL, "servo", "aileron", None)] if is_near else [])
