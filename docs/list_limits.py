"""What the pages say of the core's figures where no answer tells them: between which numbers those
of a throw and a flight lie, what a fresh pack rests at, how level flight is reckoned, how loose a
lead lies. ``python -m docs.list_limits`` writes them, and a test holds the two together."""

import json
from collections.abc import Iterator
from dataclasses import asdict
from pathlib import Path
from typing import Final, get_args, get_type_hints

from oaken_scale.core.field.fit import LOOSE
from oaken_scale.core.model.declared import Range
from oaken_scale.core.model.field import Throw
from oaken_scale.core.model.power import FULL_V_PER_CELL, Flight
from oaken_scale.core.power.flight_time import LEVEL_OVER_STALL, USABLE

LIST: Final = Path(__file__).parents[1] / "web" / "src" / "api" / "limits.json"


def text() -> str:
    """The file as it should be."""
    limits: dict[str, dict[str, object]] = {
        each.__name__.lower(): dict(_ranges(each)) for each in (Throw, Flight)
    }
    limits["drive"] = {
        "full_v_per_cell": FULL_V_PER_CELL,
        "level_over_stall": LEVEL_OVER_STALL,
        "usable": USABLE,
    }
    limits["fit"] = {"loose": LOOSE}
    return json.dumps(limits, indent=2) + "\n"


def _ranges(of: type) -> Iterator[tuple[str, dict[str, float]]]:
    """Each field that says its own range, in the unit of its name."""
    for name, declared in get_type_hints(of, include_extras=True).items():
        for each in (declared, *get_args(declared)):
            for said in getattr(each, "__metadata__", ()):
                if isinstance(said, Range):
                    yield name, {end: at for end, at in asdict(said).items() if at is not None}


if __name__ == "__main__":
    LIST.write_text(text())
