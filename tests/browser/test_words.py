"""What the core found is said in sentences of the page's own, in the units that were chosen."""

import json

import pytest
from playwright.sync_api import expect

NOTHING = {
    "best": None, "others": [], "in_the_way": None, "offers": [], "unsure_part": None, "sure": True,
}  # fmt: skip


def remedy(slides=(), ballast=(), chance=1.0, **more):
    """A remedy: slides by part and mm, ballast by spot and grams."""
    return {
        "slides": [{"part": part, "from_mm": 0.0, "to_mm": by} for part, by in slides],
        "ballast": [{"spot": spot, "grams": grams, "pieces": []} for spot, grams in ballast],
        "ballast_g": sum(grams for _, grams in ballast), "loadouts": [], "chance": chance,
        "offer": False, "spots": [], "breaks_limit": False, **more,
    }  # fmt: skip


def in_the_way(limit, subject=None, amount=None, **more):
    """What stands in the way."""
    told = {"may_move": True, "room_g": None, "tip": None, "way": None, **more}
    offers = told.pop("offers", [])
    obstacle = {"limit": limit, "subject": subject, "amount": amount, **told}
    return {**NOTHING, "outcome": "in_the_way", "in_the_way": obstacle, "offers": offers}


WAYS = {**NOTHING, "outcome": "found",
        "best": remedy([("pack-1300", -45.4), ("receiver", 20.0)]),
        "others": [remedy([], [("nose", 12.5)], breaks_limit=True)]}  # fmt: skip
STAYS = {**NOTHING, "outcome": "no_farther", "best": remedy(chance=0.412), "sure": False,
         "unsure_part": "paint"}  # fmt: skip
MAY_NOT = in_the_way("permission", "receiver", may_move=False,
                     offers=[remedy([("receiver", -20.0)])])  # fmt: skip


@pytest.mark.parametrize(
    ("told", "units", "says"),
    [
        (WAYS, "metric", [
            "Slide the pack, 3-cell 1300, 45 mm forward, then slide the receiver 20 mm aft;"
            " no ballast.",
            "or 13 g at the nose, but that breaks the weight limit.",
        ]),
        (WAYS, "imperial", ["Slide the pack, 3-cell 1300, 1.79 in forward", "or 0.44 oz at the"]),
        (STAYS, "metric", ["Nothing moves it farther in: 41 % in range; weigh the paint and"
                           " markings to be surer."]),
        (MAY_NOT, "metric", ["Nothing may move yet: let the receiver slide.",
                             "Slide the receiver 20 mm forward; no ballast."]),
        (in_the_way("slides", "pack-850", 12.7), "imperial",
         ["The bay of the pack, 3-cell 850 is 0.50 in short."]),
        (in_the_way("ballast", "nose", 4.0, room_g=21.0), "metric",
         ["25 g at the nose would do; there is room and pieces for 21 g."]),
        (in_the_way("weight", None, 2.5, way=remedy([], [("nose", 30.0)])), "metric",
         ["30 g at the nose would do, and break the weight limit by 2.5 g."]),
        (in_the_way("sideways", "camera", 3.21, tip="left"), "metric",
         ["the camera and strap pulls it over; 3.2 g at the left tip would hold it."]),
    ],
)  # fmt: skip
def test_a_remedy_is_said_by_its_facts_in_the_chosen_units(page, demo_served, told, units, says):
    page.add_init_script(f"localStorage.setItem('oaken-scale-units', '{units}')")
    page.route("**/sandpiper/remedies", lambda route: route.fulfill(body=json.dumps(told)))
    page.goto(f"{demo_served.url}/build/sandpiper/balance")
    for sentence in says:
        expect(page.get_by_label("What would fix it")).to_contain_text(sentence)
