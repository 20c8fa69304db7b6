"""Where a part belongs by its name: what drives, what steers, what is carried, and what only holds
one of them."""

import pytest

from oaken_scale.core.model.group_named import group_named
from oaken_scale.core.model.part import Group

SAYS = {
    Group.POWER: (
        "Motor",
        "Motors, two",
        "Motor 2204",
        "Propeller 8 x 4.5",
        "Prop",
        "Speed controller 20 A",
        "Controller",
        "ESC",
        "Pack, 1-cell 240",
        "3-cell 1300",
        "3S 1300",
        "Battery",
        "Receiver battery",
    ),
    Group.CONTROL: (
        "Servo",
        "Servo, aileron left",
        "Wing servo",
        "Receiver",
        "Receiver brick with two servos",
        "Pull lines and horns",
        "Pushrod",
        "push rods",
        "Flight controller",
        "Gyro",
        "Aerial",
    ),
    Group.PAYLOAD: ("Camera", "Camera, 40 g", "Gimbal"),
    None: (
        "Motor plate, plywood",
        "Motor mount",
        "Servo tray",
        "Pack tray",
        "Battery strap",
        "Camera pod, foam",
        "Receiver cover",
        "Motor, dummy",
        "Wing, left",
        "Whatnot",
        "Wheels",
        "Proportional",
        "Cellophane",
        "Escape hatch",
        "Thorns",
        "",
    ),
}


@pytest.mark.parametrize(
    ("name", "group"), [(name, group) for group, names in SAYS.items() for name in names]
)
@pytest.mark.parametrize("written", [str, str.upper, str.lower])
def test_a_name_says_what_a_thing_is(written, name, group):
    assert group_named(written(name)) is group
