"""From where the present request comes, for the history."""

from contextvars import ContextVar

client: ContextVar[str] = ContextVar("client", default="")
