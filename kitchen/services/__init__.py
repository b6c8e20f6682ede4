"""Use cases: each function checks permission, validates, writes in one transaction and leaves an audit row."""
