from PySide6.QtWidgets import QPushButton, QWidget

from wide_margin.desktop.flow import Flow


def flow_of(n):
    holder, flow = QWidget(), Flow(apart=10, between=4)
    holder.setLayout(flow)
    buttons = [QPushButton(f"word {k}") for k in range(n)]
    for button in buttons:
        button.setFixedSize(80, 20)
        flow.addWidget(button)
    return holder, flow, buttons


def test_what_fits_stands_in_one_line(qtbot):
    holder, flow, buttons = flow_of(3)
    assert flow.heightForWidth(260) == 20
    holder.resize(260, 20)
    holder.show()
    assert [button.x() for button in buttons] == [0, 90, 180]


def test_what_does_not_fit_goes_on_in_the_next_line(qtbot):
    holder, flow, buttons = flow_of(3)
    assert flow.heightForWidth(259) == 44
    holder.resize(200, 44)
    holder.show()
    assert [(button.x(), button.y()) for button in buttons] == [(0, 0), (90, 0), (0, 24)]


def test_hidden_words_take_no_room(qtbot):
    holder, flow, buttons = flow_of(3)
    holder.show()
    buttons[1].hide()
    assert flow.heightForWidth(170) == 20
    assert flow.minimumSize().width() == 80
    assert flow.count() == 3
    assert flow.takeAt(0).widget() is buttons[0]
    assert flow.takeAt(9) is None
