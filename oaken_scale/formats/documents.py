"""A build's parts and records, as files and requests have them: documents of the core's own
dataclasses, which say what each field means and what may stand in it. Named here are those that
something refers to, or that differ from their dataclass; all others come by themselves."""

from typing import Annotated

from pydantic import ValidationError

from oaken_scale.core.model import (
    balancing,
    body,
    day,
    field,
    joint,
    lot,
    part,
    power,
    surface,
    target,
    weighing,
)
from oaken_scale.core.model.declared import CloseBy, Coordinate, Id, Range, Share, Words
from oaken_scale.core.model.faults.fault import Fault
from oaken_scale.formats.fields import Document, Edge, document
from oaken_scale.formats.wording import field_faults


class CuringDoc(Document, of=lot.Curing):
    close_by_s: CloseBy | None = None


class LotDoc(Document, of=lot.Lot):
    pass


class StationDoc(Document, of=part.Station):
    pass


class SlideDoc(Document, of=part.Slide):
    pass


class PartDoc(Document, of=part.Part):
    pass


class SectionDoc(Document, of=surface.Section):
    z_mm: Coordinate = 0.0


class FrameDoc(Document, of=body.Frame):
    z_mm: Coordinate = 0.0


class TargetDoc(Document, of=target.Target):
    pass


class BudgetDoc(Document, of=target.Budget):
    pass


class ShareDoc(Edge):
    """What share of the rest finished builds had in things nobody listed, and one sigma."""

    value: Share
    doubt: Annotated[float, Range(gt=0, le=1)]
    source: Words = ""


class PanDoc(Document, of=weighing.Pan):
    def value(self) -> weighing.Pan:
        """The pan as the core has it, in one order whatever order it was given in."""
        loads = tuple(sorted(weighing.Load(load.part, load.count) for load in self.loads))
        samples = tuple(sorted(weighing.Sample(each.lot, each.amount) for each in self.samples))
        return weighing.Pan(loads, samples, self.known_g)


class JointTimesDoc(
    Document,
    of=joint.Joint,
    only=("close_after_s", "close_by_s", "handle_after_s", "strong_after_s"),
):
    """A joint's times after spreading [s]; ``close_by_s`` null where there is no hurry."""


class BalanceCheckDoc(Document, of=balancing.BalanceCheck):
    loadout: Id | None = None


class DayDoc(Document, of=day.Day):
    pass


class PointDoc(Document, of=power.RunPoint):
    pass


class FlightDoc(Document, of=power.Flight):
    pass


class PowerDoc(Document, of=power.Power):
    pass


class ControlDoc(Document, of=field.Control):
    pass


class SettingDoc(Document, of=field.Setting):
    pass


class ThrowDoc(Document, of=field.Throw):
    pass


class TickDoc(Document, of=field.Tick):
    pass


class OwnLineDoc(Document, of=field.OwnLine):
    pass


class NoteDoc(Document, of=field.Note):
    pass


class FieldDoc(Document, of=field.FieldLog):
    pass


def over_limits(value: object) -> tuple[Fault, ...]:
    """What may not be kept of a value of the core, whichever way it came: the same as where it is
    typed."""
    try:
        document(type(value)).model_validate(value)
    except ValidationError as error:
        return field_faults(error.errors())
    return ()
