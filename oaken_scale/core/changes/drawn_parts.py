"""Parts that are as the drawing has them until they are cut: the skins of surfaces and bodies."""

from collections.abc import Collection, Iterator
from dataclasses import dataclass, replace

from oaken_scale.core.changes.drawing import skins
from oaken_scale.core.geometry.body import BOARD_MM, body_panels, middle, run_mm
from oaken_scale.core.model.body import Body, Drawn
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.lot import Lot, LotUnit, Use
from oaken_scale.core.model.part import Part, Pedigree, Station
from oaken_scale.core.model.surface import Surface

MOST_LAYERS = 20
"""Most layers of one pattern."""


def parts_drawn(build: Build, drawn_id: str, lot_id: str, layers: float = 1.0) -> tuple[Part, ...]:
    """The parts that a surface or a body is made of, of a lot: panels of a sheet, or of a rod the
    run of a boom. They have no ids yet (``""``).

    Raises BuildFaultError where there is no such thing on the drawing, or no such lot.

    >>> from oaken_scale.core.model.body import BodyShape, Frame
    >>> boom = Body("boom", "Boom", BodyShape.TUBE, (Frame(200, 0, 8, 8), Frame(800, 0, 8, 8)))
    >>> rod = Lot("rod", "Rod", LotUnit.M, 20.0, 1.0)
    >>> [(p.name, p.uses[0].amount, p.station.x_mm)
    ...  for p in parts_drawn(Build("b", "B", lots=(rod,), bodies=(boom,)), "boom", "rod")]
    [('Boom', 0.6, 500.0)]
    """
    found = _on_the_drawing(build).get(drawn_id)
    if found is None:
        raise BuildFaultError([Fault("surface_id", f'there is no "{drawn_id}" on the drawing')])
    lot = next((each for each in build.lots if each.id == lot_id), None)
    if lot is None or lot.unit is LotUnit.PIECE:
        words = "say which sheet it is cut from; take one from the rack first"
        raise BuildFaultError([Fault("lot", words)])
    return tuple(_parts(found, lot, layers))


def _on_the_drawing(build: Build) -> dict[str, Surface | Body]:
    return {
        **{each.id: each for each in build.bodies},
        **{each.id: each for each in build.surfaces},
    }


def _parts(drawn: Surface | Body, lot: Lot, layers: float) -> Iterator[Part]:
    if isinstance(drawn, Surface):
        if lot.unit is not LotUnit.DM2:
            words = f"{lot.name} comes by the metre; a surface is cut from a sheet"
            raise BuildFaultError([Fault("lot", words)])
        yield from skins(drawn, lot, layers)
        return
    sides = ((-1, "left"), (1, "right")) if drawn.twin else ((1, ""),)
    for side, called in sides:
        named = f"{drawn.name}, {called}" if called else drawn.name
        if lot.unit is LotUnit.M:
            x, z = middle(drawn)
            yield _part(
                named,
                Drawn(drawn.id, called),
                Use(lot.id, round(run_mm(drawn) / 1000, 4)),
                (x, side * drawn.y_mm, z),
            )
            continue
        for panel in body_panels(drawn, lot.thickness_mm or BOARD_MM):
            out = panel.y_mm if side > 0 else panel.y_mm - 2 * drawn.y_mm
            part = _part(
                f"{named}, {panel.name}",
                Drawn(drawn.id, f"{called} {panel.name}".strip()),
                Use(lot.id, round(panel.area_dm2 * layers, 3)),
                (panel.x_mm, out, panel.z_mm),
            )
            pattern = replace(panel.pattern, layers=max(round(layers), 1))
            yield replace(part, pattern=pattern, assembly=drawn.name)


def _part(name: str, drawn: Drawn, use: Use, at: tuple[float, float, float]) -> Part:
    x, y, z = (round(each, 1) for each in at)
    return Part(
        "",
        name,
        Pedigree.CALCULATED,
        name.split(",", maxsplit=1)[0],
        uses=(use,),
        station=Station(x, y, z),
        drawn=drawn,
    )


def following(before: Build, after: Build) -> Build:
    """The build with its uncut parts as its drawing has them now.

    What the builder changed by hand stays: a part takes its new amount, outline and place only
    where it had the old ones. What was ever on a pan is cut, and what the drawing lost stands on
    its own.

    >>> from oaken_scale.core.model.body import BodyShape, Frame
    >>> boom = Body("boom", "Boom", BodyShape.TUBE, (Frame(200, 0, 8, 8), Frame(800, 0, 8, 8)))
    >>> rod = Lot("rod", "Rod", LotUnit.M, 20.0, 1.0)
    >>> before = Build("b", "B", lots=(rod,), bodies=(boom,))
    >>> parts = [replace(part, id="p") for part in parts_drawn(before, "boom", "rod")]
    >>> before = replace(before, parts=tuple(parts))
    >>> longer = replace(boom, frames=(Frame(200, 0, 8, 8), Frame(900, 0, 8, 8)))
    >>> after = following(before, replace(before, bodies=(longer,)))
    >>> [use.amount for use in after.parts[0].uses], after.parts[0].station.x_mm
    ([0.7], 550.0)
    """
    if before.surfaces == after.surfaces and before.bodies == after.bodies:
        return after
    now, was = _on_the_drawing(after), _on_the_drawing(before)
    weighed = on_a_pan(after)
    lots = {lot.id: lot for lot in after.lots}

    def as_drawn(part: Part) -> Part:
        link = part.drawn
        if link is None:
            return part
        new, old = now.get(link.of), was.get(link.of)
        if new is None:
            return replace(part, drawn=None)
        if old is None or new == old or link.is_cut or part.id in weighed or part.retired:
            return part
        return _redrawn(part, old, new, lots)

    parts = tuple(as_drawn(part) for part in after.parts)
    return after if parts == after.parts else replace(after, parts=parts)


def _redrawn(part: Part, old: Surface | Body, new: Surface | Body, lots: dict[str, Lot]) -> Part:
    """A part as the new drawing has it, where it was as the old one had it."""
    link = part.drawn
    lot = next((lots[use.lot] for use in part.uses if use.lot in lots), None)
    if lot is None:
        return part
    layers = float(part.pattern.layers) if part.pattern else 1.0
    try:
        one, other = (
            next((p for p in _parts(drawn, lot, layers) if p.drawn == link), None)
            for drawn in (old, new)
        )
    except BuildFaultError:
        return part
    if one is None or other is None:
        return part
    return replace(
        part,
        uses=other.uses if part.uses == one.uses else part.uses,
        station=other.station if part.station == one.station else part.station,
        pattern=other.pattern if part.pattern == one.pattern else part.pattern,
    )


def on_a_pan(build: Build) -> frozenset[str]:
    """The parts that were ever on a pan, by a reading that stands.

    >>> on_a_pan(Build("b", "B"))
    frozenset()
    """
    return frozenset(
        load.part for each in build.weighings if each.set_aside is None for load in each.pan.loads
    )


@dataclass(frozen=True, slots=True)
class DrawnPart:
    """A part that was made of a surface or a body: it follows the drawing unless it ``is_cut``."""

    part: str
    of: str
    is_cut: bool


def drawn_parts(build: Build) -> tuple[DrawnPart, ...]:
    """The parts on the plane that were made of the drawing.

    >>> from oaken_scale.core.model.body import BodyShape, Frame
    >>> boom = Body("boom", "Boom", BodyShape.TUBE, (Frame(200, 0, 8, 8), Frame(800, 0, 8, 8)))
    >>> rod = Lot("rod", "Rod", LotUnit.M, 20.0, 1.0)
    >>> before = Build("b", "B", lots=(rod,), bodies=(boom,))
    >>> parts = [replace(part, id="p") for part in parts_drawn(before, "boom", "rod")]
    >>> before = replace(before, parts=tuple(parts))
    >>> [(told.part, told.is_cut) for told in drawn_parts(before)]
    [('p', False)]
    """
    linked = [part for part in build.parts if part.drawn and not part.retired]
    if not linked:
        return ()
    weighed = on_a_pan(build)
    return tuple(
        DrawnPart(part.id, part.drawn.of, part.drawn.is_cut or part.id in weighed)
        for part in linked
        if part.drawn
    )


def cut(build: Build, ids: Collection[str]) -> Build:
    """The build with parts that are cut now: they follow the drawing no more.

    Raises BuildFaultError where there is no such part.

    >>> from oaken_scale.core.model.body import BodyShape, Frame
    >>> boom = Body("boom", "Boom", BodyShape.TUBE, (Frame(200, 0, 8, 8), Frame(800, 0, 8, 8)))
    >>> rod = Lot("rod", "Rod", LotUnit.M, 20.0, 1.0)
    >>> before = Build("b", "B", lots=(rod,), bodies=(boom,))
    >>> parts = [replace(part, id="p") for part in parts_drawn(before, "boom", "rod")]
    >>> before = replace(before, parts=tuple(parts))
    >>> cut(before, ["p"]).parts[0].drawn.is_cut
    True
    """
    unknown = set(ids) - {part.id for part in build.parts}
    if unknown:
        raise BuildFaultError([Fault("parts", f'there is no part "{min(unknown)}"')])
    parts = tuple(
        replace(part, drawn=replace(part.drawn, is_cut=True))
        if part.id in ids and part.drawn
        else part
        for part in build.parts
    )
    return replace(build, parts=parts)
