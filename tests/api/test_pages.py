import pytest
from fastapi.testclient import TestClient

from oaken_scale.api.app import create_app


@pytest.fixture
def pages(tmp_path):
    folder = tmp_path / "pages"
    (folder / "assets").mkdir(parents=True)
    (folder / "index.html").write_text("<title>Oaken Scale</title>")
    (folder / "icon.svg").write_text("<svg/>")
    (folder / "assets" / "app.js").write_text("say('hello')" * 500)
    (tmp_path / "secret.txt").write_text("not for everybody")
    with TestClient(create_app(tmp_path / "w.sqlite", pages=folder)) as client:
        yield client


@pytest.mark.parametrize("path", ["/", "/build/sandpiper/bench", "/build/x", "/anything/at/all"])
def test_every_place_is_the_one_page(pages, path):
    answer = pages.get(path)
    assert answer.status_code == 200
    assert "Oaken Scale" in answer.text
    assert answer.headers["cache-control"] == "no-cache"


def test_files_are_served_as_they_are_and_scripts_zipped(pages):
    assert pages.get("/icon.svg").text == "<svg/>"
    script = pages.get("/assets/app.js", headers={"Accept-Encoding": "gzip"})
    assert script.headers["content-encoding"] == "gzip"
    assert script.text.startswith("say('hello')")


@pytest.mark.parametrize(
    "path",
    [
        "/../secret.txt",
        "/%2e%2e/secret.txt",
        "/..%2fsecret.txt",
        "/assets/../../secret.txt",
        "/assets/%2e%2e/%2e%2e/secret.txt",
    ],
)
def test_nothing_outside_the_pages_is_served(pages, path):
    assert "not for everybody" not in pages.get(path).text


@pytest.mark.parametrize("path", ["/api/v1/nothing", "/api/v2/builds", "/api/"])
def test_an_unknown_address_of_the_api_is_no_page(pages, path):
    answer = pages.get(path)
    assert answer.status_code == 404
    assert answer.json()["title"] == "No such address"


def test_without_built_pages_the_api_still_answers(tmp_path):
    with TestClient(create_app(tmp_path / "w.sqlite", pages=tmp_path / "none")) as client:
        assert client.get("/api/v1/builds").json() == []
        assert client.get("/").status_code == 503
        assert "make build" in client.get("/").text


def test_the_openapi_document_is_served(pages):
    assert pages.get("/api/v1/openapi.json").json()["info"]["title"] == "Oaken Scale"
