"""Bitmaps and text of the pages near the view, asked for newest first and kept within bounds."""

from __future__ import annotations

import base64
from collections import OrderedDict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtCore import QBuffer, QObject, Signal
from PySide6.QtGui import QImage

from wide_margin.core.geometry import Box
from wide_margin.core.later import loaded_later
from wide_margin.core.layout import boxes_of
from wide_margin.core.session import Session

if TYPE_CHECKING:
    import numpy as np

    from wide_margin.core.errors import WideMarginError
    from wide_margin.core.layout import SpanOnPage, TextLayer
    from wide_margin.core.pages import Link, Picture
    from wide_margin.desktop.background import Background
else:
    np = loaded_later("numpy")

MAX_BYTES = 160_000_000
MAX_LAYERS = 80
MAX_PASSAGES = 2000
"""Passages whose boxes are remembered: the margin asks for all of them whenever one moves."""
AT_ONCE = 2
"""Bitmaps asked for at once: few, so that a newer wish does not wait behind older ones."""


@dataclass(slots=True)
class PageImage:
    """A drawn page."""

    image: QImage
    scale: float
    """Device pixels for each point."""
    is_night: bool
    clip: Box | None = None
    """The part of the page it shows, the whole where None."""


@dataclass(frozen=True, slots=True)
class _Request:
    session: Session
    page: int
    scale: float
    night: bool
    clip: Box | None = None


class PageImages(QObject):
    """Asks a session for what is wanted and keeps what came."""

    image_arrived = Signal(int)
    layer_arrived = Signal(int)
    page_failed = Signal(int, object)

    def __init__(self, background: Background, parent: QObject) -> None:
        super().__init__(parent)
        self._background = background
        self._session: Session | None = None
        self._images: OrderedDict[int, PageImage] = OrderedDict()
        self._layers: OrderedDict[int, TextLayer] = OrderedDict()
        self._boxes: dict[tuple[int, tuple[SpanOnPage, ...]], tuple[TextLayer, list[Box]]] = {}
        self._asked_images: set[int] = set()
        self._asked_layers: set[int] = set()
        self._links: OrderedDict[int, tuple[Link, ...]] = OrderedDict()
        self._details: dict[int, PageImage] = {}
        self._asked_details: set[int] = set()
        self._wanted: list[int] = []
        self._scale, self._night = 1.0, False
        self.failures: dict[int, WideMarginError] = {}

    def show(self, session: Session | None) -> None:
        """Change to another document."""
        self._session = session
        stores = (self._images, self._layers, self._boxes, self._links, self._asked_images,
                  self._asked_layers)  # fmt: skip
        for kept in (*stores, self.failures, self._details, self._asked_details):
            kept.clear()
        self._wanted = []

    def boxes_of(self, page: int, spans: Sequence[SpanOnPage]) -> list[Box]:
        """Boxes, in page space, of what passages cover of a page; none where it is not at hand."""
        layer, key = self.layer(page), (page, tuple(spans))
        if layer is None:
            return []
        known = self._boxes.get(key)
        if known is None or known[0] is not layer:
            if len(self._boxes) >= MAX_PASSAGES:
                self._boxes.clear()
            known = self._boxes[key] = layer, boxes_of(layer.page, spans)
        return known[1]

    def image(self, page: int) -> PageImage | None:
        """What is there of a page, perhaps at another scale than wanted."""
        return self._images.get(page)

    def layer(self, page: int) -> TextLayer | None:
        """Text of a page, None until it has come."""
        return self._layers.get(page)

    def links(self, page: int) -> tuple[Link, ...]:
        """Link areas of a page, none until they have come."""
        return self._links.get(page, ())

    def detail(self, page: int) -> PageImage | None:
        """A sharper picture of a part of a page, for pages too large to be drawn whole."""
        detail = self._details.get(page)
        return detail if detail is not None and detail.is_night == self._night else None

    def want_detail(self, page: int, clip: Box, scale: float) -> None:
        """Ask for a part of a page at full scale, unless one at hand shows it."""
        have = self._details.get(page)
        if have is not None and have.clip is not None and abs(have.scale - scale) < 0.005 * scale:
            inside = have.clip[0] <= clip[0] and have.clip[1] <= clip[1]
            if inside and have.clip[2] >= clip[2] and have.clip[3] >= clip[3]:
                return
        if self._session is None or page in self._asked_details:
            return
        self._asked_details.add(page)
        request = _Request(self._session, page, scale, self._night, clip)
        self._background.watch(
            self._session.draw(page, scale, clip),
            done=partial(self._detail_came, request),
            failed=lambda _: self._asked_details.discard(page),
        )

    def _detail_came(self, request: _Request, picture: Picture) -> None:
        self._asked_details.discard(request.page)
        if request.session is self._session:
            image = image_from(picture, night=request.night)
            detail = PageImage(image, request.scale, request.night, request.clip)
            self._details = {request.page: detail, **dict(list(self._details.items())[:1])}
            self.image_arrived.emit(request.page)

    def want(self, pages: Sequence[int], scale: float, *, night: bool) -> None:
        """Ask for pages at a scale, the most wanted first; older wishes are dropped."""
        self._wanted, self._scale, self._night = list(pages), scale, night
        self._ask()

    def retry(self, page: int) -> None:
        """Forget that a page failed."""
        self.failures.pop(page, None)
        self._ask()

    def forget_text(self, pages: Iterable[int]) -> None:
        """The text of some pages has changed: it is asked for again."""
        for page in pages:
            self._layers.pop(page, None)
            self._asked_layers.discard(page)

    def need_layer(self, page: int) -> None:
        """Ask for the text of a page out of turn."""
        if self._session is None or page in self._layers or page in self._asked_layers:
            return
        self._asked_layers.add(page)
        session = self._session
        self._background.watch(
            session.text(page),
            done=lambda layer: self._layer_came(session, layer),
            failed=lambda _: self._asked_layers.discard(page),
        )

    def _is_fresh(self, page: int) -> bool:
        image = self._images.get(page)
        return (
            image is not None
            and image.is_night == self._night
            and abs(image.scale - self._scale) < 0.005 * self._scale
        )

    def _ask(self) -> None:
        if self._session is None:
            return
        for page in self._wanted:
            if len(self._asked_images) >= AT_ONCE:
                break
            if page in self._asked_images or page in self.failures or self._is_fresh(page):
                continue
            self._asked_images.add(page)
            request = _Request(self._session, page, self._scale, self._night)
            self._background.watch(
                self._session.draw(page, request.scale),
                done=partial(self._image_came, request),
                failed=partial(self._no_image, request),
            )
        for page in self._wanted:
            self.need_layer(page)

    def _image_came(self, request: _Request, picture: Picture) -> None:
        if request.session is not self._session:
            return  # of a document that is no longer shown
        page = request.page
        self._asked_images.discard(page)
        image = image_from(picture, night=request.night)
        self._images[page] = PageImage(image, request.scale, request.night)
        self._images.move_to_end(page)
        total = sum(i.image.sizeInBytes() for i in self._images.values())
        while total > MAX_BYTES and len(self._images) > 3:
            _, dropped = self._images.popitem(last=False)
            total -= dropped.image.sizeInBytes()
        self.image_arrived.emit(page)
        self._ask()

    def _no_image(self, request: _Request, error: WideMarginError) -> None:
        if request.session is not self._session:
            return
        page = request.page
        self._asked_images.discard(page)
        self.failures[page] = error
        self.page_failed.emit(page, error)
        self._ask()

    def _layer_came(self, session: Session, layer: TextLayer) -> None:
        if session is not self._session:
            return
        page = layer.page.index
        self._asked_layers.discard(page)
        self._background.watch(
            session.links(page), done=lambda links: self._links_came(session, page, links)
        )
        self._layers[page] = layer
        while len(self._layers) > MAX_LAYERS:
            self._layers.popitem(last=False)
        self.layer_arrived.emit(page)

    def _links_came(self, session: Session, page: int, links: tuple[Link, ...]) -> None:
        if session is self._session:
            self._links[page] = links
            while len(self._links) > MAX_LAYERS:
                self._links.popitem(last=False)


def image_from(picture: Picture, *, night: bool = False) -> QImage:
    """A Qt image of a picture; at night with its luminance turned over and its hues kept.

    Pure blue is as light as pure yellow in HSL; what counts on a dark page is how bright it looks.
    """
    data = picture.data
    if night:
        pixels = np.frombuffer(data, np.uint8).reshape(picture.height, picture.stride // 4, 4)
        colour = pixels[:, :, :3].astype(np.int32)
        # Rec. 601 luma; the same amount is added to each of the three.
        luma = (29 * colour[:, :, 0] + 150 * colour[:, :, 1] + 77 * colour[:, :, 2]) >> 8
        turned = np.clip(colour + (255 - 2 * luma)[:, :, None], 0, 255)
        dark = np.full_like(pixels, 255)
        # Not to black: the page keeps the warmth of the paper it stands on.
        dark[:, :, :3] = (18 + turned * (228 - 18) // 255).astype(np.uint8)
        data = dark.tobytes()
    image = QImage(data, picture.width, picture.height, picture.stride, QImage.Format.Format_RGB32)
    return image.copy()  # the bytes may go


def png_of(image: QImage) -> str:
    """An image as PNG in base 64."""
    data = QBuffer()
    data.open(QBuffer.OpenModeFlag.WriteOnly)
    image.save(data, "PNG")  # type: ignore[call-overload]
    return base64.b64encode(data.data().data()).decode()
