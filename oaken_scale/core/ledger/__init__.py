"""Masses from weighings: what is believed before, where readings settle, which may be slips."""
