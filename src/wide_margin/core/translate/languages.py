"""Target languages by their codes (ISO 639-1)."""

LANGUAGES = {
    "en": "English", "de": "German", "fr": "French", "es": "Spanish", "it": "Italian",
    "pt": "Portuguese", "nl": "Dutch", "pl": "Polish", "cs": "Czech", "sv": "Swedish",
    "da": "Danish", "fi": "Finnish", "tr": "Turkish", "ru": "Russian", "uk": "Ukrainian",
    "ar": "Arabic", "he": "Hebrew", "zh": "Chinese", "ja": "Japanese", "ko": "Korean",
}  # fmt: skip
RIGHT_TO_LEFT = frozenset(["ar", "he", "fa", "ur"])


def language_name(code: str) -> str:
    """English name of a language; the code itself where it is not known."""
    return LANGUAGES.get(code, code)
