"""What the demo's planes did at the field: a page of throws, a list that a fence post opened."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta
from typing import Final

from oaken_scale.core.field.ready import BenchSays, ready_list, stance
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.field import (
    Control,
    ControlKind,
    FieldLog,
    Note,
    NoteKind,
    OwnLine,
    Seen,
    Setting,
    Stance,
    Throw,
    Tick,
)

_MEADOW: Final = datetime(2026, 2, 14, 10, 20, tzinfo=UTC)

_PAGE: Final[tuple[tuple[float, float, Seen, float, float | None], ...]] = (
    (0, 0, Seen.STALLS, 9.1, 2.3),
    (0, 0, Seen.STALLS, 10.0, 2.4),
    (-1, 0, Seen.GOOD, 13.2, 3.2),
    (-1, 0, Seen.TURNS_RIGHT, 12.1, None),
    (0, 0, Seen.STALLS, 8.7, 2.2),
    (-1, 0, Seen.GOOD, 13.9, 3.4),
    (-1, 0, Seen.TURNS_RIGHT, 12.4, 3.0),
    (-1, -1, Seen.GOOD, 14.8, 3.6),
    (-1, -1, Seen.GOOD, 12.3, 3.1),
    (-1, 0, Seen.GOOD, 13.0, None),
    (-1, -1, Seen.GOOD, 13.7, 3.3),
)
"""Tail tab and fin tab [mm], what it did, how far [m], how long [s]."""


def dunlin_field() -> FieldLog:
    """The Dunlin's page: the tail's tab helped, the fin's was luck."""
    return FieldLog(
        controls=(
            Control(
                "tail-tab", "Tail tab", ControlKind.TAB, "tail", 0.1, 0.6, 0.14, 4, 4, set_mm=-1.0
            ),
            Control(
                "fin-tab", "Fin tab", ControlKind.TAB, "fin", 0.2, 0.7, 0.16, 4, 4, set_mm=-1.0
            ),
        ),
        throws=tuple(
            Throw(
                f"throw-{k}",
                _MEADOW + timedelta(minutes=2 * k),
                "as-thrown",
                tuple(
                    Setting(control, mm) for control, mm in (("tail-tab", tail), ("fin-tab", fin))
                ),
                seen,
                far,
                1.6,
                long,
                0.8,
                auw_g=53.8,
                cg_mm=157.0,
            )
            for k, (tail, fin, seen, far, long) in enumerate(_PAGE, start=1)
        ),
        own_lines=(OwnLine("wet-grass", "Dry its nose: the clay slips when wet"),),
        notes=(
            Note("well", _MEADOW, NoteKind.WENT_WELL, "The boom stayed straight in the cold"),
            Note("wish", _MEADOW, NoteKind.WISH, "A longer nose: 16 g of clay is a lot to throw"),
            Note(
                "tape",
                _MEADOW,
                NoteKind.REMINDER,
                "Renew the leading edge tape",
                datetime(2026, 10, 1, tzinfo=UTC).date(),
            ),
        ),
    )


def night_heron_field(flown: Build, on: datetime) -> FieldLog:
    """What was ticked before the Night Heron's last flight, as it stood then."""
    controls = (
        Control("elevons", "Elevons", ControlKind.ELEVON, "wing", 0.4, 0.95, 0.2, 12, 12, 14, 12),
    )
    there = replace(flown, field=FieldLog(controls=controls))
    here: Stance = stance(there, "as-flown")
    lines = ready_list(there, "as-flown", BenchSays(), on).lines
    ticks = tuple(
        Tick(f"before-{line.id}", on, line.id, "as-flown", True, here.id, line.about)
        for line in lines
        if line.by_thumb
    )
    return FieldLog(
        controls=controls,
        ticks=ticks,
        stances=(here,),
        notes=(
            Note(
                "posts",
                on + timedelta(minutes=20),
                NoteKind.WISH,
                "A nose that can be changed on the meadow",
            ),
        ),
    )
