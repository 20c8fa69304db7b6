"""For every eye: each place in both widths and themes; axe, letters, labels, edges, units."""

import json
import re
from pathlib import Path

import pytest
from playwright.sync_api import expect

from tests.http import HTTP

AXE = Path("web/node_modules/axe-core/axe.min.js").read_text()

PLACES = (
    "/",
    "/begin",
    "/buying",
    *(f"/build/sandpiper/plan?on={on}"
      for on in ("drawing", "targets", "parts", "loadouts", "fit", "day", "notebook", "scales")),
    *(f"/build/sandpiper/stock?on={on}"
      for on in ("rack", "outlines", "folds", "cutting", "ways", "drawer", "shopping", "budget")),
    "/build/sandpiper/bench",
    *(f"/build/{plane}/balance" for plane in ("sandpiper", "night-heron", "avocet", "mayfly")),
    *(f"/build/{plane}/power" for plane in ("sandpiper", "mayfly")),
    *(f"/build/sandpiper/sheet?on={on}" for on in ("page", "labels", "full", "files")),
    *(f"/build/{plane}/plan?on=drawing" for plane in ("night-heron", "avocet", "mayfly", "dunlin")),
    *(f"/build/night-heron/field?on={on}"
      for on in ("list", "throw", "flights", "controls", "repair", "back")),
    "/build/dunlin/field?on=throw",
)  # fmt: skip
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

    def look(width, asks, by_lamp=(), at_twice=(), units="metric", light="light"):
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
        if SERIOUS in asks:
            page.add_init_script(AXE)
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

SERIOUS = """async () => {
    const rules = ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa']
    const told = await axe.run(document, {runOnly: rules, resultTypes: ['violations']})
    return told.violations
        .filter((each) => ['serious', 'critical'].includes(each.impact))
        .map((each) => [each.id, each.nodes.slice(0, 3).map((node) => node.html.slice(0, 120))])
}"""

CONTRAST = """async () => {
    const told = await axe.run(document, {runOnly: {type: 'rule', values: ['color-contrast']}})
    return told.violations.flatMap((each) => each.nodes.map((node) => node.html.slice(0, 120)))
}"""

LETTERS = """() => {
    const least = innerWidth < 700 ? 9.99 : 10.99
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
    const small = []
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
        const at = node.parentElement
        if (!node.textContent.trim() || !at.checkVisibility({visibilityProperty: true})) continue
        if (['STYLE', 'SCRIPT', 'OPTION', 'TITLE'].includes(at.tagName)) continue
        let size = parseFloat(getComputedStyle(at).fontSize)
        if (at.ownerSVGElement) {
            const turned = at.getScreenCTM()
            size *= Math.hypot(turned.a, turned.b)
        }
        if (size < least) small.push([node.textContent.trim().slice(0, 30), size])
    }
    return small.slice(0, 5)
}"""

LABELS = """() => {
    const told = []
    for (const svg of document.querySelectorAll('svg')) {
        const names = [...svg.querySelectorAll('text')]
            .filter((each) => each.textContent.trim() && each.checkVisibility())
        const boxes = names.map((each) => each.getBoundingClientRect())
        boxes.forEach((a, i) => boxes.slice(i + 1).forEach((b, j) => {
            const wide = Math.min(a.right, b.right) - Math.max(a.left, b.left)
            const high = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top)
            if (wide > 1 && high > 2.5)
                told.push([names[i].textContent.trim(), names[i + 1 + j].textContent.trim()])
        }))
        const shown = getComputedStyle(svg).overflow === 'visible'
        const frame = shown ? {left: 0, right: innerWidth} : svg.getBoundingClientRect()
        names.forEach((each, i) => {
            if (boxes[i].right > frame.right + 1 || boxes[i].left < frame.left - 1)
                told.push(['cut off', each.textContent.trim()])
        })
    }
    return told.slice(0, 5)
}"""


# A stroke that is seen and runs through the middle of a label, unless a disc or a card drawn after
# it lies between the two.
ACROSS = """() => {
    const told = []
    const before = (one, other) =>
        one.compareDocumentPosition(other) & Node.DOCUMENT_POSITION_FOLLOWING
    const holds = (box, at) =>
        at.x > box.left && at.x < box.right && at.y > box.top && at.y < box.bottom
    for (const svg of document.querySelectorAll('svg')) {
        const labels = [...svg.querySelectorAll('text')]
            .filter((each) => each.textContent.trim() && each.checkVisibility())
            .map((name) => {
                const box = name.getBoundingClientRect(), high = box.height * 0.28
                const middle = {left: box.left + 2, right: box.right - 2,
                                top: box.top + high, bottom: box.bottom - high}
                const under = [...svg.querySelectorAll('circle, rect, polygon')].filter((shape) => {
                    const {fill, fillOpacity} = getComputedStyle(shape)
                    const isSolid = fill.startsWith('rgb(') && parseFloat(fillOpacity) > 0.9
                    return isSolid && before(shape, name)
                })
                return {name: name.textContent.trim(), middle, under}
            })
        if (!labels.length) continue
        for (const line of svg.querySelectorAll('line, path, polyline, polygon, circle, rect')) {
            const look = getComputedStyle(line)
            if (!look.stroke.startsWith('rgb(') || !parseFloat(look.strokeWidth)) continue
            if (parseFloat(look.strokeOpacity) * parseFloat(look.opacity) < 0.2) continue
            if (!line.checkVisibility({opacityProperty: true, visibilityProperty: true})) continue
            const turned = line.getScreenCTM(), long = line.getTotalLength()
            const pixels = long * Math.hypot(turned.a, turned.b)
            const many = Math.min(600, Math.max(2, Math.ceil(pixels / 3)))
            const crossed = new Set()
            for (let k = 0; k <= many; k++) {
                const at = line.getPointAtLength(long * k / many).matrixTransform(turned)
                for (const {name, middle, under} of labels)
                    if (holds(middle, at) && !under.some((shape) =>
                        before(line, shape) && holds(shape.getBoundingClientRect(), at)))
                        crossed.add(name)
            }
            for (const name of crossed) told.push([name, line.outerHTML.slice(0, 80)])
        }
    }
    return told.slice(0, 5)
}"""

WIDER = """() => Math.max(document.documentElement.scrollWidth - innerWidth, 0)"""


@pytest.mark.parametrize("width", WIDTHS)
def test_every_place_is_for_every_eye(looked_at, width):
    """Axe finds nothing serious, by daylight and by the lamp, which is how the phone is looked at;
    letters are large enough; no label lies on another, across a line or off the edge; nothing runs
    off the side, at twice the size neither."""
    asks = (SERIOUS, LETTERS, LABELS, ACROSS, WIDER)
    if width == "desk":
        told = looked_at(width, asks, by_lamp=(CONTRAST,), at_twice=(WIDER,))
    else:
        told = looked_at(width, asks, light="dark")
    assert not told, json.dumps(told, indent=1)


def test_in_inches_and_ounces_no_figure_is_metric(looked_at, demo_served):
    """Names of parts and sheets stay as they were given; all else is in the chosen units."""
    names = set()
    for plane in ("sandpiper", "night-heron", "avocet", "mayfly", "dunlin"):
        build = HTTP.get(f"{demo_served.url}/api/v1/builds/{plane}").json()["build"]
        given = [*build["parts"], *build["lots"], *build["loadouts"], *build["scales"]]
        names |= {each["name"] for each in given} | {build["notes"]}
        names |= {each["source"] for each in (*build["lots"], *build["targets"])}
        names |= {each["words"] for each in build["diary"]}
    for lot in HTTP.get(f"{demo_served.url}/api/v1/rack").json():
        names |= {lot["lot"]["name"], lot["lot"]["source"]}
    ask = r"""() => {
        const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
        const told = []
        for (let node = walker.nextNode(); node; node = walker.nextNode()) {
            const at = node.parentElement
            if (!at.checkVisibility({visibilityProperty: true})) continue
            if (['STYLE', 'SCRIPT', 'OPTION', 'TITLE'].includes(at.tagName)) continue
            const text = node.textContent.trim()
            if (/\d ?(mm|g|gf|dm[²2]|g\/dm[²2])(?!\w)/.test(text)) told.push(text)
        }
        return told
    }"""
    metric = re.compile(r"\d ?(mm|g|gf|dm[²2]|g/dm[²2])(?!\w)")
    left = []
    for place, texts in looked_at("desk", (ask,), units="imperial").items():
        for text in texts[0]:
            rest = text
            for name in sorted(filter(None, names), key=len, reverse=True):
                rest = re.sub(re.escape(name), "", rest, flags=re.IGNORECASE)
            if metric.search(rest):
                left.append((place, text))
    assert left == []
