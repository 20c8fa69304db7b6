"""A page as marks on paper in millimetres from its upper left corner, and what it becomes: PDF by
ReportLab, SVG by hand. Both are the same marks at the same places."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from html import escape
from io import BytesIO
from pathlib import Path
from typing import Final

from reportlab.lib.colors import HexColor
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas

POINT_MM: Final = 25.4 / 72
"""One typographic point [mm]."""

INK: Final = "#2B2118"
FAINT: Final = "#6A5B4B"
LINE: Final = "#D9C9B0"
OAK: Final = "#7A5230"
SEA: Final = "#1F5F7A"
RUST: Final = "#A23B1E"
BAND: Final = "#D9C6AE"
PAPER: Final = "#FFFFFF"

Point = tuple[float, float]
TYPE: Final = Path(__file__).parent / "type"
FAMILIES: Final = {
    "words": ("Atkinson Hyperlegible Next Variable", 400),
    "strong": ("Atkinson Hyperlegible Next Variable", 650),
    "figures": ("Atkinson Hyperlegible Mono Variable", 400),
    "strong-figures": ("Atkinson Hyperlegible Mono Variable", 650),
}
"""Each cut's family and weight on the screen; on paper it is the file of that name."""


@dataclass(frozen=True, slots=True)
class Sheet:
    """A size of paper [mm]."""

    name: str
    width: float
    height: float


PAPERS: Final = {"a4": Sheet("A4", 210.0, 297.0), "letter": Sheet("Letter", 215.9, 279.4)}


@dataclass(frozen=True, slots=True)
class Stroke:
    """A line through points [mm], closed and filled or not."""

    points: tuple[Point, ...]
    colour: str | None = INK
    width: float = 0.25
    dash: tuple[float, ...] = ()
    fill: str | None = None
    is_closed: bool = False


@dataclass(frozen=True, slots=True)
class Disc:
    """A circle, or the part of it from the top clockwise that is ``filled`` (0 to 1)."""

    at: Point
    radius: float
    filled: float = 0.0
    dash: tuple[float, ...] = ()


@dataclass(frozen=True, slots=True)
class Words:
    """A line of text on its baseline; ``size`` in points, ``anchor`` start, middle or end."""

    at: Point
    text: str
    size: float = 9.0
    cut: str = "words"
    anchor: str = "start"
    colour: str = INK


Mark = Stroke | Disc | Words


@dataclass(slots=True)
class Page:
    """What is drawn on one sheet of paper; marks beyond ``window`` (left, top, right, bottom) of
    those that are ``clipped`` do not show."""

    width: float
    height: float
    marks: list[Mark] = field(default_factory=list)
    clipped: list[Mark] = field(default_factory=list)
    window: tuple[float, float, float, float] | None = None

    def line(
        self,
        *points: Point,
        colour: str = INK,
        width: float = 0.25,
        dash: tuple[float, ...] = (),
    ) -> None:
        """A line through points."""
        self.marks.append(Stroke(points, colour, width, dash))

    def area(
        self,
        points: Sequence[Point],
        fill: str | None = None,
        colour: str | None = INK,
        width: float = 0.25,
    ) -> None:
        """A closed shape."""
        self.marks.append(Stroke(tuple(points), colour, width, (), fill, is_closed=True))

    def box(self, x: float, y: float, wide: float, high: float, fill: str | None = None) -> None:
        """A rectangle by its upper left corner: filled without an edge, or an edge alone."""
        corners = ((x, y), (x + wide, y), (x + wide, y + high), (x, y + high))
        self.area(corners, fill, None if fill else INK)

    def words(
        self,
        x: float,
        y: float,
        text: str,
        size: float = 9.0,
        cut: str = "words",
        anchor: str = "start",
        colour: str = INK,
    ) -> None:
        """A line of text."""
        if text:
            self.marks.append(Words((x, y), text, size, cut, anchor, colour))


def _register() -> None:
    known = pdfmetrics.getRegisteredFontNames()
    for cut in FAMILIES:
        if cut not in known:
            pdfmetrics.registerFont(TTFont(cut, TYPE / f"{cut}.ttf"))


def wide(text: str, size: float = 9.0, cut: str = "words") -> float:
    """How wide a line of text is [mm].

    >>> round(wide("1234567890", 10, "figures"), 1)
    22.3
    """
    _register()
    return float(pdfmetrics.stringWidth(text, cut, size)) * POINT_MM


def fitted(text: str, most: float, size: float = 9.0, cut: str = "words") -> str:
    """The text, or as much of its beginning as fits ``most`` mm with an ellipsis.

    >>> fitted("Left wing panel", 100), fitted("Left wing panel", 15)
    ('Left wing panel', 'Left wing…')
    """
    if wide(text, size, cut) <= most:
        return text
    kept = text
    while kept and wide(f"{kept.rstrip()}…", size, cut) > most:
        kept = kept[:-1]
    return f"{kept.rstrip()}…"


def folded(text: str, most: float, size: float = 9.0, cut: str = "words") -> list[str]:
    """The text in lines that fit ``most`` mm, broken at plain spaces."""
    lines: list[str] = []
    for word in filter(None, text.split(" ")):
        longer = f"{lines[-1]} {word}" if lines else word
        if lines and wide(longer, size, cut) <= most:
            lines[-1] = longer
        else:
            lines.append(fitted(word, most, size, cut))
    return lines


def pdf(pages: Sequence[Page], title: str) -> bytes:
    """The pages as PDF: vectors, our type, nothing from outside, the same bytes every time."""
    _register()
    out = BytesIO()
    canvas = Canvas(out, pageCompression=1, invariant=1)
    canvas.setTitle(title)
    canvas.setCreator("Oaken Scale")
    for page in pages:
        canvas.setPageSize((page.width / POINT_MM, page.height / POINT_MM))
        for mark in page.marks:
            _onto(canvas, page.height, mark)
        if page.window is not None:
            left, top, right, bottom = page.window
            canvas.saveState()
            path = canvas.beginPath()
            path.rect(
                left / POINT_MM,
                (page.height - bottom) / POINT_MM,
                (right - left) / POINT_MM,
                (bottom - top) / POINT_MM,
            )
            canvas.clipPath(path, stroke=0, fill=0)
            for mark in page.clipped:
                _onto(canvas, page.height, mark)
            canvas.restoreState()
        canvas.showPage()
    canvas.save()
    return out.getvalue()


def _onto(canvas: Canvas, height: float, mark: Mark) -> None:
    def at(point: Point) -> Point:
        return point[0] / POINT_MM, (height - point[1]) / POINT_MM

    if isinstance(mark, Words):
        canvas.setFillColor(HexColor(mark.colour))
        canvas.setFont(mark.cut, mark.size)
        draw = {
            "start": canvas.drawString,
            "middle": canvas.drawCentredString,
            "end": canvas.drawRightString,
        }[mark.anchor]
        draw(*at(mark.at), mark.text)
        return
    canvas.setLineJoin(1)
    if isinstance(mark, Disc):
        x, y = at(mark.at)
        radius = mark.radius / POINT_MM
        canvas.setStrokeColor(HexColor(INK))
        canvas.setFillColor(HexColor(INK))
        canvas.setLineWidth(0.2 / POINT_MM)
        canvas.setDash([each / POINT_MM for each in mark.dash])
        canvas.circle(x, y, radius, stroke=1, fill=int(mark.filled >= 1))
        canvas.setDash()
        if 0 < mark.filled < 1:
            canvas.wedge(
                x - radius, y - radius, x + radius, y + radius, 90, -360 * mark.filled, 0, 1
            )
        return
    path = canvas.beginPath()
    path.moveTo(*at(mark.points[0]))
    for point in mark.points[1:]:
        path.lineTo(*at(point))
    if mark.is_closed:
        path.close()
    if mark.colour:
        canvas.setStrokeColor(HexColor(mark.colour))
        canvas.setLineWidth(mark.width / POINT_MM)
        canvas.setDash([each / POINT_MM for each in mark.dash])
    if mark.fill:
        canvas.setFillColor(HexColor(mark.fill))
    canvas.drawPath(path, stroke=int(mark.colour is not None), fill=int(mark.fill is not None))
    canvas.setDash()


def svg(page: Page, title: str) -> str:
    """A page as SVG, its type named as the pages of the workshop name it."""
    drawn = "".join(_svg(mark) for mark in page.marks)
    if page.window is not None:
        left, top, right, bottom = page.window
        drawn += (
            f'<svg x="{left:g}" y="{top:g}" width="{right - left:g}" height="{bottom - top:g}" '
            f'viewBox="{left:g} {top:g} {right - left:g} {bottom - top:g}">'
            f"{''.join(_svg(mark) for mark in page.clipped)}</svg>"
        )
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{page.width:g}mm" '
        f'height="{page.height:g}mm" viewBox="0 0 {page.width:g} {page.height:g}" role="group" '
        f'aria-label="{escape(title)}"><rect width="{page.width:g}" height="{page.height:g}" '
        f'fill="{PAPER}"/>{drawn}</svg>'
    )


def _svg(mark: Mark) -> str:
    if isinstance(mark, Words):
        family, weight = FAMILIES[mark.cut]
        x, y = mark.at
        return (
            f'<text x="{x:.2f}" y="{y:.2f}" font-family="{family}" font-weight="{weight}" '
            f'font-size="{mark.size * POINT_MM:.3f}" text-anchor="{mark.anchor}" '
            f'fill="{mark.colour}">{escape(mark.text)}</text>'
        )
    if isinstance(mark, Disc):
        x, y = mark.at
        fill = INK if mark.filled >= 1 else "none"
        drawn = (
            f'<circle cx="{x:.2f}" cy="{y:.2f}" r="{mark.radius:g}" fill="{fill}" stroke="{INK}" '
            f'stroke-width="0.2"{_dashed(mark.dash)}/>'
        )
        if 0 < mark.filled < 1:
            turn = 2 * math.pi * mark.filled
            end = (x + mark.radius * math.sin(turn), y - mark.radius * math.cos(turn))
            drawn += (
                f'<path d="M{x:.2f} {y:.2f}V{y - mark.radius:.2f}A{mark.radius:g} {mark.radius:g} '
                f'0 {int(mark.filled > 0.5)} 1 {end[0]:.2f} {end[1]:.2f}Z" fill="{INK}"/>'
            )
        return drawn
    path = "M" + "L".join(f"{x:.2f} {y:.2f}" for x, y in mark.points)
    edge = (
        f'stroke="{mark.colour}" stroke-width="{mark.width:g}" stroke-linejoin="round"'
        f"{_dashed(mark.dash)}"
        if mark.colour
        else ""
    )
    return f'<path d="{path}{"Z" * mark.is_closed}" fill="{mark.fill or "none"}" {edge}/>'


def _dashed(dash: tuple[float, ...]) -> str:
    return f' stroke-dasharray="{" ".join(f"{each:g}" for each in dash)}"' if dash else ""


def moved(mark: Mark, by: Point) -> Mark:
    """A mark elsewhere on the paper [mm]."""

    def there(point: Point) -> Point:
        return point[0] + by[0], point[1] + by[1]

    if isinstance(mark, Stroke):
        points = tuple(map(there, mark.points))
        return Stroke(points, mark.colour, mark.width, mark.dash, mark.fill, mark.is_closed)
    if isinstance(mark, Disc):
        return Disc(there(mark.at), mark.radius, mark.filled, mark.dash)
    return Words(there(mark.at), mark.text, mark.size, mark.cut, mark.anchor, mark.colour)
