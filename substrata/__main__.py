"""``python -m substrata``."""

from substrata.cli.main import main

raise SystemExit(main())
