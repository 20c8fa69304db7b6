"""Every constant of the core with what it stands for: ``python -m docs.list_constants`` writes
``docs/constants.md``, and a test holds the two together."""

import ast
import importlib
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from itertools import pairwise
from pathlib import Path
from typing import Any

CORE = Path(__file__).parents[1] / "oaken_scale" / "core"
PAGE = Path(__file__).with_name("constants.md")
HEAD = """# Constants

Every number that the core reckons with has a name beside the rule that owns it, and words that
say what it is and in what unit. This is the list of them, made by `make contract`; a test compares
it with the code, so that no figure changes without being seen here. Where a figure comes from
stands in [methods.md](methods.md); tables that a builder sees and may change are in
[figures.md](figures.md).
"""


@dataclass(frozen=True, slots=True)
class Constant:
    """A constant of a module, its value, and its words."""

    name: str
    value: Any
    words: str


def constants(path: Path) -> Iterator[Constant]:
    """The public constants of a module that are numbers or made of numbers."""
    dotted = ".".join(("oaken_scale", "core", *path.relative_to(CORE).with_suffix("").parts))
    body = ast.parse(path.read_text()).body
    for k, node in enumerate(body):
        if not isinstance(node, ast.AnnAssign) or not isinstance(node.target, ast.Name):
            continue
        name = node.target.id
        if not name.isupper() or name.startswith("_") or node.value is None:
            continue
        value = getattr(importlib.import_module(dotted), name)
        if _is_figure(value):
            yield Constant(name, value, _words(body[k:]))


def _words(there: list[ast.stmt]) -> str:
    """The words under a constant, or under the last one of its block."""
    for one, below in pairwise(there):
        if isinstance(below, ast.Expr) and isinstance(below.value, ast.Constant):
            return " ".join(str(below.value.value).split())
        if not isinstance(below, ast.AnnAssign) or below.lineno != (one.end_lineno or 0) + 1:
            break
    return ""


def _is_figure(value: Any) -> bool:
    if isinstance(value, bool | str):
        return False
    if isinstance(value, Mapping):
        return bool(value) and all(_is_figure(each) for each in value.values())
    if type(value) in (tuple, list):
        return bool(value) and all(_is_figure(each) for each in value)
    return type(value) in (int, float)


def shown(value: Any) -> str:
    """A figure as it stands in the list; of a table each one after its key."""
    if isinstance(value, Mapping):
        return "; ".join(f"{_key(key)} {shown(each)}" for key, each in value.items())
    if isinstance(value, tuple | list):
        return ", ".join(shown(each) for each in value)
    return repr(value)


def _key(key: Any) -> str:
    return " ".join(map(str, key)) if isinstance(key, tuple) else str(key)


def page() -> str:
    """The whole list."""
    lines = [HEAD]
    for path in sorted(CORE.rglob("*.py")):
        found = list(constants(path))
        if not found:
            continue
        room = path.relative_to(CORE).with_suffix("").as_posix()
        lines += [f"## {room}", "", "| constant | value | what it is |", "|---|---|---|"]
        lines += [f"| {each.name} | {shown(each.value)} | {each.words} |" for each in found]
        lines.append("")
    return "\n".join(lines)


if __name__ == "__main__":
    PAGE.write_text(page())
