"""Bring the database up to date and load the demo kitchen: one call for ``./start``."""

from argparse import ArgumentParser
from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand

from kitchen.demo.load import load_demo, remove_demo
from kitchen.models import Kitchen
from kitchen.queue import defer_refresh
from kitchen.services.jobs import take_up_stalled
from kitchen.services.trials import learn_by_this_science


class Command(BaseCommand):
    """Migrate, make the cache table, load the demo, ask for fresh thumbs, for learning anew, and for what was under way."""

    help = __doc__ or ""
    requires_system_checks = ()  # the tests run them; here they would only cost the start two seconds

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Options of ``./start``."""
        parser.add_argument("--no-demo", action="store_true")
        parser.add_argument("--reset-demo", action="store_true")

    def handle(self, *, no_demo: bool, reset_demo: bool, **_: Any) -> None:
        """Do it."""
        call_command("migrate", interactive=False, verbosity=0)
        call_command("createcachetable", verbosity=0)
        if reset_demo:
            remove_demo()
        if reset_demo or not (no_demo or Kitchen.objects.exists()):
            load_demo()
            self.stdout.write("· demo kitchen loaded")
        learn_by_this_science()
        take_up_stalled()
        defer_refresh()
