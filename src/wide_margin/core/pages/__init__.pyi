from .model import (
    LINE_END_HYPHEN,
    LOOSE_ACCENTS,
    OWN_LIGATURES,
    PARTS,
    Bookmark,
    FileFacts,
    Font,
    Frame,
    Link,
    PageText,
    Picture,
    marks_in,
)

__all__ = [
    "LINE_END_HYPHEN",
    "LOOSE_ACCENTS",
    "OWN_LIGATURES",
    "PARTS",
    "Bookmark",
    "FileFacts",
    "Font",
    "Frame",
    "Link",
    "PageText",
    "Picture",
    "marks_in",
]
