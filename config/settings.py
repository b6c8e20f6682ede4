"""Django settings. Everything that differs between machines comes from the environment."""

import os
from pathlib import Path

BASE_DIR = Path(__file__).resolve().parent.parent
LOCAL = Path(os.environ.get("SUBSTRATA_LOCAL", BASE_DIR / ".local"))
DEBUG = os.environ.get("SUBSTRATA_DEBUG") == "1"
HTTPS = os.environ.get("SUBSTRATA_HTTPS") == "1"


def _secret_key() -> str:
    """The key from the environment, or one made once for this machine."""
    from django.core.management.utils import get_random_secret_key

    given = os.environ.get("SUBSTRATA_SECRET_KEY")
    if given:
        return given
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
    "csp",
    "ninja",
    "procrastinate.contrib.django",
    "kitchen",
]

MIDDLEWARE = [
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
]

ROOT_URLCONF = "config.urls"
WSGI_APPLICATION = "config.wsgi.application"
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": [],
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
# No mail server ships with the app: an address is a name to sign in with.
ACCOUNT_EMAIL_VERIFICATION = "none"
ACCOUNT_RATE_LIMITS = {"login": "30/m/ip", "login_failed": "10/m/ip,5/5m/key", "signup": "20/m/ip"}
EMAIL_BACKEND = "django.core.mail.backends.console.EmailBackend"
HEADLESS_ONLY = True
HEADLESS_FRONTEND_URLS: dict[str, str] = {}
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
        # The component library writes its theme into a style element.
        "style-src": [_SELF, "'unsafe-inline'"],
        "connect-src": [_SELF],
        "frame-ancestors": ["'none'"],
        "base-uri": [_SELF],
        "form-action": [_SELF],
    }
}

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
