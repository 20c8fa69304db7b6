import pytest
from playwright.sync_api import expect

TEXT_ON = [
    ("ink", "linen"),
    ("ink", "paper"),
    ("ink", "tag"),
    ("ink", "sea-wash"),
    ("ink", "rust-wash"),
    ("faint", "linen"),
    ("faint", "paper"),
    ("faint", "tag"),
    ("sea", "linen"),
    ("sea", "paper"),
    ("rust", "linen"),
    ("rust", "paper"),
    ("oak-text", "oak"),
    ("foot-text", "foot"),
    ("foot-brass", "foot"),
]
SHAPE_ON = [("sea", "tag"), ("brass", "paper"), ("sea", "paper"), ("edge", "allowed")]


def luminance(colour: str) -> float:
    """Relative luminance of #rrggbb (WCAG 2.2)."""
    parts = [int(colour[k : k + 2], 16) / 255 for k in (1, 3, 5)]
    linear = [c / 12.92 if c <= 0.04045 else ((c + 0.055) / 1.055) ** 2.4 for c in parts]
    return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]


def contrast(one: str, other: str) -> float:
    light, dark = sorted((luminance(one), luminance(other)), reverse=True)
    return (light + 0.05) / (dark + 0.05)


@pytest.fixture
def bench(page, demo_served):
    page.goto(f"{demo_served.url}/build/sandpiper/bench")
    expect(page.locator("[data-part=motor]")).to_be_visible()
    return page


@pytest.mark.parametrize("theme", ["linen", "lamp"])
def test_every_colour_pair_reaches_aa(bench, theme):
    def colour(name: str) -> str:
        return bench.evaluate(
            """([theme, name]) => {
                const at = document.createElement('div')
                at.className = `v-theme--${theme}`
                document.body.append(at)
                return getComputedStyle(at).getPropertyValue(`--${name}`).trim()
            }""",
            [theme, name],
        )

    text = {pair: contrast(colour(pair[0]), colour(pair[1])) for pair in TEXT_ON}
    shape = {pair: contrast(colour(pair[0]), colour(pair[1])) for pair in SHAPE_ON}
    assert {pair: ratio for pair, ratio in text.items() if ratio < 4.5} == {}
    assert {pair: ratio for pair, ratio in shape.items() if ratio < 3.0} == {}


def test_the_joint_clocks_stand_at_the_foot_and_the_pan_under_the_rods(bench):
    """On a desk nothing of the Bench lies below the fold but what scrolls in itself."""
    foot = bench.locator(".clocks").bounding_box()
    pan = bench.get_by_label("Pan", exact=True).bounding_box()
    above = bench.locator("p.what").bounding_box()
    assert foot["y"] + foot["height"] == pytest.approx(800, abs=1)
    assert pan["y"] == pytest.approx(above["y"] + above["height"], abs=1)


def test_lamp_and_daylight(bench):
    bench.get_by_text("lamp", exact=True).click()
    expect(bench.locator("body")).to_have_css("background-color", "rgb(28, 22, 17)")
    bench.reload()
    expect(bench.locator("body")).to_have_css("background-color", "rgb(28, 22, 17)")
    bench.get_by_text("daylight", exact=True).click()
    expect(bench.locator("body")).to_have_css("background-color", "rgb(245, 240, 228)")


def test_the_reading_is_large_and_set_in_our_own_type(bench):
    size, family = bench.evaluate(
        "(() => { const s = getComputedStyle(document.querySelector('output'));"
        " return [parseFloat(s.fontSize), s.fontFamily] })()"
    )
    assert size >= 72
    assert "Atkinson Hyperlegible Mono" in family
    # What is shown before it has come is in the machine's own type.
    bench.wait_for_function(
        "() => [...document.fonts].some((face) => face.status === 'loaded'"
        " && face.family.includes('Atkinson Hyperlegible Next'))"
    )


def test_nothing_comes_from_outside(chromium, demo_served):
    context = chromium.new_context()
    page = context.new_page()
    asked = []
    page.on("request", lambda request: asked.append(request.url))
    for place in ("", "build/sandpiper/plan", "build/sandpiper/bench"):
        page.goto(f"{demo_served.url}/{place}")
        page.wait_for_timeout(400)
    context.close()
    assert len(asked) > 10
    assert [url for url in asked if not url.startswith((demo_served.url, "data:", "blob:"))] == []


def test_the_bench_works_under_one_thumb(chromium, demo_served):
    context = chromium.new_context(
        viewport={"width": 390, "height": 844}, has_touch=True, is_mobile=True
    )
    page = context.new_page()
    page.goto(f"{demo_served.url}/build/sandpiper/bench")
    bar = page.locator(".bar").last
    page.locator("[data-part=bands]").tap()
    expect(page.get_by_text("Rubber bands, four; steady")).to_be_visible()
    record = page.get_by_role("button", name="Record", exact=True)
    box = record.bounding_box()
    assert box["y"] > 600
    assert box["height"] >= 40
    record.tap()
    expect(page.locator("section[aria-label='Till roll'] li").first).to_contain_text("Rubber bands")
    expect(page.get_by_text("the pan is empty")).to_be_visible()
    assert bar.is_visible()
    context.close()


def test_every_control_can_be_reached_and_seen_by_keyboard(bench):
    bench.keyboard.press("Tab")
    seen = []
    for _ in range(26):
        outline = bench.evaluate(
            """(() => {
                const at = document.activeElement
                const name = at.innerText || at.getAttribute('aria-label')
                return [name, getComputedStyle(at).outlineStyle]
            })()"""
        )
        seen.append(outline)
        bench.keyboard.press("Tab")
    names = " ".join(str(name) for name, _ in seen)
    assert "Plan" in names
    assert "Record" in names
    assert "Tare" in names
    assert all(style != "none" for name, style in seen if name and "Units" not in name)
