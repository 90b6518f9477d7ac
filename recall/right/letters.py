from ovlo import drawing


def letter_e(nib):
    nib.forward(40)
    nib.back(40)
    nib.left(90)
    nib.forward(40)
    nib.right(90)
    nib.forward(30)
    nib.back(30)
    nib.left(90)
    nib.forward(40)
    nib.right(90)
    nib.forward(40)


def letter_z(nib):
    nib.forward(50)
    nib.back(50)
    nib.left(58)
    nib.forward(94)
    nib.left(122)
    nib.forward(50)


@drawing
def words(nib):
    nib.line_width = 5
    nib.travel_to(-120, 0)
    with nib.returning():
        letter_e(nib)
    nib.travel(70)
    letter_z(nib)
