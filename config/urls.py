"""Addresses: the API, the accounts, and the page for everything else."""

from django.urls import include, path, re_path

from api.app import api
from api.page import page

urlpatterns = [
    path("api/", api.urls),
    path("_allauth/", include("allauth.headless.urls")),
    re_path(r"^(?!static/|api/|_allauth/).*$", page, name="page"),
]
