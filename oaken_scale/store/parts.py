"""The parts of a build in the database, one collection at a time."""

import sqlite3
from collections import defaultdict
from collections.abc import Sequence
from dataclasses import replace
from datetime import datetime
from typing import Any

from oaken_scale.core.model.build import (
    Allotment,
    BalanceUnit,
    Budget,
    Container,
    Group,
    Item,
    Joint,
    Loadout,
    Pedigree,
    Profile,
    Reference,
    Role,
    Scale,
    Section,
    Slide,
    Station,
    Surface,
    Target,
    TargetKind,
)
from oaken_scale.core.model.lot import Use
from oaken_scale.store.fitting import read_fits, write_fits
from oaken_scale.store.patterns import read_drawn, read_patterns, write_drawn, write_patterns
from oaken_scale.store.rows import (
    drop_missing,
    known_from,
    known_row,
    moment,
    stamp,
    stamp_or_none,
)


def read_budget(connection: sqlite3.Connection, build_id: str, source: str | None) -> Budget | None:
    """A build's weight budget; None where it has none."""
    if source is None:
        return None
    rows = connection.execute(
        "SELECT budget_group, grams FROM allotment WHERE build_id = ? ORDER BY place", (build_id,)
    )
    return Budget(tuple(Allotment(Group(group), grams) for group, grams in rows), source)


def write_budget(connection: sqlite3.Connection, build_id: str, budget: Budget | None) -> None:
    """Write a build's weight budget anew."""
    connection.execute("DELETE FROM allotment WHERE build_id = ?", (build_id,))
    connection.execute(
        "UPDATE build SET budget_source = ? WHERE id = ?",
        (None if budget is None else budget.source, build_id),
    )
    connection.executemany(
        "INSERT INTO allotment (build_id, place, budget_group, grams) VALUES (?,?,?,?)",
        [
            (build_id, place, each.group, each.grams)
            for place, each in enumerate(budget.allotments if budget else ())
        ],
    )


def read_items(connection: sqlite3.Connection, build_id: str) -> tuple[Item, ...]:
    """A build's items, in their order."""
    uses: dict[str, list[Use]] = defaultdict(list)
    for item_id, lot_id, amount in connection.execute(
        "SELECT item_id, lot_id, amount FROM item_use WHERE build_id = ? ORDER BY item_id, place",
        (build_id,),
    ):
        uses[item_id].append(Use(lot_id, amount))
    rows = connection.execute(
        "SELECT id, name, pedigree, assembly, stated_g, doubt_g, pieces,"
        " x_mm, y_mm, z_mm, reference, doubt_mm, option, retired,"
        " thing_id, elsewhere_g, elsewhere_doubt_g, elsewhere_source, budget_group, price,"
        " host_id, replaces, added_at, retired_at, slide_low_mm, slide_high_mm"
        " FROM item WHERE build_id = ? ORDER BY place",
        (build_id,),
    )
    patterns, drawn = read_patterns(connection, build_id), read_drawn(connection, build_id)
    fits = read_fits(connection, build_id)
    more = patterns.keys() | drawn.keys() | fits.keys()
    return tuple(
        replace(
            item, pattern=patterns.get(item.id), drawn=drawn.get(item.id), fit=fits.get(item.id)
        )
        if item.id in more
        else item
        for item in (_item(row, uses) for row in rows)
    )


def _item(row: tuple[Any, ...], uses: dict[str, list[Use]]) -> Item:
    id, name, pedigree, assembly, stated, doubt, pieces, x, y, z, reference, *rest = row
    doubt_mm, option, retired, thing, elsewhere, elsewhere_doubt, found_in, group, price, *life = (
        rest
    )
    host, replaces, added, gone, low, high = life
    station = None if x is None else Station(x, y, z, Reference(reference), doubt_mm)
    return Item(
        id=id,
        name=name,
        pedigree=Pedigree(pedigree),
        assembly=assembly,
        stated_g=stated,
        uses=tuple(uses.get(id, ())),
        doubt_g=doubt,
        pieces=pieces,
        station=station,
        option=bool(option),
        retired=bool(retired),
        thing=thing,
        elsewhere=known_from(elsewhere, elsewhere_doubt, found_in),
        group=None if group is None else Group(group),
        price=price,
        host=host,
        replaces=replaces,
        added_at=moment(added),
        retired_at=moment(gone),
        slide=None if low is None else Slide(low, high),
    )


def write_items(connection: sqlite3.Connection, build_id: str, items: Sequence[Item]) -> None:
    """Write a build's items anew."""
    connection.execute("DELETE FROM item_use WHERE build_id = ?", (build_id,))
    connection.execute("DELETE FROM loadout_option WHERE build_id = ?", (build_id,))
    connection.execute("DELETE FROM joint_item WHERE build_id = ?", (build_id,))
    connection.execute("DELETE FROM happening_item WHERE build_id = ?", (build_id,))
    drop_missing(
        connection,
        "DELETE FROM item WHERE build_id = ? AND id = ?",
        "SELECT id FROM item WHERE build_id = ?",
        build_id,
        (item.id for item in items),
    )
    connection.executemany(
        "INSERT INTO item (build_id, id, place, name, pedigree, assembly, stated_g, doubt_g,"
        " pieces, x_mm, y_mm, z_mm, reference, doubt_mm, option, retired,"
        " thing_id, elsewhere_g, elsewhere_doubt_g, elsewhere_source, budget_group, price,"
        " host_id, replaces, added_at, retired_at, slide_low_mm, slide_high_mm)"
        " VALUES (?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?)"
        " ON CONFLICT DO UPDATE SET place = excluded.place, name = excluded.name,"
        " pedigree = excluded.pedigree, assembly = excluded.assembly,"
        " stated_g = excluded.stated_g, doubt_g = excluded.doubt_g, pieces = excluded.pieces,"
        " x_mm = excluded.x_mm, y_mm = excluded.y_mm, z_mm = excluded.z_mm,"
        " reference = excluded.reference, doubt_mm = excluded.doubt_mm,"
        " option = excluded.option, retired = excluded.retired, thing_id = excluded.thing_id,"
        " elsewhere_g = excluded.elsewhere_g, elsewhere_doubt_g = excluded.elsewhere_doubt_g,"
        " elsewhere_source = excluded.elsewhere_source, budget_group = excluded.budget_group,"
        " price = excluded.price, host_id = excluded.host_id, replaces = excluded.replaces,"
        " added_at = excluded.added_at, retired_at = excluded.retired_at,"
        " slide_low_mm = excluded.slide_low_mm, slide_high_mm = excluded.slide_high_mm",
        [_item_row(build_id, place, item) for place, item in enumerate(items)],
    )
    connection.executemany(
        "INSERT INTO item_use (build_id, item_id, place, lot_id, amount) VALUES (?,?,?,?,?)",
        [
            (build_id, item.id, place, use.lot, use.amount)
            for item in items
            for place, use in enumerate(item.uses)
        ],
    )
    write_patterns(connection, build_id, items)
    write_drawn(connection, build_id, items)
    write_fits(connection, build_id, items)


def _item_row(build_id: str, place: int, item: Item) -> tuple[Any, ...]:
    at = item.station
    where = (None,) * 5 if at is None else (at.x_mm, at.y_mm, at.z_mm, at.reference, at.doubt_mm)
    slide = (None, None) if item.slide is None else (item.slide.low_mm, item.slide.high_mm)
    return (
        build_id,
        item.id,
        place,
        item.name,
        item.pedigree,
        item.assembly,
        item.stated_g,
        item.doubt_g,
        item.pieces,
        *where,
        int(item.option),
        int(item.retired),
        item.thing,
        *known_row(item.elsewhere),
        item.group,
        item.price,
        item.host,
        item.replaces,
        stamp_or_none(item.added_at),
        stamp_or_none(item.retired_at),
        *slide,
    )


def read_surfaces(connection: sqlite3.Connection, build_id: str) -> tuple[Surface, ...]:
    """A build's surfaces, in their order."""
    sections: dict[str, list[Section]] = defaultdict(list)
    for surface_id, *numbers in connection.execute(
        "SELECT surface_id, x_le_mm, y_mm, z_mm, chord_mm FROM section WHERE build_id = ?"
        " ORDER BY surface_id, place",
        (build_id,),
    ):
        sections[surface_id].append(Section(*numbers))
    rows = connection.execute(
        "SELECT id, name, role, profile, thickness_mm, incidence_deg, twin"
        " FROM surface WHERE build_id = ? ORDER BY place",
        (build_id,),
    )
    return tuple(
        Surface(
            id,
            name,
            Role(role),
            tuple(sections[id]),
            None if profile is None else Profile(profile),
            thickness,
            incidence,
            bool(twin),
        )
        for id, name, role, profile, thickness, incidence, twin in rows
    )


def write_surfaces(
    connection: sqlite3.Connection, build_id: str, surfaces: Sequence[Surface]
) -> None:
    """Write a build's surfaces anew."""
    connection.execute("DELETE FROM surface WHERE build_id = ?", (build_id,))
    connection.executemany(
        "INSERT INTO surface (build_id, id, place, name, role, profile, thickness_mm,"
        " incidence_deg, twin) VALUES (?,?,?,?,?,?,?,?,?)",
        [
            (
                build_id,
                each.id,
                place,
                each.name,
                each.role,
                each.profile,
                each.thickness_mm,
                each.incidence_deg,
                int(each.twin),
            )
            for place, each in enumerate(surfaces)
        ],
    )
    connection.executemany(
        "INSERT INTO section (build_id, surface_id, place, x_le_mm, y_mm, z_mm, chord_mm)"
        " VALUES (?,?,?,?,?,?,?)",
        [
            (build_id, each.id, place, at.x_le_mm, at.y_mm, at.z_mm, at.chord_mm)
            for each in surfaces
            for place, at in enumerate(each.sections)
        ],
    )


def read_scales(connection: sqlite3.Connection, build_id: str) -> tuple[Scale, ...]:
    """A build's scales, in their order."""
    rows = connection.execute(
        "SELECT id, name, step_g, repeatability_g, calibration_doubt, capacity_g, simulated,"
        " port, line, baud FROM scale WHERE build_id = ? ORDER BY place",
        (build_id,),
    )
    return tuple(
        Scale(id, name, step, repeatability, calibration, capacity, bool(simulated), *cable)
        for id, name, step, repeatability, calibration, capacity, simulated, *cable in rows
    )


def write_scales(connection: sqlite3.Connection, build_id: str, scales: Sequence[Scale]) -> None:
    """Write a build's scales anew."""
    drop_missing(
        connection,
        "DELETE FROM scale WHERE build_id = ? AND id = ?",
        "SELECT id FROM scale WHERE build_id = ?",
        build_id,
        (scale.id for scale in scales),
    )
    connection.executemany(
        "INSERT INTO scale (build_id, id, place, name, step_g, repeatability_g,"
        " calibration_doubt, capacity_g, simulated, port, line, baud)"
        " VALUES (?,?,?,?,?,?,?,?,?,?,?,?)"
        " ON CONFLICT DO UPDATE SET place = excluded.place, name = excluded.name,"
        " step_g = excluded.step_g, repeatability_g = excluded.repeatability_g,"
        " calibration_doubt = excluded.calibration_doubt, capacity_g = excluded.capacity_g,"
        " simulated = excluded.simulated, port = excluded.port, line = excluded.line,"
        " baud = excluded.baud",
        [
            (
                build_id,
                scale.id,
                place,
                scale.name,
                scale.step_g,
                scale.repeatability_g,
                scale.calibration_doubt,
                scale.capacity_g,
                int(scale.simulated),
                scale.port,
                scale.line,
                scale.baud,
            )
            for place, scale in enumerate(scales)
        ],
    )


def read_containers(connection: sqlite3.Connection, build_id: str) -> tuple[Container, ...]:
    """A build's containers, in their order."""
    rows = connection.execute(
        "SELECT id, name, mass_g, doubt_g FROM container WHERE build_id = ? ORDER BY place",
        (build_id,),
    )
    return tuple(Container(*row) for row in rows)


def write_containers(
    connection: sqlite3.Connection, build_id: str, containers: Sequence[Container]
) -> None:
    """Write a build's containers anew."""
    connection.execute("DELETE FROM container WHERE build_id = ?", (build_id,))
    connection.executemany(
        "INSERT INTO container (build_id, id, place, name, mass_g, doubt_g) VALUES (?,?,?,?,?,?)",
        [
            (build_id, each.id, place, each.name, each.mass_g, each.doubt_g)
            for place, each in enumerate(containers)
        ],
    )


def read_loadouts(connection: sqlite3.Connection, build_id: str) -> tuple[Loadout, ...]:
    """A build's loadouts, in their order."""
    carries: dict[str, list[str]] = defaultdict(list)
    for loadout_id, item_id in connection.execute(
        "SELECT loadout_id, item_id FROM loadout_option WHERE build_id = ?"
        " ORDER BY loadout_id, place",
        (build_id,),
    ):
        carries[loadout_id].append(item_id)
    rows = connection.execute(
        "SELECT id, name FROM loadout WHERE build_id = ? ORDER BY place", (build_id,)
    )
    return tuple(Loadout(id, name, tuple(carries[id])) for id, name in rows)


def write_loadouts(
    connection: sqlite3.Connection, build_id: str, loadouts: Sequence[Loadout]
) -> None:
    """Write a build's loadouts anew."""
    connection.execute("DELETE FROM loadout WHERE build_id = ?", (build_id,))
    connection.executemany(
        "INSERT INTO loadout (build_id, id, place, name) VALUES (?,?,?,?)",
        [(build_id, each.id, place, each.name) for place, each in enumerate(loadouts)],
    )
    connection.executemany(
        "INSERT INTO loadout_option (build_id, loadout_id, place, item_id) VALUES (?,?,?,?)",
        [
            (build_id, each.id, place, item_id)
            for each in loadouts
            for place, item_id in enumerate(each.carries)
        ],
    )


def read_targets(connection: sqlite3.Connection, build_id: str) -> tuple[Target, ...]:
    """A build's targets, in their order."""
    rows = connection.execute(
        "SELECT kind, low, high, source, balance_unit FROM target WHERE build_id = ?"
        " ORDER BY place",
        (build_id,),
    )
    return tuple(
        Target(TargetKind(kind), low, high, source, BalanceUnit(unit))
        for kind, low, high, source, unit in rows
    )


def write_targets(connection: sqlite3.Connection, build_id: str, targets: Sequence[Target]) -> None:
    """Write a build's targets anew."""
    connection.execute("DELETE FROM target WHERE build_id = ?", (build_id,))
    connection.executemany(
        "INSERT INTO target (build_id, kind, place, low, high, source, balance_unit)"
        " VALUES (?,?,?,?,?,?,?)",
        [
            (build_id, t.kind, place, t.low, t.high, t.source, t.balance_unit)
            for place, t in enumerate(targets)
        ],
    )


def read_joints(connection: sqlite3.Connection, build_id: str) -> tuple[Joint, ...]:
    """A build's joints, in their order."""
    items: dict[str, list[str]] = defaultdict(list)
    for joint_id, item_id in connection.execute(
        "SELECT joint_id, item_id FROM joint_item WHERE build_id = ? ORDER BY joint_id, place",
        (build_id,),
    ):
        items[joint_id].append(item_id)
    rows = connection.execute(
        "SELECT id, name, adhesive, spread_at, close_after_s, close_by_s, handle_after_s,"
        " strong_after_s, cleared FROM joint WHERE build_id = ? ORDER BY place",
        (build_id,),
    )
    return tuple(
        Joint(
            id,
            name,
            glue,
            datetime.fromisoformat(at),
            close_after,
            close_by,
            handle_after,
            strong_after,
            tuple(items[id]),
            bool(cleared),
        )
        for id, name, glue, at, close_after, close_by, handle_after, strong_after, cleared in rows
    )


def write_joints(connection: sqlite3.Connection, build_id: str, joints: Sequence[Joint]) -> None:
    """Write a build's joints anew."""
    connection.execute("DELETE FROM joint WHERE build_id = ?", (build_id,))
    connection.executemany(
        "INSERT INTO joint (build_id, id, place, name, adhesive, spread_at, close_after_s,"
        " close_by_s, handle_after_s, strong_after_s, cleared) VALUES (?,?,?,?,?,?,?,?,?,?,?)",
        [
            (
                build_id,
                joint.id,
                place,
                joint.name,
                joint.adhesive,
                stamp(joint.spread_at),
                joint.close_after_s,
                joint.close_by_s,
                joint.handle_after_s,
                joint.strong_after_s,
                int(joint.cleared),
            )
            for place, joint in enumerate(joints)
        ],
    )
    connection.executemany(
        "INSERT INTO joint_item (build_id, joint_id, place, item_id) VALUES (?,?,?,?)",
        [
            (build_id, joint.id, place, item_id)
            for joint in joints
            for place, item_id in enumerate(joint.items)
        ],
    )
