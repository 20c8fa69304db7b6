"""The bench: the pan, the readings, and the stream that keeps every page up to date."""

import asyncio
import json
from collections.abc import AsyncIterator
from typing import Annotated, Any, Final

from fastapi import APIRouter, Depends, Query, Request, Response
from pydantic import TypeAdapter
from sse_starlette import EventSourceResponse, ServerSentEvent

from oaken_scale.api.bench import Benches, PanState, Shown
from oaken_scale.api.documents import (
    DOUBT,
    FORECAST,
    PAN_STATE,
    RECORDED,
    Accepting,
    Correcting,
    NewPan,
    NewWeighing,
    Opened,
    Recorded,
    SettingAside,
    SeveralAside,
)
from oaken_scale.api.problems import documented
from oaken_scale.api.routes_builds import BuildId, Named, Shop, sharing, told
from oaken_scale.api.stand import Stands, StandShown
from oaken_scale.core.flight.centre_of_gravity import stations
from oaken_scale.core.flight.forecast import Point, narrowing
from oaken_scale.core.geometry.wing import wing_figures
from oaken_scale.core.ledger.mixture import suspect
from oaken_scale.core.ledger.outliers import Doubt
from oaken_scale.core.model import declared, limits
from oaken_scale.core.model.weighing import Pan
from oaken_scale.workshop.sharing import shares

router = APIRouter(prefix="/api/v1/builds/{build_id}", tags=["bench"])

FRAMES_PER_S = 12
"""How often a simulated scale's display is sent on."""


async def benches(request: Request) -> Benches:
    """The pans that the application serves."""
    served: Benches = request.app.state.benches
    return served


Pans = Annotated[Benches, Depends(benches)]


def shown(state: PanState) -> Response:
    """The state of a pan."""
    return Response(PAN_STATE.dump_json(state), media_type="application/json")


@router.post("/weighings", response_model=Recorded, status_code=201, responses=documented(404, 409))
def record(build_id: BuildId, new: NewWeighing, shop: Shop, pans: Pans) -> Response:
    """Record a reading; it is on disk before this answers. Then the pan is cleared, unless
    something else was put on it meanwhile.

    Sent again under its id, it is answered as the first time (200) and recorded once.
    """
    kept = shop.readings.record(build_id, new.value())
    if kept.is_new:
        pans.recorded(build_id, kept.weighing.pan)
    revision, assessment = kept.held.revision, kept.held.assessment
    body = RECORDED.dump_json(Recorded(revision, kept.weighing, kept.moved, assessment))
    headers = {"ETag": f'"{revision}"'}
    status = 201 if kept.is_new else 200
    after = sharing(shop, build_id) if shares(kept.held.build) else None
    return Response(body, status, headers, "application/json", background=after)


@router.put("/weighings/{weighing_id}/set-aside", response_model=Opened, responses=documented(404))
def set_aside(build_id: BuildId, weighing_id: Named, setting: SettingAside, shop: Shop) -> Response:
    """Set a reading aside, with a reason, or take it back in. It stays in the log."""
    held = shop.readings.set_aside(build_id, (weighing_id,), setting.reason, setting.restore)
    return told(held, after=sharing(shop, build_id))


@router.put("/weighings/set-aside", response_model=Opened, responses=documented(404))
def set_several_aside(build_id: BuildId, setting: SeveralAside, shop: Shop) -> Response:
    """Set readings aside for one reason, or take them back in: all of them, or none."""
    held = shop.readings.set_aside(build_id, setting.weighings, setting.reason)
    return told(held, after=sharing(shop, build_id))


@router.put("/weighings/{weighing_id}/accepted", response_model=Opened, responses=documented(404))
def accept(build_id: BuildId, weighing_id: Named, accepting: Accepting, shop: Shop) -> Response:
    """Accept a doubtful reading as it is, or doubt it again."""
    return told(shop.readings.accept(build_id, weighing_id, accepting.accepted))


@router.post(
    "/weighings/{weighing_id}/correction",
    response_model=Opened,
    status_code=201,
    responses=documented(404, 409),
)
def correct(build_id: BuildId, weighing_id: Named, correcting: Correcting, shop: Shop) -> Response:
    """Put a reading right: a new row takes its place and says why; it stays in the log, aside."""
    wrong = shop.readings.one(build_id, weighing_id)
    held = shop.readings.correct(build_id, wrong, correcting.value(wrong), correcting.reason)
    return told(held, 201, after=sharing(shop, build_id))


@router.get("/pan/doubt", response_model=Doubt | None, responses=documented(404))
def doubt_on_the_pan(
    build_id: BuildId,
    reading_g: Annotated[float, Query(gt=0, le=limits.READING_G, allow_inf_nan=False)],
    shop: Shop,
    pans: Pans,
) -> Response:
    """What speaks against a reading while it is still on the pan; null when nothing does."""
    state = pans.state(build_id)
    build = shop.held(build_id).build
    found = None
    if state.loads != Pan() and build.scales:
        found = suspect(build, state.loads, state.scale, reading_g)
    return Response(DOUBT.dump_json(found), media_type="application/json")


@router.get("/forecast", response_model=tuple[Point, ...], responses=documented(404))
def forecast(
    build_id: BuildId,
    shop: Shop,
    loadout: Annotated[str | None, Query(pattern=declared.ID)] = None,
) -> Response:
    """How all-up weight and balance narrowed, reading by reading."""
    build = shop.held(build_id).build
    chosen = next((each for each in build.loadouts if each.id == loadout), None)
    chosen = chosen or next(iter(build.loadouts), None)
    points = narrowing(build, chosen, stations(build, wing_figures(build.surfaces)))
    return Response(FORECAST.dump_json(points), media_type="application/json")


@router.get("/pan", response_model=PanState, responses=documented(404))
def on_the_pan(build_id: BuildId, pans: Pans) -> Response:
    """What is on the pan, and what it should read."""
    return shown(pans.state(build_id))


@router.put("/pan", response_model=PanState, responses=documented(404))
def put_on_the_pan(build_id: BuildId, pan: NewPan, pans: Pans) -> Response:
    """Have exactly this on the pan, besides what was tared away."""
    return shown(pans.put(build_id, pan.value(), pan.scale))


@router.post("/tare", response_model=PanState, responses=documented(404))
def tare(build_id: BuildId, pans: Pans) -> Response:
    """Zero the scale with what is on it."""
    return shown(pans.tare(build_id))


@router.post("/clear", response_model=PanState, responses=documented(404))
def clear(build_id: BuildId, pans: Pans) -> Response:
    """Take everything off the pan and zero the scale."""
    return shown(pans.clear(build_id))


@router.get(
    "/events",
    response_class=EventSourceResponse,
    responses={
        200: {"content": {"text/event-stream": {"schema": {"type": "string"}}}},
        **documented(404),
    },
)
async def events(
    build_id: BuildId, shop: Shop, pans: Pans, request: Request
) -> EventSourceResponse:
    """What happens to a build: ``changed``, ``pan``, ``scale`` for one that is read, and ``stand``
    while the thrust stand is on."""
    shop.held(build_id)
    stands: Stands = request.app.state.stands
    return EventSourceResponse(_events(build_id, shop, pans, stands), ping=20)


def _display(shows: Shown) -> str:
    """What the scale shows, as its event tells it."""
    line = shows.line
    state = "gone" if line.gone else "over" if line.over else "steady"
    if state == "steady" and not line.steady:
        state = "moving"
    told = {
        "reading_g": line.reading_g,
        "state": state,
        "turn": shows.turn,
        "astray": shows.astray,
    }
    return json.dumps(told, separators=(",", ":"))


STAND_SHOWN: Final = TypeAdapter(StandShown)


async def _events(
    build_id: str, shop: Any, pans: Benches, stands: Stands
) -> AsyncIterator[ServerSentEvent]:
    last = {"scale": "", "stand": ""}
    with shop.broadcast.listening(build_id) as page:
        yield ServerSentEvent(
            event="changed", data=f'{{"revision":{shop.held(build_id).revision}}}'
        )
        yield ServerSentEvent(event="pan", data=PAN_STATE.dump_json(pans.state(build_id)).decode())
        while True:
            try:
                event, data = await asyncio.wait_for(page.get(), 1 / FRAMES_PER_S)
                text = (
                    PAN_STATE.dump_json(data).decode()
                    if event == "pan"
                    else f'{{"revision":{data["revision"]}}}'
                )
                yield ServerSentEvent(event=event, data=text)
            except TimeoutError:
                shows = pans.line(build_id)
                text = "" if shows is None else _display(shows)
                if text and text != last["scale"]:
                    last["scale"] = text
                    yield ServerSentEvent(event="scale", data=text)
                on_stand = stands.shown(build_id)
                text = "" if on_stand is None else STAND_SHOWN.dump_json(on_stand).decode()
                if text and text != last["stand"]:
                    last["stand"] = text
                    yield ServerSentEvent(event="stand", data=text)
