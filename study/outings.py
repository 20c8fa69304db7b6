"""Made-up outings: whether what is called better is, and how soon the best setting is found."""

import math
import random
from collections.abc import Callable
from dataclasses import dataclass
from statistics import median

import numpy as np
from scipy.stats import ttest_ind

from oaken_scale.core.field.better_or_luck import SURE, compared
from oaken_scale.core.field.next_setting import HALF_MM, Thrown, best_setting, by_the_word
from oaken_scale.core.model.field import Seen

OUTINGS = 500
LONGEST = 24
HELD = 9
STEADY = 0.05


@dataclass(frozen=True, slots=True)
class Called:
    """How many changes were called better or worse, the share of them rightly, and the share of
    changes that were called at all."""

    calls: int
    rightly: float
    called: float


def calls(seed: int, bad_one: bool, plain: bool = False) -> Called:
    """Outings A B B A, looked at after every throw from the fourth on, until one is called better.

    One change in three does nothing, the others 15 to 30 %; throws scatter by 15 to 30 %. A call
    is right where the change truly goes that way; one of a change that does nothing is wrong.
    """
    shake = random.Random(seed)
    made, right = 0, 0
    for _ in range(OUTINGS):
        by = 0.0 if shake.random() < 1 / 3 else shake.choice((-1, 1)) * shake.uniform(0.15, 0.30)
        scatter, level = shake.uniform(0.15, 0.30), math.log(shake.uniform(6, 20))
        slip = shake.randrange(LONGEST) if bad_one else -1
        values, second = [], []
        for k in range(LONGEST):
            is_second = k % 4 in (1, 2)
            log = level + (math.log(1 + by) if is_second else 0.0) + shake.gauss(0, scatter)
            values.append(math.exp(log - (0.8 if k == slip else 0.0)))
            second.append(is_second)
            if k < 3:
                continue
            better = _plain(values, second) if plain else compared(values, second).better
            if better >= SURE or better <= 1 - SURE:
                made += 1
                right += by != 0 and (better >= SURE) == (by > 0)
                break
    return Called(made, right / max(made, 1), made / OUTINGS)


def _plain(values: list[float], second: list[bool]) -> float:
    """The chance by a pooled t of the logarithms."""
    logs, who = np.log(values), np.array(second)
    return float(1 - ttest_ind(logs[who], logs[~who], alternative="greater").pvalue)


@dataclass(frozen=True, slots=True)
class Reached:
    """After how many throws the setting named best was within 5 % of the best and stayed so for
    nine throws: the median, and the share of outings in which it came to that."""

    throws: float
    share: float


def reached(seed: int, bad_one: bool, searching: bool) -> Reached:
    """Outings that start well out of trim: by the search, or by the word alone."""
    shake = random.Random(seed)
    after = [_outing(shake, bad_one, _searched if searching else _worded) for _ in range(OUTINGS)]
    came = [each for each in after if each < LONGEST + HELD]
    return Reached(median(after), len(came) / OUTINGS)


def _searched(throws: list[Thrown]) -> tuple[float, float]:
    told = best_setting(throws)
    return told.best_mm, told.next_mm


def _worded(throws: list[Thrown]) -> tuple[float, float]:
    to = by_the_word(throws)
    return to, to


def _outing(
    shake: random.Random,
    bad_one: bool,
    plan: Callable[[list[Thrown]], tuple[float, float]],
) -> int:
    """The number of throws until the best named is close and stays so; all of them where never."""
    off = shake.choice((-1, 1)) * shake.uniform(2.0, 5.0)
    width, scatter = shake.choice((1.5, 2.5, 4.0, 6.0)), shake.uniform(0.15, 0.30)
    level, at = math.log(shake.uniform(8, 20)), 0.0
    slip = shake.randrange(12) if bad_one else -1
    throws: list[Thrown] = []
    close = []
    for k in range(LONGEST + HELD):
        u = (at - off) / width
        log = level - 0.5 * u * u + shake.gauss(0, scatter) - (0.8 if k == slip else 0.0)
        throws.append(Thrown(at, _word(shake, u), math.exp(log)))
        named, at = plan(throws)
        at = round(at / HALF_MM) * HALF_MM
        close.append(1 - math.exp(-0.5 * ((named - off) / width) ** 2) <= STEADY)
    for k in range(LONGEST):
        if all(close[k : k + HELD]):
            return k + 1
    return LONGEST + HELD


def _word(shake: random.Random, u: float) -> Seen:
    """What is said of a throw: one word in ten is any."""
    if shake.random() < 0.1:
        return shake.choice((Seen.STALLS, Seen.DIVES, Seen.GOOD))
    felt = u + shake.gauss(0, 0.5)
    return Seen.STALLS if felt > 0.5 else Seen.DIVES if felt < -0.5 else Seen.GOOD


def show(seed: int) -> None:
    """Print both, clean and with one bad throw in each outing."""
    print(f"\n{OUTINGS} outings A B B A, looked at after every throw from the fourth on")
    for plain in (False, True):
        for bad_one in (False, True):
            told = calls(seed, bad_one, plain)
            way, world = "plain t" if plain else "in full", "one bad throw" if bad_one else "clean"
            print(
                f"  {way:8} {world:14}"
                f" called {told.called:5.1%}, rightly {told.rightly:5.1%} of {told.calls}"
            )
    print(f"{OUTINGS} outings that start 2 to 5 mm out of trim")
    for bad_one in (False, True):
        by_search, by_word = (reached(seed, bad_one, each) for each in (True, False))
        print(
            f"  {'one bad throw' if bad_one else 'clean':14} search {by_search.throws:g} throws"
            f" ({by_search.share:.0%} came there), by the word {by_word.throws:g}"
            f" ({by_word.share:.0%})"
        )
