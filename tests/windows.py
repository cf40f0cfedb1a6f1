"""One window of Chromium for all journeys of a process, at the beginning of each as if it were new: a window of its
own costs each a second, and every script and picture is fetched again."""

import contextlib
from collections.abc import Callable

from playwright.sync_api import Browser, Error, Page

SIZE = {"width": 1280, "height": 800}
TIMEOUT_MS = 45_000
HELD = ("Shift", "Control", "Alt", "Meta", " ", "h", "n", "o", "w", "y")
"""Keys that a journey may have left held."""


class Windows:
    """Gives the window out, takes it back, and makes another one where it is not fit any more."""

    def __init__(self, browser: Browser) -> None:
        self._browser = browser
        self._page: Page | None = None
        self._listeners: list[tuple[str, Callable[..., None]]] = []
        self.faults: list[str] = []
        """Script errors and refused styles since the window was given out."""

    def give(self) -> Page:
        """The window, listened to from now on."""
        if self._page is None:
            context = self._browser.new_context(viewport=SIZE, accept_downloads=True)
            self._page = context.new_page()
            self._page.set_default_timeout(TIMEOUT_MS)
        self.faults = faults = []
        self._listeners = [
            ("pageerror", lambda error: faults.append(str(error))),
            ("console", lambda said: faults.append(said.text) if "Content Security Policy" in said.text else None),
        ]
        for name, listener in self._listeners:
            self._page.on(name, listener)
        return self._page

    def take(self) -> None:
        """The window as it was: nothing open, held, routed or kept in it."""
        page = self._page
        if page is None:
            return
        try:
            self._clean(page)
        except Error:
            with contextlib.suppress(Error):
                page.context.close()
            self._page = None

    def _clean(self, page: Page) -> None:
        for name, listener in self._listeners:
            page.remove_listener(name, listener)
        for other in page.context.pages:
            if other is not page:
                other.close()
        page.unroute_all()
        page.mouse.up()
        for key in HELD:
            page.keyboard.up(key)
        page.evaluate("() => { localStorage.clear(); sessionStorage.clear(); }")
        page.context.clear_permissions()
        page.emulate_media(reduced_motion="null")
        page.set_viewport_size(SIZE)
        page.mouse.move(0, 0)
        page.goto("about:blank", timeout=TIMEOUT_MS)
