"""Balance: checks by hand, where it belongs, what would fix it, where to put the wing, variants."""

from dataclasses import replace
from datetime import UTC, datetime
from typing import Annotated, Final

from fastapi import APIRouter, Query, Response
from pydantic import Field, TypeAdapter

from oaken_scale.api.documents import ASSESSMENT, BuildPatch, Opened, SettingAside
from oaken_scale.api.problems import ProblemError, documented, no_such
from oaken_scale.api.routes_builds import BuildId, Named, Revision, Shop, number, told
from oaken_scale.core.assess import Assessment, assess
from oaken_scale.core.changes.balance import (
    Elsewhere,
    dragged,
    held_alone,
    held_to_school,
    measured_from,
    with_balance_in,
    with_check,
    with_check_aside,
    with_slide,
)
from oaken_scale.core.changes.drawn_parts import following
from oaken_scale.core.changes.variants import adopted_variant
from oaken_scale.core.model import declared, limits
from oaken_scale.core.model.balancing import BalanceCheck, CheckKind
from oaken_scale.core.model.build import Build, loadout_meant
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.faults.whole import validated
from oaken_scale.core.model.part import Reference, Slide
from oaken_scale.core.model.shift_line import shifts_of_line
from oaken_scale.core.model.target import BalanceUnit
from oaken_scale.core.trim.cg_ranges import SchoolKind
from oaken_scale.core.trim.remedies import Remedies, applied, way_out
from oaken_scale.core.trim.saving import Saved, remedies_told, saved
from oaken_scale.core.trim.shifts import Shifted, shifted, shifted_told
from oaken_scale.core.trim.wing_placement import WingPlace, wing_place, with_wing_at
from oaken_scale.core.variant_comparison import VariantComparison, compared
from oaken_scale.formats import documents, fields
from oaken_scale.workshop.refused import TakenError

router = APIRouter(prefix="/api/v1/builds/{build_id}", tags=["balance"])


class NewCheck(fields.Edge):
    """A check of the balance by hand; the sender gives it its id, so that twice is once."""

    id: declared.Id
    at: declared.Moment | None = None
    kind: CheckKind
    loadout: declared.Id | None = None
    x_mm: declared.Coordinate
    reference: Annotated[
        Reference, Field(description="What x_mm and other_mm are measured from, along the plane")
    ] = Reference.NOSE
    by: declared.Label = ""
    other_mm: declared.Coordinate | None = None
    reading_g: Annotated[float, fields.number(ge=0, le=20_000)] | None = None
    scale: declared.Id | None = None
    z_mm: declared.Coordinate | None = None
    nose_down_deg: Annotated[float, fields.number(ge=-80, le=80)] | None = None
    doubt: Annotated[float, fields.number(gt=0, le=100)] | None = None
    note: declared.Words = ""
    held_alone: Annotated[
        declared.Label, Field(description="What was held, where it was not the whole plane")
    ] = ""
    parts: Annotated[
        tuple[declared.Id, ...], Field(max_length=limits.PARTS, description="What that is made of")
    ] = ()
    assemblies: Annotated[
        tuple[declared.Label, ...],
        Field(max_length=50, description="... or the assemblies that it is, with what is in them"),
    ] = ()

    def value(self, build: Build) -> BalanceCheck:
        """The check, from the nose, made now unless it says when. Raises BuildFaultError for a part
        of nothing."""
        if bool(self.held_alone.strip()) != bool(self.parts or self.assemblies):
            words = "say what was held and which parts that is, or neither for the whole plane"
            raise BuildFaultError(
                [Fault("parts" if self.held_alone.strip() else "held_alone", words)]
            )
        given = self.model_dump(exclude={"parts", "assemblies", "reference"})
        check = BalanceCheck(**{**given, "at": self.at or datetime.now(UTC)})
        return measured_from(build, check, self.reference)

    def is_known(self, build: Build) -> bool:
        """Whether it was recorded already. Raises TakenError where another has its id."""
        known = next((each for each in build.checks if each.id == self.id), None)
        if known is None:
            return False
        again = replace(
            self.value(build), at=known.at, set_aside=known.set_aside, stood=known.stood
        )
        if again != known:
            raise TakenError(self.id, "check")
        return True


class Moved(fields.Edge):
    """One thing's station as it is dragged: x, y and z [mm], x from the nose."""

    part: declared.Id
    x_mm: declared.Coordinate
    y_mm: declared.Coordinate | None = None
    z_mm: declared.Coordinate | None = None

    def value(self) -> Elsewhere:
        """Where it is dragged to."""
        return Elsewhere(**self.model_dump())


class WhatIf(BuildPatch):
    """A change that is only tried: of the build, and of where things sit."""

    moved: Annotated[tuple[Moved, ...], Field(max_length=200)] = ()

    def tried(self, build: Build) -> Build:
        """The build with the change. Raises BuildFaultError where it cannot be."""
        moved = [each.value() for each in self.moved]
        if self.model_fields_set == {"moved"}:  # what sits elsewhere is as sound as before
            return dragged(build, moved)
        return validated(dragged(self.applied(build), moved))


class Keeping(fields.Edge):
    """Where things were dragged to, to be kept."""

    moved: Annotated[tuple[Moved, ...], Field(min_length=1, max_length=200)]


class Choice(fields.Edge):
    """The school whose range becomes the target."""

    school: SchoolKind


class TargetUnit(fields.Edge):
    """The unit that the balance target is to be in."""

    unit: BalanceUnit


class Wider(fields.Edge):
    """A change of the plan: how far one thing might slide [mm from its station's reference]."""

    part: declared.Id
    slide: documents.SlideDoc


class Asking(fields.Edge):
    """Several moves on one line, and the unit that is meant where it names none."""

    line: Annotated[str, Field(max_length=300)]
    unit: Annotated[str, Field(max_length=8)] = "mm"


class Fixing(fields.Edge):
    """Which remedy to do: 0 for the best, then the others in their order."""

    which: Annotated[int, Field(strict=True, ge=0, le=20)] = 0


class Naming(fields.Edge):
    """What a variant is called."""

    name: declared.Name


REMEDIES: Final = TypeAdapter(Remedies)
SAVED: Final = TypeAdapter(Saved)
SHIFTED: Final = TypeAdapter(Shifted)
PLACE: Final = TypeAdapter(WingPlace)
VARIANTS: Final[TypeAdapter[tuple[VariantComparison, ...]]] = TypeAdapter(
    tuple[VariantComparison, ...]
)

Assembly = Annotated[str, Query(max_length=80)]
HeldBy = Annotated[SchoolKind | None, Query(description="Where a target is fixed to the nose")]
LoadoutId = Annotated[str | None, Query(pattern=declared.ID)]


@router.post("/what-if", response_model=Assessment, responses=documented(404))
def what_if(build_id: BuildId, tried: WhatIf, shop: Shop) -> Response:
    """What would be told about the build with a change, or with things moved; nothing is kept."""
    build = shop.held(build_id).build
    assessment = assess(following(build, tried.tried(build)))
    return Response(ASSESSMENT.dump_json(assessment), media_type="application/json")


@router.post("/moved", response_model=Opened, responses=documented(404, 412))
def move(build_id: BuildId, keeping: Keeping, if_match: Revision, shop: Shop) -> Response:
    """Keep where things were dragged to; a station keeps the reference that it was given in."""
    moved = [each.value() for each in keeping.moved]
    return told(shop.change(build_id, number(if_match), lambda build: dragged(build, moved)))


@router.post("/checks", response_model=Opened, status_code=201, responses=documented(404, 409))
def record_check(build_id: BuildId, new: NewCheck, shop: Shop) -> Response:
    """Record a check of the balance by hand. Sent again under its id, it is recorded once."""
    at, is_known = new.at or datetime.now(UTC), False

    def known(build: Build) -> bool:
        nonlocal is_known
        is_known = new.is_known(build)
        return is_known

    def recorded(build: Build) -> Build:
        check = replace(new.value(build), at=at)
        held = new.parts or held_alone(build, check.loadout, new.assemblies)
        return with_check(build, check, held)

    held = shop.change(build_id, None, recorded, unless=known)
    return told(held, 200 if is_known else 201)


@router.put("/checks/{check_id}/set-aside", response_model=Opened, responses=documented(404))
def set_check_aside(
    build_id: BuildId, check_id: Named, setting: SettingAside, shop: Shop
) -> Response:
    """Set a check aside with a reason, or let it speak again."""

    def changed(build: Build) -> Build:
        if check_id not in [each.id for each in build.checks]:
            raise no_such("check", check_id)
        return with_check_aside(build, check_id, setting.reason)

    return told(shop.change(build_id, None, changed))


@router.post("/balance-target", response_model=Opened, responses=documented(404, 412))
def choose(build_id: BuildId, choice: Choice, if_match: Revision, shop: Shop) -> Response:
    """Take one school's range as the balance target."""

    def chosen(build: Build) -> Build:
        return held_to_school(build, choice.school)

    return told(shop.change(build_id, number(if_match), chosen))


@router.put("/balance-target/unit", response_model=Opened, responses=documented(404, 412))
def measure_in(build_id: BuildId, wanted: TargetUnit, if_match: Revision, shop: Shop) -> Response:
    """The balance target as the same range in another unit."""

    def measured(build: Build) -> Build:
        return with_balance_in(build, wanted.unit)

    return told(shop.change(build_id, number(if_match), measured))


@router.get("/remedies", response_model=Remedies, responses=documented(404))
def what_would_fix_it(build_id: BuildId, shop: Shop) -> Response:
    """The least that brings every loadout into its range: moves first, ballast last.

    The ETag is the revision that it was worked out for: to do it, send that along.
    """
    held = shop.held(build_id)
    found = remedies_told(held.build)
    headers = {"ETag": f'"{held.revision}"'}
    return Response(REMEDIES.dump_json(found), headers=headers, media_type="application/json")


@router.post("/remedies/what-if", response_model=Saved, responses=documented(404))
def what_would_it_save(build_id: BuildId, wider: Wider, shop: Shop) -> Response:
    """What a change of the plan would save: a longer bay, a servo that may sit elsewhere."""
    build = shop.held(build_id).build
    if wider.part not in [part.id for part in build.parts]:
        raise no_such("part", wider.part)
    slide = Slide(wider.slide.low_mm, wider.slide.high_mm)
    told_of = saved(build, validated(with_slide(build, wider.part, slide)))
    return Response(SAVED.dump_json(told_of), media_type="application/json")


@router.post("/remedies/shifted", response_model=Shifted, responses=documented(404))
def what_would_these_save(build_id: BuildId, asking: Asking, shop: Shop) -> Response:
    """What several moves would save together: "pack and servos both 15 mm forward"."""
    build = shop.held(build_id).build
    shifts = shifts_of_line(asking.line, build.parts, asking.unit)
    told_of = shifted_told(build, shifts, validated(shifted(build, shifts)))
    return Response(SHIFTED.dump_json(told_of), media_type="application/json")


@router.post("/remedies/shifted/kept", response_model=Opened, responses=documented(404, 412))
def keep_these(build_id: BuildId, asking: Asking, if_match: Revision, shop: Shop) -> Response:
    """Move them so, all or none."""

    def changed(build: Build) -> Build:
        return shifted(build, shifts_of_line(asking.line, build.parts, asking.unit))

    return told(shop.change(build_id, number(if_match), changed))


@router.post("/remedies/done", response_model=Opened, responses=documented(404, 412))
def do_it(build_id: BuildId, fixing: Fixing, if_match: Revision, shop: Shop) -> Response:
    """Do a remedy for real: stations moved, ballast aboard as parts of their own."""

    def fixed(build: Build) -> Build:
        return applied(build, way_out(remedies_told(build), fixing.which), datetime.now(UTC))

    return told(shop.change(build_id, number(if_match), fixed, is_exact=True))


@router.get("/wing-place", response_model=WingPlace, responses=documented(404))
def where_the_wing_belongs(
    build_id: BuildId,
    shop: Shop,
    assembly: Assembly = "Wing",
    loadout: LoadoutId = None,
    school: HeldBy = None,
) -> Response:
    """Where the wing's leading edge belongs so that a loadout balances in its target's middle."""
    build = shop.held(build_id).build
    place = wing_place(build, loadout_meant(build, loadout), assembly, school)
    return Response(PLACE.dump_json(place), media_type="application/json")


@router.post("/wing-place", response_model=Opened, responses=documented(404, 412))
def put_the_wing_there(
    build_id: BuildId,
    if_match: Revision,
    shop: Shop,
    assembly: Assembly = "Wing",
    loadout: LoadoutId = None,
    school: HeldBy = None,
) -> Response:
    """Move the wing group and its drawing to where it belongs."""

    def placed(build: Build) -> Build:
        place = wing_place(build, loadout_meant(build, loadout), assembly, school)
        return with_wing_at(build, place, assembly)

    return told(shop.change(build_id, number(if_match), placed, is_exact=True))


@router.post("/variants", response_model=Opened, status_code=201, responses=documented(404))
def keep_a_variant(build_id: BuildId, naming: Naming, shop: Shop) -> Response:
    """Keep a copy of the build beside it, to try a change on: its readings come along."""
    build = shop.held(build_id).build
    origin = build.variant_of or build_id
    return told(shop.add(replace(build, name=naming.name, variant_of=origin)), 201)


@router.get("/variants", response_model=tuple[VariantComparison, ...], responses=documented(404))
def side_by_side(build_id: BuildId, shop: Shop) -> Response:
    """The build and its variants: the four answers of each, and what is changed."""
    origin = shop.held(build_id).build.variant_of or build_id
    rows = (row for row in shop.rows() if not row.put_away and origin in (row.id, row.variant_of))
    family = [shop.held(row.id) for row in rows]
    family.sort(key=lambda held: held.build.id != origin)
    told_of = tuple(
        compared(family[0].build, held.build, held.assessment, family[0].assessment)
        for held in family
    )
    return Response(VARIANTS.dump_json(told_of), media_type="application/json")


@router.post(
    "/variants/{variant_id}/adopted", response_model=Opened, responses=documented(404, 409, 412)
)
def adopt(build_id: BuildId, variant_id: Named, if_match: Revision, shop: Shop) -> Response:
    """Take a variant's plan over: its parts, drawing and targets; the build keeps its own log.

    Readings that only the variant has come along; parts that it has no more retire. The variant is
    put away, not deleted.
    """
    variant = shop.held(variant_id).build
    if variant.variant_of != build_id:
        words = f"{variant.name} is no variant of this build"
        raise ProblemError(409, "Not a variant of it", words, "variant_id")
    at = datetime.now(UTC)

    def taken_over(build: Build) -> Build:
        return adopted_variant(build, variant, at)

    held = shop.change(build_id, number(if_match), taken_over, away=variant_id, is_exact=True)
    return told(held)
