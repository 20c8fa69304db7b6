"""The workshop: all builds of one database, held as they are on disk, and the one way to
change them.

The command line and the API stand on it; it knows neither.
"""

from oaken_scale.workshop.held import Held, Kept, assessed
from oaken_scale.workshop.workshop import Change, Workshop

__all__ = ["Change", "Held", "Kept", "Workshop", "assessed"]
