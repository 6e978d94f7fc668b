"""Letters of fonts whose glyphs are called after their codes, read as the signs of another font.

A font of bitmaps without a table of meanings may call its glyphs "a97", "a98"; of these names the
dingbats of Adobe's list have most, and a text set in it comes as a row of stars and arrows.
"""

from wide_margin.core.later import regex

_STRETCHES = {
    1: "✁✂✄☎✆✝✞✟✠✡☛☞✌✍✎✏✑✒✓✔✕✖✗✘✙✚✛✜✢✣✤✥✦✧★✩✪✫✬✭✮✯✰✱✲✳✴✵✶✷✸✹✺✻✼✽✾✿❀❁❂❃❄❅❆❇❈❉❊❋●❍■❏❑▲▼◆❖",
    81: "◗❘❙❚",
    85: "❯❱❲❳❨❩❬❭❪❫❴❵",
    97: "❛❜❝❞❡❢❣❤✐❥❦❧♠♥♦♣",
    117: "✉✈✇①②③④⑤⑥⑦⑧⑨⑩❶❷❸❹❺❻❼",
}
"""The signs that the list gives to "a1" and its like, each stretch from its first number on."""
_LETTERS = {
    ord(sign): chr(first + k) for first, signs in _STRETCHES.items() for k, sign in enumerate(signs)
}
_SIGN = regex("[" + "".join(map(chr, _LETTERS)) + "]")
MANY, LEAST = 0.3, 20
"""Share of a page's signs, and their number, from which they are letters."""
VOWELS = 0.25
"""Share of the letters that are vowels, in any language; in the table of a font fewer are."""


def with_named_codes(chars: str) -> str:
    """A page's characters with such signs as the letters that their codes stand for.

    Ligatures become the control codes that they have in TeX's fonts. A page of real dingbats stays
    as it is: what they would stand for is no text.

    Source:
        Adobe Glyph List, ITC Zapf Dingbats (zapfdingbats.txt).
    """
    if chars.isascii() or not _SIGN.search(chars):  # nearly every page
        return chars
    n_signs = sum(not sign.isspace() for sign in chars)
    if len(_SIGN.findall(chars)) < max(LEAST, MANY * n_signs):
        return chars
    read = chars.translate(_LETTERS)
    letters = [letter for letter in read.lower() if "a" <= letter <= "z"]
    n_vowels = sum(letter in "aeiou" for letter in letters)
    is_text = 2 * len(letters) > n_signs and n_vowels >= VOWELS * len(letters)
    return read if is_text else chars
