"""A plan of cuts as files: SVG and DXF to full size, the cut list as CSV."""

import csv
from collections.abc import Sequence
from io import StringIO
from typing import Final
from xml.sax.saxutils import escape, quoteattr

import ezdxf
from ezdxf import units

from oaken_scale.core.material.cutting import CutPiece, CutPlan

BETWEEN_MM: Final = 20.0
"""How far apart sheets stand in one drawing [mm]."""

HEADINGS: Final = (
    "sheet",
    "part",
    "piece",
    "of",
    "joined",
    "joined of",
    "x, mm",
    "y, mm",
    "length, mm",
    "width, mm",
    "turned, degrees",
    "turned over",
    "its outline is known",
    "cut from",
)


def label(piece: CutPiece) -> str:
    """What a piece is called on the sheet.

    >>> ring = (((0.0, 0.0), (9.0, 0.0), (9.0, 9.0)),)
    >>> label(CutPiece("a", "Rib", 2, 3, 1, 2, 0, 0, False, False, 0, 0, ring, (5.0, 5.0)))
    'Rib, 2 of 3, part 1 of 2'
    """
    words = piece.name
    if piece.of > 1:
        words += f", {piece.number} of {piece.of}"
    if piece.joined_of > 1:
        words += f", part {piece.joined} of {piece.joined_of}"
    return words


def cut_svg(plans: Sequence[CutPlan]) -> str:
    """The sheets one under another, to full size; each sheet and each piece a group of its own."""
    wide = max((plan.length_mm for plan in plans), default=0.0)
    y, groups = 0.0, []
    for plan in plans:
        for number in range(plan.sheets):
            groups.append(_svg_sheet(plan, number, y))
            y += plan.width_mm + BETWEEN_MM
    high = max(y - BETWEEN_MM, 0.0)
    return (
        '<?xml version="1.0" encoding="UTF-8"?>\n'
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide:g}mm" height="{high:g}mm" '
        f'viewBox="0 0 {wide:g} {high:g}" fill="none" stroke="#000" stroke-width="0.2">\n'
        + "".join(groups)
        + "</svg>\n"
    )


def _svg_sheet(plan: CutPlan, number: int, y: float) -> str:
    name = quoteattr(f"{plan.name}, sheet {number + 1}")
    lines = [
        f'<g id={name} transform="translate(0 {y:g})">\n',
        f'<rect width="{plan.length_mm:g}" height="{plan.width_mm:g}" stroke="#999"/>\n',
    ]
    for piece in _on(plan, number):
        paths = " ".join(
            "M" + " L".join(f"{x:.2f},{y:.2f}" for x, y in ring) + " Z" for ring in piece.rings
        )
        x_at, y_at = piece.name_at
        lines.append(
            f"<g id={quoteattr(label(piece))}>"
            f'<path fill-rule="evenodd" d="{paths}"/>{_svg_folds(piece)}'
            f'<text x="{x_at:g}" y="{y_at:g}" font-size="8" fill="#999" stroke="none" '
            f'text-anchor="middle">{escape(label(piece))}</text></g>\n'
        )
    return "".join([*lines, "</g>\n"])


def _svg_folds(piece: CutPiece) -> str:
    paths = " ".join("M" + " L".join(f"{x:.2f},{y:.2f}" for x, y in line) for line in piece.folds)
    return f'<path class="fold" stroke-dasharray="6 3" d="{paths}"/>' if paths else ""


def cut_dxf(plans: Sequence[CutPlan]) -> str:
    """The sheets one under another, to full size in mm: sheets, cuts, folds and names on layers of
    their own."""
    document = ezdxf.new("R2010")
    document.units = units.MM
    for layer, colour in (("SHEET", 8), ("CUT", 7), ("FOLD", 5), ("NAME", 9)):
        document.layers.add(layer, color=colour)
    space, top = document.modelspace(), 0.0
    for plan in plans:
        for number in range(plan.sheets):
            long, high = plan.length_mm, plan.width_mm
            corners = [(0, top), (long, top), (long, top - high), (0, top - high)]
            space.add_lwpolyline(corners, close=True, dxfattribs={"layer": "SHEET"})
            for piece in _on(plan, number):
                for ring in piece.rings:
                    points = [(x, top - y) for x, y in ring]
                    space.add_lwpolyline(points, close=True, dxfattribs={"layer": "CUT"})
                for line in piece.folds:
                    points = [(x, top - y) for x, y in line]
                    space.add_lwpolyline(points, dxfattribs={"layer": "FOLD"})
                text = space.add_text(label(piece), height=6, dxfattribs={"layer": "NAME"})
                text.set_placement((piece.name_at[0], top - piece.name_at[1]))
            top -= high + BETWEEN_MM
    out = StringIO()
    document.write(out)
    return out.getvalue()


def cut_list(plans: Sequence[CutPlan]) -> str:
    """Every piece by sheet, with where it lies and how large it is (RFC 4180, decimal points)."""
    out = StringIO()
    table = csv.writer(out)
    table.writerow(HEADINGS)
    for plan in plans:
        for number in range(plan.sheets):
            for piece in _on(plan, number):
                xs = [x for x, _ in piece.rings[0]]
                ys = [y for _, y in piece.rings[0]]
                table.writerow(
                    [
                        number + 1,
                        _words(piece.name),
                        piece.number,
                        piece.of,
                        piece.joined,
                        piece.joined_of,
                        f"{min(xs):.1f}",
                        f"{min(ys):.1f}",
                        f"{max(xs) - min(xs):.1f}",
                        f"{max(ys) - min(ys):.1f}",
                        piece.turn_deg,
                        "yes" if piece.is_flipped else "no",
                        "no" if piece.is_supposed else "yes",
                        _words(plan.name),
                    ]
                )
    return out.getvalue()


def _on(plan: CutPlan, number: int) -> list[CutPiece]:
    return [piece for piece in plan.pieces if piece.sheet == number]


def _words(text: str) -> str:
    """A name that no spreadsheet takes for a formula."""
    return f"'{text}" if text[:1] in ("=", "+", "-", "@", "\t") else text
