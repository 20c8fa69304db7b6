"""What is planned, as files and requests have it: lots, parts, drawing, loadouts, targets."""

from typing import Annotated

from pydantic import Field

from oaken_scale.core.model import build as core
from oaken_scale.core.model import limits, lot
from oaken_scale.core.model.body import BodyShape
from oaken_scale.core.model.fitting import FitRole
from oaken_scale.core.model.pattern import Grain
from oaken_scale.formats.fields import (
    Amount,
    Coordinate,
    Doubt,
    Edge,
    FoldLine,
    Id,
    Label,
    MassOrLess,
    Moment,
    Name,
    Ring,
    Words,
    number,
)

Price = Annotated[float, number(ge=0, le=limits.PRICE)]
Seconds = Annotated[float, number(ge=0, le=limits.JOINT_S)]
Size = Annotated[float, number(gt=0, le=limits.SHEET_MM)]


class KnownDoc(Edge):
    """What other builds of the workshop found: a value and one sigma, as one reading of it."""

    value: Annotated[float, number(ge=-limits.ITEM_MASS_G, le=limits.ITEM_MASS_G)]
    doubt: Annotated[float, number(gt=0, le=limits.ITEM_MASS_G)]
    source: Words = ""


class CuringDoc(Edge):
    """An adhesive's own times after spreading [s]: close from, close by (null: no hurry), handle,
    strong."""

    close_after_s: Seconds
    close_by_s: Annotated[float, number(gt=0, le=limits.JOINT_S)] | None = None
    handle_after_s: Seconds
    strong_after_s: Seconds


class LotDoc(Edge):
    """A sheet, roll or bottle: its constant in g per unit, and one sigma of doubt.

    One sheet is ``length_mm`` by ``width_mm``, one roll or rod ``length_mm`` long; ``price`` buys
    one and ``stock`` of them are at hand; one bottle or can ``holds_g``; ``curing`` are an
    adhesive's own times. ``rack`` is its id on the workshop's rack.
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
    holds_g: Annotated[float, number(gt=0, le=limits.READING_G)] | None = None
    curing: CuringDoc | None = None
    qualities: Annotated[tuple[lot.Quality, ...], Field(max_length=len(lot.Quality))] = ()
    shop: Label = ""
    lead_days: Annotated[float, number(ge=0, le=365)] | None = None
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


class PatternDoc(Edge):
    """What is cut out of a sheet for one piece: its outer ring, then its holes [mm]; x to the
    right, y down; and the lines that it is folded along."""

    rings: Annotated[tuple[Ring, ...], Field(min_length=1, max_length=60)]
    grain: Grain = Grain.FREE
    layers: Annotated[int, Field(strict=True, ge=1, le=20)] = 1
    folds: Annotated[tuple[FoldLine, ...], Field(max_length=60)] = ()


class DrawnDoc(Edge):
    """Which surface or body of the drawing a part follows until it is cut, and as which panel."""

    of: Id
    panel: Label = ""
    is_cut: bool = False


Side = Annotated[float, number(gt=0, le=limits.CHORD_MM)]


class FitDoc(Edge):
    """What a part takes up: along, across, up [mm]; its lead, what it plugs into, and its bay."""

    length_mm: Side | None = None
    width_mm: Side | None = None
    height_mm: Side | None = None
    lead_mm: Annotated[float, number(ge=0, le=limits.STATION_MM)] | None = None
    plugs_into: Id | None = None
    bay: Id | None = None
    role: FitRole | None = None


class BayDoc(Edge):
    """A bay or a pod by its inner size: its front from the nose, its middle to starboard and up."""

    id: Id
    name: Name
    x_mm: Coordinate
    length_mm: Side
    width_mm: Side
    height_mm: Side
    y_mm: Coordinate = 0.0
    z_mm: Coordinate = 0.0


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
    pattern: PatternDoc | None = None
    drawn: DrawnDoc | None = None
    fit: FitDoc | None = None


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


class FrameDoc(Edge):
    """A body's outer size at one station; ``z_mm`` is the height of its middle [mm]."""

    x_mm: Coordinate
    z_mm: Coordinate = 0.0
    width_mm: Annotated[float, number(gt=0, le=limits.CHORD_MM)]
    height_mm: Annotated[float, number(gt=0, le=limits.CHORD_MM)]


class BodyDoc(Edge):
    """A body, a pod or a boom: frames from the front aft; a twin has the like of it to port."""

    id: Id
    name: Name
    shape: BodyShape
    frames: Annotated[tuple[FrameDoc, ...], Field(max_length=50)]
    y_mm: Coordinate = 0.0
    twin: bool = False
    has_top: bool = True


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
