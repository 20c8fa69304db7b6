"""The Sheet through the API: pages, labels, marks, and what is refused."""

from io import BytesIO

import pytest
from pypdf import PdfReader

from tests.api.asking import begin, change, problem

AT = "/api/v1/builds/sandpiper"


def pages(answer) -> PdfReader:
    assert answer.status_code == 200, answer.text
    assert answer.headers["content-type"] == "application/pdf"
    return PdfReader(BytesIO(answer.content))


def test_the_sheet_follows_loadout_paper_and_units(demo):
    told = demo.get(AT).json()
    last = told["build"]["loadouts"][-1]
    asked = {"loadout": last["id"], "paper": "letter", "mass": "oz", "length": "in", "area": "ft2"}
    reader = pages(demo.get(f"{AT}/sheet.pdf", params=asked))
    text = reader.pages[0].extract_text()
    assert float(reader.pages[0].mediabox.width) == pytest.approx(8.5 * 72, abs=0.1)
    assert "oz/ft²" in text
    assert text.index(last["name"]) < text.index("Weights, oz")
    drawn = demo.get(f"{AT}/sheet.svg", params=asked)
    assert drawn.headers["content-type"].startswith("image/svg+xml")
    assert 'viewBox="0 0 215.9 279.4"' in drawn.text


def test_a_reading_is_on_the_next_page_that_is_drawn(demo):
    before = demo.get(f"{AT}/sheet.svg").text
    sent = {
        "id": "r",
        "scale": "kitchen",
        "typed": "300",
        "pan": {"loads": [{"part": "wear-pads"}]},
    }
    demo.post(f"{AT}/weighings", json=sent)
    after = demo.get(f"{AT}/sheet.svg").text
    assert after != before
    assert "21 readings" in after


def test_labels_for_packs_on_a_begun_sheet(demo):
    reader = pages(demo.get(f"{AT}/labels.pdf", params={"of": "packs", "skip": 20}))
    text = [page.extract_text() for page in reader.pages]
    assert len(text) == 2
    assert "Pack, 3-cell 850" in "".join(text)
    assert "Motor" not in "".join(text)
    one = pages(demo.get(f"{AT}/labels.pdf", params={"part": "motor", "grid": "free"}))
    assert "Motor, leads on" in one.pages[0].extract_text()


def test_marks_and_outlines_at_full_size(demo):
    marks = pages(demo.get(f"{AT}/balance-marks.pdf"))
    assert "leading edge" in marks.pages[0].extract_text()
    outlines = pages(demo.get(f"{AT}/outlines.pdf", params={"surface": "wing"}))
    assert f"of {len(outlines.pages)}" in outlines.pages[0].extract_text()


@pytest.mark.parametrize(
    ("path", "query", "field", "says"),
    [
        ("sheet.pdf", {"loadout": "none"}, "loadout", "camera-850"),
        ("sheet.pdf", {"paper": "napkin"}, "paper", "letter"),
        ("sheet.svg", {"mass": "stone"}, "mass", "oz"),
        ("labels.pdf", {"skip": 21}, "skip", "holds 21"),
        ("labels.pdf", {"part": "nothing"}, "of", "name them"),
        ("labels.pdf", {"grid": "free", "across": 0}, "across", "at least 1"),
        ("outlines.pdf", {"surface": "sail"}, "surface", "sail"),
    ],
)
def test_what_cannot_be_printed_is_said(demo, path, query, field, says):
    assert problem(demo.get(f"{AT}/{path}", params=query), field, says)


def test_without_a_wing_there_is_a_sheet_and_no_mark(client):
    told = client.post("/api/v1/builds", json={"name": "Curlew"}).json()
    at = f"/api/v1/builds/{told['build']['id']}"
    client.patch(
        at, json={"surfaces": []}, headers={"If-Match": f'"{told["revision"]}"'}
    ).raise_for_status()
    assert len(pages(client.get(f"{at}/sheet.pdf")).pages) == 1
    assert problem(client.get(f"{at}/balance-marks.pdf"), "surfaces", "main wing")
    assert problem(client.get(f"{at}/outlines.pdf"), "surface", "draw surfaces")
    packs = client.get(f"{at}/labels.pdf", params={"of": "packs"})
    assert problem(packs, "of", "nothing aboard")


def test_a_surface_is_printed_whatever_its_id_ends_in(client):
    """Twin fins are cut twice from one drawing; a fin that is called port is no twin."""
    told = begin(client)
    sections = [
        {"x_le_mm": 600, "y_mm": 0, "z_mm": 0, "chord_mm": 120},
        {"x_le_mm": 620, "y_mm": 0, "z_mm": 140, "chord_mm": 80},
    ]
    fins = [
        {"id": "fin", "name": "Fin", "role": "fin", "sections": sections, "twin": True},
        {"id": "fin-port", "name": "Fin port", "role": "fin", "sections": sections},
    ]
    told = change(client, told, surfaces=fins)
    drawn = [(each["id"], each["is_port"]) for each in told["assessment"]["outlines"]]
    assert drawn == [("fin", False), ("fin", True), ("fin-port", False)]
    at = f"/api/v1/builds/{told['build']['id']}/outlines.pdf"
    for surface, name in (("fin", "Fin"), ("fin-port", "Fin port")):
        printed = client.get(at, params={"surface": surface})
        assert printed.status_code == 200
        assert name in "".join(page.extract_text() for page in pages(printed).pages)
