"""Whatever bytes come as a drawing: parts, or words that name the file. Nothing else."""

from io import StringIO
from pathlib import Path

import ezdxf
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oaken_scale.core.geometry.outline import outlines
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.formats.drawing import read_drawing

SVG = (Path(__file__).parents[2] / "docs" / "examples" / "tail.svg").read_bytes()


def dxf() -> bytes:
    document = ezdxf.new()
    space = document.modelspace()
    space.add_lwpolyline(
        [(0, 0, 0.3), (60, 0, 0), (60, 40, -0.2), (0, 40, 0)], format="xyb", close=True
    )
    space.add_circle((30, 20), 8)
    space.add_spline([(0, 0), (10, 5), (20, 0)])
    out = StringIO()
    document.write(out)
    return out.getvalue().encode()


DXF = dxf()


def answered(data: bytes) -> None:
    faults, parts = (), ()
    try:
        parts = outlines(read_drawing(data)).parts
    except BuildFaultError as error:
        faults = error.faults
    assert all(fault.field == "file" and fault.words for fault in faults)
    for part in parts:
        assert part.flaw is not None or part.area_dm2 > 0
        assert part.box.left_mm <= part.x_mm <= part.box.right_mm
        assert part.box.top_mm <= part.y_mm <= part.box.bottom_mm


@pytest.mark.parametrize("whole", [SVG, DXF], ids=["svg", "dxf"])
@given(data=st.data())
@settings(max_examples=30, deadline=None)
def test_bytes_knocked_out_of_a_drawing(whole, data):
    at = data.draw(st.integers(0, len(whole) - 1))
    length = data.draw(st.integers(0, 40))
    put = data.draw(st.binary(max_size=12))
    answered(whole[:at] + put + whole[at + length :])


@given(st.binary(max_size=300))
@settings(max_examples=60, deadline=None)
def test_bytes_of_any_kind(data):
    answered(data)


@given(st.text("MLHVCSQTAZmlhvcsqtaz0123456789.-, e+", max_size=80))
@settings(max_examples=120, deadline=None)
def test_paths_of_any_kind(path):
    head = b'<svg xmlns="http://www.w3.org/2000/svg" width="9mm" height="9mm" viewBox="0 0 9 9">'
    answered(head + b'<path d="' + path.encode() + b'"/></svg>')


@given(
    st.text("abcdefghijklmnopqrstuvwxyz() ,.-0123456789", max_size=40),
    st.sampled_from(["transform", "r", "points", "style", "viewBox"]),
)
@settings(max_examples=60, deadline=None)
def test_attributes_of_any_kind(value, name):
    tag = "circle" if name != "points" else "polygon"
    answered(
        b'<svg xmlns="http://www.w3.org/2000/svg"><rect width="5" height="5"/>'
        + f'<{tag} r="4" {name if name != "r" else "cx"}="{value}"/></svg>'.encode()
    )
