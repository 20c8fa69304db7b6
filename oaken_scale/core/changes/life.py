"""The life of parts: repaired, trimmed, replaced, retired.

Nothing that was weighed is rewritten. A repair adds parts that stay on their host, and a trim adds
one that weighs less than nothing, so that readings taken before speak of the part as it was, and
readings taken after speak of it as it is.
"""

from collections.abc import Iterable
from dataclasses import replace

from oaken_scale.core.changes.act import Act, carried_along, noted, off, there
from oaken_scale.core.ledger.mixture import solve
from oaken_scale.core.model import limits
from oaken_scale.core.model.amount import Amount
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.diary import DiaryKind
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.named import free_id
from oaken_scale.core.model.part import Part, Pedigree


def repaired(build: Build, act: Act, host: str, added: Iterable[Part]) -> Build:
    """A part repaired: glue, tape and patches are ``added`` and stay on it.

    What is added without a station sits where its host does. Raises BuildFaultError where there
    is no such part, or nothing is added.

    >>> from datetime import UTC, datetime
    >>> act = Act(datetime(2026, 3, 7, tzinfo=UTC), "glued")
    >>> nose = Part("nose", "Nose", Pedigree.GUESS, stated_g=20.0)
    >>> glue = Part("glue", "Glue", Pedigree.JOINT, stated_g=1.5)
    >>> after = repaired(Build("b", "B", parts=(nose,)), act, "nose", (glue,))
    >>> [(part.id, part.host) for part in after.parts], after.diary[0].parts
    ([('nose', None), ('glue', 'nose')], ('nose', 'glue'))
    """
    whole = there(build, host)
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
    parts = (host, *(part.id for part in fresh))
    return noted(build, act, DiaryKind.REPAIR, parts, f"{whole.name} repaired")


def trimmed(build: Build, act: Act, host: str, grams: float) -> Build:
    """About ``grams`` sanded, cut or pulled off a part.

    Raises BuildFaultError where there is no such part, or it does not weigh as much.

    >>> from datetime import UTC, datetime
    >>> act = Act(datetime(2026, 3, 7, tzinfo=UTC), "sanded")
    >>> nose = Part("nose", "Nose", Pedigree.GUESS, stated_g=20.0)
    >>> after = trimmed(Build("b", "B", parts=(nose,)), act, "nose", 3.0)
    >>> [(part.name, part.stated_g) for part in after.parts]
    [('Nose', 20.0), ('off nose', -3.0)]
    """
    whole = there(build, host)
    if grams <= 0:
        words = "is {}; say how much came off, above {}"
        raise BuildFaultError([Fault("grams", words, (Amount(grams, "g"), Amount(0, "g")))])
    at = next(i for i, part in enumerate(build.parts) if part.id == host)
    weighs = float(solve(build).mass[at])
    if grams >= weighs:
        facts = (Amount(grams, "g"), whole.name, Amount(weighs, "g"))
        words = "{} is not less than {} weighs, {}; retire it"
        raise BuildFaultError([Fault("grams", words, facts)])
    gone = Part(
        id=free_id(f"off {whole.name}", (part.id for part in build.parts)),
        name=f"off {whole.name.lower()}"[: limits.NAME_LENGTH],
        pedigree=Pedigree.GUESS,
        assembly=whole.assembly,
        stated_g=-grams,
        station=whole.station,
        option=whole.option,
        host=whole.host or whole.id,
        added_at=act.at,
    )
    build = replace(build, parts=(*build.parts, gone))
    build = noted(build, act, DiaryKind.TRIM, (host, gone.id), f"{whole.name} trimmed")
    return carried_along(build, host, gone.id)


def replaced(build: Build, act: Act, old: str, new: Part) -> Build:
    """One part in another's place: where it sat, in the loadouts that carried it.

    Raises BuildFaultError where there is no such part.

    >>> from datetime import UTC, datetime
    >>> act = Act(datetime(2026, 3, 7, tzinfo=UTC), "burnt")
    >>> motor = Part("m", "Motor", Pedigree.LISTING, stated_g=50.0)
    >>> other = Part("n", "Motor, larger", Pedigree.LISTING, stated_g=60.0)
    >>> after = replaced(Build("b", "B", parts=(motor,)), act, "m", other)
    >>> [(part.id, part.retired) for part in after.parts]
    [('m', True), ('n', False)]
    """
    whole = there(build, old)
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
    listed = (*build.parts[: at + 1], fresh, *build.parts[at + 1 :])
    build = carried_along(replace(build, parts=listed), old, fresh.id)
    build, parts = off(build, old, act.at), (old, fresh.id)
    return noted(build, act, DiaryKind.REPLACE, parts, f"{whole.name} replaced")


def retired(build: Build, act: Act, id: str) -> Build:
    """A part taken off for good; its readings speak on. Raises BuildFaultError for no such part.

    >>> from datetime import UTC, datetime
    >>> act = Act(datetime(2026, 3, 7, tzinfo=UTC), "broken")
    >>> fin = Part("fin", "Fin", Pedigree.GUESS, stated_g=4.0)
    >>> after = retired(Build("b", "B", parts=(fin,)), act, "fin")
    >>> after.parts[0].retired, after.diary[0].kind.value
    (True, 'retire')
    """
    name = there(build, id).name
    return noted(off(build, id, act.at), act, DiaryKind.RETIRE, (id,), f"{name} taken off")
