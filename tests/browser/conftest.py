"""The app as a baker meets it: Debian's Chromium against a live server with the built page."""

import os
import time

import pytest
from django.contrib.auth.models import User
from django.core.cache import cache
from django.db import connection, connections, transaction
from django.test import Client
from playwright.sync_api import expect

from kitchen.demo.load import BAKER, DEMO_PASSWORD, PARTNER, load_demo
from kitchen.models import Job

FLAGS = (
    "--headless", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
    "--disable-component-update", "--disable-sync",
)  # fmt: skip


expect.set_options(timeout=15_000)  # a busy machine is no defect


def pytest_terminal_summary(terminalreporter):
    """Name each test that passed only when it was run again, with its first error: a rerun must not hide a defect."""
    failed = {report.nodeid for report in terminalreporter.stats.get("failed", [])}
    reruns = [report for report in terminalreporter.stats.get("rerun", []) if report.nodeid not in failed]
    if not reruns:
        return
    terminalreporter.section("passed only at the second run: mend each")
    for report in reruns:
        crash = getattr(report.longrepr, "reprcrash", None)
        terminalreporter.write_line(f"{report.nodeid}: {crash.message.splitlines()[0] if crash else report.longrepr}")


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args):
    chromium = os.environ.get("SUBSTRATA_CHROMIUM", "/usr/bin/chromium")
    return {**browser_type_launch_args, "executable_path": chromium, "args": list(FLAGS)}


@pytest.fixture(scope="session")
def django_db_modify_db_settings(django_db_modify_db_settings):
    """The live server's threads give their connections back, so that the database can be emptied and dropped."""
    connections.databases["default"]["CONN_MAX_AGE"] = 0


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args):
    return {**browser_context_args, "viewport": {"width": 1280, "height": 800}}


@pytest.fixture
def site(live_server, transactional_db):
    """The address of a server with the demo kitchen."""
    cache.clear()
    with connection.cursor() as cursor:
        cursor.execute("select to_regclass('kept.django_migrations') is not null")
        if cursor.fetchone()[0]:
            put_demo_back(cursor)
        else:
            load_demo()
            # What the demo has asked its worker for is not these tests' work.
            Job.objects.filter(state=Job.State.WAITING).delete()
            keep_demo(cursor)
    yield live_server.url
    wait_until_idle()


def tables_of(cursor, schema):
    cursor.execute("select tablename from pg_tables where schemaname = %s", [schema])
    return [connection.ops.quote_name(name) for (name,) in cursor.fetchall()]


def keep_demo(cursor):
    """A copy of every table: loading the demo anew for each test takes longer than most tests."""
    names = tables_of(cursor, "public")
    cursor.execute("create schema kept")
    for name in names:
        cursor.execute(f"create table kept.{name} as table public.{name}")


def put_demo_back(cursor):
    """The rows as they were kept; triggers and foreign keys rest meanwhile, for the rows are sound together."""
    with transaction.atomic():
        cursor.execute("set local session_replication_role = replica")
        names = tables_of(cursor, "kept")
        cursor.execute("truncate " + ", ".join(f"public.{name}" for name in names))
        for name in names:
            cursor.execute(f"insert into public.{name} overriding system value table kept.{name}")


def wait_until_idle():
    """Let the server finish what the page asked last; emptying the tables under it would deadlock."""
    quiet = 0
    for _ in range(100):
        with connection.cursor() as cursor:
            cursor.execute(
                "select count(*) from pg_stat_activity where datname = current_database() "
                "and pid <> pg_backend_pid() and state <> 'idle'"
            )
            quiet = quiet + 1 if cursor.fetchone()[0] == 0 else 0
        # A page's last words may come a moment after it has gone.
        if quiet == 12:
            return
        time.sleep(0.05)


def sign_in(page, site, email=BAKER):
    page.goto(f"{site}/formula")
    page.get_by_label("E-mail").fill(email)
    page.get_by_label("Password").fill(DEMO_PASSWORD)
    page.get_by_role("button", name="Sign in", exact=True).click()
    page.get_by_role("heading", name="Formulas", exact=True).wait_for()


def already_in(context, site, email=BAKER):
    """A session that began before: the form of sign-in is walked where it is what is tested."""
    client = Client()
    client.force_login(User.objects.get(email=email))
    context.add_cookies([{"name": name, "value": cookie.value, "url": site} for name, cookie in client.cookies.items()])


def formula_link(page, name):
    """The link of a list of formulas that leads to this one; a card's own name has its figures in it besides."""
    return page.get_by_role("link").filter(has=page.get_by_text(name, exact=True))


def choose(page, label, option):
    """Take an option of a list."""
    page.get_by_role("combobox", name=label, exact=True).click(force=True)
    page.get_by_role("option", name=option, exact=True).click()


@pytest.fixture
def shelf(page, site):
    """A page signed in, at the shelf, that fails the test on any script error."""
    errors = []
    page.on("pageerror", lambda error: errors.append(str(error)))
    already_in(page.context, site)
    page.goto(f"{site}/formula")
    page.get_by_role("heading", name="Formulas", exact=True).wait_for()
    yield page
    page.goto("about:blank")
    assert errors == []


@pytest.fixture
def bench(shelf):
    """The celeriac flatbread on the bench, judged."""
    formula_link(shelf, "Celeriac flatbread").click()
    shelf.locator("[data-bracket=water_fill]").wait_for()
    return shelf


@pytest.fixture
def partner(browser, browser_context_args, site):
    """A second person in a browser of their own."""
    context = browser.new_context(**browser_context_args)
    page = context.new_page()
    sign_in(page, site, PARTNER)
    yield page
    context.close()
