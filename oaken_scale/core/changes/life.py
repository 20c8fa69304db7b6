"""The life of parts: replaced, repaired, trimmed, retired, moved; and the plane as it was on a day.

Nothing that was weighed is rewritten. A repair adds parts that stay on their host, and a trim adds
one that weighs less than nothing, so that readings taken before speak of the part as it was, and
readings taken after speak of it as it is.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from datetime import datetime

from oaken_scale.core.ledger.mixture import solve
from oaken_scale.core.model import limits
from oaken_scale.core.model.amount import Amount, dm2, mm
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.diary import DiaryEntry, DiaryKind
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.lot import Lot, LotUnit, Use
from oaken_scale.core.model.part import Part, Pedigree, Station


@dataclass(frozen=True, slots=True)
class Act:
    """When something was done, in which words, and the id that its entry in the diary gets."""

    id: str
    at: datetime
    words: str


def repaired(build: Build, act: Act, host: str, added: Iterable[Part]) -> Build:
    """A part repaired: glue, tape and patches are ``added`` and stay on it.

    What is added without a station sits where its host does. Raises BuildFaultError where there
    is no such part, or nothing is added.

    >>> from datetime import UTC
    >>> act = Act("a", datetime(2026, 3, 7, tzinfo=UTC), "glued")
    >>> nose = Part("nose", "Nose", Pedigree.GUESS, stated_g=20.0)
    >>> glue = Part("glue", "Glue", Pedigree.JOINT, stated_g=1.5)
    >>> after = repaired(Build("b", "B", parts=(nose,)), act, "nose", (glue,))
    >>> [(part.id, part.host) for part in after.parts], after.diary[0].parts
    ([('nose', None), ('glue', 'nose')], ('nose', 'glue'))
    """
    whole = _there(build, host)
    fresh = tuple(
        replace(
            each,
            host=whole.host or whole.id,
            assembly=whole.assembly,
            added_at=act.at,
            station=each.station or whole.station,
        )
        for each in added
    )
    if not fresh:
        raise BuildFaultError([Fault("added", "say what the repair added: glue, tape, a patch")])
    build = replace(build, parts=(*build.parts, *fresh))
    return _noted(build, act, DiaryKind.REPAIR, (host, *(part.id for part in fresh)))


def trimmed(build: Build, act: Act, host: str, id: str, grams: float) -> Build:
    """About ``grams`` sanded, cut or pulled off a part.

    Raises BuildFaultError where there is no such part, or it does not weigh as much.

    >>> from datetime import UTC
    >>> act = Act("a", datetime(2026, 3, 7, tzinfo=UTC), "sanded")
    >>> nose = Part("nose", "Nose", Pedigree.GUESS, stated_g=20.0)
    >>> after = trimmed(Build("b", "B", parts=(nose,)), act, "nose", "off", 3.0)
    >>> [(part.name, part.stated_g) for part in after.parts]
    [('Nose', 20.0), ('off nose', -3.0)]
    """
    whole = _there(build, host)
    if grams <= 0:
        words = "is {}; say how much came off, above {}"
        raise BuildFaultError([Fault("grams", words, (Amount(grams, "g"), Amount(0, "g")))])
    at = next(i for i, part in enumerate(build.parts) if part.id == host)
    weighs = float(solve(build).mass[at])
    if grams >= weighs:
        facts = (Amount(grams, "g"), whole.name, Amount(weighs, "g"))
        words = "{} is not less than {} weighs, {}; retire it"
        raise BuildFaultError([Fault("grams", words, facts)])
    off = Part(
        id=id,
        name=f"off {whole.name.lower()}"[: limits.NAME_LENGTH],
        pedigree=Pedigree.GUESS,
        assembly=whole.assembly,
        stated_g=-grams,
        station=whole.station,
        option=whole.option,
        host=whole.host or whole.id,
        added_at=act.at,
    )
    build = replace(build, parts=(*build.parts, off))
    return _carried_along(_noted(build, act, DiaryKind.TRIM, (host, id)), host, id)


@dataclass(frozen=True, slots=True)
class Pocket:
    """A pocket in a part cut from a sheet: its sides [mm], how deep it is [mm] (None: through the
    sheet), where its middle sits (None: where the part's does), and the part that goes into it."""

    length_mm: float
    width_mm: float
    depth_mm: float | None = None
    at: Station | None = None
    holds: str | None = None


def pocketed(build: Build, act: Act, host: str, id: str, pocket: Pocket) -> Build:
    """A pocket cut into a part: ``length width depth/thickness`` of its sheet's area is gone, and
    what goes into it sits there.

    Raises BuildFaultError where there is no such part, it is cut from no sheet, or the pocket is
    deeper than the sheet or larger than the part.

    >>> from datetime import UTC
    >>> from oaken_scale.core.model.lot import Lot, LotUnit, Use
    >>> sheet = Lot("a", "Board", LotUnit.DM2, 4.6, 0.4, thickness_mm=5.0)
    >>> side = Part("s", "Side", Pedigree.CALCULATED, uses=(Use("a", 4.8),))
    >>> act = Act("a1", datetime(2026, 3, 7, tzinfo=UTC), "a pocket for the receiver")
    >>> build = Build("b", "B", lots=(sheet,), parts=(side,))
    >>> after = pocketed(build, act, "s", "hole", Pocket(40.0, 25.0, 2.5))
    >>> after.parts[1].name, after.parts[1].uses[0].amount  # half through: 0.1 dm2 / 2
    ('pocket in side', -0.05)
    """
    whole = _there(build, host)
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
        id=id,
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
        _there(build, pocket.holds, "holds")
        parts = tuple(
            replace(part, station=hole.station) if part.id == pocket.holds else part
            for part in parts
        )
    build = replace(build, parts=parts)
    return _carried_along(_noted(build, act, DiaryKind.TRIM, (host, id)), host, id)


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


def replaced(build: Build, act: Act, old: str, new: Part) -> Build:
    """One part in another's place: where it sat, in the loadouts that carried it.

    Raises BuildFaultError where there is no such part.

    >>> from datetime import UTC
    >>> act = Act("a", datetime(2026, 3, 7, tzinfo=UTC), "burnt")
    >>> motor = Part("m", "Motor", Pedigree.LISTING, stated_g=50.0)
    >>> other = Part("n", "Motor, larger", Pedigree.LISTING, stated_g=60.0)
    >>> after = replaced(Build("b", "B", parts=(motor,)), act, "m", other)
    >>> [(part.id, part.retired) for part in after.parts]
    [('m', True), ('n', False)]
    """
    whole = _there(build, old)
    fresh = replace(
        new,
        replaces=old,
        assembly=whole.assembly,
        added_at=act.at,
        option=whole.option,
        group=new.group or whole.group,
        slide=new.slide or whole.slide,
        station=new.station or whole.station,
    )
    at = next(i for i, part in enumerate(build.parts) if part.id == old)
    parts = (*build.parts[: at + 1], fresh, *build.parts[at + 1 :])
    build = _carried_along(replace(build, parts=parts), old, fresh.id)
    return _noted(_off(build, old, act.at), act, DiaryKind.REPLACE, (old, fresh.id))


def retired(build: Build, act: Act, id: str) -> Build:
    """A part taken off for good; its readings speak on. Raises BuildFaultError for no such part.

    >>> from datetime import UTC
    >>> act = Act("a", datetime(2026, 3, 7, tzinfo=UTC), "broken")
    >>> fin = Part("fin", "Fin", Pedigree.GUESS, stated_g=4.0)
    >>> after = retired(Build("b", "B", parts=(fin,)), act, "fin")
    >>> after.parts[0].retired, after.diary[0].kind.value
    (True, 'retire')
    """
    _there(build, id)
    return _noted(_off(build, id, act.at), act, DiaryKind.RETIRE, (id,))


def moved_away(build: Build, act: Act, id: str) -> Build:
    """A part taken off this build for another one; its readings speak on, and what was before that
    stays as it was. Raises BuildFaultError for no such part.

    >>> from datetime import UTC
    >>> act = Act("a", datetime(2026, 3, 7, tzinfo=UTC), "lent")
    >>> motor = Part("m", "Motor", Pedigree.LISTING, stated_g=50.0)
    >>> after = moved_away(Build("b", "B", parts=(motor,)), act, "m")
    >>> after.parts[0].retired, after.diary[0].kind.value
    (True, 'move')
    """
    _there(build, id)
    return _noted(_off(build, id, act.at), act, DiaryKind.MOVE, (id,))


def moved(build: Build, there: Build, act: Act, id: str, new_id: str) -> tuple[Build, Build]:
    """A part taken off this build and put on another, which keeps what it was found to weigh.

    Raises BuildFaultError where there is no such part.

    >>> from datetime import UTC
    >>> act = Act("a", datetime(2026, 3, 7, tzinfo=UTC), "to the next")
    >>> motor = Part("m", "Motor", Pedigree.LISTING, stated_g=50.0)
    >>> here, there = moved(Build("b", "B", parts=(motor,)), Build("c", "C"), act, "m", "motor")
    >>> here.parts[0].retired, [part.id for part in there.parts]
    (True, ['motor'])
    """
    arriving = _arriving(build, _there(build, id), act, new_id)
    here = moved_away(build, act, id)
    came = replace(act, words=f"{arriving.name} came from {build.name}")
    there = replace(there, parts=(*there.parts, arriving))
    return here, _noted(there, came, DiaryKind.MOVE, (new_id,))


def moved_together(
    build: Build, there: Build, act: Act, ids: Mapping[str, str]
) -> tuple[Build, Build]:
    """Parts taken off this build and put on another as one act, each under its new id there.

    >>> from datetime import UTC
    >>> act = Act("a", datetime(2026, 3, 7, tzinfo=UTC), "to the next")
    >>> fin = Part("fin", "Fin", Pedigree.GUESS, stated_g=4.0)
    >>> build, other = Build("b", "B", parts=(fin,)), Build("c", "C")
    >>> here, there = moved_together(build, other, act, {"fin": "f"})
    >>> here.parts[0].retired, there.parts[0].id
    (True, 'f')
    """
    arriving = tuple(_arriving(build, _there(build, id), act, new) for id, new in ids.items())
    here = build
    for id in ids:
        here = _off(here, id, act.at)
    came = replace(act, words=f"{len(ids)} parts came from {build.name}")
    there = replace(there, parts=(*there.parts, *arriving))
    return (
        _noted(here, act, DiaryKind.MOVE, tuple(ids)),
        _noted(there, came, DiaryKind.MOVE, tuple(ids.values())),
    )


def copied_together(build: Build, there: Build, act: Act, ids: Mapping[str, str]) -> Build:
    """The other build with the like of some parts of this one, as they were found to weigh; what
    lies in the drawer is one thing, and is not copied with it.

    >>> from datetime import UTC
    >>> act = Act("a", datetime(2026, 3, 7, tzinfo=UTC), "the same again")
    >>> fin = Part("fin", "Fin", Pedigree.GUESS, stated_g=4.0)
    >>> build, other = Build("b", "B", parts=(fin,)), Build("c", "C")
    >>> there = copied_together(build, other, act, {"fin": "fin-2"})
    >>> [(part.id, part.stated_g) for part in there.parts]
    [('fin-2', 4.0)]
    """
    arriving = tuple(
        replace(_arriving(build, _there(build, id), act, new), thing=None)
        for id, new in ids.items()
    )
    there = replace(there, parts=(*there.parts, *arriving))
    return _noted(there, act, DiaryKind.MOVE, tuple(ids.values()))


def _arriving(build: Build, part: Part, act: Act, new_id: str) -> Part:
    """A part as it comes to another build: what it was found to weigh is its figure there."""
    after = solve(build)
    at = after.parts.start + next(k for k, each in enumerate(build.parts) if each.id == part.id)
    arriving = Part(
        id=new_id,
        name=part.name,
        pedigree=Pedigree.LISTING,
        assembly=part.assembly,
        pieces=part.pieces,
        thing=part.thing,
        group=part.group,
        price=part.price,
        added_at=act.at,
    )
    if part.thing is None:
        weighs, doubt = round(float(after.mean[at]), 2), round(float(after.sd[at]), 3)
        return replace(arriving, stated_g=max(weighs, 0.0), doubt_g=doubt)
    # The drawer tells the other build what was found here.
    return replace(arriving, stated_g=part.stated_g, doubt_g=part.doubt_g)


def as_of(build: Build, day: datetime) -> Build:
    """The plane as it was at a moment: its parts of then, and the readings up to then.

    A reading that was set aside since stays aside: a slip was one then as well. A part whose
    adding nobody dated was there from the start.

    >>> from datetime import UTC, timedelta
    >>> noon = datetime(2026, 3, 7, 12, tzinfo=UTC)
    >>> fin = Part("fin", "Fin", Pedigree.GUESS, stated_g=4.0, added_at=noon)
    >>> build = Build("b", "B", parts=(fin,))
    >>> len(as_of(build, noon).parts), len(as_of(build, noon - timedelta(hours=1)).parts)
    (1, 0)
    """
    weighings = tuple(each for each in build.weighings if each.at <= day)
    spoken_of = {load.part for each in weighings for load in each.pan.loads}
    parts = tuple(
        replace(part, retired=False, retired_at=None)
        if part.retired and part.retired_at is not None and part.retired_at > day
        else part
        for part in build.parts
        if part.added_at is None or part.added_at <= day or part.id in spoken_of
    )
    kept = {part.id for part in parts}
    return replace(
        build,
        parts=parts,
        weighings=weighings,
        loadouts=tuple(
            replace(each, carries=tuple(id for id in each.carries if id in kept))
            for each in build.loadouts
        ),
        joints=tuple(
            replace(each, parts=tuple(id for id in each.parts if id in kept))
            for each in build.joints
            if each.spread_at <= day
        ),
        diary=tuple(
            replace(each, parts=tuple(id for id in each.parts if id in kept))
            for each in build.diary
            if each.at <= day
        ),
        checks=tuple(
            replace(each, stood=tuple(one for one in each.stood if one.part in kept))
            for each in build.checks
            if each.at <= day
        ),
        finished_at=build.finished_at if build.finished_at and build.finished_at <= day else None,
    )


def _there(build: Build, id: str, field: str = "part") -> Part:
    found = next((part for part in build.parts if part.id == id and not part.retired), None)
    if found is None:
        names = ", ".join(part.id for part in build.parts if not part.retired)
        words = f'no part "{id}" on this plane; it has {names[:200] or "none"}'
        raise BuildFaultError([Fault(field, words)])
    return found


def _off(build: Build, id: str, at: datetime) -> Build:
    """A part off the plane, with all that was done to it."""
    return replace(
        build,
        parts=tuple(
            replace(part, retired=True, retired_at=at)
            if not part.retired and id in (part.id, part.host)
            else part
            for part in build.parts
        ),
    )


def _carried_along(build: Build, with_id: str, id: str) -> Build:
    """Every loadout that carries one thing carries another as well."""
    return replace(
        build,
        loadouts=tuple(
            replace(each, carries=(*each.carries, id)) if with_id in each.carries else each
            for each in build.loadouts
        ),
    )


def _noted(build: Build, act: Act, kind: DiaryKind, parts: tuple[str, ...]) -> Build:
    entry = DiaryEntry(act.id, act.at, kind, act.words, parts)
    return replace(build, diary=(*build.diary, entry))
