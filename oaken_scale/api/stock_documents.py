"""What the API takes and gives about the rack, the drawer, outlines and shapes."""

from dataclasses import dataclass
from typing import Annotated, Any, Final, Literal

from pydantic import Field, TypeAdapter

from oaken_scale.core.geometry import shape
from oaken_scale.core.geometry.outline import Candidate, Outlines
from oaken_scale.core.geometry.placing import Aft, Cut, Datum, Lie
from oaken_scale.core.material.drawer import Thing, ThingKind
from oaken_scale.core.material.instead import Replacements
from oaken_scale.core.material.rack import LOT_DOUBT
from oaken_scale.core.material.shopping import Shopping
from oaken_scale.core.model import declared, limits, pattern
from oaken_scale.core.model.declared import Amperes, Capacity, Cells, Kv, Rating
from oaken_scale.core.model.lot import Faces, Known, Lot
from oaken_scale.core.model.part import Reference, Station
from oaken_scale.core.model.pattern import Grain
from oaken_scale.core.trim.alternatives import Comparison
from oaken_scale.formats import documents, fields

_Sized = Annotated[float, fields.number(ge=0.1, le=limits.STATION_MM)]
_At = Annotated[
    float, Field(ge=-10 * limits.STATION_MM, le=10 * limits.STATION_MM, allow_inf_nan=False)
]


class NewLot(documents.LotDoc):
    """A lot for the rack; without an id it gets one from its name, without a doubt 10 %."""

    id: declared.Id | None = None
    doubt: declared.Doubt | None = None

    def value(self, id: str) -> Lot:
        """The lot under an id of the rack; where no doubt was said, the usual one."""
        doubt = LOT_DOUBT * self.constant if self.doubt is None else self.doubt
        said = {**self.model_dump(), "id": id, "rack": id, "elsewhere": None, "doubt": doubt}
        return _LOT.validate_python(said)


class NewThing(fields.Edge):
    """A thing for the drawer, with its listing for one."""

    name: declared.Name
    kind: ThingKind
    listing_g: Annotated[float, fields.number(gt=0, le=limits.PART_MASS_G)]
    leads_included: bool = True
    price: declared.Price | None = None
    note: declared.Words = ""
    cells: Cells | None = None
    capacity_mah: Capacity | None = None
    c_rating: Rating | None = None
    kv: Kv | None = None
    most_a: Amperes | None = None

    def value(self, id: str) -> Thing:
        """The thing under an id of the drawer."""
        return Thing(id, **self.model_dump())


class Taking(fields.Edge):
    """Which lot of the rack a build takes."""

    rack: declared.Id


class Fitting(fields.Edge):
    """Which thing of the drawer goes into a build, and where; ``move`` takes it out of others."""

    thing: declared.Id
    station: documents.StationDoc | None = None
    move: bool = False

    def where(self) -> Station | None:
        """Its station."""
        return None if self.station is None else _STATION.validate_python(self.station.model_dump())


class Chosen(fields.Edge):
    """Parts that might be made otherwise."""

    parts: Annotated[tuple[declared.Id, ...], Field(min_length=1, max_length=limits.PARTS)]


class Choosing(Chosen):
    """Parts, and what they might be made from instead: lots, each by its id in the build or on the
    rack, or the parts' own sheets with fewer faces of paper.
    """

    lots: Annotated[tuple[declared.Id, ...], Field(max_length=6)] = ()
    faces: Annotated[tuple[Faces, ...], Field(max_length=3)] = ()


class PlacingDoc(fields.Edge):
    """Where a part's datum sits on the plane [mm], and how its drawing is turned there."""

    x_mm: declared.Coordinate
    y_mm: declared.Coordinate = 0.0
    z_mm: declared.Coordinate = 0.0
    reference: Reference = Reference.NOSE
    aft: Aft = Aft.RIGHT
    lie: Lie = Lie.FLAT
    datum: Datum = Datum.FRONT_MIDDLE


class BoxDoc(fields.Edge):
    """The edges of a part on its drawing [mm], y down."""

    left_mm: _At = 0.0
    top_mm: _At = 0.0
    right_mm: _At = 0.0
    bottom_mm: _At = 0.0


RingAsDrawn = Annotated[tuple[pattern.Corner, ...], Field(min_length=3, max_length=20_000)]


class CutDoc(fields.Edge):
    """A part to keep: its figures as an outline or a shape gave them, and what it is made of."""

    name: declared.Name
    area_dm2: Annotated[float, fields.number(gt=0, le=limits.AREA_DM2)]
    x_mm: _At = 0.0
    y_mm: _At = 0.0
    box: BoxDoc = BoxDoc()
    lot: declared.Id
    layers: Annotated[int, Field(strict=True, ge=1, le=20)] = 1
    twin: bool = False
    assembly: declared.Label = ""
    placing: PlacingDoc | None = None
    rings: Annotated[tuple[RingAsDrawn, ...], Field(max_length=60)] = ()
    folds: Annotated[tuple[pattern.FoldLine, ...], Field(max_length=60)] = ()
    grain: Grain = Grain.FREE
    doubt_dm2: Annotated[float, fields.number(ge=0, le=limits.AREA_DM2)] | None = None

    def value(self) -> Cut:
        """The part as the core has it."""
        return _CUT.validate_python(self.model_dump())


class Keeping(fields.Edge):
    """The parts of a drawing that a build keeps."""

    cuts: Annotated[tuple[CutDoc, ...], Field(min_length=1, max_length=500)]


class RectangleDoc(fields.Edge):
    """A rectangle [mm]."""

    kind: Literal["rectangle"]
    width_mm: _Sized
    height_mm: _Sized


class TrapezoidDoc(fields.Edge):
    """Two parallel sides, so far apart; the lower starts ``offset_mm`` right of the upper."""

    kind: Literal["trapezoid"]
    top_mm: _Sized
    bottom_mm: _Sized
    height_mm: _Sized
    offset_mm: declared.Coordinate = 0.0


class TriangleDoc(fields.Edge):
    """A base and a height; the point lies ``offset_mm`` right of the base's start."""

    kind: Literal["triangle"]
    base_mm: _Sized
    height_mm: _Sized
    offset_mm: declared.Coordinate = 0.0


class EllipseDoc(fields.Edge):
    """An ellipse or a circle [mm]."""

    kind: Literal["ellipse"]
    width_mm: _Sized
    height_mm: _Sized


class PolygonDoc(fields.Edge):
    """Any corners, in order around the part [mm]."""

    kind: Literal["polygon"]
    points: Annotated[tuple[pattern.Corner, ...], Field(min_length=3, max_length=500)]


ShapeDoc = Annotated[
    RectangleDoc | TrapezoidDoc | TriangleDoc | EllipseDoc | PolygonDoc,
    Field(discriminator="kind"),
]

_SHAPES: Final[dict[str, Any]] = {
    "rectangle": shape.Rectangle,
    "trapezoid": shape.Trapezoid,
    "triangle": shape.Triangle,
    "ellipse": shape.Ellipse,
    "polygon": shape.Polygon,
}


class CutOutDoc(fields.Edge):
    """A shape taken out of another, moved on it [mm]."""

    shape: ShapeDoc
    x_mm: declared.Coordinate = 0.0
    y_mm: declared.Coordinate = 0.0


class NewShape(fields.Edge):
    """A part without a drawing: a plain shape and what is cut out of it."""

    name: declared.Name = "Part"
    shape: ShapeDoc
    cut_outs: Annotated[tuple[CutOutDoc, ...], Field(max_length=50)] = ()

    def value(self) -> Candidate:
        """Its figures. Raises BuildFaultError for sides that cross and cut-outs that reach out."""
        cut_outs = tuple(
            shape.CutOut(_shape(each.shape), each.x_mm, each.y_mm) for each in self.cut_outs
        )
        return shape.measured(self.name, _shape(self.shape), cut_outs)


class Template(fields.Edge):
    """A paper template as the scale shows it."""

    reading_g: declared.Reading
    step_g: Annotated[float, fields.number(ge=0.0001, le=100)] = 0.1
    paper_g_m2: Annotated[float, fields.number(gt=1, le=2000)] = shape.PAPER_G_M2[0]
    paper_doubt_g_m2: Annotated[float, fields.number(ge=0, le=500)] = shape.PAPER_G_M2[1]


@dataclass(frozen=True, slots=True)
class TemplateArea:
    """The area that a template's weight tells [dm2], one sigma."""

    area_dm2: float
    doubt_dm2: float


@dataclass(frozen=True, slots=True)
class Whereabouts:
    """A build that uses something, and as which of its lots or parts."""

    build: str
    name: str
    id: str


@dataclass(frozen=True, slots=True)
class RackLot:
    """A lot on the rack: what is said of it, what all builds' weighings make of it now, and who
    uses it."""

    lot: Lot
    now: Known
    learned: Known | None
    builds: tuple[Whereabouts, ...]


@dataclass(frozen=True, slots=True)
class DrawerThing:
    """A thing in the drawer: what it should weigh now, whether it was weighed, where it sits."""

    thing: Thing
    now: Known
    weighed: bool
    builds: tuple[Whereabouts, ...]


_LOT: Final[TypeAdapter[Lot]] = TypeAdapter(Lot)
_CUT: Final[TypeAdapter[Cut]] = TypeAdapter(Cut)
_STATION: Final[TypeAdapter[Station]] = TypeAdapter(Station)

OUTLINES: Final = TypeAdapter(Outlines)
CANDIDATE: Final = TypeAdapter(Candidate)
COMPARISON: Final = TypeAdapter(Comparison)
REPLACEMENTS: Final = TypeAdapter(Replacements)
SHOPPING: Final = TypeAdapter(Shopping)


def _shape(given: ShapeDoc) -> shape.Shape:
    figures = given.model_dump(exclude={"kind"})
    made: shape.Shape = _SHAPES[given.kind](**figures)
    return made
