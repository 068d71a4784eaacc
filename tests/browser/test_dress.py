"""The drawn dress on the bench and on the desk, and the way that folds round what is worked on."""

import re

from PIL import Image
from playwright.sync_api import expect

from server import get, wait_until
from workbench import numbered, open_commission, open_stage, type_word, word


def levels(page):
    return page.get_by_test_id("levels")


def lit(page, line):
    return page.get_by_test_id("dress").locator(f'[data-lit="{line}"]')


def test_the_dress_moves_with_a_word_and_says_how_high_its_hem_hangs(page, studio):
    open_commission(page, studio, "Midsummer dance dress")
    before = page.get_by_test_id("dress").inner_html()
    height = float(re.search(r"([\d.]+) cm above", levels(page).inner_text())[1])
    long = float(word(page, "lower.length").inner_text().split()[0])
    type_word(page, "lower.length", f"{long + 10}")
    page.keyboard.press("Enter")
    expect(levels(page)).to_contain_text(f"{height - 10:.1f} cm above the floor")
    assert page.get_by_test_id("dress").inner_html() != before


def test_a_seam_touched_on_sheet_or_dress_lights_up_on_both(page, studio):
    open_commission(page, studio, "Mermaid finale gown")
    line = "gown centre front/princess"
    page.locator(f'[data-edge="{line}"]').focus()
    expect(lit(page, line).first).to_be_attached()
    expect(lit(page, "gown side front/princess").first).to_be_attached()  # and what it is sewn to
    page.locator('[data-edge="gown side back/side"]').focus()
    expect(lit(page, line)).to_have_count(0)
    # and by the dress itself
    page.get_by_test_id("dress").locator(f'[data-line="{line}"]').first.dispatch_event("pointermove")
    expect(page.get_by_test_id("sheet").locator(f'[data-lit="{line}"]')).to_be_attached()
    expect(page.get_by_test_id("edge-words")).to_contain_text("gown centre front, princess")


def test_side_and_back_change_places_with_the_front(page, studio):
    open_commission(page, studio, "Mermaid finale gown")
    dress = page.get_by_test_id("dress")
    front = dress.inner_html()
    page.get_by_role("button", name="See the back large").click()
    expect(dress.locator('[data-line="gown centre back/centre back"]').first).to_be_attached()
    assert dress.inner_html() != front
    page.get_by_role("button", name="See the front large").click()
    expect(dress.locator('[data-line="gown centre back/centre back"]')).to_have_count(0)


def test_one_stage_is_open_and_the_others_say_themselves_in_a_line(page, studio):
    open_commission(page, studio, "Harbour dance dress")
    heads = page.get_by_role("navigation", name="The way through").locator("h2 button")
    opened = heads.locator("xpath=self::*[@aria-expanded='true']")
    expect(opened).to_have_text("Lower part")
    joins = page.locator("#stage-join h2")
    expect(joins).to_contain_text("The skirt is 5.2 cm longer than the bodice.")
    open_stage(page, "join")
    expect(opened).to_have_text("Joins")
    # a seam chosen from the list lies on the ribbon, one line high since it meets
    page.get_by_role("list", name="Seams walked").get_by_role("button", name=re.compile("^skirt side seam")).click()
    expect(page.get_by_test_id("join-sentence")).to_contain_text("meets")
    assert page.get_by_test_id("ribbon").bounding_box()["height"] < 110


def test_what_is_usual_waits_until_it_is_asked_for(page, studio):
    open_commission(page, studio, "Midsummer dance dress")
    waiting = page.locator('[id="part-lower"] p:not(:visible)')
    assert waiting.count() > 0
    page.locator('[data-more="lower"]').click()
    expect(waiting).to_have_count(0)


def test_the_desk_draws_every_dress_and_finds_it(page, studio):
    page.goto(studio.url)
    expect(page.get_by_role("heading", name="Ball gown")).to_be_visible()
    rows = get(studio, "/api/desk")["rows"]
    for row in rows:
        assert row["drawing"]["paths"], row["title"]
    cards = page.locator("main li")
    expect(cards).to_have_count(len(rows))
    expect(cards.locator("svg path").first).to_be_attached()
    page.get_by_role("searchbox").fill("larkham tide")
    expect(cards).to_have_count(sum("Larkham" in r["person"]["name"] and "Tide" in r["occasion"] for r in rows))
    page.get_by_role("searchbox").fill("no such dress")
    expect(page.get_by_text("Nothing on the desk is called that.")).to_be_visible()
    page.get_by_role("searchbox").fill("")
    page.get_by_role("button", name=re.compile("with something open")).click()
    expect(cards).to_have_count(sum(r["stops"] + r["warnings"] > 0 for r in rows))
    cards.first.click()
    number = numbered(studio, "Harbour dance dress")
    expect(page).to_have_url(f"{studio.url}/commission/{number}")
    expect(page).to_have_title("Harbour dance dress · Gentle Hem")


def test_no_words_run_over_each_other_or_out_of_their_places(page, studio):
    """At the laptop's size, the tablet's and the phone's, in the way, the ribbon and under the dress."""
    for width, height in ((1280, 800), (1024, 768), (400, 800)):
        page.set_viewport_size({"width": width, "height": height})
        for title in ("Harbour dance dress", "Mermaid finale gown"):
            open_commission(page, studio, title)
            over = page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth")
            assert over <= 0, (width, title)
            clashes = page.evaluate(CLASHES)
            assert clashes == [], (width, title, clashes)


CLASHES = """() => {
  const seen = [...document.querySelectorAll('h1, h2, nav p, [data-testid=ribbon] p, [data-testid=ribbon] dt,'
    + ' [data-testid=ribbon] dd, [data-testid=levels] div, figcaption, header a, header button')]
    .filter(e => e.offsetParent !== null && e.textContent.trim())
    .map(e => ({ e, r: e.getBoundingClientRect() })).filter(({ r }) => r.width > 1 && r.height > 1);
  const found = [];
  for (const { e, r } of seen) {
    if (r.right > window.innerWidth + 1) found.push(['runs out', e.textContent.slice(0, 40)]);
    for (const other of seen) {
      if (e === other.e || e.contains(other.e) || other.e.contains(e)) continue;
      const across = Math.min(r.right, other.r.right) - Math.max(r.left, other.r.left);
      const down = Math.min(r.bottom, other.r.bottom) - Math.max(r.top, other.r.top);
      if (across > 2 && down > 4 && e.compareDocumentPosition(other.e) & 4 && !apart(e, other.e))
        found.push([e.textContent.slice(0, 40), other.e.textContent.slice(0, 40)]);
    }
  }
  return found;
  function apart(a, b) {  // one of them lies in a box that scrolls, and is out of sight there
    return [a, b].some(e => {
      const box = e.closest('nav, main > div');
      const r = e.getBoundingClientRect(), s = box?.getBoundingClientRect();
      return box && s && (r.top >= s.bottom - 2 || r.bottom <= s.top + 2);
    });
  }
}"""


def pieces_shown(page):
    return page.get_by_test_id("sheet").locator("[data-piece]")


def scale(page):
    return float(page.get_by_label("Paper scale").locator("option").first.inner_text().split(":")[1])


def test_the_sheet_shows_one_cloth_a_piece_that_fills_it_and_goes_from_mate_to_mate(page, studio):
    open_commission(page, studio, "Harbour dance dress")
    expect(pieces_shown(page)).to_have_count(4)
    page.get_by_label("Which pieces are shown").select_option("paper")
    expect(pieces_shown(page)).to_have_count(2)
    page.get_by_label("Which pieces are shown").select_option("all pieces")
    expect(pieces_shown(page)).to_have_count(4)
    whole = scale(page)
    page.locator('[data-piece="bodice front"] path').first.dispatch_event("dblclick")
    wait_until(lambda: scale(page) < whole / 1.5)
    page.locator('[data-piece="bodice front"] path').first.dispatch_event("dblclick")
    wait_until(lambda: scale(page) == whole)
    page.locator('[data-edge="skirt front/side"]').focus()
    page.keyboard.press("Enter")
    expect(page.locator('[data-edge="skirt back/side"]')).to_be_focused()


PINCH = """apart => {
  const sheet = document.querySelector('[data-testid=sheet]').parentElement, r = sheet.getBoundingClientRect();
  const x = r.left + r.width / 2, y = r.top + r.height / 2;
  const finger = (kind, id, dx) => sheet.dispatchEvent(
    new PointerEvent(kind, { pointerId: id, clientX: x + dx, clientY: y, bubbles: true, pointerType: 'touch' }));
  finger('pointerdown', 1, -50); finger('pointerdown', 2, 50);
  finger('pointermove', 2, apart - 50);
  finger('pointerup', 1, -50); finger('pointerup', 2, apart - 50);
}"""


def test_two_fingers_pinch_the_sheet(page, studio):
    """By hand: fingers 100 px apart moved to 200 px show everything twice as large."""
    open_commission(page, studio, "Ball gown")
    whole = scale(page)
    page.evaluate(PINCH, 200)
    expect(page.get_by_label("Paper scale").locator("option").first).to_have_text(f"1 : {whole / 2:.1f}")


def test_a_clients_picture_lies_beside_the_dress_and_stays_in_this_browser(page, studio, tmp_path):
    file = tmp_path / "picture.png"
    Image.new("RGB", (300, 600), "wheat").save(file)
    asked = []
    page.on("request", lambda request: asked.append(request.post_data_buffer or b""))
    open_commission(page, studio, "Tide dance dress")
    page.get_by_label("Lay a picture beside it").set_input_files(file)
    picture = page.get_by_role("region", name="The client's picture")
    expect(picture.get_by_role("img")).to_be_visible()
    wait_until(lambda: picture.get_by_role("img").evaluate("image => image.naturalWidth") == 300)
    box = picture.get_by_role("checkbox").first
    box.check()
    expect(picture).to_have_attribute("aria-busy", "false")
    page.reload()
    expect(picture.get_by_role("checkbox").first).to_be_checked()
    assert not any(file.read_bytes()[:60] in body for body in asked), "it was sent nowhere"
    picture.get_by_role("button", name="Take the picture away").click()
    expect(picture).to_have_count(0)
    page.reload()
    expect(page.get_by_label("Lay a picture beside it")).to_be_attached()
