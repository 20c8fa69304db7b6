"""The job itself: pure functions over one frozen :class:`~oaken_scale.core.model.build.Build`.

Units everywhere inside: mass g, length mm, area dm2, angle rad, thrust gf.
Axes: x aft from the build's datum (the nose tip), y to starboard, z up.
"""

from oaken_scale.core.assess import Assessment, assess
from oaken_scale.core.model.build import Build

__all__ = ["Assessment", "Build", "assess"]
