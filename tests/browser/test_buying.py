"""What is to be bought, as a builder writes it down: with no plane, and with freight."""

from playwright.sync_api import expect


def put(page, label, text):
    field = page.get_by_label(label, exact=True)
    field.fill(text)
    field.press("Enter")


def test_where_it_costs_least_and_when_freight_is_worth_it(page, demo_served):
    page.goto(demo_served.url)
    page.get_by_role("link", name="To buy").click()
    page.get_by_label("something to buy").fill("Charger")
    page.keyboard.press("Enter")
    orders = page.get_by_role("region", name="Orders")
    expect(orders).to_contain_text("Without a price")
    put(page, "Charger, shop 1", "near")
    put(page, "Charger, price 1", "39")
    put(page, "Charger, shop 2", "by post")
    put(page, "Charger, price 2", "31")
    put(page, "Charger, days 2", "9")
    expect(orders).to_contain_text("by post, there in 9 days")
    put(page, "Freight of by post", "12")
    expect(orders).to_contain_text("Charger: from 2 on, by post is worth its freight against near.")
    put(page, "How many of Charger", "2")
    expect(orders).to_contain_text("2 × Charger")
    expect(orders).to_contain_text("62.00")
    page.get_by_label("Charger is there").check()
    expect(orders).not_to_contain_text("Charger")
    page.get_by_role("button", name="Take Charger off the list").click()
    expect(page.get_by_label("Name of Charger")).to_have_count(0)
    page.get_by_role("button", name="bring it back").click()
    expect(page.get_by_label("Name of Charger")).to_have_count(1)
    page.get_by_role("button", name="Take Charger off the list").click()
