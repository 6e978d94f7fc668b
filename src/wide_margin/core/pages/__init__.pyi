from .model import (
    LINE_END_HYPHEN,
    LOOSE_ACCENTS,
    MARK_AFTER_WORD,
    OWN_LIGATURES,
    PARTS,
    Bookmark,
    FileFacts,
    Font,
    Frame,
    Link,
    PageText,
    Picture,
)

__all__ = [
    "LINE_END_HYPHEN",
    "LOOSE_ACCENTS",
    "MARK_AFTER_WORD",
    "OWN_LIGATURES",
    "PARTS",
    "Bookmark",
    "FileFacts",
    "Font",
    "Frame",
    "Link",
    "PageText",
    "Picture",
]
