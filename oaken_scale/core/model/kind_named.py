"""What a part is by its name: a pack, a motor, its controller, a propeller; its group in the weight
budget.

Nothing is decided by a name where its builder, its lot or the drawer says what it is.
"""

import re
from functools import lru_cache
from typing import Final

from oaken_scale.core.model.part import Group


def _words(*words: str) -> re.Pattern[str]:
    return re.compile(rf"\b(?:{'|'.join(words)})\b")


_HOLDS: Final = _words(
    *("plates?", "mounts?", "trays?", "bay", "box", "cradles?", "covers?", "hatch", "holders?"),
    *("bulkheads?", "firewall", "straps?", "shrouds?", "nacelles?", "pods?", "guards?", "stand"),
    *("tape", "glue", "foam", "plywood", "ballast"),
)
"""What holds or covers a thing, or weighs for it, is named after it and is not the thing."""

_DUMMY: Final = _words("dummy")
_WITH: Final = re.compile(r",|\(| with | and ")
"""What stands behind is said of a thing: a motor with its leads is a motor."""

_LEADS: Final = _words(
    *("wires?", "wiring", "cables?", "leads?", "plugs?", "connectors?", "screws?", "bell"),
    *("adapters?", "nuts?", "savers?", "shafts?", "alarm"),
)
"""What belongs to a thing is not the thing either, and goes where it goes."""

_PACK: Final = re.compile(
    r"\b(?:\w*packs?|batter(?:y|ies)|\w*akkus?|\d{1,2} ?s)\b|(?:\b|\d)cells?\b"
)
_OWN_PACK: Final = _words("receivers?", "rx", "radio", "cameras?", "video")
_MOTOR: Final = _words("motors?", "outrunners?")
_PROPELLER: Final = _words("props?", "propellers?")
_CONTROLLER: Final = _words("esc", "speed controls?", "controllers?")
_CONTROLS: Final = _words("controls?", "wires", "wiring")
_STEERS: Final = _words(
    *("servos?", "receivers?", "rx", "gyros?", "horns?", "push ?-?rods?", "pull ?-?lines?"),
    *("linkages?", "clevis(?:es)?", "aerials?", "antennas?", "extension leads?"),
)
_FLIES: Final = _words("flight controllers?")
_GROUPS: Final = (
    (_FLIES, Group.CONTROL),
    (_PACK, Group.POWER),
    (_STEERS, Group.CONTROL),
    (_MOTOR, Group.POWER),
    (_PROPELLER, Group.POWER),
    (_CONTROLLER, Group.POWER),
    (_words("spinners?"), Group.POWER),
    (_CONTROLS, Group.CONTROL),
    (_words("cameras?", "gimbals?"), Group.PAYLOAD),
)
"""The first that a name says has it."""

_JOINS: Final = _words("glue", "tapes?", "epoxy", "cement", "adhesives?")
_SMEARED: Final = _words(
    *("paints?", "markers?", "markings?", "decals?", "films?", "covering", "wires", "wiring"),
    *("cables", "leads", "screws", "linkages", "ties", "small stuff", "odds and ends"),
)
"""What else lies all over a plane."""

_PLACES: Final = tuple(
    (_words(*(f"{name}s?" for name in names.split(", "))), group)
    for group, names in (
        (
            Group.REST,
            "paint, marker, marking, decal, ballast, screw, magnet, band, strap, film, wheel, leg, "
            "landing gear, undercarriage",
        ),
        (Group.CONTROL, "wire, lead, regulator"),
        (Group.POWER, "engine"),
        (Group.PAYLOAD, "payload, transmitter, pod load"),
        (
            Group.FOAM,
            "wing, fuselage, body, tail, fin, rudder, elevator, aileron, elevon, spar, foam, "
            "sheet, rib, panel, boom, tube, rod, hatch, bulkhead, doubler, canard, tailplane, "
            "stabiliser, flap, winglet, airframe, glider, former, stick, skid, nose, plate, "
            "plywood, mount, tray, bay, box, cradle, cover, holder, firewall, shroud, nacelle, "
            "pod, guard",
        ),
    )
)
"""What else things are called, by their place in a budget; the first that fits has it."""


@lru_cache(maxsize=4096)
def names_a_pack(name: str) -> bool:
    """Whether a name says a flight pack.

    >>> [names_a_pack(name) for name in ("Pack, 3-cell 1300", "4S 1500", "Battery")]
    [True, True, True]
    >>> [names_a_pack(name) for name in ("Pack tray", "Battery plug", "Controller 2-4S")]
    [False, False, False]
    """
    others = (_MOTOR, _PROPELLER, _CONTROLLER)
    return _names(_PACK, name) and not any(each.search(name.lower()) for each in others)


@lru_cache(maxsize=4096)
def names_a_drive_pack(name: str) -> bool:
    """Whether a name says a pack that turns a motor: not one of the receiver's or the camera's own.

    >>> [names_a_drive_pack(name) for name in ("Pack, 3-cell 1300", "Receiver pack, 4-cell 700")]
    [True, False]
    """
    return names_a_pack(name) and not _OWN_PACK.search(name.lower())


@lru_cache(maxsize=4096)
def names_a_motor(name: str) -> bool:
    """Whether a name says a motor.

    >>> [names_a_motor(name) for name in ("Motor 2204", "Motor mount", "Motor controller")]
    [True, False, False]
    """
    said = name.lower()
    return _names(_MOTOR, name) and not _CONTROLLER.search(said) and not _CONTROLS.search(said)


@lru_cache(maxsize=4096)
def names_a_propeller(name: str) -> bool:
    """Whether a name says a propeller.

    >>> [names_a_propeller(name) for name in ("Propeller 8 x 4", "Prop 7x4", "Propeller nut")]
    [True, True, False]
    """
    return _names(_PROPELLER, name)


@lru_cache(maxsize=4096)
def lies_all_over(name: str) -> bool:
    """Whether a name says what lies all over a plane rather than in one place.

    >>> [lies_all_over(name) for name in ("Hot glue", "Packing tape", "Wiring", "Screws, six")]
    [True, True, True, True]
    >>> [lies_all_over(name) for name in ("Receiver", "Clay", "Motor with leads")]
    [False, False, False]
    """
    head = _head(name.lower())
    return bool(_JOINS.search(head) or _SMEARED.search(head))


def never_mended(name: str) -> bool:
    """Whether a thing that was hurt is replaced and never mended: a propeller, or a pack.

    >>> [never_mended(name) for name in ("Prop 7x4", "Pack, 3-cell 1300", "Pack tray", "Wing")]
    [True, True, False, False]
    """
    return names_a_propeller(name) or names_a_pack(name)


@lru_cache(maxsize=4096)
def names_a_controller(name: str) -> bool:
    """Whether a name says what a motor's speed is set with.

    >>> [names_a_controller(name) for name in ("ESC 40 A", "Speed controller", "ESC plug")]
    [True, True, False]
    >>> names_a_controller("Flight controller")
    False
    """
    return _names(_CONTROLLER, name) and not _FLIES.search(name.lower())


@lru_cache(maxsize=4096)
def group_named(name: str) -> Group | None:
    """The group that a part's name says, of those that drive, steer and are carried; None where it
    says none of them. A receiver's battery is a battery, a camera's servo a servo.

    >>> group_named("Motor 2204").value, group_named("Servo, aileron left").value
    ('power', 'control')
    >>> group_named("3-cell 1300").value, group_named("Camera").value
    ('power', 'payload')
    >>> group_named("Motor plate, plywood"), group_named("Wing, left")
    (None, None)
    """
    said = name.lower()
    if _HOLDS.search(_head(said)) or _DUMMY.search(said):
        return None
    return next((group for words, group in _GROUPS if words.search(said)), None)


@lru_cache(maxsize=4096)
def place_in_budget(name: str) -> Group | None:
    """Where a thing belongs in a budget by what it is called; None where its name does not say.

    >>> place_in_budget("Servo lead").value, place_in_budget("Motor mount").value
    ('control', 'foam')
    >>> place_in_budget("Wing glue").value, place_in_budget("Whatnot")
    ('joining', None)
    """
    said = name.lower()
    if _JOINS.search(said):
        return Group.JOINING
    return group_named(name) or next(
        (group for words, group in _PLACES if words.search(said)), None
    )


def _names(kind: re.Pattern[str], name: str) -> bool:
    said = name.lower()
    others = (_HOLDS, _LEADS)
    is_other = any(each.search(_head(said)) for each in others) or _DUMMY.search(said)
    return bool(kind.search(said)) and not is_other


def _head(said: str) -> str:
    return _WITH.split(said, maxsplit=1)[0]
