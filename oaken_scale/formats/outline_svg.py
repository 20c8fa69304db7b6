"""Reading the outlines of an SVG drawing: transforms, units, curves, groups, nested use.

The XML is walked once before any of it is believed: what could fetch, run, or swell is refused.
"""

import re
from collections import defaultdict
from io import BytesIO
from typing import Any, Final
from xml.etree import ElementTree
from xml.parsers import expat

import numpy as np
import svgelements

from oaken_scale.core.geometry.curves import Curve, Points, bezier
from oaken_scale.core.geometry.outline import Drawing, Label
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault

MOST_ELEMENTS: Final = 50_000
MOST_DEEP: Final = 100
MOST_POINTS: Final = 200_000
MOST_ENTITIES: Final = 64
LONGEST_ENTITY: Final = 200

_GROUP: Final = "{http://www.w3.org/2000/svg}g"
_ASIDE: Final = "{http://www.w3.org/2000/svg}defs"

PPI: Final = 96.0
"""The reference pixel: 96 to the inch (CSS Values and Units, section 6.2)."""

MM_PER_PX: Final = 25.4 / PPI

_NUMBERS = re.compile(r"[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?")
_APART = re.compile(r"[\s,A-DF-Za-df-z]+|(?<=\d)(?=-)")
_LENGTH = re.compile(r"\s*[\d.+eE-]+\s*(mm|cm|in|pt|pc)\s*$")
_NOT_DRAWN: Final = frozenset({"clipPath", "mask", "pattern", "marker", "foreignObject"})
"""What serves as a stencil or a brush: its outlines are no parts."""


def read_svg(data: bytes) -> Drawing:
    """The curves of an SVG drawing, in mm where it says its scale.

    The scale is known where width or height has a physical unit and there is a viewBox; otherwise
    units are reference pixels and one true length is wanted.

    Raises BuildFaultError for what is no SVG, or holds what a drawing needs not: scripts, entities
    that fetch or nest, more than 200,000 points.
    """
    survey = _Survey.of(data)
    try:
        tidy = _tidied(data) if survey.untidy else data
        root = svgelements.SVG.parse(BytesIO(tidy), reify=False, ppi=PPI)
    except BuildFaultError:
        raise
    except Exception as error:  # the parser raises whatever a broken attribute leads it to
        raise _refused(f"cannot be read as a drawing ({_short(error)}); export it again") from error
    curves: list[Curve] = []
    labels: list[Label] = []
    points = 0
    for element, layer in _shown(root, ""):
        try:
            if isinstance(element, svgelements.Text):
                labels += [_label(element)] if element.text else []
                continue
            pieces = _curves(element, layer)
        except Exception as error:  # likewise
            raise _refused(
                f"has a path or words that cannot be read ({_short(error)}); export it again"
            ) from error
        for curve in pieces:
            points += len(curve.points)
            if points > 4 * MOST_POINTS:
                raise _too_many()
            curves.append(curve)
    scaled = survey.has_scale
    return Drawing(
        tuple(
            Curve(c.points * (MM_PER_PX if scaled else 1.0), c.closed, c.name, c.layer)
            for c in curves
        ),
        tuple(Label(t.text, t.x * MM_PER_PX, t.y * MM_PER_PX) if scaled else t for t in labels),
        1.0 if scaled else None,
        survey.notes(),
    )


class _Survey:
    """One walk through the XML: how large it is, whether it has a scale, what is refused."""

    def __init__(self) -> None:
        self.elements = self.points = self.depth = self.entities = 0
        self.images = self.untidy = False
        self.has_scale = False
        self._stack: list[str] = []
        self._weight: dict[str, int] = {}
        self._ids: list[str] = []
        self._uses: dict[str, list[str]] = defaultdict(list)
        self._open_ids: list[str | None] = []

    @classmethod
    def of(cls, data: bytes) -> "_Survey":
        survey = cls()
        parser = expat.ParserCreate()
        parser.EntityDeclHandler = survey._entity
        parser.StartElementHandler = survey._start
        parser.EndElementHandler = survey._end
        parser.ExternalEntityRefHandler = survey._external
        try:
            parser.Parse(data, True)
        except expat.ExpatError as error:
            words = f"is not well-formed XML ({error}); export it as plain SVG"
            raise _refused(words) from error
        except BuildFaultError:
            raise
        except ValueError as error:
            raise _refused(f"is not readable text ({_short(error)}); save it in UTF-8") from error
        if survey.elements == 0:
            raise _refused("is empty; export the drawing as plain SVG")
        survey._check_uses()
        return survey

    def notes(self) -> tuple[str, ...]:
        return ("A picture in it was left out: only outlines count.",) if self.images else ()

    def _entity(
        self, name: str, parameter: bool, value: str | None, base: Any, system: str | None, *_: Any
    ) -> None:
        self.entities += 1
        if system is not None or parameter:
            raise _refused(f'reaches outside itself (entity "{name}"); export it as plain SVG')
        if value is None or len(value) > LONGEST_ENTITY or "&" in value or "%" in value:
            raise _refused(f'holds an entity that grows ("{name}"); export it as plain SVG')
        if self.entities > MOST_ENTITIES:
            raise _refused("declares too many entities; export it as plain SVG")

    def _external(self, *_: Any) -> int:
        raise _refused("reaches outside itself; export it as plain SVG")

    def _start(self, tag: str, attributes: dict[str, str]) -> None:
        self.elements += 1
        name = tag.rpartition(":")[2]
        self._stack.append(name)
        if self.elements > MOST_ELEMENTS:
            raise _refused(f"holds more than {MOST_ELEMENTS:,} things; export the outlines alone")
        if len(self._stack) > MOST_DEEP:
            raise _refused(f"is nested more than {MOST_DEEP} deep; ungroup it")
        if len(self._stack) == 1:
            self._root(name, attributes)
        if name == "script":
            raise _refused("holds a script; a drawing needs none, export it as plain SVG")
        self.images = self.images or name == "image"
        inner = name == "svg" and len(self._stack) > 1
        self.untidy = self.untidy or inner or name in _NOT_DRAWN or name == "symbol"
        for key in ("d", "points"):
            if key in attributes:
                self.points += len(_APART.split(attributes[key])) // 2
                if self.points > MOST_POINTS:
                    raise _too_many()
        self._open_ids.append(attributes.get("id"))
        if name == "use":
            target = attributes.get("href") or attributes.get("xlink:href") or ""
            if target and not target.startswith("#"):
                raise _refused(f'uses another file ("{target[:60]}"); break the link')
            for id in self._open_ids:
                self._uses[id or ""].append(target[1:])
            self._uses[""].append(target[1:])
        for id in filter(None, self._open_ids):
            self._weight[id] = self._weight.get(id, 0) + 1

    def _end(self, _: str) -> None:
        self._stack.pop()
        self._open_ids.pop()

    def _root(self, name: str, attributes: dict[str, str]) -> None:
        if name != "svg":
            raise _refused(f"is a <{name[:40]}>, not an SVG drawing; export it as plain SVG")
        physical = any(_LENGTH.match(attributes.get(key, "")) for key in ("width", "height"))
        box = [float(n) for n in _NUMBERS.findall(attributes.get("viewBox", ""))]
        self.has_scale = physical and len(box) == 4 and box[2] > 0 and box[3] > 0

    def _check_uses(self) -> None:
        """Refuse copies of copies that swell: count what the drawing comes to with all of them."""
        known: dict[str, int] = {}
        walking: set[str] = set()

        def size(id: str) -> int:
            if id in known:
                return known[id]
            if id in walking:
                raise _refused(f'uses itself ("{id[:60]}"); break the loop')
            walking.add(id)
            total = self._weight.get(id, 1) + sum(size(each) for each in self._uses.get(id, ()))
            walking.discard(id)
            known[id] = min(total, MOST_ELEMENTS * 10)
            return known[id]

        try:
            swollen = self.elements + sum(size(id) for id in self._uses.get("", ()))
        except RecursionError as error:
            raise _refused("copies copies of copies too deep; ungroup it") from error
        if swollen > MOST_ELEMENTS:
            raise _refused(f"comes to more than {MOST_ELEMENTS:,} things with its copies")


def _tidied(data: bytes) -> bytes:
    """The drawing without stencils and brushes, symbols put aside, inner drawings moved by a group.

    The reader draws stencils and symbols too, and hands an inner drawing's place down to all that
    is in it.
    """
    root = ElementTree.fromstring(data)
    for parent in list(root.iter()):
        for child in list(parent):
            name = str(child.tag).rpartition("}")[2]
            if name in _NOT_DRAWN:
                parent.remove(child)
            elif name == "svg":
                x, y = (child.attrib.pop(key, "0") for key in ("x", "y"))
                place = f"translate({_number(x)} {_number(y)})"
                moved = ElementTree.Element(_GROUP, {"transform": place})
                parent[list(parent).index(child)] = moved
                moved.append(child)
            elif name == "symbol":
                aside = ElementTree.Element(_ASIDE)
                parent[list(parent).index(child)] = aside
                aside.append(child)
    return ElementTree.tostring(root)


def _number(text: str) -> float:
    """A place in the outer drawing's units; a unit of its own is left out of it."""
    found = _NUMBERS.match(text.strip())
    return float(found[0]) if found else 0.0


def _refused(words: str) -> BuildFaultError:
    return BuildFaultError([Fault("file", words)])


def _too_many() -> BuildFaultError:
    return _refused(f"has more than {MOST_POINTS:,} points; simplify its curves and export again")


def _short(error: Exception) -> str:
    return str(error).replace("\n", " ")[:120] or type(error).__name__


def _shown(element: Any, layer: str) -> Any:
    """What is drawn, each with the name of its layer or group."""
    for child in element:
        values = getattr(child, "values", None) or {}
        if values.get("display") == "none" or _invisible(values):
            continue
        if isinstance(child, list):
            own = _group_name(values)
            yield from _shown(child, own or layer)
        elif isinstance(child, svgelements.Text) or (
            isinstance(child, svgelements.Shape) and _painted(child)
        ):
            yield child, layer


def _invisible(values: dict[str, Any]) -> bool:
    return str(values.get("visibility", "")) in ("hidden", "collapse")


def _painted(shape: Any) -> bool:
    """Whether a shape has a line or a filling: some programs frame drawings in one with neither."""
    paints = (getattr(shape, "fill", None), getattr(shape, "stroke", None))
    return any(paint is not None and paint.value is not None for paint in paints)


def _attribute(values: dict[str, Any], name: str) -> str:
    """An attribute that programs write in a namespace of their own, by its last name."""
    own = values.get("attributes") or {}
    return next((str(v) for key, v in own.items() if str(key).rpartition("}")[2] == name), "")


def _group_name(values: dict[str, Any]) -> str:
    if str(values.get("tag")) != "g":
        return ""
    return _attribute(values, "label") or _attribute(values, "id")


def _curves(element: Any, layer: str) -> list[Curve]:
    """One shape's curves, each subpath by itself."""
    path = element if isinstance(element, svgelements.Path) else svgelements.Path(element)
    m = path.transform
    turn, shift = np.array([[m.a, m.b], [m.c, m.d]], dtype=float), np.array([m.e, m.f], dtype=float)
    values = element.values or {}
    name = _attribute(values, "label") or str(getattr(element, "id", "") or "")
    told = []
    for piece in path.as_subpaths():
        points, closed = _flattened(piece)
        points = points @ turn + shift
        if len(points) > 1:
            told.append(Curve(points, closed, name, layer))
    return told


def _flattened(path: Any) -> tuple[Points, bool]:
    """Points along a subpath, and whether it closes."""
    corners: list[tuple[float, float]] = []
    closed = False
    for segment in path:
        kind = type(segment)
        if kind is svgelements.Close:
            closed = True
        elif kind is svgelements.Move or kind is svgelements.Line:
            corners.append((segment.end.x, segment.end.y))
        elif segment.start is not None and segment.end is not None:
            corners.extend(_run(segment)[1:].tolist())
    if not corners:
        return np.zeros((0, 2)), False
    points = np.array(corners, dtype=float)
    if not np.isfinite(points).all():
        raise ValueError("a number that is not finite")
    if not closed and len(points) > 2:
        closed = bool(np.hypot(*(points[0] - points[-1])) <= 1e-6 * (1 + np.abs(points).max()))
    if closed and len(points) > 1 and np.allclose(points[0], points[-1]):
        points = points[:-1]
    return points, closed


def _run(segment: Any) -> Points:
    """One curved segment flattened, both its ends included, shape (n, 2)."""
    kind = type(segment)
    if kind is svgelements.CubicBezier:
        nodes = (segment.start, segment.control1, segment.control2, segment.end)
        return bezier(np.array([(p.x, p.y) for p in nodes], dtype=float))
    if kind is svgelements.QuadraticBezier:
        p0, p1, p2 = (
            np.array((p.x, p.y), dtype=float) for p in (segment.start, segment.control, segment.end)
        )
        return bezier(np.array([p0, p0 + 2 / 3 * (p1 - p0), p2 + 2 / 3 * (p1 - p2), p2]))
    steps = max(8, int(abs(float(segment.sweep)) / 0.02) + 1)
    turns = np.linspace(0, 1, min(steps, 2000) + 1)
    return np.array([(p.x, p.y) for p in map(segment.point, turns)], dtype=float)


def _label(text: Any) -> Label:
    """Words, and where they stand after all transforms."""
    at = text.transform.point_in_matrix_space((float(text.x), float(text.y)))
    return Label(str(text.text).strip(), float(at.x), float(at.y))
