"""The first value of a build: what its purpose and its layout suggest, to be put right."""

from oaken_scale.core.model import presets
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.whole import validated
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.target import Target, TargetKind
from oaken_scale.core.model.weighing import Scale


def begun(
    name: str,
    purpose: str = "",
    layout: str = "",
    auw_high_g: float | None = None,
    step_g: float = 0.1,
) -> Build:
    """A build with the targets that a purpose and a layout suggest, after the builder's own limit
    [g], the surfaces of the layout, one scale of a display step [g], and room for what nobody
    listed yet.

    Raises BuildFaultError for a purpose or a layout that there is not.

    >>> build = begun("Curlew", "trainer", "tractor", auw_high_g=600.0)
    >>> build.targets[0].high, len(build.targets), build.scales[0].step_g, build.parts[0].name
    (600.0, 4, 0.1, 'Still to come')
    """
    meant = presets.purpose(purpose) if purpose else None
    drawn = presets.layout(layout) if layout else None
    targets = presets.starting_targets(meant, drawn) if meant and drawn else ()
    if auw_high_g is not None:
        targets = (Target(TargetKind.AUW, high=auw_high_g, source="your own limit"), *targets)
    return validated(
        Build(
            id="new",
            name=name,
            purpose=purpose,
            layout=layout,
            parts=(Part("still-to-come", "Still to come", Pedigree.ALLOWANCE, "Not listed"),),
            surfaces=drawn.starting_surfaces if drawn else (),
            scales=(Scale("scale", "My scale", step_g=step_g),),
            targets=targets,
        )
    )
