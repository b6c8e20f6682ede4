"""``python -m substrata``."""

from substrata.cli import main

raise SystemExit(main())
