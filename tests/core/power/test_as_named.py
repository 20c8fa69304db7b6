"""What names say of packs, motors and propellers, as builders and shops write them."""

import pytest

from oaken_scale.core.power.as_named import (
    capacity_named,
    cells_named,
    kv_named,
    rating_named,
    size_named,
)


@pytest.mark.parametrize(
    ("name", "cells", "capacity", "rating"),
    [
        ("Pack, 3-cell 1300", 3, 1300.0, None),
        ("3 cell 2200 mAh 30C", 3, 2200.0, 30.0),
        ("2S 450mAh", 2, 450.0, None),
        ("4s1300", 4, 1300.0, None),
        ("Pack 1300", None, 1300.0, None),
        ("Pack", None, None, None),
        ("Flight pack, 99-cell", None, None, None),
        ("12-cells of 2700", 12, 2700.0, None),
        ("Batteries 1.300", None, None, None),
        ("6-cell 99999", 6, None, None),
        ("3-cell 850 at 20 c", 3, 850.0, None),
    ],
)
def test_packs(name, cells, capacity, rating):
    assert (cells_named(name), capacity_named(name), rating_named(name)) == (
        cells,
        capacity,
        rating,
    )


@pytest.mark.parametrize(
    ("name", "kv"),
    [
        ("Motor 2204, 1400 kv", 1400.0),
        ("Motor 1900 rpm/V", 1900.0),
        ("outrunner KV2300", 2300.0),
        ("Motor 2204", None),
        ("Motor 99999kv", None),
    ],
)
def test_motors(name, kv):
    assert kv_named(name) == kv


@pytest.mark.parametrize(
    ("name", "size"),
    [
        ("Propeller 8 x 4.5", (203.2, 114.3)),
        ("8x4", (203.2, 101.6)),
        ("6 by 3, folding", (152.4, 76.2)),
        ("7*3,5", (177.8, 88.9)),
        ("200 x 100 mm", (200.0, 100.0)),
        ("Propeller", None),
        ("99 x 4", None),
        ("0 x 4", None),
    ],
)
def test_propellers(name, size):
    assert size_named(name) == size
