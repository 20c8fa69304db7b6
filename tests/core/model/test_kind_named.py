"""Where a part belongs by its name: what drives, what steers, what is carried, and what only holds
one of them."""

import pytest

from oaken_scale.core.model.kind_named import (
    group_named,
    names_a_motor,
    names_a_pack,
    names_a_propeller,
    place_in_budget,
)
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
        "Motor control",
        "ESC",
        "Pack, 1-cell 240",
        "3-cell 1300",
        "3S 1300",
        "Battery",
        "Receiver battery",
        "4S 1500",
        "Akkupack",
        "Motor plug",
        "Outrunner",
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
        "Control rods",
        "Wires",
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
        "Wire legs and wheels",
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


KINDS = {
    names_a_pack: (
        ("Pack, 3-cell 1300", "4S 1500", "2s", "Battery", "Akku 850", "Receiver battery", "2cell"),
        (
            "Pack tray",
            "Battery strap",
            "Battery plug",
            "ESC 2-4S 20 A",
            "Motor for 3S",
            "Cellophane",
        ),
    ),
    names_a_motor: (
        ("Motor", "Motors, two", "Outrunner 2204", "Motor, leads on", "Motor with its plate"),
        ("Motor mount", "Motor controller", "Motor wires", "Motor screws", "Motor bell", "Moto"),
    ),
    names_a_propeller: (
        ("Propeller 8 x 4.5", "Prop 7x4", "Props"),
        ("Propeller nut", "Prop saver", "Prop adapter", "Properly glued", "Propeller, dummy"),
    ),
}


@pytest.mark.parametrize(
    ("says", "name", "so"),
    [
        (says, name, so)
        for says, (yes, no) in KINDS.items()
        for names, so in ((yes, True), (no, False))
        for name in names
    ],
)
def test_a_pack_a_motor_and_a_propeller_are_told_by_their_names(says, name, so):
    assert says(name) is says(name.upper()) is so


@pytest.mark.parametrize(
    ("name", "group"),
    [
        ("Servo lead", Group.CONTROL),
        # What holds a thing is of the airframe, as a plate of plywood is.
        ("Motor mount", Group.FOAM),
        ("Servo tray", Group.FOAM),
        ("Battery strap", Group.REST),
        ("Engine", Group.POWER),
        ("Video transmitter", Group.PAYLOAD),
        ("Wire", Group.CONTROL),
        ("Wing tape", Group.JOINING),
        ("Tailplane", Group.FOAM),
        ("Tail", Group.FOAM),
        ("Packing tape", Group.JOINING),
        ("Props", Group.POWER),
        ("Wire landing gear", Group.REST),
        ("Wheels", Group.REST),
        ("Delta plate", Group.FOAM),
        ("Chuck glider", Group.FOAM),
        ("2 elevons", Group.FOAM),
        ("CA glue", Group.JOINING),
        ("Whatnot", None),
    ],
)
def test_where_a_thing_belongs_by_its_name(name, group):
    assert place_in_budget(name) is group
