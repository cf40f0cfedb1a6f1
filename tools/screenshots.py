"""``make screenshots``: one picture of each main view, made from the sample kit, for the README."""

from __future__ import annotations

import os
import socket
import subprocess
import sys
import tempfile
from pathlib import Path

from playwright.sync_api import sync_playwright

FOLDER = Path(__file__).parent.parent / "docs" / "screenshots"
FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-background-networking"]
SETTLE_MS = 1500
LOCK = "/kits/wendmere-lock"
VIEWS = {
    "wall": LOCK,
    "bench": f"{LOCK}/controls/c9?part=p3&effect=e3",
    "deliver": f"{LOCK}/deliver",
    "drawing": f"{LOCK}/controls/c6?part=p4",
    "colourways": f"{LOCK}?colourway=all",
}


def main() -> None:
    """Serve a fresh sample kit and look at every view."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            port = probe.getsockname()[1]
        command = [sys.executable, "-c", "from obrell.cli import main; main()", "demo", "--port", str(port)]
        environment = os.environ | {"OBRELL_DATA": f"{folder}/kits.db"}
        server = subprocess.Popen(command, env=environment, stdout=subprocess.PIPE)
        assert server.stdout is not None
        server.stdout.readline()
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        try:
            for name, path in VIEWS.items():
                page.goto(f"http://127.0.0.1:{port}{path}")
                page.wait_for_timeout(SETTLE_MS)
                page.screenshot(path=FOLDER / f"{name}.png")
            page.goto(f"http://127.0.0.1:{port}{LOCK}/controls/c2?part=p4")
            page.keyboard.press("8")
            page.keyboard.press("x")
            page.wait_for_timeout(SETTLE_MS)
            page.screenshot(path=FOLDER / "pixels.png")
            page.goto(f"http://127.0.0.1:{port}{LOCK}/controls/c1?state=pressed")
            page.wait_for_timeout(SETTLE_MS)
            page.locator("#differs summary").click()
            page.wait_for_timeout(SETTLE_MS)
            page.screenshot(path=FOLDER / "states.png")
            page.goto(f"http://127.0.0.1:{port}{LOCK}/controls/c2?state=on")
            page.wait_for_timeout(SETTLE_MS)
            page.locator("#movement summary").click()
            page.locator("[data-moment]").nth(2).click()
            page.wait_for_timeout(SETTLE_MS)
            page.screenshot(path=FOLDER / "movement.png")
            page.goto(f"http://127.0.0.1:{port}{LOCK}/controls/c2?editions=small&state=on")
            page.wait_for_timeout(SETTLE_MS)
            page.locator("#more-editions summary").click()
            page.wait_for_timeout(SETTLE_MS)
            page.screenshot(path=FOLDER / "sizes.png")
            page.goto(f"http://127.0.0.1:{port}{LOCK}/controls/c4?part=p11")
            page.wait_for_timeout(SETTLE_MS)
            page.locator("#readings summary").click()
            page.locator("#read-level").focus()
            page.keyboard.press("End")
            page.wait_for_timeout(SETTLE_MS)
            page.screenshot(path=FOLDER / "readings.png")
            page.goto(f"http://127.0.0.1:{port}{LOCK}/controls/c10?part=p1")
            page.wait_for_timeout(SETTLE_MS)
            page.locator("[data-looks]").first.click()
            page.wait_for_timeout(2 * SETTLE_MS)
            page.screenshot(path=FOLDER / "looks.png")
            page.goto(f"http://127.0.0.1:{port}{LOCK}/controls/c6")
            page.wait_for_timeout(SETTLE_MS)
            page.locator("[data-aside=recolour]").first.click()
            page.locator(".groups input[value=slate]").check()
            page.wait_for_timeout(SETTLE_MS)
            page.locator(".hues button").nth(8).click()
            page.wait_for_timeout(SETTLE_MS)
            page.screenshot(path=FOLDER / "recolouring.png")
            page.goto(f"http://127.0.0.1:{port}{LOCK}/trial/touch-panel")
            page.wait_for_timeout(3 * SETTLE_MS)
            page.locator("#run").click()
            for ident in ("i12", "i3"):
                page.locator(f"#piece-{ident} .hit").click()
            page.locator("#piece-i2 .hit").hover()
            page.mouse.down()
            page.locator("#sheet").evaluate("one => one.scrollTo(0, 0)")
            page.wait_for_timeout(2 * SETTLE_MS)
            page.screenshot(path=FOLDER / "trial.png")
            page.mouse.up()
            for look in ("sun", "vision"):
                page.locator(f"[data-look={look}]").click()
            page.locator("#show-reach").click()
            page.wait_for_timeout(2 * SETTLE_MS)
            page.screenshot(path=FOLDER / "conditions.png")
        finally:
            browser.close()
            server.kill()
            server.wait()


if __name__ == "__main__":
    main()
