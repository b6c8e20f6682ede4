"""The Django app."""

from django.apps import AppConfig


class KitchenConfig(AppConfig):
    """Connects sign-up to the first kitchen."""

    name = "kitchen"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Listen to sign-ups."""
        from kitchen import signals  # noqa: F401 - connects on import
        from kitchen.accounts import notices  # noqa: F401
