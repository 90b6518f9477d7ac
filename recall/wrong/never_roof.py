from ovlo import drawing


def roof(nib, width):
    for _ in nib.full_turn(3):
        nib.forward(width)


def walls(nib, width):
    nib.forward(width)
    nib.right(90)
    nib.forward(width / 2)
    nib.right(90)
    nib.forward(width)
    nib.right(90)
    nib.forward(width / 2)
    nib.right(90)


@drawing
def hut(nib, width: float = 120):
    walls(nib, width)  # wrong (unused-function): walls(nib, width); roof(nib, width)
