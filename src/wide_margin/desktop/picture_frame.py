"""A picture of a strip of a page, as wide as there is room."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QImage, QPixmap, QResizeEvent

from wide_margin.desktop.words import Words


class PictureFrame(Words):
    """Fits its picture to its width; where it is too high, the top of it is seen."""

    def __init__(self, *, highest: int = 0) -> None:
        """Set the pixels of height that it always has, 0 for those that the picture needs."""
        super().__init__()
        self.setObjectName("pictureFrame")
        self.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self._highest = highest
        if highest:
            self.setFixedHeight(highest)
        else:
            self.setMinimumHeight(40)
        self._image = QImage()

    def wait_for(self, name: str) -> None:
        """Nothing to see yet."""
        self._image = QImage()
        self.clear()
        self.setAccessibleName(name)

    def show_image(self, image: QImage) -> None:
        """Show a picture."""
        self._image = image
        self._fit()

    @property
    def has_image(self) -> bool:
        """Whether the picture is there."""
        return not self._image.isNull()

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Fit the width."""
        super().resizeEvent(event)
        self._fit()

    def _fit(self) -> None:
        if self._image.isNull():
            return
        ratio = self.devicePixelRatioF()
        strip = self._image.scaledToWidth(
            int(max(self.width() - 2, 60) * ratio), Qt.TransformationMode.SmoothTransformation
        )
        if self._highest:
            seen = min(strip.height(), int((self._highest - 2) * ratio))
            strip = strip.copy(0, 0, strip.width(), seen)
        strip.setDevicePixelRatio(ratio)
        self.setPixmap(QPixmap.fromImage(strip))
        if not self._highest:
            self.setFixedHeight(int(strip.height() / ratio) + 2)
