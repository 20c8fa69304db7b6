"""Each place of the pages, gone to and asked about, one after the other."""

from pathlib import Path

import pytest
from playwright.sync_api import expect

AXE = Path(__file__).parents[2] / "web/node_modules/axe-core/axe.min.js"

PLACES = (
    "/",
    "/begin",
    "/buying",
    *(
        f"/build/sandpiper/plan?on={on}"
        for on in ("drawing", "targets", "parts", "loadouts", "fit", "day", "notebook", "scales")
    ),
    *(
        f"/build/sandpiper/stock?on={on}"
        for on in ("rack", "outlines", "folds", "cutting", "ways", "drawer", "shopping", "budget")
    ),
    "/build/sandpiper/bench",
    *(f"/build/{plane}/balance" for plane in ("sandpiper", "night-heron", "avocet", "mayfly")),
    *(f"/build/{plane}/power" for plane in ("sandpiper", "mayfly")),
    *(f"/build/sandpiper/sheet?on={on}" for on in ("page", "labels", "full", "files")),
    *(f"/build/{plane}/plan?on=drawing" for plane in ("night-heron", "avocet", "mayfly", "dunlin")),
    *(
        f"/build/night-heron/field?on={on}"
        for on in ("list", "throw", "flights", "controls", "repair", "back")
    ),
    "/build/dunlin/field?on=throw",
)
# The phone is as tall as its longest page, so that nothing lies under the rule at its foot.
WIDTHS = {"desk": (1280, 800), "phone": (390, 2600)}


# From place to place as a builder goes, without fetching the pages anew.
GO = """async (place) => {
    const router = document.querySelector('#app').__vue_app__.config.globalProperties.$router
    await router.push(place)
    await document.fonts.ready
    await new Promise(requestAnimationFrame)
    scrollTo(0, 0)
}"""


@pytest.fixture
def looked_at(chromium, demo_served):
    """Each place at a width, in chosen units, by daylight or by the lamp, and then, if asked, at
    twice the size and by the lamp; what fails is told place by place."""

    def look(width, asks, by_lamp=(), at_twice=(), units="metric", mark=".", light="light"):
        across, down = WIDTHS[width]
        context = chromium.new_context(
            viewport={"width": across, "height": down},
            color_scheme=light,
            reduced_motion="reduce",
            bypass_csp=True,
            service_workers="block",
        )
        page = context.new_page()
        page.add_init_script(f"localStorage.setItem('oaken-scale-units', '{units}')")
        page.add_init_script(f"localStorage.setItem('oaken-scale-mark', '{mark}')")
        if any("axe." in ask for ask in asks):
            page.add_init_script(AXE.read_text())
        asked, told = set(), {}
        page.on("request", lambda each: each.resource_type == "fetch" and asked.add(each))

        def answered(each):
            asked.discard(each)

        page.on("requestfinished", answered)
        page.on("requestfailed", answered)
        page.goto(demo_served.url)
        expect(page.locator("h1, h2").first).to_be_visible()
        for place in PLACES:
            asked.clear()
            page.evaluate(GO, place)
            expect(page.locator("h1, h2").first).to_be_visible()
            expect(page.locator("[aria-busy=true]")).to_have_count(0)
            for _ in range(50):  # what is asked for once the place stands
                page.wait_for_timeout(60)
                if not asked:
                    break
            found = [each for ask in asks if (each := page.evaluate(ask))]
            if at_twice:
                page.set_viewport_size({"width": across // 2, "height": down})
                page.evaluate("() => new Promise((told) => setTimeout(told, 50))")
                found += [each for ask in at_twice if (each := page.evaluate(ask))]
                page.set_viewport_size({"width": across, "height": down})
            if by_lamp:
                page.emulate_media(color_scheme="dark")
                expect(page.locator(".v-theme--lamp").first).to_be_attached()
                page.evaluate(CHANGED)
                found += [each for ask in by_lamp if (each := page.evaluate(ask))]
                page.emulate_media(color_scheme="light")
            if found:
                told[place] = found
        context.close()
        return told

    return look


# Colours have changed: what is inherited changes after what it is inherited from.
CHANGED = """async () => {
    for (let still = 0; still < 3; still++) {
        await new Promise(requestAnimationFrame)
        const running = document.getAnimations().filter((each) => each instanceof CSSTransition)
        if (running.length) still = -1
        await Promise.allSettled(running.map((each) => each.finished))
    }
}"""
