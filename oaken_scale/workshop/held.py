"""A build as it is held: its revision, and all that is told about it."""

from dataclasses import dataclass, replace

from pydantic import ValidationError

from oaken_scale.core.assess import Assessment, assess
from oaken_scale.core.model import limits
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.weighing import Weighing
from oaken_scale.core.notices import Notice, NoticeCode
from oaken_scale.core.reading_effects import News
from oaken_scale.formats import build_file
from oaken_scale.formats.wording import field_faults
from oaken_scale.workshop.refused import OutOfDateError


@dataclass(frozen=True, slots=True)
class Held:
    """A build at a revision, and what is told about it.

    ``planned``: the revision since which nothing but readings was added.
    """

    revision: int
    build: Build
    assessment: Assessment
    planned: int


@dataclass(frozen=True, slots=True)
class Kept:
    """A reading as it was kept, the build with it, and what it moved elsewhere."""

    held: Held
    weighing: Weighing
    moved: tuple[News, ...]
    is_new: bool


def assessed(revision: int, build: Build) -> Held:
    """A build with all that is told about it. Raises BuildFaultError where nothing can be told."""
    try:
        return Held(revision, build, assess(build), planned=revision)
    except BuildFaultError:
        raise
    except (ArithmeticError, ValueError, LookupError, TypeError, AttributeError) as error:
        words = (
            "cannot be worked out as it would be then; look at masses below zero, pockets larger "
            f"than what they are cut from, and figures far off ({type(error).__name__})"
        )
        raise BuildFaultError([Fault("build", words)]) from error


def exportable(build: Build, before: Build | None = None) -> Build:
    """The build, if its file can be written: what may be kept may be exported, always. Readings
    that it had ``before`` were looked at when they came.

    Raises BuildFaultError naming what is over its limit.
    """
    had = {each.id: each for each in before.weighings} if before else {}
    fresh = tuple(each for each in build.weighings if had.get(each.id) is not each)
    try:
        build_file.BuildDoc.model_validate(replace(build, weighings=fresh))
    except ValidationError as error:
        raise BuildFaultError(field_faults(error.errors())) from error
    if len(build.weighings) > limits.WEIGHINGS:
        words = f"there are {len(build.weighings)}; a build holds at most {limits.WEIGHINGS}"
        raise BuildFaultError([Fault("weighings", words)])
    return build


def untold(build: Build, error: BuildFaultError) -> Assessment:
    """What stands in for all that cannot be told of a build, and why."""
    empty = assess(Build(build.id, build.name, scales=build.scales))
    notice = Notice(NoticeCode.CANNOT_BE_ASSESSED, fault=str(error))
    return replace(empty, notices=(notice,))


def still_at(held: Held, revision: int | None, is_exact: bool = False) -> None:
    """Raise OutOfDateError when a build has moved on.

    A reading that was added meanwhile takes nothing from a change, unless the change was worked
    out from the readings (``is_exact``): a remedy, an offer, an undo of the last act.
    """
    if revision is None:
        return
    since = held.revision if is_exact else held.planned
    if not since <= revision <= held.revision:
        raise OutOfDateError(revision, held.revision)
