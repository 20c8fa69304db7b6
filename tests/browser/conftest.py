import uuid
from dataclasses import replace

import pytest
from playwright.sync_api import expect

from oaken_scale.demo.sandpiper import sandpiper as a_sandpiper
from oaken_scale.demo.sandpiper import true_constants, true_masses
from oaken_scale.store.builds import add_build
from oaken_scale.store.database import Database
from oaken_scale.store.truth import write_truth
from tests.benches import MORNING
from tests.browser.every_place import looked_at  # noqa: F401

# Patience for a slow machine; what comes late is still checked for what it is.
expect.set_options(timeout=20_000)


@pytest.fixture
def sandpiper(demo_served) -> str:
    """The address of a Sandpiper of its own, as it lies in the demo."""
    id = f"sandpiper-{uuid.uuid4()}"
    store = Database(demo_served.database)
    with store.transaction() as connection:
        add_build(connection, replace(a_sandpiper(), id=id), MORNING)
        write_truth(connection, id, true_masses(), true_constants())
    store.close()
    return f"{demo_served.url}/build/{id}"


@pytest.fixture
def bench(page, sandpiper):
    """The bench of a Sandpiper of its own."""
    page.goto(f"{sandpiper}/bench")
    expect(page.locator("[data-part=motor]")).to_be_visible()
    expect(page.locator(".lamp .bulb")).to_be_visible()
    return page
