"""Measuring at the drawn body, by keyboard and with the simulated tape; and a block of one's own brought in."""

from datetime import date, timedelta

from playwright.sync_api import expect

from conftest import drafted_recipe
from gentle_hem.core.make_up import make_up
from gentle_hem.devices.person import TAPE_PERSON
from gentle_hem.formats.files import FILE_WRITERS, Order
from workbench import open_commission, open_stage, word


def field(page, key, which="measures"):
    return page.locator(f'[data-measure="{which}.{key}"]')


def measure(page, studio, title="Sundress"):
    open_commission(page, studio, title)
    open_stage(page, "figure")
    page.get_by_role("button", name="Measure", exact=True).focus()
    page.keyboard.press("Enter")


def test_a_figure_is_measured_by_keyboard_only(page, studio):
    measure(page, studio)
    field(page, "neck_girth").focus()
    for typed in ("37,5", "99 cm", "104", "88", "33 7/8in"):
        page.keyboard.type(typed)
        page.keyboard.press("Enter")
    expect(field(page, "high_hip_girth")).to_be_focused()
    expect(page.get_by_test_id("how")).to_contain_text("10 cm (4 in) below the waist")
    expect(page.locator("svg[data-held]")).to_have_attribute("data-held", "high_hip_girth")
    expect(word(page, "figure.measures.waist_girth")).to_have_text("86.0 cm")
    page.keyboard.type("many")
    expect(page.get_by_role("alert").filter(has_text="many").first).to_be_visible()
    expect(field(page, "high_hip_girth")).to_have_value("many")
    page.keyboard.press("Control+a")
    page.keyboard.type("101")
    for _ in range(2):
        page.keyboard.press("Enter")
    page.keyboard.press("Enter")
    expect(page.get_by_role("tab", name="Across")).to_have_attribute("aria-selected", "true")
    expect(field(page, "shoulder_width")).to_be_focused()


def test_two_readings_are_kept_and_questioned(page, studio):
    measure(page, studio)
    field(page, "waist_girth", "second").fill("88.5")
    expect(page.get_by_text("Two readings of the waist girth are 2.5 cm apart").first).to_be_visible()
    field(page, "waist_girth", "second").fill("86.6")
    expect(page.get_by_text("Two readings of the waist girth")).to_have_count(0)


def test_what_is_typed_is_not_rewritten_while_the_field_is_held(page, studio):
    measure(page, studio)
    waist = field(page, "waist_girth", "second")
    waist.fill("88")
    expect(page.get_by_text("Two readings of the waist girth are 2.0 cm apart").first).to_be_visible()
    expect(waist).to_have_value("88")
    page.keyboard.type(".5")
    expect(page.get_by_text("Two readings of the waist girth are 2.5 cm apart").first).to_be_visible()
    page.keyboard.press("Tab")
    expect(waist).to_have_value("88.5 cm")


def test_the_simulated_tape_fills_the_next_empty_measure_and_may_be_clumsy(page, demo):
    measure(page, demo)
    press = page.get_by_role("button", name="Press the tape")
    heard = page.get_by_test_id("heard")
    press.click()
    expect(field(page, "neck_girth")).to_have_value("36.2 cm")
    press.click()
    expect(field(page, "upper_bust_girth")).to_have_value("90.5 cm")
    expect(page.locator('[data-finding="simulated-reading"]')).to_have_count(2)
    manner = page.get_by_label("How the simulated tape behaves")
    manner.select_option("dropout")
    press.click()
    expect(heard).to_have_text("Nothing came through. Hold it again and press.")
    expect(field(page, "under_bust_girth")).to_have_value("")
    manner.select_option("double")
    press.click()
    expect(heard).to_contain_text("It came twice and was taken once.")
    expect(field(page, "under_bust_girth")).to_have_value("81.2 cm")
    expect(field(page, "high_hip_girth")).to_have_value("")
    manner.select_option("wrong_unit")
    press.click()
    high_hip = TAPE_PERSON["high_hip_girth"] / 25.4
    expect(field(page, "high_hip_girth")).not_to_have_value("")
    shown = float(field(page, "high_hip_girth").input_value().split()[0])
    assert abs(shown - high_hip) < 1, "a bare number in inches taken for centimetres"


def test_the_tape_pressed_before_the_measures_are_in_takes_the_first_of_them(page, demo):
    held = []
    page.route("**/api/measures", lambda route: held.append(route))
    measure(page, demo)
    press = page.get_by_role("button", name="Press the tape")
    press.click()
    expect(press).to_be_disabled()
    expect(page.get_by_test_id("heard")).to_be_empty()
    for route in held:
        route.continue_()
    expect(field(page, "neck_girth")).to_have_value("36.2 cm")


def test_sets_are_dated_kept_and_compared(page, studio):
    measure(page, studio, "Midsummer dance dress")
    last = date.fromisoformat(page.get_by_label("Taken on").input_value())
    page.get_by_label("Taken on").fill(str(last + timedelta(days=18)))
    expect(field(page, "waist_girth")).to_have_value("68.0 cm")
    field(page, "waist_girth").fill("73")
    expect(word(page, "figure.measures.waist_girth")).to_have_text("73.0 cm")
    page.get_by_label("Compare with").select_option(index=1)
    rows = page.get_by_test_id("sets-compared")
    expect(rows.get_by_role("row", name="waist girth")).to_contain_text("+5.0 cm")
    expect(page.get_by_text("The waist girth changed by 5.0 cm in 18 days; measure it again.")).to_be_visible()
    page.get_by_role("button", name="Keep as a dated set").click()
    expect(page.get_by_text("Kept. Earlier sets stay as they are.")).to_be_visible()


def test_measures_go_out_as_a_table_and_come_back(page, studio, tmp_path):
    measure(page, studio, "Midsummer dance dress")
    with page.expect_download() as download:
        page.get_by_role("button", name="As a table").click()
    table = tmp_path / "measures.csv"
    table.write_text(download.value.path().read_text().replace("waist_girth,68", "waist_girth,69.5"))
    page.get_by_label("From a table").set_input_files(table)
    expect(field(page, "waist_girth")).to_have_value("69.5 cm")
    page.get_by_label("Start from the size of bust").fill("93")
    page.get_by_role("button", name="Start", exact=True).click()
    expect(field(page, "bust_girth")).to_have_value("92.0 cm")


def test_a_block_of_ones_own_is_brought_in_and_its_edges_named(page, studio, tmp_path):
    recipe = drafted_recipe("two_lengths")
    file = tmp_path / "my block.svg"
    file.write_bytes(FILE_WRITERS["pieces.svg"](Order(recipe, make_up(recipe))))
    open_commission(page, studio, "Harbour dance dress")
    open_stage(page, "bodice")
    page.get_by_role("button", name="Bring in a block").click()
    page.get_by_label("File", exact=True).set_input_files(file)
    edges = page.get_by_role("dialog").get_by_label("front, edge 1")
    expect(edges).not_to_have_value("")
    page.get_by_role("button", name="Take this block").click()
    expect(page.get_by_role("heading", name="A block of your own")).to_be_visible()
    expect(page.get_by_test_id("ribbon")).to_contain_text("76.0 cm")


def test_nonsense_is_refused_in_a_sentence(page, studio, tmp_path):
    file = tmp_path / "block.doc"
    file.write_bytes(b"not a block")
    open_commission(page, studio, "Harbour dance dress")
    open_stage(page, "bodice")
    page.get_by_role("button", name="Bring in a block").click()
    page.get_by_label("File", exact=True).set_input_files(file)
    expect(page.get_by_role("alert")).to_have_text(
        "block.doc is not a file I can read; SVG, DXF, PDF and garment.json are accepted."
    )


HOLD_AN_ANSWER = """
  const send = window.fetch;
  let release = null;
  window.fetch = async (request) => {
    const answer = await send(request);
    const now = document.body.dataset;
    if (!request.url.includes("/api/bench") || now.answer !== "hold") return answer;
    const body = await answer.text();
    now.answer = "held";
    await new Promise((go) => (release = go));
    const read = { text: async () => body, json: async () => JSON.parse(body) };
    return Object.assign(new Response(body, answer), read);
  };
  const watch = new MutationObserver(() => {
    if (document.querySelector("[data-testid=heard]")?.textContent && release) {
      document.body.dataset.answer = "released";
      release();
      watch.disconnect();
    }
  });
  watch.observe(document, { childList: true, characterData: true, subtree: true });
"""


def test_an_answer_that_comes_with_a_change_does_not_take_it_back(page, studio, tmp_path):
    """The answer to an earlier change is let through in the very moment the table's measures are taken in."""
    page.add_init_script(HOLD_AN_ANSWER)
    measure(page, studio, "Midsummer dance dress")
    page.evaluate("document.body.dataset.answer = 'hold'")
    field(page, "hip_girth").fill("95")
    expect(page.locator("body[data-answer=held]")).to_be_attached()
    table = tmp_path / "measures.csv"
    table.write_text("measure,cm\nwaist_girth,69.5\n")
    page.get_by_label("From a table").set_input_files(table)
    expect(page.locator("body[data-answer=released]")).to_be_attached()
    expect(word(page, "figure.measures.waist_girth")).to_have_text("69.5 cm")
    expect(word(page, "figure.measures.hip_girth")).to_have_text("95.0 cm")
