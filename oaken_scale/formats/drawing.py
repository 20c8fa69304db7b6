"""A drawing from another program, SVG or DXF, told apart by what is in it."""

from typing import Final

from oaken_scale.core.geometry.outline import Drawing
from oaken_scale.core.model.faults import BuildFaultError, Fault

LARGEST_BYTES: Final = 24 * 1024 * 1024


def read_drawing(data: bytes) -> Drawing:
    """Read an SVG or a DXF drawing.

    Raises BuildFaultError, naming the file and what would be right.
    """
    if len(data) > LARGEST_BYTES:
        most = LARGEST_BYTES // 1024 // 1024
        raise BuildFaultError([Fault("file", f"larger than {most} MiB; export the outlines alone")])
    head = data[:4096].lstrip(b"\xef\xbb\xbf\xff\xfe\x00 \t\r\n")
    if not head:
        raise BuildFaultError([Fault("file", "is empty; choose an SVG or a DXF drawing")])
    # Each reader brings a large library along: it is fetched when the first such file comes.
    if head.startswith(b"<"):
        from oaken_scale.formats.outline_svg import read_svg  # noqa: PLC0415

        return read_svg(data)
    from oaken_scale.formats.outline_dxf import read_dxf  # noqa: PLC0415

    return read_dxf(data)
