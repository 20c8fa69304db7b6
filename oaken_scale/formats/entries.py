"""What a phone sends home from the field, one entry at a time or as the file of a field card."""

import json
from dataclasses import dataclass
from typing import Annotated, Any, Final, Literal

from pydantic import Field, TypeAdapter
from pydantic import ValidationError as PydanticValidationError

from oaken_scale.core.changes.outing import Bent, Entry, SetAside
from oaken_scale.core.model.declared import Id, Words
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.field import Note, OwnLine, Throw, Tick
from oaken_scale.core.model.power import Flight
from oaken_scale.formats.documents import (
    FlightDoc,
    NoteDoc,
    OwnLineDoc,
    SettingDoc,
    ThrowDoc,
    TickDoc,
)
from oaken_scale.formats.fields import Edge
from oaken_scale.formats.wording import field_faults

CARD: Final = "oaken-scale/field-card"
MOST_ENTRIES: Final = 5_000
LARGEST_CARD: Final = 4 * 1024 * 1024


class ThrowEntry(ThrowDoc):
    """A throw."""

    entry: Literal["throw"]


class FlightEntry(FlightDoc):
    """A flight."""

    entry: Literal["flight"]


class TickEntry(TickDoc):
    """A line ticked, or opened again."""

    entry: Literal["tick"]


class NoteEntry(NoteDoc):
    """A note."""

    entry: Literal["note"]


class OwnLineEntry(OwnLineDoc):
    """A line of one's own for the list."""

    entry: Literal["own_line"]


class BentEntry(Edge):
    """Controls and tabs set anew."""

    entry: Literal["bent"]
    settings: Annotated[tuple[SettingDoc, ...], Field(min_length=1, max_length=20)]


class SetAsideEntry(Edge):
    """A throw or a flight set aside, or (null) taken back in; a note done; a line taken off."""

    entry: Literal["set_aside"]
    id: Id
    reason: Words | None


EntryDoc = Annotated[
    ThrowEntry | FlightEntry | TickEntry | NoteEntry | OwnLineEntry | BentEntry | SetAsideEntry,
    Field(discriminator="entry"),
]

_DOC: Final[TypeAdapter[Any]] = TypeAdapter(EntryDoc)
_CORE: Final[dict[str, TypeAdapter[Any]]] = {
    "throw": TypeAdapter(Throw),
    "flight": TypeAdapter(Flight),
    "tick": TypeAdapter(Tick),
    "note": TypeAdapter(Note),
    "own_line": TypeAdapter(OwnLine),
    "bent": TypeAdapter(Bent),
    "set_aside": TypeAdapter(SetAside),
}


def value(document: Edge) -> Entry:
    """An entry as the core has it."""
    fields = document.model_dump()
    entry: Entry = _CORE[fields.pop("entry")].validate_python(fields)
    return entry


@dataclass(frozen=True, slots=True)
class CardFile:
    """The file of a field card: the build that it is of, by id and name, and its entries, each an
    entry or what is wrong with it."""

    build: str
    name: str
    entries: tuple[Entry | tuple[Fault, ...], ...]


def read_card(data: bytes) -> CardFile:
    """Read the file that a field card gives. An entry that cannot be is told with its faults; it
    takes no other down. Raises BuildFaultError for what is no such file."""
    if len(data) > LARGEST_CARD:
        raise BuildFaultError([Fault("file", "larger than 4 MiB; no field card gives as much")])
    try:
        document = json.loads(data.decode("utf-8"))
    except (ValueError, RecursionError) as error:
        words = "not a field card's file; the card gives one under Take it home"
        raise BuildFaultError([Fault("file", words)]) from error
    if not isinstance(document, dict) or document.get("format") != CARD:
        given = document.get("format") if isinstance(document, dict) else None
        words = f'is {given!r}; the file of a field card says "{CARD}"'
        raise BuildFaultError([Fault("format", words)])
    if document.get("version") != 1 or isinstance(document.get("version"), bool):
        words = f"is {document.get('version')!r}; this one reads version 1"
        raise BuildFaultError([Fault("version", words)])
    rows = document.get("entries")
    if not isinstance(rows, list) or len(rows) > MOST_ENTRIES:
        raise BuildFaultError([Fault("entries", f"should be a list of {MOST_ENTRIES:,} at most")])
    build, name = document.get("build"), document.get("name")
    if not isinstance(build, str) or not isinstance(name, str):
        raise BuildFaultError([Fault("build", "should say which build the card is of")])
    return CardFile(build, name[:80], tuple(_entry(row) for row in rows))


def _entry(row: object) -> Entry | tuple[Fault, ...]:
    try:
        return value(_DOC.validate_json(json.dumps(row)))
    except PydanticValidationError as error:
        return tuple(field_faults(error.errors()))
    except (ValueError, RecursionError):
        return (Fault("entry", "cannot be read"),)
