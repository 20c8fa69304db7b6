"""A short siege of what `make siege` does at length: killed while acts of every kind come in."""

from benchmarks.siege import siege


def test_what_was_acknowledged_survives_being_killed(tmp_path):
    acts, lost = siege(tmp_path / "w.sqlite", kills=3, seed=7)
    assert lost == []
    assert acts > 10
