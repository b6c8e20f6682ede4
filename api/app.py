"""The API object: routers, rendering, errors."""

from typing import Any

import orjson
from django.http import HttpRequest
from ninja import NinjaAPI
from ninja.renderers import BaseRenderer
from ninja.security import django_auth

from api.errors import connect
from api.routers import formula, kitchens, pantry


class OrjsonRenderer(BaseRenderer):
    """JSON by orjson, which also writes the core's dataclasses and numpy numbers."""

    media_type = "application/json"

    def render(self, request: HttpRequest, data: Any, *, response_status: int) -> bytes:
        """Write the data as JSON."""
        return orjson.dumps(data, option=orjson.OPT_SERIALIZE_NUMPY)


api = NinjaAPI(title="Substrata", version="1", renderer=OrjsonRenderer(), auth=django_auth, docs_url=None)
connect(api)
api.add_router("", kitchens.router)
api.add_router("", pantry.router)
api.add_router("", formula.router)
