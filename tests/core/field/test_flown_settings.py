"""Settings as they were thrown: what is not told is at 0, distances by their logarithms."""

from datetime import timedelta

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.at_the_field import best_throw, field_told
from oaken_scale.core.field.advice import changes
from oaken_scale.core.field.flown_settings import settings_flown
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.field import Control, ControlKind, FieldLog, Setting, Throw
from tests.benches import MORNING

TAB = Control("tab", "Tab", ControlKind.TAB, "tail")
RUDDER = Control("rudder", "Rudder", ControlKind.TAB, "fin")


def page(*thrown: tuple[dict[str, float], float | None]) -> tuple[Throw, ...]:
    return tuple(
        Throw(
            f"t{k}",
            MORNING + timedelta(minutes=k),
            settings=tuple(Setting(*pair) for pair in settings.items()),
            distance_m=far,
        )
        for k, (settings, far) in enumerate(thrown)
    )


def test_a_tab_that_was_fitted_later_splits_no_setting():
    """Before it was there it stood at 0, and one setting goes as far as all its throws say."""
    throws = page(({}, 8.0), ({"tab": 0.0}, 18.0), ({"tab": 2.0}, 13.0), ({"tab": 2.0}, None))
    flown = settings_flown((TAB, RUDDER), throws)
    assert [(each.throws, each.settings) for each in flown] == [
        (("t0", "t1"), (Setting("tab", 0.0), Setting("rudder", 0.0))),
        (("t2",), (Setting("tab", 2.0), Setting("rudder", 0.0))),
    ]
    assert [each.goes_m for each in flown] == pytest.approx([12.0, 13.0])  # sqrt(8 x 18)
    best = best_throw(Build("b", "B"), throws, flown)
    assert (best.throws, best.distance_m) == (2, pytest.approx(12.0))  # thrown twice, before once
    assert best.settings == (Setting("tab", 0.0), Setting("rudder", 0.0))


def test_a_bad_throw_says_how_far_a_setting_goes_only_where_none_other_does():
    throws = page(({}, 12.0), ({}, 3.0), ({"tab": 1.0}, 4.0))
    flown = settings_flown((TAB,), throws, {"t1", "t2"})
    assert [each.goes_m for each in flown] == pytest.approx([12.0, 4.0])
    assert [each.throws for each in flown] == [("t0", "t1"), ("t2",)]


def test_the_field_tells_of_settings_what_the_comparison_knows_of_bad_throws():
    far = [11.0, 12.0, 12.5, 11.5, 12.0, 1.5]
    thrown = [({"tab": float(k % 2)}, metres) for k, metres in enumerate(far)]
    build = Build("b", "B", field=FieldLog(controls=(TAB,), throws=page(*thrown)))
    told = field_told(build, assess(build), MORNING).loadouts[0]
    assert {id for each in told.changes for id in each.bad} == {"t5"}
    second = next(each for each in told.flown if "t5" in each.throws)
    assert second.goes_m == pytest.approx((12.0 * 11.5) ** 0.5)


def test_the_last_change_is_told_once_whichever_way_it_went():
    there_and_back = page(({}, 9.0), ({"tab": 1.0}, 11.0), ({}, 9.5), ({"tab": 1.0}, 12.0))
    (told,) = changes(there_and_back)
    assert (told.control, told.from_mm, told.to_mm) == ("tab", 0.0, 1.0)
    # Two tabs were bent at once, and then one of them was what it had been at first.
    roundabout = page(({}, 9.0), ({"tab": 1.0, "rudder": 1.0}, 11.0), ({"rudder": 1.0}, 12.0))
    assert [(each.control, each.to_mm) for each in changes(roundabout)] == [("tab", 0.0)]
    later = page(
        ({}, 9.0), ({"tab": 1.0, "rudder": 1.0}, 11.0), ({"tab": 1.0, "rudder": 0.0}, 12.0)
    )
    assert [(each.control, each.from_mm, each.to_mm) for each in changes(later)] == [
        ("rudder", 1.0, 0.0)
    ]
    # Nothing but the first page of all differs in one control from the last.
    apart = page(({}, 9.0), ({"tab": 2.0, "rudder": 1.0}, 8.0), ({"tab": 1.0}, 12.0))
    assert [(each.control, each.from_mm, each.to_mm) for each in changes(apart)] == [
        ("tab", 0.0, 1.0)
    ]
