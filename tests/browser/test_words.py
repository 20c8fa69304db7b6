"""What the core found is said in sentences of the page's own, in the units that were chosen."""

import json

import pytest
from playwright.sync_api import expect

NOTHING = {
    "best": None,
    "others": [],
    "in_the_way": None,
    "offers": [],
    "unsure_part": None,
    "sure": True,
    "sideways": None,
}


def remedy(slides=(), ballast=(), chance=1.0, **more):
    """A remedy: slides by part and mm, ballast by spot and grams."""
    return {
        "slides": [{"part": part, "from_mm": 0.0, "to_mm": by} for part, by in slides],
        "ballast": [{"spot": spot, "grams": grams, "pieces": []} for spot, grams in ballast],
        "ballast_g": sum(grams for _, grams in ballast),
        "loadouts": [],
        "chance": chance,
        "offer": False,
        "spots": [],
        "breaks_limit": False,
        **more,
    }


def in_the_way(limit, subject=None, amount=None, **more):
    """What stands in the way."""
    told = {"may_move": True, "room_g": None, "tip": None, "way": None, **more}
    offers = told.pop("offers", [])
    obstacle = {"limit": limit, "subject": subject, "amount": amount, **told}
    return {**NOTHING, "outcome": "in_the_way", "in_the_way": obstacle, "offers": offers}


WAYS = {
    **NOTHING,
    "outcome": "found",
    "best": remedy([("pack-1300", -45.4), ("receiver", 20.0)]),
    "others": [remedy([], [("nose", 12.5)], breaks_limit=True)],
}
STAYS = {
    **NOTHING,
    "outcome": "no_farther",
    "best": remedy(chance=0.412),
    "sure": False,
    "unsure_part": "paint",
}
ASIDE = in_the_way("sideways", "camera", 2.0, tip="right")["in_the_way"]
MAY_NOT = in_the_way(
    "permission", "receiver", may_move=False, offers=[remedy([("receiver", -20.0)])]
)


@pytest.mark.parametrize(
    ("told", "units", "says"),
    [
        (
            WAYS,
            "metric",
            [
                "Slide the pack, 3-cell 1300, 45 mm forward, then slide the receiver 20 mm aft;"
                " no ballast.",
                "or 13 g at the nose, but that breaks the weight limit.",
            ],
        ),
        (WAYS, "imperial", ["Slide the pack, 3-cell 1300, 1.79 in forward", "or 0.44 oz at the"]),
        (
            STAYS,
            "metric",
            [
                "Nothing moves it farther in: 41 % in range; weigh the paint and"
                " markings to be surer."
            ],
        ),
        (
            MAY_NOT,
            "metric",
            [
                "Nothing may move yet: let the receiver slide.",
                "Slide the receiver 20 mm forward; no ballast.",
            ],
        ),
        (
            {**WAYS, "best": remedy([("LiPo 3S 1300 45C Nose", -20.0)])},
            "metric",
            ["Slide the LiPo 3S 1300 45C nose 20 mm forward; no ballast."],
        ),
        (
            in_the_way("slides", "pack-850", 12.7),
            "imperial",
            ["The bay of the pack, 3-cell 850 is 0.50 in short."],
        ),
        (
            in_the_way("ballast", "nose", 4.0, room_g=21.0),
            "metric",
            ["25 g at the nose would do; there is room and pieces for 21 g."],
        ),
        (
            in_the_way("weight", None, 2.5, way=remedy([], [("nose", 30.0)])),
            "metric",
            ["30 g at the nose would do, and break the weight limit by 2.5 g."],
        ),
        (
            in_the_way("sideways", "camera", 3.21, tip="left"),
            "metric",
            ["The camera and strap pulls it to the right; 3.2 g at the left tip would hold it."],
        ),
        (
            in_the_way("sideways", "camera", 0.034, tip="left"),
            "metric",
            ["The camera and strap pulls it to the right; 0.03 g at the left tip would hold it."],
        ),
        (
            {**WAYS, "sideways": ASIDE},
            "imperial",
            ["Sideways: the camera and strap pulls it to the left; 0.07 oz at the right tip would"],
        ),
    ],
)
def test_a_remedy_is_said_by_its_facts_in_the_chosen_units(page, demo_served, told, units, says):
    page.add_init_script(f"localStorage.setItem('oaken-scale-units', '{units}')")
    page.route("**/sandpiper/remedies", lambda route: route.fulfill(body=json.dumps(told)))
    page.goto(f"{demo_served.url}/build/sandpiper/balance")
    for sentence in says:
        expect(page.get_by_label("What would fix it")).to_contain_text(sentence)


SCHOOLS = [
    {"kind": "chord rule", "basis": "no_rule_for_canard", "low_mm": None, "high_mm": None},
    {
        "kind": "static margin, steady",
        "basis": "ahead_of_neutral",
        "low_mm": 200.0,
        "high_mm": 215.0,
        "least": 0.10,
        "most": 0.18,
    },
    {
        "kind": "nose down",
        "basis": "held",
        "low_mm": 210.0,
        "high_mm": 212.0,
        "least": 2.0,
        "most": 5.0,
        "held_mm": 254.0,
        "above_mm": 50.8,
    },
]
ODD = [
    {"kind": "fin_volume", "value": 0.0123, "low": 0.02, "high": 0.05, "surfaces": []},
    {
        "kind": "run_through",
        "value": None,
        "low": None,
        "high": None,
        "surfaces": ["wing", "tailplane"],
    },
]


@pytest.fixture
def told_otherwise(page, sandpiper):
    """Opens a place of a build of which the workshop tells something else."""

    def opened(place: str, units: str, change) -> None:
        page.add_init_script(f"localStorage.setItem('oaken-scale-units', '{units}')")

        def answered(route):
            body = route.fetch().json()
            change(body["assessment"])
            route.fulfill(json=body)

        page.route(f"**/api/v1/builds/{sandpiper.rsplit('/', 1)[1]}", answered)
        page.goto(f"{sandpiper}/{place}")

    return opened


def test_schools_say_what_they_rest_on_in_the_chosen_units(page, told_otherwise):
    blank = {"least": None, "most": None, "held_mm": None, "above_mm": None, "unsafe": False}
    schools = [{**blank, **each} for each in SCHOOLS]
    told_otherwise("balance", "imperial", lambda told: told["beam"].update(schools=schools))
    room = page.get_by_label("Where it belongs")
    expect(room).to_contain_text(
        "there is no chord rule for a canard: it would put the CG too far aft."
    )
    page.get_by_text("What each says, and what is left out").click()
    expect(room).to_contain_text("10 to 18 % of the mean chord ahead of the neutral point.")
    expect(room).to_contain_text(
        "2 to 5 degrees nose down when held at 10.00 in, 2.00 in above the CG."
    )


@pytest.mark.parametrize(
    ("checked", "says"),
    [
        ({"how": "never"}, "Not checked by hand yet."),
        ({"how": "another_loadout"}, "Checked with everything aboard only."),
        ({"how": "checked", "at": "2026-03-07T15:00:00Z"}, "Checked by hand on 7 Mar 2026."),
        (
            {
                "how": "not_since",
                "since": {
                    "at": "2026-03-07T15:00:00Z",
                    "words": "",
                    "changed": [
                        {"part": "pack-1300", "kind": "moved"},
                        {"part": "motor", "kind": "added"},
                    ],
                },
            },
            "Not checked since: Pack, 3-cell 1300 moved, and 1 more.",
        ),
    ],
    ids=lambda each: each.get("how") if isinstance(each, dict) else None,
)
def test_whether_it_was_checked_is_said(page, told_otherwise, checked, says):
    blank = {"loadout": None, "since": None, "at": None}

    def change(told):
        for each in told["beam"]["loadouts"]:
            each["checked"] = {**blank, **checked}

    told_otherwise("balance", "metric", change)
    expect(page.get_by_label("Checked on the bench")).to_contain_text(says)


def test_odd_proportions_are_said(page, told_otherwise):
    told_otherwise("plan?on=drawing", "metric", lambda told: told["proportions"].update(odd=ODD))
    room = page.get_by_label("What the drawing comes to")
    expect(room).to_contain_text("fin volume 0.012 is below the usual 0.02 to 0.05")
    expect(room).to_contain_text("Wing and Tailplane run through each other")


def test_what_a_variant_changed_is_said_in_the_chosen_units(page, sandpiper, demo_served):
    page.add_init_script("localStorage.setItem('oaken-scale-units', 'imperial')")
    blank = {"name": "", "before": None, "after": None, "by_mm": None, "colour": None}
    changes = [
        {"kind": "span", "before": 1016.0, "after": 1270.0},
        {"kind": "moved", "name": "Pack", "by_mm": -25.4},
        {"kind": "coloured", "name": "Fin", "colour": "red"},
    ]

    def answered(route):
        (own, *_) = route.fetch().json()
        other = {**own, "build": "other", "name": "Longer", "more": 2}
        route.fulfill(json=[own, {**other, "changes": [{**blank, **each} for each in changes]}])

    page.route("**/variants", answered)
    page.goto(f"{sandpiper}/balance")
    expect(page.locator("[data-variant=Longer]")).to_contain_text(
        "span 40.00 to 50.00 in; Pack 1.00 in forward; Fin in red; and 2 more"
    )


@pytest.mark.parametrize(
    ("next_one", "units", "says"),
    [
        ({"lot": "sheet-a"}, "imperial", "a 4 in square of Sheet A, both papers"),
        ({"lot": "sheet-a"}, "metric", "a 100 mm square of Sheet A, both papers"),
        ({"run": "big"}, "metric", "a run on the stand with 3-cell 1300"),
        (
            {"parts": ["wing"], "together": "whole_plane", "called": "No camera"},
            "metric",
            "the whole plane, No camera",
        ),
        (
            {"parts": ["wing"], "together": "as_it_is", "called": "Fin"},
            "metric",
            "Fin, as it is now",
        ),
        (
            {"parts": ["wing"], "together": "assembly", "called": "Wing"},
            "metric",
            "Wing, put together",
        ),
        ({"scale": "kitchen"}, "metric", "a known weight on Kitchen scale"),
    ],
)
def test_what_to_weigh_next_is_said_in_the_chosen_units(
    page, told_otherwise, next_one, units, says
):
    blank = {
        "part": None,
        "lot": None,
        "share": 0.5,
        "goal": "auw",
        "because": "joined",
        "parts": [],
        "scale": None,
        "run": None,
        "lots": [],
        "made_of_it": 2,
        "together": None,
        "called": "",
    }
    told_otherwise("bench", units, lambda told: told.update(weigh_next=[{**blank, **next_one}]))
    expect(page.get_by_role("heading", name=f"Weigh next: {says}")).to_be_visible()


def test_what_is_odd_in_a_drawing_is_said_in_the_chosen_units(page, sandpiper):
    page.add_init_script("localStorage.setItem('oaken-scale-units', 'imperial')")
    odd = [{"kind": "drawn_twice", "count": 1}, {"kind": "encloses_nothing", "count": 2}]

    def answered(route):
        told = route.fetch().json()
        told["parts"][0]["flaw"] = {"kind": "crosses_itself", "x_mm": 25.4, "y_mm": 50.8}
        route.fulfill(json={**told, "odd": odd})

    page.route("**/api/v1/outlines?**", answered)
    page.goto(f"{sandpiper}/stock?on=outlines")
    page.locator("input[type=file]").first.set_input_files("docs/examples/tail.svg")
    room = page.get_by_role("region", name="Drawing")
    expect(room).to_contain_text("One outline is drawn twice and counts once.")
    expect(room).to_contain_text("2 closed paths enclose nothing.")
    expect(page.locator("main")).to_contain_text(
        "crosses itself near 1.00, 2.00 in; mend it in the drawing"
    )
