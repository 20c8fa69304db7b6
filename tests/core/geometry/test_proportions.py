"""Proportions by hand, and the notes that warn without blocking."""

from dataclasses import replace

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.geometry.neutral_point import neutral_point
from oaken_scale.core.geometry.proportions import (
    Oddity,
    OddProportion,
    fin_volume,
    sheet_gives,
    stall_speed,
    tail_volume,
)
from oaken_scale.core.geometry.wing import wing_figures
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.lot import Lot, LotKind, LotUnit
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.surface import Profile, Role, Section, Surface


def plate(id: str, role: Role, x: float, half: float, chord: float, z: float = 0.0, **more):
    sections = (Section(x, 0, z, chord), Section(x, half, z, chord))
    return Surface(id, id.title(), role, sections, **more)


def fin(x: float, height: float, chord: float, **more) -> Surface:
    sections = (Section(x, 0, 0, chord), Section(x, 0, height, chord))
    return Surface("fin", "Fin", Role.FIN, sections, **more)


WING = plate("wing", Role.WING, 200, 540, 190)
TAIL = plate("tail", Role.TAIL, 700, 240, 110)
SOUND = (WING, TAIL, fin(700, 200, 75))


def odd(*surfaces: Surface, **more) -> dict[Oddity, OddProportion]:
    told = assess(Build("b", "B", surfaces=surfaces, **more)).proportions.odd
    return {each.kind: each for each in told}


def test_tail_volumes_by_hand():
    wing = wing_figures([WING])
    arm = (700 + 110 / 4) - (200 + 190 / 4)
    area = 2 * 240 * 110 / 1e4
    assert tail_volume(wing, [TAIL]) == pytest.approx(area * arm / (20.52 * 190))
    upright = 120 * 110 / 1e4
    assert fin_volume(wing, [fin(700, 120, 110)]) == pytest.approx(upright * arm / (20.52 * 1080))
    two = fin_volume(wing, [fin(700, 120, 110, twin=True)])
    assert two == pytest.approx(2 * upright * arm / (20.52 * 1080))


def test_a_tail_twice_as_far_away_has_twice_the_volume():
    wing = wing_figures([WING])
    quarter = 200 + 190 / 4
    at, near, far = (
        tail_volume(wing, [plate("t", Role.TAIL, quarter + arm - 110 / 4, 200, 110)])
        for arm in (0.0, 300.0, 600.0)
    )
    assert at == pytest.approx(0.0, abs=1e-12)
    assert near > 0.1
    assert far == pytest.approx(2 * near)


@pytest.mark.parametrize(
    ("profile", "speed"), [(Profile.FLAT, 8.11), (Profile.STEPPED, 7.15), (Profile.FOLDED, 6.33)]
)
def test_the_stall_hangs_on_the_section(profile, speed):
    """590 g on 20.52 dm2: sqrt(2 * 0.59 * 9.80665 / (1.225 * 0.2052 * CLmax))."""
    part = Part("all", "All", Pedigree.GUESS, stated_g=590.0)
    wing = replace(WING, profile=profile)
    told = assess(Build("b", "B", surfaces=(wing,), parts=(part,))).proportions
    assert told.stall_speed == pytest.approx(speed, abs=0.01)
    assert told.cubic_loading == pytest.approx(590 / 20.52**1.5)
    assert stall_speed(4 * 590.0, 20.52, 0.7) == pytest.approx(2 * stall_speed(590.0, 20.52, 0.7))


def test_the_heaviest_loadout_counts():
    parts = (
        Part("body", "Body", Pedigree.GUESS, stated_g=400.0),
        Part("cam", "Cam", Pedigree.GUESS, stated_g=190.0, option=True),
    )
    loadouts = (Loadout("a", "Without"), Loadout("b", "With", ("cam",)))
    build = Build("b", "B", surfaces=SOUND, parts=parts, loadouts=loadouts)
    assert assess(build).proportions.cubic_loading == pytest.approx(590 / 20.52**1.5)


def test_a_sound_plan_gets_no_note():
    assert odd(*SOUND) == {}


@pytest.mark.parametrize(
    ("surfaces", "kind", "value", "usual"),
    [
        ((plate("wing", Role.WING, 0, 150, 200), TAIL), Oddity.ASPECT_RATIO, 1.5, (4.5, 7.5)),
        ((WING, plate("tail", Role.TAIL, 700, 120, 220)), Oddity.TAIL_SPAN, 0.222, (0.35, 0.6)),
        # The tail spans 480 mm: the whole of it counts, not the half that is drawn.
        ((WING, TAIL, fin(700, 380, 60)), Oddity.FIN_HEIGHT, 0.792, (0.35, 0.75)),
        ((WING, TAIL, fin(700, 120, 160)), Oddity.FIN_HEIGHT, 0.25, (0.35, 0.75)),
        ((replace(WING, thickness_mm=40.0), TAIL), Oddity.THICKNESS, 0.211, (0.08, 0.12)),
    ],
)
def test_what_is_out_of_the_usual_is_told_with_what_is_usual(surfaces, kind, value, usual):
    found = odd(*surfaces)[kind]
    assert found.value == pytest.approx(value, abs=5e-4)
    assert (found.low, found.high) == usual


@pytest.mark.parametrize(
    ("surfaces", "kind", "usual"),
    [
        ((WING, plate("tail", Role.TAIL, 400, 240, 60)), Oddity.TAIL_VOLUME, (0.35, 0.7)),
        ((WING, TAIL, fin(700, 30, 60)), Oddity.FIN_VOLUME, (0.02, 0.05)),
    ],
)
def test_a_volume_below_the_usual_is_the_one_told_as_a_figure(surfaces, kind, usual):
    told = assess(Build("b", "B", surfaces=surfaces)).proportions
    figure = told.tail_volume if kind is Oddity.TAIL_VOLUME else told.fin_volume
    found = odd(*surfaces)[kind]
    assert (found.value, found.low, found.high) == (figure, *usual)
    assert found.value < found.low


@pytest.mark.parametrize(
    ("x", "kind", "surfaces"),
    [(20, Oddity.TAIL_IN_FRONT, ("tail",)), (300, Oddity.RUN_THROUGH, ("wing", "tail"))],
)
def test_what_stands_where_it_cannot_is_named(x, kind, surfaces):
    assert odd(WING, plate("tail", Role.TAIL, x, 240, 110))[kind].surfaces == surfaces


def test_one_above_the_other_is_no_crossing():
    upper = plate("upper", Role.WING, 200, 540, 190, 150)
    assert Oddity.RUN_THROUGH not in odd(WING, upper, TAIL)


def test_a_sailplane_may_be_slender():
    slender = plate("wing", Role.WING, 200, 900, 180)
    assert Oddity.ASPECT_RATIO in odd(slender)
    assert Oddity.ASPECT_RATIO not in odd(slender, purpose="sailplane")
    assert Oddity.ASPECT_RATIO not in odd(slender, layout="sailplane")
    assert Oddity.ASPECT_RATIO in odd(slender, purpose="indoor", layout="sailplane")


def test_a_delta_may_be_short():
    short = plate("wing", Role.WING, 0, 250, 400)
    assert Oddity.ASPECT_RATIO in odd(short)
    assert Oddity.ASPECT_RATIO not in odd(short, layout="delta")


def test_the_slenderness_of_two_wings_is_that_of_the_larger():
    """1080 mm on 190: 5.68. The two together come to 2.9, which is no odd wing."""
    smaller = plate("upper", Role.WING, 180, 500, 150, 190)
    wing = wing_figures((smaller, WING))
    assert wing.aspect_ratio_alone == pytest.approx(1080 / 190)
    assert wing.aspect_ratio == pytest.approx(1080**2 / (1080 * 190 + 1000 * 150))
    assert Oddity.ASPECT_RATIO not in odd(smaller, WING, TAIL)
    stubs = tuple(plate(id, Role.WING, 0, 250, 190, z) for id, z in (("a", 0), ("b", 190)))
    assert odd(*stubs)[Oddity.ASPECT_RATIO].value == pytest.approx(500 / 190)


def test_of_twin_fins_each_is_half_as_high():
    """Two of 90 mm on 480 mm of tail are as good as one of 180: 0.375."""
    single = fin(700, 90, 120)
    assert odd(WING, TAIL, single)[Oddity.FIN_HEIGHT].value == pytest.approx(0.1875)
    assert Oddity.FIN_HEIGHT not in odd(WING, TAIL, replace(single, twin=True))


@pytest.mark.parametrize("role", [Role.CANARD, Role.TAIL])
def test_with_the_tail_in_front_a_fins_arm_is_from_the_neutral_point(role):
    """From the wing it would be next to none."""
    ahead, upright = plate("ahead", role, -300, 240, 90), fin(260, 200, 180)
    told = assess(Build("b", "B", surfaces=(WING, ahead, upright))).proportions
    arm = 260 + 180 / 4 - neutral_point((WING, ahead, upright)).x_mm
    assert told.fin_volume == pytest.approx(2.0 * 1.8 * arm / (20.52 * 1080))
    assert told.fin_volume > fin_volume(wing_figures((WING,)), [upright]) + 0.005
    assert odd(WING, ahead, fin(260, 60, 60))[Oddity.FIN_VOLUME].low == 0.02


def test_only_sheets_of_a_known_size_give_spans():
    sheet = Lot("a", "A", LotUnit.DM2, 4.6, 0.4, kind=LotKind.FOAM, length_mm=500, width_mm=700)
    told = sheet_gives(sheet)
    assert (told.span_mm, told.two_halves_mm, told.single_chord_mm) == (700, 1400, 500)
    assert told.folded_chord_mm == pytest.approx(500 / 2.05)
    assert sheet_gives(replace(sheet, kind=LotKind.TAPE)) is None
    assert sheet_gives(replace(sheet, width_mm=None)) is None


def test_nothing_drawn_has_no_figures_and_no_notes():
    told = assess(Build("b", "B")).proportions
    assert (told.tail_volume, told.stall_speed, told.odd) == (None, None, ())


def test_a_fin_on_a_high_boom_is_no_higher_for_that():
    """Its height is from its foot: 120 of 480 mm of tail is too little wherever it stands."""
    low = fin(700, 120, 160)
    high = replace(low, sections=tuple(replace(s, z_mm=s.z_mm + 150) for s in low.sections))
    for each in (low, high):
        assert odd(WING, TAIL, each)[Oddity.FIN_HEIGHT].value == pytest.approx(0.25)
