"""From the pointer to the pixels: a boundary of the core is pulled up and down on the demo, wanted p95 50 ms; and to the figures beside it.

``python -m benchmarks.pixels http://localhost:8000``, on a started demo. Time is told by the browser: from the time stamp that it gave
the pointer's event to the task after the frame in which the drawing stood elsewhere.
"""

import sys
from math import sin

from playwright.sync_api import sync_playwright

from benchmarks.spread import line

EMAIL, PASSWORD = "baker@example.com", "rye-free-and-easy"
MOVES = 300
_WATCH = """(grip) => {
  const seen = { drawing: [], figures: [], still: 0 }
  window.__seen = seen
  const place = () => document.querySelector(`[data-grip='${grip}']`).getBoundingClientRect().y
  let pulled = null
  addEventListener('pointermove', (event) => {
    const before = place()
    pulled = event.timeStamp
    const since = event.timeStamp
    requestAnimationFrame(() => {
      if (place() === before) { seen.still += 1; return }
      const after = new MessageChannel()
      after.port1.onmessage = () => seen.drawing.push(performance.now() - since)
      after.port2.postMessage(0)
    })
  }, true)
  const figures = new MutationObserver(() => {
    if (pulled === null) return
    const since = pulled
    pulled = null
    requestAnimationFrame(() => seen.figures.push(performance.now() - since))
  })
  for (const one of document.querySelectorAll('[data-bracket]')) figures.observe(one, { subtree: true, characterData: true, childList: true })
}"""


def main(url: str) -> None:
    with sync_playwright() as browsers:
        browser = browsers.chromium.launch(executable_path="/usr/bin/chromium", args=["--no-sandbox"])
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(url)
        page.get_by_label("E-mail").first.fill(EMAIL)
        page.get_by_label("Password").first.fill(PASSWORD)
        page.keyboard.press("Enter")
        page.get_by_role("link", name="Market rolls, egg-free").first.click()
        grips = page.locator("[data-grip]")
        grips.first.wait_for()
        grip = str(grips.nth(2).get_attribute("data-grip"))
        box = grips.nth(2).bounding_box()
        assert box is not None
        x, y = box["x"] + 60, box["y"] + box["height"] / 2
        page.mouse.move(x, y)
        page.mouse.down()
        page.mouse.move(x, y + 3)
        page.evaluate(_WATCH, grip)
        for step in range(MOVES):
            page.mouse.move(x, y + 3 + 25 * sin(step / 9))
            page.wait_for_timeout(16)
        seen = page.evaluate("window.__seen")
        page.keyboard.press("Escape")
        page.mouse.up()
        browser.close()
    print(line("pointer to the drawing", sorted(seen["drawing"]), 50.0), f"({len(seen['drawing'])} frames)")
    print(line("pointer to the figures", sorted(seen["figures"]), 150.0), f"({len(seen['figures'])} answers)")


if __name__ == "__main__":
    main(sys.argv[1])
