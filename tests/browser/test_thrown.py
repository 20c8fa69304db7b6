"""A plane without a motor, so light that tenths of a gram are told of it."""

from playwright.sync_api import expect


def test_a_thrown_plane_is_asked_for_no_thrust_no_pack_and_no_propeller(page, demo_served):
    page.goto(f"{demo_served.url}/build/dunlin/power")
    expect(page.locator("[data-rod=thrust_to_weight]")).to_contain_text("thrown: it has no motor")
    expect(page.get_by_text("It is thrown by hand")).to_be_visible()
    page.get_by_role("link", name="Balance").click()
    expect(page.get_by_text("Ballast must not be able to come loose")).to_be_visible()
    page.get_by_role("link", name="Field").click()
    expect(page.get_by_text("It balances", exact=True)).to_be_visible()
    expect(page.get_by_text("Pull at each: wing, tail, nose")).to_be_visible()
    page.get_by_role("link", name="Sheet").click()
    expect(page.get_by_text("thrown: it has no motor").first).to_be_visible()
    expect(page.locator("svg").get_by_text("Balance with everything taped")).to_be_visible()
    expect(page.locator("svg").get_by_text("Propeller off")).to_have_count(0)


def test_a_doubt_is_never_written_as_nothing(page, demo_served):
    """Fully weighed, it is known to tenths: each figure is as exact as its doubt lets it be."""
    page.goto(f"{demo_served.url}/build/dunlin/stock?on=budget")
    expect(page.locator("[data-rod=auw]")).to_contain_text("53.9 ±0.2 g")
    expect(page.locator("[data-rod=wing_loading]")).to_contain_text("7.69 ±0.03 g/dm²")
    so_far = page.get_by_role("region", name="So far")
    expect(so_far.get_by_role("heading")).to_contain_text("53.9 g of 53.9 g ±0.2")
    expect(so_far.get_by_role("row", name="Ballast")).to_contain_text("16.1 ±0.1")
