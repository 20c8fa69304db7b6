"""What a number on a foam board build can plausibly be.

Wide enough for the largest park camera carrier and the smallest indoor flyer, narrow enough that
a slipped decimal or a wrong unit is caught when it is typed.
"""

from typing import Final

PART_MASS_G: Final = 5_000.0
"""Heaviest single thing on a foam board build [g]."""

READING_G: Final = 20_000.0
"""Heaviest reading that any bench scale of this craft shows [g]."""

STATION_MM: Final = 5_000.0
"""Farthest station from the datum, either way [mm]."""

CHORD_MM: Final = 2_000.0
"""Longest chord [mm]."""
LEAST_AREA_MM2: Final = 1.0
"""Least area of a surface, or of its half [mm2]."""

AREA_DM2: Final = 500.0
"""Largest area of one part or sample [dm2]."""

RUN_M: Final = 200.0
"""Longest run of tape, rod or bead in one part [m]."""

THRUST_GF: Final = 20_000.0
"""Largest static thrust [gf]."""

LOT_CONSTANT: Final = 2_000.0
"""Largest lot constant [g per dm2, m or piece]."""

JOINT_S: Final = 30 * 24 * 3600.0
"""Longest that a joint takes to be strong [s]."""

PARTS: Final = 2_000
"""Most parts in one build."""

BALLAST_PIECES: Final = 40
"""Most pieces of ballast at hand."""

PIECES: Final = 1_000
"""Most pieces in one part, or of one part on the pan."""

WEIGHINGS: Final = 100_000
"""Most readings in one build's file."""

ENTRIES: Final = 10_000
"""Most joints, checks of the balance, or entries in the diary of one build."""

SHEET_MM: Final = 1_000_000.0
"""Longest sheet, rod or roll, or bead out of one bottle [mm]."""

PRICE: Final = 100_000.0
"""Dearest sheet, roll or thing, in the workshop's own money."""

STOCK: Final = 10_000.0
"""Most sheets or rolls of one lot on a rack."""

WASTE: Final = 5.0
"""Largest waste factor."""

NAME_LENGTH: Final = 80
"""Longest name of anything [characters]."""

NOTE_LENGTH: Final = 2_000
"""Longest note [characters]."""

CURRENT_A: Final = 500.0
"""Largest current [A]."""

RUNS: Final = 30
"""Most runs of one drive."""

POINTS: Final = 20
"""Most points in one run."""

FLIGHTS: Final = 2_000
"""Most flights of one plane."""

TRAVEL_MM: Final = 150.0
"""Furthest that a control or a tab is set [mm]."""

THROW_M: Final = 300.0
"""Furthest that a plane of this craft goes from one hand's throw [m]."""

THROW_HEIGHT_M: Final = 80.0
"""Highest that a throw begins or goes [m]."""

THROW_S: Final = 1_800.0
"""Longest that a thrown plane stays up [s]."""

WIND_M_S: Final = 20.0
"""Nobody throws in more wind [m/s]."""

THROWS: Final = 5_000
"""Most throws of one plane."""

OWN_LINES: Final = 30
"""Most lines of the builder's own on one list."""
