"""What lies on the pans: sums over what is there are those over whole rows."""

import numpy as np
import pytest

from oaken_scale.core.ledger.loading import Loading


def pans(sets: int, states: int, most: int, seed: int = 3) -> Loading:
    """Rows with up to ``most`` things each, some of them several times, one pan empty."""
    rng = np.random.default_rng(seed)
    rows = np.zeros((sets, states))
    for row in rows[1:]:
        on = rng.choice(states, size=int(rng.integers(1, most + 1)), replace=False)
        row[on] = rng.integers(1, 4, size=len(on)) + rng.choice([0.0, 0.5])
    return Loading(rows)


@pytest.mark.parametrize(("most", "by_pairs"), [(4, True), (30, False)])
def test_sums_over_what_is_there_are_those_over_whole_rows(most, by_pairs):
    loading = pans(40, 30, most)
    assert (loading._pairs is not None) is by_pairs
    rng = np.random.default_rng(1)
    weight, states, sets = rng.normal(size=40), rng.normal(size=30), rng.normal(size=40)
    middle = rng.normal(size=(50, 50))[:30, 5:35]  # a part of a larger one, as a covariance is
    rows = loading.rows
    assert loading.product(weight) == pytest.approx(rows.T @ np.diag(weight) @ rows, abs=1e-12)
    assert loading.squares(middle) == pytest.approx(np.diag(rows @ middle @ rows.T), abs=1e-12)
    assert loading.loads(states) == pytest.approx(rows @ states, abs=1e-12)
    assert loading.pulls(sets) == pytest.approx(sets @ rows, abs=1e-12)


def test_what_was_felt_alone_and_together():
    loading = Loading(np.array([[0.0, 0, 0, 0], [1, 0, 0, 0], [0, 2, 0, 0], [0, 1, 1, 0]]))
    assert loading.many.tolist() == [0, 1, 1, 2]
    assert loading.most == 2
    assert loading.empty.tolist() == [True, False, False, False]
    assert loading.felt.tolist() == [True, True, True, False]
    assert loading.felt_alone.tolist() == [True, True, False, False]
    assert loading.felt_in(np.array([False, False, False, True])).tolist() == [
        False,
        True,
        True,
        False,
    ]


def test_no_pans_weigh_nothing():
    loading = Loading(np.zeros((0, 3)))
    assert loading.most == 0
    assert not loading.felt.any()
    assert loading.product(np.zeros(0)).tolist() == np.zeros((3, 3)).tolist()
    assert loading.product(np.zeros(0)).dtype == float
    assert loading.squares(np.eye(3)).shape == loading.loads(np.ones(3)).shape == (0,)
    assert loading.pulls(np.zeros(0)).tolist() == [0.0, 0.0, 0.0]
