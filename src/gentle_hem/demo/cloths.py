"""The demo studio's shelf of cloths, and which dress is cut from which; all of it is invented."""

from __future__ import annotations

from typing import Any

SHELF: dict[str, dict[str, Any]] = {
    "Bone calico": {"width": "150cm", "selvedge": "1cm", "in_hand": "22m", "price": 4.2, "weight": "medium",
                    "drape": "crisp", "shrinks": 4, "colour": "#e9e0cb"},
    "Harbour wool": {"width": "148cm", "selvedge": "1.5cm", "in_hand": "3.4m", "price": 31, "weight": "heavy",
                     "drape": "soft", "shrinks": 2, "colour": "#39455c"},
    "Lantern silk": {"width": "112cm", "selvedge": "0.5cm", "in_hand": "6m", "price": 38.5, "weight": "light",
                     "drape": "limp", "colour": "#c8763b"},
    "Tide crepe": {"width": "140cm", "selvedge": "1cm", "in_hand": "4.5m", "price": 18.9, "weight": "light",
                   "drape": "soft", "shrinks": 2, "colour": "#6f93a0"},
    "Schoolroom check": {"width": "57in", "selvedge": "1/2in", "in_hand": "7m", "price": 12.5, "weight": "medium",
                         "drape": "crisp", "repeat_along": "3in", "repeat_across": "3in", "shrinks": 3,
                         "colour": "#8d5f52"},
    "Slate poplin": {"width": "45in", "selvedge": "3/8in", "in_hand": "9m", "price": 8.75, "weight": "medium",
                     "drape": "crisp", "shrinks": 3, "colour": "#5a6a6e"},
    "Chalk linen": {"width": "54in", "selvedge": "1/2in", "in_hand": "5m", "price": 21, "weight": "medium",
                    "drape": "soft", "shrinks": 6, "colour": "#cfc9bb"},
    "Net curtain hexagon": {"width": "150cm", "in_hand": "12m", "price": 5.4, "weight": "net", "drape": "crisp",
                            "across": 10, "colour": "#dcd9e4"},
    "Thunder velvet": {"width": "145cm", "selvedge": "1cm", "in_hand": "5.5m", "price": 44, "weight": "heavy",
                       "drape": "soft", "nap": "one_way", "shrinks": 1, "colour": "#4a2d3e"},
    "Reed stripe": {"width": "138cm", "selvedge": "1cm", "in_hand": "6m", "price": 14.2, "weight": "light",
                    "drape": "soft", "repeat_across": "4.5cm", "shrinks": 3, "colour": "#a9b388"},
    "Wave border lawn": {"width": "130cm", "selvedge": "0.5cm", "in_hand": "8m", "price": 16.8, "weight": "light",
                         "drape": "soft", "border": "22cm", "nap": "one_way", "shrinks": 3, "colour": "#9fb9c9"},
    "Grey lining twill": {"width": "140cm", "selvedge": "1cm", "in_hand": "15m", "price": 6.1, "weight": "light",
                          "drape": "limp", "shrinks": 1, "colour": "#a7a5a0"},
    "Fusible cotton": {"width": "90cm", "in_hand": "10m", "price": 7.3, "weight": "light", "drape": "crisp",
                       "colour": "#eceae4"},
}  # fmt: skip

CUT_FROM: dict[str, str] = {
    "Kite dress": "Tide crepe",
    "Lantern dress": "Lantern silk",
    "Lighthouse picnic blouse": "Bone calico",
    "Schoolmistress's dress": "Slate poplin",
    "Chalk-dust pinafore": "Schoolroom check",
    "Schoolroom pinafore": "Chalk linen",
    "Harbour master's suit dress": "Harbour wool",
    "Peplum jacket-blouse": "Harbour wool",
    "Harbour dance dress": "Reed stripe",
    "Mermaid finale gown": "Tide crepe",
    "Storm queen's gown": "Thunder velvet",
    "Ball gown": "Thunder velvet",
    "Tiered beach dress": "Wave border lawn",
    "Market-day dress": "Reed stripe",
    "Sundress": "Wave border lawn",
    "Lighthouse keeper's jumpsuit": "Slate poplin",
    "Tide dance dress": "Tide crepe",
    "Fisher chorus dress": "Bone calico",
    "Midsummer dance dress": "Reed stripe",
}
"""Which cloth each dress is cut from, by its title."""


def cloths_for(title: str) -> dict[str, Any]:
    """The cloths of a dress: what it is cut from, the studio's lining and its interfacing."""
    roles = {"outer": CUT_FROM[title], "lining": "Grey lining twill", "interfacing": "Fusible cotton"}
    return {role: {**SHELF[name], "name": name} for role, name in roles.items()}


LEARNT: tuple[tuple[str, str, int, str, str, str], ...] = (
    ("Bone calico", "shrinkage", 210, "100cm", "95cm", "boiled, tumbled"),
    ("Bone calico", "marking", 150, "", "", "Blue chalk stays for ever; pencil washes out."),
    ("Chalk linen", "shrinkage", 180, "100cm", "93.5cm", "washed at 40, line dried"),
    ("Chalk linen", "pressing", 175, "", "", "Damp and hot from the right side, under a cloth."),
    ("Lantern silk", "growth on the bias", 120, "60cm", "62.4cm", "hung two days on the stand"),
    ("Lantern silk", "fraying", 120, "", "", "At a look; French seams."),
    ("Tide crepe", "growth on the bias", 95, "70cm", "71.4cm", "hung over a weekend"),
    ("Tide crepe", "shrinkage", 96, "100cm", "97.5cm", "steamed only"),
    ("Harbour wool", "pressing", 80, "", "", "A cloth between, or it shines."),
    ("Thunder velvet", "pressing", 60, "", "", "Never flat: over a needle board, or steamed hanging."),
    ("Reed stripe", "shrinkage", 45, "100cm", "97cm", "washed at 30"),
    ("Net curtain hexagon", "something else", 30, "", "", "Melts under a warm iron; tear-off paper under the seam."),
)
"""What was learnt of them: the kind, so many days ago, lengths before and after, and what was written down."""
