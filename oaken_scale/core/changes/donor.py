"""A donor's weights, as they stand on a scrap of cardboard, for the first budget of the next plane:
no plane is made of it."""

from collections import defaultdict
from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Final

from oaken_scale.core.model.amount import grams
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.kind_named import place_in_budget
from oaken_scale.core.model.mass_in_words import WEIGHED
from oaken_scale.core.model.part import Group, Part
from oaken_scale.core.model.part_line import METRIC, Units, part_of_line
from oaken_scale.core.model.reference_build import ReferenceBuild, ReferencePart
from oaken_scale.core.model.target import Allotment, Budget

MOST_LINES: Final = 200
"""So many lines of a list are read at once."""
EXAMPLE: Final = grams(28.0)


@dataclass(frozen=True, slots=True)
class DonorPart:
    """A line of a donor's list: what it is, its assembly, its grams, and its place in a budget;
    ``is_sorted`` unless nothing in its name said where it belongs."""

    name: str
    assembly: str
    grams: float
    group: Group
    is_sorted: bool


def donor_parts(lines: str, units: Units = METRIC) -> tuple[DonorPart, ...]:
    """A donor's parts, one a line: "Motor 28 g", "2 x 9 g" of one, "in power" where its name does
    not say where it belongs, or "in Wing" for its assembly.

    Raises BuildFaultError on ``lines.<number>``, in words that say what was not understood.

    >>> told = donor_parts("Left wing 92 g\\nThing 4 g in foam")
    >>> [(part.name, part.grams, part.group.value) for part in told]
    [('Left wing', 92.0, 'foam'), ('Thing', 4.0, 'foam')]
    """
    told = tuple(_parts(lines, units))
    if not told:
        words = "write a part on each line, like Motor {}"
        raise BuildFaultError([Fault("lines", words, (EXAMPLE,))])
    return told


def _parts(lines: str, units: Units) -> Iterator[DonorPart]:
    said = [(k, line.strip()) for k, line in enumerate(lines.splitlines(), 1) if line.strip()]
    if len(said) > MOST_LINES:
        words = f"are {len(said)}; at most {MOST_LINES} at once"
        raise BuildFaultError([Fault("lines", words)])
    for k, line in said:
        try:
            part = part_of_line(line, (), units)
        except BuildFaultError as error:
            raise BuildFaultError([replace(error.faults[0], field=f"lines.{k}")]) from error
        if part.stated_g is None:
            facts = (line[:60], line.split()[0], EXAMPLE)
            raise BuildFaultError([Fault(f"lines.{k}", 'say what "{}" weighs, like {} {}', facts)])
        name = WEIGHED.sub("", part.name)
        group = _said(part) or place_in_budget(name)
        is_group = part.assembly.lower() in (each.value for each in Group)
        yield DonorPart(
            name,
            name if is_group else part.assembly or name,
            part.stated_g,
            group or Group.REST,
            group is not None,
        )


def _said(part: Part) -> Group | None:
    return next((each for each in Group if each.value == part.assembly.lower()), None)


def measured_by_donor(build: Build, name: str, parts: tuple[DonorPart, ...]) -> Build:
    """The build with a donor's weights as its budget, and measured by it stage by stage.

    >>> donor = donor_parts("Left wing 92 g\\nMotor 28 g")
    >>> told = measured_by_donor(Build("b", "B"), "the donor", donor)
    >>> [(each.group.value, each.grams) for each in told.budget.allotments]
    [('foam', 92.0), ('power', 28.0)]
    """
    grams: dict[Group, float] = defaultdict(float)
    stages: dict[str, float] = defaultdict(float)
    for part in parts:
        grams[part.group] += part.grams
        stages[part.assembly] += part.grams
    allotments = tuple(Allotment(each, round(grams[each], 2)) for each in Group if each in grams)
    reference = ReferenceBuild(
        name, tuple(ReferencePart(each, round(g, 2)) for each, g in stages.items())
    )
    return replace(build, budget=Budget(allotments, f"as {name} weighs"), reference_build=reference)
