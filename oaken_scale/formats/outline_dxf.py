"""Reading the outlines of a DXF drawing: polylines with bulges, arcs, splines, nested blocks."""

from collections import Counter
from collections.abc import Iterator
from dataclasses import replace
from io import BytesIO, StringIO
from math import isfinite
from typing import Any, Final

import ezdxf
import ezdxf.recover
import numpy as np
from ezdxf import path as dxf_path
from ezdxf.lldxf.const import DXFError
from ezdxf.lldxf.tagger import binary_tags_loader
from scipy.interpolate import BSpline

from oaken_scale.core.geometry.curves import Curve
from oaken_scale.core.geometry.outline import Drawing, Label
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault

MOST_ENTITIES: Final = 50_000
MOST_POINTS: Final = 200_000
MOST_DEEP: Final = 12
MOST_TAGS: Final = 600_000
"""A tag is two lines; 50,000 points take some 500,000 in the wordiest way of writing them."""

FLAT: Final = 1e-4
"""Curves are flattened to this share of their size."""

MM_PER_UNIT: Final[dict[int, float]] = {
    1: 25.4,
    2: 304.8,
    4: 1.0,
    5: 10.0,
    6: 1000.0,
    8: 25.4e-6,
    9: 0.0254,
    10: 914.4,
    13: 0.001,
    14: 100.0,
}
"""The header's $INSUNITS in mm; 0 says nothing."""

_DRAWN: Final = frozenset(
    {"LINE", "ARC", "CIRCLE", "ELLIPSE", "SPLINE", "LWPOLYLINE", "POLYLINE", "HATCH"}
)
_OTHER_FORMATS: Final = ((b"AC10", "a binary drawing"), (b"PK", "an archive"))


def read_dxf(data: bytes) -> Drawing:
    """The curves of a DXF drawing's model space, in mm where its header says its unit; those of its
    paper sheets where the model is empty. Hatches count by their boundaries.

    Raises BuildFaultError for a broken file, a version that cannot be read, blocks that
    insert themselves, more than 200,000 points.
    """
    data = _as_text(data)
    _refuse_other(data)
    document = _document(data)
    # A reader fills in a unit of its own where a file has none: only what is written counts.
    _refuse_swelling(document)
    unit = document.header.get("$INSUNITS", 0) if b"$INSUNITS" in data else 0
    scale = MM_PER_UNIT.get(int(unit)) if isinstance(unit, int | float) else None
    left: Counter[str] = Counter()
    sheets = [each for each in document.layouts if each.name != "Model"]
    try:
        curves, labels = _drawn(document, document.modelspace(), left)
        from_paper = not curves and any(len(sheet) for sheet in sheets)
        if from_paper:
            left.clear()
            for sheet in sheets:
                _refuse_swelling(document, sheet)
                more, words = _drawn(document, sheet, left)
                curves, labels = curves + more, labels + words
    except BuildFaultError:
        raise
    except (
        DXFError,
        ValueError,
        TypeError,
        ArithmeticError,
        AttributeError,
        IndexError,
        KeyError,
        RecursionError,
    ) as error:
        raise _refused(f"holds something broken ({_short(error)}); save it again") from error
    notes = _left_out([] if from_paper else sheets, left, data)
    if from_paper and curves:
        notes = ("the model is empty: its paper sheets are read instead", *notes)
    return Drawing(tuple(curves), tuple(labels), scale, notes)


def _drawn(document: Any, layout: Any, left: Counter[str]) -> tuple[list[Curve], list[Label]]:
    """The curves and words of the model or of a paper sheet."""
    curves: list[Curve] = []
    labels: list[Label] = []
    points = 0
    for entity, layer, block in _walk(document, layout, left):
        if entity.dxftype() in ("TEXT", "MTEXT"):
            labels.extend(_label(entity))
            continue
        for curve in _curves(entity, layer, block):
            points += len(curve.points)
            if points > 4 * MOST_POINTS:
                raise _refused(f"has more than {MOST_POINTS:,} points; simplify it")
            curves.append(curve)
    return curves, labels


_NAMES: Final = {
    "SOLID": "filled areas",
    "TRACE": "filled areas",
    "3DFACE": "faces in space",
    "3DSOLID": "solids",
    "BODY": "solids",
    "REGION": "regions",
    "MESH": "meshes",
    "POLYLINE": "meshes",
    "IMAGE": "pictures",
    "VIEWPORT": "viewports",
}
_WORDLESS: Final = frozenset({"POINT", "DIMENSION", "LEADER", "MLEADER", "ATTDEF", "VIEWPORT"})
"""What nobody takes for a part's outline."""


def _left_out(paper: list[Any], left: Counter[str], data: bytes) -> tuple[str, ...]:
    """What the drawing holds and is not read, in words."""
    named: Counter[str] = Counter()
    for kind, count in left.items():
        if kind not in _WORDLESS:
            named[_NAMES.get(kind, f"things of the kind {kind.lower()}")] += count
    notes = [
        f"{count} {name} left out: only their outlines make parts"
        for name, count in sorted(named.items())
    ]
    sheets = sum(len([e for e in layout if e.dxftype() != "VIEWPORT"]) for layout in paper)
    if sheets:
        notes.append(f"{sheets} things on its paper sheets left out: only the model is read")
    if not data.rstrip().endswith(b"EOF"):
        notes.append("the file ends before its end: something may be missing, export it again")
    return tuple(notes)


BINARY: Final = b" Binary DXF\r\n\x1a\x00"
"""How the first 22 bytes of a binary DXF end (DXF Reference, Binary DXF Files)."""


def _as_text(data: bytes) -> bytes:
    """A binary DXF written out as text; anything else as it came."""
    if not data[:22].endswith(BINARY):
        return data
    lines: list[str] = []
    try:
        for tag in binary_tags_loader(data, "surrogateescape"):
            lines.append(tag.dxfstr())
            if len(lines) > MOST_TAGS:
                raise _refused(f"holds more than {MOST_POINTS:,} points; export outlines alone")
    except BuildFaultError:
        raise
    except Exception as error:  # whatever a broken file leads the reader to
        raise _refused(f"is a broken binary DXF ({_short(error)}); save it again") from error
    return "".join(lines).encode("utf-8", "surrogateescape")


def _refuse_other(data: bytes) -> None:
    for mark, what in _OTHER_FORMATS:
        if data.startswith(mark):
            raise _refused(f"is {what}; save it as DXF")
    if b"\x00" in data[:4096]:
        raise _refused("is no DXF that can be read; save it as an ASCII DXF")
    if b"SECTION" not in data or b"ENTITIES" not in data:
        raise _refused("is neither an SVG nor a DXF drawing; save it as one of these")
    if data.count(b"\n") > 2 * MOST_TAGS:
        raise _refused(f"holds more than {MOST_POINTS:,} points; export the outlines alone")


def _document(data: bytes) -> Any:
    try:
        text = data.decode("utf-8")
    except UnicodeDecodeError:
        text = data.decode("cp1252", errors="replace")
    try:
        return ezdxf.read(StringIO(text.replace("\r\n", "\n")))
    except Exception:  # whatever it stumbles over, the tolerant reader may still read it
        pass
    try:
        document, _ = ezdxf.recover.read(BytesIO(data))
        return document
    except ezdxf.DXFVersionError as error:
        words = f"is of a version that cannot be read ({_short(error)}); save it as DXF 2010"
        raise _refused(words) from error
    except Exception as error:
        words = f"is broken or no DXF ({_short(error)}); save it again as an ASCII DXF"
        raise _refused(words) from error


def _refuse_swelling(document: Any, layout: Any = None) -> None:
    """Refuse blocks that insert themselves, and copies of copies that swell, before unfolding."""
    sizes: dict[str, int] = {}
    inside: list[str] = []

    def size(entities: Any) -> int:
        total = 0
        for entity in entities:
            if entity.dxftype() != "INSERT":
                total += 1
                continue
            total += max(int(entity.mcount), 1) * block_size(str(entity.dxf.get("name", "")))
        return total

    def block_size(name: str) -> int:
        if name in inside or len(inside) > MOST_DEEP:
            raise _refused(f'has blocks that insert themselves or nest too deep ("{name[:40]}")')
        if name not in sizes:
            block = document.blocks.get(name)
            inside.append(name)
            sizes[name] = 0 if block is None else min(size(block), 10 * MOST_ENTITIES)
            inside.pop()
        return sizes[name]

    if size(layout or document.modelspace()) > MOST_ENTITIES:
        raise _refused(f"comes to more than {MOST_ENTITIES:,} things; export outlines alone")


def _walk(document: Any, layout: Any, left: Counter[str]) -> Iterator[tuple[Any, str, str]]:
    """Every entity drawn, blocks unfolded: (entity, layer, name of the block that it stands in)."""
    hidden = {layer.dxf.name for layer in document.layers if layer.is_off() or layer.is_frozen()}
    waiting: list[tuple[Iterator[Any], str, str]] = [(iter(layout), "", "")]
    while waiting:
        entities, inherited, block = waiting[-1]
        entity = next(entities, None)
        if entity is None:
            waiting.pop()
            continue
        layer = entity.dxf.get("layer", "0")
        layer = inherited if layer == "0" and inherited else layer
        if layer in hidden or entity.dxf.get("invisible", 0):
            continue
        if entity.dxftype() == "INSERT":
            if entity.mcount > 1:
                waiting.append((iter(entity.multi_insert()), layer, block))
            else:
                name = str(entity.dxf.get("name", ""))
                name = "" if name.startswith("*") else name
                waiting.append((iter(entity.virtual_entities()), layer, name or block))
        elif entity.dxftype() in _DRAWN or entity.dxftype() in ("TEXT", "MTEXT"):
            yield entity, layer, block
        else:
            left[entity.dxftype()] += 1


PERIODIC: Final = 2
"""The flag of a spline that closes on itself."""


def _periodic(entity: Any) -> Any:
    """A periodic spline over the stretch of its knots where it is a closed curve.

    Its first and last control points wrap around; with knots that are not clamped it runs from
    knot ``p`` to knot ``-p-1``, and not from the first control point to the last.

    Source: Piegl & Tiller, *The NURBS Book*, 12.2 (unclamped and periodic B-splines).
    """
    spline = entity.construction_tool()
    knots, degree = list(spline.knots()), int(spline.degree)
    start, end = knots[degree], knots[-degree - 1]
    if not end > start:
        return dxf_path.make_path(entity)
    count = max(8 * len(spline.control_points), 64)
    control = np.array([(p.x, p.y, p.z) for p in spline.control_points])
    weights = np.array(spline.weights() or [1.0] * len(control), dtype=float)
    at = np.linspace(start, end, count, endpoint=False)
    blend = BSpline.design_matrix(at, np.array(knots, dtype=float), degree).toarray()
    heavy = blend * weights
    points = heavy @ control / heavy.sum(axis=1)[:, None]
    return dxf_path.from_vertices([tuple(p) for p in points], close=True)


def _curves(entity: Any, layer: str, block: str) -> list[Curve]:
    """One entity flattened; none for what has no length or is no flat curve."""
    if entity.dxftype() == "HATCH":
        around = [
            replace(found, closed=True)
            for each in dxf_path.from_hatch(entity)
            if (found := _flat(each, layer, block)) is not None
        ]
        return [each for each in around if len(each.points) > 2]
    found = _curve(entity, layer, block)
    return [] if found is None else [found]


def _curve(entity: Any, layer: str, block: str) -> Curve | None:
    if entity.dxftype() == "POLYLINE" and not (entity.is_2d_polyline or entity.is_3d_polyline):
        return None
    if entity.dxftype() == "SPLINE" and entity.dxf.flags & PERIODIC:
        drawn = _periodic(entity)
    else:
        drawn = dxf_path.make_path(entity)
    return _flat(drawn, layer, block)


def _flat(drawn: Any, layer: str, block: str) -> Curve | None:
    """A path flattened; None for one that has no length."""
    if len(drawn) == 0:
        return None
    corners = drawn.control_vertices()
    nodes = np.array([(p.x, p.y) for p in corners], dtype=float)
    if not np.isfinite(nodes).all():
        raise ValueError("a coordinate that is not finite")
    size = float((nodes.max(axis=0) - nodes.min(axis=0)).max())
    if size <= 0 or not isfinite(size):
        return None
    flat = drawn.flattening(FLAT * size, segments=8) if drawn.has_curves else corners
    points = np.array([(p.x, -p.y) for p in flat], dtype=float)
    closed = bool(drawn.is_closed)
    if closed and len(points) > 1 and np.allclose(points[0], points[-1]):
        points = points[:-1]
    return Curve(points, closed, block, layer) if len(points) > 1 else None


def _label(entity: Any) -> list[Label]:
    text = entity.plain_text() if entity.dxftype() == "MTEXT" else entity.dxf.get("text", "")
    at = entity.dxf.get("insert")
    words = " ".join(str(text).split())
    return [Label(words, float(at.x), -float(at.y))] if words and at is not None else []


def _refused(words: str) -> BuildFaultError:
    return BuildFaultError([Fault("file", words)])


def _short(error: Exception) -> str:
    return str(error).replace("\n", " ")[:120] or type(error).__name__
