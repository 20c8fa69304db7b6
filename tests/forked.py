"""Read by the process that servers are forked from, and by nothing else: all that a server reads,
and then nobody looks through it again for what could be let go of."""

import gc

import anyio._backends._asyncio  # noqa: F401
import uvicorn.lifespan.on
import uvicorn.loops.auto
import uvicorn.protocols.http.auto  # noqa: F401

import oaken_scale.cli  # noqa: F401

gc.collect()
gc.freeze()
