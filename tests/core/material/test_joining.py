import pytest

from oaken_scale.core.ledger.posterior import solve
from oaken_scale.core.material.joining import seam
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.lot import Lot, LotKind, LotUnit
from oaken_scale.core.model.part import Part, Pedigree, Reference, Station
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.model.weighing import Scale
from tests.benches import reading, with_readings

GLUE = Lot("glue", "Glue", LotUnit.M, 2.4, 0.6, kind=LotKind.ADHESIVE)
TAPE = Lot("tape", "Tape", LotUnit.M, 2.1, 0.2, kind=LotKind.TAPE)
SHEET = Lot("sheet", "Sheet", LotUnit.DM2, 4.6, 0.4, kind=LotKind.FOAM)
WING = Surface("w", "Wing", Role.WING, (Section(200, 0, 0, 180), Section(200, 500, 0, 180)))


def part(id: str, assembly: str, station: Station | None) -> Part:
    return Part(id, id, Pedigree.LISTING, assembly, 20.0, station=station)


def plane(*parts: Part) -> Build:
    return Build(
        "b",
        "B",
        lots=(GLUE, TAPE, SHEET),
        parts=parts,
        surfaces=(WING,),
        scales=(Scale("kitchen", "K", 0.1, 0.05, 0.0),),
    )


def test_stations_by_both_references_meet_halfway():
    build = plane(
        part("fin", "Tail", Station(700.0, 0.0, 80.0)),
        part("spar", "Wing", Station(100.0, 0.0, 20.0, Reference.LEADING_EDGE)),
    )
    made = seam(build, "s", "Seam", ("fin", "spar"), "glue", 0.3)
    assert (made.station.x_mm, made.station.z_mm) == (500.0, 50.0)
    assert made.station.reference is Reference.NOSE
    assert made.assembly == ""


def test_tape_is_a_covering_and_glue_a_joint():
    build = plane(part("fin", "Tail", None))
    assert seam(build, "s", "S", ("fin",), "tape", 1.0).pedigree is Pedigree.COVERING
    assert seam(build, "s", "S", ("fin",), "glue", 1.0).pedigree is Pedigree.JOINT


def test_parts_without_a_station_leave_the_seam_without_one():
    build = plane(part("fin", "Tail", None), part("plane", "Tail", None))
    made = seam(build, "s", "S", ("fin", "plane"), "glue", 1.0)
    assert made.station is None
    assert made.assembly == "Tail"


@pytest.mark.parametrize("lot", ["sheet", "ghost"])
def test_only_what_joins_joins(lot):
    with pytest.raises(BuildFaultError, match="no adhesive or tape of this build; it has glue"):
        seam(plane(), "s", "S", (), lot, 1.0)


def test_weighed_before_and_after_the_seam_is_the_difference():
    """Two parts of 20.3 and 19.8 g, 41.4 g glued: the seam weighs 1.3 g."""
    fin, tail = part("fin", "Tail", None), part("plane", "Tail", None)
    build = plane(fin, tail)
    glue = seam(build, "seam", "Seam", ("fin", "plane"), "glue", 0.4)
    build = with_readings(
        plane(fin, tail, glue),
        reading(1, 20.3, "fin"),
        reading(2, 19.8, "plane"),
        reading(3, 41.4, {"fin": 1.0, "plane": 1.0, "seam": 1.0}),
    )
    after = solve(build)
    assert after.mass[2] == pytest.approx(1.3, abs=0.05)
    # What was learned of the glue stays with its lot: 3.25 g/m pulls on 2.4 +- 0.6.
    assert after.mean[0] > 2.4
