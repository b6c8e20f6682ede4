"""Measurements run by hand or by ``./check --bench``. They print figures and decide nothing."""
