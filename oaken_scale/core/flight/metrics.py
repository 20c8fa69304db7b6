"""The metrics of one loadout, each a value of one kind: all-up weight, wing loading,
thrust-to-weight, balance. What asks about targets goes through :data:`METRICS`."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from oaken_scale.core.flight.centre_of_gravity import (
    CentreOfGravity,
    Stations,
    centre_of_gravity,
    is_pack,
    lever_arms,
)
from oaken_scale.core.flight.verdict import Answer, Mend, chance_below, chance_within, judge
from oaken_scale.core.geometry.wing import WingFigures
from oaken_scale.core.ledger.mixture import Estimate
from oaken_scale.core.ledger.posterior import Posterior
from oaken_scale.core.model.arrays import Flags, Matrix, Vector
from oaken_scale.core.model.build import (
    BalanceUnit,
    Build,
    Loadout,
    Part,
    Target,
    TargetKind,
    Thrust,
)
from oaken_scale.core.model.recall import recalled

NO_PARTS: Final = "add the parts on the Plan"

THRUST_DOUBT: Final = 0.10
"""Doubt of a stated thrust, as a fraction, where none is given."""


KG_PER_G: Final = 1e-3


@dataclass(frozen=True, slots=True, eq=False)
class Flying:
    """What one loadout carries and how it comes out, for the answers to share."""

    build: Build
    wing: WingFigures | None
    where: Stations
    after: Posterior
    aboard: Vector
    auw_g: float
    auw_sd_g: float
    cg: CentreOfGravity | None
    fully_weighed: bool
    forms: tuple[tuple[float, float, float], ...] = ()
    """The mixture's branches: share, all-up weight and its doubt [g]."""
    disbelieving: tuple[str, ...] = ()
    """The readings that are not believed."""
    believing_g: Vector | None = None
    """Part masses if they are right, shape (N,); None where nothing is doubted."""
    unchecked_scale: str | None = None
    """A scale that felt what is aboard, and no known weight."""
    thrust: Thrust | None = None
    """This loadout's own."""
    power: tuple[float, float] | None = None
    """From its fresh pack at full throttle, one sigma [W]."""

    @property
    def thrust_sd_gf(self) -> float:
        """One sigma of its thrust [gf]; 0 where it has none."""
        if self.thrust is None:
            return 0.0
        given = self.thrust.doubt_gf
        return THRUST_DOUBT * self.thrust.thrust_gf if given is None else given

    @property
    def has_mass(self) -> bool:
        """Whether anything aboard weighs anything: before that there is nothing to tell."""
        return self.auw_g > 0

    @property
    def believed_auw_g(self) -> float | None:
        """All-up weight if the readings that are not believed are right [g]."""
        return None if self.believing_g is None else float(self.believing_g @ self.aboard)

    @property
    def believed_x_mm(self) -> float | None:
        """The CG along x then [mm from the nose]."""
        if self.believing_g is None:
            return None
        here = self.believing_g * self.aboard * self.where.placed
        total = float(here.sum())
        return float(here @ self.where.xyz[:, 0]) / total if total > 0 else None

    def target(self, kind: TargetKind) -> Target | None:
        """The build's target of a kind."""
        return next((target for target in self.build.targets if target.kind is kind), None)


def flying(
    build: Build,
    loadout: Loadout | None,
    after: Posterior,
    where: Stations,
    wing: WingFigures | None,
    been_on_pan: Vector,
    told: Estimate | None = None,
    thrust: Thrust | None = None,
    power: tuple[float, float] | None = None,
) -> Flying:
    """Work out mass and CG of a loadout. ``been_on_pan`` (N,) says which parts a pan has felt,
    ``told`` which readings are not believed; ``thrust`` and ``power`` are the loadout's own."""
    aboard = aboard_of(build, loadout)
    auw, auw_sd = after.total(aboard)
    forms: tuple[tuple[float, float, float], ...] = ()
    if told is not None and told.after is after and len(told.branches) > 1:
        here = after.parts
        forms = tuple(
            (each.share, float(aboard @ each.mean[here]), _sd(each.cov[here, here], aboard))
            for each in told.branches
        )
    return Flying(
        build=build,
        wing=wing,
        where=where,
        after=after,
        aboard=aboard,
        auw_g=auw,
        auw_sd_g=auw_sd,
        cg=centre_of_gravity(after.mass, after.mass_cov, where, aboard),
        fully_weighed=bool(aboard.any() and (been_on_pan[aboard > 0] > 0).all()),
        forms=forms,
        disbelieving=() if told is None else told.disbelieving,
        believing_g=told.believing.mass if told is not None and told.doubts else None,
        unchecked_scale=unchecked_scale(build, after, aboard),
        thrust=thrust,
        power=power,
    )


def aboard_of(build: Build, loadout: Loadout | None) -> Vector:
    """What flies with a loadout, 0 or 1, shape (N,)."""
    return _as_numbers(build.aboard(loadout))


@recalled(keep=32)
def _as_numbers(flags: tuple[bool, ...]) -> Vector:
    return np.array(flags, dtype=float)


def _sd(cov: Matrix, weight: Vector) -> float:
    return float(max(float(weight @ cov @ weight), 0.0) ** 0.5)


UNCHECKED: Final = 0.01
"""How far a scale may read off that no known weight was ever on, as a fraction of the load."""

MATTERS: Final = 0.25
"""Another value matters from so many sigma away."""


def unchecked_scale(build: Build, after: Posterior, aboard: Vector) -> str | None:
    """The scale that felt most of what is aboard while no known weight was ever on it; None where
    every scale was checked. It shows in nothing that is weighed on it."""
    pans, scale = after.of.loading, after.of.scale
    checked = set(scale[after.of.known_g > 0].tolist())
    mass = aboard * after.mass
    grams = {
        k: float(pans.felt_in(scale == k)[after.parts] @ mass)
        for k in dict.fromkeys(scale.tolist())
        if k not in checked
    }
    most = max(grams, key=lambda k: grams[k], default=None)
    return build.scales[most].id if most is not None and grams[most] > 0 else None


def _aside(plane: Flying, answer: Answer, believing: float | None, by_load: bool) -> Answer:
    """The answer with what it is if the readings that it does not believe are right, and with the
    scale that no known weight was on, each where it matters. ``by_load``: it moves with the load.
    """
    if answer.value is None or answer.sd is None:
        return answer
    if believing is not None and abs(believing - answer.value) > MATTERS * answer.sd:
        answer = replace(answer, disbelieving=plane.disbelieving, believing=believing)
    value, margin = answer.value, answer.margin
    if by_load and value is not None and margin is not None and plane.unchecked_scale is not None:
        thin = abs(margin) < UNCHECKED * abs(value)
    else:
        thin = False
    if thin:
        answer = replace(answer, unchecked_scale=plane.unchecked_scale)
    return answer


def _chance(plane: Flying, target: Target | None, per_gram: float) -> float | None:
    """The chance that a target on what goes with the mass is met, over all that may be wrong;
    ``per_gram`` of its unit. None where nothing is doubted."""
    if target is None or not plane.forms:
        return None
    return sum(
        share * chance_within(target.low, target.high, grams * per_gram, sd * per_gram)
        for share, grams, sd in plane.forms
    )


def all_up_weight(plane: Flying) -> Answer:
    """All-up weight [g]."""
    target = plane.target(TargetKind.AUW)
    if not plane.has_mass:
        return _missing(TargetKind.AUW, "g", target, NO_PARTS)
    over = plane.auw_g - target.high if target and target.high is not None else 0.0
    mends = (Mend("lighter_g", over),) if over > 0 else ()
    chance = _chance(plane, target, 1.0)
    told = judge(
        TargetKind.AUW, "g", plane.auw_g, plane.auw_sd_g, target, plane.fully_weighed, chance, mends
    )
    return _aside(plane, told, plane.believed_auw_g, by_load=True)


def wing_loading(plane: Flying) -> Answer:
    """Mass over the projected area of all main wings [g/dm2]: ``M/S``."""
    kind, unit = TargetKind.WING_LOADING, "g/dm2"
    target = plane.target(kind)
    if plane.wing is None:
        return _missing(kind, unit, target, "draw the wing on the Plan")
    if not plane.has_mass:
        return _missing(kind, unit, target, NO_PARTS)
    area = plane.wing.area_dm2
    mends: tuple[Mend, ...] = ()
    if target and target.high is not None and plane.auw_g > target.high * area:
        mends = (
            Mend("lighter_g", plane.auw_g - target.high * area),
            Mend("more_wing_dm2", plane.auw_g / target.high - area),
        )
    loading, doubt = plane.auw_g / area, plane.auw_sd_g / area
    chance = _chance(plane, target, 1 / area)
    told = judge(kind, unit, loading, doubt, target, plane.fully_weighed, chance, mends)
    believing = plane.believed_auw_g
    return _aside(plane, told, None if believing is None else believing / area, by_load=True)


def thrust_to_weight(plane: Flying) -> Answer:
    """Static thrust over all-up weight: ``T/M``.

    ``u^2 = (u_T/M)^2 + (T u_M/M^2)^2``. The chance that ``T >= r M`` is that of the normal
    ``T - r M``, which needs no linearisation.
    """
    kind, unit = TargetKind.THRUST_TO_WEIGHT, "ratio"
    if plane.thrust is None:
        return _missing(kind, unit, plane.target(kind), "state the thrust on the Plan")
    return _over_the_weight(
        plane, kind, unit, plane.thrust.thrust_gf, plane.thrust_sd_gf, "more_thrust_gf"
    )


def power_loading(plane: Flying) -> Answer:
    """Power from the fresh pack at full throttle over all-up weight [W/kg]: ``P/M``, in doubt and
    by chance as thrust-to-weight is."""
    kind, unit = TargetKind.POWER_LOADING, "W/kg"
    if plane.power is None:
        return _missing(kind, unit, plane.target(kind), "list the drive in Power")
    watts, sd = plane.power
    return _over_the_weight(plane, kind, unit, watts, sd, "more_power_w", KG_PER_G)


def _over_the_weight(
    plane: Flying,
    kind: TargetKind,
    unit: str,
    of: float,
    of_sd: float,
    more: str,
    per_g: float = 1.0,
) -> Answer:
    """What a plane has of something, one sigma, for each unit that it weighs, of which a gram is
    ``per_g``; ``more`` of it is one mend."""
    target = plane.target(kind)
    if not plane.has_mass:
        return _missing(kind, unit, target, NO_PARTS)
    weight = plane.auw_g * per_g
    ratio = of / weight
    sd = ((of_sd / weight) ** 2 + (ratio * plane.auw_sd_g / plane.auw_g) ** 2) ** 0.5
    probability = None
    mends: tuple[Mend, ...] = ()
    if target is not None:
        probability = _chance_of_ratio(plane, of / per_g, of_sd / per_g, target)
        if target.low is not None and ratio < target.low:
            mends = (
                Mend(more, target.low * weight - of),
                Mend("lighter_g", plane.auw_g - of / target.low / per_g),
            )
    told = judge(kind, unit, ratio, sd, target, plane.fully_weighed, probability, mends)
    believing = plane.believed_auw_g
    return _aside(plane, told, of / (believing * per_g) if believing else None, by_load=True)


def _chance_of_ratio(plane: Flying, of: float, of_sd: float, target: Target) -> float:
    """Probability that a ratio to the weight lies within its limit or band."""

    forms = plane.forms or ((1.0, plane.auw_g, plane.auw_sd_g),)

    def chance_under(ratio: float) -> float:
        return sum(
            share * chance_below(0.0, of - ratio * grams, (of_sd**2 + (ratio * sd) ** 2) ** 0.5)
            for share, grams, sd in forms
        )

    high = 1.0 if target.high is None else chance_under(target.high)
    low = 0.0 if target.low is None else chance_under(target.low)
    return max(high - low, 0.0)


def balance(plane: Flying) -> Answer:
    """The CG along x, in the unit of its target: % MAC, or mm from nose or leading edge."""
    kind = TargetKind.BALANCE
    target = plane.target(kind)
    default = BalanceUnit.PERCENT_MAC if plane.wing else BalanceUnit.MM_FROM_NOSE
    unit = target.balance_unit if target else default
    if plane.cg is None:
        return _missing(kind, unit, target, "give the parts their stations on the Plan")
    if plane.wing is None and unit is not BalanceUnit.MM_FROM_NOSE:
        return _missing(kind, unit, target, "draw the wing on the Plan")
    origin, size = balance_axis(unit, plane.wing)
    value, sd = (plane.cg.x_mm - origin) / size, plane.cg.x_sd_mm / size
    mends = _slide(plane, target, value, size)
    told = judge(kind, unit, value, sd, target, plane.fully_weighed, mends=mends)
    believing = plane.believed_x_mm
    other = None if believing is None else (believing - origin) / size
    return _aside(plane, told, other, by_load=False)


def balance_axis(unit: BalanceUnit, wing: WingFigures | None) -> tuple[float, float]:
    """Origin [mm from the nose] and size [mm] of one unit of a balance scale.

    >>> wing = WingFigures(20.5, 1080, 190, 200, 5.7, 195)
    >>> balance_axis(BalanceUnit.PERCENT_MAC, wing)
    (200, 1.9)
    """
    if wing is None or unit is BalanceUnit.MM_FROM_NOSE:
        return 0.0, 1.0
    if unit is BalanceUnit.MM_FROM_LEADING_EDGE:
        return wing.leading_edge_x_mm, 1.0
    return wing.mac_le_x_mm, wing.mac_mm / 100


def _slide(plane: Flying, target: Target | None, value: float, size: float) -> tuple[Mend, ...]:
    """How far the heaviest thing that may slide, or else a pack, would have to, to reach the range;
    nothing else is ever proposed to move."""
    if target is None or plane.cg is None:
        return ()
    if target.high is not None and value > target.high:
        forward_mm = (value - target.high) * size
    elif target.low is not None and value < target.low:
        forward_mm = (value - target.low) * size
    else:
        return ()
    heaviest, mass = _heaviest(plane)
    if mass <= 0:
        return ()
    placed = float(plane.after.mass @ (plane.aboard * plane.where.placed))
    return (Mend("slide_forward_mm", forward_mm * placed / mass, plane.build.parts[heaviest].id),)


def _heaviest(plane: Flying) -> tuple[int, float]:
    """The place of the heaviest thing aboard that may slide, or else of the heaviest pack, and its
    mass [g]; 0 g where there is none."""
    mass = plane.after.mass * plane.aboard
    for may in _may_move(plane.build.parts):
        here = np.where(may, mass, 0.0)
        if (here > 0).any():
            return int(here.argmax()), float(here.max())
    return 0, 0.0


@recalled(keep=8)
def _may_move(parts: tuple[Part, ...]) -> tuple[Flags, Flags]:
    """Which things with a station may slide, and which are packs, shape (N,) each."""
    placed = [part.station is not None for part in parts]
    slide = [part.slide is not None for part in parts]
    packs = [is_pack(part) for part in parts]
    return (
        np.array(placed, dtype=bool) & np.array(slide, dtype=bool),
        np.array(placed, dtype=bool) & np.array(packs, dtype=bool),
    )


Gradient = Callable[[Flying, Answer], Vector]
"""How an answer moves with each part's mass, shape (N,) [answer's unit per g]."""


def _with_the_weight(plane: Flying, answer: Answer) -> Vector:
    return plane.aboard


def _over_the_area(plane: Flying, answer: Answer) -> Vector:
    return plane.aboard / plane.wing.area_dm2 if plane.wing else plane.aboard


def _against_the_weight(plane: Flying, answer: Answer) -> Vector:
    if answer.value is None:
        return plane.aboard
    return -answer.value / plane.auw_g * plane.aboard


def _along_the_beam(plane: Flying, answer: Answer) -> Vector:
    if plane.cg is None or not answer.sd:
        return plane.aboard
    per_mm = answer.sd / plane.cg.x_sd_mm
    return lever_arms(plane.after.mass, plane.where, plane.aboard, plane.cg.x_mm) * per_mm


Bears = Callable[[Flying, Target], tuple[float, float] | None]
"""The all-up weight at which more of it breaks a target, one sigma [g]; None where none does."""


def _up_to_the_limit(plane: Flying, target: Target) -> tuple[float, float] | None:
    return None if target.high is None else (target.high, 0.0)


def _up_to_the_loading(plane: Flying, target: Target) -> tuple[float, float] | None:
    if target.high is None or plane.wing is None:
        return None
    return target.high * plane.wing.area_dm2, 0.0


def _as_the_thrust_bears(plane: Flying, target: Target) -> tuple[float, float] | None:
    if not target.low or plane.thrust is None:
        return None
    return plane.thrust.thrust_gf / target.low, plane.thrust_sd_gf / target.low


def _as_the_power_bears(plane: Flying, target: Target) -> tuple[float, float] | None:
    if not target.low or plane.power is None:
        return None
    watts, sd = plane.power
    return watts / target.low / KG_PER_G, sd / target.low / KG_PER_G


def _anything(plane: Flying, target: Target) -> tuple[float, float] | None:
    return None


@dataclass(frozen=True, slots=True)
class Metric:
    """One thing that a plane is judged by: what it is called, what it comes to for a loadout, how
    that moves with each part's mass, and how heavy a plane may be until it breaks. The words of its
    verdict are :mod:`oaken_scale.core.flight.verdict`'s, for all alike."""

    kind: TargetKind
    name: str
    evaluate: Callable[[Flying], Answer]
    gradient: Gradient
    bears: Bears
    is_always_told: bool = True
    """Else it is told of a build that has a target for it."""


METRICS: Final[dict[TargetKind, Metric]] = {
    each.kind: each
    for each in (
        Metric(TargetKind.AUW, "all-up weight", all_up_weight, _with_the_weight, _up_to_the_limit),
        Metric(
            TargetKind.WING_LOADING,
            "wing loading",
            wing_loading,
            _over_the_area,
            _up_to_the_loading,
        ),
        Metric(
            TargetKind.THRUST_TO_WEIGHT,
            "thrust-to-weight",
            thrust_to_weight,
            _against_the_weight,
            _as_the_thrust_bears,
        ),
        Metric(
            TargetKind.POWER_LOADING,
            "power loading",
            power_loading,
            _against_the_weight,
            _as_the_power_bears,
            is_always_told=False,
        ),
        Metric(TargetKind.BALANCE, "balance", balance, _along_the_beam, _anything),
    )
}
"""Every metric, in the order that they are told."""


def answers_of(plane: Flying) -> tuple[Answer, ...]:
    """What every metric comes to for one loadout."""
    return tuple(
        metric.evaluate(plane)
        for kind, metric in METRICS.items()
        if metric.is_always_told or plane.target(kind) is not None
    )


def _missing(kind: TargetKind, unit: str, target: Target | None, needs: str) -> Answer:
    """An answer that cannot be told yet."""
    if target is None:
        return Answer(kind, unit, missing=needs)
    return Answer(kind, unit, low=target.low, high=target.high, source=target.source, missing=needs)
