"""Django settings. Everything that differs between machines comes from the environment."""

import os
from pathlib import Path

from csp.constants import NONCE

BASE_DIR = Path(__file__).resolve().parent.parent
LOCAL = Path(os.environ.get("SUBSTRATA_LOCAL", BASE_DIR / ".local"))
DEBUG = os.environ.get("SUBSTRATA_DEBUG") == "1"
HTTPS = os.environ.get("SUBSTRATA_HTTPS") == "1"


def _secret_key() -> str:
    """Return the key from the environment, or one made once for this machine."""
    from django.core.management.utils import get_random_secret_key

    secret = os.environ.get("SUBSTRATA_SECRET_KEY")
    if secret:
        return secret
    file = LOCAL / "secret_key"
    if not file.exists():
        LOCAL.mkdir(parents=True, exist_ok=True)
        file.touch(mode=0o600)
        file.write_text(get_random_secret_key() + get_random_secret_key(), encoding="ascii")
    return file.read_text(encoding="ascii")


SECRET_KEY = _secret_key()
ALLOWED_HOSTS = os.environ.get("SUBSTRATA_HOSTS", "localhost,127.0.0.1,[::1]").split(",")
CSRF_TRUSTED_ORIGINS = [o for o in os.environ.get("SUBSTRATA_ORIGINS", "").split(",") if o]

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "django.contrib.postgres",
    "allauth",
    "allauth.account",
    "allauth.headless",
    "allauth.mfa",
    "allauth.usersessions",
    "csp",
    "ninja",
    "procrastinate.contrib.django",
    "kitchen",
]

MIDDLEWARE = [
    "api.health.measured",
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "csp.middleware.CSPMiddleware",
    "api.body_limits.body_limits",
    "api.plain_text.plain_text",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "allauth.account.middleware.AccountMiddleware",
    "api.traced.traced",
    "api.messages.for_reader",
]

ROOT_URLCONF = "config.urls"
WSGI_APPLICATION = "config.wsgi.application"
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": [BASE_DIR / "kitchen" / "templates"],  # before the libraries' own: mail speaks as the house does
        "APP_DIRS": True,
        "OPTIONS": {"context_processors": ["django.template.context_processors.request"]},
    }
]

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.postgresql",
        "NAME": os.environ.get("SUBSTRATA_DB_NAME", "substrata"),
        "USER": os.environ.get("SUBSTRATA_DB_USER", "substrata"),
        "PASSWORD": os.environ.get("SUBSTRATA_DB_PASSWORD", ""),
        "HOST": os.environ.get("SUBSTRATA_DB_HOST", "127.0.0.1"),
        "PORT": os.environ.get("SUBSTRATA_DB_PORT", "54329"),
        # A connection is kept per thread and tried before use, so a restarted database is no error.
        "CONN_MAX_AGE": 600,
        "CONN_HEALTH_CHECKS": True,
        "OPTIONS": {"connect_timeout": 5},
    }
}
# A worker that has not told for twenty seconds that it lives is taken for dead, and its work given to another.
PROCRASTINATE_WORKER_DEFAULTS = {
    "update_heartbeat_interval": 5.0,
    "stalled_worker_timeout": 20.0,
    "delete_jobs": "successful",
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTHENTICATION_BACKENDS = ["allauth.account.auth_backends.AuthenticationBackend"]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator", "OPTIONS": {"min_length": 10}},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
    {"NAME": "django.contrib.auth.password_validation.UserAttributeSimilarityValidator"},
]
ACCOUNT_LOGIN_METHODS = {"email"}
ACCOUNT_SIGNUP_FIELDS = ["email*", "password1*"]
ACCOUNT_USER_MODEL_USERNAME_FIELD = "username"
ACCOUNT_ADAPTER = "kitchen.accounts.adapter.Accounts"
# An address counts when a code that was sent there has come back. Nobody is told who has an account.
ACCOUNT_EMAIL_VERIFICATION = "mandatory"
ACCOUNT_EMAIL_VERIFICATION_BY_CODE_ENABLED = ACCOUNT_PASSWORD_RESET_BY_CODE_ENABLED = True
ACCOUNT_EMAIL_VERIFICATION_BY_CODE_TIMEOUT = ACCOUNT_PASSWORD_RESET_BY_CODE_TIMEOUT = 15 * 60
ACCOUNT_PREVENT_ENUMERATION = True
ACCOUNT_CHANGE_EMAIL = True
ACCOUNT_EMAIL_NOTIFICATIONS = True
ACCOUNT_REAUTHENTICATION_REQUIRED = True
ACCOUNT_LOGIN_ON_PASSWORD_RESET = True
# Wrong passwords are counted by the adapter: the library's count by address would let a stranger lock it.
ACCOUNT_RATE_LIMITS = {
    "login": "60/m/ip",
    # Codes of a second factor and the password that ends an account, by person; passwords at the door have waits of their own.
    "login_failed": "5/5m/key",
    "signup": "20/m/ip",
    "confirm_email": "5/10m/key",  # letters to one address, whoever asks for them
    "reset_password": "20/m/ip,5/10m/key",
}
# How many proxies stand before the server and add to X-Forwarded-For; 0: whatever it says is not believed.
ALLAUTH_TRUSTED_PROXY_COUNT = int(os.environ.get("SUBSTRATA_PROXIES", "0"))
MFA_SUPPORTED_TYPES = ["totp", "recovery_codes", "webauthn"]
MFA_TOTP_ISSUER = "Substrata"
MFA_TOTP_TOLERANCE = 1
MFA_PASSKEY_LOGIN_ENABLED = True
MFA_WEBAUTHN_ALLOW_INSECURE_ORIGIN = not HTTPS  # localhost
USERSESSIONS_TRACK_ACTIVITY = False
HEADLESS_ONLY = True
# The library wants to know where the page has its forms; its letters here send codes and no links.
HEADLESS_FRONTEND_URLS = {"account_signup": "/sign-in", "account_reset_password": "/sign-in"}

# Letters are kept in the database and carried by the worker: to a mail server, or to a folder that stands in for one.
PUBLIC_ADDRESS = os.environ.get("SUBSTRATA_ADDRESS", "http://localhost:8000").rstrip("/")
DEFAULT_FROM_EMAIL = os.environ.get("SUBSTRATA_MAIL_FROM", "Substrata <kitchen@localhost>")
EMAIL_BACKEND = "kitchen.accounts.mail.Letters"
EMAIL_HOST = os.environ.get("SUBSTRATA_SMTP_HOST", "")
EMAIL_PORT = int(os.environ.get("SUBSTRATA_SMTP_PORT", "587"))
EMAIL_HOST_USER = os.environ.get("SUBSTRATA_SMTP_USER", "")
EMAIL_HOST_PASSWORD = os.environ.get("SUBSTRATA_SMTP_PASSWORD", "")
EMAIL_USE_TLS = os.environ.get("SUBSTRATA_SMTP_TLS", "starttls") == "starttls"
EMAIL_USE_SSL = os.environ.get("SUBSTRATA_SMTP_TLS", "starttls") == "ssl"
EMAIL_TIMEOUT = 20
MAIL_FOLDER = os.environ.get("SUBSTRATA_MAIL_FOLDER", str(LOCAL / "outbox"))
MAIL_CARRIER = "django.core.mail.backends.smtp.EmailBackend" if EMAIL_HOST else "kitchen.accounts.mail.Folder"
# The folder's letters, with their codes, may be read by whoever opens the page: for a kitchen on one's own machine only.
OUTBOX_PAGE = os.environ.get("SUBSTRATA_OUTBOX_PAGE") == "1" and not EMAIL_HOST and not HTTPS
CACHES = {"default": {"BACKEND": "django.core.cache.backends.db.DatabaseCache", "LOCATION": "cache"}}

LANGUAGE_CODE = "en-gb"
TIME_ZONE = "UTC"
USE_I18N = False
USE_TZ = True

STATIC_URL = "/static/"
STATIC_ROOT = LOCAL / "static"  # left empty: the finders serve web/dist; it only has to exist
STATIC_ROOT.mkdir(parents=True, exist_ok=True)
WEB_DIST = Path(os.environ.get("SUBSTRATA_WEB_DIST", BASE_DIR / "web" / "dist"))
STATICFILES_DIRS = [WEB_DIST] if WEB_DIST.exists() else []
# Vite names its files by their content, so they may be kept for ever.
WHITENOISE_IMMUTABLE_FILE_TEST = r"^.+[.-][0-9A-Za-z_-]{8,12}\..+$"
WHITENOISE_USE_FINDERS = True

WHITENOISE_AUTOREFRESH = DEBUG

SMALL_BODY_SIZE = 1_000_000
PHOTO_BODY_SIZE = 26_000_000  # a photo as a camera makes it, and the form around it
DATA_UPLOAD_MAX_MEMORY_SIZE = 10_000_000  # of a file of products; everything else is held to the small size
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = HTTPS
SECURE_SSL_REDIRECT = HTTPS
SECURE_HSTS_SECONDS = 31_536_000 if HTTPS else 0
SECURE_HSTS_INCLUDE_SUBDOMAINS = SECURE_HSTS_PRELOAD = HTTPS
SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https") if HTTPS else None
X_FRAME_OPTIONS = "DENY"
_SELF = "'self'"
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [_SELF],
        "img-src": [_SELF, "data:", "blob:"],
        # The component library writes its theme into a style element: by the page's own nonce, and nothing else inline.
        "style-src": [_SELF, NONCE],
        "connect-src": [_SELF],
        "frame-ancestors": ["'none'"],
        "base-uri": [_SELF],
        "form-action": [_SELF],
    }
}

# Counters at /metrics, for a network that only the operator reaches.
METRICS = os.environ.get("SUBSTRATA_METRICS") == "1"

# The scale and probe at the bench, as serial addresses: socket://127.0.0.1:7101, /dev/ttyUSB0. "" for none.
BENCH_SCALE = os.environ.get("SUBSTRATA_SCALE", "")
BENCH_PROBE = os.environ.get("SUBSTRATA_PROBE", "")
BENCH_SIMULATED = os.environ.get("SUBSTRATA_SIMULATED", "") == "1"

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "formatters": {"line": {"format": "{asctime} {levelname} {name}: {message}", "style": "{"}},
    "handlers": {"console": {"class": "logging.StreamHandler", "formatter": "line"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
    "loggers": {"substrata": {"level": "INFO"}},
}
