"""Addresses: the API, the accounts, and the page for everything else."""

from allauth.headless.account import views
from allauth.headless.constants import Client
from django.urls import include, path, re_path

from api.app import api
from api.page import bench_worker, page
from api.routers.plans import calendar_feed
from api.routers.recipes import shared_card

# Of the accounts library only what the page asks for. Its other addresses let a person put a stranger's e-mail address on
# their own account, which nothing here verifies.
_IN_BROWSER = {"client": Client.BROWSER}
_ACCOUNTS = (
    [
        path("auth/signup", views.SignupView.as_api_view(**_IN_BROWSER), name="signup"),
        path("auth/login", views.LoginView.as_api_view(**_IN_BROWSER), name="login"),
        path("auth/session", views.SessionView.as_api_view(**_IN_BROWSER), name="current_session"),
        path("account/password/change", views.ChangePasswordView.as_api_view(**_IN_BROWSER), name="change_password"),
    ],
    "account",
)
_BROWSER = ([path("v1/", include(_ACCOUNTS))], "browser")

urlpatterns = [
    path("api/", api.urls),
    path("feed/<str:key>.ics", calendar_feed, name="calendar_feed"),
    path("shared/<str:key>", shared_card, name="shared_card"),
    path("bench-worker.js", bench_worker, name="bench_worker"),
    path("_allauth/", include(([path("browser/", include(_BROWSER))], "headless"))),
    re_path(r"^(?!static/|api/|_allauth/).*$", page, name="page"),
]
