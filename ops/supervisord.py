"""The supervisor, looking around ten times a second: by itself it lets a second pass before it starts again what has ended."""

import sys

from supervisor import poller, supervisord

_LOOK_S = 0.1


class _Prompt(poller.Poller):  # type: ignore[misc]  # the library tells no types
    """Waits for news no longer than that."""

    def poll(self, timeout: float) -> tuple[list[int], list[int]]:
        """Return what can be read, and what written."""
        found: tuple[list[int], list[int]] = super().poll(min(timeout, _LOOK_S))
        return found


if __name__ == "__main__":
    poller.Poller = _Prompt
    sys.exit(supervisord.main())
