"""Scales that the bench listens to; the simulated one ships with the product."""
