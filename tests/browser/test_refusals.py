"""What the workshop refuses is said in the units and with the mark that were chosen."""

import json

import pytest
from playwright.sync_api import expect


def fault(text: str, *facts) -> dict:
    """A fault as the API tells it: names, and amounts in base units."""
    told = [
        fact if isinstance(fact, str) else dict(zip(("value", "unit"), fact, strict=True))
        for fact in facts
    ]
    return {"field": "kerf_mm", "words": "not shown", "text": text, "facts": told}


BY_NAME = fault("is {}, no narrower than {} itself", (60.0, "mm"), "the 6 mm {strip}")
SMALL = fault("is {}; at least {}", (0.0, "g"), (0.0001, "g"))
LOADING = fault("is {}; under {}", (-30.52, "g/dm2"), (20.52, "dm2"))


PLAIN = fault("plain {} words")


@pytest.mark.parametrize(
    ("units", "mark", "refused"),
    [
        (
            "metric",
            ",",
            [
                (BY_NAME, "The kerf is 60 mm, no narrower than the 6 mm {strip} itself"),
                (SMALL, "The kerf is 0 g; at least 0,0001 g"),
                (LOADING, "The kerf is −30,52 g/dm²; under 20,52 dm²"),
            ],
        ),
        (
            "imperial",
            ".",
            [
                (BY_NAME, "The kerf is 2.36 in, no narrower than the 6 mm {strip} itself"),
                (SMALL, "The kerf is 0.00 oz; at least 0.0000035 oz"),
                (LOADING, "The kerf is −10.0 oz/ft²; under 2.21 ft²"),
                (PLAIN, "The kerf plain {} words"),
            ],
        ),
    ],
)
def test_amounts_are_said_in_chosen_units_and_names_as_they_were_given(
    page, demo_served, units, mark, refused
):
    """By hand: 60 / 25.4 = 2.36 in; 0.0001 / 28.3495 = 0.0000035 oz; 30.52 g/dm2 is
    30.52 / 28.3495 * 9.2903 = 10.0 oz/ft2; 20.52 / 9.2903 = 2.21 ft2."""
    page.add_init_script(
        f"localStorage.setItem('oaken-scale-units', '{units}');"
        f"localStorage.setItem('oaken-scale-mark', '{mark}')"
    )
    faults: list[dict] = []
    page.route(
        "**/builds/sandpiper/cutting",
        lambda route: route.fulfill(
            status=422,
            content_type="application/problem+json",
            body=json.dumps({"title": "No", "status": 422, "detail": "no", "faults": faults}),
        ),
    )
    page.goto(f"{demo_served.url}/build/sandpiper/stock?on=cutting")
    for told, says in refused:
        faults[:] = [told]
        page.get_by_role("button", name="Lay them on sheets").click()
        expect(page.get_by_role("alert")).to_contain_text(says)


@pytest.mark.parametrize(
    ("place", "label", "typed", "says"),
    [
        ("plan?on=targets", "All-up weight, at most", "30 kg", "All-up weight, at most is 30000"),
        ("plan?on=targets", "Static thrust", "900 kg", "Static thrust is 900000"),
        ("plan?on=scales", "Kitchen scale, step", "5 kg", "Kitchen scale, step is 5000"),
        ("plan?on=scales", "Tray, mass", "90 kg", "Tray, mass is 90000"),
        ("power?on=drive", "Motor Kv", "90000", "Motor, Kv is 90000"),
        ("balance", "Nose, at most", "900 kg", "Nose, at most is 900000"),
        ("stock?on=budget", "Allotted to Joining", "900 kg", "Joining, allotted is 900000"),
    ],
)
def test_a_figure_is_called_as_its_place_calls_it(page, sandpiper, place, label, typed, says):
    page.goto(f"{sandpiper}/{place}")
    box = page.get_by_label(label, exact=True).first
    expect(box).to_be_visible()
    box.fill(typed)
    box.press("Enter")
    expect(page.get_by_text(says)).to_be_visible()
    expect(page.get_by_text(says)).to_contain_text("it should be at most")


IMPERIAL = "localStorage.setItem('oaken-scale-units', 'imperial')"


@pytest.mark.parametrize(
    ("what", "file", "says"),
    [
        ("List of parts", "part,mass g\nAnvil,9000\n", "mass is 317.47 oz; it should be at most"),
        (
            "List of parts",
            "part,station mm\nFar,6000\n",
            "station is 236.22 in; it should be at most",
        ),
        (
            "File with a list",
            "reading g;pan\n90000;Motor, leads on\n",
            "line 2: reading 3174.66 oz is over",
        ),
    ],
)
def test_why_a_line_of_a_list_is_left_out_is_said_in_chosen_units(
    page, sandpiper, what, file, says
):
    """By hand: 9000 / 28.349523 = 317.47 oz, 6000 / 25.4 = 236.22 in, 90000 g are 3174.66 oz."""
    page.add_init_script(IMPERIAL)
    page.goto(f"{sandpiper}/sheet?on=files")
    sent = {"name": "list.csv", "mimeType": "text/csv", "buffer": file.encode()}
    page.get_by_label(what).set_input_files(sent)
    expect(page.get_by_text(says)).to_be_visible()


def test_an_unusual_part_of_one_line_is_asked_about_in_chosen_units(page, sandpiper):
    """2800 g are 98.77 oz, and 28 g are 0.99."""
    page.add_init_script(IMPERIAL)
    page.goto(f"{sandpiper}/plan?on=parts")
    line = page.get_by_label("Name of the next part")
    line.fill("Motor two 2.8 kg")
    line.press("Enter")
    expect(page.get_by_text("98.77 oz is unusual for one part; 0.99 oz?")).to_be_visible()
    line.press("Enter")
    expect(line).to_have_value("")
