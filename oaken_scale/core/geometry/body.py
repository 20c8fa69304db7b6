"""A body as the panels that it is cut of: the sides of a box, the skin of a tube, a tube's run.

Straight between frames, so that every integral below is exact for a box.

Source: docs/methods.md, section 7.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise
from math import hypot, pi, sqrt
from typing import Final

from oaken_scale.core.model.amount import mm
from oaken_scale.core.model.body import Body, BodyShape
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.pattern import Grain, Pattern

BOARD_MM: Final = 5.0
"""How thick a board is where nobody said."""


@dataclass(frozen=True, slots=True)
class BodyPanel:
    """One panel: what is cut, its area [dm2], and where its middle is on the plane [mm]."""

    name: str
    pattern: Pattern
    area_dm2: float
    x_mm: float
    y_mm: float
    z_mm: float


def body_panels(body: Body, board_mm: float = BOARD_MM) -> tuple[BodyPanel, ...]:
    """What a body is cut of from a board: of a box the two sides at full height, the bottom and
    the top between them; of a tube its skin, rolled out at the middle of the board.

    Raises BuildFaultError where its walls leave nothing between them.

    >>> from oaken_scale.core.model.body import Frame
    >>> box = Body("b", "Body", BodyShape.BOX, (Frame(0, 0, 60, 80), Frame(600, 0, 60, 80)))
    >>> [(p.name, p.area_dm2, p.x_mm, p.y_mm, p.z_mm) for p in body_panels(box)][::2]
    [('left side', 4.8, 300.0, -27.5, 0.0), ('bottom', 3.0, 300.0, 0.0, -37.5)]
    """
    if body.shape is BodyShape.TUBE:
        return (_rolled_out(body, board_mm),)
    for k, frame in enumerate(body.frames):
        size = min(frame.width_mm, frame.height_mm)
        if size <= 2 * board_mm:
            words = (
                "{}, frame {}, is {}; two walls alone take {}, so it must be more, "
                "or the board thinner"
            )
            facts = (body.name, str(k + 1), mm(size), mm(2 * board_mm))
            raise BuildFaultError([Fault(f"bodies.{body.id}.frames.{k}", words, facts)])
    return tuple(_sides(body, board_mm))


def run_mm(body: Body) -> float:
    """How long a body is along its middle [mm]: the run of rod or tube that makes a boom.

    >>> from oaken_scale.core.model.body import Frame
    >>> run_mm(Body("b", "Boom", BodyShape.TUBE, (Frame(0, 0, 8, 8), Frame(300, 40, 8, 8))))
    302.65...
    """
    return sum(hypot(b.x_mm - a.x_mm, b.z_mm - a.z_mm) for a, b in pairwise(body.frames))


def middle(body: Body) -> tuple[float, float]:
    """Where the middle of a body's run is along x and z [mm].

    >>> from oaken_scale.core.model.body import BodyShape, Frame
    >>> box = Body("b", "Body", BodyShape.BOX, (Frame(0, 0, 60, 80), Frame(600, 20, 60, 80)))
    >>> middle(box)
    (300.0, 10.0)
    """
    run = run_mm(body)
    x = z = 0.0
    for a, b in pairwise(body.frames):
        share = hypot(b.x_mm - a.x_mm, b.z_mm - a.z_mm) / run
        x += share * (a.x_mm + b.x_mm) / 2
        z += share * (a.z_mm + b.z_mm) / 2
    return x, z


def plan_corners(body: Body) -> tuple[tuple[tuple[float, float], ...], ...]:
    """A body from above, as corners (x, y) [mm]; of twins both.

    >>> from oaken_scale.core.model.body import Frame
    >>> plan_corners(Body("b", "B", BodyShape.BOX, (Frame(0, 0, 60, 80), Frame(600, 0, 20, 30))))
    (((0, 30.0), (600, 10.0), (600, -10.0), (0, -30.0)),)
    """
    edges = [(f.x_mm, f.width_mm / 2) for f in body.frames]
    middles = (body.y_mm, -body.y_mm) if body.twin else (body.y_mm,)
    return tuple(
        (*((x, y + half) for x, half in edges), *((x, y - half) for x, half in reversed(edges)))
        for y in middles
    )


def _sides(body: Body, board: float) -> Iterator[BodyPanel]:
    frames, inset = body.frames, board / 2

    half = [f.width_mm / 2 for f in frames]
    along = _along([(f.x_mm, w) for f, w in zip(frames, half, strict=True)])
    upper = [-(f.z_mm + f.height_mm / 2) for f in frames]
    lower = [-(f.z_mm - f.height_mm / 2) for f in frames]
    high = [f.height_mm for f in frames]
    area, (x, out, z) = _mean(along, high, [f.x_mm for f in frames], half, [f.z_mm for f in frames])
    ring = _ring(along, upper, lower)
    for name, side in (("left side", -1), ("right side", 1)):
        yield BodyPanel(name, ring, area, x, body.y_mm + side * (out - inset), z)

    wide = [f.width_mm - 2 * board for f in frames]
    for name, up in (("bottom", -1), ("top", 1)):
        if up > 0 and not body.has_top:
            continue
        edge = [f.z_mm + up * f.height_mm / 2 for f in frames]
        along = _along([(f.x_mm, z) for f, z in zip(frames, edge, strict=True)])
        area, (x, z) = _mean(along, wide, [f.x_mm for f in frames], edge)
        ring = _ring(along, [-w / 2 for w in wide], [w / 2 for w in wide])
        yield BodyPanel(name, ring, area, x, body.y_mm, z - up * inset)


def _rolled_out(body: Body, board: float) -> BodyPanel:
    """A tube's skin. Between two frames it is as long as its slope and as wide as their girths."""
    frames = body.frames
    girth = [_girth(body, k, board) for k in range(len(frames))]
    along = _along([(f.x_mm, g / (2 * pi)) for f, g in zip(frames, girth, strict=True)])
    area, (x, z) = _mean(along, girth, [f.x_mm for f in frames], [f.z_mm for f in frames])
    ring = _ring(along, [-g / 2 for g in girth], [g / 2 for g in girth])
    return BodyPanel("skin", ring, area, x, body.y_mm, z)


def _girth(body: Body, k: int, board: float) -> float:
    """The girth of an ellipse at the middle of its wall (Ramanujan's first formula)."""
    frame = body.frames[k]
    a, b = (frame.width_mm - board) / 2, (frame.height_mm - board) / 2
    if min(a, b) <= 0:
        words = "{}, frame {}, is {} across; it must be more than the board's {}"
        size = min(frame.width_mm, frame.height_mm)
        facts = (body.name, str(k + 1), mm(size), mm(board))
        raise BuildFaultError([Fault(f"bodies.{body.id}.frames.{k}", words, facts)])
    return pi * (3 * (a + b) - sqrt((3 * a + b) * (a + 3 * b)))


def _along(points: list[tuple[float, float]]) -> list[float]:
    """How far along a bent line each of its points is."""
    told = [0.0]
    for a, b in pairwise(points):
        told.append(told[-1] + hypot(b[0] - a[0], b[1] - a[1]))
    return told


def _mean(
    along: list[float], wide: list[float], *values: list[float]
) -> tuple[float, tuple[float, ...]]:
    """The area of a strip [dm2], and the means over it of what is linear between its ends."""
    total = 0.0
    moments = [0.0] * len(values)
    for k, (a, b) in enumerate(pairwise(along)):
        w1, w2 = wide[k], wide[k + 1]
        total += (b - a) * (w1 + w2) / 2
        for j, value in enumerate(values):
            v1, v2 = value[k], value[k + 1]
            moments[j] += (b - a) * (w1 * (2 * v1 + v2) + w2 * (v1 + 2 * v2)) / 6
    return total / 1e4, tuple(moment / total for moment in moments)


def _ring(along: list[float], upper: list[float], lower: list[float]) -> Pattern:
    front = [*zip(along, upper, strict=True), *reversed(list(zip(along, lower, strict=True)))]
    least = min(upper)
    return Pattern((tuple((round(s, 2), round(y - least, 2)) for s, y in front),), Grain.ALONG)
