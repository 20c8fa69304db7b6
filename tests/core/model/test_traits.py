"""What can be said of every part at once, and what has nothing to do with where things sit."""

from dataclasses import replace

from oaken_scale.core.model.part import Part, Pedigree, Slide, Station
from oaken_scale.core.model.traits import traits, wherever

PARTS = (
    Part("wing", "Wing", Pedigree.GUESS, stated_g=100.0, station=Station(200.0)),
    Part("bead", "Bead", Pedigree.JOINT, stated_g=4.0),
    Part("patch", "Patch", Pedigree.COVERING, stated_g=2.0, host="wing"),
    Part("old", "Old bead", Pedigree.JOINT, stated_g=4.0, retired=True, host="bead"),
    Part("late", "Late bead", Pedigree.JOINT, stated_g=4.0, host="old"),
)


def test_each_trait_of_each_part():
    found = traits(PARTS)
    assert found.at == {"wing": 0, "bead": 1, "patch": 2, "old": 3, "late": 4}
    assert found.there.tolist() == [True, True, True, False, True]
    assert found.joint.tolist() == [False, True, False, True, True]
    assert found.done.tolist() == [False, False, True, True, True]
    # Who is host only of what is off is host no more, and who is off is none either.
    assert found.host.tolist() == [True, False, False, False, False]
    assert found.joints == (1, 4)


def test_nothing_has_no_traits():
    found = traits(())
    assert (found.at, found.joints, found.there.shape) == ({}, (), (0,))


def test_a_list_is_the_same_wherever_its_things_sit_and_however_far_they_slide():
    moved = tuple(
        replace(part, station=Station(50.0 * k), slide=Slide(0.0, 9.0 * (k + 1)))
        for k, part in enumerate(PARTS)
    )
    assert wherever(moved) is wherever(PARTS)
    heavier = (replace(PARTS[0], stated_g=101.0), *PARTS[1:])
    assert wherever(heavier) is not wherever(PARTS)
    assert wherever(PARTS[:-1]) is not wherever(PARTS)
    renamed = (replace(PARTS[0], id="other"), *PARTS[1:])
    assert wherever(renamed) is not wherever(PARTS)
    off = (*PARTS[:1], replace(PARTS[1], retired=True), *PARTS[2:])
    assert wherever(off) is not wherever(PARTS)
