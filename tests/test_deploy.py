"""The container and the service file: what they name is there, what they start is understood."""

import json
import re
import shlex
from pathlib import Path

import pytest

from oaken_scale import cli

ROOT = Path(__file__).parent.parent
CONTAINER = (ROOT / "deploy" / "Containerfile").read_text()
SERVICE = (ROOT / "deploy" / "oaken-scale.service").read_text()


def test_all_that_the_container_copies_is_there_and_let_through():
    ignored = (ROOT / ".dockerignore").read_text().split()
    copied = [
        name
        for line in re.findall(r"^COPY (?!--from)(.+)$", CONTAINER, re.M)
        for name in line.split()[:-1]
    ]
    assert {"web", "oaken_scale", "pyproject.toml", "requirements-run.lock"} <= set(copied)
    for name in copied:
        assert (ROOT / name).exists(), name
        assert name not in ignored


def commands() -> list[list[str]]:
    whole = re.sub(r"^# ?|\\\n#?", " ", CONTAINER, flags=re.M)
    found = [json.loads(re.search(r"^CMD (\[.+\])$", CONTAINER, re.M)[1])]
    found += [
        shlex.split(each) for each in re.findall(r"oaken-scale +((?:serve|let-in) [^\n#]+)", whole)
    ]
    found.append(shlex.split(re.search(r"^ExecStart=\S+ (.+)$", SERVICE, re.M)[1]))
    return found


@pytest.mark.parametrize("line", commands(), ids=" ".join)
def test_what_is_started_is_understood(line):
    given = cli._parser().parse_args([each for each in line if each.strip()])
    assert given.run in (cli._serve, cli._let_in)
    assert str(given.database).endswith("workshop.sqlite")


def test_the_service_file_tells_its_memory_and_listens_to_this_machine_alone():
    assert re.search(r"^MemoryMax=", SERVICE, re.M)
    assert "--host 127.0.0.1" in SERVICE
