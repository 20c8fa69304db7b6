"""Whatever may be typed of a plane is told in figures: drawn from what the core declares, to both
ends of each range."""

from dataclasses import replace
from math import isfinite

from hypothesis import HealthCheck, assume, given, settings
from hypothesis import strategies as st
from numpy.linalg import LinAlgError
from pydantic import TypeAdapter

from oaken_scale.core.assess import Assessment, assess
from oaken_scale.core.model.balancing import BalanceCheck, Ballast
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.faults.whole import faults
from oaken_scale.core.model.lot import Lot, Use
from oaken_scale.core.model.part import Part, Pedigree, Slide
from oaken_scale.core.model.power import Pack, Power
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.model.target import Target
from oaken_scale.core.model.weighing import Load, Pan, Scale, Weighing
from oaken_scale.core.trim.remedies import what_would_fix
from tests.declared import values

TOLD = TypeAdapter(Assessment)
NONE = st.none()


def some(of: st.SearchStrategy, most: int, least: int = 0) -> st.SearchStrategy:
    """A few, no two of one id."""
    return st.lists(of, min_size=least, max_size=most, unique_by=lambda each: each.id).map(tuple)


@st.composite
def parts(draw, lots: tuple[Lot, ...]) -> tuple[Part, ...]:
    """Parts with a mass, made of the lots or not; one allowance at most."""
    use = st.builds(Use, st.sampled_from([lot.id for lot in lots] or [""]), st.floats(0.01, 500))
    made = values(
        Part,
        uses=st.lists(use, max_size=len(lots), unique_by=lambda each: each.lot).map(tuple),
        **dict.fromkeys(
            ("host", "thing", "replaces", "drawn", "fit", "pattern", "elsewhere"), NONE
        ),
        retired=st.sampled_from([False, False, False, True]),
    )
    told: list[Part] = []
    for part in draw(some(made, 5, 1)):
        grams = 50.0 if part.stated_g is None and not part.uses else part.stated_g
        ends = sorted((part.slide.low_mm, part.slide.high_mm)) if part.slide else [0.0, 0.0]
        is_second = any(each.pedigree is Pedigree.ALLOWANCE for each in told)
        told.append(
            replace(
                part,
                stated_g=None if grams is None else abs(grams),
                slide=Slide(*ends) if ends[0] < ends[1] else None,
                pedigree=Pedigree.GUESS if is_second else part.pedigree,
            )
        )
    return tuple(told)


@st.composite
def surfaces(draw) -> tuple[Surface, ...]:
    """Panels of any size, sweep and taper, one behind another or on one another."""
    told = []
    for k in range(draw(st.integers(0, 3))):
        role, x, long = draw(st.sampled_from(Role)), draw(st.floats(-500, 2000)), draw(chords)
        y, z = (0.0, long) if role is Role.FIN else (long, draw(st.floats(-200, 200)))
        root = Section(x, 0.0, 0.0, draw(chords))
        tip = Section(x + draw(st.floats(-300, 300)), y, z, draw(st.floats(0, 900)))
        told.append(Surface(f"s{k}", f"S {k}", role, (root, tip)))
    return tuple(told)


chords = st.floats(0.5, 900)


@st.composite
def targets(draw) -> tuple[Target, ...]:
    told = []
    for target in draw(st.lists(values(Target), max_size=4, unique_by=lambda each: each.kind)):
        low, high = target.low, target.high
        if low is None and high is None:
            high = 30.0
        if low is not None and high is not None and low >= high:
            low = None
        told.append(replace(target, low=low, high=high))
    return tuple(told)


@st.composite
def builds(draw) -> Build:
    lots = draw(some(values(Lot, rack=NONE, adhesive=NONE, curing=NONE), 2))
    aboard = draw(parts(lots))
    ids = [part.id for part in aboard]
    options = [part.id for part in aboard if part.option]
    carried = st.lists(st.sampled_from(options), unique=True).map(tuple) if options else st.just(())
    loadouts = draw(some(values(Loadout, carries=carried), 2))
    scales = draw(some(values(Scale, port=st.just("")), 2, 1))
    on_scale = st.sampled_from([scale.id for scale in scales])
    loads = st.builds(Load, st.sampled_from(ids), st.sampled_from([1.0, 1.0, 0.5, 20.0]))
    pans = st.lists(loads, min_size=1, max_size=4, unique_by=lambda each: each.part)
    pans = pans.map(lambda loads: Pan(tuple(sorted(loads))))
    packs = some(values(Pack, part=st.sampled_from([None, *ids])), 2)
    checks = draw(
        some(
            values(
                BalanceCheck,
                loadout=st.sampled_from([None, *(each.id for each in loadouts)]),
                scale=NONE | on_scale,
                stood=st.just(()),
                reading_g=st.floats(0, 500),
                z_mm=st.floats(-100, 300),
                nose_down_deg=st.floats(-20, 20),
            ),
            2,
        )
    )
    return Build(
        "b",
        "B",
        lots=lots,
        parts=aboard,
        loadouts=loadouts,
        surfaces=draw(surfaces()),
        scales=scales,
        weighings=draw(some(values(Weighing, scale=on_scale, pan=pans, corrects=NONE), 4)),
        targets=draw(targets()),
        checks=tuple(replace(each, other_mm=each.x_mm + 20) for each in checks),
        power=draw(
            NONE | values(Power, stand=NONE, flights=st.just(()), runs=st.just(()), packs=packs)
        ),
        ballast=draw(values(Ballast)),
    )


def not_finite(told: object, path: str = "") -> list[str]:
    """Where in what is told a figure is none."""
    if isinstance(told, dict):
        return [at for key, each in told.items() for at in not_finite(each, f"{path}.{key}")]
    if isinstance(told, list | tuple):
        return [at for k, each in enumerate(told) for at in not_finite(each, f"{path}.{k}")]
    return [path] if isinstance(told, float) and not isfinite(told) else []


@given(builds())
@settings(max_examples=60, suppress_health_check=list(HealthCheck))
def test_any_sound_build_is_told_in_figures(build):
    """Where nobody's readings of tons to a tenth of a milligram leave no equation to be solved, it
    is refused; nothing else ends it."""
    assume(not faults(build))
    try:
        assessment = assess(build)
    except (BuildFaultError, LinAlgError):
        return
    assert not_finite(TOLD.dump_python(assessment)) == []
    for loadout in assessment.loadouts:
        chances = [each.probability for each in loadout.answers if each.probability is not None]
        assert all(-1e-9 <= chance <= 1 + 1e-9 for chance in chances)
    told = what_would_fix(build)
    assert told is None or not told.best or all(each.auw_g > 0 for each in told.best.loadouts)
