"""Shapes: the wing and its figures, where it must balance by its lattice, outlines of parts."""
