"""Loading the demo workshop into a database of its own."""

from datetime import UTC, datetime
from pathlib import Path

from oaken_scale.core.material.rack import STARTER
from oaken_scale.core.model.faults.whole import validated
from oaken_scale.demo.fleet import fleet
from oaken_scale.demo.sandpiper import on_the_shelf, true_constants, true_masses
from oaken_scale.demo.sandpiper_parts import DRAWER
from oaken_scale.store.builds import add_build
from oaken_scale.store.database import Database, DatabaseRefusedError, is_demo, refuse_unfit
from oaken_scale.store.drawer import write_thing
from oaken_scale.store.rack import write_rack_lot
from oaken_scale.store.truth import write_truth


def load_demo(path: Path) -> None:
    """Lay out the workshop afresh at ``path``; what a demo left there before is gone.

    Raises DatabaseRefusedError for a file that is no workshop of ours, or somebody's own, and
    leaves it.
    """
    refuse_unfit(path)
    if path.exists() and path.stat().st_size > 0 and not is_demo(path):
        raise DatabaseRefusedError(
            f"{path} is somebody's own workshop, and the demo would take its place; name another "
            "file for the demo, or serve this one with `oaken-scale serve --database`"
        )
    for stale in (path, path.with_name(path.name + "-wal"), path.with_name(path.name + "-shm")):
        stale.unlink(missing_ok=True)
    database = Database(path)
    with database.transaction() as connection:
        build = on_the_shelf()
        connection.execute("INSERT INTO about (word, value) VALUES ('demo', 'yes')")
        for lot in (*build.lots, *STARTER):
            write_rack_lot(connection, lot)
        for thing in DRAWER:
            write_thing(connection, thing)
        add_build(connection, build, datetime(2026, 1, 2, 10, 0, tzinfo=UTC))
        write_truth(connection, build.id, true_masses(), true_constants())
        for plane in fleet():
            add_build(connection, validated(plane.build), plane.begun)
            write_truth(connection, plane.build.id, plane.masses, plane.constants)
    database.close()
