"""Cutting a build's parts out of the sheets at hand: what is cut from which lot, what is too large
for a sheet and where it is joined, and the sheets that it takes."""

from collections.abc import Collection, Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise
from math import ceil, sqrt
from typing import Final

from shapely import LineString, MultiLineString, Polygon, affinity, box

from oaken_scale.core.geometry.blanks import (
    SAME_MM,
    Blank,
    Knife,
    Laid,
    Layout,
    Sheet,
    as_laid,
    fits,
    least_sheets,
    lines_as_laid,
    room,
)
from oaken_scale.core.geometry.nesting import nest
from oaken_scale.core.model.amount import mm
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.lot import Faces, Lot, LotUnit
from oaken_scale.core.model.part import Part
from oaken_scale.core.model.pattern import Grain, Ring, shape_of

PLAIN_SIDES: Final = 2.0
"""A part whose outline nobody gave counts as a rectangle so many times as long as it is wide."""

SAME_SHARE: Final = 0.08
"""A pattern that differs by no more from what is counted of its lot agrees with it: what folds take
out is cut too."""

MOST_JOINED: Final = 50
"""A part joined from more pieces than this is no part of these sheets."""

MOST_BLANKS: Final = 400
"""So many pieces are laid at once."""

USUAL_KERFS: Final = (mm(0.5), mm(1.0), mm(2.0))
"""What a knife takes away, and the least and the most of a hot wire."""

NO_FOLDS: Final = MultiLineString()


@dataclass(frozen=True, slots=True, eq=False)
class Piece:
    """One piece to be cut: the part it is for, the how-manieth of how many, the how-manieth of the
    parts that it is joined from, and its blank."""

    part: str
    name: str
    number: int
    of: int
    joined: int
    joined_of: int
    blank: Blank
    is_supposed: bool
    """Nobody gave its outline; a rectangle of its area stands for it."""
    folds: MultiLineString = NO_FOLDS


@dataclass(frozen=True, slots=True)
class Join:
    """A part larger than a sheet: its box, and where it is cut in two and joined again, along its
    own x and y [mm]."""

    part: str
    name: str
    length_mm: float
    width_mm: float
    at_x_mm: tuple[float, ...]
    at_y_mm: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class OddArea:
    """A part whose pattern is larger or smaller than what is counted of its lot [dm2]."""

    part: str
    name: str
    cut_dm2: float
    counted_dm2: float


@dataclass(frozen=True, slots=True, eq=False)
class Job:
    """What is cut from one lot."""

    lot: Lot
    sheet: Sheet
    pieces: tuple[Piece, ...]
    joins: tuple[Join, ...]
    odd: tuple[OddArea, ...]

    @property
    def least(self) -> int:
        """The sheets that the areas alone would need."""
        return least_sheets([each.blank for each in self.pieces], self.sheet)


@dataclass(frozen=True, slots=True)
class CutPiece:
    """A piece where it lies on its sheet: its rings there [mm], x along the sheet, y down."""

    part: str
    name: str
    number: int
    of: int
    joined: int
    joined_of: int
    sheet: int
    turn_deg: int
    is_flipped: bool
    is_supposed: bool
    x_mm: float
    y_mm: float
    rings: tuple[Ring, ...]
    name_at: tuple[float, ...]
    folds: tuple[Ring, ...] = ()


@dataclass(frozen=True, slots=True)
class CutPlan:
    """How a lot is cut up: the sheets that it takes, those that the areas alone would need, and
    those at hand; ``left_mm`` is how much of the last sheet's length stays whole."""

    lot: str
    name: str
    length_mm: float
    width_mm: float
    sheets: int
    least: int
    at_hand: float
    to_buy: int
    cost_to_buy: float | None
    used_share: float
    left_mm: float
    pieces: tuple[CutPiece, ...]
    joins: tuple[Join, ...]
    odd: tuple[OddArea, ...]


@dataclass(frozen=True, slots=True)
class CutStep:
    """How much of the time is gone, 0 to 1, and the lot whose plan got better, if one did."""

    gone: float
    plan: CutPlan | None


@dataclass(frozen=True, slots=True)
class NotLaid:
    """A part that is on no plan, and why: its lot has no size, or it is cut from no sheet."""

    part: str
    name: str
    lot: str


def jobs(
    build: Build, knife: Knife, only: Collection[str] | None = None
) -> tuple[tuple[Job, ...], tuple[NotLaid, ...]]:
    """What is cut from each lot of sheets, with what is larger than a sheet taken apart, and what
    cannot be laid because its lot has no size; ``only`` some of the parts, if given.

    Parts on a sheet with one paper off are not turned over: their faces differ.

    Raises BuildFaultError for a margin that leaves nothing of a sheet, and a kerf that no part is
    wider than.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> from oaken_scale.core.model.lot import Use
    >>> sheet = Lot("a", "Sheet", LotUnit.DM2, 4.6, 0.4, length_mm=700, width_mm=500)
    >>> wing = Part("wing", "Wing", Pedigree.CALCULATED, uses=(Use("a", 16.0),), pieces=2)
    >>> (job,), _ = jobs(Build("b", "B", lots=(sheet,), parts=(wing,)), Knife())
    >>> [(piece.number, piece.blank.outline.bounds) for piece in job.pieces]
    [(1, (0.0, 0.0, 400.0, 200.0)), (2, (0.0, 0.0, 400.0, 200.0))]
    """
    told, unlaid = [], []
    for lot in build.lots:
        if lot.unit is not LotUnit.DM2:
            continue
        cut = [part for part in build.parts if _is_cut(part, lot, only)]
        if lot.length_mm is None or lot.width_mm is None:
            unlaid += [NotLaid(part.id, part.name, lot.name) for part in cut]
        elif cut:
            told.append(_job(lot, Sheet(lot.length_mm, lot.width_mm), cut, knife))
    if sum(len(job.pieces) for job in told) > MOST_BLANKS:
        raise _too_many()
    return tuple(told), tuple(unlaid)


def _too_many() -> BuildFaultError:
    words = f"come to more than {MOST_BLANKS} pieces; lay some of them at a time"
    return BuildFaultError([Fault("parts", words)])


def _is_cut(part: Part, lot: Lot, only: Collection[str] | None) -> bool:
    if part.retired or (only is not None and part.id not in only):
        return False
    main = next((use for use in part.uses if use.amount > 0), None)
    is_here = any(use.lot == lot.id and use.amount > 0 for use in part.uses)
    return is_here and (part.pattern is None or (main is not None and main.lot == lot.id))


def _job(lot: Lot, sheet: Sheet, parts: Sequence[Part], knife: Knife) -> Job:
    within = room(sheet, knife)
    if min(within.length_mm, within.width_mm) <= 0:
        most = min(sheet.length_mm, sheet.width_mm) / 2
        words = "is {}; on both sides that leaves nothing of {}; it must be less than {}"
        nothing_of = (mm(knife.margin_mm), lot.name, mm(most))
        raise BuildFaultError([Fault("margin_mm", words, nothing_of)])
    pieces: list[Piece] = []
    joins = []
    for part in parts:
        outline, grain, layers = _outline(part, lot)
        narrow = min(_sides(outline))
        if knife.kerf_mm >= narrow:
            words = (
                "is {}, no narrower than {} itself ({}); what a knife takes away is about {}, "
                "a hot wire {} to {}"
            )
            facts = (mm(knife.kerf_mm), part.name, mm(narrow), *USUAL_KERFS)
            raise BuildFaultError([Fault("kerf_mm", words, facts)])
        shares, join = _apart(part, outline, grain, sheet, knife)
        if join is not None:
            joins.append(join)
        many, folds = layers * part.pieces, _folds(part)
        if len(pieces) + many * len(shares) > MOST_BLANKS:
            raise _too_many()
        pieces += [
            Piece(
                part.id,
                part.name,
                number,
                many,
                k,
                len(shares),
                Blank(
                    f"{part.id}:{number}:{k}",
                    share,
                    grain is Grain.FREE,
                    lot.faces is not Faces.ONE,
                ),
                part.pattern is None,
                folds if share is outline else _within(folds, share),
            )
            for number in range(1, many + 1)
            for k, share in enumerate(shares, 1)
        ]
    return Job(lot, sheet, tuple(pieces), tuple(joins), tuple(_odd_areas(parts, lot)))


def _odd_areas(parts: Sequence[Part], lot: Lot) -> Iterator[OddArea]:
    for part in parts:
        if part.pattern is None:
            continue
        cut = shape_of(part.pattern).area * part.pattern.layers * part.pieces / 1e4
        counted = sum(use.amount for use in part.uses if use.lot == lot.id and use.amount > 0)
        if abs(cut - counted) > SAME_SHARE * counted:
            yield OddArea(part.id, part.name, round(cut, 2), round(counted, 2))


def _outline(part: Part, lot: Lot) -> tuple[Polygon, Grain, int]:
    """The outline of one piece as it lies along the grain, how it may lie, and how many layers."""
    if part.pattern is not None:
        shape = shape_of(part.pattern)
        if part.pattern.grain is Grain.ACROSS:
            shape = affinity.rotate(shape, 90, origin=(0, 0))
        return shape, part.pattern.grain, part.pattern.layers
    amount = sum(use.amount for use in part.uses if use.lot == lot.id and use.amount > 0)
    wide = sqrt(amount * 1e4 / part.pieces / PLAIN_SIDES)
    return box(0, 0, PLAIN_SIDES * wide, wide), Grain.FREE, 1


def _folds(part: Part) -> MultiLineString:
    """The lines that a part is folded along, as its outline lies along the grain."""
    if part.pattern is None or not part.pattern.folds:
        return NO_FOLDS
    lines = MultiLineString(part.pattern.folds)
    is_across = part.pattern.grain is Grain.ACROSS
    return affinity.rotate(lines, 90, origin=(0, 0)) if is_across else lines


def _within(lines: MultiLineString, part: Polygon) -> MultiLineString:
    inside = lines.intersection(part)
    found = [each for each in getattr(inside, "geoms", (inside,)) if isinstance(each, LineString)]
    return MultiLineString([each for each in found if not each.is_empty])


def _sides(shape: Polygon) -> tuple[float, float]:
    left, low, right, top = shape.bounds
    return right - left, top - low


def _apart(
    part: Part, outline: Polygon, grain: Grain, sheet: Sheet, knife: Knife
) -> tuple[tuple[Polygon, ...], Join | None]:
    """A part as it is, or, where it fits on no sheet, cut into as few equal parts as fit."""
    if fits(Blank("", outline, grain is Grain.FREE), sheet, knife):
        return (outline,), None
    within, (length, width) = room(sheet, knife), _sides(outline)
    ways = [(within.length_mm, within.width_mm)]
    if grain is Grain.FREE:
        ways.append((within.width_mm, within.length_mm))
    across, down = min(
        ((ceil(length / along - SAME_MM), ceil(width / over - SAME_MM)) for along, over in ways),
        key=lambda many: (many[0] * many[1], many[1]),
    )
    left, low = outline.bounds[0], outline.bounds[1]
    if across * down > MOST_JOINED:
        words = (
            "{} is {} by {}: it would be joined from more than {} pieces; say on the Rack how "
            "large the sheet is, or leave the part out"
        )
        facts = (part.name, mm(length), mm(width), str(MOST_JOINED))
        raise BuildFaultError([Fault("parts", words, facts)])
    xs = [left + length * k / across for k in range(across + 1)]
    ys = [low + width * k / down for k in range(down + 1)]
    shares = [
        share
        for x0, x1 in pairwise(xs)
        for y0, y1 in pairwise(ys)
        for share in _polygons(outline.intersection(box(x0, y0, x1, y1)))
    ]
    join = Join(
        part.id,
        part.name,
        round(length, 1),
        round(width, 1),
        tuple(round(x - left, 1) for x in xs[1:-1]),
        tuple(round(y - low, 1) for y in ys[1:-1]),
    )
    return tuple(shares), join


def _polygons(shape: object) -> Iterator[Polygon]:
    for each in getattr(shape, "geoms", (shape,)):
        if isinstance(each, Polygon) and each.area > 1.0:
            yield each


def cut_plan(job: Job, layout: Layout) -> CutPlan:
    """A layout of a job, piece by piece, and what it takes of the lot.

    >>> from oaken_scale.core.geometry.nesting import nest
    >>> from oaken_scale.core.model.part import Pedigree
    >>> from oaken_scale.core.model.lot import Use
    >>> sheet = Lot("a", "Sheet", LotUnit.DM2, 4.6, 0.4, length_mm=700, width_mm=500, price=3.0)
    >>> wing = Part("wing", "Wing", Pedigree.CALCULATED, uses=(Use("a", 16.0),), pieces=2)
    >>> (job,), _ = jobs(Build("b", "B", lots=(sheet,), parts=(wing,)), Knife())
    >>> *_, (_, best) = nest([piece.blank for piece in job.pieces], job.sheet)
    >>> plan = cut_plan(job, best)
    >>> plan.sheets, plan.least, plan.to_buy, plan.cost_to_buy, plan.left_mm
    (1, 1, 1, 3.0, 300.0)
    """
    by_id = {piece.blank.id: piece for piece in job.pieces}
    at_hand = job.lot.stock or 0.0
    to_buy = max(0, ceil(layout.sheets - at_hand - SAME_MM))
    area = sum(piece.blank.outline.area for piece in job.pieces)
    whole = job.sheet.length_mm * job.sheet.width_mm
    return CutPlan(
        lot=job.lot.id,
        name=job.lot.name,
        length_mm=job.sheet.length_mm,
        width_mm=job.sheet.width_mm,
        sheets=layout.sheets,
        least=job.least,
        at_hand=at_hand,
        to_buy=to_buy,
        cost_to_buy=None if job.lot.price is None else to_buy * job.lot.price,
        used_share=area / (whole * layout.sheets) if layout.sheets else 0.0,
        left_mm=round(job.sheet.length_mm - layout.reach_mm, 1) if layout.sheets else 0.0,
        pieces=tuple(_cut(by_id[each.id], each) for each in layout.laid),
        joins=job.joins,
        odd=job.odd,
    )


def cut_steps(jobs: Sequence[Job], knife: Knife, seconds: float) -> Iterator[CutStep]:
    """The best plans so far, lot after lot; each lot has a share of the time by its pieces.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> from oaken_scale.core.model.lot import Use
    >>> sheet = Lot("a", "Sheet", LotUnit.DM2, 4.6, 0.4, length_mm=700, width_mm=500)
    >>> wing = Part("wing", "Wing", Pedigree.CALCULATED, uses=(Use("a", 16.0),), pieces=2)
    >>> (job,), _ = jobs(Build("b", "B", lots=(sheet,), parts=(wing,)), Knife())
    >>> told = list(cut_steps((job,), Knife(), 1.0))
    >>> told[0].plan.sheets, told[-1].gone
    (1, 1.0)
    """
    whole = sum(len(job.pieces) for job in jobs) or 1
    done = 0
    for job in jobs:
        share, best = len(job.pieces) / whole, None
        blanks = [piece.blank for piece in job.pieces]
        for gone, layout in nest(blanks, job.sheet, knife, seconds * share):
            is_better = best is None or layout.rank < best
            best = layout.rank
            yield CutStep(
                round(done / whole + gone * share, 4), cut_plan(job, layout) if is_better else None
            )
        done += len(job.pieces)
    yield CutStep(1.0, None)


def _cut(piece: Piece, laid: Laid) -> CutPiece:
    shape = as_laid(piece.blank.outline, laid)
    inner = shape.representative_point()
    rings = (shape.exterior, *shape.interiors)
    return CutPiece(
        part=piece.part,
        name=piece.name,
        number=piece.number,
        of=piece.of,
        joined=piece.joined,
        joined_of=piece.joined_of,
        sheet=laid.sheet,
        turn_deg=laid.turn_deg,
        is_flipped=laid.is_flipped,
        is_supposed=piece.is_supposed,
        x_mm=laid.x_mm,
        y_mm=laid.y_mm,
        rings=tuple(
            tuple((round(x, 2), round(y, 2)) for x, y in ring.coords[:-1]) for ring in rings
        ),
        name_at=(round(inner.x, 1), round(inner.y, 1)),
        folds=tuple(
            tuple((round(x, 2), round(y, 2)) for x, y in line.coords)
            for line in lines_as_laid(piece.folds, piece.blank.outline, laid).geoms
        ),
    )
