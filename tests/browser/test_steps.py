"""Steps at the bench: done by choosing, told in a sentence, moved, left off, broken and mended."""

import re

from playwright.sync_api import expect

from server import get
from workbench import add_to, choose, numbered, open_commission, open_stage, shown, type_word, word

TITLE = "Midsummer dance dress"


def kept(studio):
    return get(studio, f"/api/commissions/{numbered(studio, TITLE)}")["recipe"]["steps"]


def test_steps_are_done_moved_left_off_broken_and_mended(page, studio):
    open_commission(page, studio, TITLE)
    add_to(page, "Do to the pieces", "lower_end")
    expect(page.get_by_role("heading", name="Lower or raise the end of an edge")).to_be_visible()
    add_to(page, "Do to the pieces", "line")
    # broken by one of its words, and the sentence says so where it stands
    choose(page, "steps.1.end", "shoulder")
    broken = page.get_by_text("This cannot be done: cut along a line. It would begin and end on one edge")
    expect(broken).to_be_visible()
    # mended by its words: across the back, from the centre to the armhole
    choose(page, "steps.1.on", "back")
    choose(page, "steps.1.start", "centre")
    choose(page, "steps.1.start_share", "a quarter")
    choose(page, "steps.1.end", "armhole")
    expect(broken).to_be_hidden()
    expect(page.locator('[data-piece="back yoke"]')).to_be_visible()
    # its edges light up with its sentence
    lit = page.locator('[data-piece="back yoke"] [data-lit]')
    page.locator('[id="part-steps.1"]').hover()
    page.mouse.move(5, 5)
    expect(lit).to_have_count(0)
    page.locator('[id="part-steps.1"]').hover()
    expect(lit).not_to_have_count(0)
    # moved before the other, and left off for a while
    page.get_by_role("button", name="Make up earlier: Cut along a line").click()
    expect(word(page, "steps.0.bow")).to_be_visible()
    page.get_by_role("button", name="Leave off: Cut along a line").click()
    expect(page.locator('[data-piece="back yoke"]')).to_be_hidden()
    expect(page.get_by_text("left off", exact=True)).to_be_visible()
    page.get_by_role("button", name="Do again: Cut along a line").click()
    expect(page.locator('[data-piece="back yoke"]')).to_be_visible()
    page.get_by_role("button", name="Take away: Lower or raise the end of an edge").click()
    expect(page.get_by_role("heading", name="Lower or raise the end of an edge")).to_be_hidden()
    expect(page.get_by_test_id("saved")).to_have_text(re.compile(r"^saved \d\d:\d\d$"))
    page.reload()
    expect(page.locator('[data-piece="back yoke"]')).to_be_visible()
    assert [step["kind"] for step in kept(studio)] == ["line"]


def test_a_step_is_done_on_one_side_alone(page, studio):
    open_commission(page, studio, TITLE)
    add_to(page, "Do to the pieces", "neckline")
    step = page.locator('[id="part-steps.0"]')
    expect(word(page, "steps.0.aside")).to_be_hidden()  # it says what is usual, and waits
    step.get_by_role("button", name="more …").click()
    type_word(page, "steps.0.aside", "3 cm").press("Enter")
    choose(page, "steps.0.toward", "right")
    front = page.locator('[data-piece="bodice front"]')
    step.hover()
    expect(front.locator("[data-lit]")).to_have_count(2)  # what is left of the centre, and what is right of it
    add_to(page, "Do to the pieces", "let_out")
    choose(page, "steps.1.on", "back")
    choose(page, "steps.1.side", "her left alone")
    expect(page.locator('[data-piece="bodice back other"]')).to_be_visible()
    page.get_by_role("button", name="Leave off: Let out or take in a seam").click()
    expect(page.locator('[data-piece="bodice back other"]')).to_be_hidden()


def test_pieces_are_cut_in_one_over_a_seam_and_the_waist_is_moved(page, studio):
    open_commission(page, studio, TITLE)
    add_to(page, "Do to the pieces", "princess")
    expect(page.locator('[data-piece="bodice side front"]')).to_be_visible()
    add_to(page, "Do to the pieces", "join")
    panel = page.locator('[data-piece="bodice side"]')
    expect(panel).to_be_visible()
    expect(page.locator('[data-piece="bodice side front"]')).to_be_hidden()
    add_to(page, "Do to the pieces", "waist_level")
    refused = page.get_by_text("move it before that")
    expect(refused.first).to_be_visible()
    for place in (1, 0):
        page.get_by_role("button", name="Make up earlier: Move the waist").click()
        expect(page.locator(f'[data-word="steps.{place}.by"]')).to_be_visible()
    expect(refused).to_have_count(0)
    expect(panel).to_be_visible()


def test_a_step_is_typed_by_keyboard_alone_and_undone(page, studio):
    open_commission(page, studio, TITLE)
    open_stage(page, "bodice")
    form = page.get_by_role("form", name="Do to the pieces")
    form.locator("select").focus()
    page.keyboard.type("Lower or")
    expect(form.locator("select")).to_have_value("lower_end")
    expect(word(page, "steps.0.amount")).to_be_hidden()
    page.keyboard.press("Tab")
    page.keyboard.press("Enter")
    expect(word(page, "steps.0.amount")).to_be_visible()
    field = type_word(page, "steps.0.amount", "2.5 cm")
    field.press("Enter")
    expect(word(page, "steps.0.amount")).to_have_text("2.5 cm")
    page.get_by_role("button", name="Undo").click()
    expect(word(page, "steps.0.amount")).to_have_text("1.0 cm")
    page.get_by_role("button", name="Undo").click()
    expect(word(page, "steps.0.amount")).to_be_hidden()


SUNDRESS = "Sundress"


def by_keyboard(page, path, typed):
    """A word reached and typed over without the mouse."""
    shown(page, path).focus()
    page.keyboard.press("Enter")
    page.get_by_role("dialog").get_by_role("textbox").fill(typed)
    page.keyboard.press("Enter")
    page.keyboard.press("Escape")


def test_a_princess_bodice_laced_to_its_basque_is_built_by_steps(page, studio):
    """The eighth of the combinations, from a drafted block: seams, a yoke behind, lacing by keyboard, a basque."""
    open_commission(page, studio, SUNDRESS)
    add_to(page, "Do to the pieces", "princess")
    expect(page.locator('[data-piece="bodice side back"]')).to_be_visible()
    add_to(page, "Do to the pieces", "line")
    choose(page, "steps.1.on", "back")
    choose(page, "steps.1.start", "princess seam")
    choose(page, "steps.1.end", "armhole")
    expect(page.locator('[data-piece="back yoke"]')).to_be_visible()
    # the lacing by keyboard alone
    open_stage(page, "bodice")
    form = page.get_by_role("form", name="Do to the pieces")
    form.locator("select").focus()
    page.keyboard.type("Laced")
    expect(form.locator("select")).to_have_value("laced")
    page.keyboard.press("Tab")
    page.keyboard.press("Enter")
    expect(page.locator('[data-piece="back lacing strip"]')).to_be_visible()
    by_keyboard(page, "steps.2.width", "9 cm")
    expect(word(page, "steps.2.width")).to_have_text("9.0 cm")
    # moved before the yoke: the loops stay on the centre back
    page.get_by_role("button", name="Make up earlier: Laced opening").click()
    expect(word(page, "steps.1.width")).to_have_text("9.0 cm")
    expect(page.locator('[data-piece="back lacing strip"]')).to_be_visible()
    # broken by a word, said beside it, and mended by another
    by_keyboard(page, "steps.1.width", "24 cm")
    broken = page.get_by_text("This cannot be done: laced opening. Its top edge is narrower than the opening.")
    expect(broken).to_be_visible()
    expect(page.locator('[data-piece="back lacing strip"]')).to_be_hidden()
    by_keyboard(page, "steps.1.width", "8 cm")
    expect(broken).to_be_hidden()
    # the basque, and the skirt follows its point
    add_to(page, "Do to the pieces", "ends")
    expect(page.get_by_text("The front is cut into panels by then; move it before that.")).to_be_visible()
    for place in (2, 1, 0):
        page.get_by_role("button", name="Make up earlier: Where the bodice ends").click()
        expect(word(page, f"steps.{place}.where")).to_be_visible()
    expect(page.get_by_text("The front is cut into panels by then")).to_be_hidden()
    expect(page.get_by_test_id("ribbon")).to_contain_text("meet")
    expect(page.get_by_test_id("saved")).to_have_text(re.compile(r"^saved \d\d:\d\d$"))
    recipe = get(studio, f"/api/commissions/{numbered(studio, SUNDRESS)}")["recipe"]
    assert [step["kind"] for step in recipe["steps"]] == ["ends", "princess", "laced", "line"]
    assert (recipe["steps"][2]["width"], recipe["steps"][0]["where"]) == (80, "basque")


def test_steps_are_kept_by_name_and_done_to_another_dress(page, studio):
    open_commission(page, studio, "Mermaid finale gown")
    open_stage(page, "bodice")
    keep = page.get_by_role("form", name="Keep")
    keep.get_by_label("Keep these steps as…").fill("Finale lines")
    keep.get_by_role("button", name="Keep").click()
    expect(page.get_by_text("Kept as Finale lines: 3 steps.")).to_be_visible()
    # another dress, drafted by another school for another figure
    open_commission(page, studio, "Market-day dress")
    add_to(page, "Do to the pieces", "hollow")
    form = page.get_by_role("form", name="Do steps kept before")
    form.locator("select").select_option("Finale lines")
    expect(page.get_by_text("Neckline, Princess seam, Princess seam")).to_be_visible()
    form.get_by_role("button", name="Do them").click()
    expect(page.get_by_text("3 steps added at the end.")).to_be_visible()
    expect(word(page, "steps.2.shape")).to_have_text("a sweetheart")
    page.get_by_role("button", name="Undo").click()
    expect(word(page, "steps.2.shape")).to_be_hidden()
    form.locator("select").select_option("Finale lines")
    page.get_by_role("button", name="Give this list up").click()
    expect(page.get_by_text("Finale lines is no longer kept.")).to_be_visible()
    assert get(studio, "/api/step-lists") == []


def test_the_two_pieces_of_a_seam_are_laid_together(page, studio):
    open_commission(page, studio, TITLE)
    page.get_by_label("Which seam").select_option("bodice side seam")
    page.get_by_role("button", name="Lay together").click()
    dialog = page.get_by_role("dialog")
    expect(dialog).to_contain_text("Laid together")
    expect(dialog.get_by_test_id("laid-together").locator("path")).to_have_count(4)
    expect(dialog).to_contain_text("bodice front")
    page.keyboard.press("Escape")
    expect(dialog).to_be_hidden()
    page.get_by_label("Which seam").select_option("waist seam")
    page.get_by_role("button", name="Lay together").click()
    expect(page.get_by_role("dialog")).to_contain_text("several pieces")
