"""What is to be bought through the API."""

from oaken_scale.api.routes_buying import MOST_WANTED
from tests.api.asking import problem

CHARGER = {
    "name": "Charger",
    "offers": [{"shop": "near", "price": 39.0, "lead_days": 2.0}, {"shop": "post", "price": 31.0}],
}


def test_a_list_with_no_plane_begun(client):
    assert client.get("/api/v1/buying").json()["wanted"] == []
    told = client.put("/api/v1/buying/wanted/charger", json=CHARGER).json()
    assert told["buying"]["total"] == 31.0
    told = client.put("/api/v1/buying/freight", json={"shop": "post", "cost": 12.0}).json()
    assert told["buying"]["total"] == 39.0
    assert [(w["shop"], w["count"]) for w in told["buying"]["worth"]] == [("post", 2)]
    # Written anew it is there once.
    told = client.put("/api/v1/buying/wanted/charger", json={**CHARGER, "count": 2}).json()
    assert [(w["name"], w["count"]) for w in told["wanted"]] == [("Charger", 2)]
    assert told["buying"]["total"] == 74.0
    told = client.delete("/api/v1/buying/wanted/charger").json()
    assert (told["wanted"], told["buying"]["total"]) == ([], 0.0)
    assert client.delete("/api/v1/buying/wanted/charger").status_code == 404


def test_what_planes_want_is_on_it(demo):
    told = demo.get("/api/v1/buying").json()
    assert "Carbon rod, 4 mm" in {each["name"] for each in told["needed"]}


def test_what_cannot_be_written_down_is_said(client):
    for wrong, field, says in (
        ({"name": ""}, "name", "has to be given"),
        ({"name": "A", "count": 0}, "count", "at least 1"),
        ({"name": "A", "offers": [{"shop": "s", "price": -1.0}]}, "offers.0.price", "at least 0"),
    ):
        assert problem(client.put("/api/v1/buying/wanted/a", json=wrong), field, says)


def test_a_list_that_is_full(client):
    for k in range(MOST_WANTED):
        assert client.put(f"/api/v1/buying/wanted/w{k}", json={"name": "W"}).status_code == 200
    refused = client.put("/api/v1/buying/wanted/more", json={"name": "W"})
    assert refused.status_code == 409
    assert problem(refused, "wanted_id", "at most 200")
    assert len(client.get("/api/v1/buying").json()["wanted"]) == MOST_WANTED
