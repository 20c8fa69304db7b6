"""The command line: demo, serve, let-in, export, import, backup, restore, assess,
openapi, schema."""

import argparse
import json
import os
import sys
import tempfile
from collections.abc import Sequence
from contextlib import ExitStack
from datetime import UTC, datetime
from importlib.metadata import version
from pathlib import Path

import platformdirs
import segno
from pydantic import TypeAdapter

from oaken_scale.api.app import create_app
from oaken_scale.core.assess import Assessment, assess
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.demo.workshop import load_demo
from oaken_scale.formats import build_file
from oaken_scale.serving.running import (
    CannotError,
    address_told,
    copy_daily,
    listening_as,
    run,
)
from oaken_scale.store.copies import CopyError, back_up, copy_before_migration, restore
from oaken_scale.store.database import DatabaseRefusedError
from oaken_scale.store.door import DeviceRole
from oaken_scale.store.in_use import InUseError, in_use
from oaken_scale.store.rescue import keep_note, rescue_if_damaged
from oaken_scale.workshop import Workshop

PORT = 8017
LAST_PORT = 65535
BAD_INPUT = 2
"""Exit status when what was given cannot be used."""


def own_database() -> Path:
    """Where a builder's own data live."""
    return platformdirs.user_data_path("oaken-scale", appauthor=False) / "workshop.sqlite"


def demo_database() -> Path:
    """Where the demo workshop lives, apart from the builder's own data."""
    return platformdirs.user_cache_path("oaken-scale", appauthor=False) / "demo.sqlite"


def main(arguments: Sequence[str] | None = None) -> int:
    """Run the command line; the exit status."""
    given = _parser().parse_args(arguments)
    try:
        status: int = given.run(given)
        return status
    except CannotError as error:
        print(f"oaken-scale: {error}", file=sys.stderr)
    except (DatabaseRefusedError, CopyError) as error:
        print(f"oaken-scale: {error}", file=sys.stderr)
    except BuildFaultError as error:
        for fault in error.faults:
            print(f"oaken-scale: {fault.field}: {fault.words}", file=sys.stderr)
    return BAD_INPUT


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(
        prog="oaken-scale",
        description="Weigh a foam board build as it grows, and know how it will fly.",
    )
    parser.add_argument("--version", action="version", version=f"%(prog)s {version('oaken-scale')}")
    commands = parser.add_subparsers(required=True, metavar="COMMAND")

    def command(name: str, run: object, help: str) -> argparse.ArgumentParser:
        added = commands.add_parser(name, help=help, description=help)
        added.set_defaults(run=run)
        return added

    for name, serving, help in (
        ("demo", _demo, "serve the demo workshop, loaded fresh"),
        ("serve", _serve, "serve your own workshop"),
    ):
        server = command(name, serving, help)
        server.add_argument(
            "--host", default="127.0.0.1", help="address of this machine to listen on"
        )
        server.add_argument("--port", type=_port, default=PORT, help="port to listen on")
        server.add_argument("--database", type=Path, help="database file to use")
        server.add_argument(
            "--lan", action="store_true", help="let phones of the local network in, by a code"
        )
        server.add_argument(
            "--lan-port", type=_port, help="port of the door to the network (default: the next)"
        )
        server.add_argument(
            "--lan-address", metavar="ADDRESS", help="the address that a phone is told"
        )
        server.add_argument("--open", action="store_true", help="open it in the browser")
    export = command("export", _export, "write a build to a file")
    export.add_argument("build", metavar="BUILD", help="a build's id or name")
    export.add_argument("file", metavar="FILE", type=Path)
    export.add_argument("--database", type=Path, help="database file to use")
    bring = command("import", _import, "bring in a build file as a build of its own")
    bring.add_argument("file", metavar="FILE", type=Path)
    bring.add_argument("--database", type=Path, help="database file to use")
    keep = command("backup", _backup, "copy the whole workshop to a file, also while it is served")
    keep.add_argument("file", metavar="FILE", type=Path)
    keep.add_argument("--database", type=Path, help="database file to copy")
    back = command("restore", _restore, "put a copy in the place of the workshop, which is copied")
    back.add_argument("file", metavar="FILE", type=Path)
    back.add_argument("--database", type=Path, help="database file to put it in the place of")
    invite = command("let-in", _let_in, "show a code that lets one device in, within ten minutes")
    invite.add_argument("--reader", action="store_true", help="to look, not to change anything")
    invite.add_argument("--lan-port", type=_port, default=PORT + 1, help="the door's port")
    invite.add_argument("--lan-address", metavar="ADDRESS", help="the address that it is told")
    invite.add_argument("--database", type=Path, help="database file that is served")
    tell = command("assess", _assess, "print what is told about a build file, as JSON")
    tell.add_argument("file", metavar="FILE", type=Path)
    command("openapi", _openapi, "print the API's OpenAPI document")
    command("schema", _schema, "print the build file's JSON Schema")
    return parser


def _port(text: str) -> int:
    """A port as it is typed. Raises ArgumentTypeError, in words, for one that is none."""
    if not text.isascii() or not text.isdigit() or not 1 <= int(text) <= LAST_PORT:
        raise argparse.ArgumentTypeError(f'"{text}" is no port; give a number from 1 to 65535')
    return int(text)


def _demo(given: argparse.Namespace) -> int:
    listening = listening_as(given.host, given.port, given.lan, given.lan_port, given.lan_address)
    path = given.database or demo_database()
    with ExitStack() as held:
        for number in range(2, 99):
            try:
                held.enter_context(in_use(path))
                break
            except InUseError as error:
                if given.database is not None:
                    raise CannotError(str(error)) from error
                path = demo_database().with_name(f"demo-{number}.sqlite")
        load_demo(path)
        return run(path, listening, given.open, "/build/sandpiper")


def _serve(given: argparse.Namespace) -> int:
    listening = listening_as(given.host, given.port, given.lan, given.lan_port, given.lan_address)
    path = given.database or own_database()
    try:
        with in_use(path):
            rescued = rescue_if_damaged(path, datetime.now(UTC))
            if rescued is not None:
                print(f"oaken-scale: {rescued.words}", file=sys.stderr, flush=True)
            copy_before_migration(path)
            if rescued is not None:
                keep_note(path, rescued, datetime.now(UTC))
            copy_daily(path)
            return run(path, listening, given.open)
    except InUseError as error:
        raise CannotError(str(error)) from error


def _export(given: argparse.Namespace) -> int:
    workshop = Workshop(_existing(given.database or own_database()))
    try:
        builds = workshop.files()
    finally:
        workshop.close()
    named = [build for build in builds if build.id == given.build]
    named = named or [build for build in builds if build.name.lower() == given.build.lower()]
    if len(named) > 1:
        ids = ", ".join(build.id for build in named)
        raise CannotError(f'{len(named)} builds are named "{given.build}"; give an id: {ids}')
    if not named:
        known = ", ".join(sorted(build.name for build in builds)) or "none"
        raise CannotError(f'there is no build "{given.build}"; there is {known}')
    _write_whole(given.file, build_file.dump(named[0]))
    return 0


def _import(given: argparse.Namespace) -> int:
    build = build_file.load(_read(given.file))
    workshop = Workshop(given.database or own_database())
    try:
        held = workshop.add(build)
    finally:
        workshop.close()
    print(f"{held.build.name} is on the shelf as {held.build.id}")
    return 0


def _backup(given: argparse.Namespace) -> int:
    path = back_up(_existing(given.database or own_database()), given.file)
    print(f"The workshop is copied to {path}, and every page of the copy was read again")
    return 0


def _restore(given: argparse.Namespace) -> int:
    path = given.database or own_database()
    try:
        with in_use(path):
            kept = restore(given.file, path, datetime.now(UTC))
    except InUseError as error:
        raise CannotError(str(error)) from error
    print(f"The workshop at {path} is the one of {given.file} now")
    if kept is not None:
        print(f"What stood there before is kept as {kept}")
    return 0


def _let_in(given: argparse.Namespace) -> int:
    address = address_told(given.lan_address)
    workshop = Workshop(_existing(given.database or own_database()))
    try:
        made = workshop.door.invite(DeviceRole.READER if given.reader else DeviceRole.WRITER)
    finally:
        workshop.close()
    url = f"https://{address}:{given.lan_port}/let-in#{made.code}"
    segno.make(url, error="m").terminal(compact=True)
    print(
        f"{url}\nCode {made.code}, for one device to come in as {made.role.value}, until "
        f"{made.expires_at.astimezone():%H:%M}"
    )
    return 0


def _assess(given: argparse.Namespace) -> int:
    told = assess(build_file.load(_read(given.file)))
    sys.stdout.write(TypeAdapter(Assessment).dump_json(told, indent=2).decode() + "\n")
    return 0


def _openapi(_: argparse.Namespace) -> int:
    with tempfile.TemporaryDirectory() as folder:
        app = create_app(Path(folder) / "none.sqlite")
        print(json.dumps(app.openapi(), indent=2))
        app.state.workshop.close()
    return 0


def _schema(_: argparse.Namespace) -> int:
    sys.stdout.write(build_file.schema())
    return 0


def _read(path: Path) -> bytes:
    try:
        return path.read_bytes()
    except OSError as error:
        raise CannotError(f"{path} cannot be read ({error.strerror})") from error


def _existing(path: Path) -> Path:
    if not path.exists():
        raise CannotError(f"there is no workshop at {path} yet; make serve begins one")
    return path


def _write_whole(path: Path, text: str) -> None:
    """Write a file all at once: the old one stays until the new one is whole."""
    try:
        with tempfile.NamedTemporaryFile(
            "w", encoding="utf-8", dir=path.parent, delete=False
        ) as fresh:
            fresh.write(text)
        os.replace(fresh.name, path)
    except OSError as error:
        raise CannotError(f"{path} cannot be written ({error.strerror})") from error


if __name__ == "__main__":
    sys.exit(main())
