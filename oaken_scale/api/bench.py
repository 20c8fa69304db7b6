"""What lies on each build's pan now, and the scale under it."""

import threading
import time
import zlib
from dataclasses import dataclass, field
from typing import Final

from oaken_scale.core.assess import Expected, expect
from oaken_scale.core.ledger.prior import prior
from oaken_scale.core.ledger.scale import shows_unloaded
from oaken_scale.core.ledger.tare import OddTare, odd_at_tare
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.faults.log import pan_faults
from oaken_scale.core.model.weighing import Pan, Scale
from oaken_scale.devices.scale_line import ScaleLine, read_line
from oaken_scale.devices.serial_scale import SerialScale
from oaken_scale.devices.simulated_scale import SimulatedScale
from oaken_scale.workshop import Workshop


@dataclass(frozen=True, slots=True)
class PanState:
    """The pan as every page shows it: what counts, what was tared away, what it should read.

    ``turn`` rises with every change of what lies on the scale, and each line of the scale says in
    which turn it was read: so a display that has not felt a change yet is told from one that has.
    ``live`` says that its scale is read here, ``note`` what was odd when it was tared;
    ``unread`` why a scale on its cable cannot be read.
    """

    scale: str
    simulated: bool
    loads: Pan
    tared: Pan
    expected: Expected | None
    turn: int
    live: bool
    note: OddTare | None
    unread: str | None = None


UNHEARD_S: Final = 60.0
"""A scale that no page has looked at for so long is let go of [s]."""

REST_EVERY_S: Final = 15.0


@dataclass(slots=True)
class _Bench:
    """One build's pan."""

    scale: Scale
    turn: int
    pan: Pan = field(default_factory=Pan)
    tared: Pan = field(default_factory=Pan)
    device: SimulatedScale | SerialScale | None = None
    note: OddTare | None = None
    unread: str | None = None
    heard_at: float = field(default_factory=time.monotonic)
    masses: dict[str, float] = field(default_factory=dict)
    constants: dict[str, float] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Shown:
    """A line of the scale, the turn of the pan in which it was read, and whether it is ``astray``:
    more than nothing on a pan that should be empty."""

    turn: int
    line: ScaleLine
    astray: bool


class Benches:
    """The pans of all builds, shared by every page that is open."""

    def __init__(self, workshop: Workshop) -> None:
        """All pans are empty."""
        self._workshop = workshop
        self._benches: dict[str, _Bench] = {}
        self._ports: dict[str, SerialScale] = {}
        self._turn = threading.RLock()

    def state(self, build_id: str) -> PanState:
        """What is on a build's pan."""
        build = self._workshop.held(build_id).build
        with self._turn:
            return self._state(build, self._bench(build))

    def put(self, build_id: str, pan: Pan, scale_id: str | None) -> PanState:
        """Have exactly this on the pan, besides what was tared away."""
        build = self._workshop.held(build_id).build
        found = tuple(pan_faults(build, pan, scale_id))
        if found:
            raise BuildFaultError(found)
        with self._turn:
            bench = self._bench(build)
            if scale_id is not None and scale_id != bench.scale.id:
                scale = next(scale for scale in build.scales if scale.id == scale_id)
                bench = self._benches[build_id] = self._fresh(build, scale)
            bench.pan, bench.note = pan, None
            return self._tell(build, bench)

    def tare(self, build_id: str) -> PanState:
        """Zero the scale with what is on it: that no longer counts."""
        build = self._workshop.held(build_id).build
        with self._turn:
            bench = self._bench(build)
            note = self._odd_at_tare(build, bench)
            bench.tared, bench.pan = _together(bench.tared, bench.pan), Pan()
            bench.note = note
            if bench.device is not None:
                bench.device.tare()
            return self._tell(build, bench)

    def clear(self, build_id: str) -> PanState:
        """Take everything off and zero the scale."""
        build = self._workshop.held(build_id).build
        with self._turn:
            bench = self._benches[build_id] = self._fresh(build, self._bench(build).scale)
            return self._tell(build, bench)

    def recorded(self, build_id: str, pan: Pan) -> None:
        """Clear the pan whose reading was kept; what was put on in its place since stays."""
        build = self._workshop.held(build_id).build
        with self._turn:
            if self._bench(build).pan == pan:
                self.clear(build_id)

    def line(self, build_id: str) -> Shown | None:
        """What the scale shows now, and in which turn; None where readings are typed."""
        with self._turn:
            bench = self._benches.get(build_id)
            if bench is None or bench.device is None:
                return None
            line = _line_of(bench.device)
            empty = bench.pan == Pan() and not line.over and not line.gone
            astray = empty and line.steady and shows_unloaded(bench.scale, line.reading_g)
            return Shown(bench.turn, line, astray)

    def rest(self) -> None:
        """Let go of the ports of scales that no page has looked at for a while, and on which
        nothing lies or was tared away: another program may want them. They are taken up again by
        whoever looks next."""
        now = time.monotonic()
        with self._turn:
            for build_id, bench in self._benches.items():
                if self._workshop.broadcast.is_heard(build_id):
                    bench.heard_at = now
                elif (
                    isinstance(bench.device, SerialScale)
                    and now - bench.heard_at > UNHEARD_S
                    and (bench.pan, bench.tared) == (Pan(), Pan())
                    and not bench.device.is_tared
                ):
                    bench.device = None
            self._let_go()

    def _let_go(self) -> None:
        """Close the ports that no bench reads any more."""
        read = {id(bench.device) for bench in self._benches.values()}
        for port in [port for port, reader in self._ports.items() if id(reader) not in read]:
            self._ports.pop(port).close()

    def close(self) -> None:
        """Let go of the serial ports."""
        for device in self._ports.values():
            device.close()

    def _odd_at_tare(self, build: Build, bench: _Bench) -> OddTare | None:
        """What was on the pan when it was tared that nobody put on the list."""
        if bench.device is None:
            return None
        shown = _line_of(bench.device)
        if shown.gone or shown.over:
            return None
        return odd_at_tare(build, bench.pan, bench.scale.id, shown.reading_g)

    def _bench(self, build: Build) -> _Bench:
        bench = self._benches.get(build.id)
        if bench is None or bench.scale not in build.scales:
            scale = build.scales[0] if build.scales else Scale("scale", "Scale", 1.0)
            bench = self._benches[build.id] = self._fresh(build, scale)
            self._let_go()
        if bench.scale.port and bench.device is None and bench.unread is None:
            bench.heard_at, bench.device = time.monotonic(), self._on_cable(bench.scale)
        there = _still_there(build, bench.pan), _still_there(build, bench.tared)
        if there != (bench.pan, bench.tared):
            bench.pan, bench.tared = there
            bench.turn += 1
            if bench.device is not None:
                bench.device.put(_true_load(build, bench))
        return bench

    def _fresh(self, build: Build, scale: Scale) -> _Bench:
        before = self._benches.get(build.id)
        bench = _Bench(scale, before.turn + 1 if before else 0)
        if scale.port:
            try:
                bench.device = self._on_cable(scale)
            except ValueError as unread:
                bench.unread = f"{scale.name} on its cable cannot be read: {unread}"
        elif scale.simulated:
            seed = zlib.crc32(f"{build.id} {scale.id}".encode())
            error = ((seed % 2001) / 1000 - 1) * scale.calibration_doubt
            bench.device = SimulatedScale(
                scale.step_g, scale.capacity_g, error, scale.repeatability_g, seed
            )
            bench.masses, bench.constants = self._workshop.truth(build.id)
        return bench

    def _on_cable(self, scale: Scale) -> SerialScale:
        """The reader of a scale's port; one reader for every build that names the port."""
        reader = self._ports.get(scale.port)
        wanted = (scale.port, scale.line, scale.baud)
        if reader is None or reader.asked != wanted or reader.ended:
            if reader is not None:
                reader.close()
            reader = self._ports[scale.port] = SerialScale(
                scale.port, scale.line, scale.baud, scale.step_g
            )
        return reader

    def _tell(self, build: Build, bench: _Bench) -> PanState:
        bench.turn += 1
        if bench.device is not None:
            bench.device.put(_true_load(build, bench))
        state = self._state(build, bench)
        self._workshop.broadcast.tell(build.id, "pan", state)
        return state

    def _state(self, build: Build, bench: _Bench) -> PanState:
        empty = bench.pan == Pan()
        expected = None if empty or not build.scales else expect(build, bench.pan, bench.scale.id)
        scale = bench.scale
        return PanState(
            scale=scale.id,
            simulated=scale.simulated and not scale.port,
            loads=bench.pan,
            tared=bench.tared,
            expected=expected,
            turn=bench.turn,
            live=bench.device is not None,
            note=bench.note,
            unread=bench.unread,
        )


def _line_of(device: SimulatedScale | SerialScale) -> ScaleLine:
    now = time.monotonic()
    if isinstance(device, SerialScale):
        return device.line(now)
    return read_line(device.line(now))


def _still_there(build: Build, pan: Pan) -> Pan:
    """A pan without what is no part or lot of the build any more: removed, or taken off."""
    parts = {part.id for part in build.parts if not part.retired}
    lots = {lot.id for lot in build.lots}
    if all(on.part in parts for on in pan.loads) and all(on.lot in lots for on in pan.samples):
        return pan
    return Pan(
        tuple(on for on in pan.loads if on.part in parts),
        tuple(on for on in pan.samples if on.lot in lots),
        pan.known_g,
    )


def _together(one: Pan, other: Pan) -> Pan:
    """Two pans heaped into one."""
    loads = {load.part: 0.0 for load in (*one.loads, *other.loads)}
    samples = {sample.lot: 0.0 for sample in (*one.samples, *other.samples)}
    for load in (*one.loads, *other.loads):
        loads[load.part] += load.count
    for sample in (*one.samples, *other.samples):
        samples[sample.lot] += sample.amount
    return Pan.of(loads, samples, one.known_g + other.known_g)


def _true_load(build: Build, bench: _Bench) -> float:
    """What truly lies on a simulated pan [g]; a thing added since weighs what is believed of it."""
    believed = prior(build)
    masses = dict(zip((part.id for part in build.parts), believed.mass, strict=True))
    constants = {lot.id: lot.constant for lot in build.lots}
    pan = _together(bench.pan, bench.tared)
    load = pan.known_g
    load += sum(bench.masses.get(on.part, masses.get(on.part, 0.0)) * on.count for on in pan.loads)
    load += sum(
        bench.constants.get(on.lot, constants.get(on.lot, 0.0)) * on.amount for on in pan.samples
    )
    return float(load)
