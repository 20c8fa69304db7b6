"""A drawing from another program, SVG, DXF or PDF, told apart by what is in it."""

from typing import Final

from oaken_scale.core.geometry.outline import Drawing
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault

LARGEST_BYTES: Final = 24 * 1024 * 1024


def read_drawing(data: bytes, columns: int | None = None, overlap_mm: float = 0.0) -> Drawing:
    """Read an SVG, a DXF or a PDF drawing; the pages of a PDF are tiles of one plan where it is
    said in how many ``columns`` they lie, and by how much they overlap.

    Raises BuildFaultError, naming the file and what would be right.
    """
    if len(data) > LARGEST_BYTES:
        most = LARGEST_BYTES // 1024 // 1024
        raise BuildFaultError([Fault("file", f"larger than {most} MiB; export the outlines alone")])
    head = data[:4096].lstrip(b"\xef\xbb\xbf\xff\xfe\x00 \t\r\n")
    if not head:
        raise BuildFaultError([Fault("file", "is empty; choose an SVG, a DXF or a PDF drawing")])
    # Each reader brings a large library along: it is fetched when the first such file comes.
    if head.startswith(b"<"):
        from oaken_scale.formats.outline_svg import read_svg  # noqa: PLC0415

        return read_svg(data)
    if b"%PDF-" in data[:1024]:
        from oaken_scale.formats.outline_pdf import read_pdf  # noqa: PLC0415

        return read_pdf(data, columns, overlap_mm)
    from oaken_scale.formats.outline_dxf import read_dxf  # noqa: PLC0415

    return read_dxf(data)
