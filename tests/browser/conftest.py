import uuid
from dataclasses import replace

import pytest
from playwright.sync_api import expect

from oaken_scale.demo.sandpiper import sandpiper, true_constants, true_masses
from oaken_scale.store.builds import add_build
from oaken_scale.store.database import Database
from oaken_scale.store.truth import write_truth
from tests.benches import MORNING

# Patience for a slow machine; what comes late is still checked for what it is.
expect.set_options(timeout=20_000)


@pytest.fixture
def bench(page, demo_served):
    """The bench of a Sandpiper of its own, as it lies in the demo."""
    id = f"sandpiper-{uuid.uuid4()}"
    store = Database(demo_served.database)
    with store.transaction() as connection:
        add_build(connection, replace(sandpiper(), id=id), MORNING)
        write_truth(connection, id, true_masses(), true_constants())
    store.close()
    page.goto(f"{demo_served.url}/build/{id}/bench")
    expect(page.locator("[data-item=motor]")).to_be_visible()
    expect(page.locator(".lamp .bulb")).to_be_visible()
    return page
