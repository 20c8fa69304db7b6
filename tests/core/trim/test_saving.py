"""What a change of the plan would save of the ballast."""

import pytest

from oaken_scale.core.changes.balance import with_slide
from oaken_scale.core.model.part import Slide
from oaken_scale.core.trim.saving import saved
from tests.core.trim.planes import BODY, NOSE, plane, thing

PACK = thing("pack", 100, 190, (120, 240))


def test_a_longer_bay_saves_what_the_pack_does_further_forward():
    """Every millimetre that 100 g move forward is 100 gmm less, 0.39 g at the nose; the range is
    narrowed by its doubt, so it is a little more."""
    build = plane(*BODY, PACK, ballast=NOSE)
    told = saved(build, with_slide(build, "pack", Slide(100.0, 240.0)))
    assert told.saves_g == pytest.approx(100 * 20 / 255, rel=0.1)
    assert told.saves_g == told.now.best.ballast_g - told.then.best.ballast_g
    shorter = saved(build, with_slide(build, "pack", Slide(140.0, 240.0)))
    assert shorter.saves_g == pytest.approx(-100 * 20 / 255, rel=0.1)


@pytest.mark.parametrize(("forward", "saves"), [(0.11, False), (0.14, True)])
def test_less_than_a_scale_shows_is_none(forward, saves):
    """Of 0.11 mm 0.045 g are saved, of 0.14 mm 0.057 g."""
    build = plane(*BODY, PACK, ballast=NOSE)
    told = saved(build, with_slide(build, "pack", Slide(120.0 - forward, 240.0)))
    assert told.saves_g == (pytest.approx(100 * forward / 255, rel=0.1) if saves else 0.0)
