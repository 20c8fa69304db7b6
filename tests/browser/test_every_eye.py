"""For every eye: each place in both widths and themes; axe, letters, labels, edges."""

import json

import pytest

from tests.browser.every_place import WIDTHS

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
