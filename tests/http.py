"""A server of ours is asked over plain HTTP: the world's certificates need not be read for that,
which takes longer than most answers, and a server that was killed is asked anew."""

import httpx

HTTP = httpx.Client(verify=False, limits=httpx.Limits(max_keepalive_connections=0))
