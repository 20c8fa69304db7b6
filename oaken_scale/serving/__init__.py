"""Serving the workshop: on this machine, and through a door to the local network."""
