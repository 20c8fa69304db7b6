import json
import os
import subprocess
from pathlib import Path

import pytest
import schemathesis
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, Phase, given, settings
from hypothesis.errors import Unsatisfiable
from schemathesis import GenerationMode
from schemathesis.checks import not_a_server_error
from schemathesis.specs.openapi.checks import response_schema_conformance

from docs import list_limits
from oaken_scale.api.app import create_app
from oaken_scale.demo.workshop import load_demo
from tests.http import HTTP

ROOT = Path(__file__).parents[2]
WEB = ROOT / "web"

FUZZED = int(os.environ.get("FUZZED", "5"))
"""Requests of each kind for each operation; more are sent where FUZZED says so."""

LOOKED_FOR_S = 0.2


@pytest.fixture(scope="module")
def app(tmp_path_factory):
    path = tmp_path_factory.mktemp("fuzz") / "demo.sqlite"
    load_demo(path)
    return create_app(path)


def test_the_openapi_document_in_the_pages_is_the_one_served(app):
    kept = json.loads((WEB / "src/api/openapi.json").read_text())
    assert kept == app.openapi(), "the API changed: run `make contract`"


def test_the_limits_in_the_pages_are_those_of_the_core():
    kept = list_limits.LIST.read_text()
    assert kept == list_limits.text(), "a limit changed: run `make contract`"


def test_the_typescript_types_are_made_from_it(tmp_path):
    made = tmp_path / "schema.d.ts"
    subprocess.run(
        [
            "npx",
            "--no-install",
            "openapi-typescript",
            "src/api/openapi.json",
            "-o",
            str(made),
            "--default-non-nullable=false",
        ],
        cwd=WEB,
        check=True,
        capture_output=True,
    )
    kept = (WEB / "src/api/schema.d.ts").read_text()
    assert made.read_text() == kept, "the types drifted: run `make contract`"


def test_every_operation_is_described(app):
    for path, operations in app.openapi()["paths"].items():
        for method, operation in operations.items():
            assert operation.get("description"), f"{method} {path}"
            assert {"200", "201", "204"} & set(operation["responses"]), f"{method} {path}"


def operations() -> list[str]:
    """Every operation but the event stream, which never ends."""
    paths = json.loads((WEB / "src/api/openapi.json").read_text())["paths"]
    return [f"{m.upper()} {p}" for p, at in paths.items() for m in at if not p.endswith("/events")]


@pytest.fixture(scope="module")
def described(demo_served):
    address = f"{demo_served.url}/api/v1/openapi.json"
    # Put together when it is asked for first, in seconds; the reader waits for ten of them at most.
    HTTP.get(address, timeout=120).raise_for_status()
    return schemathesis.openapi.from_url(address)


@pytest.mark.parametrize("mode", list(GenerationMode), ids=lambda mode: mode.value)
@pytest.mark.parametrize("operation", operations())
def test_no_request_is_answered_with_a_server_error(described, demo_served, operation, mode):
    method, path = operation.split()
    strategy = described[path][method].as_strategy(generation_mode=mode)
    answered = []

    @given(case=strategy)
    @settings(
        max_examples=FUZZED,
        deadline=None,
        database=None,
        derandomize=True,
        phases=[Phase.explicit, Phase.generate],
        suppress_health_check=list(HealthCheck),
    )
    def ask(case):
        if "build_id" in (case.path_parameters or {}) and len(answered) % 2:
            case.path_parameters["build_id"] = "sandpiper"
            if "If-Match" in (case.headers or {}):
                case.headers["If-Match"] = HTTP.get(
                    f"{demo_served.url}/api/v1/builds/sandpiper"
                ).headers["etag"]
        if isinstance(case.body, dict) and isinstance(case.body.get("seconds"), float):
            # Better ways may be looked for as long as is asked; the least of it will do.
            case.body["seconds"] = min(case.body["seconds"], LOOKED_FOR_S)
        answer = case.call(timeout=120)  # on a busy machine too, an answer is what is looked at
        answered.append(answer.status_code)
        case.validate_response(answer, checks=(not_a_server_error, response_schema_conformance))

    try:
        ask()
    except Unsatisfiable:
        pytest.skip("nothing can be wrong with this operation's input")
    assert answered


@pytest.mark.parametrize(
    "body",
    [b"", b"{", b"null", b'"\\ud800"', b"[1e999]", b"\xff", b'{"name": "\\u0000"}', b"[" * 5000],
)
@pytest.mark.parametrize("path", ["/api/v1/builds", "/api/v1/builds/import"])
def test_broken_json_is_refused_in_words(app, body, path):
    with TestClient(app) as client:
        answer = client.post(path, content=body, headers={"content-type": "application/json"})
    assert answer.status_code in (400, 422)
    assert answer.json()["faults"]
