import json
import os
import socket
import subprocess
import sys
import time

import httpx
import pytest

from oaken_scale import cli
from oaken_scale.cli import main
from oaken_scale.core.assess import assess
from oaken_scale.demo.sandpiper import sandpiper
from oaken_scale.demo.workshop import load_demo
from oaken_scale.formats.build_file import dump, load
from tests.benches import case_l, reading
from tests.http import HTTP


@pytest.fixture
def file(tmp_path):
    path = tmp_path / "case-l.json"
    path.write_text(dump(case_l((reading(1, 90.2, "wing"),))))
    return path


def test_assess_prints_what_is_told(file, capsys):
    assert main(["assess", str(file)]) == 0
    told = json.loads(capsys.readouterr().out)
    answers = {answer["kind"]: answer for answer in told["loadouts"][0]["answers"]}
    assert answers["auw"]["value"] == pytest.approx(222.043, abs=5e-4)
    assert told["loadouts"][0]["cg"]["x_mm"] == pytest.approx(292.702, abs=5e-4)
    assert answers["wing_loading"]["missing"]


def test_assess_as_a_program_exits_with_2_on_a_bad_file(tmp_path):
    bad = tmp_path / "bad.json"
    bad.write_text('{"format": "oaken-scale/build", "version": 2, "build": {"parts": 3}}')
    run = subprocess.run(
        [sys.executable, "-m", "oaken_scale.cli", "assess", str(bad)],
        capture_output=True,
        text=True,
        check=False,
    )
    assert run.returncode == 2
    assert run.stdout == ""
    assert "build.name: is missing" in run.stderr
    assert "Traceback" not in run.stderr


@pytest.mark.parametrize("name", ["none.json", "."])
def test_a_file_that_cannot_be_read_is_said(tmp_path, capsys, name):
    assert main(["assess", str(tmp_path / name)]) == 2
    assert "cannot be read" in capsys.readouterr().err


def test_two_imports_stay_two_builds_and_export_gives_the_same_file(tmp_path, file, capsys):
    database = str(tmp_path / "own.sqlite")
    assert main(["import", str(file), "--database", database]) == 0
    assert main(["import", str(file), "--database", database]) == 0
    first, second = (line.rsplit(" ", 1)[1] for line in capsys.readouterr().out.splitlines())
    assert first != second
    out = tmp_path / "out.json"
    assert main(["export", "case l", str(out), "--database", database]) == 2
    assert "2 builds are named" in capsys.readouterr().err
    assert not out.exists()
    assert main(["export", first, str(out), "--database", database]) == 0
    again = load(out.read_bytes())
    original = load(file.read_bytes())
    assert again.id == first
    assert (again.parts, again.weighings, again.lots) == (
        original.parts,
        original.weighings,
        original.lots,
    )


def test_a_bad_import_leaves_nothing(tmp_path, capsys):
    bad = tmp_path / "bad.json"
    bad.write_text("{}")
    database = tmp_path / "own.sqlite"
    assert main(["import", str(bad), "--database", str(database)]) == 2
    assert "format" in capsys.readouterr().err
    assert not database.exists()


def test_exporting_what_is_not_there_names_what_is(tmp_path, capsys):
    database = tmp_path / "demo.sqlite"
    load_demo(database)
    out = tmp_path / "out.json"
    assert main(["export", "heron", str(out), "--database", str(database)]) == 2
    assert "there is Avocet, Dunlin, Mayfly, Night Heron, Sandpiper" in capsys.readouterr().err
    assert main(["export", "sandpiper", "/no/such/folder/x", "--database", str(database)]) == 2
    assert "cannot be written" in capsys.readouterr().err
    assert main(["export", "x", str(out), "--database", str(tmp_path / "none.sqlite")]) == 2
    assert "no workshop" in capsys.readouterr().err


def test_demo_and_own_data_live_apart(monkeypatch, tmp_path):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "data"))
    monkeypatch.setenv("XDG_CACHE_HOME", str(tmp_path / "cache"))
    assert cli.own_database() != cli.demo_database()
    if os.name == "posix" and sys.platform != "darwin":
        assert str(cli.own_database()).startswith(str(tmp_path / "data"))


def test_the_demo_is_the_story_it_tells():
    told = assess(sandpiper())
    answers = {answer.kind.value: answer for answer in told.loadouts[0].answers}
    assert answers["auw"].word.value == "too close to call"
    assert answers["wing_loading"].word.value == "on course"
    assert answers["thrust_to_weight"].word.value == "on course"
    assert answers["balance"].margin < 0
    assert answers["balance"].mends[0].part == "pack-1300"
    assert 36 <= len(told.parts) <= 40
    glue = next(part for part in told.parts if part.id == "spar-glue")
    assert glue.mass_g > 1.4 * glue.estimate_g


def test_the_demo_is_served_by_one_command(tmp_path):
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = str(free.getsockname()[1])
    arguments = ["demo", "--port", port, "--database", str(tmp_path / "demo.sqlite")]
    command = [sys.executable, "-m", "oaken_scale.cli", *arguments]
    with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as served:
        try:
            told = served.stdout.readline()
            assert f"Open http://127.0.0.1:{port}/build/sandpiper" in told
            deadline = time.monotonic() + 60
            while time.monotonic() < deadline:
                try:
                    shelf = HTTP.get(f"http://127.0.0.1:{port}/api/v1/builds", timeout=2).json()
                    break
                except httpx.HTTPError:
                    time.sleep(0.05)
        finally:
            served.kill()
    assert "Sandpiper" in [each["name"] for each in shelf]
