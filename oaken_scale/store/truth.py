"""What only a simulated scale knows: the true masses of a simulated build."""

import sqlite3
from collections.abc import Mapping


def write_truth(
    connection: sqlite3.Connection,
    build_id: str,
    masses_g: Mapping[str, float],
    constants: Mapping[str, float],
) -> None:
    """Hide the true masses [g] by part and constants [g per unit] by lot."""
    connection.executemany(
        "INSERT INTO true_mass (build_id, part_id, mass_g) VALUES (?,?,?)",
        [(build_id, part, mass) for part, mass in masses_g.items()],
    )
    connection.executemany(
        "INSERT INTO true_constant (build_id, lot_id, constant) VALUES (?,?,?)",
        [(build_id, lot, constant) for lot, constant in constants.items()],
    )


def read_truth(
    connection: sqlite3.Connection, build_id: str
) -> tuple[dict[str, float], dict[str, float]]:
    """True masses by part and true constants by lot; empty for a real build."""
    masses = connection.execute(
        "SELECT part_id, mass_g FROM true_mass WHERE build_id = ?", (build_id,)
    )
    constants = connection.execute(
        "SELECT lot_id, constant FROM true_constant WHERE build_id = ?", (build_id,)
    )
    return dict(masses.fetchall()), dict(constants.fetchall())
