"""Messages of the core in requests and answers: rendered for who asks, a string for who reads the contract."""

from collections.abc import Callable
from typing import Any

import orjson
from django.http import HttpRequest, HttpResponse
from pydantic_core import core_schema

from substrata.base import Message, Reader, reading, words_of


def json_bytes(answer: Any) -> bytes:
    """Return the core's records as JSON, messages in the words of the current reader."""
    return orjson.dumps(answer, default=words_of, option=orjson.OPT_SERIALIZE_NUMPY)


def for_reader(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Let no request read in the units of the one before it; the kitchen of its path sets its own."""

    def requested(request: HttpRequest) -> HttpResponse:
        with reading(Reader()):
            return get_response(request)

    return requested


def _schema(_source: Any, _handler: Any) -> core_schema.CoreSchema:
    """Return how pydantic treats a message: as a string, rendered when it is written."""
    return core_schema.no_info_after_validator_function(
        lambda value: value,
        core_schema.union_schema([core_schema.is_instance_schema(Message), core_schema.str_schema()]),
        serialization=core_schema.plain_serializer_function_ser_schema(str, return_schema=core_schema.str_schema()),
    )


def _json_schema(_schema: Any, handler: Any) -> dict[str, Any]:
    """Return what the contract says of a message."""
    written: dict[str, Any] = handler(core_schema.str_schema())
    return written


# The core does not know pydantic: what it needs to know of a message is told here, before a model is made.
Message.__get_pydantic_core_schema__ = staticmethod(_schema)  # type: ignore[attr-defined]
Message.__get_pydantic_json_schema__ = staticmethod(_json_schema)  # type: ignore[attr-defined]
