"""Builds at rest: SQLite through sqlite3 and plain SQL."""
