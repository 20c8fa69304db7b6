"""What is done with variants of a plane."""

from dataclasses import replace
from datetime import datetime
from typing import Protocol, TypeVar

from oaken_scale.core.model.build import Build
from oaken_scale.core.model.field import FieldLog
from oaken_scale.core.model.power import Power


class _Named(Protocol):
    @property
    def id(self) -> str:
        """Its id."""
        ...


Thing = TypeVar("Thing", bound=_Named)


def adopted_variant(build: Build, variant: Build, at: datetime) -> Build:
    """The build with a variant's plan, taken over at a time: its parts, drawing, targets and drive.

    What it has no more retires. The build keeps its own log: readings, checks, joints, what
    happened, runs and flights; those that only the variant has come along.

    >>> from oaken_scale.core.model.build import Item, Pedigree
    >>> wing = Item("w", "Wing", Pedigree.GUESS, stated_g=90.0)
    >>> plane = Build("b", "B", items=(wing,))
    >>> told = adopted_variant(plane, Build("v", "V", variant_of="b"), datetime(2026, 5, 1))
    >>> told.id, told.items[0].retired
    ('b', True)
    """
    kept = {item.id for item in variant.items}
    gone = tuple(
        replace(item, retired=True, retired_at=item.retired_at or at)
        for item in build.items
        if item.id not in kept
    )
    return replace(
        variant,
        id=build.id,
        name=build.name,
        variant_of=build.variant_of,
        items=(*variant.items, *gone),
        lots=_with_those_of(variant.lots, build.lots),
        scales=_with_those_of(variant.scales, build.scales),
        joints=_with_those_of(build.joints, variant.joints),
        checks=_with_those_of(build.checks, variant.checks),
        happenings=_with_those_of(build.happenings, variant.happenings),
        weighings=_with_those_of(build.weighings, variant.weighings),
        power=_drive(build.power, variant.power),
        field=_field(build.field, variant.field),
    )


def _with_those_of(first: tuple[Thing, ...], other: tuple[Thing, ...]) -> tuple[Thing, ...]:
    """What one has, and what only the other has."""
    there = {each.id for each in first}
    return (*first, *(each for each in other if each.id not in there))


def _field(own: FieldLog, of_variant: FieldLog) -> FieldLog:
    """A variant's controls, with what was thrown, ticked and noted of both."""
    return FieldLog(
        controls=of_variant.controls,
        throws=_with_those_of(own.throws, of_variant.throws),
        ticks=_with_those_of(own.ticks, of_variant.ticks),
        stances=_with_those_of(own.stances, of_variant.stances),
        own_lines=_with_those_of(own.own_lines, of_variant.own_lines),
        notes=_with_those_of(own.notes, of_variant.notes),
    )


def _drive(own: Power | None, of_variant: Power | None) -> Power | None:
    """A variant's drive with what was run and flown of the build's own."""
    if own is None or of_variant is None:
        return of_variant or own
    return replace(
        of_variant,
        packs=_with_those_of(of_variant.packs, own.packs),
        propellers=_with_those_of(of_variant.propellers, own.propellers),
        runs=_with_those_of(own.runs, of_variant.runs),
        flights=_with_those_of(own.flights, of_variant.flights),
    )
