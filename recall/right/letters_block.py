from ovlo import drawing


def letter_l(nib, size):
    nib.left(90)
    nib.forward(size)
    nib.back(size)
    nib.right(90)
    nib.forward(size / 2)


def letter_o(nib, size):
    nib.rectangle(size / 2, size)


def letter_c(nib, size):
    nib.forward(size / 2)
    nib.back(size / 2)
    nib.left(90)
    nib.forward(size)
    nib.right(90)
    nib.forward(size / 2)


@drawing
def col(nib):
    nib.line_width = 6
    nib.travel_to(-150, -50)
    letter_c(nib, 100)
    nib.travel_to(0, 0)
    letter_o(nib, 100)
    nib.travel_to(80, -50)
    letter_l(nib, 100)
