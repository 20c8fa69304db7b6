"""The plane from above, to scale, nose to the left, with where it balances."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Final

import numpy as np

from oaken_scale.core.assess import Assessment, LoadoutAnswers
from oaken_scale.core.model.surface import Role
from oaken_scale.paper.drawing import BAND, FAINT, INK, OAK, SEA, Page, Point, wide
from oaken_scale.paper.shown import LengthUnit, Shown

TICKS: Final = {LengthUnit.MM: (1.0, (50, 100, 200, 500)), LengthUnit.IN: (25.4, (2, 4, 10, 20))}
Placing = Callable[[float, float], Point]
"""Where a place of the plane (x aft, y to starboard [mm]) lies on the paper [mm]."""

LABEL_MM: Final = 4.4
"""So far apart are the lines of the names under the drawing."""


@dataclass(frozen=True, slots=True)
class Frame:
    """Where a drawing stands on the paper [mm]."""

    left: float
    top: float
    wide: float
    high: float


def plane(
    page: Page, told: Assessment, loadout: LoadoutAnswers | None, frame: Frame, shown: Shown
) -> float | None:
    """Draw the plane; returns how many millimetres of it one of paper stands for, None where
    nothing is drawn yet."""
    corners = [at for each in told.outlines for at in each.corners]
    corners += [at for each in told.bodies for at in each.corners]
    if not corners:
        page.words(frame.left, frame.top + 8, "Nothing is drawn yet.", 9, colour=FAINT)
        return None
    points = np.array(corners)
    aft = max(float(points[:, 0].max()), 1.0)
    front = min(float(points[:, 0].min()), 0.0)
    half = max(float(np.abs(points[:, 1]).max()), 1.0)
    foot = 8 + 3 * LABEL_MM
    scale = min(frame.wide / (aft - front), (frame.high - foot) / (2 * half))
    middle = frame.top + half * scale
    bottom = middle + half * scale
    left = frame.left + (frame.wide - (aft - front) * scale) / 2

    def at(x: float, y: float) -> Point:
        return left + (x - front) * scale, middle + y * scale

    for body in told.bodies:
        page.area([at(x, y) for x, y in body.corners], fill=BAND, colour=OAK, width=0.35)
    page.line(at(front, 0), at(aft, 0), colour=OAK, width=1.2)
    for outline in told.outlines:
        if outline.role is Role.FIN:
            ends = [x for x, _ in outline.side]
            page.line(at(min(ends), 0), at(max(ends), 0), width=0.9)
            continue
        page.area([at(x, y) for x, y in outline.corners], fill="#FFFFFF", width=0.35)
    _where_it_balances(page, told, loadout, at, (frame.top, bottom), shown)
    _stations(page, (front, aft), at, bottom + 3 * LABEL_MM + 2, shown)
    return 1 / scale


def _where_it_balances(
    page: Page,
    told: Assessment,
    loadout: LoadoutAnswers | None,
    at: Placing,
    ends: tuple[float, float],
    shown: Shown,
) -> None:
    """The range, the neutral point and the CG, each named under the drawing."""
    top, bottom = ends
    beam, cg = told.beam, loadout.cg if loadout else None
    names: list[tuple[float, str, str]] = []
    unit = shown.length_unit.value
    if beam.low_mm is not None and beam.high_mm is not None:
        left, right = at(beam.low_mm, 0)[0], at(beam.high_mm, 0)[0]
        page.box(left, top, max(right - left, 0.5), bottom - top, fill=BAND)
        words = f"range {shown.length(beam.low_mm)} to {shown.length(beam.high_mm)}"
        names.append(((left + right) / 2, words, OAK))
    for outline in told.outlines:
        if outline.role is not Role.FIN:
            page.area([at(x, y) for x, y in outline.corners], width=0.35)
    if beam.neutral is not None:
        x = at(beam.neutral.x_mm, 0)[0]
        page.line((x, top), (x, bottom), dash=(0.6, 0.9), width=0.35)
        doubt = f" ±{shown.length(beam.band_mm)}" if beam.band_mm else ""
        names.append((x, f"neutral point {shown.length(beam.neutral.x_mm)}{doubt}", INK))
    if cg is not None:
        x, y = at(cg.x_mm, cg.y_mm)
        page.line((x - 2.5, y), (x + 2.5, y), colour=SEA, width=0.7)
        page.line((x, y - 2.5), (x, y + 2.5), colour=SEA, width=0.7)
        words = f"CG {shown.length(cg.x_mm)} ±{shown.length(2 * cg.x_sd_mm)} {unit}"
        names.append((x, words, SEA))
    for row, (x, words, colour) in enumerate(sorted(names, reverse=True)):
        y = bottom + (row + 1) * LABEL_MM
        page.line((x, bottom), (x, y), colour=colour, width=0.2)
        if x + 1.5 + wide(words, 8) > page.width - 12:
            page.words(x - 1.0, y, words, 8, anchor="end", colour=colour)
        else:
            page.words(x + 1.0, y, words, 8, colour=colour)


def _stations(page: Page, ends: tuple[float, float], at: Placing, y: float, shown: Shown) -> None:
    """Round stations from the nose along the foot."""
    front, aft = ends
    base, steps = TICKS[shown.length_unit]
    step = next((each for each in steps if (aft - front) / (each * base) <= 10), steps[-1])
    for k in range(int(front / base // step) + 1, int(aft / base // step) + 1):
        x = at(k * step * base, 0)[0]
        page.line((x, y), (x, y + 1.4), colour=FAINT)
        page.words(x, y + 4.6, f"{k * step}", 7, "figures", "middle", FAINT)
