"""Reading the outlines of a plan in PDF: its vector paths, page by page, or tiles put together."""

from collections.abc import Iterator
from dataclasses import replace
from io import BytesIO
from math import isfinite
from typing import Any, Final

import numpy as np
from pdfminer.converter import PDFLayoutAnalyzer
from pdfminer.layout import LAParams, LTChar, LTContainer, LTCurve, LTImage, LTPage, LTTextLine
from pdfminer.pdfdocument import PDFDocument, PDFPasswordIncorrect, PDFTextExtractionNotAllowed
from pdfminer.pdfinterp import PDFPageInterpreter, PDFResourceManager
from pdfminer.pdfpage import PDFPage
from pdfminer.pdfparser import PDFParser
from shapely.geometry import LineString, Point, Polygon, box

from oaken_scale.core.geometry.curves import Curve, bezier
from oaken_scale.core.geometry.outline import Drawing, Label
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault

MM_PER_POINT: Final = 25.4 / 72
"""The unit of a page (ISO 32000-1, 8.3.2.3)."""

MOST_PAGES: Final = 60
MOST_POINTS: Final = 200_000
APART_MM: Final = 20.0
"""So far apart pages are laid that are no tiles."""

WHITE: Final = 0.97
FRAME: Final = 0.8
"""A rectangle of so much of a page in both directions is its frame, not a part."""


def read_pdf(data: bytes, columns: int | None = None, overlap_mm: float = 0.0) -> Drawing:
    """The curves of a PDF in mm, as they print without scaling.

    A plan that was drawn to another scale wants one known length. Pages lie one below another;
    with ``columns`` they are tiles of one plan, row by row, each overlapping the next by
    ``overlap_mm``, and are cut in the middle of what overlaps. A page that repeats an earlier one
    adds nothing. Raises BuildFaultError for a locked or broken file, or one without lines.
    """
    try:
        pages = list(_pages(data))
    except (PDFPasswordIncorrect, PDFTextExtractionNotAllowed) as error:
        raise _refused("is locked; save it without a password") from error
    except BuildFaultError:
        raise
    except Exception as error:  # whatever a broken file leads the parser to
        raise _refused(f"is broken ({type(error).__name__}); save it again as PDF") from error
    if not pages:
        raise _refused("has no page that can be read; save it again as PDF")
    notes = []
    pictures = sum(page.pictures for page in pages)
    if pictures:
        notes.append(
            f"{pictures} {'picture' if pictures == 1 else 'pictures'} left out: a scan has no "
            "lines; trace it, or measure the part"
        )
    frames = sum(page.frames for page in pages)
    if frames:
        what = "frame of a page is" if frames == 1 else "frames of pages are"
        notes.append(f"{frames} {what} left out: no part is as large as its page")
    placed = _as_tiles(pages, columns, overlap_mm) if columns else _one_below_another(pages)
    curves = tuple(curve for page in placed for curve in page.curves)
    labels = tuple(label for page in placed for label in page.labels)
    if not curves:
        what = "only pictures" if pictures else "no lines"
        raise _refused(f"holds {what}; export the plan as vectors, or as SVG or DXF")
    return Drawing(curves, labels, 1.0, tuple(notes), len(pages))


class _Page:
    """What a page draws, in mm, from its upper left corner, y down."""

    def __init__(self, width: float, height: float) -> None:
        self.width, self.height = width, height
        self.curves: list[Curve] = []
        self.labels: list[Label] = []
        self.pictures = self.frames = 0

    def moved(self, x: float, y: float) -> "_Page":
        there = _Page(self.width, self.height)
        by = np.array([x, y])
        there.curves = [replace(each, points=each.points + by) for each in self.curves]
        there.labels = [replace(each, x=each.x + x, y=each.y + y) for each in self.labels]
        return there


class _Collector(PDFLayoutAnalyzer):  # type: ignore[misc]
    """Keeps the layout of each page."""

    def __init__(self, resources: PDFResourceManager) -> None:
        super().__init__(resources, laparams=LAParams(all_texts=True))
        self.pages: list[LTPage] = []

    def receive_layout(self, ltpage: LTPage) -> None:
        self.pages.append(ltpage)


def _pages(data: bytes) -> Iterator[_Page]:
    document = PDFDocument(PDFParser(BytesIO(data)))
    resources = PDFResourceManager()
    collector = _Collector(resources)
    interpreter = PDFPageInterpreter(resources, collector)
    points = 0
    for number, page in enumerate(PDFPage.create_pages(document)):
        if number >= MOST_PAGES:
            raise _refused(f"has more than {MOST_PAGES} pages; export those of the plan alone")
        interpreter.process_page(page)
        layout = collector.pages.pop()
        told = _Page(layout.width * MM_PER_POINT, layout.height * MM_PER_POINT)
        for element in _elements(layout):
            if isinstance(element, LTImage):
                told.pictures += 1
            elif isinstance(element, LTTextLine):
                told.labels += _label(element, layout)
            elif isinstance(element, LTCurve):
                curve = _curve(element, layout)
                if curve is not None and _is_frame(curve, told):
                    told.frames += 1
                elif curve is not None:
                    points += len(curve.points)
                    if points > 4 * MOST_POINTS:
                        raise _refused(f"has more than {MOST_POINTS:,} points; simplify it")
                    told.curves.append(curve)
        yield told


def _elements(container: Any) -> Iterator[Any]:
    for each in container:
        if isinstance(each, LTTextLine | LTCurve | LTImage):
            yield each
        elif isinstance(each, LTContainer):
            yield from _elements(each)


def _curve(element: LTCurve, page: LTPage) -> Curve | None:
    """A path flattened; None for what is not drawn, or is white."""
    if not element.stroke and (not element.fill or _is_white(element.non_stroking_color)):
        return None
    path = element.original_path or []
    corners: list[np.ndarray] = []
    closed = False
    for operator, *given in path:
        if operator in ("m", "l"):
            corners.append(np.array([given[0]], dtype=float))
        elif operator == "c":
            corners.append(bezier(np.array([corners[-1][-1], *given], dtype=float))[1:])
        elif operator == "h":
            closed = True
    if not corners:
        return None
    points = np.vstack(corners)
    if not np.isfinite(points).all():
        return None
    points = np.column_stack([points[:, 0] - page.x0, page.y1 - points[:, 1]]) * MM_PER_POINT
    keep = np.append(True, np.hypot(*np.diff(points, axis=0).T) > 1e-6)
    points = points[keep]
    if len(points) > 2 and np.hypot(*(points[0] - points[-1])) < 1e-3:
        points, closed = points[:-1], True
    if len(points) < 2 or not isfinite(float(np.ptp(points))):
        return None
    closed = (closed or bool(element.fill and not element.stroke)) and len(points) > 2
    return Curve(points, closed)


def _is_white(colour: Any) -> bool:
    try:
        values = [
            float(each) for each in (colour if isinstance(colour, list | tuple) else [colour])
        ]
    except (TypeError, ValueError):
        return False
    if len(values) == 4:
        return max(values) <= 1 - WHITE
    return bool(values) and min(values) >= WHITE


def _is_frame(curve: Curve, page: _Page) -> bool:
    """Whether a closed curve is a frame around what the page shows: a rectangle of most of it."""
    size = np.ptp(curve.points, axis=0)
    return bool(
        curve.closed
        and len(curve.points) == 4
        and size[0] >= FRAME * page.width
        and size[1] >= FRAME * page.height
        and Polygon(curve.points).area >= 0.999 * size[0] * size[1]
    )


def _label(line: LTTextLine, page: LTPage) -> list[Label]:
    words = " ".join(line.get_text().split())
    letters = [each for each in line if isinstance(each, LTChar)]
    if not words or not letters:
        return []
    x, y = (line.x0 + line.x1) / 2, (line.y0 + line.y1) / 2
    return [Label(words, (x - page.x0) * MM_PER_POINT, (page.y1 - y) * MM_PER_POINT)]


def _one_below_another(pages: list[_Page]) -> list[_Page]:
    placed, below = [], 0.0
    for k, page in enumerate(pages):
        if any(_repeats(page, other) for other in pages[:k]):
            continue
        placed.append(page.moved(0.0, below))
        below += page.height + APART_MM
    return placed


def _repeats(page: _Page, other: _Page) -> bool:
    """Whether a page draws what another one does, moved: programs that tile often put the whole
    plan on every page, and show a part of it."""
    if not page.curves or len(page.curves) != len(other.curves):
        return False
    by = page.curves[0].points[0] - other.curves[0].points[0]
    return all(
        len(one.points) == len(two.points) and np.allclose(one.points - by, two.points, atol=0.05)
        for one, two in zip(page.curves, other.curves, strict=True)
    )


def _as_tiles(pages: list[_Page], columns: int, overlap_mm: float) -> list[_Page]:
    """Pages put together row by row, each cut in the middle of what it shares with the next."""
    if len(pages) > 1 and all(_repeats(page, pages[0]) for page in pages[1:]):
        return pages[:1]
    placed = []
    rows = -(-len(pages) // columns)
    for k, page in enumerate(pages):
        row, column = divmod(k, columns)
        if overlap_mm >= min(page.width, page.height):
            raise BuildFaultError(
                [Fault("overlap_mm", "is as wide as a page; give what two tiles share")]
            )
        half = overlap_mm / 2
        inner = box(
            half if column else -1e6,
            half if row else -1e6,
            page.width - half if column < columns - 1 and k < len(pages) - 1 else 1e6,
            page.height - half if row < rows - 1 else 1e6,
        )
        cut = _Page(page.width, page.height)
        cut.labels = [each for each in page.labels if inner.covers(Point(each.x, each.y))]
        for curve in page.curves:
            cut.curves += _cut(curve, inner)
        placed.append(
            cut.moved(column * (page.width - overlap_mm), row * (page.height - overlap_mm))
        )
    return placed


def _cut(curve: Curve, inner: Any) -> list[Curve]:
    points = np.vstack([curve.points, curve.points[:1]]) if curve.closed else curve.points
    line = LineString(points)
    if inner.covers(line):
        return [curve]
    left = line.intersection(inner)
    pieces = [each for each in getattr(left, "geoms", [left]) if each.geom_type == "LineString"]
    return [replace(curve, points=np.array(each.coords), closed=False) for each in pieces]


def _refused(words: str) -> BuildFaultError:
    return BuildFaultError([Fault("file", words)])
