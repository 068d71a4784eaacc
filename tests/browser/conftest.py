"""The real interface in a real browser: Debian's Chromium, headless, through Playwright."""

import pytest
from playwright.sync_api import expect, sync_playwright

from gentle_hem.store.backup import FILE_NAME
from server import lay_studio, running

FLAGS = [
    "--no-sandbox", "--disable-gpu", "--disable-background-networking", "--disable-component-update",
    "--disable-sync", "--no-first-run",
]  # fmt: skip


# a busy machine is waited for: a test that passes is no slower for it
expect.set_options(timeout=20_000)


@pytest.fixture(scope="session")
def browser():
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        yield browser
        browser.close()


@pytest.fixture(scope="session")
def server(tmp_path_factory):
    """One server for all browser tests; starting it is what takes the time."""
    with running(tmp_path_factory.mktemp("studio")) as server:
        yield server


@pytest.fixture(scope="session")
def demo():
    """The demo studio as it is served, with its simulated tape."""
    with running() as server:
        yield server


@pytest.fixture
def studio(server):
    """The server over freshly filled records of the demo studio."""
    lay_studio(server.folder / FILE_NAME)
    return server


@pytest.fixture
def page(browser):
    """A page that fails its test when the program throws in it."""
    context = browser.new_context(viewport={"width": 1280, "height": 800}, accept_downloads=True, locale="en-GB")
    context.add_init_script("localStorage.getItem('hem.walk') ?? localStorage.setItem('hem.walk', 'done')")
    page = context.new_page()
    thrown = []
    page.on("pageerror", lambda error: thrown.append(error))
    page.set_default_timeout(20_000)
    yield page
    context.close()
    assert thrown == []
