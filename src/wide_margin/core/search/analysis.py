"""Words of a text and the terms they are compared by."""

import re
from collections import Counter
from collections.abc import Iterator
from itertools import pairwise

import snowballstemmer

from wide_margin.core.layout import UNSPACED, fold

_WORD = re.compile(r"[^\W_]+(?:[-'’_.@/+][^\W_]+)*[+#]{0,2}|[^\W_]+")
_PART = re.compile(r"[^\W_]+")

_COMMON = {
    "en": """a about above after again against all also am an and any are aren't as at be because been
        before being below between both but by can can't cannot could couldn't did didn't do does
        doesn't doing don't done down during each either else ever every few for from further get gets
        give given goes going got had has have having he her here hers him his how i i'm if in into is
        isn't it its it's itself just let like made make makes many may me might more most much must my
        neither no nor not of off on once one ones only or other our ours out over own per please put
        rather same say says shall she should since so some still such than that the their them then
        there there's these they thing things this those through thus to too under until up upon us use
        used uses using very was we were what what's when where whether which while who whom whose why
        will with within without would yes yet you your yours happens happen tell mean means meaning
        called does shouldn't wouldn't hasn't haven't hadn't weren't wasn't mustn't needn't mightn't
        i've i'd i'll you're you've you'd you'll he's she's we're we've they're they've that's what's who's
        how's let's here's""",
    "de": """aber alle als also am an auch auf aus bei bin bis bist da damit dann das dass dem den denn
        der des die dies diese dieser dieses doch dort du durch ein eine einem einen einer eines er es
        für gibt haben hat hatte hier ich ihr ihre im in ist ja jede jeder kann kein keine können man
        mehr mit muss nach nicht noch nur ob oder ohne sein seine sich sie sind so soll über um und uns
        unter vom von vor war waren warum was welche welcher welches wenn wer werden wie wird wo wurde
        wurden zu zum zur""",
    "fr": """a à ai au aux avec c ce ces cet cette comme comment d dans de des donc du elle elles en es
        est et être eu fait faut il ils j je l la le les leur leurs lui m ma mais me même mes moi mon n
        ne nos notre nous on ont ou où par pas peut plus pour pourquoi qu quand que quel quelle quelles
        quels qui quoi s sa sans se ses si son sont sur t ta te tes toi ton tous tout toute tu un une
        vos votre vous y""",
    "es": """a al algo como cómo con cual cuál cuales cuando cuándo de del desde donde dónde e el él ella
        ellas ellos en entre era es esa ese eso esta está este esto fue ha han hay la las le les lo los
        más me mi muy no nos o para pero por porque qué que quien quién se ser si sí sin sobre son su sus
        también te tiene tu un una uno unos y ya""",
    "it": """a ad al alla alle anche che chi ci come con cosa da dal dalla dei del della delle di dove e è
        ed era essere fra gli ha hanno i il in io la le lo loro ma mi nel nella non o per perché più quale
        quando quanto questo se si sono su sua suo sul tra un una uno""",
    "pt": """a ao aos as às até com como da das de do dos e é ela ele em entre era essa esse esta está
        este eu foi há isso já mais mas me na nas não no nos o onde os ou para pela pelo por porque qual
        quando que quem se sem ser seu sua são só também tem um uma""",
    "nl": """aan al als bij dan dat de den der die dit door een en er haar had heb heeft het hij hoe hun
        ik in is kan maar me men met mij na naar niet nog of om ook op over te tot uit van voor waar
        waarom wanneer was wat we wel welke wie wij wordt ze zich zij zijn zo""",
}  # fmt: skip
_SCRIPTS = {
    "zh": re.compile("[\u4e00-\u9fff]"), "ja": re.compile("[\u3040-\u30ff]"),
    "ko": re.compile("[\uac00-\ud7af]"), "ru": re.compile("[\u0400-\u04ff]"),
    "el": re.compile("[\u0370-\u03ff]"), "ar": re.compile("[\u0600-\u06ff]"),
    "he": re.compile("[\u0590-\u05ff]"),
}  # fmt: skip
_COMMON_WORDS = {language: frozenset(words.split()) for language, words in _COMMON.items()}
_STEMMERS = {"en": "english", "de": "german", "fr": "french", "es": "spanish",
             "it": "italian", "pt": "portuguese", "nl": "dutch"}  # fmt: skip
_BRITISH = (("isation", "ization"), ("ise", "ize"), ("ising", "izing"), ("ised", "ized"),
            ("our", "or"), ("ogue", "og"), ("licence", "license"), ("centre", "center"),
            ("metre", "meter"), ("litre", "liter"), ("grey", "gray"), ("programme", "program"))  # fmt: skip
_BRITISH_ENDS = tuple(british for british, _ in _BRITISH)


_UNSPACED_RUN = re.compile(f"[{UNSPACED}]+")


def find_words(text: str) -> list[str]:
    """The words of a text that is in small letters already.

    Where a script puts no blanks between words, every two signs that follow each other are one:
    what is asked for and what is written then meet without a dictionary.
    """
    return _WORD.findall(text if text.isascii() else _in_pairs(text))


def _in_pairs(text: str) -> str:
    return _UNSPACED_RUN.sub(_pairs, text)


def _pairs(match: re.Match[str]) -> str:
    run = match[0]
    return f" {' '.join(a + b for a, b in pairwise(run)) if len(run) > 1 else run} "


def words(text: str) -> Iterator[str]:
    """The words of a text in order, in small letters; compounds whole ("unwind_protect")."""
    for match in _WORD.finditer(text if text.isascii() else _in_pairs(text)):
        yield match.group().lower()


def guess_language(sample: str) -> str:
    """The language whose small words are most frequent in a text, as its code.

    "en", "de", "fr" and so on; English where the text has none of them.
    """
    if (script := _by_script(sample)) is not None:
        return script
    counts = Counter(words(sample))
    scores = {
        language: sum(counts[word] for word in common) for language, common in _COMMON_WORDS.items()
    }
    best = max(scores, key=lambda language: scores[language])
    return best if scores[best] > 0 else "en"


def _by_script(sample: str) -> str | None:
    """The language that a script of its own tells; None for Latin letters."""
    counts = Counter({code: len(letters.findall(sample)) for code, letters in _SCRIPTS.items()})
    n_letters = sum(map(str.isalpha, sample))
    code, most = counts.most_common(1)[0]
    if most <= 0.3 * n_letters or not most:
        return "ja" if counts["ja"] > 0.05 * n_letters else None
    # Japanese has the signs of Chinese beside its own.
    return "ja" if code == "zh" and counts["ja"] > 0.05 * n_letters else code


def is_common(word: str, language: str = "en") -> bool:
    """Whether a word is one of the small words that carry no topic."""
    return word.replace("’", "'") in _COMMON_WORDS.get(language, frozenset())


def common_words(language: str) -> frozenset[str]:
    """The small words of a language; none where it is not known."""
    return _COMMON_WORDS.get(language, frozenset())


class Analyser:
    """Turns words to terms in one language; remembers every word it has seen."""

    def __init__(self, language: str = "en") -> None:
        """Choose the stemmer (Snowball: Porter 2001) for a language, English if unknown."""
        self.language = language if language in _STEMMERS else "en"
        self._stemmer = snowballstemmer.stemmer(_STEMMERS[self.language])
        self._known: dict[str, tuple[str, ...]] = {}

    def __reduce__(self) -> tuple[type["Analyser"], tuple[str]]:
        """Pickle by language alone; the words are learned again."""
        return (Analyser, (self.language,))

    def terms_of(self, word: str) -> tuple[str, ...]:
        """The terms of one word: its stem first, then the stems of its parts if a compound."""
        known = self._known.get(word)
        if known is None:
            known = self._known[word] = self._analyse(word)
        return known

    def terms(self, text: str) -> list[str]:
        """All terms of a text in order."""
        return [term for word in words(text) for term in self.terms_of(word)]

    def _analyse(self, word: str) -> tuple[str, ...]:
        plain = fold(word).replace("'s", "").strip("'")
        parts = _PART.findall(plain)
        if len(parts) < 2:
            return (self._stem(plain),) if plain else ()
        if plain.replace(".", "").replace("/", "").isdigit():
            return (plain,)  # a number with decimals stays whole
        stems = [self._stem(part) for part in parts]
        return ("".join(stems), *stems)

    def _stem(self, word: str) -> str:
        if self.language == "en" and word.endswith(_BRITISH_ENDS):
            for british, american in _BRITISH:
                if word.endswith(british) and len(word) > len(british) + 2:
                    word = word[: -len(british)] + american
                    break
        stem: str = self._stemmer.stemWord(word)
        return stem
