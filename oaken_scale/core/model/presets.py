"""Where a build starts: purposes with the targets that go with them, layouts with a first drawing.

Every figure is a habit among builders, says so, and is the builder's to change.
"""

from dataclasses import dataclass
from typing import Final, TypeVar

from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.model.target import Target, TargetKind


@dataclass(frozen=True, slots=True)
class Purpose:
    """What a plane is for, and the targets that follow: highest loading, lowest thrust; and the
    power loading that is usual [W/kg], a target where its builder wants one."""

    id: str
    name: str
    wing_loading_high: float
    thrust_to_weight_low: float | None
    thrust_source: str = ""
    watts_per_kg: tuple[float, float] | None = None

    @property
    def thrown(self) -> bool:
        """Whether it flies without a motor: then it asks for no thrust."""
        return self.thrust_to_weight_low is None


@dataclass(frozen=True, slots=True)
class Layout:
    """How a plane is laid out; ``chord_rule`` is its CG range in % MAC, None where it has none."""

    id: str
    name: str
    chord_rule: tuple[float, float] | None
    starting_surfaces: tuple[Surface, ...]


P = TypeVar("P", Purpose, Layout)

WITH_TAIL: Final = (25.0, 33.0)
FLYING_WING: Final = (15.0, 20.0)
"""Where a layout balances at first: ends of its range [% MAC]."""

PURPOSES: Final = (
    Purpose(
        "indoor",
        "Indoor flyer",
        12.0,
        0.8,
        "indoor flyers want to pull out of a stall",
        (60.0, 150.0),
    ),
    Purpose("trainer", "Trainer", 35.0, 0.5, "0.5 to 0.8 flies a trainer", (100.0, 200.0)),
    Purpose(
        "park",
        "Park flyer",
        35.0,
        0.7,
        "0.5 to 0.8 flies a trainer, a little more is brisk",
        (120.0, 300.0),
    ),
    Purpose("aerobatic", "Aerobatic", 40.0, 1.0, "about 1 does aerobatics", (200.0, 400.0)),
    Purpose(
        "camera",
        "Camera carrier",
        45.0,
        0.7,
        "0.5 to 0.8 flies a trainer; a payload wants it",
        (120.0, 300.0),
    ),
    Purpose(
        "sailplane",
        "Powered sailplane",
        25.0,
        0.3,
        "0.3 to 0.5 holds up a sailplane",
        (60.0, 150.0),
    ),
    Purpose("glider", "Hand-thrown glider", 15.0, None),
)


def _plain(
    id: str, name: str, role: Role, x_mm: float, half_mm: float, chord_mm: float, z_mm: float = 0
) -> Surface:
    """A rectangular surface."""
    sections = (Section(x_mm, 0, z_mm, chord_mm), Section(x_mm, half_mm, z_mm, chord_mm))
    return Surface(id, name, role, sections)


def _fin(x_mm: float, height_mm: float, root_mm: float, tip_mm: float) -> Surface:
    """A fin whose trailing edge stands upright."""
    return Surface("fin", "Fin", Role.FIN, _upright(x_mm, 0, 0, height_mm, root_mm, tip_mm))


def _fins(
    x_mm: float, y_mm: float, z_mm: float, height_mm: float, root_mm: float, tip_mm: float
) -> Surface:
    """A fin on either side, its trailing edge upright."""
    sections = _upright(x_mm, y_mm, z_mm, height_mm, root_mm, tip_mm)
    return Surface("fin", "Twin fins", Role.FIN, sections, twin=True)


def _upright(
    x_mm: float, y_mm: float, z_mm: float, height_mm: float, root_mm: float, tip_mm: float
) -> tuple[Section, Section]:
    top = Section(x_mm + root_mm - tip_mm, y_mm, z_mm + height_mm, tip_mm)
    return Section(x_mm, y_mm, z_mm, root_mm), top


_WING = _plain("wing", "Wing", Role.WING, 200, 500, 180)
_TAIL = _plain("tail", "Tailplane", Role.TAIL, 700, 210, 110)
_TAIL_FIN = _fin(690, 160, 120, 70)
_TAILED = (_WING, _TAIL, _TAIL_FIN)
_SWEPT = (
    Surface("wing", "Wing", Role.WING, (Section(0, 0, 0, 260), Section(230, 480, 0, 150))),
    _fins(240, 480, 0, 130, 140, 90),
)
_DELTA = (
    Surface("wing", "Wing", Role.WING, (Section(0, 0, 0, 500), Section(380, 350, 0, 120))),
    _fin(320, 190, 180, 100),
)
_CANARD = (
    _plain("wing", "Wing", Role.WING, 560, 575, 185),
    _plain("canard", "Canard", Role.CANARD, 60, 260, 120),
    _fin(585, 240, 195, 130),
)
_BIPLANE = (
    _plain("wing", "Lower wing", Role.WING, 210, 400, 150),
    # A chord above the lower one, and a fifth of it ahead: what is usual for two wings.
    _plain("upper-wing", "Upper wing", Role.WING, 180, 400, 150, 150),
    _TAIL,
    _TAIL_FIN,
)
_TANDEM = (
    _plain("wing", "Front wing", Role.WING, 80, 380, 150),
    _plain("rear-wing", "Rear wing", Role.WING, 560, 380, 150),
    _fin(600, 170, 150, 90),
)

_POLYHEDRAL: Final = (
    Surface(
        "wing",
        "Wing",
        Role.WING,
        (
            Section(220, 0, 0, 170),
            Section(220, 420, 15, 170),
            Section(245, 750, 110, 110),
        ),
    ),
    _plain("tail", "Tailplane", Role.TAIL, 820, 270, 80),
    _fin(810, 200, 110, 60),
)
_V_TAIL: Final = (
    _WING,
    Surface("tail", "V-tail", Role.TAIL, (Section(700, 0, 10, 120), Section(730, 190, 130, 90))),
)
_TWIN_FINS: Final = (
    _WING,
    _TAIL,
    _fins(690, 200, -20, 110, 90, 70),
)

LAYOUTS: Final = (
    Layout("tractor", "Conventional, motor in front", WITH_TAIL, _TAILED),
    Layout("pusher", "Conventional, motor behind", WITH_TAIL, _TAILED),
    Layout("twin", "Twin motors", WITH_TAIL, _TAILED),
    Layout("biplane", "Biplane", WITH_TAIL, _BIPLANE),
    Layout("v-tail", "V-tail", WITH_TAIL, _V_TAIL),
    Layout("twin-fins", "Twin fins on the tail", WITH_TAIL, _TWIN_FINS),
    Layout("sailplane", "Sailplane, polyhedral tips", WITH_TAIL, _POLYHEDRAL),
    Layout("glider", "Hand-thrown glider", WITH_TAIL, _TAILED),
    Layout("flying-wing", "Flying wing", FLYING_WING, _SWEPT),
    Layout("delta", "Delta", FLYING_WING, _DELTA),
    Layout("canard", "Canard, tail first", None, _CANARD),
    Layout("tandem", "Two wings, one behind the other", None, _TANDEM),
)


def purpose(id: str) -> Purpose:
    """The purpose of an id. Raises BuildFaultError when there is none.

    >>> purpose("sailplane").id
    'sailplane'
    """
    return _named("purpose", id, PURPOSES)


def layout(id: str) -> Layout:
    """The layout of an id. Raises BuildFaultError when there is none.

    >>> layout("canard").id
    'canard'
    """
    return _named("layout", id, LAYOUTS)


def _named(field: str, id: str, known: tuple[P, ...]) -> P:
    found = next((each for each in known if each.id == id), None)
    if found is None:
        ids = ", ".join(each.id for each in known)
        raise BuildFaultError([Fault(field, f'is "{id}"; it should be one of {ids}')])
    return found


def starting_targets(purpose: Purpose, layout: Layout) -> tuple[Target, ...]:
    """The targets a purpose and a layout suggest, each saying where its figure comes from.

    No weight limit is among them: the legal one is local, and the rest is the builder's.

    >>> [target.kind.value for target in starting_targets(PURPOSES[1], LAYOUTS[0])]
    ['wing_loading', 'thrust_to_weight', 'balance']
    """
    targets = [
        Target(
            TargetKind.WING_LOADING,
            high=purpose.wing_loading_high,
            source=f"habit among builders for: {purpose.name.lower()}",
        )
    ]
    if purpose.thrust_to_weight_low is not None:
        low, source = purpose.thrust_to_weight_low, f"rule of thumb: {purpose.thrust_source}"
        targets.append(Target(TargetKind.THRUST_TO_WEIGHT, low=low, source=source))
    if layout.chord_rule is not None:
        low, high = layout.chord_rule
        source = f"chord rule for: {layout.name.lower()}"
        targets.append(Target(TargetKind.BALANCE, low=low, high=high, source=source))
    return tuple(targets)
