"""The life of parts and of a build: repaired, trimmed, replaced, retired, moved, finished."""

from collections.abc import Callable
from dataclasses import replace
from datetime import UTC, datetime
from typing import Annotated, Final

from fastapi import APIRouter, Query, Response
from pydantic import AwareDatetime, Field, TypeAdapter

from oaken_scale.api.documents import ASSESSMENT, NewPart, Opened
from oaken_scale.api.problems import documented
from oaken_scale.api.routes_builds import BuildId, Named, Revision, Shop, number, sharing, told
from oaken_scale.core.assess import Assessment, assess
from oaken_scale.core.changes import life
from oaken_scale.core.changes.finish import finished, learned_of, with_lessons
from oaken_scale.core.flight.stages import reference_of
from oaken_scale.core.model import declared, limits
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.named import free_id
from oaken_scale.core.model.part import Station
from oaken_scale.formats import fields
from oaken_scale.formats.documents import StationDoc

router = APIRouter(prefix="/api/v1/builds/{build_id}", tags=["life"])

_STATION: Final = TypeAdapter(Station)


class Done(fields.Edge):
    """What was done, in the builder's words, and when; now, unless it says."""

    words: declared.Words = ""
    at: declared.Moment | None = None

    def act(self, build: Build, usual: str) -> life.Act:
        """The entry that it gets in the diary."""
        words = self.words.strip() or usual
        id = free_id(usual, (each.id for each in build.diary))
        return life.Act(id, self.at or datetime.now(UTC), words)


class Repair(Done):
    """A repair: the glue, tape and patches that it added."""

    added: Annotated[tuple[NewPart, ...], Field(max_length=20)]


class Trim(Done):
    """Sanded, cut or pulled off: about how much."""

    grams: Annotated[float, fields.number(gt=0, le=limits.PART_MASS_G)]


_Side = Annotated[float, fields.number(gt=0, le=limits.STATION_MM)]


class NewPocket(Done):
    """A pocket: its sides, its depth (null: through the sheet), where its middle sits (null: where
    the part does), and the part that goes into it [mm]."""

    length_mm: _Side
    width_mm: _Side
    depth_mm: _Side | None = None
    station: StationDoc | None = None
    holds: declared.Id | None = None

    def pocket(self) -> life.Pocket:
        """As the core has it."""
        at = None if self.station is None else _STATION.validate_python(self.station.model_dump())
        return life.Pocket(self.length_mm, self.width_mm, self.depth_mm, at, self.holds)


class Replacement(Done):
    """The part that takes another's place; without a station it sits where that sat."""

    part: NewPart


class Move(Done):
    """The build that a part goes to."""

    to: declared.Id


class Together(Move):
    """Parts that go to another build together; with ``copy`` the like of them goes there."""

    parts: Annotated[tuple[declared.Id, ...], Field(min_length=1, max_length=200)]
    copy_them: bool = False


class Finishing(fields.Edge):
    """Whether the build is finished: all that will be on it is on it."""

    finished: bool


class Measure(fields.Edge):
    """The earlier build to be measured by; null for none."""

    build: declared.Id | None


def _name(build: Build, part_id: str) -> str:
    return next((part.name for part in build.parts if part.id == part_id), part_id)


def _free(build: Build, name: str) -> str:
    return free_id(name, (part.id for part in build.parts))


@router.post("/parts/{part_id}/repair", response_model=Opened, responses=documented(404, 412))
def repair(
    build_id: BuildId, part_id: Named, done: Repair, if_match: Revision, shop: Shop
) -> Response:
    """Repair a part: what was added stays on it, and goes on the pan with it."""

    def repaired(build: Build) -> Build:
        added, grown = [], build
        for each in done.added:
            part = each.value(grown)
            added.append(part)
            grown = replace(grown, parts=(*grown.parts, part))
        act = done.act(build, f"{_name(build, part_id)} repaired")
        return life.repaired(build, act, part_id, added)

    return told(shop.change(build_id, number(if_match), repaired))


@router.post("/parts/{part_id}/trim", response_model=Opened, responses=documented(404, 412))
def trim(build_id: BuildId, part_id: Named, done: Trim, if_match: Revision, shop: Shop) -> Response:
    """Take something off a part; its readings of before speak of it as it was."""

    def trimmed(build: Build) -> Build:
        name = _name(build, part_id)
        act = done.act(build, f"{name} trimmed")
        return life.trimmed(build, act, part_id, _free(build, f"off {name}"), done.grams)

    return told(shop.change(build_id, number(if_match), trimmed))


@router.post("/parts/{part_id}/pocket", response_model=Opened, responses=documented(404, 412))
def cut_pocket(
    build_id: BuildId, part_id: Named, done: NewPocket, if_match: Revision, shop: Shop
) -> Response:
    """Cut a pocket into a part; its readings of before speak of it as it was."""

    def pocketed(build: Build) -> Build:
        name = _name(build, part_id)
        act = done.act(build, f"a pocket cut in {name}")
        return life.pocketed(build, act, part_id, _free(build, f"pocket in {name}"), done.pocket())

    return told(shop.change(build_id, number(if_match), pocketed))


@router.post("/parts/{part_id}/replace", response_model=Opened, responses=documented(404, 412))
def replace_part(
    build_id: BuildId, part_id: Named, done: Replacement, if_match: Revision, shop: Shop
) -> Response:
    """Put another part in a part's place; the old one retires and its readings speak on."""

    def changed(build: Build) -> Build:
        act = done.act(build, f"{_name(build, part_id)} replaced")
        return life.replaced(build, act, part_id, done.part.value(build))

    return told(shop.change(build_id, number(if_match), changed), after=sharing(shop, build_id))


@router.post("/parts/{part_id}/retire", response_model=Opened, responses=documented(404, 412))
def retire(
    build_id: BuildId, part_id: Named, done: Done, if_match: Revision, shop: Shop
) -> Response:
    """Take a part off for good, and what was done to it; its readings speak on."""

    def retired(build: Build) -> Build:
        act = done.act(build, f"{_name(build, part_id)} taken off")
        return life.retired(build, act, part_id)

    return told(shop.change(build_id, number(if_match), retired))


@router.post("/parts/{part_id}/move", response_model=Opened, responses=documented(404, 412))
def move(build_id: BuildId, part_id: Named, done: Move, if_match: Revision, shop: Shop) -> Response:
    """Take a part to another build, which keeps what it was found to weigh; both, or neither."""
    here, there = shop.held(build_id).build, shop.held(done.to).build
    if done.to == build_id:
        raise BuildFaultError([Fault("to", "it is on this build; name another one")])
    act = done.act(here, f"{_name(here, part_id)} moved to {there.name}")
    new_id = _free(there, _name(here, part_id))

    def leaves(build: Build) -> Build:
        return life.moved(build, there, act, part_id, new_id)[0]

    def arrives(build: Build) -> Build:
        return life.moved(here, build, act, part_id, new_id)[1]

    held = shop.change(build_id, number(if_match), leaves, {done.to: arrives})
    return told(held, after=sharing(shop, build_id))


@router.post("/parts-together", response_model=Opened, responses=documented(404, 412))
def move_together(build_id: BuildId, done: Together, if_match: Revision, shop: Shop) -> Response:
    """Take parts to another build together, or the like of them, as they were found to weigh."""
    here, there = shop.held(build_id).build, shop.held(done.to).build
    if done.to == build_id:
        raise BuildFaultError([Fault("to", "they are on this build; name another one")])
    taken = [part.id for part in there.parts]
    ids = {}
    for id in dict.fromkeys(done.parts):
        ids[id] = free_id(_name(here, id), taken)
        taken.append(ids[id])
    if done.copy_them:
        act = done.act(there, f"{len(ids)} parts copied from {here.name}")
        # Both count a revision, so that a copy sent again is not made twice.
        there_too = {done.to: lambda build: life.copied_together(here, build, act, ids)}
        return told(shop.change(build_id, number(if_match), lambda build: build, there_too))
    act = done.act(here, f"{len(ids)} parts moved to {there.name}")

    def leaves(build: Build) -> Build:
        return life.moved_together(build, there, act, ids)[0]

    def arrives(build: Build) -> Build:
        return life.moved_together(here, build, act, ids)[1]

    held = shop.change(build_id, number(if_match), leaves, {done.to: arrives})
    return told(held, after=sharing(shop, build_id))


@router.put("/finished", response_model=Opened, responses=documented(404, 412))
def finish(build_id: BuildId, finishing: Finishing, if_match: Revision, shop: Shop) -> Response:
    """Say that a build is finished, or is not; the builds that are not learn from those that are.

    What finished builds left off their lists is what the next one is expected to leave off.
    """
    at = datetime.now(UTC) if finishing.finished else None
    all_builds = {build.id: build for build in shop.files()}
    if build_id in all_builds:
        all_builds[build_id] = replace(all_builds[build_id], finished_at=at)
    learned = learned_of(each for each in all_builds.values() if each.purpose != "practice")

    def learns(build: Build) -> Build:
        return with_lessons(build, learned)

    others: dict[str, Callable[[Build], Build]] = {
        id: learns
        for id, build in all_builds.items()
        if id != build_id and build.finished_at is None and learns(build) != build
    }
    return told(
        shop.change(build_id, number(if_match), lambda build: finished(build, at, learned), others)
    )


@router.put("/reference-build", response_model=Opened, responses=documented(404, 412))
def measure_by(build_id: BuildId, measure: Measure, if_match: Revision, shop: Shop) -> Response:
    """Measure a build by an earlier one: its assemblies as they weigh now."""
    reference = None
    if measure.build is not None:
        other = shop.held(measure.build)
        reference = reference_of(other.assessment.so_far, other.build.name)
    return told(
        shop.change(
            build_id, number(if_match), lambda build: replace(build, reference_build=reference)
        )
    )


When = Annotated[AwareDatetime, fields.Checked(declared.IN_OUR_TIME), Query()]


@router.get("/as-of", response_model=Assessment, responses=documented(404))
def as_of(build_id: BuildId, at: When, shop: Shop) -> Response:
    """The plane as it was at a moment, from the readings up to then."""
    assessment = assess(life.as_of(shop.held(build_id).build, at))
    return Response(ASSESSMENT.dump_json(assessment), media_type="application/json")
