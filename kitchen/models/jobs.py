"""Work that takes longer than a request: asked for, done in the background, looked at, stopped."""

from django.contrib.auth.models import User
from django.db import models

from kitchen.models.kitchens import Kitchen


class Job(models.Model):
    """One piece of background work of a kitchen. What it is and does hangs on its kind alone."""

    class State(models.TextChoices):
        """Where it stands."""

        WAITING = "waiting", "waiting"
        RUNNING = "running", "running"
        DONE = "done", "done"
        FAILED = "failed", "failed"
        STOPPED = "stopped", "stopped"

    UNDER_WAY = (State.WAITING, State.RUNNING)

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="jobs")
    kind = models.CharField(max_length=40)
    input = models.JSONField(default=dict)
    state = models.CharField(max_length=10, choices=State, default=State.WAITING)
    stop_asked = models.BooleanField(default=False)
    total = models.PositiveIntegerField(default=0)
    done = models.PositiveIntegerField(default=0)
    tries = models.PositiveSmallIntegerField(default=0)  # how often a worker has begun it
    result = models.JSONField(null=True)
    problem = models.JSONField(null=True)  # why it failed: what, got, allowed, remedy
    created_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    created_at = models.DateTimeField(auto_now_add=True)
    kept_until = models.DateTimeField()

    class Meta:
        ordering = ["-created_at", "-pk"]
        indexes = [models.Index(fields=["kitchen", "-created_at"], name="jobs_of_a_kitchen")]

    def __str__(self) -> str:
        return f"{self.kind} {self.pk}: {self.state}"
