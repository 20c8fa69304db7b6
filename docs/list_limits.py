"""Between which numbers the figures of a throw and a flight lie, for the pages where nothing
answers: ``python -m docs.list_limits`` writes them for the field, and a test holds the two
together."""

import json
from collections.abc import Iterator
from dataclasses import asdict
from pathlib import Path
from typing import Final, get_args, get_type_hints

from oaken_scale.core.model.declared import Range
from oaken_scale.core.model.field import Throw
from oaken_scale.core.model.power import Flight

LIST: Final = Path(__file__).parents[1] / "web" / "src" / "api" / "limits.json"


def text() -> str:
    """The file as it should be."""
    limits = {each.__name__.lower(): dict(_ranges(each)) for each in (Throw, Flight)}
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
