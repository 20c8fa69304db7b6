"""A pocket cut into a part: what is gone of its sheet, and what goes in there."""

from dataclasses import dataclass, replace

from oaken_scale.core.changes.act import Act, carried_along, noted, there
from oaken_scale.core.model import limits
from oaken_scale.core.model.amount import dm2, mm
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.diary import DiaryKind
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.lot import Lot, LotUnit, Use
from oaken_scale.core.model.named import free_id
from oaken_scale.core.model.part import Part, Pedigree, Station


@dataclass(frozen=True, slots=True)
class Pocket:
    """A pocket in a part cut from a sheet: its sides [mm], how deep it is [mm] (None: through the
    sheet), where its middle sits (None: where the part's does), and the part that goes into it."""

    length_mm: float
    width_mm: float
    depth_mm: float | None = None
    at: Station | None = None
    holds: str | None = None


def pocketed(build: Build, act: Act, host: str, pocket: Pocket) -> Build:
    """A pocket cut into a part: ``length width depth/thickness`` of its sheet's area is gone, and
    what goes into it sits there.

    Raises BuildFaultError where there is no such part, it is cut from no sheet, or the pocket is
    deeper than the sheet or larger than the part.

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.model.lot import Lot, LotUnit, Use
    >>> sheet = Lot("a", "Board", LotUnit.DM2, 4.6, 0.4, thickness_mm=5.0)
    >>> side = Part("s", "Side", Pedigree.CALCULATED, uses=(Use("a", 4.8),))
    >>> act = Act(datetime(2026, 3, 7, tzinfo=UTC), "a pocket for the receiver")
    >>> build = Build("b", "B", lots=(sheet,), parts=(side,))
    >>> after = pocketed(build, act, "s", Pocket(40.0, 25.0, 2.5))
    >>> after.parts[1].name, after.parts[1].uses[0].amount  # half through: 0.1 dm2 / 2
    ('pocket in side', -0.05)
    """
    whole = there(build, host)
    sheets = {lot.id: lot for lot in build.lots if lot.unit is LotUnit.DM2}
    use = next((each for each in whole.uses if each.amount > 0 and each.lot in sheets), None)
    if use is None:
        words = f"{whole.name} is cut from no sheet; say in grams what came off instead"
        raise BuildFaultError([Fault("host", words)])
    share = _depth_share(sheets[use.lot], pocket.depth_mm)
    area = pocket.length_mm * pocket.width_mm / 1e4
    gone = sum(-each.amount for part in build.parts if part.host == host for each in part.uses)
    left = use.amount / whole.pieces - gone
    if area * share >= left:
        words = "of {} is no smaller than what is left of {}, {}"
        raise BuildFaultError([Fault("length_mm", words, (dm2(area), whole.name, dm2(left)))])
    hole = Part(
        id=free_id(f"pocket in {whole.name}", (part.id for part in build.parts)),
        name=f"pocket in {whole.name.lower()}"[: limits.NAME_LENGTH],
        pedigree=Pedigree.CALCULATED,
        assembly=whole.assembly,
        uses=(Use(use.lot, -area * share),),
        station=pocket.at or whole.station,
        option=whole.option,
        host=whole.host or whole.id,
        added_at=act.at,
    )
    parts = (*build.parts, hole)
    if pocket.holds is not None:
        there(build, pocket.holds, "holds")
        parts = tuple(
            replace(part, station=hole.station) if part.id == pocket.holds else part
            for part in parts
        )
    build = replace(build, parts=parts)
    usual = f"a pocket cut in {whole.name}"
    build = noted(build, act, DiaryKind.TRIM, (host, hole.id), usual)
    return carried_along(build, host, hole.id)


def _depth_share(lot: Lot, depth_mm: float | None) -> float:
    """How much of a sheet's thickness a pocket takes."""
    if depth_mm is None:
        return 1.0
    if lot.thickness_mm is None:
        words = f"cannot be compared: say on the Rack how thick {lot.name} is, or cut it through"
        raise BuildFaultError([Fault("depth_mm", words)])
    if depth_mm > lot.thickness_mm:
        words = "is {}; {} is {} thick, so it must be at most that, or through"
        facts = (mm(depth_mm), lot.name, mm(lot.thickness_mm))
        raise BuildFaultError([Fault("depth_mm", words, facts)])
    return depth_mm / lot.thickness_mm
