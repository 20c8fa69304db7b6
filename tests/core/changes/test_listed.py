"""The parts of a list on a build: those that it has stay, and there is room for so many."""

import pytest

from oaken_scale.core.changes.listed import with_listed_parts
from oaken_scale.core.model import limits
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.part import Part, Pedigree


def part(name: str, id: str = "") -> Part:
    return Part(id, name, Pedigree.GUESS, stated_g=1.0)


@pytest.mark.parametrize(("more", "fits"), [(3, True), (4, False)])
def test_a_list_fills_a_build_up_to_the_last_part(more, fits):
    """One line is of a part that is there, and takes no room."""
    there = tuple(part(f"Rib {k}", f"rib-{k}") for k in range(limits.PARTS - 3))
    lines = [part("rib 0"), *(part(f"Fin {k}") for k in range(more))]
    if fits:
        after = with_listed_parts(Build("b", "B", parts=there), lines)
        assert len(after.parts) == limits.PARTS
        assert [each.id for each in after.parts[-3:]] == ["fin-0", "fin-1", "fin-2"]
    else:
        with pytest.raises(BuildFaultError, match="would make 2001 parts; at most 2000"):
            with_listed_parts(Build("b", "B", parts=there), lines)
