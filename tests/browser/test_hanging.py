"""A dress hung in the browser: turned by keys, its hem read, a levelled hem taken into the pattern."""

import io
from base64 import b64decode

import numpy as np
import pdfplumber
from PIL import Image
from playwright.sync_api import expect

from dresses import recipe
from workbench import open_commission, open_stage

DRESS = "Harbour master's suit dress"


def hung(page, studio):
    open_commission(page, studio, DRESS)
    page.get_by_role("button", name="Hang it before it is cut").click()
    room = page.get_by_test_id("hang")
    expect(room).to_have_attribute("data-state", "rest", timeout=180_000)
    return room


def drawn(page):
    """What is drawn, as the bytes of its picture."""
    return page.evaluate("document.querySelector('[data-testid=hang] canvas').toDataURL()")


def lightness(page):
    """How light what is drawn is across its middle, from the darkest twentieth to the lightest (of 255)."""
    png = b64decode(drawn(page).split(",")[1])
    with Image.open(io.BytesIO(png)) as picture:
        seen = np.asarray(picture.convert("RGBA")).astype(float)
    middle = seen[int(0.45 * len(seen)) : int(0.6 * len(seen))].reshape(-1, 4)
    light = middle[middle[:, 3] > 250][:, :3].mean(axis=1)
    return np.quantile(light, 0.95) - np.quantile(light, 0.05)


def printed(page):
    """What the first two pages say that are printed, and how many pictures are on them."""
    with pdfplumber.open(io.BytesIO(page.pdf(format="A4"))) as pdf:
        pages = pdf.pages[:2]
        return "\n".join(one.extract_text() for one in pages), sum(len(one.images) for one in pages)


def test_a_dress_is_hung_turned_by_keys_read_and_its_hem_levelled(page, studio):
    room = hung(page, studio)
    assert int(room.get_by_role("img", name="The dress on her form", exact=True).get_attribute("data-drawn")) > 400
    assert lightness(page) > 20  # it is lit from her right, and its folds are shaded
    before = drawn(page)
    turn = room.get_by_role("slider", name="Turned")
    turn.focus()
    at = int(turn.input_value())
    page.keyboard.press("ArrowRight")
    expect(turn).to_have_value(str(at + 5))
    assert drawn(page) != before
    room.get_by_role("button", name="back", exact=True).click()
    expect(turn).to_have_value("180")
    behind = drawn(page)
    room.get_by_role("radio", name="where it is tight").click()
    assert drawn(page) != behind
    ribbon = room.get_by_test_id("hem-ribbon")
    expect(ribbon.get_by_role("row")).to_have_count(10)
    expect(ribbon.get_by_role("row").nth(1)).to_contain_text("at the centre front")
    expect(room.get_by_test_id("hang-words")).to_contain_text("The hem hangs")
    # from in front, from her left and from behind, to be printed
    pictures = room.get_by_role("region", name="Front, side and back").get_by_role("img")
    expect(pictures).to_have_count(3)
    assert len({pictures.nth(k).get_attribute("src") for k in range(3)}) == 3
    expect(room.get_by_role("button", name="Print the dress with these")).to_be_visible()
    first, images = printed(page)
    assert "Hung before it is cut" in first
    assert "The hem hangs" in first
    assert images == 3
    # and it is seen on the desk as it hung
    with page.context.new_page() as desk:
        desk.goto(studio.url)
        on_desk = desk.get_by_role("link", name=DRESS).get_by_role("img", name="as it hung")
        expect(on_desk).to_be_visible()
        expect(on_desk).to_have_js_property("naturalWidth", 420)
    room.get_by_role("button", name="Take the levelled hem into the pattern").click()
    expect(room.get_by_text("The recipe has changed since this was hung.")).to_be_visible()
    # what hangs is another dress now, and is not printed with this one
    assert "Hung before it is cut" not in printed(page)[0]
    room.get_by_role("button", name="Back to the sheet").click()
    open_stage(page, "bodice")
    levelled = page.locator('[data-word^="steps."][data-word$=".centre_back"]')
    expect(levelled).to_be_attached()
    expect(levelled).to_contain_text("cm")


def test_a_dress_whose_sides_are_not_alike_is_read_on_both(page, studio):
    """Its neck slants: her right is hung by itself, with a hem of its own."""
    steps = [{"kind": "neckline", "shape": "scoop", "depth": 150.0, "aside": 45.0, "toward": "right"}]
    made = page.request.post(f"{studio.url}/api/commissions", data={"title": "Slanting", "person": "Somebody"}).json()
    body = {"recipe": recipe(steps=steps).model_dump(mode="json"), "from_version": made["version"]}
    assert page.request.post(f"{studio.url}/api/commissions/{made['id']}/versions", data=body).ok
    page.goto(f"{studio.url}/commission/{made['id']}")
    page.get_by_role("button", name="Hang it before it is cut").click()
    room = page.get_by_test_id("hang")
    expect(room).to_have_attribute("data-state", "rest", timeout=180_000)
    left, right = (room.get_by_role("region", name=f"The hem on her {side}") for side in ("left", "right"))
    assert left.get_by_role("row").nth(5).inner_text() != right.get_by_role("row").nth(5).inner_text()
    words = room.get_by_test_id("hang-words")
    expect(words).to_contain_text("Her left and her right are not alike: each is hung as if the other were like it.")
    expect(room.get_by_role("img", name="The dress on her form", exact=True)).to_be_visible()


def test_other_fullnesses_are_hung_beside_it(page, studio):
    open_commission(page, studio, "Market-day dress")
    page.get_by_role("button", name="Hang it before it is cut").click()
    room = page.get_by_test_id("hang")
    expect(room).to_have_attribute("data-state", "rest", timeout=180_000)
    room.get_by_role("button", name="Hang them beside it").click()
    beside = room.get_by_test_id("beside")
    expect(beside).to_have_count(3)
    hems = []
    for k, said in enumerate(("9.0 cm of flare a side (this one)", "7.0 cm of flare", "12.0 cm of flare")):
        expect(beside.nth(k)).to_contain_text(said)
        expect(beside.nth(k)).to_have_attribute("data-state", "rest", timeout=180_000)
        expect(beside.nth(k).get_by_role("img")).to_be_visible()
        hems.append(float(beside.nth(k).locator("dd").first.inner_text().removesuffix(" cm")))
    this, less, more = hems
    assert less < this < more
