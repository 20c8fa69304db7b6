"""Where a part belongs in the weight budget, by what its name says that it is."""

import re
from functools import lru_cache
from typing import Final

from oaken_scale.core.model.part import Group

_HOLDS: Final = re.compile(
    r"\b(?:plates?|mounts?|trays?|bay|box|cradles?|covers?|hatch|holders?|bulkheads?|firewall|"
    r"straps?|shrouds?|nacelles?|pods?|guards?|stand|tape|glue|foam|plywood|ballast|dummy)\b"
)
"""What holds or covers a thing, or weighs for it, is named after it and is not the thing."""

_SAYS: Final = (
    (Group.CONTROL, re.compile(r"\bflight controllers?\b")),
    (Group.POWER, re.compile(r"\b(?:packs?|batter(?:y|ies)|akku|\d+ ?s)\b|\bcells?\b")),
    (
        Group.CONTROL,
        re.compile(
            r"\b(?:servos?|receivers?|rx|gyros?|horns?|push ?-?rods?|pull ?-?lines?|linkages?|"
            r"clevis(?:es)?|aerials?|antennas?|extension leads?)\b"
        ),
    ),
    (
        Group.POWER,
        re.compile(
            r"\b(?:motors?|props?|propellers?|esc|speed controls?|controllers?|spinners?)\b"
        ),
    ),
    (Group.PAYLOAD, re.compile(r"\b(?:cameras?|gimbals?)\b")),
)
"""The first that a name says counts: a receiver's battery is a battery, a motor's servo a servo."""


_PULLS: Final = re.compile(r"\b(?:motors?|props?|propellers?)\b")


@lru_cache(maxsize=4096)
def is_motor_named(name: str) -> bool:
    """Whether a name says a motor or a propeller, and nothing that only holds one.

    >>> is_motor_named("Motor 2204"), is_motor_named("Motor mount"), is_motor_named("Battery")
    (True, False, False)
    """
    said = name.lower()
    return bool(_PULLS.search(said)) and not _HOLDS.search(said)


@lru_cache(maxsize=4096)
def group_named(name: str) -> Group | None:
    """The group that a part's name says, of those that drive, steer and are carried; None where it
    says none of them.

    >>> group_named("Motor 2204").value, group_named("Servo, aileron left").value
    ('power', 'control')
    >>> group_named("3-cell 1300").value, group_named("Camera").value
    ('power', 'payload')
    >>> group_named("Motor plate, plywood"), group_named("Wing, left")
    (None, None)
    """
    said = name.lower()
    if _HOLDS.search(said):
        return None
    return next((group for group, words in _SAYS if words.search(said)), None)
