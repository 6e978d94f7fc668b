"""Text whose letters come as dingbats, and dingbats that are none."""

import pytest

from wide_margin.core.pages.named_codes import with_named_codes


@pytest.mark.parametrize(
    ("signs", "text"),
    [
        ("✶ ■♥tr♦❞✉❝t✐♦♥ t♦ t❤❡ ✇❡❧❧s ♦❢ t❤❡ ✈❛❧❧❡②",
         "1 Introduction to the wells of the valley"),
        ("❚❤❡ ❦❡❡♣❡r ✜♥❞s ❛ ❞✐✛❡r❡♥t r♦♣❡ ❛♥❞ ❛ ❜✉❝❦❡t",
         "The keeper \x1cnds a di\x1berent rope and a bucket"),
    ],
)  # fmt: skip
def test_letters_called_after_their_codes_are_read(signs, text):
    assert with_named_codes(signs) == text


@pytest.mark.parametrize(
    "text",
    [
        "The keeper finds a rope and a bucket, and ticks them off: ✓ ✓ ✗ ✓ ✗ ✗ ✓",
        "✁✂✄☎✆✝✞✟✠✡☛☞✌✍✎✏✑✒✓✔✕✖✗✘✙✚✛✜✢✣✤✥✦✧★✩✪✫✬✭✮✯✰✱✲✳✴✵✶✷✸✹✺✻✼✽✾✿❀",
        "❛❜❝❞❡❢❣❤✐❥❦❧♠♥♦♣✉✈✇",
        "♥ ♦ ♣ ♠",
        "",
    ],
)
def test_signs_that_are_meant_stay(text):
    assert with_named_codes(text) == text
