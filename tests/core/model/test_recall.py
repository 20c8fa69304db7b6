"""What is remembered is what was worked out of the very same objects."""

import gc

from oaken_scale.core.model.recall import recalled


def counting(keep: int):
    calls = []

    @recalled(keep)
    def total(values: tuple[float, ...], more: tuple[float, ...] | None) -> list[float]:
        calls.append((values, more))
        return [sum(values) + sum(more or ())]

    return total, calls


def test_the_same_objects_are_worked_out_once():
    total, calls = counting(4)
    some, more = (1.0, 2.0), (3.0,)
    assert total(some, more) is total(some, more)
    assert total(some, None) == [3.0]
    assert total(some, None) is total(some, None)
    assert len(calls) == 2


def test_equal_objects_are_not_the_same_ones():
    total, calls = counting(4)
    one, other = (1.0, 2.0), tuple(map(float, (1, 2)))
    assert total(one, None) == total(other, None)
    assert len(calls) == 2


def test_only_the_last_are_kept_and_what_is_kept_is_held():
    """An object that is remembered is never thrown away: no other can take its identity."""
    total, calls = counting(3)
    for n in range(200):
        assert total((float(n), 1.0), None) == [n + 1.0]
        if n % 20 == 0:
            gc.collect()
    assert len(calls) == 200
    first = (0.5, 0.5)
    total(first, None)
    for n in range(3):
        total((float(n),), None)
    total(first, None)
    assert len(calls) == 205
