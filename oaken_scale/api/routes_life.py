"""The life of parts and of a build: repaired, trimmed, replaced, retired, moved, finished."""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from datetime import UTC, datetime
from typing import Annotated, Final

from fastapi import APIRouter, Query, Response
from pydantic import AwareDatetime, Field, TypeAdapter

from oaken_scale.api.documents import ASSESSMENT, NewPart, Opened, new_parts
from oaken_scale.api.problems import documented
from oaken_scale.api.routes_builds import BuildId, Named, Revision, Shop, number, sharing, told
from oaken_scale.core.assess import Assessment, assess
from oaken_scale.core.changes import life
from oaken_scale.core.changes.act import Act
from oaken_scale.core.changes.as_of import as_of as the_plane_as_of
from oaken_scale.core.changes.finish import with_finished
from oaken_scale.core.changes.moved import copied, moved
from oaken_scale.core.changes.pocket import Pocket, pocketed
from oaken_scale.core.flight.stages import reference_of
from oaken_scale.core.model import declared, limits
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Station
from oaken_scale.formats import fields
from oaken_scale.formats.documents import StationDoc
from oaken_scale.workshop import Held, Workshop

router = APIRouter(prefix="/api/v1/builds/{build_id}", tags=["life"])

_STATION: Final = TypeAdapter(Station)


class Done(fields.Edge):
    """What was done, in the builder's words, and when; now, unless it says."""

    words: declared.Words = ""
    at: declared.Moment | None = None

    def act(self) -> Act:
        """As the core has it."""
        return Act(self.at or datetime.now(UTC), self.words)


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

    def pocket(self) -> Pocket:
        """As the core has it."""
        at = None if self.station is None else _STATION.validate_python(self.station.model_dump())
        return Pocket(self.length_mm, self.width_mm, self.depth_mm, at, self.holds)


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


@router.post("/parts/{part_id}/repair", response_model=Opened, responses=documented(404, 412))
def repair(
    build_id: BuildId, part_id: Named, done: Repair, if_match: Revision, shop: Shop
) -> Response:
    """Repair a part: what was added stays on it, and goes on the pan with it."""
    act = done.act()

    def repaired(build: Build) -> Build:
        return life.repaired(build, act, part_id, new_parts(build, done.added))

    return told(shop.change(build_id, number(if_match), repaired))


@router.post("/parts/{part_id}/trim", response_model=Opened, responses=documented(404, 412))
def trim(build_id: BuildId, part_id: Named, done: Trim, if_match: Revision, shop: Shop) -> Response:
    """Take something off a part; its readings of before speak of it as it was."""
    act = done.act()

    def trimmed(build: Build) -> Build:
        return life.trimmed(build, act, part_id, done.grams)

    return told(shop.change(build_id, number(if_match), trimmed))


@router.post("/parts/{part_id}/pocket", response_model=Opened, responses=documented(404, 412))
def cut_pocket(
    build_id: BuildId, part_id: Named, done: NewPocket, if_match: Revision, shop: Shop
) -> Response:
    """Cut a pocket into a part; its readings of before speak of it as it was."""
    act, pocket = done.act(), done.pocket()

    def cut(build: Build) -> Build:
        return pocketed(build, act, part_id, pocket)

    return told(shop.change(build_id, number(if_match), cut))


@router.post("/parts/{part_id}/replace", response_model=Opened, responses=documented(404, 412))
def replace_part(
    build_id: BuildId, part_id: Named, done: Replacement, if_match: Revision, shop: Shop
) -> Response:
    """Put another part in a part's place; the old one retires and its readings speak on."""
    act = done.act()

    def changed(build: Build) -> Build:
        return life.replaced(build, act, part_id, done.part.value(build))

    return told(shop.change(build_id, number(if_match), changed), after=sharing(shop, build_id))


@router.post("/parts/{part_id}/retire", response_model=Opened, responses=documented(404, 412))
def retire(
    build_id: BuildId, part_id: Named, done: Done, if_match: Revision, shop: Shop
) -> Response:
    """Take a part off for good, and what was done to it; its readings speak on."""
    act = done.act()

    def retired(build: Build) -> Build:
        return life.retired(build, act, part_id)

    return told(shop.change(build_id, number(if_match), retired))


@router.post("/parts/{part_id}/move", response_model=Opened, responses=documented(404, 412))
def move(build_id: BuildId, part_id: Named, done: Move, if_match: Revision, shop: Shop) -> Response:
    """Take a part to another build, which keeps what it was found to weigh; both, or neither."""
    held = _moved(shop, build_id, number(if_match), done, (part_id,))
    return told(held, after=sharing(shop, build_id))


@router.post("/parts-together", response_model=Opened, responses=documented(404, 412))
def move_together(build_id: BuildId, done: Together, if_match: Revision, shop: Shop) -> Response:
    """Take parts to another build together, or the like of them, as they were found to weigh."""
    held = _moved(shop, build_id, number(if_match), done, done.parts, done.copy_them)
    return told(held, after=None if done.copy_them else sharing(shop, build_id))


def _moved(
    shop: Workshop,
    build_id: str,
    revision: int,
    done: Move,
    parts: Sequence[str],
    is_copied: bool = False,
) -> Held:
    """Both builds of a move in one act, of a copy too: one sent again is not made twice."""
    act = done.act()

    def arrived(builds: Mapping[str, Build]) -> Mapping[str, Build]:
        here, other = builds[build_id], builds.get(done.to, builds[build_id])
        if is_copied:
            return {build_id: here, done.to: copied(here, other, act, parts)}
        gone, there = moved(here, other, act, parts)
        return {build_id: gone, done.to: there}

    return shop.change_together(build_id, revision, lambda: (done.to,), arrived)


@router.put("/finished", response_model=Opened, responses=documented(404, 412))
def finish(build_id: BuildId, finishing: Finishing, if_match: Revision, shop: Shop) -> Response:
    """Say that a build is finished, or is not; the builds that are not learn from those that are.

    What finished builds left off their lists is what the next one is expected to leave off.
    """
    at = datetime.now(UTC) if finishing.finished else None

    def all_of_them() -> list[str]:
        return [row.id for row in shop.rows()]

    def finished(builds: Mapping[str, Build]) -> Mapping[str, Build]:
        return with_finished(builds, build_id, at)

    return told(shop.change_together(build_id, number(if_match), all_of_them, finished))


@router.put("/reference-build", response_model=Opened, responses=documented(404, 412))
def measure_by(build_id: BuildId, measure: Measure, if_match: Revision, shop: Shop) -> Response:
    """Measure a build by an earlier one: its assemblies as they weigh now."""

    def measured(build: Build) -> Build:
        other = None if measure.build is None else shop.held(measure.build)
        by = None if other is None else reference_of(other.assessment.so_far, other.build.name)
        return replace(build, reference_build=by)

    return told(shop.change(build_id, number(if_match), measured))


When = Annotated[AwareDatetime, fields.Checked(declared.IN_OUR_TIME), Query()]


@router.get("/as-of", response_model=Assessment, responses=documented(404))
def as_of(build_id: BuildId, at: When, shop: Shop) -> Response:
    """The plane as it was at a moment, from the readings up to then."""
    assessment = assess(the_plane_as_of(shop.held(build_id).build, at))
    return Response(ASSESSMENT.dump_json(assessment), media_type="application/json")
