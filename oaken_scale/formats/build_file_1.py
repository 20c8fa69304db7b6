"""Version 1 of the build file, in the words that it had: read for good, written no more."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any, Final

from oaken_scale.core.model.faults.fault import BuildFaultError, Fault


@dataclass(frozen=True, slots=True)
class _Now:
    """What a field of version 1 is called now, and the fields within it."""

    name: str
    within: "Mapping[str, _Now]" = field(default_factory=dict)


_PART: Final = {"item": _Now("part")}
_PARTS: Final = {"items": _Now("parts")}

_WORDS: Final[Mapping[str, _Now]] = {
    "build": _Now(
        "build",
        {
            "items": _Now("parts"),
            "joints": _Now("joints", _PARTS),
            "happenings": _Now("diary", _PARTS),
            "checks": _Now("checks", {"part": _Now("held_alone"), "stood": _Now("stood", _PART)}),
            "past": _Now("reference_build"),
            "power": _Now("power", {"packs": _Now("packs", _PART)}),
            "field": _Now("field", {"stances": _Now("stances", {"stood": _Now("stood", _PART)})}),
            "weighings": _Now("weighings", {"pan": _Now("pan", {"loads": _Now("loads", _PART)})}),
        },
    )
}


def in_words_of_now(document: dict[str, Any]) -> dict[str, Any]:
    """The document of version 1 with its fields as they are called now; what is nothing of version
    1 stays as it is, to be refused by who reads it.

    >>> in_words_of_now({"build": {"items": [{"id": "wing"}], "past": None}})
    {'build': {'parts': [{'id': 'wing'}], 'reference_build': None}}

    Raises BuildFaultError for a field that version 1 did not know by that name.
    """
    return dict(_renamed(document, _WORDS, ()))


def as_written(path: str) -> str:
    """A field of now as version 1 calls it.

    >>> as_written("build.parts.3.uses.0.lot"), as_written("build.checks.0.held_alone")
    ('build.items.3.uses.0.lot', 'build.checks.0.part')
    """
    words, written = _WORDS, []
    for step in path.split("."):
        if step.isdigit():
            written.append(step)
            continue
        then, now = next(
            ((then, now) for then, now in words.items() if now.name == step), (step, _Now(step))
        )
        written.append(then)
        words = now.within
    return ".".join(written)


def _renamed(value: Any, words: Mapping[str, _Now], path: tuple[str, ...]) -> Any:
    if isinstance(value, list):
        return [_renamed(each, words, (*path, str(k))) for k, each in enumerate(value)]
    if not words or not isinstance(value, dict):
        return value
    for now in words.values():
        if now.name not in words and now.name in value:
            raise BuildFaultError(
                [Fault(".".join((*path, now.name)), "is not a field of a build file of version 1")]
            )
    renamed = {}
    for then, inner in value.items():
        now = words.get(then, _Now(then))
        renamed[now.name] = _renamed(inner, now.within, (*path, then))
    return renamed
