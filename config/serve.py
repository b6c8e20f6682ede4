"""The server: ``python -m config.serve --port N``, or with ``--socket`` on a listening socket that it was given as its standard input.

A loop reads requests and writes answers, however slowly they come and go; a thread is taken only by a whole request. So half-sent
requests hold nobody up, with or without a proxy in front. Several processes may share one socket.
"""

import argparse
import signal
import socket
import sys

import waitress
from django.db import connections

from config.memory import keep_what_stands
from config.wsgi import application

THREADS = 16
CONNECTIONS = 500
STATEMENT_S = 20.0  # the longest question to the database
LOCK_S = 10.0  # and the longest wait for somebody who writes the same
QUIET_S = 30  # a connection that has neither sent nor taken anything for so long is closed
MOST_BYTES = 27_000_000  # a photo and the form around it; smaller limits are the application's


def bound_waiting(statement_s: float = STATEMENT_S, lock_s: float = LOCK_S) -> None:
    """Let no request of this process wait for the database without end: what takes longer is refused, and may be tried again.

    Sums are bounded by what they are asked for (``api/heavy.py``); workers and migrations may take their time.
    """
    milliseconds = {"statement_timeout": statement_s * 1000, "lock_timeout": lock_s * 1000}
    options = connections.settings["default"]["OPTIONS"]
    options["options"] = " ".join(f"-c {name}={value:.0f}" for name, value in milliseconds.items())


def main() -> None:
    """Serve until told to stop."""
    parser = argparse.ArgumentParser(description=__doc__.partition("\n")[0])
    where = parser.add_mutually_exclusive_group(required=True)
    where.add_argument("--port", type=int)
    where.add_argument("--socket", action="store_true")
    parser.add_argument("--host", default="127.0.0.1")
    options = parser.parse_args()
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))  # ends the loop; what is being answered is finished
    from substrata import load_library
    from substrata.evaluation import warm_in_background

    bound_waiting()
    load_library()
    keep_what_stands()
    warm_in_background()
    at = (
        {"sockets": [socket.socket(fileno=sys.stdin.fileno())]}
        if options.socket
        else {"listen": f"{options.host}:{options.port}"}
    )
    waitress.serve(
        application,
        **at,
        threads=THREADS,
        connection_limit=CONNECTIONS,
        channel_timeout=QUIET_S,
        cleanup_interval=5,
        asyncore_use_poll=True,
        max_request_body_size=MOST_BYTES,
        log_socket_errors=False,
        ident=None,
        # How many proxies are to be believed is a setting of the application, which reads the headers itself.
        clear_untrusted_proxy_headers=False,
    )


if __name__ == "__main__":
    main()
