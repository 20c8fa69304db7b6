"""Parts of another program's drawing at full size, measured by another library."""

from io import BytesIO

import pytest
from pypdf import PdfReader

SVG = b"""<svg xmlns="http://www.w3.org/2000/svg" width="500mm" height="120mm"
viewBox="0 0 500 120">
<path id="Spar" d="M10 10 h400 v60 h-400 z M30 30 h40 v20 h-40 z"/>
<circle id="Disc" cx="460" cy="60" r="25"/></svg>"""


def printed(client, **query):
    answer = client.post(
        "/api/v1/outlines.pdf",
        params=query,
        content=SVG,
        headers={"Content-Type": "application/octet-stream"},
    )
    assert answer.status_code == 200, answer.text
    return PdfReader(BytesIO(answer.content))


def test_all_parts_come_out_in_their_size(client):
    pages = printed(client).pages
    words = [page.extract_text() for page in pages]
    assert sum("Spar" in each for each in words) == 3
    assert sum("Disc" in each for each in words) == 1
    assert all("100 mm" in each for each in words)


def test_what_is_printed_reads_back_as_what_was_drawn(client):
    """The disc on its sheet, read by the reader of plans: as large as it was drawn."""
    answer = client.post(
        "/api/v1/outlines.pdf",
        params={"part": 1},
        content=SVG,
        headers={"Content-Type": "application/octet-stream"},
    )
    again = client.post(
        "/api/v1/outlines",
        content=answer.content,
        headers={"Content-Type": "application/octet-stream"},
    ).json()
    areas = [each["area_dm2"] * 1e4 for each in again["parts"]]
    assert areas == pytest.approx([3.14159265 * 625], rel=1e-3)


def test_which_parts_and_which_paper(client):
    assert len(printed(client, part=1).pages) == 1
    page = printed(client, part=1, paper="letter").pages[0]
    assert float(page.mediabox.width) == pytest.approx(612, abs=0.5)
    nothing = client.post(
        "/api/v1/outlines.pdf",
        params={"part": 7},
        content=SVG,
        headers={"Content-Type": "application/octet-stream"},
    )
    assert nothing.status_code == 422
    assert "no part" in nothing.json()["detail"]
