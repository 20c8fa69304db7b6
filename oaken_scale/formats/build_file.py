"""A build as a file: versioned, human-readable JSON with a published JSON Schema.

The documents are the edge: they hold the shape of every field and the range of every single
number. What only the whole shows is :mod:`oaken_scale.core.model.faults`' affair.
"""

import json
from collections.abc import Iterable
from dataclasses import replace
from typing import Any, Final, Literal, Self

from pydantic import TypeAdapter
from pydantic import ValidationError as PydanticValidationError

from oaken_scale.core.model.build import Build
from oaken_scale.core.model.declared import Id
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.faults.whole import validated
from oaken_scale.core.model.weighing import Pan
from oaken_scale.formats import build_file_1
from oaken_scale.formats.documents import ShareDoc
from oaken_scale.formats.fields import Document, Edge
from oaken_scale.formats.wording import field_faults

FORMAT: Final = "oaken-scale/build"
VERSION: Final = 2
LARGEST_BYTES: Final = 64 * 1024 * 1024


class BuildDoc(Document, of=Build):
    id: Id = "build"
    allowance: ShareDoc | None = None

    def value(self) -> Build:
        """The build as the core has it, checked as a whole. Raises BuildFaultError."""
        return validated(with_shared_pans(_CORE_BUILD.validate_python(self.model_dump())))


class BuildFile(Edge):
    """The file: what it is, which version of it, and the build."""

    format: Literal["oaken-scale/build"]
    version: Literal[2]
    build: BuildDoc

    @classmethod
    def of(cls, build: Build) -> Self:
        """The file of a build."""
        return cls(format=FORMAT, version=VERSION, build=BuildDoc.model_validate(build))


_CORE_BUILD: TypeAdapter[Build] = TypeAdapter(Build)


def with_shared_pans(build: Build) -> Build:
    """The same build with equal pans held once, and each pan in its one order."""
    known: dict[Pan, Pan] = {}
    weighings = []
    for weighing in build.weighings:
        pan = Pan(
            tuple(sorted(weighing.pan.loads)),
            tuple(sorted(weighing.pan.samples)),
            weighing.pan.known_g,
        )
        weighings.append(replace(weighing, pan=known.setdefault(pan, pan)))
    return replace(build, weighings=tuple(weighings))


def dump(build: Build) -> str:
    """Write a build as a file, readable and diffable."""
    return BuildFile.of(build).model_dump_json(indent=2) + "\n"


def load(data: bytes) -> Build:
    """Read a build from a file's bytes.

    Raises BuildFaultError with every fault, each naming its field and what would be right.
    """
    document = _json(data)
    if _version(document) == VERSION:
        return _read(data)
    now = {**build_file_1.in_words_of_now(document), "version": VERSION}
    try:
        return _read(json.dumps(now).encode())
    except BuildFaultError as error:
        named = [replace(each, field=build_file_1.as_written(each.field)) for each in error.faults]
        raise BuildFaultError(named) from error


def _read(data: bytes) -> Build:
    try:
        return BuildFile.model_validate_json(data).build.value()
    except PydanticValidationError as error:
        raise BuildFaultError(field_faults(error.errors())) from error
    except BuildFaultError as error:
        raise BuildFaultError(_under(("build",), error.faults)) from error


def schema() -> str:
    """The JSON Schema of the file."""
    document = BuildFile.model_json_schema()
    document["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    document["title"] = f"Oaken Scale build file, version {VERSION}"
    return json.dumps(document, indent=2) + "\n"


def _under(path: tuple[str, ...], found: Iterable[Fault]) -> tuple[Fault, ...]:
    return tuple(replace(fault, field=".".join((*path, fault.field))) for fault in found)


def _json(data: bytes) -> dict[str, Any]:
    if len(data) > LARGEST_BYTES:
        most = LARGEST_BYTES // 1024 // 1024
        raise BuildFaultError([Fault("file", f"larger than {most} MiB; no build needs as much")])
    try:
        document = json.loads(data.decode("utf-8"))
    except (ValueError, RecursionError) as error:
        words = f"not a JSON file in UTF-8 ({error}); export a build to see one"
        raise BuildFaultError([Fault("file", words)]) from error
    if not isinstance(document, dict):
        words = 'holds no build; it should be {"format": ..., "version": 2, "build": {...}}'
        raise BuildFaultError([Fault("file", words)])
    return document


def _version(document: dict[str, Any]) -> int:
    """Which version a file is of. Raises BuildFaultError for none that can be read."""
    given = document.get("format")
    if given != FORMAT:
        raise BuildFaultError([Fault("format", f'is {given!r}; a build file says "{FORMAT}"')])
    version = document.get("version")
    if isinstance(version, int) and not isinstance(version, bool) and 1 <= version <= VERSION:
        return version
    newer = isinstance(version, int) and version > VERSION
    advice = "it was written by a newer Oaken Scale" if newer else f"it should be {VERSION}"
    words = f"is {version!r}; this one reads versions 1 to {VERSION}; {advice}"
    raise BuildFaultError([Fault("version", words)])
