"""The HTTP contract: thin endpoints that look up, call a service and return."""
