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

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> wing = Part("w", "Wing", Pedigree.GUESS, stated_g=90.0)
    >>> plane = Build("b", "B", parts=(wing,))
    >>> told = adopted_variant(plane, Build("v", "V", variant_of="b"), datetime(2026, 5, 1))
    >>> told.id, told.parts[0].retired
    ('b', True)
    """
    kept = {part.id for part in variant.parts}
    gone = tuple(
        replace(part, retired=True, retired_at=part.retired_at or at)
        for part in build.parts
        if part.id not in kept
    )
    return replace(
        variant,
        id=build.id,
        name=build.name,
        variant_of=build.variant_of,
        parts=(*variant.parts, *gone),
        lots=_with_those_of(variant.lots, build.lots),
        scales=_with_those_of(variant.scales, build.scales),
        joints=_with_those_of(build.joints, variant.joints),
        checks=_with_those_of(build.checks, variant.checks),
        diary=_with_those_of(build.diary, variant.diary),
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
