"""Words of a text and the terms they are compared by."""

from __future__ import annotations

import re
from collections import Counter, defaultdict
from collections.abc import Iterator, Sequence
from itertools import pairwise

import snowballstemmer

from wide_margin.core.later import regex
from wide_margin.core.layout import UNSPACED, fold
from wide_margin.core.search.vectors import frequency_rank, said_rarely

_WORD = regex(r"[^\W_]+(?:[-'’_.@/+][^\W_]+)*[+#]{0,2}|[^\W_]+")
_PLURAL_NAME = regex(r"[^\W\d].*\ds")
"""More than one of a thing whose name ends in a number."""
_PART = regex(r"[^\W_]+")

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
        wurden zu zum zur diesem diesen ihrem ihren ihrer ihres seinem seinen seiner seines jedem jeden
        jedes keinem keinen keiner einige einigen einiger müssen sollen sollte sollten würde würden
        könnte könnten fuer ueber koennen muessen wuerde waere""",
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
    "sv": """alla allt att av bara blev bli blir därför de dem den denna deras dess dessa det detta du
        då där efter eller en ett fram från för ha hade han har hennes hon hos hur här i icke in inte
        jag kan kunde man med mellan men mer mot mycket ni nu när något några och om oss på samma sedan
        sig sin sina ska skall skulle som så sådan till under upp ut utan vad var vara varför vem vi vid
        vilka vilken vilket är över""",
    "da": """af alle alt anden at blev blive bliver da de dem den denne der deres det dette dig din disse
        dog du efter eller en end er et for fordi fra ham han hans har havde hendes her hos hun hvad
        hvem hver hvilke hvilken hvis hvor hvordan hvorfor i ikke ind jeg kan kunne man mange med meget
        men mere mig min mod ned noget nogle nu når og også om op os over på sig sin skal skulle som
        sådan til ud under var ved vi vil ville være været""",
    "no": """alle alt andre at av ble bli blir bare da de dem den denne der deres det dette disse du
        eller en enn er et etter for fordi fra han har hadde her hos hun hva hvem hver hvilke hvilken
        hvis hvor hvordan hvorfor i ikke inn jeg kan kunne mange man med meg men mer min mot mye må noe
        noen nå når og også om opp oss over på seg sin skal skulle slik som til ut under var ved vi vil
        ville være vært""",
    "fi": """ei eikä eivät en että he hän ja joka joita joka jos jossa jotka jotta kaikki kanssa koska
        kuin kuinka kun kuten me mikä miksi milloin missä mitä mutta myös muut mukaan niiden niin niitä
        ne nyt näin nämä on oli olivat olla ollut ovat se sekä sen siellä sillä sinä sitä tai tämä tämän
        tässä tätä te vain vaan vai voi voidaan voit yli""",
    "hu": """a abban ahogy aki akkor ami amely amelyek az azok azt be csak de ebben egy egyes el elő ez
        ezek ezt és fel hanem hogy hogyan ha ha hol igen így ilyen is itt kell kellett ki le lehet lesz
        meg melyik mert mi miért mikor mint mit már még minden most nagyon nem nincs ő ők ott pedig
        szerint tehát úgy vagy van vannak volt ebben közül között által után alatt""",
    "ro": """a acea aceasta această acest aceste acestea acestui al ale am ar are as au avea ca care ce
        cel cele cine când cu cum că da dacă de deci decât despre din după ea ei el ele era este eu fi
        fie fiecare fost iar în însă la le lor lui mai mult nici nu numai o ori pe pentru poate prin sa
        sau se si și sunt să te tot toate toți un una unde unei unui va vor""",
    "tr": """acaba ama ancak aslında az bazı belki ben bile bir biri biraz bu buna bunu bunun çok çünkü
        da daha de defa değil diye dolayı en gibi göre hem hep her hiç için ile ise kadar ki kim mi mu
        mü nasıl ne neden nerede niçin o olan olarak oldu olduğu olması olur on ona onlar onu onun sonra
        şey şu tüm var ve veya ya yani yok zaman""",
    "pl": """a aby ale albo bo by był była było były być co czy dla do gdy gdzie go i ich ile im inne ja
        jak jako je jego jej jest jeszcze jeśli już każdy kiedy która które którego której który których
        którzy lub ma mają może można na nad nie niego nim o od oraz po pod poza przed przez przy są się
        sobie swoje ta tak także tam te tego tej ten to tu tylko tym tych u w we więc wszystkie z za ze
        że""",
    "cs": """a aby ale ani asi až bez by byl byla byli bylo být co což či další do ho i jak jako je jeho
        jej její jejich jen ještě ji jich jiné jsem jsme jsou k kde kdo kdy když která které kterou který
        kteří ke má mezi mi mu může na nad ne nebo nebyl není než o od po pod podle pokud pro proč proto
        před při s se si své svůj ta tak také takže tato tedy ten tento těchto to toho tohoto tom tomto
        tu už v ve však z za ze že""",
    "ru": """а без более бы был была были было быть в вам вас весь во вот все всё всего всех вы где да
        даже для до его ее её если есть еще ещё же за здесь и из или им их к как какая какие какой когда
        который которая которое которые кто ли между меня мне можно мой мы на над не него нее ней нет
        ни них но ну о об один он она они от очень по под при с со так также такой там то того тоже
        только том ты у уже хотя чего чей чем что чтобы эта эти это этого этой этом этот я""",
    "uk": """а або але без був була були було бути в вже ви від він вона вони воно всі все де для до є з
        за зі і із їх й його її коли крім можна може ми на над не ні під після по при про та так також
        такий таке там те тим тільки той тому ти то у усі це цей цього цієї цих ця ці через чи що щоб
        ще якщо як яка яке яких якої якого який які якій якому я""",
    "el": """αλλά αν ανά από αυτά αυτές αυτή αυτό αυτόν αυτός αυτού αυτών για δε δεν εδώ εκεί ένα ένας ενός
        επειδή επίσης έχει έχετε έχουν ή η ήταν θα και κάθε κατά με μετά μέσα μη μην μια μία μιας μας μόνο
        μπορεί μπορείτε να ο οι όλα όλες όλοι όμως όπου όπως όταν ότι ούτε πιο ποιο πολύ που πρέπει πριν
        προς πως σαν σας σε στα στη στην στις στο στον στους τα τη την της τι τις το τον του τους των
        υπάρχει υπάρχουν χωρίς ως ώστε είναι""",
    "ca": """a abans això al als així altra altre altres amb aquest aquesta aquestes aquests bé cada cal
        com d de del dels des després doncs durant el ell els en entre era és està estan fer fins ha han
        hi ho i l la les li més molt no només o on però perquè per pel pels poden podeu pot qual quals
        quan què que qui quin quina quines quins s sense segons ser seu seus seva seves si sí sobre són
        també té tot tots un una unes uns us vos""",
}  # fmt: skip
SCRIPTS = {
    "zh": regex("[\u4e00-\u9fff]"), "ja": regex("[\u3040-\u30ff]"),
    "ko": regex("[\uac00-\ud7af]"), "ru": regex("[\u0400-\u04ff]"),
    "el": regex("[\u0370-\u03ff]"), "ar": regex("[\u0600-\u06ff]"),
    "he": regex("[\u0590-\u05ff]"),
}  # fmt: skip
"""What finds the letters of a script that tells its language."""
NOT_LATIN = frozenset([*SCRIPTS, "uk"])
"""Languages written in other letters than Latin ones."""
_OF_UKRAINIAN, _OF_RUSSIAN = regex("[іїєґІЇЄҐ]"), regex("[ыэъёЫЭЪЁ]")
"""Letters of one that the other does not have."""
_COMMON_WORDS = {language: frozenset(words.split()) for language, words in _COMMON.items()}
_LANGUAGES_OF: defaultdict[str, list[str]] = defaultdict(list)
"""The languages that each of these words is a small one of."""
for _language, _words in _COMMON_WORDS.items():
    for _word in _words:
        _LANGUAGES_OF[_word].append(_language)
_ASKING = {
    "fr": "depuis qu'est-ce qu'est c'est combien lequel laquelle lesquels lesquelles faut-il est-ce a-t-il peut-on doit-on est-il est-elle sont-ils sont-elles"
          " s'agit-il existe-t-il puis dois peux veux fait font mon ma mes doit doivent peut peuvent faut existe sert servent signifie signifient fonctionne fonctionnent trouve trouvent trouver situé située situés situées appelle appellent",
    "de": "seit wieviel wieviele wievielen wann wieso weshalb wem wen wessen woher wohin wozu worum worin womit wofür wovon woran"
          " mein meine meinem meinen meiner meines dein deine unser unsere mir mich finde bekomme existieren macht tut"
          " welches welchen welchem welcher dient dienen bedeutet bedeuten funktioniert funktionieren liegen liegt befindet befinden steht stehen heißt heißen",
    "es": "cuánto cuánta cuántos cuántas cuáles cuál quiénes quién adónde debe deben puede pueden puedo podemos debo quiero tengo mis hay hace hacen existen sirve sirven significa significan funciona funcionan encuentra encuentran encuentro está ubicado ubicada llama llaman hacer está están estoy estamos estar necesito necesita necesitan",
    "it": "cos'è dov'è com'è qual quanto quanta quanti quante quali quale deve devono può possono posso possiamo devo voglio mio mia miei mie fa fanno esistono perché serve servono significa significano funziona trova trovano trovo situato situata chiama chiamano fare esiste funzionano sto sta stanno stare",
    "pt": "desde quanto quanta quantos quantas quais qual deve devem pode podem posso devo quero meu minha meus minhas faz fazem existem serve servem significa significam funciona funcionam fica ficam encontra encontram encontro localiza chama chamam fazer estão estou estava preciso precisa",
    "nl": "sinds hoeveel hoelang moet moeten kan kunnen mijn onze doet doen bestaan waarvoor waarmee waarin dient dienen betekent betekenen werkt werken vind vinden staat staan ligt liggen bevindt bevinden heet heten bestaat",
    "sv": "hur många mycket varför vilka vilken vilket vart när vem måste behöver behövs kan får finns gör betyder fungerar",
    "da": "hvor mange meget hvorfor hvilke hvilken hvilket hvad hvem hvornår skal kan må findes gør betyder virker",
    "no": "hvor mange mye hvorfor hvilke hvilken hvilket hva hvem når skal kan må finnes gjør betyr virker",
    "fi": "kuka ketkä kenen montako paljonko mitkä mihin mistä milloin millainen miksi miten pitää täytyy voiko voinko tarkoittaa toimii",
    "hu": "hány mennyi mennyit mely mik kik kié hová honnan mikor milyen miért tud kell szabad jelent működik",
    "ro": "cât câtă câți câte care cui unde când cum ce cine pot poate trebuie înseamnă funcționează",
    "tr": "kaç kaçı hangi hangisi kimin nereye nereden nedir kimdir nelerdir gerekir yapılır demek çalışır",
    "uk": "скільки чому навіщо хто кого чия чиї куди звідки повинен потрібно означає служить працює роблять",
    "el": "πόσο πόση πόσος πόσα πόσες πόσοι ποια ποιες ποιος ποιοι ποιον ποιου πώς πού πότε γιατί χρειάζομαι χρειάζεται μπορώ κάνω κάνει σημαίνει λειτουργεί",
    "ca": "quant quanta quants quantes puc podem haig heu fa fan existeix existeixen serveix serveixen significa funciona necessito",
    "pl": "ile jaki jaka jakie jakich które których kto kogo dlaczego czemu gdzie kiedy czy musi może znaczy oznacza służy służą działa",
    "cs": "kolik kolika jaký jaká jaké jakých které který co čem čím kdo koho proč kde kdy kam odkud musí může mohu můžu mám potřebuji znamená slouží funguje", "ru": "такое сколько почему зачем какой какая какое какие кто кого где когда должен может значит означает служит служат работает",
    # Signs that follow each other, where no blanks part words.
    "zh": "什么 么是 是什 么叫 如何 怎么 么样 怎样 多少 哪些 哪个 为什 谁是 何时 在哪 哪里 可以 能否 是否",
    "ja": "とは は何 何で です すか ます たか るか 何か どの のよ よう うに どう うや やっ って なぜ どこ こで いつ 誰が いく くつ",
}  # fmt: skip
"""Words with which one asks, and which a text has too seldom to be among its small words."""
_CARRY_NO_TOPIC = {
    language: _COMMON_WORDS.get(language, _COMMON_WORDS["en"])
    | frozenset(_ASKING.get(language, "").split())
    for language in (*_COMMON_WORDS, "zh", "ja")
}
_STEMMERS = {"en": "english", "de": "german", "fr": "french", "es": "spanish",
             "it": "italian", "pt": "portuguese", "nl": "dutch", "sv": "swedish", "da": "danish",
             "no": "norwegian", "fi": "finnish", "hu": "hungarian", "ro": "romanian",
             "tr": "turkish", "pl": "polish", "cs": "czech", "ru": "russian", "el": "greek",
             "ar": "arabic", "ca": "catalan", "uk": "russian"}  # fmt: skip
"""Ukrainian bends its words much as Russian does; it has no stemmer of its own."""
_BRITISH_ENDINGS = {
    "isation": "ization", "ise": "ize", "ising": "izing", "ised": "ized", "iser": "izer", "our": "or",
    "oured": "ored", "ogue": "og", "metre": "meter", "litre": "liter", "fibre": "fiber",
    "programme": "program",
}  # fmt: skip
"""Ends of British words, and what they are in American ones; with three letters before them."""
_BRITISH_WORDS = {
    "licence": "license", "centre": "center", "centred": "centered", "metre": "meter",
    "litre": "liter", "fibre": "fiber", "theatre": "theater", "grey": "gray",
    "programme": "program", "defence": "defense", "offence": "offense", "analyse": "analyze",
    "analysed": "analyzed", "analysing": "analyzing", "analyser": "analyzer",
}  # fmt: skip
_BRITISH_ENDS = tuple(_BRITISH_ENDINGS)
_EITHER_ENDS = (*_BRITISH_ENDINGS, *_BRITISH_ENDINGS.values())
_EITHER_WORDS = frozenset([*_BRITISH_WORDS, *_BRITISH_WORDS.values()])
_FEWEST_BEFORE = 3
"""Letters before a British ending: "hour" and "rise" have none."""


_UNSPACED_RUN = regex(f"[{UNSPACED}]+")
_RAISED = regex(r"[²³¹⁰⁴-⁹₀-₉]")
_RAISED_END = regex(r"(?<=[^\W\d_]{3})[²³¹⁰⁴-⁹]+")
"""The mark of a note, or a sign that nobody types with the name: what follows a single letter is
its power."""
_LOWERED = str.maketrans("₀₁₂₃₄₅₆₇₈₉", "0123456789")


def find_words(text: str) -> list[str]:
    """The words of a text that is in small letters already.

    Where a script puts no blanks between words, every two signs that follow each other are one:
    what is asked for and what is written then meet without a dictionary.
    """
    return _WORD.findall(text if text.isascii() else _in_pairs(text))


def _in_pairs(text: str) -> str:
    if _RAISED.search(text):
        text = _RAISED_END.sub("", text).translate(_LOWERED)
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

    "en", "de", "fr" and so on; English where the text has none of them. A single letter may be one
    of a formula.
    """
    return _told_language(sample)[0] or "en"


OF_SMALL_WORDS, FEWEST_WORDS = 0.2, 12
"""Share of the words of a page that are small ones of its language at least, and how many words it
has: a table, a program, and music are in none."""
FEWEST_TOLD = 3
"""Pages that tell what most are written in."""


def language_of(pages: Sequence[str]) -> str:
    """The language that most pages are written in, as its code.

    One that has more words on fewer pages is not the document's: that of a licence, or of the
    parts of a translation that are left to do.
    """
    told = (_told_language(page) for page in pages)
    votes = Counter(
        language for language, share, n in told
        if language and share >= OF_SMALL_WORDS and n >= FEWEST_WORDS
    )  # fmt: skip
    if votes.total() < FEWEST_TOLD:
        return guess_language(" ".join(pages))
    return votes.most_common(1)[0][0]


def _told_language(text: str) -> tuple[str, float, int]:
    """The language of a text, "" for none, the share of its words that tell it, and how many."""
    if (script := _by_script(text)) is not None:
        return script, 1.0, len(text)
    counts = Counter(word for word in words(text) if len(word) > 1)
    scores = dict.fromkeys(_COMMON_WORDS, 0)
    for word, n in counts.items():
        for language in _LANGUAGES_OF.get(word, ()):
            scores[language] += n
    best = max(scores, key=lambda language: scores[language])
    n_words = counts.total()
    return best if scores[best] else "", scores[best] / max(n_words, 1), n_words


CLEARLY = 2
"""Small words that a question has more of another language than of the document's."""
FEWEST_ASKED = 3
"""Words of a question whose first may tell its language."""
DENSE = 3
"""Letters that say as much as a sign of Chinese."""


def _by_script(sample: str) -> str | None:
    """The language that a script of its own tells; None for Latin letters."""
    counts = Counter({code: len(letters.findall(sample)) for code, letters in SCRIPTS.items()})
    more = (DENSE - 1) * counts["zh"]
    n_letters = sum(map(str.isalpha, sample)) + more
    counts["zh"] += more
    code, most = counts.most_common(1)[0]
    if most <= 0.3 * n_letters or not most:
        return "ja" if counts["ja"] > 0.05 * n_letters else None
    if code == "ru" and len(_OF_UKRAINIAN.findall(sample)) > len(_OF_RUSSIAN.findall(sample)):
        return "uk"
    # Japanese has the signs of Chinese beside its own.
    return "ja" if code == "zh" and counts["ja"] > 0.05 * n_letters else code


def is_common(word: str, language: str = "en") -> bool:
    """Whether a word is one of the small words that carry no topic, or one with which one asks."""
    return word.replace("’", "'") in _CARRY_NO_TOPIC.get(language, _CARRY_NO_TOPIC["en"])


def language_asked(text: str, language: str) -> str:
    """The language of a question of a document, as its code; the document's unless it is clear.

    A document in parts of another language than most of it is asked in that one, too. One word is
    enough where it comes first, none of the document's language is there, and it is no usual word
    in English: "Kolik lan potřebuji?", but not "Fan speed limits".
    """
    asked = set(words(text))
    n_small = {each: len(asked & small) for each, small in _CARRY_NO_TOPIC.items()}
    other = max(n_small, key=lambda each: n_small[each])
    own = n_small.get(language, 0)
    if n_small[other] >= own + CLEARLY:
        return other
    first = next(words(text), "")
    is_led = not own and len(asked) >= FEWEST_ASKED and first in _CARRY_NO_TOPIC[other]
    return other if is_led and said_rarely(first) == 1 else language


def common_words(language: str) -> frozenset[str]:
    """The small words of a language; none where it is not known."""
    return _COMMON_WORDS.get(language, frozenset())


class Analyser:
    """Turns words to terms in one language; remembers every word it has seen."""

    def __init__(self, language: str = "en") -> None:
        """Choose the stemmer (Snowball: Porter 2001) for a language, that of English if unknown."""
        self.language = language
        known = _STEMMERS.get(language, "")
        self._stemmer = snowballstemmer.stemmer(
            known if known in snowballstemmer.algorithms() else _STEMMERS["en"]
        )
        self._known: dict[str, tuple[str, ...]] = {}

    def __reduce__(self) -> tuple[type[Analyser], tuple[str]]:
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
        if self.language == "fr" and (asked := _INVERTED.fullmatch(plain)) is not None:
            plain = asked[1]
        if self.language == "en" and _PLURAL_NAME.fullmatch(plain):
            plain = plain[:-1]
        parts = _PART.findall(plain)
        if len(parts) < 2:
            return (self._stem(plain),) if plain else ()
        if plain.replace(".", "").replace("/", "").isdigit():
            return (plain,)  # a number with decimals stays whole
        # The whole is stemmed as one word: "file-names" are "filenames".
        return (self._stem("".join(parts)), *map(self._stem, parts))

    def _stem(self, word: str) -> str:
        plain = _OF_NOUN.sub("ence", _american(word)) if self.language == "en" else _borrowed(word)
        stem: str = self._stemmer.stemWord(plain)
        return stem


_OF_NOUN = regex(r"enc(?:ing|ed)$")
"""Ends the verb of a noun in "-ence": the stemmer takes more from "reference" than from it."""


_INVERTED = regex(r"([a-z]+)-(?:t-)?(?:ils?|elles?|on|je|tu|nous|vous|ce)")
"""A verb with its subject behind it, in a French question: "existe-t-il"."""
_BORROWED_PLURAL = regex(r"[a-z]{2,}[b-df-hj-np-rtv-xz]s")
"""May be an English plural: few other languages end words in a consonant and "s"."""


def _borrowed(word: str) -> str:
    """A word of another language without the "s" of an English plural: "drivers" in Portuguese."""
    is_plural = _BORROWED_PLURAL.fullmatch(word) is not None
    return word[:-1] if is_plural and frequency_rank(word[:-1]) is not None else word


def _american(word: str) -> str:
    """A word as it is spelled in America, its plural too: "colours" and "colors" are one."""
    one = word[:-1] if word[-1:] == "s" and word != "analyses" else word
    if one in _BRITISH_WORDS:
        return _BRITISH_WORDS[one] + word[len(one) :]
    if one.endswith(_BRITISH_ENDS):
        for british, american in _BRITISH_ENDINGS.items():
            if one.endswith(british) and len(one) >= len(british) + _FEWEST_BEFORE:
                return one[: -len(british)] + american + word[len(one) :]
    return word


def has_two_spellings(word: str) -> bool:
    """Whether a word may be spelled otherwise in Britain or in America."""
    one = word.removesuffix("s")
    return (
        "l" in word or one.endswith(_EITHER_ENDS) or one in _EITHER_WORDS or word in _EITHER_WORDS
    )


def spelled_otherwise(word: str, other: str) -> bool:
    """Whether two words are one, spelled as in Britain and in America: "travelling", "traveling"."""
    return word != other and _in_one_spelling(word) == _in_one_spelling(other)


def _in_one_spelling(word: str) -> str:
    return _american(word).replace("ll", "l")
