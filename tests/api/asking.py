"""Short ways to ask the API for what the tests need."""

import asyncio
from collections.abc import Coroutine
from concurrent.futures import ThreadPoolExecutor
from typing import Any

from httpx import Response


def apart(work: Coroutine[Any, Any, Any]) -> Any:
    """What a coroutine comes to, in a loop of its own: a browser's may run in this thread."""
    with ThreadPoolExecutor(1) as thread:
        return thread.submit(asyncio.run, work).result()


def begin(client, **more: Any) -> dict:
    """Begin a build."""
    answer = client.post("/api/v1/builds", json={"name": "Curlew", **more})
    assert answer.status_code == 201, answer.text
    return answer.json()


def change(client, told: dict, **patch: Any) -> dict:
    """Change a build at the revision it was told at."""
    answer = client.patch(
        f"/api/v1/builds/{told['build']['id']}",
        json=patch,
        headers={"If-Match": f'"{told["revision"]}"'},
    )
    assert answer.status_code == 200, answer.text
    return answer.json()


def part(client, told: dict, **fields: Any) -> dict:
    """Add a part."""
    answer = client.post(
        f"/api/v1/builds/{told['build']['id']}/parts",
        json={"pedigree": "guess", **fields},
        headers={"If-Match": f'"{told["revision"]}"'},
    )
    assert answer.status_code == 201, answer.text
    return answer.json()


def reading(id: str, grams: float, **pan: float) -> dict:
    """A reading of parts, by id with their counts, on the demo's scale."""
    loads = [{"part": name.replace("_", "-"), "count": count} for name, count in pan.items()]
    return {"id": id, "scale": "kitchen", "reading_g": grams, "pan": {"loads": loads}}


def problem(answer: Response, field: str, says: str) -> bool:
    """Whether an answer is a problem document that names a field and says what is right."""
    assert 400 <= answer.status_code < 500, answer.text
    assert answer.headers["content-type"] == "application/problem+json"
    faults = {fault["field"]: fault["words"] for fault in answer.json()["faults"]}
    assert field in faults, faults
    assert says in faults[field], faults[field]
    return True
