"""The joint clock: joints are spread, retimed and cleared at the server's time."""

from collections.abc import Callable
from dataclasses import replace
from datetime import UTC, datetime

from fastapi import APIRouter, Response

from oaken_scale.api.documents import Meanwhile, NewJoint, Opened
from oaken_scale.api.problems import documented, no_such
from oaken_scale.api.routes_builds import BuildId, Named, Shop, told
from oaken_scale.core.changes import joints
from oaken_scale.core.material.joint_clock import meanwhile
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.joint import Joint
from oaken_scale.formats.documents import JointTimesDoc

router = APIRouter(prefix="/api/v1/builds/{build_id}", tags=["joints"])


@router.post("/joints", response_model=Opened, status_code=201, responses=documented(404))
def spread(build_id: BuildId, new: NewJoint, shop: Shop) -> Response:
    """Start a joint's clock: it was spread just now. With a bead, its glue becomes a part too."""

    def added(build: Build) -> Build:
        bead = None if new.bead is None else (new.bead.lot, new.bead.amount)
        return joints.spread(build, new.value(build), bead)

    return told(shop.change(build_id, None, added), 201)


@router.put("/joints/{joint_id}/times", response_model=Opened, responses=documented(404))
def retime(build_id: BuildId, joint_id: Named, times: JointTimesDoc, shop: Shop) -> Response:
    """Give a joint the times of its maker's label."""
    changes = times.model_dump()
    return told(shop.change(build_id, None, _changing(joint_id, lambda j: replace(j, **changes))))


@router.post("/joints/{joint_id}/clear", response_model=Opened, responses=documented(404))
def clear(build_id: BuildId, joint_id: Named, shop: Shop) -> Response:
    """Take a joint off the clock."""
    return told(
        shop.change(build_id, None, _changing(joint_id, lambda j: replace(j, cleared=True)))
    )


@router.get("/meanwhile", response_model=Meanwhile, responses=documented(404))
def free_now(build_id: BuildId, shop: Shop) -> Meanwhile:
    """The server's time, and what can be weighed while joints set."""
    held, now = shop.held(build_id), datetime.now(UTC)
    return Meanwhile(now, meanwhile(held.build, held.assessment.weigh_next, now))


def _changing(joint_id: str, change: Callable[[Joint], Joint]) -> Callable[[Build], Build]:
    """A change of one joint of a build; a 404 problem when it is not there."""

    def changed(build: Build) -> Build:
        if joint_id not in [joint.id for joint in build.joints]:
            raise no_such("joint", joint_id)
        return joints.with_joint(build, joint_id, change)

    return changed
