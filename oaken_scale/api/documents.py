"""What the API takes and gives, where it is not the build file's own shape."""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from datetime import UTC, datetime
from typing import Annotated, Final

from pydantic import Field, TypeAdapter
from pydantic.dataclasses import dataclass as described_once

from oaken_scale.api.bench import PanState
from oaken_scale.core.assess import Assessment, Outline
from oaken_scale.core.changes.drive import runs_stay
from oaken_scale.core.flight.forecast import Point
from oaken_scale.core.flight.verdict import Word
from oaken_scale.core.ledger.outliers import Doubt
from oaken_scale.core.material.joint_clock import Adhesive, Free, adhesive, own_adhesives
from oaken_scale.core.model import declared, limits
from oaken_scale.core.model.amount import Amount
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.joint import Joint
from oaken_scale.core.model.lot import LotKind
from oaken_scale.core.model.named import free_id
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.plausible import Asked
from oaken_scale.core.model.presets import Layout, Purpose
from oaken_scale.core.model.quantity import QuantityError, parse
from oaken_scale.core.model.weighing import Weighing
from oaken_scale.core.reading_effects import News
from oaken_scale.devices.line_pattern import line_pattern
from oaken_scale.formats import documents, fields
from oaken_scale.formats.fields import Document


class NewBuild(fields.Edge):
    """A build begun from a purpose and a layout."""

    name: declared.Name
    purpose: declared.Label = ""
    layout: declared.Label = ""
    auw_high_g: Annotated[float, fields.number(gt=0, le=limits.READING_G)] | None = None
    step_g: Annotated[float, fields.number(ge=0.0001, le=100)] = 0.1


class BuildPatch(
    Document,
    of=Build,
    partial=True,
    only=(
        "name",
        "purpose",
        "layout",
        "notes",
        "lots",
        "surfaces",
        "bodies",
        "bays",
        "scales",
        "containers",
        "loadouts",
        "targets",
        "thrust",
        "budget",
        "ballast",
        "plan_mark",
        "power",
        "day",
    ),
):
    """What to change of a build; what is left out stays as it is."""

    def applied(self, build: Build) -> Build:
        """The build with this change; null takes thrust, budget, drive or the plan's mark away."""
        given = (
            self.model_fields_set
            & set(BuildPatch.model_fields)
            & (
                {"thrust", "budget", "plan_mark", "power"}
                | {name for name, value in self if value is not None}
            )
        )
        for k, scale in enumerate(self.scales or ()):
            try:
                line_pattern(scale.line)
            except ValueError as error:
                raise BuildFaultError([Fault(f"scales.{k}.line", str(error))]) from error
        whole = {"id": build.id, "name": build.name, **self.model_dump(include=given)}
        changed = _BUILD.validate_python(whole)
        if "power" in given:
            runs_stay(build.power, changed.power)
        return replace(build, **{name: getattr(changed, name) for name in given})


class NewPart(documents.PartDoc):
    """A part as typed; without an id it gets one from its name."""

    id: declared.Id | None = None

    def value(self, build: Build, id: str | None = None) -> Part:
        """The part, under ``id``, its own id, or one made from its name."""
        chosen = id or self.id or free_id(self.name, (part.id for part in build.parts))
        return _PART.validate_python({**self.model_dump(), "id": chosen})


def new_parts(build: Build, typed: Iterable[NewPart]) -> tuple[Part, ...]:
    """Parts as typed for a build, each under an id that is free there and among them."""
    grown = build
    for each in typed:
        grown = replace(grown, parts=(*grown.parts, each.value(grown)))
    return grown.parts[len(build.parts) :]


class NewWeighing(fields.Edge):
    """A reading to record. The sender gives it its id, so that sending twice records once.

    Either ``reading_g``, or what was ``typed`` as it stands and the ``unit`` that is meant where it
    names none: then the server that keeps it understands it.
    """

    id: declared.Id
    scale: declared.Id
    reading_g: declared.Reading | None = None
    unit: Annotated[str, Field(max_length=8)] = "g"
    pan: documents.PanDoc
    at: declared.Moment | None = None
    typed: declared.Label = ""
    note: declared.Words = ""

    def value(self) -> Weighing:
        """The reading, taken now unless it says when."""
        at = self.at or datetime.now(UTC)
        return Weighing(
            self.id, at, self.scale, self._grams(), self.pan.value(), self.typed, self.note
        )

    def _grams(self) -> float:
        """The reading [g], as given or as typed. Raises BuildFaultError naming the field."""
        if self.reading_g is not None:
            return self.reading_g
        if not self.typed.strip():
            raise BuildFaultError([Fault("reading_g", "say what the scale showed")])
        try:
            grams = parse(self.typed, "mass", self.unit).value
        except QuantityError as error:
            raise BuildFaultError([Fault("typed", str(error))]) from error
        if not 0 < grams <= limits.READING_G:
            words = "{} is no reading of a bench scale; it is between {} and {}"
            facts = (Amount(grams, "g"), Amount(0, "g"), Amount(limits.READING_G, "g"))
            raise BuildFaultError([Fault("typed", words, facts)])
        return grams


class BeadDoc(fields.Edge):
    """How much of a lot joins the parts, in the lot's unit."""

    lot: declared.Id
    amount: declared.SampleAmount


class NewJoint(fields.Edge):
    """A joint that was spread just now; times that are left out are the adhesive's usual ones.

    With ``bead`` its glue or tape becomes a part, to be found by weighing.
    """

    name: declared.Name
    bead: BeadDoc | None = None
    adhesive: declared.Id
    parts: Annotated[tuple[declared.Id, ...], Field(max_length=limits.PARTS)] = ()
    times: documents.JointTimesDoc | None = None

    def value(self, build: Build) -> Joint:
        """The joint, spread at the server's time."""
        usual = adhesive(self.adhesive, own_adhesives(build))
        times = self.times or documents.JointTimesDoc.model_validate(usual)
        return Joint(
            id=free_id(self.name, (joint.id for joint in build.joints)),
            name=self.name,
            adhesive=usual.id,
            spread_at=datetime.now(UTC),
            parts=tuple(dict.fromkeys(self.parts)),
            **times.model_dump(),
        )


class SettingAside(fields.Edge):
    """Why a reading is set aside; null lets it speak again.

    ``restore`` lets the reading that it corrects speak again in its place.
    """

    reason: declared.Words | None
    restore: bool = False


class SeveralAside(fields.Edge):
    """Readings by their ids, and why they are set aside; null lets them speak again."""

    weighings: Annotated[tuple[declared.Id, ...], Field(min_length=1, max_length=200)]
    reason: declared.Words | None


class Accepting(fields.Edge):
    """Whether a doubtful reading stands as it is."""

    accepted: bool


class Correcting(fields.Edge):
    """A reading put right: a new row in place of the old one, which is set aside."""

    id: declared.Id
    reading_g: declared.Reading
    pan: documents.PanDoc
    reason: declared.Words

    def value(self, wrong: Weighing) -> Weighing:
        """The new row: of the moment and the scale of the one that it corrects."""
        return Weighing(
            self.id,
            wrong.at,
            wrong.scale,
            self.reading_g,
            self.pan.value(),
            note=self.reason,
            corrects=wrong.id,
        )


class PuttingAway(fields.Edge):
    """Whether a build is off the shelf."""

    away: bool


class NewPan(documents.PanDoc):
    """What is on the pan now, and on which scale."""

    scale: declared.Id | None = None


@described_once(frozen=True, slots=True)
class Opened:
    """A build, its revision, and everything that is told about it."""

    revision: int
    build: Build
    assessment: Assessment


@described_once(frozen=True, slots=True)
class PartAdded:
    """A build with a part more, and everything that is told about it. ``if_each_g``: what all its
    pieces would weigh, were the mass that its line says of each; null where it says which [g]."""

    revision: int
    build: Build
    assessment: Assessment
    if_each_g: float | None


@described_once(frozen=True, slots=True)
class Recorded:
    """A reading as it was kept, and what is told about the build with it."""

    revision: int
    weighing: Weighing
    news: tuple[News, ...]
    assessment: Assessment


@dataclass(frozen=True, slots=True)
class Meanwhile:
    """The server's time, and what can be weighed while joints set."""

    now: datetime
    free: Free


@dataclass(frozen=True, slots=True)
class Shelved:
    """A build's tag on the shelf."""

    id: str
    name: str
    purpose: str
    layout: str
    created_at: datetime
    put_away: bool
    readings: int
    auw_g: float
    auw_sd_g: float
    worst: Word | None
    progress: float
    outlines: tuple[Outline, ...]


@dataclass(frozen=True, slots=True)
class Beginnings:
    """What a build can begin from, the units that may be typed, how a part of each kind of lot is
    usually known, the version of the workshop, and what was saved where it had been damaged."""

    purposes: tuple[Purpose, ...]
    layouts: tuple[Layout, ...]
    adhesives: tuple[Adhesive, ...]
    units: dict[str, dict[str, float]]
    known_by: dict[LotKind, Pedigree]
    version: str
    rescued: str | None


@dataclass(frozen=True, slots=True)
class Understood:
    """A typed quantity in its base unit. ``asked`` where it is absurd for what it is of."""

    value: float
    unit: str
    asked: Asked | None = None


_BUILD: Final[TypeAdapter[Build]] = TypeAdapter(Build)
_PART: Final[TypeAdapter[Part]] = TypeAdapter(Part)

OPENED: Final = TypeAdapter(Opened)
PART_ADDED: Final = TypeAdapter(PartAdded)
RECORDED: Final = TypeAdapter(Recorded)
ASSESSMENT: Final = TypeAdapter(Assessment)
DOUBT: Final[TypeAdapter[Doubt | None]] = TypeAdapter(Doubt | None)
FORECAST: Final[TypeAdapter[tuple[Point, ...]]] = TypeAdapter(tuple[Point, ...])
PAN_STATE: Final = TypeAdapter(PanState)
