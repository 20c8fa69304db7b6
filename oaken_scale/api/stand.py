"""The thrust stand of each build: the stand-in's, or one on a cable, and what it shows now."""

import threading
import time
import zlib
from dataclasses import dataclass

from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.power import FULL_V_PER_CELL, Pack, Power, Propeller
from oaken_scale.core.power.drive_aboard import drive_estimate
from oaken_scale.core.power.drive_estimate import one_of_them
from oaken_scale.core.power.drive_readings import pack_of, propeller_of, rest_v
from oaken_scale.core.power.drive_train import DriveTrain
from oaken_scale.devices.serial_stand import SerialStand
from oaken_scale.devices.simulated_stand import SimulatedStand
from oaken_scale.devices.stand_line import StandLine, stand_pattern
from oaken_scale.workshop import Workshop


@dataclass(frozen=True, slots=True)
class StandState:
    """A build's stand: whether there is one to be read, whether it is the stand-in, whether it is
    on, with which pack and propeller, and its throttle, 0 to 1."""

    there: bool
    simulated: bool
    on: bool = False
    pack: str | None = None
    propeller: str | None = None
    throttle: float = 0.0


@dataclass(frozen=True, slots=True)
class StandShown:
    """What a stand shows, and the thrust that is expected of it then [gf], one sigma."""

    line: StandLine
    expected_gf: float | None
    expected_sd_gf: float | None


@dataclass(slots=True)
class _OnStand:
    state: StandState
    device: SimulatedStand | SerialStand


class Stands:
    """The stands of all builds, shared by every page that is open."""

    def __init__(self, workshop: Workshop) -> None:
        """None is on."""
        self._workshop = workshop
        self._on: dict[str, _OnStand] = {}
        self._hidden: dict[tuple[str, Pack, Propeller], DriveTrain] = {}
        self._turn = threading.RLock()

    def state(self, build_id: str) -> StandState:
        """A build's stand."""
        build = self._workshop.held(build_id).build
        with self._turn:
            running = self._on.get(build_id)
            return running.state if running is not None else _at_rest(build)

    def start(self, build_id: str, pack: str, propeller: str) -> StandState:
        """Switch the stand on with a pack and a propeller, the throttle closed.

        Raises BuildFaultError where there is none to be read, or no such pack.
        """
        build = self._workshop.held(build_id).build
        power, rest = build.power, _at_rest(build)
        if power is None or not rest.there:
            words = "no stand is read here; type the points, or say on which port yours is"
            raise BuildFaultError([Fault("stand", words)])
        pack_of(power, pack), propeller_of(power, propeller)
        self.stop(build_id)
        state = StandState(True, rest.simulated, True, pack, propeller)
        running = _OnStand(state, self._device(build, power, state))
        with self._turn:
            self._on[build_id] = running
        return state

    def throttle(self, build_id: str, setting: float) -> StandState:
        """Set the throttle of the stand-in; one on a cable is set at its own."""
        self._workshop.held(build_id)
        with self._turn:
            running = self._on.get(build_id)
            if running is None or not isinstance(running.device, SimulatedStand):
                words = "the stand-in is not on; the throttle of your own stand is set there"
                raise BuildFaultError([Fault("throttle", words)])
            state = running.state
            running.device.throttle(setting)
            running.state = StandState(
                True, state.simulated, True, state.pack, state.propeller, setting
            )
            return running.state

    def stop(self, build_id: str) -> StandState:
        """Switch it off."""
        with self._turn:
            running = self._on.pop(build_id, None)
        if running is not None and isinstance(running.device, SerialStand):
            running.device.close()
        return self.state(build_id)

    def shown(self, build_id: str) -> StandShown | None:
        """What the stand shows now; None while it is off."""
        with self._turn:
            running = self._on.get(build_id)
            line = None if running is None else _line(running.device)
        if running is None or line is None:
            return None
        expected = self._expected(build_id, running.state, line)
        return StandShown(line, *expected)

    def _expected(
        self, build_id: str, state: StandState, line: StandLine
    ) -> tuple[float | None, float | None]:
        """The thrust at the throttle that it shows, the pack as far used as it is."""
        power = self._workshop.held(build_id).build.power
        if power is None or not line.throttle or line.gone:
            return None, None
        try:
            pack = pack_of(power, state.pack or "")
            rest = rest_v(FULL_V_PER_CELL, pack, line.drawn_mah or 0.0)
            estimate = drive_estimate(power, self._workshop.held(build_id).build.thrust)
            found = estimate.predict(pack.id, state.propeller or "", line.throttle, rest)
        except BuildFaultError:  # the pack or the propeller was taken off the list meanwhile
            return None, None
        return found.thrust_gf, found.thrust_sd_gf

    def close(self) -> None:
        """Let go of the serial ports."""
        with self._turn:
            for running in self._on.values():
                if isinstance(running.device, SerialStand):
                    running.device.close()
            self._on.clear()

    def _device(
        self, build: Build, power: Power, state: StandState
    ) -> SimulatedStand | SerialStand:
        if power.stand is not None:
            try:
                return SerialStand(power.stand.port, power.stand.line, power.stand.baud)
            except ValueError as unread:
                raise BuildFaultError([Fault("power.stand.line", str(unread))]) from unread
        pack = pack_of(power, state.pack or "")
        propeller = propeller_of(power, state.propeller or "")
        where, seed = (build.id, pack, propeller), zlib.crc32(build.id.encode())
        if where not in self._hidden:
            # What is known already stays true: the hidden motor is one that it leaves possible.
            known = drive_estimate(power, build.thrust)
            self._hidden[where] = one_of_them(known, pack.id, propeller.id, FULL_V_PER_CELL, seed)
        return SimulatedStand(self._hidden[where], pack, seed)


def _line(device: SimulatedStand | SerialStand) -> StandLine | None:
    now = time.monotonic()
    if isinstance(device, SerialStand):
        return device.line(now)
    return stand_pattern("").read(device.line(now))


def _at_rest(build: Build) -> StandState:
    """What there is to be read: a stand on a cable, or the stand-in where scales are stand-ins."""
    on_cable = build.power is not None and build.power.stand is not None
    simulated = not on_cable and any(scale.simulated for scale in build.scales)
    return StandState(on_cable or simulated, simulated)
