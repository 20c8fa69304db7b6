"""How far a part on one line may slide, and whether its mass is of each of its pieces or of all."""

import pytest

from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.lot import Lot, LotUnit
from oaken_scale.core.model.part_line import part_of_line, said_part


@pytest.mark.parametrize(
    ("said", "low", "high"),
    [
        ("at 120, slides 80 to 180", 80.0, 180.0),
        ("at 120 slides 180-80 mm in Pod", 80.0, 180.0),
        ("slides 80 mm to 18 cm at 120", 80.0, 180.0),
        ("at le 20, slides -10 to 40, optional", -10.0, 40.0),
        ("at 120, may slide 30 either way", 90.0, 150.0),
        ("at 120, slides ±2.5 cm", 95.0, 145.0),
        ('at 4", slides 3" to 6"', 76.2, 152.4),
    ],
)
def test_how_far_it_may_slide_is_said_on_the_line_too(said, low, high):
    part = part_of_line(f"Pack 74 g {said}", ())
    assert (part.name, part.stated_g) == ("Pack", 74.0)
    assert (part.slide.low_mm, part.slide.high_mm) == pytest.approx((low, high))
    assert (part.option, part.assembly) == ("optional" in said, "Pod" if "Pod" in said else "")


@pytest.mark.parametrize(
    ("line", "says"),
    [
        ("Pack 74 g, slides 80 to 180", "say where it sits too: at 130 mm, slides 80 to 180"),
        ("Pack 74 g at 20, slides 80 to 180", 'which is not within "slides 80 to 180"'),
        ("2 servos 9 g each in all", "is it of each, or of all?"),
        ("Joiner 2 m of carbon pole", "there is Carbon tube, Foam, Tape"),
    ],
)
def test_what_of_a_slide_or_a_sum_does_not_fit_is_said(line, says):
    lots = [Lot(name, name, LotUnit.M, 2.0, 0.1) for name in ("Foam", "Tape", "Carbon tube")]
    with pytest.raises(BuildFaultError) as told:
        part_of_line(line, lots)
    assert says in told.value.faults[0].sentence


def test_a_name_that_ends_in_slides_is_a_name():
    for line, name in (("Servo slides 4 g", "Servo slides"), ("Slide box 4 g at 20", "Slide box")):
        part = part_of_line(line, ())
        assert (part.name, part.slide) == (name, None)


@pytest.mark.parametrize(
    ("line", "is_open"),
    [
        ("4 servos 9 g", True),
        ("4 servos 36 g at 200", True),
        ("Pair of wheels 6 g", True),
        ("4 servos 9 g each", False),
        ("4 servos 36 g in all", False),
        ("4 9 g servos", False),
        ("Servo x4 9 g", True),
        ("Servos 4 x 9 g", False),
        ("Motor 28 g", False),
    ],
)
def test_whether_a_line_leaves_open_that_its_mass_is_of_each(line, is_open):
    assert said_part(line, ()).is_open is is_open
