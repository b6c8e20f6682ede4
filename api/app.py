"""The API object: routers, rendering, errors."""

from typing import Any

import orjson
from django.http import HttpRequest
from ninja import NinjaAPI
from ninja.parser import Parser
from ninja.renderers import BaseRenderer
from ninja.security import django_auth

from api.errors import connect
from api.messages import json_bytes
from api.plain_text import has_nul
from api.routers import (
    accounts,
    balance,
    card,
    files,
    formula,
    jobs,
    kitchens,
    oven,
    pantry,
    plans,
    prep,
    recipes,
    runs,
)
from kitchen.errors import Refused


class OrjsonParser(Parser):
    """JSON by orjson, which refuses half characters that could not be written again."""

    def parse_body(self, request: HttpRequest) -> Any:
        """Read the body.

        Returns:
            The parsed JSON.

        Raises:
            Refused: when it holds a NUL.
        """
        body = orjson.loads(request.body)
        # Looked for only where it can be: most bodies hold no escaped character at all.
        if b"\\u0000" in request.body and has_nul(body):
            raise Refused(
                "the text contains a character that cannot be saved", got="NUL", remedy="remove it and try again"
            )
        return body


class OrjsonRenderer(BaseRenderer):
    """JSON by orjson, which also writes the core's dataclasses and numpy numbers."""

    media_type = "application/json"

    def render(self, request: HttpRequest, data: Any, *, response_status: int) -> bytes:
        """Write the data as JSON."""
        return json_bytes(data)


api = NinjaAPI(
    title="Substrata", version="1", renderer=OrjsonRenderer(), parser=OrjsonParser(), auth=django_auth, docs_url=None
)
connect(api)
api.add_router("", kitchens.router)
api.add_router("", accounts.router)
api.add_router("", pantry.router)
api.add_router("", formula.router)
api.add_router("", files.router)
api.add_router("", balance.router)
api.add_router("", prep.router)
api.add_router("", oven.router)
api.add_router("", card.router)
api.add_router("", runs.router)
api.add_router("", plans.router)
api.add_router("", recipes.router)
api.add_router("", jobs.router)
