from ovlo import drawing


@drawing
def two_kites(nib):
    for _ in range(4):
        nib.forward(90)
        nib.left(90)
    nib.right(35)
    nib.forward(200)  # wrong (stray-line): nib.travel(200)
    for _ in range(3):
        nib.forward(90)
        nib.left(120)
