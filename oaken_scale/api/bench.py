"""What lies on each build's pan now, and the scale under it."""

import threading
import time
import zlib
from dataclasses import dataclass, field

from oaken_scale.api.workshop import Workshop
from oaken_scale.core.assess import Expected, expect
from oaken_scale.core.build import Build, Pan, Scale
from oaken_scale.core.faults import BuildFaultError, pan_faults
from oaken_scale.core.prior import prior
from oaken_scale.devices.scale_line import ScaleLine, read_line
from oaken_scale.devices.simulated_scale import SimulatedScale


@dataclass(frozen=True, slots=True)
class PanState:
    """The pan as every page shows it: what counts, what was tared away, what it should read.

    ``turn`` rises with every change of what lies on the scale, and each line of the scale says in
    which turn it was read: so a display that has not felt a change yet is told from one that has.
    """

    scale: str
    simulated: bool
    loads: Pan
    tared: Pan
    expected: Expected | None
    turn: int


@dataclass(slots=True)
class _Bench:
    """One build's pan."""

    scale: Scale
    turn: int
    pan: Pan = field(default_factory=Pan)
    tared: Pan = field(default_factory=Pan)
    device: SimulatedScale | None = None
    masses: dict[str, float] = field(default_factory=dict)
    constants: dict[str, float] = field(default_factory=dict)


class Benches:
    """The pans of all builds, shared by every page that is open."""

    def __init__(self, workshop: Workshop) -> None:
        """All pans are empty."""
        self._workshop = workshop
        self._benches: dict[str, _Bench] = {}
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
            bench.pan = pan
            return self._tell(build, bench)

    def tare(self, build_id: str) -> PanState:
        """Zero the scale with what is on it: that no longer counts."""
        build = self._workshop.held(build_id).build
        with self._turn:
            bench = self._bench(build)
            bench.tared, bench.pan = _together(bench.tared, bench.pan), Pan()
            if bench.device is not None:
                bench.device.tare()
            return self._tell(build, bench)

    def clear(self, build_id: str) -> PanState:
        """Take everything off and zero the scale."""
        build = self._workshop.held(build_id).build
        with self._turn:
            bench = self._benches[build_id] = self._fresh(build, self._bench(build).scale)
            return self._tell(build, bench)

    def line(self, build_id: str) -> tuple[int, ScaleLine] | None:
        """What the scale shows now, and in which turn; None where readings are typed."""
        with self._turn:
            bench = self._benches.get(build_id)
            if bench is None or bench.device is None:
                return None
            return bench.turn, read_line(bench.device.line(time.monotonic()))

    def _bench(self, build: Build) -> _Bench:
        bench = self._benches.get(build.id)
        if bench is None or bench.scale not in build.scales:
            scale = build.scales[0] if build.scales else Scale("scale", "Scale", 1.0)
            bench = self._benches[build.id] = self._fresh(build, scale)
        return bench

    def _fresh(self, build: Build, scale: Scale) -> _Bench:
        before = self._benches.get(build.id)
        bench = _Bench(scale, before.turn + 1 if before else 0)
        if scale.simulated:
            seed = zlib.crc32(f"{build.id} {scale.id}".encode())
            error = ((seed % 2001) / 1000 - 1) * scale.calibration_doubt
            bench.device = SimulatedScale(
                scale.step_g, scale.capacity_g, error, scale.repeatability_g, seed
            )
            bench.masses, bench.constants = self._workshop.truth(build.id)
        return bench

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
        return PanState(scale.id, scale.simulated, bench.pan, bench.tared, expected, bench.turn)


def _together(one: Pan, other: Pan) -> Pan:
    """Two pans heaped into one."""
    loads = {load.item: 0.0 for load in (*one.loads, *other.loads)}
    samples = {sample.lot: 0.0 for sample in (*one.samples, *other.samples)}
    for load in (*one.loads, *other.loads):
        loads[load.item] += load.count
    for sample in (*one.samples, *other.samples):
        samples[sample.lot] += sample.amount
    return Pan.of(loads, samples, one.known_g + other.known_g)


def _true_load(build: Build, bench: _Bench) -> float:
    """What truly lies on a simulated pan [g]; a thing added since weighs what is believed of it."""
    believed = prior(build)
    masses = dict(zip((item.id for item in build.items), believed.mass, strict=True))
    constants = {lot.id: lot.constant for lot in build.lots}
    pan = _together(bench.pan, bench.tared)
    load = pan.known_g
    load += sum(bench.masses.get(on.item, masses.get(on.item, 0.0)) * on.count for on in pan.loads)
    load += sum(
        bench.constants.get(on.lot, constants.get(on.lot, 0.0)) * on.amount for on in pan.samples
    )
    return float(load)
