"""The application: the API, and the pages that it serves."""

import asyncio
import re
from collections.abc import AsyncIterator, Iterable
from contextlib import asynccontextmanager
from pathlib import Path
from typing import Any, Final

from fastapi import FastAPI, Response
from fastapi.responses import FileResponse, HTMLResponse
from fastapi.staticfiles import StaticFiles
from starlette.concurrency import run_in_threadpool
from starlette.middleware.gzip import GZipMiddleware
from starlette.types import ASGIApp, Receive, Scope, Send

from oaken_scale.api import (
    problems,
    routes_balance,
    routes_ballast,
    routes_begin,
    routes_bench,
    routes_budget,
    routes_builds,
    routes_buying,
    routes_cutting,
    routes_day,
    routes_door,
    routes_drawing,
    routes_field,
    routes_folds,
    routes_joints,
    routes_life,
    routes_power,
    routes_practice,
    routes_rack,
    routes_sheet,
    routes_stock,
    routes_tables,
    routes_targets,
    routes_undo,
    routes_workshop,
)
from oaken_scale.api.bench import REST_EVERY_S, Benches
from oaken_scale.api.body_limit import BodyLimit
from oaken_scale.api.door import LOOPBACK, Door
from oaken_scale.api.stand import Stands
from oaken_scale.formats import build_file, drawing, parts_list
from oaken_scale.formats.cutting_apart import Cutter
from oaken_scale.workshop import Workshop

PAGES: Final = Path(__file__).parent / "pages"
"""Where the built pages lie."""

LARGEST_BODY: Final = 1024 * 1024


class HashedFiles(StaticFiles):
    """Files whose names change with what is in them: they may be kept for ever."""

    def file_response(self, *args: Any, **kwargs: Any) -> Response:
        """The file, and that it never changes."""
        response = super().file_response(*args, **kwargs)
        response.headers["Cache-Control"] = "public, max-age=31536000, immutable"
        return response


class CompressedAnswers:
    """ASGI middleware: what is asked for goes out compressed, lightly; the answer to an act goes
    as it is, for it is waited for within a frame."""

    def __init__(self, app: ASGIApp) -> None:
        """In front of ``app``."""
        self.app = app
        self.compressed = GZipMiddleware(app, minimum_size=2000, compresslevel=1)

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass the request on."""
        reads = scope["type"] == "http" and scope["method"] == "GET"
        is_file = scope.get("path", "").startswith("/assets/")
        await (self.compressed if reads and not is_file else self.app)(scope, receive, send)


def create_app(
    database: Path,
    hosts: Iterable[str] = LOOPBACK,
    lan_hosts: Iterable[str] = (),
    pages: Path = PAGES,
) -> FastAPI:
    """The application over one database file, answering to some ``hosts`` only, and to
    ``lan_hosts`` for what comes through the door to the network.

    Raises DatabaseRefusedError when the file cannot be opened.
    """
    workshop = Workshop(database)
    benches = Benches(workshop)
    stands = Stands(workshop)

    @asynccontextmanager
    async def lifespan(_: FastAPI) -> AsyncIterator[None]:
        resting = asyncio.create_task(_rest(benches))
        yield
        resting.cancel()
        benches.close()
        stands.close()
        workshop.close()

    app = FastAPI(
        title="Oaken Scale",
        version="1",
        description="Weigh a foam board build, and know how it will fly. Masses g, lengths mm, "
        "areas dm2, thrust gf; x aft from the nose, y to starboard, z up.",
        lifespan=lifespan,
        openapi_url="/api/v1/openapi.json",
        docs_url=None,
        redoc_url=None,
    )
    app.state.workshop = workshop
    app.state.benches = benches
    app.state.stands = stands
    app.state.cutter = Cutter()
    app.state.network = None
    app.add_middleware(
        BodyLimit,
        limit=LARGEST_BODY,
        larger={
            "/api/v1/builds/import": build_file.LARGEST_BYTES,
            "/api/v1/outlines": drawing.LARGEST_BYTES,
            "/api/v1/outlines.pdf": drawing.LARGEST_BYTES,
            "/api/v1/parts-list": parts_list.LARGEST_BYTES,
            "/lists/": parts_list.LARGEST_BYTES,
        },
    )
    app.add_middleware(CompressedAnswers)
    app.add_middleware(Door, hosts=tuple(hosts), lan_hosts=tuple(lan_hosts), tells=_which(pages))
    problems.install(app)
    everything = (
        routes_workshop,
        routes_begin,
        routes_buying,
        routes_builds,
        routes_bench,
        routes_balance,
        routes_ballast,
        routes_joints,
        routes_life,
        routes_rack,
        routes_stock,
        routes_budget,
        routes_cutting,
        routes_day,
        routes_folds,
        routes_power,
        routes_field,
        routes_practice,
        routes_undo,
        routes_drawing,
        routes_sheet,
        routes_tables,
        routes_targets,
        routes_door,
    )
    for routes in everything:
        # As they are: an application that includes them would declare each of them a second time,
        # when it is asked first.
        app.router.routes.extend(routes.router.routes)
    _serve_pages(app, pages)
    return app


async def _rest(benches: Benches) -> None:
    """Let go of what nobody looks at, for as long as the workshop is served."""
    while True:
        await asyncio.sleep(REST_EVERY_S)
        await run_in_threadpool(benches.rest)


def _which(pages: Path) -> dict[str, str]:
    """Which pages these are, as every answer says: by the script that they begin with, whose name
    changes with what is in it."""
    try:
        found = re.search(r'src="/assets/([^"]+\.js)"', (pages / "index.html").read_text("utf-8"))
    except OSError:
        return {}
    return {"Oaken-Pages": found[1]} if found else {}


def _serve_pages(app: FastAPI, pages: Path) -> None:
    """Serve the built pages; any path that is no file and no API is the one page."""
    if (pages / "assets").is_dir():
        assets = GZipMiddleware(HashedFiles(directory=pages / "assets"), minimum_size=1000)
        app.mount("/assets", assets)

    @app.get("/{path:path}", include_in_schema=False)
    def page(path: str) -> Response:
        if path.startswith("api/"):
            raise problems.no_such("address", f"/{path}")
        if (pages / "index.html").is_file():
            named = pages / path
            if path and "/" not in path and named.is_file():
                return FileResponse(named)
            return FileResponse(pages / "index.html", headers={"Cache-Control": "no-cache"})
        return HTMLResponse("The pages are not built yet; run: make build", 503)
