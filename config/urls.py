"""Addresses: the API, the accounts, and the page for everything else."""

from typing import Any

from allauth.headless.account import views
from allauth.headless.constants import Client
from allauth.headless.mfa import views as second_factor
from allauth.headless.usersessions import views as sessions
from django.urls import URLPattern, include, path, re_path

from api import health
from api.app import api
from api.page import bench_worker, page
from api.routers.plans import calendar_feed
from api.routers.recipes import shared_card

# Of the accounts library only what the page asks for.
_IN_BROWSER = {"client": Client.BROWSER}


def _mounted(address: str, view: Any, name: str) -> URLPattern:
    pattern: URLPattern = path(address, view.as_api_view(**_IN_BROWSER), name=name)
    return pattern


_ACCOUNTS = (
    [
        _mounted("auth/signup", views.SignupView, "signup"),
        _mounted("auth/login", views.LoginView, "login"),
        _mounted("auth/session", views.SessionView, "current_session"),
        _mounted("auth/reauthenticate", views.ReauthenticateView, "reauthenticate"),
        _mounted("auth/email/verify", views.VerifyEmailView, "verify_email"),
        _mounted("auth/email/verify/resend", views.ResendEmailVerificationCodeView, "resend_email_verification_code"),
        _mounted("auth/password/request", views.RequestPasswordResetView, "request_password_reset"),
        _mounted("auth/password/reset", views.ResetPasswordView, "reset_password"),
        _mounted("account/password/change", views.ChangePasswordView, "change_password"),
        _mounted("account/email", views.ManageEmailView, "manage_email"),
    ],
    "account",
)
_SECOND_FACTOR = (
    [
        _mounted("auth/2fa/authenticate", second_factor.AuthenticateView, "authenticate"),
        _mounted("auth/2fa/reauthenticate", second_factor.ReauthenticateView, "reauthenticate"),
        _mounted("auth/webauthn/login", second_factor.LoginWebAuthnView, "login_webauthn"),
        _mounted("auth/webauthn/authenticate", second_factor.AuthenticateWebAuthnView, "authenticate_webauthn"),
        _mounted("auth/webauthn/reauthenticate", second_factor.ReauthenticateWebAuthnView, "reauthenticate_webauthn"),
        _mounted("account/authenticators", second_factor.AuthenticatorsView, "authenticators"),
        _mounted("account/authenticators/totp", second_factor.ManageTOTPView, "manage_totp"),
        _mounted(
            "account/authenticators/recovery-codes", second_factor.ManageRecoveryCodesView, "manage_recovery_codes"
        ),
        _mounted("account/authenticators/webauthn", second_factor.ManageWebAuthnView, "manage_webauthn"),
    ],
    "mfa",
)
_SESSIONS = ([_mounted("auth/sessions", sessions.SessionsView, "sessions")], "usersessions")
_BROWSER = (
    [path("v1/", include(_ACCOUNTS)), path("v1/", include(_SECOND_FACTOR)), path("v1/", include(_SESSIONS))],
    "browser",
)

handler500 = "api.problems.failed"
urlpatterns = [
    path("api/", api.urls),
    path("health/live", health.live, name="live"),
    path("health/ready", health.ready, name="ready"),
    path("metrics", health.metrics, name="metrics"),
    path("feed/<str:key>.ics", calendar_feed, name="calendar_feed"),
    path("shared/<str:key>", shared_card, name="shared_card"),
    path("bench-worker.js", bench_worker, name="bench_worker"),
    path("_allauth/", include(([path("browser/", include(_BROWSER))], "headless"))),
    re_path(r"^(?!static/|api/|_allauth/|health/|metrics$).*$", page, name="page"),
]
