"""The one file that is installed: everything that runs is in it."""

import os
import subprocess
import sys
import zipfile
from importlib.metadata import version
from pathlib import Path

import pytest

from oaken_scale.cli import main

ROOT = Path(__file__).parents[1]


def test_the_wheel_holds_pages_type_and_migrations(tmp_path):
    make = [sys.executable, "-m", "pip", "wheel", "--quiet", "--no-deps", "--no-build-isolation"]
    # Built apart: neither an older build's pages nor a second run's come into it.
    apart = tmp_path / "apart.cfg"
    apart.write_text(f"[build]\nbuild_base = {tmp_path / 'build'}\n")
    subprocess.run(
        [*make, "-w", str(tmp_path), str(ROOT)],
        check=True,
        capture_output=True,
        env={**os.environ, "DIST_EXTRA_CONFIG": str(apart)},
    )
    (wheel,) = tmp_path.glob("*.whl")
    assert wheel.stat().st_size < 3_000_000
    held = set(zipfile.ZipFile(wheel).namelist())
    wanted = [
        *(ROOT / "oaken_scale" / "api" / "pages").rglob("*.*"),
        *(ROOT / "oaken_scale" / "store" / "migrations").glob("*.sql"),
        *(ROOT / "oaken_scale" / "paper" / "type").iterdir(),
        *(ROOT / "oaken_scale").rglob("*.py"),
    ]
    missing = [str(each) for each in wanted if str(each.relative_to(ROOT)) not in held]
    assert missing == []
    assert not any(name.startswith(("tests", "web", "docs")) for name in held)


def test_the_version_is_told(capsys):
    with pytest.raises(SystemExit) as told:
        main(["--version"])
    assert told.value.code == 0
    assert capsys.readouterr().out.strip() == f"oaken-scale {version('oaken-scale')}"
