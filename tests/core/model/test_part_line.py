"""A whole part on one line, as builders would write it."""

from contextlib import suppress

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.lot import Lot, LotKind, LotUnit
from oaken_scale.core.model.part import Pedigree, Reference
from oaken_scale.core.model.part_line import Units, part_of_line

SHEET_A = Lot("sheet-a", "Sheet A, both papers", LotUnit.DM2, 4.6, 0.4, kind=LotKind.FOAM)
SHEET_B = Lot(
    "sheet-b",
    "Sheet B, one paper",
    LotUnit.DM2,
    3.2,
    0.3,
    kind=LotKind.FOAM,
    length_mm=600,
    width_mm=600,
)
BEAD = Lot("bead", "Hot glue bead", LotUnit.M, 2.4, 1.0, kind=LotKind.ADHESIVE)
TAPE = Lot("tape", "Packing tape, 48 mm", LotUnit.M, 2.1, 0.1, kind=LotKind.TAPE)
STICK = Lot("stick", "Craft stick", LotUnit.PIECE, 1.4, 0.1, kind=LotKind.OTHER)
LOTS = (SHEET_A, SHEET_B, BEAD, TAPE)


def read(line: str, **units):
    part = part_of_line(line, LOTS, Units(**units), (STICK,))
    use = part.uses[0] if part.uses else None
    amount = use.amount if use else part.stated_g
    at = part.station
    return (
        part.name,
        part.pedigree,
        use.lot if use else None,
        amount,
        part.pieces,
        part.assembly,
        (at.x_mm, at.y_mm, at.z_mm, at.reference) if at else None,
    )


NOSE, EDGE = Reference.NOSE, Reference.LEADING_EDGE
GUESS, LISTING, CALCULATED = Pedigree.GUESS, Pedigree.LISTING, Pedigree.CALCULATED

LINES = {
    "Motor 28g at 40": ("Motor", GUESS, None, 28.0, 1, "", (40, 0, 0, NOSE)),
    "Motor 1 oz listing": ("Motor", LISTING, None, 28.349523125, 1, "", None),
    "Servo 2 x 9 g at 245": ("Servo", GUESS, None, 18.0, 2, "", (245, 0, 0, NOSE)),
    "Receiver 12,4 g": ("Receiver", GUESS, None, 12.4, 1, "", None),
    "3-cell 1300 110 g listed at 9 cm": (
        "3-cell 1300",
        LISTING,
        None,
        110.0,
        1,
        "",
        (90, 0, 0, NOSE),
    ),
    "Left panel 13 dm2 of sheet b in Wing at le 80 side -265 up 62": (
        "Left panel",
        CALCULATED,
        "sheet-b",
        13.0,
        1,
        "Wing",
        (80, -265, 62, EDGE),
    ),
    "Left panel 540 x 190 of sheet a": ("Left panel", CALCULATED, "sheet-a", 10.26, 1, "", None),
    "Left panel 540*190 of sheet a": ("Left panel", CALCULATED, "sheet-a", 10.26, 1, "", None),
    "Tail glue 1.4 m of hot glue": ("Tail glue", Pedigree.JOINT, "bead", 1.4, 1, "", None),
    "Hinge 900 mm of tape": ("Hinge", Pedigree.COVERING, "tape", 0.9, 1, "", None),
    "Skids 3 of craft stick": ("Skids", CALCULATED, "stick", 3.0, 1, "", None),
    "Pod two thirds of a sheet of sheet b": ("Pod", CALCULATED, "sheet-b", 24.0, 1, "", None),
    "Pod 2/3 sheet of sheet b in Wing": ("Pod", CALCULATED, "sheet-b", 24.0, 1, "Wing", None),
    "Two servos 9 g each at 90": ("Two servos", GUESS, None, 18.0, 2, "", (90, 0, 0, NOSE)),
    "10 short screws 0.4 g each": ("10 short screws", GUESS, None, 4.0, 10, "", None),
    "Motor screws, four 0.6 g each": ("Motor screws, four", GUESS, None, 2.4, 4, "", None),
    "Motor screws, 4, 0.6 g each": ("Motor screws, 4", GUESS, None, 2.4, 4, "", None),
    "Two ESC 12 A 11 g each": ("Two ESC 12 A", GUESS, None, 22.0, 2, "", None),
    "2 ESC 12 A 11 g each": ("2 ESC 12 A", GUESS, None, 22.0, 2, "", None),
    "Props 5x4.5 two 3 g each": ("Props 5x4.5 two", GUESS, None, 6.0, 2, "", None),
    "Two servos 18 g": ("Two servos", GUESS, None, 18.0, 2, "", None),
    "5 mm strips 3 g": ("5 mm strips", GUESS, None, 3.0, 1, "", None),
    "3 cell pack 110 g": ("3 cell pack", GUESS, None, 110.0, 1, "", None),
    # The mass before the name, and within it.
    "9g servo": ("servo", GUESS, None, 9.0, 1, "", None),
    "28 g motor at 40": ("motor", GUESS, None, 28.0, 1, "", (40, 0, 0, NOSE)),
    "Motor 28 g 2300kv at 40": ("Motor 2300kv", GUESS, None, 28.0, 1, "", (40, 0, 0, NOSE)),
    "Camera 35g under wing at 9": ("Camera under wing", GUESS, None, 35, 1, "", (9, 0, 0, NOSE)),
    "Motor 28 g + 3 g leads": ("Motor leads", GUESS, None, 31.0, 1, "", None),
    "9g servo 8.7 g": ("9g servo", GUESS, None, 8.7, 1, "", None),
    "Servo 9 g 8.7 g": ("Servo 9 g", GUESS, None, 8.7, 1, "", None),
    "Bag 1 kg 200 g": ("Bag", GUESS, None, 1200.0, 1, "", None),
    "Pack 3s 450mAh (38 g)": ("Pack 3s 450mAh", GUESS, None, 38.0, 1, "", None),
    "ESC ~9 g": ("ESC", GUESS, None, 9.0, 1, "", None),
    "ESC about 9 gm": ("ESC", GUESS, None, 9.0, 1, "", None),
    "Motor, listed 28 g": ("Motor", LISTING, None, 28.0, 1, "", None),
    # The mass after a place or an assembly.
    "Motor at 40, 28 g": ("Motor", GUESS, None, 28.0, 1, "", (40, 0, 0, NOSE)),
    "Spar in the wing 12 g at 90": ("Spar", GUESS, None, 12.0, 1, "wing", (90, 0, 0, NOSE)),
    # How many.
    "Pair of wheels 6 g at 100": ("Pair of wheels", GUESS, None, 6.0, 2, "", (100, 0, 0, NOSE)),
    "A pair of 9 g servos": ("A pair of servos", GUESS, None, 18.0, 2, "", None),
    "2 servos 18 g in all at 80": ("2 servos", GUESS, None, 18.0, 2, "", (80, 0, 0, NOSE)),
    "2 servos, together 18 g": ("2 servos", GUESS, None, 18.0, 2, "", None),
    "4 screws total 2 g": ("4 screws", GUESS, None, 2.0, 4, "", None),
    "Screws 0.5 g x 4 in total": ("Screws", GUESS, None, 2.0, 4, "", None),
    "Pair of wheels 12 g for both": ("Pair of wheels", GUESS, None, 12.0, 2, "", None),
    "Motor 28 g in all-wood mount": ("Motor", GUESS, None, 28.0, 1, "all-wood mount", None),
    "2 9g servos at 80": ("2 servos", GUESS, None, 18.0, 2, "", (80, 0, 0, NOSE)),
    "2 small 9 g servos": ("2 small servos", GUESS, None, 18.0, 2, "", None),
    "9g servo x2": ("servo x2", GUESS, None, 18.0, 2, "", None),
    "Servo 9 g (2)": ("Servo (2)", GUESS, None, 18.0, 2, "", None),
    "Servos 18 g (2)": ("Servos (2)", GUESS, None, 18.0, 2, "", None),
    "9 g servo, two": ("servo, two", GUESS, None, 18.0, 2, "", None),
    "Motor two 28 g": ("Motor two", GUESS, None, 28.0, 1, "", None),  # the second
    "Rib, 4 2 g": ("Rib, 4", GUESS, None, 2.0, 1, "", None),
    "2 servos 18 g black": ("2 servos black", GUESS, None, 18.0, 1, "", None),
    "2 x 9 g servos": ("servos", GUESS, None, 18.0, 2, "", None),
    "Aileron servo 9g x2": ("Aileron servo", GUESS, None, 18.0, 2, "", None),
    "Aileron servo 9 g each x 2": ("Aileron servo", GUESS, None, 18.0, 2, "", None),
    "Servos (2) 9 g each": ("Servos (2)", GUESS, None, 18.0, 2, "", None),
    "Servos x 2 9 g each": ("Servos x 2", GUESS, None, 18.0, 2, "", None),
    "Servos 4 * 9 g": ("Servos", GUESS, None, 36.0, 4, "", None),
    "9 g servo (x 4)": ("servo (x 4)", GUESS, None, 36.0, 4, "", None),
    "4 sticks at 1 g each in Tail": ("4 sticks", GUESS, None, 4.0, 4, "Tail", None),
    "4 sticks @ 1 g": ("4 sticks", GUESS, None, 4.0, 4, "", None),
    "Motor at 28 g": ("Motor", GUESS, None, 28.0, 1, "", None),
    "Motor 28 g at 40 listing": ("Motor", LISTING, None, 28.0, 1, "", (40, 0, 0, NOSE)),
    "Hatch 4 g?": ("Hatch", GUESS, None, 4.0, 1, "", None),
    # As far to the left as to the right.
    "Props 2 x 4 g at 170, 250 either side": ("Props", GUESS, None, 8, 2, "", (170, 0, 0, NOSE)),
    "Props 2 x 4 g at 170 250 on both sides": ("Props", GUESS, None, 8, 2, "", (170, 0, 0, NOSE)),
    "Props 2 x 4 g at 170 ±250 up 20": ("Props", GUESS, None, 8, 2, "", (170, 0, 20, NOSE)),
    "Props 8 g at 170, left and right 250, 20 up": (
        "Props",
        GUESS,
        None,
        8,
        1,
        "",
        (170, 0, 20, NOSE),
    ),
    "Motors 60 g at 180 on both wings": ("Motors", GUESS, None, 60, 1, "", (180, 0, 0, NOSE)),
    "2 wheels at 250, either side 12 g": (
        "2 wheels",
        GUESS,
        None,
        12,
        2,
        "",
        (250, 0, 0, NOSE),
    ),
    "ESC 2 x 18 g at 230, 200 out": ("ESC", GUESS, None, 36, 2, "", (230, 0, 0, NOSE)),
    "Wheels 9 g at le 20 either side": ("Wheels", GUESS, None, 9, 1, "", (20, 0, 0, EDGE)),
    "2 wheels 250 mm behind the nose 80 mm either side 12 g": (
        "2 wheels",
        GUESS,
        None,
        12,
        2,
        "",
        (250, 0, 0, NOSE),
    ),
    # A side and an up that are words of the name.
    "Left side 40 g at 300": ("Left side", GUESS, None, 40, 1, "", (300, 0, 0, NOSE)),
    "Skids either side 4 g at 9": ("Skids either side", GUESS, None, 4, 1, "", (9, 0, 0, NOSE)),
    "Pop up 30 g at 40": ("Pop up", GUESS, None, 30, 1, "", (40, 0, 0, NOSE)),
    # The place.
    "Motor 28 g @ 40": ("Motor", GUESS, None, 28.0, 1, "", (40, 0, 0, NOSE)),
    "Skid 5 g at the nose": ("Skid", GUESS, None, 5.0, 1, "", (0, 0, 0, NOSE)),
    "Skid at nose 5 g": ("Skid", GUESS, None, 5.0, 1, "", (0, 0, 0, NOSE)),
    "Receiver 4 g, 250 mm from nose": ("Receiver", GUESS, None, 4, 1, "", (250, 0, 0, NOSE)),
    "Rx 4 g at 25 cm from the nose": ("Rx", GUESS, None, 4.0, 1, "", (250, 0, 0, NOSE)),
    "Rx 4 g 10 mm behind the le": ("Rx", GUESS, None, 4.0, 1, "", (10, 0, 0, EDGE)),
    "Rx 4 g at the leading edge": ("Rx", GUESS, None, 4.0, 1, "", (0, 0, 0, EDGE)),
    "Tape 3 g at 450 left 300": ("Tape", GUESS, None, 3.0, 1, "", (450, -300, 0, NOSE)),
    "Tape 3 g at 450 right 300 down 20": ("Tape", GUESS, None, 3, 1, "", (450, 300, -20, NOSE)),
    "Tape 3 g at 450 side 300 left": ("Tape", GUESS, None, 3.0, 1, "", (450, -300, 0, NOSE)),
    "Tape 3 g at 45 cm, 30 cm to port": ("Tape", GUESS, None, 3, 1, "", (450, -300, 0, NOSE)),
    "Left tip 3 g at 450 left 300": ("Left tip", GUESS, None, 3.0, 1, "", (450, -300, 0, NOSE)),
    "Tape 5 g at 450 in left wing": ("Tape", GUESS, None, 5, 1, "left wing", (450, 0, 0, NOSE)),
    "Wing 45 g at 240, 140 up": ("Wing", GUESS, None, 45, 1, "", (240, 0, 140, NOSE)),
    "Wheel 22 g at 190 80 down": ("Wheel", GUESS, None, 22, 1, "", (190, 0, -80, NOSE)),
    "Wheel at 190, 80 low, 22 g": ("Wheel", GUESS, None, 22, 1, "", (190, 0, -80, NOSE)),
    "Wheel at 190, 80 below 22 g": ("Wheel", GUESS, None, 22, 1, "", (190, 0, -80, NOSE)),
    "Tape 3 g at 450, 300 left, 20 down": ("Tape", GUESS, None, 3, 1, "", (450, -300, -20, NOSE)),
    "Tape 3 g at 450 300 right 20 above": ("Tape", GUESS, None, 3, 1, "", (450, 300, 20, NOSE)),
    "Tape 3 g at 450, 20 up and 30 to the left in Wing": (
        ("Tape", GUESS, None, 3, 1, "Wing", (450, -30, 20, NOSE))
    ),
    "Wing 45 g at 240 140 high": ("Wing", GUESS, None, 45, 1, "", (240, 0, 140, NOSE)),
    "Wing 45 g at 240, 140 higher": ("Wing", GUESS, None, 45, 1, "", (240, 0, 140, NOSE)),
    "Wing 45 g at 240 and 140 up": ("Wing", GUESS, None, 45, 1, "", (240, 0, 140, NOSE)),
    "Flap, 20 down 3 g at 250": ("Flap, 20 down", GUESS, None, 3, 1, "", (250, 0, 0, NOSE)),
    "Pod 3 g at nose 15 down": ("Pod", GUESS, None, 3, 1, "", (0, 0, -15, NOSE)),
    "Pod 3 g at the leading edge, 15 down": ("Pod", GUESS, None, 3, 1, "", (0, 0, -15, EDGE)),
    "Pod 3 g at le 20, 1,5 cm lower": ("Pod", GUESS, None, 3, 1, "", (20, 0, -15, EDGE)),
    "Pod 3 g, 250 mm from the nose, 10 up": ("Pod", GUESS, None, 3, 1, "", (250, 0, 10, NOSE)),
    "Seat low 3 g at 250": ("Seat low", GUESS, None, 3, 1, "", (250, 0, 0, NOSE)),
    "Clip on the nose 1 g": ("Clip", GUESS, None, 1.0, 1, "", (0, 0, 0, NOSE)),
    "Clip on nose, 1 g": ("Clip", GUESS, None, 1.0, 1, "", (0, 0, 0, NOSE)),
    "Clay 2 g on the nose": ("Clay", GUESS, None, 2.0, 1, "", (0, 0, 0, NOSE)),
    "Tape on nose and tail 3 g": ("Tape on nose and tail", GUESS, None, 3.0, 1, "", None),
    "Wheel on nose leg 4 g": ("Wheel on nose leg", GUESS, None, 4.0, 1, "", None),
    "Bird 5 g on the left": ("Bird on the left", GUESS, None, 5.0, 1, "", None),
    "Motor 28 g at CG": ("Motor at CG", GUESS, None, 28.0, 1, "", None),
    "Screws 4 of 0.5 g at 10": ("Screws", GUESS, None, 2.0, 4, "", (10, 0, 0, NOSE)),
    "Servos 2 of 9 g each in Tail": ("Servos", GUESS, None, 18.0, 2, "Tail", None),
    "Rib 4 mm": ("Rib 4 mm", GUESS, None, None, 1, "", None),
}


@pytest.mark.parametrize("line", LINES)
def test_a_line_is_understood(line):
    name, pedigree, lot, amount, *rest = LINES[line]
    told = read(line)
    assert (told[0], told[1], told[2], *told[4:]) == (name, pedigree, lot, *rest)
    assert told[3] == (None if amount is None else pytest.approx(amount))


@pytest.mark.parametrize("said", [", optional", " option", ", as an option", " an option"])
def test_what_flies_only_sometimes_says_so_last(said):
    part = part_of_line(f"Camera 62 g listing at 215{said}", ())
    assert (part.name, part.pedigree, part.option) == ("Camera", LISTING, True)
    assert (part.stated_g, part.station.x_mm) == (62.0, 215.0)
    assert not part_of_line("Optional camera 62 g at 215", ()).option


def test_units_that_are_not_typed_are_those_of_the_page():
    told = read("Panel 2 of sheet a at 10", area="ft2", length="in")
    assert told[3] == pytest.approx(2 * 9.290304)
    assert told[-1][0] == pytest.approx(254.0)


@pytest.mark.parametrize(
    ("line", "words"),
    [
        ("", "begin with the part's name"),
        ("Panel 3 dm2 of sheet", "may be Sheet A, both papers; Sheet B, one paper"),
        ("Panel 3 dm2 of balsa", 'no lot "balsa"'),
        ("Panel of sheet a", "say how much of Sheet A"),
        ("Panel 3 g of sheet a", '"g" is not a unit of area'),
        ("Pack 62 g side 20", "say where it sits along the plane too"),
        ("Pack 62 g at 20 at 30", "once each"),
        ("Receiver 4 g 250", 'where is it? "Receiver 4 g at 250"'),
        ("Receiver, 4 g, 250 mm", 'where is it? "Receiver 4 g at 250 mm"'),
        ("Motor 28 g with 3 g leads", 'more than one mass; add them: "28 g + 3 g"'),
        ("Motor 28 g and prop 5 g", 'more than one mass; add them: "28 g + 5 g"'),
        ("Elevator 4.5 g + tape 1 g", 'more than one mass; add them: "4.5 g + 1 g"'),
        ("Motor 28 g, prop 5 g at 20", 'more than one mass; add them: "28 g + 5 g"'),
        ("Servo 9 g each", 'each of how many? "Servo 2 x 9 g"'),
        ("2 elevon 6 g each at 440", 'each of how many? "elevon 2 x 6 g"'),
        ("5 mm strips 3 g each", 'each of how many? "5 mm strips 2 x 3 g"'),
        ("3 cell pack 110 g each", 'each of how many? "cell pack 3 x 110 g"'),
        ("0 servos 9 g each", 'each of how many? "0 servos 2 x 9 g"'),
        ("ESC 18 g at 230, 200 out", 'to which side? "200 left" or "200 right"'),
        ("ESC 2 x 18 g at 230, 200 out, 10 left", 'says "200 out" and one side too'),
        ("Tape 3 g at 200 out", '"out" is not a unit of station here'),
        ("6 g", "begin with the part's name"),
        ("Tape 3 g at 200, 300", "is not one number with a unit"),
        ("Tape 3 g at 200, 300 upright", "is not one number with a unit"),
        ("Tape 3 g at 200, 20 up, 30 down", "once each"),
    ],
)
def test_what_is_not_understood_is_said(line, words):
    with pytest.raises(BuildFaultError) as refused:
        read(line)
    assert refused.value.faults[0].field == "line"
    assert words in refused.value.faults[0].words


NAMES = st.from_regex(r"[A-Z][a-z]{2,9}( [a-z]{3,9})?", fullmatch=True).filter(
    lambda name: not {"guess", "listing", "listed", "calculated"} & set(name.split())
)


@given(NAMES, st.integers(1, 99_999), st.integers(-400, 900), st.integers(-400, 400))
def test_what_is_written_out_is_read_again(name, tenths, x, side):
    line = f"{name} {tenths / 10} g in Body at {x} side {side}"
    told = read(line)
    assert told == (name, GUESS, None, tenths / 10, 1, "Body", (x, side, 0, NOSE))


@given(NAMES, st.integers(1, 99_999), st.integers(0, 900))
def test_a_mass_and_a_place_stand_in_any_order(name, tenths, x):
    mass, place = f"{tenths / 10} g", f"at {x}"
    in_order = read(f"{name} {mass} {place}")
    for words in ((name, place, mass), (mass, name, place), (f"{name},", place, f"({mass})")):
        assert read(" ".join(words)) == in_order


IMPERIAL = Units("oz", "in", "ft2", "ft")


@pytest.mark.parametrize("units", [Units(), IMPERIAL], ids=["metric", "imperial"])
@pytest.mark.parametrize(
    ("line", "name", "lot", "amount", "assembly"),
    [
        ("Tape 36 in of packing in Wing", "Tape", "tape", 0.9144, "Wing"),
        ("Tape 36in of packing in Wing", "Tape", "tape", 0.9144, "Wing"),
        ("Tape 36 inches of packing in Wing", "Tape", "tape", 0.9144, "Wing"),
        ("Tape 4 x 6.5 in of packing", "Tape", "tape", 0.6604, ""),
        ("Glue 3 ft 6 in of hot glue", "Glue", "bead", 1.0668, ""),
        ("Glue 3' 6\" of hot glue", "Glue", "bead", 1.0668, ""),
        ("Glue 2 yd of hot glue in Body", "Glue", "bead", 1.8288, "Body"),
        ("Panel 18 in x 6 in of sheet a in Wing", "Panel", "sheet-a", 6.967728, "Wing"),
        ('Panel 18" x 6" of sheet a in Wing', "Panel", "sheet-a", 6.967728, "Wing"),
        ("Panel 18″ × 6½″ of sheet a", "Panel", "sheet-a", 7.548372, ""),
        ("Panel 18 in x 6 1/2 in of sheet a", "Panel", "sheet-a", 7.548372, ""),
        ("Panel 18 in. x 6 in. of sheet a in Wing", "Panel", "sheet-a", 6.967728, "Wing"),
        ("Panel 108 sq. in. of sheet a", "Panel", "sheet-a", 6.967728, ""),
        ("Panel 108 sq in of sheet a in Wing", "Panel", "sheet-a", 6.967728, "Wing"),
        ("Rib 2 3 in x 1 in + 2 in x 1 in of sheet a", "Rib 2", "sheet-a", 0.32258, ""),
    ],
)
def test_inches_are_a_unit_after_a_number(line, name, lot, amount, assembly, units):
    part = part_of_line(line, LOTS, units)
    assert (part.name, part.assembly) == (name, assembly)
    assert [(use.lot, pytest.approx(use.amount)) for use in part.uses] == [(lot, amount)]


@pytest.mark.parametrize(
    ("line", "grams", "at"),
    [
        ("Motor 1 1/2 oz. at 3 in.", 42.524285, (76.2, 0, 0)),
        ("Motor 1 1/2 oz at 3 in", 42.524285, (76.2, 0, 0)),
        ("1½ oz Motor, 3 in from the nose", 42.524285, (76.2, 0, 0)),
        ("Motor 1 1/2 oz at 3 in left 2 in down 1", 42.524285, (76.2, -50.8, -25.4)),
        ("Motor 1½ oz at ½ in side -2 in up 1 in", 42.524285, (12.7, -50.8, 25.4)),
        ("Motor 3 ounces at 3 in in Nose", 85.048569, (76.2, 0, 0)),
        ("Motor 1 lb 2 oz listing in Nose at 3 1/2", 510.291416, (88.9, 0, 0)),
        ("Motor 1 lb + 2 oz in Nose at 3½", 510.291416, (88.9, 0, 0)),
    ],
)
def test_a_mass_and_a_place_in_ounces_and_inches(line, grams, at):
    part = part_of_line(line, LOTS, IMPERIAL)
    assert part.name == "Motor"
    assert part.stated_g == pytest.approx(grams)
    assert (part.station.x_mm, part.station.y_mm, part.station.z_mm) == pytest.approx(at)


def test_two_sides_with_a_fraction_are_not_cut_in_two():
    """Once "6 1/2" lost its 6 to the name, and half a square foot was kept."""
    part = part_of_line("Panel 18 x 6 1/2 of sheet a", LOTS, IMPERIAL)
    assert (part.name, part.uses[0].amount) == ("Panel", pytest.approx(7.548372))


@pytest.mark.parametrize(
    ("line", "name", "assembly"),
    [
        ("Servo 2 in Wing", "Servo 2", "Wing"),
        ("Servo 2 in left wing at 80", "Servo 2", "left wing"),
        ("Pilot’s seat in Body", "Pilot’s seat", "Body"),
    ],
)
def test_in_after_a_number_is_a_word_where_an_assembly_follows(line, name, assembly):
    part = part_of_line(line, LOTS)
    assert (part.name, part.assembly) == (name, assembly)


@pytest.mark.parametrize(
    ("lot", "much"), [("sheet a", "12 ft2"), ("hot glue", "2 ft"), ("craft stick", "2")]
)
def test_how_much_of_a_lot_is_asked_in_its_own_unit(lot, much):
    with pytest.raises(BuildFaultError, match=f'Piece {much} of {lot}"'):
        part_of_line(f"Piece of {lot}", LOTS, IMPERIAL, (STICK,))


@given(st.text(max_size=80))
def test_nothing_that_is_typed_breaks_it(text):
    with suppress(BuildFaultError):
        assert part_of_line(text, LOTS).name


@pytest.mark.parametrize(
    ("line", "name", "amount", "pieces"),
    [
        ("Motor 28 + 4.5 g", "Motor", 32.5, 1),
        ("Motor 28 g + 4,5 g listing at 40", "Motor", 32.5, 1),
        ("Motor 1 oz + 4.5 g", "Motor", 28.349523125 + 4.5, 1),
        ("Servos 2 x 9 g + 1 g", "Servos", 19.0, 1),
        ("Servos 2 x 9 g", "Servos", 18.0, 2),
        ("Rib 3 12 + 1 g", "Rib 3", 13.0, 1),
        ("Panel 540 x 190 + 100 x 50 of sheet b", "Panel", 10.76, 1),
        ("Panel 10 + 0.5 dm2 of sheet b", "Panel", 10.5, 1),
        ("Skin 2/3 sheet + 1 dm2 of sheet b", "Skin", 25.0, 1),
        ("Hinge 1.2 + 0.3 of packing", "Hinge", 1.5, 1),
    ],
)
def test_a_figure_that_is_added_up_is_the_sum(line, name, amount, pieces):
    told = read(line)
    assert (told[0], told[4]) == (name, pieces)
    assert told[3] == pytest.approx(amount)


@pytest.mark.parametrize(
    ("line", "name", "grams"),
    [
        ("3-cell 1300, 110 g at 90", "3-cell 1300", 110.0),
        ("Motor: 28 g", "Motor", 28.0),
        ("Rod, carbon; 12 g", "Rod, carbon", 12.0),
        ("Camera, with mount", "Camera, with mount", None),
        ("Camera,", "Camera", None),
    ],
)
def test_a_comma_before_the_figure_is_not_of_the_name(line, name, grams):
    told = read(line)
    assert (told[0], told[3]) == (name, grams)


@pytest.mark.parametrize("line", [", 5 g", ";", ": 2 x 9 g"])
def test_a_comma_alone_is_no_name(line):
    with pytest.raises(BuildFaultError, match="begin with the part's name"):
        read(line)


def test_a_comma_before_how_much_of_a_lot():
    assert read("Left panel, 13 dm2 of sheet b")[0] == "Left panel"
