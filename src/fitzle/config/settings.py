"""Django settings. What differs between machines comes from the environment; `./start` and `./test` set it."""

import os
from pathlib import Path
from socket import gethostname

from csp.constants import NONCE, NONE, SELF

from fitzle.config.mail import SECONDS, mail_server
from fitzle.config.servers import cache_address, database_place, file_storage, queue_address, server_folders

ROOT = Path(__file__).resolve().parents[3]
VAR = Path(os.environ.get("FITZLE_VAR", ROOT / "var"))

SECRET_KEY = os.environ.get("FITZLE_SECRET", "only-for-commands-that-serve-nobody")
DEBUG = False
ALLOWED_HOSTS = os.environ.get("FITZLE_HOSTS", "127.0.0.1,localhost").split(",")
HTTPS = os.environ.get("FITZLE_HTTPS") == "1"
BIND = os.environ.get("FITZLE_BIND", "127.0.0.1")  # the address that the front listens on

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "axes",
    "csp",
    "allauth",
    "allauth.account",
    "allauth.mfa",
    "allauth.usersessions",
    "allauth.headless",
    "fitzle.apps.accounts",
    "fitzle.apps.files",
    "fitzle.apps.drawing",
    "fitzle.apps.artwork",
    "fitzle.apps.destinations",
    "fitzle.apps.pieces",
    "fitzle.apps.deliveries",
    "fitzle.apps.uploading",
    "fitzle.apps.asking",
    "fitzle.apps.watermarking",
    "fitzle.apps.mails",
    "fitzle.apps.jobs",
]
MIDDLEWARE = [
    "fitzle.apps.watching.requests.WatchingMiddleware",
    "fitzle.apps.api.plain_errors.PlainErrorsMiddleware",
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "fitzle.apps.api.limits.BodyLimitMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "csp.middleware.CSPMiddleware",
    "fitzle.apps.accounts.words.AccountWordsMiddleware",
    "allauth.account.middleware.AccountMiddleware",
    "axes.middleware.AxesMiddleware",
]
ROOT_URLCONF = "fitzle.config.urls"
WSGI_APPLICATION = "fitzle.config.wsgi.application"
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": [ROOT / "web" / "dist", ROOT / "src" / "fitzle" / "apps" / "accounts" / "templates"],
        "OPTIONS": {
            "context_processors": ["django.template.context_processors.request", "csp.context_processors.nonce"]
        },
    }
]

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.mysql",
        "NAME": os.environ.get("FITZLE_DB_NAME", "fitzle"),
        "USER": "fitzle",
        "PASSWORD": os.environ.get("FITZLE_DB_PASSWORD", ""),
        **database_place(),
        "CONN_MAX_AGE": 60,
        "CONN_HEALTH_CHECKS": True,
        "OPTIONS": {"charset": "utf8mb4", "isolation_level": "read committed"},
        "TEST": {"CHARSET": "utf8mb4", "COLLATION": "utf8mb4_unicode_ci"},
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

QUEUE_DATABASE = int(os.environ.get("FITZLE_REDIS_DATABASE", "0"))  # tests run several of Fitzle on one Redis
CACHE_DATABASE = QUEUE_DATABASE + 1
CACHES = {
    "default": {
        "BACKEND": "fitzle.config.cache.ForgivingRedisCache",
        "LOCATION": cache_address(CACHE_DATABASE),
        "KEY_PREFIX": "fitzle",
        "TIMEOUT": 7 * 24 * 3600,
        "OPTIONS": {
            "serializer": "fitzle.config.cache.PlainSerializer",
            "socket_connect_timeout": 0.5,
            "socket_timeout": 1,
        },
    }
}

CELERY_BROKER_URL = queue_address(QUEUE_DATABASE)
CELERY_TASK_IGNORE_RESULT = True
QUEUES = ("intake", "files")
CELERY_TASK_DEFAULT_QUEUE = "files"
CELERY_TASK_ACKS_LATE = True  # every task may run twice without harm: a lease decides (jobs/leases.py)
CELERY_TASK_PUBLISH_RETRY = False  # the table of jobs remembers; nobody waits for a queue that is away
CELERY_TASK_ROUTES = {
    "fitzle.apps.jobs.tasks.take_in_artwork": {"queue": "intake"},
    "fitzle.apps.jobs.tasks.make_costly": {"queue": "intake"},
    "fitzle.apps.jobs.tasks.learn_place": {"queue": "intake"},
    "fitzle.apps.jobs.tasks.send_mail": {"queue": "intake"},
}
# Somebody who brings in artwork waits for it; the making of files can wait behind that.
CELERY_BROKER_TRANSPORT_OPTIONS = {
    "queue_order_strategy": "priority",
    "visibility_timeout": 300,  # seconds until a message that no worker answers for is delivered again
    "socket_connect_timeout": 1,
    "socket_timeout": 5,
}
NODE = os.environ.get("FITZLE_NODE", f"{gethostname()}:{VAR}")[:60]  # one name for each worker service
CELERY_WORKER_PREFETCH_MULTIPLIER = 1
CELERY_TASK_ALWAYS_EAGER = os.environ.get("FITZLE_EAGER") == "1"
CELERY_TASK_EAGER_PROPAGATES = True
CELERY_WORKER_MAX_MEMORY_PER_CHILD = 600_000  # KB; a worker above that is replaced after its task
# Memory of one task (jobs/bounds.py): what reads files of strangers, and what makes files, up to 4096 px square.
WORKER_INTAKE_BYTES = int(os.environ.get("FITZLE_WORKER_BYTES", "1000000000"))
WORKER_FILE_BYTES = int(os.environ.get("FITZLE_FILE_BYTES", "2500000000"))
CELERY_WORKER_MAX_TASKS_PER_CHILD = 500
CELERY_TASK_SOFT_TIME_LIMIT = 60  # seconds
CELERY_TASK_TIME_LIMIT = 75
CELERY_BROKER_CONNECTION_RETRY_ON_STARTUP = True
CELERY_WORKER_HIJACK_ROOT_LOGGER = False

AUTH_USER_MODEL = "accounts.User"
AUTHENTICATION_BACKENDS = ["axes.backends.AxesStandaloneBackend", "django.contrib.auth.backends.ModelBackend"]
PASSWORD_HASHERS = ["django.contrib.auth.hashers.Argon2PasswordHasher"]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator", "OPTIONS": {"min_length": 12}},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
]
SIGN_UP = os.environ.get("FITZLE_SIGN_UP", "")  # open or closed; empty: open where only this machine's people come
ACCOUNT_ADAPTER = "fitzle.apps.accounts.signing.SigningAdapter"
ACCOUNT_SIGNUP_FORM_CLASS = "fitzle.apps.accounts.sign_up.SignUpForm"
ACCOUNT_SIGNUP_FIELDS = ["email*", "password1*"]
ACCOUNT_LOGIN_METHODS = {"email"}
ACCOUNT_USER_MODEL_USERNAME_FIELD = None
ACCOUNT_EMAIL_VERIFICATION = "optional"  # a first file does not wait for a mail
ACCOUNT_CHANGE_EMAIL = True
ACCOUNT_PASSWORD_MIN_LENGTH = None  # AUTH_PASSWORD_VALIDATORS have it
ACCOUNT_EMAIL_SUBJECT_PREFIX = ""
ACCOUNT_EMAIL_NOTIFICATIONS = True
ACCOUNT_EMAIL_CONFIRMATION_EXPIRE_DAYS = 7
ACCOUNT_DEFAULT_HTTP_PROTOCOL = "https" if HTTPS else "http"
ACCOUNT_SESSION_REMEMBER = True
ACCOUNT_REAUTHENTICATION_TIMEOUT = 900  # seconds for which a password just typed counts
# Wrong passwords are counted in the database, with pauses that grow (accounts/addresses.py); the rest in the cache.
ACCOUNT_RATE_LIMITS = {
    "login": None,
    "login_failed": "20/m/ip,5/5m/key",  # codes of two steps
    "reauthenticate": None,
    "signup": os.environ.get("FITZLE_SIGN_UPS", "10/m/ip,40/h/ip"),
}
HEADLESS_ONLY = True
HEADLESS_CLIENTS = ("browser",)
HEADLESS_ADAPTER = "fitzle.apps.accounts.signing.PagesAdapter"
HEADLESS_FRONTEND_URLS = {
    "account_confirm_email": "/confirm/{key}",
    "account_reset_password": "/password",
    "account_reset_password_from_key": "/password/{key}",
    "account_signup": "/sign-up",
}
MFA_ADAPTER = "fitzle.apps.accounts.two_steps.TwoStepsAdapter"
MFA_SUPPORTED_TYPES = ["totp", "recovery_codes"]
MFA_TOTP_ISSUER = "Fitzle"
MFA_TOTP_TOLERANCE = 1  # of 30 s: clocks of telephones are a little off

_MAIL = mail_server(os.environ.get("FITZLE_MAIL", ""))
MAIL_THROUGH: str = _MAIL.through
EMAIL_HOST, EMAIL_PORT, EMAIL_HOST_USER, EMAIL_HOST_PASSWORD = _MAIL.host, _MAIL.port, _MAIL.user, _MAIL.password
EMAIL_USE_TLS, EMAIL_USE_SSL, EMAIL_TIMEOUT = _MAIL.tls, _MAIL.ssl, SECONDS
EMAIL_BACKEND = "fitzle.apps.mails.backend.KeepingBackend"
EMAIL_FILE_PATH = str(VAR / "mail")
DEFAULT_FROM_EMAIL = os.environ.get("FITZLE_MAIL_FROM", "Fitzle <fitzle@localhost>")

AXES_FAILURE_LIMIT = 1_000_000  # it counts; pauses that grow come of its counts (accounts/addresses.py)
AXES_COOLOFF_TIME = 1  # hours without a failure after which it counts from none
AXES_RESET_ON_SUCCESS = True
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_CLIENT_IP_CALLABLE = "fitzle.apps.accounts.addresses.client_address"
PROXIES = [entry for entry in os.environ.get("FITZLE_PROXIES", "").split(",") if entry]  # addresses or networks
AXES_USERNAME_FORM_FIELD = "email"
AXES_VERBOSE = False

SESSION_ENGINE = "django.contrib.sessions.backends.cached_db"
SESSION_COOKIE_NAME = "fitzle_session"
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_SECURE = HTTPS
CSRF_COOKIE_NAME = "fitzle_csrf"
CSRF_COOKIE_SAMESITE = "Lax"
CSRF_COOKIE_SECURE = HTTPS
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"
SECURE_SSL_REDIRECT = HTTPS
SECURE_HSTS_SECONDS = 31_536_000 if HTTPS else 0
X_FRAME_OPTIONS = "DENY"
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [NONE],
        "script-src": [SELF, NONCE],
        "style-src": [SELF, NONCE],
        "style-src-attr": ["'unsafe-inline'"],  # positions of proofs and parts; no style sheet can be injected by it
        "img-src": [SELF, "blob:", "data:"],
        "media-src": [SELF],
        "font-src": [SELF],
        "connect-src": [SELF],
        "form-action": [SELF],
        "base-uri": [NONE],
        "frame-ancestors": [NONE],
    }
}

DELIVER_INTO = server_folders(os.environ.get("FITZLE_DELIVER_INTO", ""))  # by workspace, by name
REHEARSAL = os.environ.get("FITZLE_REHEARSAL", "").rstrip("/")  # where the made-up destinations are; empty: nowhere
REHEARSAL_TOKEN = os.environ.get("FITZLE_REHEARSAL_TOKEN", "rehearsal")
UPLOAD_INSIDE = os.environ.get("FITZLE_UPLOAD_INSIDE") == "1"  # connections may lead into the server's own network
BUCKET = os.environ.get("FITZLE_BUCKET", "")
STORAGES = {
    "default": file_storage(VAR),
    "staticfiles": {"BACKEND": "whitenoise.storage.CompressedStaticFilesStorage"},
}
STATIC_URL = "/static/"
STATIC_ROOT = VAR / "static"
STATICFILES_DIRS = [ROOT / "web" / "dist"] if (ROOT / "web" / "dist").exists() else []
WHITENOISE_MAX_AGE = 3600


def WHITENOISE_IMMUTABLE_FILE_TEST(_path: str, url: str) -> bool:
    """Vite puts a hash into each name below assets."""
    return "/assets/" in url


UPLOAD_LIMIT_BYTES = int(os.environ.get("FITZLE_UPLOAD_BYTES", "100000000"))
UPLOAD_LIMIT_CLIP_BYTES = int(os.environ.get("FITZLE_CLIP_BYTES", "1000000000"))
UPLOAD_LIMIT_PIXELS = int(os.environ.get("FITZLE_UPLOAD_PIXELS", "100000000"))
UPLOAD_LIMIT_FILES = 50
WEB_PORTS = [int(port) for port in os.environ.get("FITZLE_WEB_PORTS", "80,443").split(",")]  # asked for pictures
UPLOAD_LIMIT_FOLDER = 500  # files that the pages take of folders at a time, one request each
WORKSPACE_BYTES = int(os.environ.get("FITZLE_WORKSPACE_BYTES", "20000000000"))  # that one workspace may keep
KEPT_DAYS = float(os.environ.get("FITZLE_KEPT_DAYS", "30"))  # for which what nobody needs is kept (jobs/clearing.py)
SEARCH_SECONDS = float(os.environ.get("FITZLE_SEARCH_SECONDS", "10"))  # for the best file of one fit
FILE_UPLOAD_MAX_MEMORY_SIZE = 5_000_000
DATA_UPLOAD_MAX_MEMORY_SIZE = 2_000_000
DATA_UPLOAD_MAX_NUMBER_FILES = UPLOAD_LIMIT_FILES

# Where the drawing service is: `unix:SOCKET` or `host:port`; empty where everything is drawn in place (apps/drawing).
DRAWING = os.environ.get("FITZLE_DRAWING", "")
DRAWING_SECONDS = float(os.environ.get("FITZLE_DRAWING_SECONDS", "8"))  # for one drawing
DRAWING_BYTES = int(os.environ.get("FITZLE_DRAWING_BYTES", "700000000"))  # that its process may take for it
DRAWING_AT_ONCE = int(os.environ.get("FITZLE_DRAWING_AT_ONCE", "6"))  # of a web process's threads: others stay free

LANGUAGE_CODE = "en"
USE_TZ = True
TIME_ZONE = "UTC"
LOGGING = {  # one line of JSON each, with request or task, person and workspace as ids (apps/watching)
    "version": 1,
    "disable_existing_loggers": False,
    "filters": {"context": {"()": "fitzle.apps.watching.context.ContextFilter"}},
    "formatters": {
        "json": {
            "()": "pythonjsonlogger.json.JsonFormatter",
            "fmt": ["asctime", "levelname", "name", "message"],
            "rename_fields": {"asctime": "at", "levelname": "level", "name": "from"},
        }
    },
    "handlers": {"console": {"class": "logging.StreamHandler", "formatter": "json", "filters": ["context"]}},
    "root": {"handlers": ["console"], "level": os.environ.get("FITZLE_LOG", "WARNING")},
    "loggers": {
        "fitzle.access": {"level": "INFO"},
        "django.request": {"level": "ERROR"},  # refusals stand in the access log
    },
}
METRICS_TOKEN = os.environ.get("FITZLE_METRICS_TOKEN", "")  # who shows it gets /metrics; nobody where it is empty
OPERATORS = [entry for entry in os.environ.get("FITZLE_OPERATORS", "").lower().split(",") if entry]  # mail addresses
SILENCED_SYSTEM_CHECKS = ["axes.W003", "models.W036"]  # MariaDB has no constraints with conditions
