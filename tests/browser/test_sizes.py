"""Every view at the laptop's, the tablet's and the phone's size and at 200 %: no words over words, none cut off; and
nothing that axe finds wrong in it.
"""

import pytest
from playwright.sync_api import expect

from server import get
from workbench import axe_faults, numbered, open_stage

DRESSES = {"gap": "Harbour dance dress", "hang": "Harbour master's suit dress"}
"""By the view the dress that is opened for it, where it is not the gown: it takes a minute to hang."""

SIZES = {"laptop": (1280, 800), "tablet": (1024, 768), "phone": (400, 800), "200 %": (640, 400)}

VIEWS = [
    "desk", "people", "person", "words", "new dress", "figure", "bodice", "lower", "join", "pattern", "gap", "workings",
    "measuring", "cloth", "falls", "hang", "sums", "rescue", "keys", "about", "versions", "laid",
    "records", "practice", "making", "fittings", "costs",
]  # fmt: skip


def go_to(page, studio, view):
    keys = {"sums": "s", "rescue": "r", "keys": "?"}
    pages = {
        "people": "/people",
        "records": "/records",
        "practice": "/practice",
        "falls": "/cloths",
        "words": "/words",
        "new dress": "/new",
        "desk": "/",
        **dict.fromkeys(keys, "/"),
    }
    if view == "person":
        person = next(one["id"] for one in get(studio, "/api/people") if one["name"] == "Isolde Marrin")
        page.goto(f"{studio.url}/people/{person}")
    elif view in pages:
        page.goto(f"{studio.url}{pages[view]}")
    else:
        page.goto(f"{studio.url}/commission/{numbered(studio, DRESSES.get(view, 'Mermaid finale gown'))}")
        expect(page.get_by_test_id("ribbon")).to_be_visible()
    expect(page.get_by_role("main")).to_be_visible()
    expect(page.get_by_text("Loading")).to_have_count(0)
    if view == "falls":
        page.get_by_role("button", name="Change Chalk linen").click()
        page.get_by_text("How it falls", exact=True).click()
        expect(page.get_by_test_id("falls")).to_be_visible(timeout=90_000)
    if view in keys:
        page.keyboard.press(keys[view])
    elif view in ("figure", "bodice", "lower", "join", "pattern"):
        open_stage(page, view)
        waiting = page.locator("[data-more][aria-expanded=false]")
        for left in range(waiting.count(), 0, -1):  # each that is said is one less
            expect(waiting).to_have_count(left)
            waiting.first.click()
    elif view == "workings":
        page.keyboard.press("w")
        page.get_by_role("complementary", name="Workings").get_by_role("button").nth(3).click()
    elif view == "measuring":
        open_stage(page, "figure")
        page.get_by_role("button", name="Measure", exact=True).click()
        expect(page.locator('[data-measure="measures.waist_girth"]')).to_be_visible()
    elif view == "cloth":
        open_stage(page, "pattern")
        page.get_by_role("button", name="How much cloth").click()
        expect(page.get_by_test_id("to-buy").first).to_be_visible()
    elif view == "hang":
        page.get_by_role("button", name="Hang it before it is cut").click()
        expect(page.get_by_test_id("hang")).to_have_attribute("data-state", "rest", timeout=90_000)
        expect(page.get_by_test_id("hem-ribbon")).to_be_visible()
    elif view == "about":
        page.get_by_role("heading", level=1).get_by_role("button").click()
    elif view == "versions":
        page.keyboard.press("v")
    elif view == "laid":
        page.get_by_label("Which seam").select_option("gown side seam")
        page.get_by_role("button", name="Lay together").click()
        expect(page.get_by_test_id("laid-together")).to_be_visible()
    elif view in ("making", "costs"):
        page.keyboard.press("6")
        expect(page.get_by_role("region", name="Making", exact=True).get_by_role("article")).to_be_visible()
        if view == "costs":
            page.get_by_role("button", name="Costs and quote").click()
            expect(page.get_by_role("dialog").get_by_text("In all")).to_be_visible()
    elif view == "fittings":
        page.keyboard.press("7")
        page.get_by_role("button", name="A fitting today").click()
        page.locator("#seen").select_option("neck_stands_off")
    elif view == "practice":
        page.get_by_label("Your answer").fill("1")
        page.keyboard.press("Enter")
        expect(page.get_by_role("status")).to_be_visible()
    if view in (*keys, "about", "versions", "costs", "laid", "falls"):
        expect(page.get_by_role("dialog")).to_be_visible()


@pytest.mark.parametrize("view", VIEWS)
def test_no_words_run_over_each_other_or_are_cut_off_and_axe_finds_nothing(page, studio, view):
    go_to(page, studio, view)
    assert axe_faults(page) == []
    for name, (width, height) in SIZES.items():
        page.set_viewport_size({"width": width, "height": height})
        page.evaluate("document.fonts.ready")
        over = page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth")
        assert over <= 0, (name, "runs off sideways", over)
        found = page.evaluate(FAULTS)
        assert found == [], (name, found)


def test_words_run_over_each_other_are_seen(page, studio):
    go_to(page, studio, "lower")
    page.add_style_tag(content="h3 + p { margin-top: -1.4rem }")
    assert page.evaluate(FAULTS)


FAULTS = """() => {
  const within = document.querySelector('[role=dialog]') ?? document.body;
  const walker = document.createTreeWalker(within, NodeFilter.SHOW_TEXT);
  const lines = [], found = [];
  while (walker.nextNode()) {
    const node = walker.currentNode, e = node.parentElement;
    const said = node.textContent.trim();
    if (!said || e.closest('.sr-only, option, svg, noscript, style, script')) continue;
    const style = getComputedStyle(e);
    if (style.visibility === 'hidden' || style.display === 'none') continue;
    const range = document.createRange();
    range.selectNodeContents(node);
    for (const r of range.getClientRects()) {
      if (r.width < 2 || r.height < 2) continue;
      const shows = window_of(e);
      if (r.bottom < shows.top + 2 || r.top > shows.bottom - 2) continue;
      if (r.right < shows.left || r.left > shows.right) continue;
      const seen = { left: Math.max(r.left, shows.left), right: Math.min(r.right, shows.right),
                     top: Math.max(r.top, shows.top), bottom: Math.min(r.bottom, shows.bottom) };
      lines.push({ e, said: said.slice(0, 40), r: seen });
      const box = e.closest('button, a, th, td, label, h1, h2, h3, p, dd, dt, li');
      const style = box && getComputedStyle(box);
      const clipped = box && style.overflow === 'hidden' && style.webkitLineClamp === 'none';
      if (clipped && box.scrollWidth > box.clientWidth + 1)
        found.push(['cut off', said.slice(0, 40)]);
      if (r.right > innerWidth + 1) found.push(['runs out', said.slice(0, 40)]);
    }
  }
  for (let i = 0; i < lines.length; i++)
    for (let k = i + 1; k < lines.length; k++) {
      const a = lines[i], b = lines[k];
      if (a.e === b.e || a.e.contains(b.e) || b.e.contains(a.e)) continue;
      const across = Math.min(a.r.right, b.r.right) - Math.max(a.r.left, b.r.left);
      const down = Math.min(a.r.bottom, b.r.bottom) - Math.max(a.r.top, b.r.top);
      if (across > 2 && down > 7) found.push([a.said, b.said]);
    }
  return found.slice(0, 8);

  function window_of(e) {  // what is left of the page by the boxes that scroll, or clamp, round it
    const shows = { left: 0, top: 0, right: innerWidth, bottom: innerHeight };
    for (let at = e; at; at = at.parentElement) {
      if (getComputedStyle(at).overflow === 'visible') continue;
      const r = at.getBoundingClientRect();
      shows.left = Math.max(shows.left, r.left);
      shows.top = Math.max(shows.top, r.top);
      shows.right = Math.min(shows.right, r.right);
      shows.bottom = Math.min(shows.bottom, r.bottom);
    }
    return shows;
  }
}"""
