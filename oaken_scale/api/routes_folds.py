"""Folded from one board: what is cut for a fuselage box or a half wing, and what comes out."""

from typing import Annotated, Any, Final, Literal

from fastapi import APIRouter, Body, Response
from pydantic import Field, TypeAdapter

from oaken_scale.api.problems import documented
from oaken_scale.core.geometry.fold import Folded, FoldWay
from oaken_scale.core.geometry.folded_box import FoldedBox, folded_box
from oaken_scale.core.geometry.folded_wing import FoldedWing, comes_out, folded_wing
from oaken_scale.core.model import declared, limits
from oaken_scale.formats import fields
from oaken_scale.formats.fields import number

router = APIRouter(prefix="/api/v1/folds", tags=["stock"])

Side = Annotated[float, number(gt=0, le=limits.STATION_MM)]
Board = Annotated[float, number(gt=0, le=100)]


class FoldedBoxDoc(fields.Edge):
    """A fuselage by its outer sizes [mm]."""

    kind: Literal["box"]
    name: declared.Name = "Fuselage box"
    length_mm: Side
    width_mm: Side
    height_mm: Side
    board_mm: Board
    rear_width_mm: Side | None = None
    rear_height_mm: Side | None = None
    doubled_from_mm: Annotated[float, number(ge=0, le=limits.STATION_MM)] = 0.0
    doubled_to_mm: Side | None = None
    has_top: bool = False
    way: FoldWay = FoldWay.GROOVE

    def folded(self) -> Folded:
        """What is cut for it. Raises BuildFaultError."""
        return folded_box(_BOX.validate_python(_sizes(self)), self.name)


class FoldedWingDoc(fields.Edge):
    """A half wing folded about its leading edge [mm]; the spar's place as a share of the chord."""

    kind: Literal["wing"]
    name: declared.Name = "Wing half"
    span_mm: Side
    chord_mm: Side
    thickness_mm: Side
    board_mm: Board
    spar_at: Annotated[float, number(gt=0, lt=1)] = 0.3
    tip_chord_mm: Side | None = None
    doubler_mm: Side | None = None
    way: FoldWay = FoldWay.STRIP

    def folded(self) -> Folded:
        """What is cut for it. Raises BuildFaultError."""
        return folded_wing(_WING.validate_python(_sizes(self)), self.name)


class FoldedSidesDoc(fields.Edge):
    """A half wing by the outer sides that were cut: what comes out of them [mm]."""

    kind: Literal["sides"]
    name: declared.Name = "Wing half"
    span_mm: Side
    lower_mm: Side
    front_mm: Side
    rear_mm: Side
    board_mm: Board

    def folded(self) -> Folded:
        """What comes out of it. Raises BuildFaultError where it does not close."""
        high, at = comes_out(self.lower_mm, self.front_mm, self.rear_mm, self.board_mm)
        wing = FoldedWing(
            self.span_mm,
            self.lower_mm,
            high,
            self.board_mm,
            at / self.lower_mm,
            way=FoldWay.GROOVE,
        )
        return folded_wing(wing, self.name)


NewFold = Annotated[
    FoldedBoxDoc | FoldedWingDoc | FoldedSidesDoc, Body(), Field(discriminator="kind")
]

_BOX: Final = TypeAdapter(FoldedBox)
_WING: Final = TypeAdapter(FoldedWing)
_FOLDED: Final = TypeAdapter(Folded)


def _sizes(given: fields.Edge) -> dict[str, Any]:
    return given.model_dump(exclude={"kind", "name"})


@router.post("", response_model=Folded, responses=documented())
def unfold(new: NewFold) -> Response:
    """What is cut for something folded from one board, and what comes out of it; nothing is
    kept."""
    return Response(_FOLDED.dump_json(new.folded()), media_type="application/json")
