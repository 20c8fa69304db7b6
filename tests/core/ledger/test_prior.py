from dataclasses import replace

import numpy as np
import pytest

from oaken_scale.core.ledger.posterior import solve
from oaken_scale.core.ledger.prior import prior
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Lot, LotUnit, Use
from oaken_scale.core.model.part import Part, Pedigree
from tests.benches import case_l

SHEET = Lot("sheet", "Sheet", LotUnit.DM2, 4.6, 0.4)
GLUE = Lot("glue", "Glue", LotUnit.M, 2.0, 0.6)


def alone(part: Part) -> Build:
    return Build("b", "B", lots=(SHEET, GLUE), parts=(part,))


@pytest.mark.parametrize(
    ("pedigree", "stated", "doubt"),
    [
        (Pedigree.GUESS, 40.0, 10.0),
        (Pedigree.LISTING, 40.0, 2.0),
        (Pedigree.LISTING, 3.0, 0.2),
        (Pedigree.CALCULATED, 40.0, 1.2),
        (Pedigree.JOINT, 40.0, 16.0),
        (Pedigree.COVERING, 40.0, 4.0),
        (Pedigree.ALLOWANCE, 40.0, 40.0),
        (Pedigree.GUESS, -4.0, 1.0),
    ],
)
def test_each_pedigree_has_its_doubt(pedigree, stated, doubt):
    believed = prior(alone(Part("a", "A", pedigree, stated_g=stated)))
    assert believed.mass[0] == stated
    assert believed.mass_sd[0] == pytest.approx(doubt)


@pytest.mark.parametrize("pedigree", list(Pedigree))
def test_a_doubt_that_is_given_replaces_the_pedigrees_own(pedigree):
    believed = prior(alone(Part("a", "A", pedigree, stated_g=40.0, doubt_g=0.7)))
    assert believed.mass_sd[0] == pytest.approx(0.7)


@pytest.mark.parametrize(
    ("pedigree", "use", "mean", "doubt"),
    [
        (Pedigree.CALCULATED, Use("sheet", 10), 46.0, np.hypot(0.03 * 46, 10 * 0.4)),
        (Pedigree.JOINT, Use("glue", 3), 6.0, np.hypot(0.4 * 6, 3 * 0.6)),
        (Pedigree.COVERING, Use("glue", 3), 6.0, np.hypot(0.1 * 6, 3 * 0.6)),
        (Pedigree.CALCULATED, Use("sheet", -1.5), -6.9, np.hypot(0.03 * 6.9, 1.5 * 0.4)),
    ],
)
def test_what_is_cut_from_a_lot_has_the_lots_doubt_too(pedigree, use, mean, doubt):
    believed = prior(alone(Part("a", "A", pedigree, uses=(use,))))
    assert believed.mass[0] == pytest.approx(mean)
    assert believed.mass_sd[0] == pytest.approx(doubt)


def test_a_figure_and_a_lot_add_up():
    both = Part("a", "A", Pedigree.CALCULATED, stated_g=5.0, uses=(Use("sheet", 2), Use("glue", 1)))
    believed = prior(alone(both))
    assert believed.mass[0] == pytest.approx(5 + 9.2 + 2)
    assert believed.mass_sd[0] == pytest.approx(np.sqrt((0.03 * 16.2) ** 2 + 0.8**2 + 0.6**2))


def test_parts_of_one_sheet_are_believed_together():
    after = solve(case_l())
    cov = after.mass_cov
    assert cov[0, 1] == pytest.approx(18 * 5 * 0.4**2)
    assert cov[0, 0] == pytest.approx(18**2 * 0.4**2 + 1.6**2)
    assert cov[0, 3] == 0.0
    assert after.total(np.ones(5)) == (pytest.approx(207.2), pytest.approx(15.313, abs=6e-4))


def test_the_allowance_leaves_out_options_and_what_is_retired():
    parts = (
        Part("a", "A", Pedigree.LISTING, stated_g=100.0),
        Part("b", "B", Pedigree.LISTING, stated_g=50.0, option=True),
        Part("c", "C", Pedigree.LISTING, stated_g=30.0, retired=True),
        Part("more", "More", Pedigree.ALLOWANCE),
    )
    believed = prior(Build("b", "B", parts=parts))
    assert believed.mass[-1] == pytest.approx(4.0)
    assert believed.own_sd[-1] == pytest.approx(4.0)


def test_an_empty_build_has_an_empty_prior():
    believed = prior(Build("b", "B"))
    assert believed.mass.shape == (0,)
    assert believed.uses.shape == (0, 0)
    after = solve(replace(Build("b", "B")))
    assert after.total(np.zeros(0)) == (0.0, 0.0)


def test_a_mass_that_nobody_knows_counts_as_a_share_of_the_rest_and_as_unsure():
    """4 % of the 400 g that is known, and as much one sigma; alone 5 g; weighed, what it weighs."""
    hatch = Part("hatch", "Hatch", Pedigree.GUESS)
    wing = Part("wing", "Wing", Pedigree.LISTING, stated_g=400.0)
    believed = prior(Build("b", "B", parts=(wing, hatch)))
    assert (believed.mass[1], believed.mass_sd[1]) == (16.0, 16.0)
    alone = prior(Build("b", "B", parts=(hatch,)))
    assert (alone.mass[0], alone.mass_sd[0]) == (5.0, 5.0)
    nothing = prior(Build("b", "B", parts=(replace(hatch, stated_g=0.0),)))
    assert (nothing.mass[0], nothing.mass_sd[0]) == (0.0, 0.0)
    # It says nothing of how far off guesses are: its doubt is not theirs.
    assert believed.usual.tolist() == [True, False]
