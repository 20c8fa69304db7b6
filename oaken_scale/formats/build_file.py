"""A build as a file: versioned, human-readable JSON with a published JSON Schema.

The models here are the edge: they hold the shape of every field and the range of every single
number. What only the whole shows is :mod:`oaken_scale.core.model.faults`' affair.
"""

import json
from collections.abc import Iterable
from dataclasses import replace
from typing import Annotated, Any, Final, Literal, Self

from pydantic import Field, TypeAdapter
from pydantic import ValidationError as PydanticValidationError

from oaken_scale.core.model import balancing, limits, lot
from oaken_scale.core.model import build as core
from oaken_scale.core.model import diary as happening
from oaken_scale.core.model.faults import BuildFaultError, Fault, check
from oaken_scale.formats.fields import (
    PORT,
    Amount,
    Baud,
    Coordinate,
    Count,
    Doubt,
    Edge,
    Id,
    Label,
    MassOrLess,
    Moment,
    Name,
    Reading,
    SampleAmount,
    Words,
    number,
)
from oaken_scale.formats.power_file import PowerDoc
from oaken_scale.formats.wording import field_faults

FORMAT: Final = "oaken-scale/build"
VERSION: Final = 1
LARGEST_BYTES: Final = 64 * 1024 * 1024


Price = Annotated[float, number(ge=0, le=limits.PRICE)]
Size = Annotated[float, number(gt=0, le=limits.SHEET_MM)]


class KnownDoc(Edge):
    """What other builds of the workshop found: a value and one sigma, as one reading of it."""

    value: Annotated[float, number(ge=-limits.ITEM_MASS_G, le=limits.ITEM_MASS_G)]
    doubt: Annotated[float, number(gt=0, le=limits.ITEM_MASS_G)]
    source: Words = ""


class LotDoc(Edge):
    """A sheet, roll or bottle: its constant in g per unit, and one sigma of doubt.

    One sheet is ``length_mm`` by ``width_mm``, one roll or rod ``length_mm`` long; ``price`` buys
    one and ``stock`` of them are at hand. ``rack`` is its id on the workshop's rack.
    """

    id: Id
    name: Name
    unit: lot.LotUnit
    constant: Annotated[float, number(gt=0, le=limits.LOT_CONSTANT)]
    doubt: Annotated[float, number(ge=0, le=limits.LOT_CONSTANT)]
    source: Words = ""
    kind: lot.LotKind = lot.LotKind.OTHER
    faces: lot.Faces | None = None
    thickness_mm: Size | None = None
    length_mm: Size | None = None
    width_mm: Size | None = None
    price: Price | None = None
    stock: Annotated[float, number(ge=0, le=limits.STOCK)] | None = None
    waste: Annotated[float, number(ge=1, le=limits.WASTE)] | None = None
    adhesive: Label = ""
    rack: Id | None = None
    elsewhere: KnownDoc | None = None


class UseDoc(Edge):
    """How much of a lot an item uses, in the lot's unit; negative for a pocket cut out."""

    lot: Id
    amount: Amount


class StationDoc(Edge):
    """Where an item's CG is: x aft from its reference, y to starboard, z up [mm]."""

    x_mm: Coordinate
    y_mm: Coordinate = 0.0
    z_mm: Coordinate = 0.0
    reference: core.Reference = core.Reference.NOSE
    doubt_mm: Annotated[float, number(ge=0, le=limits.STATION_MM)] | None = None


class SlideDoc(Edge):
    """How far a thing may be moved along x, from the same reference as its station [mm]."""

    low_mm: Coordinate
    high_mm: Coordinate


class ItemDoc(Edge):
    """One thing aboard. Its mass is ``stated_g`` plus what it uses of lots.

    Only a pocket cut out of a lot takes away, as a negative amount among its uses, and what was
    sanded or trimmed off its ``host``, as a negative figure.
    """

    id: Id
    name: Name
    pedigree: core.Pedigree
    assembly: Label = ""
    stated_g: MassOrLess | None = None
    uses: Annotated[tuple[UseDoc, ...], Field(max_length=20)] = ()
    doubt_g: Doubt | None = None
    pieces: Annotated[int, Field(strict=True, ge=1, le=limits.PIECES)] = 1
    station: StationDoc | None = None
    option: bool = False
    retired: bool = False
    thing: Id | None = None
    elsewhere: KnownDoc | None = None
    group: core.Group | None = None
    price: Price | None = None
    host: Id | None = None
    replaces: Id | None = None
    added_at: Moment | None = None
    retired_at: Moment | None = None
    slide: SlideDoc | None = None


class SectionDoc(Edge):
    """One section of a surface: leading edge and chord [mm]."""

    x_le_mm: Coordinate
    y_mm: Coordinate
    z_mm: Coordinate = 0.0
    chord_mm: Annotated[float, number(ge=0, le=limits.CHORD_MM)]


class SurfaceDoc(Edge):
    """A lifting surface: sections from the root out, mirrored unless it is a fin (and no twin)."""

    id: Id
    name: Name
    role: core.Role
    sections: Annotated[tuple[SectionDoc, ...], Field(max_length=50)]
    profile: core.Profile | None = None
    thickness_mm: Annotated[float, number(gt=0, le=limits.CHORD_MM)] | None = None
    incidence_deg: Annotated[float, number(ge=-30, le=30)] = 0.0
    twin: bool = False


class ScaleDoc(Edge):
    """A scale. ``repeatability_g`` null means half a step.

    One on a cable has a ``port`` (a serial device's name), and ``line`` says how its lines read.
    """

    id: Id
    name: Name
    step_g: Annotated[float, number(ge=0.0001, le=100)]
    repeatability_g: Annotated[float, number(ge=0, le=100)] | None = None
    calibration_doubt: Annotated[float, number(ge=0, le=0.5)] = 0.003
    capacity_g: Annotated[float, number(gt=0, le=limits.READING_G)] = 5000.0
    simulated: bool = False
    port: Annotated[str, Field(max_length=80, pattern=PORT)] = ""
    line: Annotated[str, Field(max_length=limits.NAME_LENGTH, pattern=r"^[\x20-\x7e]*$")] = ""
    baud: Baud = 9600


class ContainerDoc(Edge):
    """A tray or a cup that things are weighed in."""

    id: Id
    name: Name
    mass_g: Annotated[float, number(gt=0, le=limits.ITEM_MASS_G)]
    doubt_g: Doubt = 0.1


class LoadDoc(Edge):
    """An item on the pan; ``count`` 2.5 means ten screws of which four are fitted."""

    item: Id
    count: Count = 1.0


class SampleDoc(Edge):
    """A piece of a lot on the pan, in the lot's unit."""

    lot: Id
    amount: SampleAmount


class PanDoc(Edge):
    """Everything on the pan in one reading."""

    loads: Annotated[tuple[LoadDoc, ...], Field(max_length=limits.ITEMS)] = ()
    samples: Annotated[tuple[SampleDoc, ...], Field(max_length=50)] = ()
    known_g: Annotated[float, number(ge=0, le=limits.READING_G)] = 0.0

    def value(self) -> core.Pan:
        """The pan as the core has it, in one order whatever order it was given in."""
        loads = tuple(sorted(core.Load(load.item, load.count) for load in self.loads))
        samples = tuple(sorted(core.Sample(each.lot, each.amount) for each in self.samples))
        return core.Pan(loads, samples, self.known_g)


class WeighingDoc(Edge):
    """A reading and what was on the pan. ``set_aside`` holds the reason once it was set aside.

    ``corrects`` is the reading that it was recorded in place of; ``accepted`` says that it was
    doubtful and the builder let it stand.
    """

    id: Id
    at: Moment
    scale: Id
    reading_g: Reading
    pan: PanDoc
    typed: Label = ""
    note: Words = ""
    set_aside: Words | None = None
    corrects: Id | None = None
    accepted: bool = False


class LoadoutDoc(Edge):
    """A way of flying: the options it carries besides all that is always aboard."""

    id: Id
    name: Name
    carries: Annotated[tuple[Id, ...], Field(max_length=limits.ITEMS)] = ()


class TargetDoc(Edge):
    """A limit or a band. AUW in g, loading in g/dm2, thrust-to-weight a ratio, balance as unit."""

    kind: core.TargetKind
    low: Annotated[float, number(ge=-limits.READING_G, le=limits.READING_G)] | None = None
    high: Annotated[float, number(ge=-limits.READING_G, le=limits.READING_G)] | None = None
    source: Words = ""
    balance_unit: core.BalanceUnit = core.BalanceUnit.PERCENT_MAC


class ThrustDoc(Edge):
    """Static thrust [gf], one sigma of doubt (null: 10 %), and where it comes from."""

    thrust_gf: Annotated[float, number(gt=0, le=limits.THRUST_GF)]
    doubt_gf: Annotated[float, number(ge=0, le=limits.THRUST_GF)] | None = None
    source: Words = ""
    line_z_mm: Coordinate | None = None
    line_y_mm: Coordinate | None = None


class AllotmentDoc(Edge):
    """What one group of a weight budget may weigh [g]."""

    group: core.Group
    grams: Annotated[float, number(ge=0, le=limits.READING_G)]


class BudgetDoc(Edge):
    """A weight budget, and where its figures come from."""

    allotments: Annotated[tuple[AllotmentDoc, ...], Field(max_length=len(core.Group))]
    source: Words = ""


Seconds = Annotated[float, number(ge=0, le=limits.JOINT_S)]


class JointTimesDoc(Edge):
    """A joint's times after spreading [s]; ``close_by_s`` null where there is no hurry."""

    close_after_s: Seconds
    close_by_s: Annotated[float, number(gt=0, le=limits.JOINT_S)] | None
    handle_after_s: Seconds
    strong_after_s: Seconds


class JointDoc(JointTimesDoc):
    """A joint on the clock: spread when, with which adhesive, and the parts in it."""

    id: Id
    name: Name
    adhesive: Id
    spread_at: Moment
    items: Annotated[tuple[Id, ...], Field(max_length=limits.ITEMS)] = ()
    cleared: bool = False


class HappeningDoc(Edge):
    """What happened to the plane, when, and to which parts."""

    id: Id
    at: Moment
    kind: happening.HappeningKind
    words: Words
    items: Annotated[tuple[Id, ...], Field(max_length=limits.ITEMS)] = ()


class StoodDoc(Edge):
    """What was aboard when a check was made, and where it sat [mm]; null where nobody had said."""

    item: Id
    x_mm: Coordinate | None = None
    y_mm: Coordinate = 0.0
    z_mm: Coordinate = 0.0


class BalanceCheckDoc(Edge):
    """A check of the balance by hand [mm from the nose, or across for ``sides``; g; degrees].

    ``stood`` is the plane as it was then: what was aboard, and where it sat.
    """

    id: Id
    at: Moment
    kind: balancing.CheckKind
    loadout: Id | None = None
    x_mm: Coordinate
    by: Label = ""
    other_mm: Coordinate | None = None
    reading_g: Annotated[float, number(ge=0, le=limits.READING_G)] | None = None
    scale: Id | None = None
    z_mm: Coordinate | None = None
    nose_down_deg: Annotated[float, number(ge=-80, le=80)] | None = None
    doubt: Annotated[float, number(gt=0, le=100)] | None = None
    note: Words = ""
    set_aside: Words | None = None
    stood: Annotated[tuple[StoodDoc, ...], Field(max_length=limits.ITEMS)] = ()


class BallastSpotDoc(Edge):
    """A place for ballast, and how much it takes; a pair is loaded alike at y and -y."""

    id: Id
    name: Name
    x_mm: Coordinate
    y_mm: Coordinate = 0.0
    z_mm: Coordinate = 0.0
    most_g: Annotated[float, number(gt=0, le=limits.ITEM_MASS_G)] = 50.0
    pair: bool = False


class BallastDoc(Edge):
    """Where ballast may go, and the pieces at hand [g]."""

    spots: Annotated[tuple[BallastSpotDoc, ...], Field(max_length=20)] = ()
    pieces: Annotated[
        tuple[Annotated[float, number(gt=0, le=limits.ITEM_MASS_G)], ...], Field(max_length=40)
    ] = ()


class PlanMarkDoc(Edge):
    """Where the plan says that it balances [mm from the nose]."""

    x_mm: Coordinate
    tolerance_mm: Annotated[float, number(gt=0, le=200)] = 3.0


class PastPartDoc(Edge):
    """What one assembly of an earlier build came to."""

    assembly: Label
    grams: MassOrLess


class PastDoc(Edge):
    """An earlier build to measure by, as it weighed then."""

    name: Name
    parts: Annotated[tuple[PastPartDoc, ...], Field(max_length=limits.ITEMS)]


class ShareDoc(Edge):
    """What share of the rest finished builds had in things nobody listed, and one sigma."""

    value: Annotated[float, number(ge=0, le=1)]
    doubt: Annotated[float, number(gt=0, le=1)]
    source: Words = ""


class HabitDoc(Edge):
    """How finished builds found guesses or listings to run: a factor, one sigma, and how far off
    so many weighed ones lay (the sum of squares, in sigma)."""

    pedigree: core.Pedigree
    factor: Annotated[float, number(gt=0, le=20)]
    doubt: Annotated[float, number(gt=0, le=1)]
    squares: Annotated[float, number(ge=0, le=1e6)] = 0.0
    weighed: Annotated[int, Field(strict=True, ge=0, le=100_000)] = 0


class BuildDoc(Edge):
    """A whole build."""

    id: Id = "build"
    name: Name
    purpose: Label = ""
    layout: Label = ""
    notes: Words = ""
    lots: Annotated[tuple[LotDoc, ...], Field(max_length=200)] = ()
    items: Annotated[tuple[ItemDoc, ...], Field(max_length=limits.ITEMS)] = ()
    surfaces: Annotated[tuple[SurfaceDoc, ...], Field(max_length=20)] = ()
    scales: Annotated[tuple[ScaleDoc, ...], Field(max_length=20)] = ()
    containers: Annotated[tuple[ContainerDoc, ...], Field(max_length=50)] = ()
    loadouts: Annotated[tuple[LoadoutDoc, ...], Field(max_length=50)] = ()
    targets: Annotated[tuple[TargetDoc, ...], Field(max_length=4)] = ()
    thrust: ThrustDoc | None = None
    budget: BudgetDoc | None = None
    joints: Annotated[tuple[JointDoc, ...], Field(max_length=limits.ENTRIES)] = ()
    happenings: Annotated[tuple[HappeningDoc, ...], Field(max_length=limits.ENTRIES)] = ()
    checks: Annotated[tuple[BalanceCheckDoc, ...], Field(max_length=limits.ENTRIES)] = ()
    ballast: BallastDoc = BallastDoc()
    plan_mark: PlanMarkDoc | None = None
    past: PastDoc | None = None
    allowance: ShareDoc | None = None
    habits: Annotated[tuple[HabitDoc, ...], Field(max_length=2)] = ()
    power: PowerDoc | None = None
    finished_at: Moment | None = None
    variant_of: Id | None = None
    weighings: Annotated[tuple[WeighingDoc, ...], Field(max_length=limits.WEIGHINGS)] = ()

    def value(self) -> core.Build:
        """The build as the core has it, checked as a whole. Raises BuildFaultError."""
        return check(with_shared_pans(_CORE_BUILD.validate_python(self.model_dump())))


class BuildFile(Edge):
    """The file: what it is, which version of it, and the build."""

    format: Literal["oaken-scale/build"]
    version: Literal[1]
    build: BuildDoc

    @classmethod
    def of(cls, build: core.Build) -> Self:
        """The file of a build."""
        return cls(format=FORMAT, version=VERSION, build=BuildDoc.model_validate(build))


_CORE_BUILD: TypeAdapter[core.Build] = TypeAdapter(core.Build)


def with_shared_pans(build: core.Build) -> core.Build:
    """The same build with equal pans held once, and each pan in its one order."""
    known: dict[core.Pan, core.Pan] = {}
    weighings = []
    for weighing in build.weighings:
        pan = core.Pan(
            tuple(sorted(weighing.pan.loads)),
            tuple(sorted(weighing.pan.samples)),
            weighing.pan.known_g,
        )
        weighings.append(replace(weighing, pan=known.setdefault(pan, pan)))
    return replace(build, weighings=tuple(weighings))


def dump(build: core.Build) -> str:
    """Write a build as a file, readable and diffable."""
    return BuildFile.of(build).model_dump_json(indent=2) + "\n"


def load(data: bytes) -> core.Build:
    """Read a build from a file's bytes.

    Raises BuildFaultError with every fault, each naming its field and what would be right.
    """
    document = _json(data)
    _check_version(document)
    try:
        return BuildFile.model_validate_json(data).build.value()
    except PydanticValidationError as error:
        raise BuildFaultError(field_faults(error.errors())) from error
    except BuildFaultError as error:
        raise BuildFaultError(_under(("build",), error.faults)) from error


def schema() -> str:
    """The JSON Schema of the file."""
    document = BuildFile.model_json_schema()
    document["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    document["title"] = "Oaken Scale build file, version 1"
    return json.dumps(document, indent=2) + "\n"


def _under(path: tuple[str, ...], found: Iterable[Fault]) -> tuple[Fault, ...]:
    return tuple(Fault(".".join((*path, fault.field)), fault.words) for fault in found)


def _json(data: bytes) -> dict[str, Any]:
    if len(data) > LARGEST_BYTES:
        most = LARGEST_BYTES // 1024 // 1024
        raise BuildFaultError([Fault("file", f"larger than {most} MiB; no build needs as much")])
    try:
        document = json.loads(data.decode("utf-8"))
    except (ValueError, RecursionError) as error:
        words = f"not a JSON file in UTF-8 ({error}); export a build to see one"
        raise BuildFaultError([Fault("file", words)]) from error
    if not isinstance(document, dict):
        words = 'holds no build; it should be {"format": ..., "version": 1, "build": {...}}'
        raise BuildFaultError([Fault("file", words)])
    return document


def _check_version(document: dict[str, Any]) -> None:
    given = document.get("format")
    if given != FORMAT:
        raise BuildFaultError([Fault("format", f'is {given!r}; a build file says "{FORMAT}"')])
    version = document.get("version")
    if version != VERSION or isinstance(version, bool):
        newer = isinstance(version, int) and version > VERSION
        advice = "it was written by a newer Oaken Scale" if newer else "it should be 1"
        raise BuildFaultError(
            [Fault("version", f"is {version!r}; this one reads version {VERSION}; {advice}")]
        )
