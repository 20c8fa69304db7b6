"""The field, by thumb, by keys, and where nothing answers."""

import json
import re
import uuid
from dataclasses import replace

import pytest
from playwright.sync_api import expect

from oaken_scale.demo.fleet import fleet
from oaken_scale.store.builds import add_build
from oaken_scale.store.database import Database
from tests.benches import MORNING
from tests.browser.waits import holding, let_go, until
from tests.http import HTTP

PHONE = {"width": 390, "height": 844}


def of_its_own(server, name: str) -> str:
    """A copy of a demo plane of this test's own; its id."""
    build = next(each.build for each in fleet() if each.build.id == name)
    id = f"{name}-{uuid.uuid4()}"
    store = Database(server.database)
    with store.transaction() as connection:
        add_build(connection, replace(build, id=id), MORNING)
    store.close()
    return id


def log(server, id: str) -> dict:
    return HTTP.get(f"{server.url}/api/v1/builds/{id}/field").json()["log"]


@pytest.fixture
def dunlin(page, demo_served):
    page.build = of_its_own(demo_served, "dunlin")
    page.at = f"{demo_served.url}/build/{page.build}/field"
    page.set_viewport_size(PHONE)
    page.goto(page.at)
    expect(page.get_by_role("heading", name="Not ready")).to_be_visible()
    return page


def test_the_list_is_ticked_by_thumb_and_ends_in_ready(dunlin):
    expect(dunlin.get_by_role("heading", name="Not ready: 8 of 9 open")).to_be_visible()
    for box in dunlin.get_by_role("checkbox").all():
        box.click()
    expect(dunlin.get_by_role("heading", name="Ready", exact=True)).to_be_visible()
    expect(dunlin.get_by_text("Signed")).to_contain_text("with As thrown")
    expect(dunlin.get_by_text("due since 1 Oct 2026")).to_contain_text(
        "Renew the leading edge tape"
    )
    dunlin.reload()
    expect(dunlin.get_by_role("heading", name="Ready", exact=True)).to_be_visible()
    dunlin.get_by_role("checkbox", name="The wind is right").click()
    expect(dunlin.get_by_role("heading", name="Not ready: 1 of 9 open")).to_be_visible()


def test_seven_opens_the_field_and_the_list_is_ticked_by_keys_alone(dunlin):
    dunlin.set_viewport_size({"width": 1280, "height": 800})
    dunlin.goto(dunlin.at.replace("/field", "/plan"))
    expect(dunlin.get_by_label("On the plan")).to_be_visible()
    dunlin.keyboard.press("7")
    box = dunlin.get_by_role("checkbox", name="Everything is fixed")
    expect(box).to_have_attribute("aria-checked", "false")
    box.focus()
    dunlin.keyboard.press("Space")
    expect(box).to_have_attribute("aria-checked", "true")
    expect(box).to_be_focused()


def test_a_throw_by_one_thumb_in_under_six_presses(dunlin, demo_served):
    dunlin.goto(f"{dunlin.at}?on=throw")
    before = len(log(demo_served, dunlin.build)["throws"])
    dunlin.get_by_role("button", name="rises, stalls").click()  # 1
    dunlin.get_by_role("slider", name="How far it went").click(position={"x": 118, "y": 20})  # 2
    expect(dunlin.get_by_label("metres")).to_have_value("10")
    dunlin.get_by_role("button", name="from 1.6 m again").click()  # 3
    dunlin.get_by_role("button", name="Keep this throw").click()  # 4
    expect(dunlin.get_by_text(f"Throw {before + 1} kept")).to_be_visible()
    until(dunlin, lambda: len(log(demo_served, dunlin.build)["throws"]) == before + 1)
    kept = log(demo_served, dunlin.build)["throws"][-1]
    assert (kept["seen"], kept["distance_m"], kept["height_m"]) == ("stalls", 10.0, 1.6)
    assert kept["settings"] == [
        {"control": "tail-tab", "mm": -1.0},
        {"control": "fin-tab", "mm": -1.0},
    ]
    expect(dunlin.get_by_label("metres")).to_have_value("")
    expect(dunlin.get_by_label("from, m")).to_have_value("")
    row = dunlin.get_by_label("Throws, newest first").locator("li").first
    expect(row).to_contain_text("rises, stalls 10.0 m from 1.6 m")


def test_what_helped_what_was_luck_and_what_to_do_next_is_said(dunlin):
    dunlin.goto(f"{dunlin.at}?on=throw")
    told = dunlin.get_by_label("What next")
    expect(told).to_contain_text("tail tab: 1 mm down goes 1.9 m further than 0: better, not luck")
    expect(told).to_contain_text("fin tab: 1 mm left goes 0.2 m further than 0: as good as luck")
    expect(told).to_contain_text("Glide 8.5 ±1.8 to 1")
    dunlin.get_by_role("button", name="rises, stalls").click()
    dunlin.get_by_role("button", name="Keep this throw").click()
    expect(told.get_by_role("heading", level=2)).to_contain_text("Look along it")


def test_a_tab_is_bent_by_halves_and_set_back_with_one_press(dunlin, demo_served):
    dunlin.goto(f"{dunlin.at}?on=throw")
    dunlin.get_by_role("button", name="Tail tab: half a millimetre more").click()
    form = dunlin.get_by_role("form", name="A throw")
    expect(form.get_by_text("½ mm down", exact=True)).to_be_visible()
    until(dunlin, lambda: log(demo_served, dunlin.build)["controls"][0]["set_mm"] == -0.5)
    dunlin.get_by_role("button", name="it is set like that again").click()
    expect(form.get_by_text("1 mm down", exact=True)).to_be_visible()
    until(dunlin, lambda: log(demo_served, dunlin.build)["controls"][0]["set_mm"] == -1.0)


@pytest.mark.parametrize(
    ("field", "typed", "says"),
    [
        ("metres", "1000", "Metres: 1000 is too much"),
        ("seconds", "-3", "Seconds: a plain number above 0"),
        ("metres", "far", "Metres: a plain number above 0"),
        ("from, m", "80.5", "From: 80.5 is too much for one; 80 at most"),
    ],
)
def test_what_no_throw_can_be_is_said_and_nothing_typed_is_lost(dunlin, field, typed, says):
    dunlin.goto(f"{dunlin.at}?on=throw")
    dunlin.get_by_label(field).fill(typed)
    dunlin.get_by_role("button", name="Keep this throw").click()
    expect(dunlin.get_by_role("alert")).to_contain_text(says)
    expect(dunlin.get_by_label(field)).to_have_value(typed)


# What is too small in a view of the Field: letters, and what is pressed on a phone.
SMALL = """() => [...document.querySelectorAll('.views *')].filter((each) =>
    [...each.childNodes].some((n) => n.nodeType === 3 && n.textContent.trim()) &&
    each.getClientRects().length
  ).map((each) => {
    const svg = each.ownerSVGElement
    const by = svg ? svg.getScreenCTM().a : 1
    return [each.textContent.trim(), parseFloat(getComputedStyle(each).fontSize) * by]
  }).filter(([, px]) => px < 10)"""
LOW = """() => [...document.querySelectorAll('.views button, .views [role=checkbox]')]
  .map((each) => [each.textContent.trim(), each.getBoundingClientRect()])
  .filter(([, box]) => box.height && box.height < 24).map(([name]) => name)"""


@pytest.mark.parametrize("width", [390, 1280])
@pytest.mark.parametrize("plane", ["dunlin", "night-heron"])
def test_every_view_fits_its_width_and_its_letters_can_be_read(page, demo_served, plane, width):
    page.set_viewport_size({"width": width, "height": 844})
    for view in ("list", "throw", "flights", "controls", "repair", "back"):
        page.goto(f"{demo_served.url}/build/{plane}/field?on={view}")
        expect(page.get_by_label("In Field")).to_be_visible()
        expect(page.locator(".views section, .views form").first).to_be_visible()
        assert page.evaluate("document.documentElement.scrollWidth") <= width, view
        assert page.evaluate(SMALL) == [], view
        assert page.evaluate(LOW) == [] or width > 700, view


def test_where_nothing_answers_all_is_kept_and_comes_home_once(chromium, served):
    """The workshop is killed; the page goes on, is closed, opened again, and brings all home."""
    id = of_its_own(served, "night-heron")
    context = chromium.new_context(viewport=PHONE, locale="en-GB")
    page = context.new_page()
    at = f"{served.url}/build/{id}/field"
    page.goto(at)
    expect(page.get_by_role("heading", name="Not ready")).to_be_visible()
    page.evaluate("navigator.serviceWorker.ready")
    page.wait_for_function("() => navigator.serviceWorker.controller !== null")
    # Once more with the worker in its place, so that it has seen what the page asks for.
    page.reload()
    expect(page.get_by_role("heading", name="Not ready")).to_be_visible()
    page.wait_for_function(
        """async (of) => {
          const kept = await caches.match(location.origin + '/api/v1/builds/' + of + '/field')
          const page = await caches.open('oaken-scale-pages-1')
          return kept && (await page.keys()).some((each) => each.url.includes('FieldPlace'))
        }""",
        arg=id,
    )
    port = int(served.url.rsplit(":", 1)[1])
    before = log(served, id)
    served.kill()

    page.get_by_role("checkbox", name="The wind is right").click()
    expect(page.get_by_text("1 entry waits here")).to_be_visible()
    page.get_by_role("link", name="Flights").click()
    page.get_by_role("button", name="Off it goes").click()
    expect(page.get_by_role("timer")).to_have_text(re.compile(r"0:0[1-9]"))
    page.close()

    page = context.new_page()
    page.goto(f"{at}?on=flights")
    expect(page.get_by_text("1 entry waits here")).to_be_visible()
    expect(page.get_by_text("workshop out of reach")).to_be_visible()
    expect(page.get_by_role("timer")).not_to_have_text("0:00")
    page.get_by_role("button", name="Landed").click()
    for name, typed, says in (
        ("minutes", "0.05", "Minutes: 0.05 is too little; 0.1 at least"),
        ("minutes", "301", "Minutes: 301 is too much for one; 300 at most"),
        ("mAh put back", "50001", "mAh put back: 50001 is too much for one; 50000 at most"),
    ):
        page.get_by_label("minutes").fill("7.5")
        page.get_by_label(name).fill(typed)
        page.get_by_role("button", name="Keep this flight").click()
        expect(page.get_by_role("alert")).to_have_text(says)
    page.get_by_label("mAh put back").fill("")
    page.get_by_role("button", name="soft").click()
    page.get_by_role("button", name="Keep this flight").click()
    page.get_by_role("link", name="Throw", exact=True).click()
    page.get_by_role("button", name="turns left").click()
    page.get_by_role("button", name="Keep this throw").click()
    page.get_by_role("link", name="Looking back").click()
    page.get_by_label("in your words").fill("A softer nose")
    page.get_by_role("button", name="Write it down").click()
    expect(page.get_by_text("4 entries wait here")).to_be_visible()

    served.start(port)
    expect(page.get_by_text(re.compile(r"waits? here"))).to_have_count(0)
    after = log(served, id)
    assert len(after["ticks"]) == len(before["ticks"]) + 1
    assert after["ticks"][-1]["line"] == "wind"
    assert [each["seen"] for each in after["throws"]] == ["turns_left"]
    assert [each["words"] for each in after["notes"]][-1] == "A softer nose"
    flights = HTTP.get(f"{served.url}/api/v1/builds/{id}").json()["build"]["power"]["flights"]
    assert (len(flights), flights[-1]["minutes"], flights[-1]["landing"]) == (23, 7.5, "soft")
    context.close()


def test_what_the_workshop_refuses_stays_in_words_until_it_was_read(page, demo_served):
    id = of_its_own(demo_served, "night-heron")
    page.goto(f"{demo_served.url}/build/{id}/field?on=flights")
    page.get_by_label("minutes").fill("240")
    page.get_by_role("button", name="Keep this flight").click()
    refused = page.get_by_role("alert", name="Not kept")
    expect(refused).to_contain_text("A flight was not kept")
    expect(refused).to_contain_text("the packs of Night Heron last about")
    page.reload()
    expect(refused).to_contain_text("A flight was not kept")
    page.get_by_role("button", name="let it go").click()
    expect(refused).to_have_count(0)


def test_a_card_works_by_itself_and_its_file_comes_home_once(
    chromium, dunlin, demo_served, tmp_path
):
    with dunlin.expect_download() as getting:
        dunlin.get_by_role("button", name="Field card").click()
    card = tmp_path / "card.html"
    getting.value.save_as(card)
    assert card.stat().st_size < 300_000
    assert not re.search(r'(src|href)="?https?:', card.read_text())
    context = chromium.new_context(viewport=PHONE, locale="en-GB", offline=True)
    phone = context.new_page()
    wrong = []
    phone.on("pageerror", lambda error: wrong.append(str(error)))
    phone.goto(card.as_uri())
    expect(phone.get_by_role("heading", name="Dunlin")).to_be_visible()
    phone.get_by_role("checkbox", name="The wind is right").click()
    phone.get_by_role("button", name="dives").click()
    phone.get_by_label("metres").fill("8,5")
    phone.get_by_role("button", name="Keep this throw").click()
    phone.get_by_label("metres").fill("4000")
    phone.get_by_role("button", name="Keep this throw").click()
    expect(phone.locator("#throwWrong")).to_contain_text("too much")
    phone.get_by_label("in your words").fill("Gusty")
    phone.get_by_role("button", name="Keep this note").click()
    expect(phone.locator("#waits")).to_contain_text("3 entries kept on this phone")
    phone.reload()
    expect(phone.locator("#waits")).to_contain_text("3 entries")
    # Opened twice, neither writes over what the other keeps.
    beside = context.new_page()
    beside.goto(card.as_uri())
    beside.get_by_label("in your words").fill("Calmer")
    beside.get_by_role("button", name="Keep this note").click()
    expect(phone.locator("#waits")).to_contain_text("4 entries")
    beside.close()
    assert phone.evaluate("document.documentElement.scrollWidth") <= PHONE["width"]
    with phone.expect_download() as giving:
        phone.get_by_role("button", name="Save the file").click()
    home = tmp_path / "home.json"
    giving.value.save_as(home)
    context.close()
    assert wrong == []
    before = log(demo_served, dunlin.build)
    dunlin.get_by_label("A card's file").set_input_files(home)
    expect(dunlin.get_by_text("4 entries taken in.")).to_be_visible()
    dunlin.get_by_label("A card's file").set_input_files(home)
    expect(dunlin.get_by_text("0 entries taken in, 4 were here already.")).to_be_visible()
    after = log(demo_served, dunlin.build)
    assert len(after["throws"]) == len(before["throws"]) + 1
    assert (after["throws"][-1]["seen"], after["throws"][-1]["distance_m"]) == ("dives", 8.5)
    assert [note["words"] for note in after["notes"][-2:]] == ["Gusty", "Calmer"]
    other = json.loads(home.read_text()) | {"build": "somewhere", "name": "Plover"}
    home.write_text(json.dumps(other))
    dunlin.get_by_label("A card's file").set_input_files(home)
    expect(dunlin.get_by_text("the card is of Plover, this is Dunlin")).to_be_visible()


def test_a_crash_and_its_repair_are_one_act_that_opens_the_list(dunlin, demo_served):
    dunlin.goto(f"{dunlin.at}?on=repair")
    dunlin.get_by_role("button", name="Nose pod, bare foam").click()
    dunlin.get_by_label("glue, g").fill("0.8")
    dunlin.get_by_role("button", name="Fin", exact=True).click()
    dunlin.get_by_role("group", name="What became of Fin").get_by_text("replaced").click()
    dunlin.get_by_role("button", name="Write the repair down").click()
    expect(dunlin.get_by_role("alert")).to_contain_text("Fin: say what the new one weighs")
    dunlin.get_by_label("weighs about, g").fill("1.6")
    dunlin.get_by_label("what happened").fill("hit the gate")
    held, let = holding(dunlin, "**/crash")
    dunlin.get_by_role("button", name="Write the repair down").click()
    # What is found hurt while it is on its way is of the next repair.
    dunlin.get_by_role("button", name="Tailplane", exact=True).click()
    let_go(dunlin, held, let)
    expect(dunlin.get_by_text("Written down. The list is open again")).to_be_visible()
    expect(dunlin.get_by_text("hit the gate")).to_be_visible()
    expect(dunlin.locator("fieldset")).to_have_count(1)
    expect(dunlin.get_by_role("group", name="What became of Tailplane")).to_be_visible()
    dunlin.get_by_role("link", name="Ready or not").click()
    expect(dunlin.get_by_text("hit the gate").first).to_be_visible()


def test_a_control_is_put_on_the_drawing_and_its_travel_typed_in_either(dunlin):
    dunlin.set_viewport_size({"width": 1280, "height": 800})
    dunlin.goto(f"{dunlin.at}?on=controls")
    expect(dunlin.get_by_role("article", name="Tail tab")).to_be_visible()
    dunlin.get_by_role("button", name="Add it").click()
    mine = dunlin.get_by_role("article", name="Elevator")
    expect(mine).to_contain_text("Stick back: trailing edge up")
    mine.get_by_label("Elevator: travel up, degrees").fill("30")
    mine.get_by_label("Elevator: travel up, degrees").press("Enter")
    # A quarter of a chord of 65: 16.25 mm deep, half of it at 30 degrees.
    expect(mine.get_by_label("Elevator: travel up", exact=True)).to_have_value("8.1")
    mine.get_by_label("Elevator: travel down", exact=True).fill("30")
    mine.get_by_label("Elevator: travel down", exact=True).press("Enter")
    expect(dunlin.get_by_text("goes 11.49 mm at most")).to_be_visible()
    dunlin.get_by_role("link", name="Ready or not").click()
    expect(dunlin.get_by_text("Elevator: the right way")).to_be_visible()


def test_two_figures_of_a_control_typed_at_once_are_both_kept(dunlin, demo_served):
    dunlin.set_viewport_size({"width": 1280, "height": 800})
    dunlin.goto(f"{dunlin.at}?on=controls")
    mine = dunlin.get_by_role("article", name="Tail tab")
    expect(mine).to_be_visible()
    held, let = holding(dunlin, "**/field/controls")
    for label, typed in (("per cent of the chord", "14"), ("travel up", "5")):
        box = mine.get_by_label(f"Tail tab: {label}", exact=True)
        box.fill(typed)
        box.press("Tab")
    let_go(dunlin, held, let)

    def told() -> list[float]:
        controls = log(demo_served, dunlin.build)["controls"]
        tab = next(each for each in controls if each["name"] == "Tail tab")
        return [tab["chord_share"], tab["up_mm"]]

    until(dunlin, told, lambda has: has == [0.14, 5])


def test_looking_back_and_the_next_version_with_its_wish(dunlin):
    dunlin.goto(f"{dunlin.at}?on=back")
    expect(dunlin.get_by_text("due 1 Oct 2026")).to_be_visible()
    dunlin.get_by_label("in your words").fill("Two halves that plug")
    dunlin.get_by_role("button", name="Write it down").click()
    expect(dunlin.get_by_text("Two halves that plug")).to_be_visible()
    dunlin.get_by_role("button", name="Begin it").click()
    expect(dunlin).to_have_url(re.compile(r"/plan"))
    dunlin.goto(dunlin.url.replace("/plan", "/field?on=back"))
    expect(dunlin.get_by_text("Two halves that plug")).to_be_visible()
    expect(dunlin.get_by_text("The boom stayed straight")).to_have_count(0)


@pytest.mark.parametrize(
    ("unit", "band", "planned"),
    [
        ("percent_mac", (28.0, 33.0), "28.0 to 33.0 % MAC"),
        ("mm_from_leading_edge", (50.8, 63.5), "2.00 to 2.50 in from leading edge"),
        ("mm_from_nose", (241.3, None), "at least 9.50 in from nose"),
    ],
)
def test_looking_back_says_the_balance_as_the_target_does(page, sandpiper, unit, band, planned):
    """In inches where it is a length; what it came to stands beside it in the same unit."""
    page.add_init_script("localStorage.setItem('oaken-scale-units', 'imperial')")
    url = sandpiper.replace("/build/", "/api/v1/builds/")
    told = HTTP.get(url).json()
    others = [each for each in told["build"]["targets"] if each["kind"] != "balance"]
    target = {"kind": "balance", "balance_unit": unit, "low": band[0], "high": band[1]}
    fresh = HTTP.patch(
        url,
        json={"targets": [*others, target]},
        headers={"If-Match": f'"{told["revision"]}"'},
    ).json()
    answers = fresh["assessment"]["loadouts"][0]["answers"]
    is_now = next(each["value"] for each in answers if each["kind"] == "balance")
    shown = f"{is_now:.1f} %" if unit == "percent_mac" else f"{is_now / 25.4:.2f} in"
    page.goto(f"{sandpiper}/field?on=back")
    row = page.locator("tr", has=page.get_by_role("rowheader", name="balance"))
    expect(row).to_contain_text(planned)
    expect(row.locator("td").last).to_contain_text(shown)
