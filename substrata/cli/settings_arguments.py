"""A kitchen's choices as arguments: a settings document, and single choices that overrule it."""

from __future__ import annotations

import argparse
from dataclasses import replace

from substrata.base import Settings, read_settings, setting_options
from substrata.cli.document_files import document_of

_SINGLE = {"convention": "net-carb convention", "spoons": "which cup and spoons a volume means"}


def add_settings_arguments(parser: argparse.ArgumentParser) -> None:
    """Add ``--settings FILE`` and the choices that are made most often."""
    parser.add_argument("--settings", help="a kitchen's choices (docs/formats/settings.schema.json)")
    for name, words in _SINGLE.items():
        parser.add_argument(f"--{name}", choices=setting_options()[name], help=words)


def settings_of(options: argparse.Namespace) -> Settings:
    """Return the settings that the arguments choose.

    Raises:
        FormulaError: when the settings document cannot be read.
    """
    base = read_settings(document_of(options.settings, "settings")) if options.settings else Settings()
    return replace(base, **{name: getattr(options, name) for name in _SINGLE if getattr(options, name)})
