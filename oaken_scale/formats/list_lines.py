"""One line of a spreadsheet read as a weighing, a loadout, a throw or a run."""

import hashlib
import re
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import replace
from datetime import UTC, datetime
from typing import Final, Protocol, TypeVar

from oaken_scale.core.changes.listed import Entry
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.declared import ID
from oaken_scale.core.model.faults.fault import Fact, Fault
from oaken_scale.core.model.faults.log import weighing_faults
from oaken_scale.core.model.faults.power import power_faults
from oaken_scale.core.model.field import Seen, Setting, Throw
from oaken_scale.core.model.power import Run, RunPoint
from oaken_scale.core.model.quantity import QuantityError
from oaken_scale.core.model.weighing import Load, Pan, Sample, Weighing
from oaken_scale.formats.documents import over_limits
from oaken_scale.formats.list_columns import ListColumn, ListName
from oaken_scale.formats.list_figures import figure, is_comma_decimal
from oaken_scale.formats.parts_columns import unit_of

MOST_MARKS: Final = 4
"""So many semicolons may stand in one name."""

MASSES: Final = frozenset({"reading", "auw"})
LENGTHS: Final = frozenset({"cg"})


class CannotError(ValueError):
    """A line that cannot be taken, and why: the column (none: the line), and what is wrong."""

    def __init__(self, text: str, field: str = "", facts: tuple[Fact, ...] = ()) -> None:
        """Keep what is wrong."""
        self.fault = Fault(field, text, facts)
        super().__init__(self.fault.words)

    @classmethod
    def of(cls, fault: Fault) -> "CannotError":
        """A fault of what a line says, its field called as its column is headed."""
        return cls(fault.text, _as_headed(fault.field), fault.facts)


class Lines:
    """Reads lines of one list."""

    def __init__(
        self,
        what: ListName,
        build: Build,
        columns: Iterable[ListColumn],
        rows: Sequence[Sequence[str]],
    ) -> None:
        self.build, self.what = build, what
        self.units = {each.field: unit_of(each.heading) for each in columns if each.field}
        places = [each.at for each in columns if each.field not in (None, "time", "id", "run")]
        self.comma = is_comma_decimal(row[k] for row in rows for k in places if k < len(row))
        self.now = datetime.now(UTC)
        self.seen: dict[str, int] = {}
        self.parts, self.lots = _by_name(build.parts), _by_name(build.lots)
        self.options = _by_name(part for part in build.parts if part.option)
        self.controls = _by_name(build.field.controls)
        readers: dict[ListName, Callable[[Mapping[str, str]], Entry]] = {
            ListName.WEIGHINGS: self._weighing,
            ListName.LOADOUTS: self._loadout,
            ListName.THROWS: self._throw,
            ListName.RUNS: self._run,
        }
        self._reads = readers[what]

    def read(self, cells: Mapping[str, str]) -> Entry:
        """What a line adds, by the cells of its fields. Raises CannotError where it cannot be
        taken."""
        return _within_limits(self._reads(cells))

    def _id(self, cells: Mapping[str, str], *told: object) -> str:
        """The line's own id; without one, one made of what it says and of how often it was said."""
        given = cells.get("id", "") or cells.get("run", "")
        if re.fullmatch(ID, given):
            return given
        says = "|".join(str(each) for each in told)
        self.seen[says] = self.seen.get(says, 0) + 1
        digest = hashlib.sha256(f"{self.what}|{says}|{self.seen[says]}".encode()).hexdigest()
        return f"in-{digest[:20]}"

    def _number(self, cells: Mapping[str, str], field: str) -> float | None:
        kind = "mass" if field in MASSES else "length" if field in LENGTHS else "number"
        unit = self.units.get(field) if kind != "number" else None
        try:
            return figure(cells.get(field, ""), kind, unit, self.comma)
        except QuantityError as error:
            raise CannotError(str(error), _as_headed(field)) from error

    def _at(self, cells: Mapping[str, str]) -> datetime:
        text = cells.get("time", "")
        if not text:
            return self.now
        german = re.fullmatch(
            r"(\d{1,2})\.(\d{1,2})\.(\d{4})(?:[ T,]+(\d{1,2}:\d{2}(?::\d{2})?))?", text
        )
        if german:
            day, month, year, clock = german.groups()
            text = f"{year}-{int(month):02}-{int(day):02}T{(clock or '12:00').zfill(5)}"
        try:
            read = datetime.fromisoformat(text)
        except ValueError as error:
            raise CannotError(
                f'the time "{text[:40]}" cannot be read; write 2026-03-07 09:15'
            ) from error
        return read if read.tzinfo else read.replace(tzinfo=UTC)

    def _weighing(self, cells: Mapping[str, str]) -> Weighing:
        reading = self._number(cells, "reading")
        if reading is None:
            raise CannotError("has no reading")
        scale = next(
            (
                each
                for each in self.build.scales
                if cells.get("scale", "").lower() in (each.name.lower(), each.id.lower())
            ),
            self.build.scales[0] if self.build.scales and not cells.get("scale") else None,
        )
        if scale is None:
            raise CannotError(f'there is no scale "{cells.get("scale", "")[:60]}" on the Plan')
        pan = self._pan(cells.get("pan", ""))
        at = self._at(cells)
        told = (cells.get("time", ""), round(reading, 4), scale.id, pan)
        weighing = Weighing(
            self._id(cells, *told),
            at,
            scale.id,
            reading,
            pan,
            note=cells.get("note", ""),
            typed=cells.get("typed", ""),
            set_aside=cells.get("set_aside") or None,
            accepted=bool(cells.get("accepted")),
        )
        found = next(iter(weighing_faults(self.build, weighing)), None)
        if found is not None:
            raise CannotError.of(found)
        return weighing

    def _pan(self, text: str) -> Pan:
        loads, samples, known_g = [], [], 0.0
        on_pan: Iterator[Load | Sample | float] = _each(text, self._on_pan, "part")
        for found in on_pan:
            if isinstance(found, Load):
                loads.append(found)
            elif isinstance(found, Sample):
                samples.append(found)
            else:
                known_g += found
        return Pan(tuple(sorted(loads)), tuple(sorted(samples)), known_g)

    def _on_pan(self, says: str) -> Load | Sample | float | None:
        """A part, so many of one, so much of a lot, or the grams of a known weight."""
        if (part := self.parts.get(says.lower())) is not None:
            return Load(part.id, 1)
        if known := re.fullmatch(r"([\d.,]+) g known", says):
            return _plain_number(known[1])
        sample = re.fullmatch(r"([\d.,]+) (\S+) of (.+)", says)
        if sample and (lot := self.lots.get(sample[3].strip().lower())) is not None:
            return Sample(lot.id, _plain_number(sample[1]))
        counted = re.fullmatch(r"(.+?) x ([\d.,]+)", says)
        if counted and (part := self.parts.get(counted[1].strip().lower())) is not None:
            return Load(part.id, _plain_number(counted[2]))
        return None

    def _loadout(self, cells: Mapping[str, str]) -> Loadout:
        name = cells.get("name", "")[:80]
        if not name:
            raise CannotError("has no name")
        there = _by_name(self.build.loadouts).get(name.lower())
        if there is not None:
            return there
        carried = cells.get("carries", "")
        found = _each(carried, lambda says: self.options.get(says.lower()), "option")
        carries = tuple(part.id for part in found)
        return Loadout(self._id({}, name.lower()), name, carries)

    def _throw(self, cells: Mapping[str, str]) -> Throw:
        settings = tuple(_each(cells.get("settings", ""), self._setting, "control"))
        seen = cells.get("seen", "")
        if seen and seen not in set(Seen):
            words = ", ".join(each.value for each in Seen)
            raise CannotError(f'what it did is "{seen[:40]}"; write one of {words}')
        numbers = {f: self._number(cells, f) for f in ("distance", "height", "seconds", "wind")}
        return Throw(
            self._id(cells, cells.get("time", ""), settings, seen, *numbers.values()),
            self._at(cells),
            settings=settings,
            seen=Seen(seen) if seen else None,
            distance_m=numbers["distance"],
            height_m=numbers["height"],
            seconds=numbers["seconds"],
            wind_m_s=numbers["wind"],
            note=cells.get("note", ""),
            set_aside=cells.get("set_aside") or None,
            auw_g=self._number(cells, "auw"),
            cg_mm=self._number(cells, "cg"),
        )

    def _setting(self, says: str) -> Setting | None:
        """A control, and how far it is set [mm]."""
        told = re.fullmatch(r"(.+) ([-−]?[\d.,]+)(?: mm)?", says)
        control = told and self.controls.get(told[1].strip().lower())
        if not told or control is None:
            return None
        sign = -1 if told[2][0] in "-−" else 1
        return Setting(control.id, sign * _plain_number(told[2].lstrip("-−")))

    def _run(self, cells: Mapping[str, str]) -> Run:
        power = self.build.power
        if power is None:
            raise CannotError("this build has no drive yet; choose one under Power first")
        pack = _by_name(power.packs).get(cells.get("pack", "").lower())
        propeller = _by_name(power.propellers).get(cells.get("propeller", "").lower())
        if pack is None:
            raise CannotError(f'there is no pack "{cells.get("pack", "")[:60]}" under Power')
        if propeller is None:
            raise CannotError(f'there is no propeller "{cells.get("propeller", "")[:60]}"')
        throttle = self._number(cells, "throttle")
        if throttle is None or not 0 <= throttle <= 100:
            raise CannotError("the throttle goes from 0 to 1, or from 0 to 100 per cent")
        point = RunPoint(
            throttle / 100 if throttle > 1 else throttle,
            self._number(cells, "thrust"),
            self._number(cells, "amps"),
            self._number(cells, "volts"),
            self._number(cells, "drawn") or 0.0,
        )
        given = cells.get("run", "")
        told = (given or cells.get("time", ""), pack.id, propeller.id)
        id = given if re.fullmatch(ID, given) else ""
        if not id:
            id = f"in-{hashlib.sha256(repr(told).encode()).hexdigest()[:20]}"
        run = Run(
            id,
            self._at(cells),
            pack.id,
            propeller.id,
            (point,),
            set_aside=cells.get("set_aside") or None,
        )
        alone = replace(self.build, power=replace(power, runs=(run,)))
        if found := next(iter(power_faults(alone)), None):
            raise CannotError.of(found)
        return run


def _within_limits(entry: Entry) -> Entry:
    """An entry, where all its figures are such as may be kept; what comes in one by one is held to
    the same."""
    for fault in over_limits(entry):
        raise CannotError.of(fault)
    return entry


HEADED: Final = {
    "at": "time",
    "reading_g": "reading",
    "count": "on the pan",
    "amount": "on the pan",
    "known_g": "on the pan",
    "mm": "settings",
    "distance_m": "distance",
    "height_m": "height",
    "wind_m_s": "wind",
    "auw_g": "all-up weight",
    "cg_mm": "cg from nose",
    "thrust_gf": "thrust",
    "pack_a": "amps",
    "pack_v": "volts",
    "drawn_mah": "drawn",
}
"""What the column of a field is headed, where it is not called as the field is."""


def _as_headed(field: str) -> str:
    name = next(each for each in reversed(field.split(".")) if not each.isdigit())
    return HEADED.get(name, name.replace("_", " "))


F = TypeVar("F")


def _each(text: str, read: Callable[[str], F | None], what: str) -> Iterator[F]:
    """What stands between the semicolons of a cell, one after the other; a name may have some of
    its own."""
    pieces, at = text.split(";"), 0
    while at < len(pieces):
        if not pieces[at].strip():
            at += 1
            continue
        for end in range(min(at + MOST_MARKS, len(pieces) - 1), at - 1, -1):
            found = read(";".join(pieces[at : end + 1]).strip())
            if found is not None:
                yield found
                at = end + 1
                break
        else:
            raise CannotError(f'there is no {what} "{pieces[at].strip()[:60]}"')


def _plain_number(text: str) -> float:
    try:
        return figure(text, "number", None, "," in text and "." not in text) or 0.0
    except QuantityError as error:
        raise CannotError(str(error)) from error


class _HasName(Protocol):
    @property
    def name(self) -> str: ...


N = TypeVar("N", bound=_HasName)


def _by_name(things: Iterable[N]) -> dict[str, N]:
    """Things by their names in small letters; of one name the first."""
    found: dict[str, N] = {}
    for each in things:
        found.setdefault(each.name.lower(), each)
    return found
