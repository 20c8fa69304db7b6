"""Reading in a process of its own: bounded in time, and the next file is read all the same."""

import threading
import time
from pathlib import Path

import numpy as np
import pytest

from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.demo.sandpiper import sandpiper
from oaken_scale.formats.apart import BusyError, Reader
from oaken_scale.formats.build_file import dump

TAIL = (Path(__file__).parents[2] / "docs" / "examples" / "tail.svg").read_bytes()


@pytest.fixture
def reader():
    reader = Reader(seconds=20.0)
    yield reader
    reader.close()


def zigzag(points: int) -> bytes:
    """One outline that crosses itself as often as it can."""
    x = np.arange(points) % 2 * 1000.0
    y = np.linspace(0, 900, points)
    path = " ".join(f"{a:.0f},{b:.3f}" for a, b in zip(x, y, strict=True))
    head = '<svg xmlns="http://www.w3.org/2000/svg" width="1000mm" height="900mm"'
    return f'{head} viewBox="0 0 1000 900"><path d="M {path} Z"/></svg>'.encode()


def test_a_drawing_and_a_build_are_read_as_ever(reader):
    assert len(reader.outlines(TAIL, 0.0, None).parts) >= 3
    build, told = reader.build(dump(sandpiper()).encode())
    assert build == sandpiper()
    assert told.loadouts[0].answers[0].value > 500
    with pytest.raises(BuildFaultError, match="empty"):
        reader.outlines(b"", 0.0, None)
    with pytest.raises(BuildFaultError):
        reader.build(b"{}")


def test_what_takes_too_long_is_ended_and_the_next_one_is_read():
    reader = Reader(seconds=1.5)
    try:
        assert reader.outlines(TAIL, 0.0, None).parts
        start = time.monotonic()
        with pytest.raises(BuildFaultError, match="takes longer than"):
            reader.outlines(zigzag(190_000), 0.0, None)
        assert time.monotonic() - start < 12
        assert reader.outlines(TAIL, 0.0, None).parts
    finally:
        reader.close()


def test_more_than_a_few_do_not_wait():
    reader = Reader(seconds=1.0, waiting=2)
    answers: list[str] = []
    data = zigzag(60_000)

    def ask() -> None:
        try:
            reader.outlines(data, 0.0, None)
            answers.append("read")
        except BusyError:
            answers.append("busy")
        except BuildFaultError:
            answers.append("ended")

    try:
        asking = [threading.Thread(target=ask) for _ in range(2 + 3)]
        for each in asking:
            each.start()
        time.sleep(0.3)
        assert answers.count("busy") == 3
    finally:
        reader.close()
        for each in asking:
            each.join()
    assert len(answers) == 2 + 3
